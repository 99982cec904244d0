package record

import (
	"cmp"
	"encoding/json"
	"slices"
	"strconv"
	"time"

	"vastlantern/core/plan"
	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// summed is what a sum needs of a taught.Passage: reading all of it takes three times as long.
type summed struct {
	Name, Practice string
	Type           plan.Type
	OwnPace, Trial bool
	Length         int64
	Rounds         int
}

// Summary is what was taught in a year, for a studio or a training school; 0 is the year of the clock. A class that is
// being led is not in it yet.
func (r *Records) Summary(year int) (contract.Summary, error) {
	zone := r.studio.Now().Location()
	if year == 0 {
		year = r.studio.Now().Year()
	}
	summary := contract.Summary{Year: year, Practices: []contract.PracticeSum{}, Groups: []contract.GroupSum{}, Months: []contract.MonthSum{}}
	if err := r.allDigested(); err != nil {
		return summary, err
	}
	list, err := r.taughtIn(year, zone)
	if err != nil {
		return summary, err
	}
	groups, err := r.library.EveryGroupByID()
	if err != nil {
		return summary, err
	}
	book, err := r.library.PracticeNames()
	if err != nil {
		return summary, err
	}
	there, err := r.studio.Store.NewestRemarks(remarkPeople)
	if err != nil {
		return summary, err
	}
	var sum taught.Sum
	people := map[int64][]int{} // by group
	byGroup := map[int64]*contract.GroupSum{}
	byMonth := map[time.Month]*contract.MonthSum{}
	for _, one := range slices.Backward(list) {
		sum.Add(one.Digest.LengthMS, one.passages)
		group, month := one.GroupID, one.StartedAt.In(zone).Month()
		if byGroup[group] == nil {
			byGroup[group] = &contract.GroupSum{}
			if g := groups[group]; g != nil {
				byGroup[group].Name = g.Name
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
			Practice: p.Practice, Name: cmp.Or(book[p.Practice], p.Name), Classes: p.Classes, Rounds: p.Rounds, LedMS: p.Led, OwnPaceMS: p.OwnPace, TrialMS: p.Trial,
		})
	}
	for id, g := range byGroup {
		g.People = mean(people[id])
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

// year is the classes of one, good until a class changes.
type year struct {
	year    int
	changes int64
	classes []taughtClass
}

// taughtClass is a class with what a sum needs of it.
type taughtClass struct {
	store.Listed
	passages []taught.Passage
}

// taughtIn is the classes of a year, the newest first. Reading what was taught in five hundred takes a while, and is done again
// only when a class has changed.
func (r *Records) taughtIn(number int, zone *time.Location) ([]taughtClass, error) {
	r.remembering.Lock()
	defer r.remembering.Unlock()
	changes := r.studio.Changes() // before anything is read
	if known := r.year; known.year == number && known.changes == changes {
		return known.classes, nil
	}
	list, err := r.find(store.Search{
		From: time.Date(number, time.January, 1, 0, 0, 0, 0, zone), To: time.Date(number+1, time.January, 1, 0, 0, 0, 0, zone),
		Over: true, Records: true, Most: mostClassesInFile,
	})
	if err != nil {
		return nil, err
	}
	classes := make([]taughtClass, 0, len(list))
	for _, one := range list {
		var read []summed
		if err := json.Unmarshal(one.Digest.Record, &read); err != nil {
			r.studio.NoteDamage(store.KindClass, one.Class.ID, err)
			continue
		}
		one.Digest.Record = nil // is long, and read
		class := taughtClass{one, make([]taught.Passage, len(read))}
		for i, p := range read {
			class.passages[i] = taught.Passage{Name: p.Name, Practice: p.Practice, Type: p.Type, OwnPace: p.OwnPace, Trial: p.Trial, Length: p.Length, Rounds: p.Rounds}
		}
		classes = append(classes, class)
	}
	r.year = year{number, changes, classes}
	return classes, nil
}

// mean is rounded to tenths; 0 where there is nothing.
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
