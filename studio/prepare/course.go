package prepare

import (
	"bytes"
	"errors"
	"fmt"
	"slices"
	"strconv"

	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Bounds of a course.
const (
	mostClasses = 60
	mostDays    = 60
)

// MakeCourse adds the other classes of a course to the plan, which becomes its first.
func (ps *Plans) MakeCourse(id int64, want contract.Course) (contract.CourseCard, error) {
	if want.Classes < 2 || want.Classes > mostClasses || want.Days < 1 || want.Days > mostDays {
		return contract.CourseCard{}, studio.Fail(studio.ErrInvalid, "A course has 2 to %d classes, 1 to %d days apart.", mostClasses, mostDays)
	}
	if !slices.Contains([]string{plan.GrowNothing, plan.GrowRounds, plan.GrowCounts}, want.Grow) {
		return contract.CourseCard{}, studio.Fail(studio.ErrInvalid, "Nothing grows in a course, or rounds, or counts; not %q.", want.Grow)
	}
	stored, err := ps.studio.Store.Plan(id)
	if err != nil {
		return contract.CourseCard{}, studio.Missing(err, "plan", id)
	}
	doc, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	switch {
	case err != nil:
		return contract.CourseCard{}, studio.FailInPlan(err, "Correct what is marked in this plan first.")
	case doc.Place().Name != "":
		return contract.CourseCard{}, studio.Fail(studio.ErrConflict, "This plan belongs to a course already.")
	case p.StartsAt.IsZero():
		return contract.CourseCard{}, studio.Fail(studio.ErrInvalid, "Give the first class a time: the others follow from it.")
	}
	if want.Grow != plan.GrowNothing {
		if want.Passage < 1 || want.Passage > len(p.Passages) || !p.Passages[want.Passage-1].Led() {
			return contract.CourseCard{}, studio.Fail(studio.ErrInvalid, "Say which practice grows.")
		}
	}
	name := strconv.FormatInt(id, 10) + "-" + strconv.FormatInt(ps.studio.Now().UnixMilli(), 36)
	group, err := ps.library.Group(stored.GroupID)
	if err != nil {
		return contract.CourseCard{}, err
	}
	all, stopped := make([]store.Plan, want.Classes), 0
	for i := range all {
		next, err := sheet.ReadDocument(bytes.NewReader(stored.Document))
		if err != nil {
			return contract.CourseCard{}, err
		}
		next.SetPlace(plan.Place{Name: name, Class: i + 1, Of: want.Classes, Days: want.Days})
		next.SetStart(p.StartsAt.AddDate(0, 0, i*want.Days))
		taken, err := next.Grow(p, want.Passage, want.Grow, i, level(group))
		if err := notGrown(err, i+1); err != nil {
			return contract.CourseCard{}, err
		}
		if taken < i && stopped == 0 {
			stopped = i + 1
		}
		of := stored
		if i > 0 {
			of.ID = 0 // a new one
		}
		if all[i], err = ps.courseClass(next, of); err != nil {
			return contract.CourseCard{}, err
		}
	}
	err = ps.studio.Store.InTransaction(func(st *store.Store) error { // a course is made whole or not at all
		_, err := st.SavePlan(all[0])
		for _, next := range all[1:] {
			if err == nil {
				_, err = st.AddPlan(next)
			}
		}
		return err
	})
	if err != nil {
		return contract.CourseCard{}, changedElsewhere(err)
	}
	card, err := ps.Course(id)
	if stopped > 0 {
		card.Stopped = fmt.Sprintf("From class %d on %s does not grow any more: it would overrun the slot, or be more than is advised in one class.", stopped, p.Passages[want.Passage-1].Name())
	}
	return card, err
}

// courseClass is a document as it is stored, in the place of the plan or, added, as another one beside it.
func (ps *Plans) courseClass(doc plan.Document, of store.Plan) (store.Plan, error) {
	text, err := written(doc)
	if err != nil {
		return store.Plan{}, err
	}
	row, err := ps.toStore(text, of.GroupID)
	row.ID, row.Revision = of.ID, of.Revision
	return row, err
}

// changedElsewhere tells that a plan was changed while its course was.
func changedElsewhere(err error) error {
	if errors.Is(err, store.ErrTaken) {
		return studio.Fail(studio.ErrConflict, "This plan was changed in another window meanwhile. Nothing was changed: try again.")
	}
	return err
}

// notGrown tells why a class of a course cannot be.
func notGrown(err error, class int) error {
	switch {
	case err == nil:
		return nil
	case studio.IsInPlan(err):
		return studio.FailInPlan(err, fmt.Sprintf("Class %d would grow beyond what is allowed: make the course shorter.", class))
	}
	return studio.Fail(studio.ErrInvalid, "It cannot grow like that: %v.", err)
}

// Course is the course that a plan belongs to; without plans where it belongs to none.
func (ps *Plans) Course(id int64) (contract.CourseCard, error) {
	card := contract.CourseCard{Plans: []contract.PlanCard{}}
	stored, err := ps.studio.Store.Plan(id)
	if err != nil {
		return card, studio.Missing(err, "plan", id)
	}
	mine := plan.PlaceIn(stored.Document)
	if mine.Name == "" {
		return card, nil
	}
	card.Place, card.Days = mine.Class, mine.Days
	groups, err := ps.library.GroupsByID()
	if err != nil {
		return card, err
	}
	all, err := ps.studio.Store.Plans()
	for _, one := range all {
		if plan.PlaceIn(one.Document).Name == mine.Name {
			card.Plans = append(card.Plans, ps.Card(one, groups))
		}
	}
	return card, err
}

// ShiftCourse moves a plan and the later ones of its course on by the days between two of them: a day was missed.
func (ps *Plans) ShiftCourse(id int64) (contract.CourseCard, error) {
	stored, err := ps.studio.Store.Plan(id)
	if err != nil {
		return contract.CourseCard{}, studio.Missing(err, "plan", id)
	}
	mine := plan.PlaceIn(stored.Document)
	if mine.Name == "" {
		return contract.CourseCard{}, studio.Fail(studio.ErrInvalid, "This plan belongs to no course.")
	}
	all, err := ps.studio.Store.Plans()
	if err != nil {
		return contract.CourseCard{}, err
	}
	var moved []store.Plan
	for _, one := range all {
		if c := plan.PlaceIn(one.Document); c.Name != mine.Name || c.Class < mine.Class || one.StartsAt.IsZero() {
			continue
		}
		doc, p, err := sheet.ReadPlan(bytes.NewReader(one.Document))
		if p == nil {
			return contract.CourseCard{}, err
		}
		doc.SetStart(p.StartsAt.AddDate(0, 0, mine.Days)) // in the zone that it was written in
		row, err := ps.courseClass(doc, one)
		if err != nil {
			return contract.CourseCard{}, err
		}
		moved = append(moved, row)
	}
	err = ps.studio.Store.InTransaction(func(st *store.Store) error {
		for _, row := range moved {
			if _, err := st.SavePlan(row); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return contract.CourseCard{}, changedElsewhere(err)
	}
	return ps.Course(id)
}
