// Package rehearse holds plans against simulated rooms.
package rehearse

import (
	"bytes"
	"fmt"

	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/rehearsal"
	"vastlantern/core/sheet"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Rehearse is the room.
type Rehearse struct {
	studio  *studio.Studio
	library Library
}

// Library is what is asked of the school.
type Library interface {
	Group(id int64) (*contract.Group, error)
	AttachTeacherSettings(doc plan.Document, group *contract.Group) error
}

// New is the room of a studio.
func New(s *studio.Studio, l Library) *Rehearse { return &Rehearse{s, l} }

const (
	seeds  = 200
	limits = "A model for training, made of plausible parts: not a measurement, and it predicts nobody's body."
)

// Expected is where rooms of that kind would be strained by a stored plan, and what would make it easier.
func (r *Rehearse) Expected(planID int64, room string) (contract.Expected, error) {
	shape := contract.Expected{Rooms: []contract.SimulatedRoom{}, Room: room, Passages: []contract.ExpectedPassage{}, Limits: limits}
	rooms, err := rehearsal.Rooms()
	if err != nil {
		return shape, err
	}
	for _, one := range rooms {
		shape.Rooms = append(shape.Rooms, contract.SimulatedRoom{Name: one.Name, Title: one.Title, About: one.About, People: one.Size()})
	}
	of, err := rehearsal.Find(room)
	if err != nil {
		return shape, studio.Fail(studio.ErrNotFound, "%v.", err)
	}
	p, err := r.plan(planID, nil)
	if err != nil {
		return shape, err
	}
	for _, e := range rehearsal.Expect(p, of, seeds) {
		one := contract.ExpectedPassage{FromRound: e.FromRound, Low: e.Low, Median: e.Median, High: e.High, Ways: []contract.ExpectedEase{}}
		if e.High > 0 {
			if one.Ways, err = r.ways(planID, p, e.Passage, of); err != nil {
				return shape, err
			}
		}
		shape.Passages = append(shape.Passages, one)
	}
	return shape, nil
}

// plan is a stored plan as it is led, with a passage changed if wanted.
func (r *Rehearse) plan(id int64, change func(plan.Document)) (*plan.Plan, error) {
	stored, err := r.studio.Store.Plan(id)
	if err != nil {
		return nil, studio.Missing(err, "plan", id)
	}
	doc, err := sheet.ReadDocument(bytes.NewReader(stored.Document))
	if err != nil {
		return nil, studio.Unreadable(err)
	}
	group, err := r.library.Group(stored.GroupID)
	if err != nil {
		return nil, err
	}
	if err := r.library.AttachTeacherSettings(doc, group); err != nil {
		return nil, err
	}
	if change != nil {
		change(doc)
	}
	p, err := plan.Read(doc)
	if err != nil {
		return nil, studio.FailInPlan(err, "Correct what is marked in this plan first.")
	}
	return p, nil
}

// ways is what a gentler lane, and a quarter less of the holds, would make of a passage, from 1.
func (r *Rehearse) ways(id int64, p *plan.Plan, number int, of rehearsal.Room) ([]contract.ExpectedEase, error) {
	list := []contract.ExpectedEase{}
	one := &p.Passages[number-1]
	if !one.Led() {
		return list, nil
	}
	try := func(says string, change func(plan.Fields)) error {
		eased, err := r.plan(id, func(doc plan.Document) {
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
	if offers := one.LaneOffers(one.Measure); one.Beside.None() && len(offers) > 0 {
		lane, err := plan.FieldsOf(map[string]any{"beside": offers[0].Beside.String()})
		if err != nil {
			return list, err
		}
		if err := try("with the gentler lane beside", func(f plan.Fields) { f.Complete(lane, one.Practice) }); err != nil {
			return list, err
		}
	}
	if c := one.Measure.Counts; one.Is(practice.Counted) && c.Hold+c.Empty > 0 {
		less := c
		less.Hold, less.Empty = c.Hold-(c.Hold+3)/4, c.Empty-(c.Empty+3)/4
		if err := try(fmt.Sprintf("at %s", less), func(f plan.Fields) { f.SetCounts(less) }); err != nil {
			return list, err
		}
	}
	return list, nil
}
