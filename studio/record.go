package studio

import (
	"bytes"
	"fmt"
	"math"
	"time"

	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// soon is how long after its planned start a class still counts as the next one: teachers begin late.
const soon = 30 * time.Minute

// Today is what the first screen shows. Each part fails by itself: one that cannot be put together takes nothing else
// with it.
func (s *Studio) Today() contract.Today {
	now := s.now()
	today := contract.Today{
		NowMS: millis(now), Plans: []contract.PlanCard{}, Advice: []contract.Advice{}, Taught: []contract.ClassCard{}, Failed: []contract.Failed{},
	}
	part := func(name string, err error) {
		if err != nil {
			today.Failed = append(today.Failed, contract.Failed{Part: name, Say: say(err)})
		}
	}
	next, err := s.todaysPlans(&today, now)
	part("plans", err)
	if next != nil {
		today.Advice, err = s.advised(*next, today.Next.Group)
		part("advice", err)
	}
	found, err := s.Find(contract.Search{})
	part("taught", err)
	today.Taught = found.Classes
	for _, card := range today.Taught {
		if today.Next != nil && today.Next.Group != nil && card.Group != nil && card.Group.ID == today.Next.Group.ID && !card.Running {
			record, err := s.Record(card.ID)
			part("last", err)
			if err == nil {
				today.Last = &record
			}
			break
		}
	}
	today.Damaged, err = s.damaged()
	part("taught", err)
	opened := s.store.Opened()
	today.File = contract.DataFile{Path: s.store.Path(), Made: opened.Made && today.Next == nil && len(today.Plans) == 0, Incomplete: opened.Incomplete}
	return today
}

// say is an error in words for a person.
func say(err error) string {
	if trouble := Trouble(err); trouble != "" {
		return trouble
	}
	return err.Error()
}

// todaysPlans fills in the next plan by the clock, which it returns, and the others to come.
func (s *Studio) todaysPlans(today *contract.Today, now time.Time) (next *store.Plan, err error) {
	groups, err := s.groups()
	if err != nil {
		return nil, err
	}
	plans, err := s.store.Plans()
	for _, stored := range plans {
		switch {
		case !stored.StartsAt.IsZero() && stored.StartsAt.Before(now.Add(-soon)): // over
		case next == nil && !stored.StartsAt.IsZero():
			card := planCard(stored, groups)
			next, today.Next = &stored, &card
		default:
			today.Plans = append(today.Plans, planCard(stored, groups))
		}
	}
	return next, err
}

// damaged is the entries that cannot be read: those that were met since the start, and those that lists leave out.
func (s *Studio) damaged() ([]contract.Entry, error) {
	list := []contract.Entry{}
	classes, err := s.store.DamagedClasses()
	if err != nil {
		return list, err
	}
	for _, d := range classes {
		s.store.NoteDamage(d)
	}
	for _, d := range s.store.Damage() {
		name := string(d.Kind)
		switch {
		case d.Name != "":
			name += " " + d.Name
		case d.ID != 0:
			name = fmt.Sprintf("%s %d", d.Kind, d.ID)
		}
		list = append(list, contract.Entry{Kind: string(d.Kind), ID: d.ID, Name: name, Why: d.Why})
	}
	return list, nil
}

// advised is what the record of its group advises for a stored plan. A plan that is half written has advice for what is
// right in it.
func (s *Studio) advised(stored store.Plan, group *contract.Group) ([]contract.Advice, error) {
	none := []contract.Advice{}
	if group == nil {
		return none, nil
	}
	doc, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	if p == nil {
		return none, s.orDamaged(&unreadable{err}, store.KindPlan, stored.ID)
	}
	h, err := s.history(group.ID)
	if err != nil {
		return none, err
	}
	return forNext(doc, p, h), nil
}

func (s *Studio) classCard(l *led, groups map[int64]*contract.Group) contract.ClassCard {
	now := s.now()
	card := contract.ClassCard{
		ID: l.stored.ID, Title: l.plan.Title, Group: groups[l.stored.GroupID], StartedMS: millis(l.stored.StartedAt),
		Running: l.running(now), Passages: []string{},
	}
	if card.LengthMS = l.class.Timeline().End; card.Running {
		card.LengthMS = l.at(now)
	}
	for i := range l.plan.Passages {
		if l.plan.Passages[i].Type == plan.Practice {
			card.Passages = append(card.Passages, headline(&l.plan.Passages[i]))
		}
	}
	return card
}

// Record is what was taught in a class; of one that is running, as far as it is.
func (s *Studio) Record(id int64) (contract.Record, error) {
	l, err := s.open(id)
	if err != nil {
		return contract.Record{}, err
	}
	groups, err := s.groupsEver()
	if err != nil {
		return contract.Record{}, err
	}
	record := contract.Record{Class: s.classCard(l, groups), PlanID: l.stored.PlanID, Passages: []contract.RecordPassage{}, Marks: []contract.Mark{}, Acknowledged: list(l.stored.Acknowledged)}
	if _, err := s.store.Plan(record.PlanID); err != nil {
		record.PlanID = 0
	}
	if record.Remarks, err = s.remarks(id); err != nil {
		return contract.Record{}, err
	}
	record.TookWords = took
	record.Curve = curve(taught.Until(l.class.Timeline(), l.at(s.now())).Rows)
	of := taught.Of(l.plan, l.script, l.at(s.now()))
	record.PlannedMS, record.TaughtMS = of.Planned, of.Taught
	for _, p := range of.Passages {
		record.Passages = append(record.Passages, recordPassage(p))
	}
	t := of.Totals()
	record.Totals = contract.RecordTotals{
		PlannedRounds: t.PlannedRounds, Rounds: t.Rounds, LongestHoldMS: t.LongestHold, HeldFullMS: t.HeldFull, HeldEmptyMS: t.HeldEmpty,
		LeftInhales: t.LeftInhales, RightInhales: t.RightInhales,
	}
	for i, answer := range of.Answers {
		record.Marks = append(record.Marks, contract.Mark{Answer: l.answer(i + 1), Passage: answer.Passage})
	}
	return record, nil
}

// curve is the rounds as they were led: how quick and how long each was.
func curve(rows []pace.Row) []contract.CurvePoint {
	list := []contract.CurvePoint{}
	for _, row := range rows {
		if row.Stage != pace.Round {
			continue
		}
		if row.Starts {
			list = append(list, contract.CurvePoint{AtMS: row.At, Passage: row.Passage, Tempo: shown(row.Tempo.Float()), Kept: row.Kept})
		}
		if n := len(list); n > 0 && row.Breath <= 1 && row.Count > 0 {
			list[n-1].Counts++
		}
	}
	return list
}

func recordPassage(p taught.Passage) contract.RecordPassage {
	return contract.RecordPassage{
		Name: p.Name, Practice: p.Practice, Counts: p.Pattern, OwnPace: p.OwnPace, Trial: p.Trial,
		PlannedAtMS: p.PlannedAt, PlannedLengthMS: p.PlannedLength, AtMS: p.At, LengthMS: p.Length,
		PlannedRounds: p.PlannedRounds, Rounds: p.Rounds, Abandoned: p.Abandoned,
		PlannedTempo: shown(p.PlannedTempo.Float()), TempoStart: shown(p.TempoStart.Float()), TempoEnd: shown(p.TempoEnd.Float()),
		TempoMean: shown(p.TempoMean.Float()), PerMinute: shown(p.PerMinute.Float()),
		LongestHoldMS: p.LongestHold, HeldFullMS: p.HeldFull, HeldEmptyMS: p.HeldEmpty, LeftInhales: p.LeftInhales, RightInhales: p.RightInhales,
		Eased: p.Eased, CountsEnd: countsEnd(p),
	}
}

// countsEnd is the counts that were in force at the end, where they are not those that were planned.
func countsEnd(p taught.Passage) string {
	if p.Counts == p.PlannedCounts {
		return ""
	}
	return p.Counts.String()
}

// shown rounds to hundredths: more digits of a tempo say nothing to anybody.
func shown(x float64) float64 { return math.Round(x*100) / 100 }
