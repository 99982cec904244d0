// Package rehearse tries plans with simulated groups, and lets a teacher lead one.
package rehearse

import (
	"bytes"
	"context"
	"sync"
	"time"

	"vastlantern/core/care"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/rehearsal"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/rehearsed"
)

// Rehearse is the room.
type Rehearse struct {
	studio   *studio.Studio
	library  Library
	leading  Leading
	pressing sync.Mutex // a press at a time
}

// Library is what is asked of the school.
type Library interface {
	Group(ctx context.Context, id int64) (*contract.Group, error)
	AttachTeacherSettings(ctx context.Context, doc plan.Document, group *contract.Group) error
	CareFor(context.Context, *contract.Group, time.Time) (care.Room, error)
}

// New returns the room of a studio.
func New(s *studio.Studio, l Library, c Leading) *Rehearse {
	return &Rehearse{studio: s, library: l, leading: c}
}

const seeds = 200

// Expected returns where rooms of that kind would be strained by a stored plan, and what would make it easier.
func (r *Rehearse) Expected(ctx context.Context, planID int64, room string) (contract.Expected, error) {
	shape := contract.Expected{
		Rooms:    []contract.SimulatedRoom{},
		Room:     room,
		Passages: []contract.ExpectedPassage{},
		Limits:   rehearsed.Limits,
	}
	var err error
	if shape.Rooms, err = r.desk(ctx).Rooms(); err != nil {
		return shape, err
	}
	of, err := rehearsal.Find(room)
	if err != nil {
		return shape, studio.Fail(studio.ErrNotFound, "rehearsal.wrong", "why", err)
	}
	_, p, err := r.plan(ctx, planID, nil)
	if err != nil {
		return shape, err
	}
	for _, e := range rehearsal.Expect(p, of, seeds) {
		one := contract.ExpectedPassage{
			FromRound: e.FromRound,
			Low:       e.Low,
			Median:    e.Median,
			High:      e.High,
			Ways:      []contract.ExpectedEase{},
		}
		if e.High > 0 {
			if one.Ways, err = r.ways(ctx, planID, p, e.Passage, of); err != nil {
				return shape, err
			}
		}
		shape.Passages = append(shape.Passages, one)
	}
	return shape, nil
}

// plan returns a stored plan as it is led, with a passage changed if wanted.
func (r *Rehearse) plan(ctx context.Context, id int64, change func(plan.Document)) (doc plan.Document, p *plan.Plan,
	err error) {
	stored, err := r.studio.Store.With(ctx).Plan(id)
	if err != nil {
		return doc, nil, studio.Missing(err, store.KindPlan, id)
	}
	if doc, err = sheet.ReadDocument(bytes.NewReader(stored.Document)); err != nil {
		return doc, nil, studio.Unreadable(err)
	}
	group, err := r.library.Group(ctx, stored.GroupID)
	if err != nil {
		return doc, nil, err
	}
	if err := r.library.AttachTeacherSettings(ctx, doc, group); err != nil {
		return doc, nil, err
	}
	if change != nil {
		change(doc)
	}
	if p, err = plan.Read(doc); err != nil {
		return doc, nil, studio.FailInPlan(err, "plan.correct-first")
	}
	return doc, p, nil
}

// laneLimit returns how many breaths a minute the gentler lane takes at most with the group of a stored plan; 0 for the
// usual limit.
func (r *Rehearse) laneLimit(ctx context.Context, id int64) (int, error) {
	stored, err := r.studio.Store.With(ctx).Plan(id)
	if err != nil {
		return 0, studio.Missing(err, store.KindPlan, id)
	}
	group, err := r.library.Group(ctx, stored.GroupID)
	if err != nil {
		return 0, err
	}
	who, err := r.library.CareFor(ctx, group, time.Time{})
	return who.Rules.LaneLimit, err
}

// ways returns what a gentler lane, and a quarter less of the holds, would make of a passage, from 1.
func (r *Rehearse) ways(ctx context.Context, id int64, p *plan.Plan, number int,
	of rehearsal.Room) ([]contract.ExpectedEase, error) {
	list := []contract.ExpectedEase{}
	one := &p.Passages[number-1]
	if !one.Led() {
		return list, nil
	}
	try := func(says fact.Fact, change func(plan.Fields)) error {
		_, eased, err := r.plan(ctx, id, func(doc plan.Document) {
			if fields, err := doc.Passage(number); err == nil {
				change(fields)
			}
		})
		if err != nil {
			return err
		}
		e := rehearsal.Expect(eased, of, seeds)[number-1]
		list = append(list, contract.ExpectedEase{Says: says, Low: e.Low, Median: e.Median, High: e.High})
		return nil
	}
	limit, err := r.laneLimit(ctx, id)
	if err != nil {
		return list, err
	}
	if offers := one.LaneOffers(one.Measure, limit); one.Beside.None() && len(offers) > 0 {
		lane, err := plan.FieldsOf(map[string]any{"beside": offers[0].Beside.String()})
		if err != nil {
			return list, err
		}
		if err := try(fact.New("ease.lane"), func(f plan.Fields) { f.Complete(lane, one.Practice) }); err != nil {
			return list, err
		}
	}
	if c := one.Measure.Counts; one.TakesCounts() && c.Hold+c.Empty > 0 {
		less := c
		less.Hold, less.Empty = c.Hold-(c.Hold+3)/4, c.Empty-(c.Empty+3)/4
		if err := try(fact.New("ease.counts", "counts", less), func(f plan.Fields) { f.SetCounts(less) }); err != nil {
			return list, err
		}
	}
	return list, nil
}
