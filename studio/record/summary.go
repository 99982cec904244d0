package record

import (
	"cmp"
	"context"
	"encoding/json"
	"slices"
	"strconv"
	"time"

	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// Summary returns what was taught in a year, for a studio or a training school; 0 is the year of the clock. A class
// that is being led is not in it yet.
func (r *Records) Summary(ctx context.Context, year int) (contract.Summary, error) {
	zone := r.studio.Now().Location()
	if year == 0 {
		year = r.studio.Now().Year()
	}
	summary := contract.Summary{
		Year:      year,
		Practices: []contract.PracticeSum{},
		Groups:    []contract.GroupSum{},
		Months:    []contract.MonthSum{},
	}
	if err := r.allDigested(ctx); err != nil {
		return summary, err
	}
	from, to := time.Date(year, time.January, 1, 0, 0, 0, 0, zone), time.Date(year+1, time.January, 1, 0, 0, 0, 0, zone)
	list, err := r.find(ctx, store.Search{
		From: from, To: to, Over: true, Sums: true, Records: true, Most: mostClassesInFile,
	})
	if err != nil {
		return summary, err
	}
	groups, err := r.library.EveryGroupByID(ctx)
	if err != nil {
		return summary, err
	}
	book, err := r.library.PracticeNames(ctx)
	if err != nil {
		return summary, err
	}
	there, err := r.studio.Store.With(ctx).NewestRemarks(remarkPeople, from, to)
	if err != nil {
		return summary, err
	}
	var sum taught.Sum
	people := map[int64][]int{} // by group
	byGroup := map[int64]*contract.GroupSum{}
	byMonth := map[time.Month]*contract.MonthSum{}
	for _, one := range slices.Backward(list) {
		var class taught.Sum
		if err := json.Unmarshal(one.Digest.Sum, &class); err != nil {
			r.studio.NoteDamage(store.KindClass, one.Class.ID, err)
			continue
		}
		sum.Join(class)
		group, month := one.GroupID, one.StartedAt.In(zone).Month()
		if byGroup[group] == nil {
			byGroup[group] = &contract.GroupSum{}
			if g := groups[group]; g != nil {
				byGroup[group].Name, byGroup[group].Level = g.Name, g.Level
			}
		}
		if byMonth[month] == nil {
			byMonth[month] = &contract.MonthSum{Month: int(month)}
		}
		byGroup[group].Classes++
		byGroup[group].TaughtMS += one.Digest.LengthMS
		byMonth[month].Classes++
		byMonth[month].TaughtMS += one.Digest.LengthMS
		if n, err := strconv.Atoi(there[one.Class.ID]); err == nil {
			people[group] = append(people[group], n)
		}
	}
	sum.Sort()
	summary.Classes, summary.TaughtMS, summary.TalksMS, summary.FreeMS = sum.Classes, sum.Taught, sum.Talks, sum.Free
	for _, p := range sum.Practices {
		summary.Practices = append(summary.Practices, contract.PracticeSum{
			Practice:  p.Practice,
			Name:      cmp.Or(book[p.Practice], p.Name),
			Classes:   p.Classes,
			Rounds:    p.Rounds,
			LedMS:     p.Led,
			OwnPaceMS: p.OwnPace,
			TrialMS:   p.Trial,
		})
	}
	of := r.learnedIn(ctx, list)
	for id, g := range byGroup {
		g.People = mean(people[id])
		if of[id] == nil {
			of[id] = &learned{}
		}
		of[id].in(g, book)
		summary.Groups = append(summary.Groups, *g)
	}
	slices.SortFunc(summary.Groups, func(a, b contract.GroupSum) int {
		return cmp.Or(cmp.Compare(b.TaughtMS, a.TaughtMS), cmp.Compare(a.Name, b.Name))
	})
	for month := time.January; month <= time.December; month++ {
		if byMonth[month] != nil {
			summary.Months = append(summary.Months, *byMonth[month])
		}
	}
	return summary, nil
}

// mean is rounded to tenths; 0 if there is nothing.
func mean(list []int) float64 {
	if len(list) == 0 {
		return 0
	}
	sum := 0
	for _, n := range list {
		sum += n
	}
	return float64(sum*10/len(list)) / 10
}
