package record

import (
	"bytes"
	"cmp"
	"context"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strconv"

	"vastlantern/core/care"
	"vastlantern/core/fact"
	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// learned is what a group was taught in a year.
type learned struct {
	practices map[string]*contract.GroupPractice
	highest   map[string]taught.Passage // by practice, what asked for most
	cautions  map[string]int            // by aspect, in how many classes it was read before
}

// add takes a class into account.
func (l *learned) add(passages []taught.Passage, acknowledged []string) {
	if l.practices == nil {
		l.practices, l.highest = map[string]*contract.GroupPractice{}, map[string]taught.Passage{}
		l.cautions = map[string]int{}
	}
	here := map[string]bool{}
	for _, p := range passages {
		if p.Practice == "" || p.Trial || p.Length == 0 {
			continue
		}
		one := l.practices[p.Practice]
		if one == nil {
			one = &contract.GroupPractice{Practice: p.Practice, Name: p.Name}
			l.practices[p.Practice] = one
		}
		if !here[p.Practice] {
			here[p.Practice] = true
			one.Classes++
		}
		one.TaughtMS += p.Length
		if before, there := l.highest[p.Practice]; p.Rounds > 0 && (!there || asksMore(p, before)) {
			l.highest[p.Practice] = p
			one.Level = p.Pattern
		}
	}
	for _, id := range acknowledged {
		l.cautions[id]++
	}
}

// asksMore reports whether a passage is a step above another of its practice: a higher rung, longer counts, or more
// strokes.
func asksMore(a, b taught.Passage) bool {
	return cmp.Or(
		cmp.Compare(taught.Rung(a.Counts), taught.Rung(b.Counts)),
		cmp.Compare(a.Counts.Inhale, b.Counts.Inhale),
		cmp.Compare(a.Strokes, b.Strokes),
	) > 0
}

// in writes it into the sums of the group; book is the names of all practices, by id.
func (l *learned) in(group *contract.GroupSum, book map[string]string) {
	group.Practices, group.Never, group.Cautions = []contract.GroupPractice{}, []string{}, []contract.CautionSum{}
	for id, one := range l.practices {
		one.Name = cmp.Or(book[id], one.Name)
		group.Practices = append(group.Practices, *one)
	}
	slices.SortFunc(group.Practices, func(a, b contract.GroupPractice) int {
		return cmp.Or(cmp.Compare(b.TaughtMS, a.TaughtMS), cmp.Compare(a.Name, b.Name))
	})
	for id, name := range book {
		if l.practices[id] == nil {
			group.Never = append(group.Never, name)
		}
	}
	slices.Sort(group.Never)
	for _, id := range slices.Sorted(maps.Keys(l.cautions)) {
		group.Cautions = append(group.Cautions, contract.CautionSum{ID: id, Say: cautionName(id), Classes: l.cautions[id]})
	}
}

// cautionName returns what a caution that was read is called. Classes of earlier versions have its text.
func cautionName(id string) fact.Fact {
	if care.Known(id) {
		return care.Aspect(id).Name()
	}
	return fact.New("name", "name", id)
}

// learnedIn returns what each group was taught in these classes.
func (r *Records) learnedIn(ctx context.Context, list []store.Listed) map[int64]*learned {
	byGroup := map[int64]*learned{}
	for _, one := range list {
		var passages []taught.Passage
		class, err := r.studio.Store.With(ctx).Class(one.Class.ID)
		if err != nil || json.Unmarshal(one.Digest.Record, &passages) != nil {
			continue // it is told where the sums are made
		}
		if byGroup[one.GroupID] == nil {
			byGroup[one.GroupID] = &learned{}
		}
		byGroup[one.GroupID].add(passages, class.Acknowledged)
	}
	return byGroup
}

// SummaryTable returns the year by group as CSV (RFC 4180), for a school or an insurer: a row for each practice that
// was taught, for each that never was, and for each caution that was read before classes.
func (r *Records) SummaryTable(ctx context.Context, year int) (studio.File, error) {
	summary, err := r.Summary(ctx, year)
	if err != nil {
		return studio.File{}, err
	}
	var text bytes.Buffer
	table := csv.NewWriter(&text)
	rows := [][]string{{"year", "group", "group_level", "kind", "name", "classes", "hours", "highest"}}
	hours := func(ms int64) string { return strconv.FormatFloat(float64(ms)/3_600_000, 'f', 2, 64) }
	for _, g := range summary.Groups {
		row := func(kind, name, classes, hours, highest string) {
			rows = append(rows, []string{strconv.Itoa(summary.Year), g.Name, g.Level, kind, name, classes, hours, highest})
		}
		row("all", "", strconv.Itoa(g.Classes), hours(g.TaughtMS), "")
		for _, p := range g.Practices {
			row("practice", p.Name, strconv.Itoa(p.Classes), hours(p.TaughtMS), p.Level)
		}
		for _, name := range g.Never {
			row("never", name, "0", "", "")
		}
		for _, c := range g.Cautions {
			row("caution", c.ID, strconv.Itoa(c.Classes), "", "")
		}
	}
	for _, row := range rows {
		for i, cell := range row {
			row[i] = studio.PlainCell(cell)
		}
	}
	err = table.WriteAll(rows)
	return studio.File{
		Name: fmt.Sprintf("taught-%d.csv", summary.Year), Type: "text/csv; charset=utf-8", Data: text.Bytes(),
	}, err
}
