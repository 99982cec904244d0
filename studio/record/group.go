package record

import (
	"cmp"
	"context"
	"slices"

	"vastlantern/core/taught"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// GroupCourse returns what a group was taught over the weeks, practice by practice, and what the record advises next.
func (r *Records) GroupCourse(ctx context.Context, group int64) (contract.GroupCourse, error) {
	course := contract.GroupCourse{Practices: []contract.PracticeCourse{}, Never: []string{},
		CheckIns: []contract.CheckInPoint{}}
	if g, err := r.library.Group(ctx, group); err != nil || g == nil {
		if err == nil {
			err = studio.Fail(studio.ErrNotFound, "missing.group", "id", group)
		}
		return course, err
	}
	past, err := r.past(ctx, group)
	if err != nil {
		return course, err
	}
	book, err := r.library.PracticeNames(ctx)
	if err != nil {
		return course, err
	}
	course.Classes = len(past.classes)
	if course.CheckIns, err = r.checkIns(ctx, group, past, book); err != nil {
		return course, err
	}
	found := map[string]*contract.PracticeCourse{}
	for _, class := range past.classes {
		if class.record.AsPlanned() {
			course.Streak++
		} else {
			course.Streak = 0
		}
		for _, p := range class.record.Passages {
			if p.Practice == "" || p.Trial || p.Length == 0 {
				continue
			}
			one := found[p.Practice]
			if one == nil {
				one = &contract.PracticeCourse{
					Practice: p.Practice,
					Name:     book[p.Practice],
					Points:   []contract.CoursePoint{},
					BasedOn:  []int64{},
				}
				if one.Name == "" { // an own one that was removed since
					one.Name = p.Name
				}
				found[p.Practice] = one
			}
			one.Points = append(one.Points, point(class, p))
		}
	}
	for id, one := range found {
		if next, known := past.history.Next(id); known {
			one.Next, one.Why, one.BasedOn = next.Whole().Pointer(), next.Why.Pointer(), basedOn(one.Points, next.BasedOn)
		}
		course.Practices = append(course.Practices, *one)
	}
	slices.SortFunc(course.Practices, func(a, b contract.PracticeCourse) int { // what was taught last first
		return cmp.Or(
			cmp.Compare(b.Points[len(b.Points)-1].StartedMS, a.Points[len(a.Points)-1].StartedMS),
			cmp.Compare(a.Name, b.Name),
		)
	})
	for id, name := range book {
		if found[id] == nil {
			course.Never = append(course.Never, name)
		}
	}
	slices.Sort(course.Never)
	return course, nil
}

func point(class pastClass, p taught.Passage) contract.CoursePoint {
	at := contract.CoursePoint{
		ClassID:   class.stored.ID,
		StartedMS: contract.Millis(class.stored.StartedAt),
		Counts:    p.Pattern,
		Rounds:    p.Rounds,
		Planned:   p.PlannedRounds,
		Tempo:     shown(p.TempoMean.Float()), LengthMS: p.Length, HeldMS: p.HeldFull + p.HeldEmpty, Eased: p.Eased,
	}
	if p.Counts.Inhale > 0 {
		at.Counts, at.Breath, at.Rung = p.Counts.String(), p.Counts.Total(), taught.Rung(p.Counts)+1
	}
	return at
}

// basedOn returns the last classes in which the practice was led in rounds, so many.
func basedOn(points []contract.CoursePoint, n int) []int64 {
	list := []int64{}
	for _, p := range slices.Backward(points) {
		if p.Rounds > 0 && len(list) < n && !slices.Contains(list, p.ClassID) {
			list = append(list, p.ClassID)
		}
	}
	slices.Reverse(list)
	return list
}
