package programmes

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"slices"
	"time"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/plan/line"
	"vastlantern/core/practice"
	"vastlantern/core/programme"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// making makes the classes of a programme, each step once.
type making struct {
	room      *Programmes
	row       store.Programme
	programme programme.Programme
	made      map[int]programme.Made
	names     *line.Names
	own       []*practice.Practice
	group     *contract.Group
}

func (ps *Programmes) making(row store.Programme, of programme.Programme) *making {
	return &making{room: ps, row: row, programme: of, made: map[int]programme.Made{}}
}

// class returns the class of a step, from 0.
func (m *making) class(ctx context.Context, step int) (programme.Made, error) {
	if made, there := m.made[step]; there {
		return made, nil
	}
	if m.names == nil {
		var err error
		if m.names, err = m.room.plans.Names(ctx); err == nil {
			m.own, err = m.room.library.OwnPractices(ctx)
		}
		if err == nil {
			m.group, err = m.room.library.Group(ctx, m.row.GroupID)
		}
		if err != nil {
			return programme.Made{}, err
		}
	}
	made, err := m.programme.Make(step, func(whole []byte) (plan.Document, error) {
		if whole == nil {
			whole = m.row.Base
		}
		doc, err := sheet.ReadDocument(bytes.NewReader(whole))
		if err == nil {
			err = m.room.library.AttachTeacherSettings(ctx, doc, m.group)
		}
		return doc, err
	}, m.names, m.own...)
	if err == nil {
		m.made[step] = made
	}
	return made, err
}

// plan returns the class of a step as a plan that begins then.
func (m *making) plan(ctx context.Context, step int, starts time.Time, number int) (store.Plan, error) {
	made, err := m.class(ctx, step)
	if err != nil {
		return store.Plan{}, err
	}
	text, err := json.Marshal(made.Document)
	if err != nil {
		return store.Plan{}, err
	}
	doc, err := sheet.ReadDocument(bytes.NewReader(text)) // a copy: the one that was made is used again
	if err != nil {
		return store.Plan{}, err
	}
	doc.SetStart(starts)
	doc.SetMark(plan.Mark{Programme: m.row.UID, Class: number, Step: step + 1, Made: sumOf(text)})
	return m.room.plans.ToStore(ctx, doc, m.row.GroupID)
}

// sumOf returns what reports whether a teacher has changed a class: all of it but when it begins, what it is led with,
// and the mark.
func sumOf(document []byte) string {
	var fields map[string]any
	if json.Unmarshal(document, &fields) != nil {
		return ""
	}
	for _, other := range []string{"starts_at", "programme", "course", "words", "practices"} {
		delete(fields, other)
	}
	text, err := json.Marshal(fields)
	if err != nil {
		return ""
	}
	sum := sha256.Sum256(text)
	return hex.EncodeToString(sum[:8])
}

// class is a class of a programme that was, is or comes.
type class struct {
	number  int
	plan    *store.Plan // nil if it is gone
	id      int64       // of the class that was led
	at      time.Time
	state   contract.ProgrammeState
	why     fact.Fact // of too much
	changed bool
	step    int // from 0
}

// standing is a programme and where its group is.
type standing struct {
	row       store.Programme
	programme programme.Programme
	making    *making
	classes   []class // in the order of their times
	at        programme.Place
	coming    []int // the steps of what comes, if all is led as planned
}

func (ps *Programmes) standing(ctx context.Context, id int64) (standing, error) {
	row, err := ps.studio.Store.With(ctx).Programme(id)
	if err != nil {
		return standing{}, studio.Missing(err, store.KindProgramme, id)
	}
	return ps.standingOf(ctx, row)
}

// missedAfter is how long after its start a class that nobody led was missed: on the same day it may still be led.
const missedAfter = 12 * time.Hour

func (ps *Programmes) standingOf(ctx context.Context, row store.Programme) (standing, error) {
	now := standing{row: row}
	if err := json.Unmarshal(row.Programme, &now.programme); err != nil {
		ps.studio.NoteDamage(store.KindProgramme, row.ID, err)
		return now, studio.Fail(studio.ErrDamaged, "programme.unreadable", "why", err)
	}
	now.making = ps.making(row, now.programme)
	plans, err := ps.studio.Store.With(ctx).PlansOfProgramme(row.UID)
	if err != nil {
		return now, err
	}
	led, err := ps.studio.Store.With(ctx).ClassesOfProgramme(row.UID)
	if err != nil {
		return now, err
	}
	records := map[int64]taught.Record{}
	if len(led) > 0 {
		if records, err = ps.record.Since(ctx, row.GroupID, led[0].StartedAt); err != nil {
			return now, err
		}
	}
	byID := map[int64]*store.Plan{}
	for i := range plans {
		byID[plans[i].ID] = &plans[i]
	}
	done := map[int64]bool{}
	for _, c := range led {
		record, known := records[c.ID]
		one := class{number: c.Class, plan: byID[c.PlanID], id: c.ID, at: c.StartedAt, state: contract.StateRunning}
		if c.Over && known {
			one.state, one.why = now.outcome(record)
		}
		now.classes = append(now.classes, one)
		done[c.PlanID] = true
	}
	for i := range plans {
		mark := plan.MarkIn(plans[i].Document)
		if done[plans[i].ID] || plans[i].StartsAt.IsZero() {
			continue
		}
		one := class{
			number:  mark.Class,
			plan:    &plans[i],
			at:      plans[i].StartsAt,
			state:   contract.StateComing,
			changed: sumOf(plans[i].Document) != mark.Made,
		}
		if one.at.Add(missedAfter).Before(ps.studio.Now()) {
			one.state = contract.StateMissed
		}
		now.classes = append(now.classes, one)
	}
	slices.SortStableFunc(now.classes, func(a, b class) int { return a.at.Compare(b.at) })
	now.follow()
	return now, nil
}

// outcome returns how a class went: by the passage that follows the steps, or by all practices where a step is a class
// of its own.
func (s *standing) outcome(record taught.Record) (state contract.ProgrammeState, why fact.Fact) {
	eased, reached := false, false
	for i, p := range record.Passages {
		follows := i == min(s.programme.Passage, len(record.Passages))-1
		if s.programme.HasWhole() {
			follows = p.Practice != "" && !p.Trial
		}
		if !follows {
			continue
		}
		reached = reached || p.Length > 0
		eased = eased || p.Eased || p.Rounds < p.PlannedRounds
	}
	switch told := record.Told.Unready(); {
	case !reached:
		return contract.StateMissed, why
	case eased:
		return contract.StateEased, why
	case !told.None():
		return contract.StateTooMuch, told
	}
	return contract.StatePlanned, why
}

// dayOf returns the day of the calendar, in the zone of the program, counted from 1970 on.
func dayOf(at time.Time) int {
	local := at.In(time.Local)
	return int(time.Date(local.Year(), local.Month(), local.Day(), 0, 0, 0, 0, time.UTC).Unix() / (24 * 60 * 60))
}

// follow works out at which step each class stood, and at which those that come will.
func (s *standing) follow() {
	var past []programme.Class
	next := 0
	for _, c := range s.classes {
		switch {
		case c.state != contract.StateComing && c.state != contract.StateRunning:
			past = append(past, programme.Class{Outcome: programme.Outcome(c.state), Why: c.why, Day: dayOf(c.at)})
		case next == 0:
			next = dayOf(c.at)
		}
	}
	steps, at := s.programme.Follow(past, next)
	s.at = at
	s.coming = s.programme.Coming(at, programme.MostSteps*programme.MostClasses)
	was, comes := 0, 0
	for i := range s.classes {
		switch s.classes[i].state {
		case contract.StateComing, contract.StateRunning:
			s.classes[i].step = at.Step
			if comes < len(s.coming) {
				s.classes[i].step = s.coming[comes]
			} else if n := len(s.coming); n > 0 {
				s.classes[i].step = s.coming[n-1]
			}
			comes++
		default:
			s.classes[i].step = steps[was]
			was++
		}
	}
}

// Sheet returns a programme over time.
func (ps *Programmes) Sheet(ctx context.Context, id int64) (contract.ProgrammeSheet, error) {
	now, err := ps.standing(ctx, id)
	if err != nil {
		return contract.ProgrammeSheet{}, err
	}
	groups, err := ps.library.GroupsByID(ctx)
	if err != nil {
		return contract.ProgrammeSheet{}, err
	}
	s := contract.ProgrammeSheet{
		Card: contract.ProgrammeCard{
			ID:    id,
			Name:  now.programme.Name,
			Group: groups[now.row.GroupID],
			Step:  now.at.Step + 1,
			Steps: len(now.programme.Steps),
			Says:  now.programme.Steps[now.at.Step].Says,
			Why:   now.at.Why, Over: now.at.Over,
		},
		Revision: now.row.Revision, Programme: now.programme, Classes: []contract.ProgrammeClass{}, Planned: []int{},
	}
	for _, c := range now.classes {
		one := contract.ProgrammeClass{
			Number:   c.number,
			ClassID:  c.id,
			StartsMS: contract.Millis(c.at),
			Step:     c.step + 1,
			Says:     now.programme.Steps[c.step].Says,
			State:    c.state,
			Changed:  c.changed,
		}
		if c.plan != nil {
			one.PlanID = c.plan.ID
		}
		if c.state == contract.StateComing {
			made, err := now.making.class(ctx, c.step)
			if err != nil {
				return s, studio.Fail(studio.ErrInvalid, "programme.step-wrong", "why", err)
			}
			one.Why = made.Why.Pointer()
		}
		s.Classes = append(s.Classes, one)
	}
	for _, step := range now.programme.Coming(programme.Place{}, max(len(now.classes), 1)) {
		s.Planned = append(s.Planned, step+1)
	}
	s.Passages, err = ps.passages(ctx, now.row.Base, now.row.GroupID)
	return s, err
}
