package programmes

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"slices"
	"time"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/programme"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// How far ahead plans are made: at least so many classes, and those of so many days.
const (
	fewestAhead = 4
	daysAhead   = 14
)

// FollowAll has what comes of every programme follow what was taught. What cannot be done is written down and tried
// again with the next class; it keeps nobody from leading.
func (ps *Programmes) FollowAll(ctx context.Context) {
	all, err := ps.studio.Store.With(ctx).Programmes()
	groups, missing := ps.library.GroupsByID(ctx)
	err = errors.Join(err, missing)
	for _, one := range all {
		if one.GroupID == 0 || groups[one.GroupID] != nil { // else its group was deleted
			err = errors.Join(err, ps.follow(ctx, one.ID))
		}
	}
	if err != nil {
		slog.Error("the plans of programmes were not made", "error", err)
	}
}

// follow makes the coming plans of a programme, and those that were made for another step anew. What a teacher has
// changed since is left as it is, and so is what is being led.
func (ps *Programmes) follow(ctx context.Context, id int64) error {
	ps.following.Lock()
	defer ps.following.Unlock()
	now, err := ps.standing(ctx, id)
	if err != nil {
		return err
	}
	var rows []store.Plan
	ahead, number := 0, 0
	for _, c := range now.classes {
		number = max(number, c.number)
		if c.state != contract.StateComing {
			continue
		}
		ahead++
		if c.changed ||
			plan.MarkIn(c.plan.Document).Step == c.step+1 && sumOf(c.plan.Document) == ps.sumOfStep(ctx, &now, c.step) {
			continue
		}
		_, p, err := sheet.ReadPlan(bytes.NewReader(c.plan.Document))
		if p == nil {
			return err
		}
		row, err := now.making.plan(ctx, c.step, p.StartsAt, c.number)
		if err != nil {
			return err
		}
		row.ID, row.Revision = c.plan.ID, c.plan.Revision
		rows = append(rows, row)
	}
	more, err := ps.more(ctx, &now, ahead, number)
	if err != nil {
		return err
	}
	return ps.studio.Store.With(ctx).InTransaction(func(st *store.Store) error {
		for _, row := range rows {
			if _, err := st.SavePlan(row); err != nil && !errors.Is(err, store.ErrTaken) { // the next time
				return err
			}
		}
		for _, row := range more {
			if _, err := st.AddPlan(row); err != nil {
				return err
			}
		}
		return nil
	})
}

func (ps *Programmes) sumOfStep(ctx context.Context, now *standing, step int) string {
	made, err := now.making.class(ctx, step)
	if err != nil {
		return ""
	}
	text, err := json.Marshal(made.Document)
	if err != nil {
		return ""
	}
	return sumOf(text)
}

// more returns the plans that are not made yet, of a programme that has so many to come.
func (ps *Programmes) more(ctx context.Context, now *standing, ahead, number int) (rows []store.Plan, err error) {
	if len(now.classes) == 0 { // its first plan is gone
		return nil, nil
	}
	newest := now.classes[len(now.classes)-1]
	last, step := newest.at, newest.step
	if plan := newest.plan; plan != nil {
		last = plan.StartsAt // not when it was begun, some minutes late
	}
	want := min(max(fewestAhead, daysAhead/now.programme.Days), len(now.coming))
	for ahead < want {
		last = later(last, now.programme.Between(step, now.coming[ahead]))
		step = now.coming[ahead]
		if last.Before(ps.studio.Now()) { // after a long break
			continue
		}
		number++
		row, err := now.making.plan(ctx, step, last, number)
		if err != nil {
			return nil, err
		}
		rows = append(rows, row)
		ahead++
	}
	return rows, nil
}

// later returns so many days later at the same time of day by the clock on the wall, also where summer begins between:
// in the zone of the program, as a class that is moved has it.
func later(at time.Time, days int) time.Time { return at.In(time.Local).AddDate(0, 0, days) }

// Adopt has the courses of files from before there were programmes be programmes: what grew from class to class is
// their steps. A course keeps its name as its uid, so that it is adopted once.
func (ps *Programmes) Adopt(ctx context.Context) error {
	plans, err := ps.studio.Store.With(ctx).PlansInCourses()
	if err != nil {
		return err
	}
	courses := map[string][]store.Plan{}
	for _, one := range plans {
		name := plan.CourseIn(one.Document).Name
		courses[name] = append(courses[name], one)
	}
	var failed error
	for name, all := range courses {
		failed = errors.Join(failed, ps.adopt(ctx, name, all))
	}
	return failed
}

func (ps *Programmes) adopt(ctx context.Context, name string, all []store.Plan) error {
	slices.SortFunc(
		all,
		func(a, b store.Plan) int { return plan.CourseIn(a.Document).Class - plan.CourseIn(b.Document).Class },
	)
	docs := make([]plan.Document, len(all))
	short := make([][]string, len(all)) // of each passage
	led := 1
	for i, one := range all {
		doc, p, err := ps.read(ctx, one.Document, one.GroupID)
		if err != nil {
			return fact.Wrap(err, "programme.course-class", "course", name, "class", i+1, "why", err)
		}
		docs[i] = doc
		for n, fields := range doc.Passages() {
			short[i] = append(short[i], p.Passages[n].Short(fields))
			if i == 0 && p.Passages[n].Led() {
				led = n + 1
			}
		}
	}
	passage := grows(short, led)
	of := programme.Programme{
		Name:    all[0].Title,
		Passage: passage,
		By:      programme.Date,
		Days:    max(plan.CourseIn(all[0].Document).Days, 1),
		Missed:  programme.Wait,
		Eased:   programme.Wait,
	}
	if of.Name == "" {
		of.Name = "Course"
	}
	steps := make([]int, len(all))
	for i := range all {
		says := short[i][min(passage, len(short[i]))-1]
		if n := len(of.Steps); n > 0 && of.Steps[n-1].Says == says {
			of.Steps[n-1].Classes++
		} else {
			of.Steps = append(of.Steps, programme.Step{Says: says, Classes: 1})
		}
		steps[i] = len(of.Steps)
	}
	docs[0].SetMark(plan.Mark{})
	base, err := json.Marshal(docs[0])
	if err != nil {
		return err
	}
	row, err := ps.checked(ctx, store.Programme{UID: name, GroupID: all[0].GroupID, Base: base}, of)
	if err != nil {
		return err
	}
	making := ps.making(row, of)
	return ps.studio.Store.With(ctx).InTransaction(func(st *store.Store) error {
		if _, err := st.AddProgramme(row); err != nil {
			return err
		}
		for i, one := range all {
			made, err := making.class(ctx, steps[i]-1)
			if err != nil {
				return err
			}
			text, err := json.Marshal(made.Document)
			if err != nil {
				return err
			}
			docs[i].SetMark(
				plan.Mark{Programme: name, Class: plan.CourseIn(one.Document).Class, Step: steps[i], Made: sumOf(text)},
			)
			next, err := ps.plans.ToStore(ctx, docs[i], one.GroupID)
			if err != nil {
				return err
			}
			next.ID, next.Revision = one.ID, one.Revision
			if _, err := st.SavePlan(next); err != nil {
				return err
			}
		}
		return nil
	})
}

// grows returns the passage, from 1, that is not the same in all classes; the given one where all are.
func grows(short [][]string, otherwise int) int {
	for n := range short[0] {
		for _, one := range short[1:] {
			if n < len(one) && one[n] != short[0][n] {
				return n + 1
			}
		}
	}
	return otherwise
}

// Files returns all plans of a programme in one archive, to hand it to a substitute.
func (ps *Programmes) Files(ctx context.Context, id int64) (studio.File, error) {
	now, err := ps.standing(ctx, id)
	if err != nil {
		return studio.File{}, err
	}
	var archive bytes.Buffer
	writer := zip.NewWriter(&archive)
	for i, c := range now.classes {
		if c.plan == nil {
			continue
		}
		file, err := ps.plans.File(ctx, c.plan.ID)
		if err != nil {
			return studio.File{}, err
		}
		entry, err := writer.Create(fmt.Sprintf("%02d-%s", i+1, file.Name))
		if err != nil {
			return studio.File{}, err
		}
		if _, err := entry.Write(file.Data); err != nil {
			return studio.File{}, err
		}
	}
	err = writer.Close()
	return studio.File{
		Name: studio.FileName(now.programme.Name) + "-plans.zip",
		Type: "application/zip",
		Data: archive.Bytes(),
	}, err
}
