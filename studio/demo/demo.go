// Package demo fills an empty store with an invented scenario: a teacher of four groups, the classes of the last eight
// weeks and the plans for the next days. It is loaded through the studio, as a teacher's own work would be: each
// class is led and adjusted on a clock of the past.
package demo

import (
	"bytes"
	"context"
	"embed"
	"encoding/json"
	"fmt"
	"slices"
	"sync"
	"time"

	"vastlantern/core/fact"
	"vastlantern/core/plan/line"
	"vastlantern/core/programme"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk"
)

//go:embed plans/*.plan.json
var plans embed.FS

// group is one invented group: its weekly class, how it grew, and how the room was.
type group struct {
	name, level string
	size        int
	under16     bool
	conditions  map[string]int
	notes       string
	file        string
	inDays      int           // the next class, from today
	at          time.Duration // of the day; 0 for the next quarter of an hour that is ten minutes away
	weeks       []week        // the oldest first; the last is the one to come
	programme   *programme.Programme
	from        int // the week in which the programme begins; from then on it makes the plans
}

// week is one class of a group: what was changed in the plan, by passage, the short way, and what was pressed.
type week struct {
	changes map[int]string
	pressed []press
	missed  bool // nobody came
	after   []contract.RemarkAdd
	told    store.Answers  // on the room's page; of nothing where nobody was asked
	before  map[string]int // class, how calm the room said that it was; nil where it was not asked
	then    map[string]int // after class
	home    *contract.HomeGive
	atHome  string // how it was at home, asked a week later; empty if it was not
}

// press is an adjustment some seconds into a passage.
type press struct {
	passage int
	after   float64
	do      contract.Adjust
}

// Load brings the scenario into the store: once the groups, their past, some rehearsals and a recorded voice, and,
// whenever no class is to come, the plans for the next days. Now is the time on the application's clock, in the place
// where it is shown.
func Load(ctx context.Context, s *store.Store, now time.Time) error {
	upcoming, err := anyToCome(s, now)
	if err != nil || upcoming {
		return err
	}
	known, err := s.Groups()
	if err != nil {
		return err
	}
	ids := map[string]int64{}
	for _, k := range known {
		ids[k.Name] = k.ID
	}
	words := sync.OnceValues(readWords)
	if voice, err := laidVoice(s); err != nil {
		return err
	} else if voice == 0 { // reading them takes a third of all the time, and one processor has none of the classes to lead
		var reading sync.WaitGroup
		defer reading.Wait()
		reading.Go(func() { words() })
	}
	if err := load(ctx, s, now, ids); err != nil {
		return err
	}
	if err := layRehearsals(ctx, s, now); err != nil {
		return err
	}
	return layVoice(ctx, desk.WithTime(s, func() time.Time { return now }, 1), true, words)
}

// load brings what is missing; ids is the groups that are there, by their names, and all of them after it.
func load(ctx context.Context, s *store.Store, now time.Time, ids map[string]int64) error {
	at := desk.WithTime(s, func() time.Time { return now }, 1)
	var past []lesson
	for _, g := range groups {
		next, last := g.next(now), len(g.weeks)-1
		known := ids[g.name] != 0
		if ids[g.name] == 0 {
			added, err := at.Library.SaveGroup(ctx, contract.Group{
				Name: g.name, Level: g.level, Size: g.size, Under16: g.under16, Conditions: g.conditions, Notes: g.notes,
				Weekday: int(next.Weekday()), Weektime: next.Format("15:04"),
			})
			if err != nil {
				return err
			}
			ids[g.name] = added.ID
			for i, w := range g.weeks[:last] {
				if w.missed {
					continue
				}
				past = append(past, lesson{g, w, i, next.AddDate(0, 0, -7*(last-i))})
			}
		}
		if g.programme != nil && !known { // it is made with the class before
			continue
		}
		if _, err := g.plan(ctx, at, ids[g.name], g.weeks[last], next); err != nil {
			return fact.Wrap(err, "demo.next-plan", "group", g.name, "why", err)
		}
	}
	if err := noteLaid(s, ids); err != nil { // before the classes: what is half there can be removed
		return err
	}
	// In the order of time, since only one class is led at once.
	slices.SortFunc(past, func(a, b lesson) int { return a.at.Compare(b.at) })
	for _, l := range past {
		if err := l.teach(ctx, s, ids[l.name]); err != nil {
			return fmt.Errorf("%s, %s: %w", l.name, l.at.Format(time.DateOnly), err)
		}
	}
	return nil
}

// lesson is one class of the past.
type lesson struct {
	group
	week
	number int // of the week
	at     time.Time
}

func anyToCome(s *store.Store, now time.Time) (bool, error) {
	coming, err := s.PlansFrom(now, 1)
	return len(coming) > 0, err
}

func (g group) next(now time.Time) time.Time {
	if g.at == 0 {
		return now.Add(25 * time.Minute).Truncate(15 * time.Minute)
	}
	midnight := time.Date(now.Year(), now.Month(), now.Day(), 0, 0, 0, 0, now.Location())
	return midnight.AddDate(0, 0, g.inDays).Add(g.at)
}

func (g group) plan(ctx context.Context, d *desk.Desk, id int64, w week, at time.Time) (contract.Plan, error) {
	text, err := plans.ReadFile("plans/" + g.file + ".plan.json")
	if err != nil {
		return contract.Plan{}, err
	}
	doc, _, err := sheet.ReadPlan(bytes.NewReader(text))
	if err != nil {
		return contract.Plan{}, err
	}
	doc.SetStart(at)
	passages := doc.Passages()
	for number, short := range w.changes {
		changed, err := line.Shorten(passages[number-1], short)
		if err != nil {
			return contract.Plan{}, err
		}
		doc.Replace(number, changed)
	}
	document, err := json.Marshal(doc)
	if err != nil {
		return contract.Plan{}, err
	}
	return d.Plans.Add(ctx, document, id)
}

// planned returns the plan of the class: one of its own, or that of the programme.
func (l lesson) planned(ctx context.Context, past *desk.Desk, group int64) (contract.Plan, error) {
	if l.programme == nil || l.number <= l.from {
		p, err := l.plan(ctx, past, group, l.week, l.at)
		if err != nil || l.programme == nil || l.number < l.from {
			return p, err
		}
		if _, err := past.Programmes.Begin(ctx, p.ID, *l.programme); err != nil {
			return p, err
		}
		return past.Plans.Plan(ctx, p.ID)
	}
	followed, err := past.Programmes.OfGroup(ctx, group)
	if err != nil || len(followed) == 0 {
		return contract.Plan{}, fact.Wrap(err, "demo.no-programme", "why", err)
	}
	s, err := past.Programmes.Sheet(ctx, followed[0].ID)
	if err != nil {
		return contract.Plan{}, err
	}
	for _, c := range s.Classes {
		if c.State == contract.StateComing {
			return past.Plans.Plan(ctx, c.PlanID)
		}
	}
	return contract.Plan{}, fact.New("demo.programme-empty", "name", followed[0].Name)
}

// teach leads the class, a few minutes after its planned start.
func (l lesson) teach(ctx context.Context, s *store.Store, group int64) error {
	clock := l.at.Add(-time.Hour)
	past := desk.WithTime(s, func() time.Time { return clock }, 1)
	p, err := l.planned(ctx, past, group)
	if err != nil {
		return err
	}
	started := l.at.Add(time.Duration(40+13*l.size) * time.Second / 2)
	clock = started
	score, err := past.Classes.Begin(ctx, contract.Lead{PlanID: p.ID, Acknowledged: contract.StrongCautions(p)})
	if err != nil {
		return err
	}
	for i, press := range l.pressed {
		clock = started.Add(
			time.Duration(score.Passages[press.passage-1].StartMS)*time.Millisecond + time.Duration(
				press.after*float64(time.Second),
			),
		)
		press.do.Key = fmt.Sprintf("demo %d", i+1)
		done, err := past.Classes.Adjust(ctx, score.ClassID, press.do)
		if err != nil {
			return err
		}
		score = done.Score
	}
	clock = started.Add(2 * time.Hour)
	if err := past.Classes.Settle(ctx); err != nil {
		return err
	}
	if l.told.Most > 0 {
		if err := s.PutAnswers(score.ClassID, l.told); err != nil {
			return err
		}
	}
	if l.before != nil {
		checked, err := s.CheckInOfClass(score.ClassID)
		if err != nil {
			return err
		}
		checked.Before, checked.After = l.before, l.then
		checked.MostBefore, checked.MostAfter = l.told.Most, l.told.Most
		if _, err := s.PutCheckIn(checked); err != nil {
			return err
		}
	}
	if l.home != nil {
		offer, err := past.Homes.OfferFromClass(ctx, score.ClassID)
		if err != nil {
			return err
		}
		give := *l.home
		give.Begins = offer.Begins
		offer, err = past.Homes.GiveFromClass(ctx, score.ClassID, give)
		if err != nil {
			return err
		}
		if l.atHome != "" {
			if _, err := past.Homes.Answer(ctx, offer.Given[0].ID, contract.HomeAnswer{Answer: l.atHome,
				Revision: offer.Given[0].Revision}); err != nil {
				return err
			}
		}
	}
	return past.Records.AddRemarks(ctx, score.ClassID, l.after...)
}
