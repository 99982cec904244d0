package rehearsed

import (
	"encoding/json"
	"log/slog"

	"vastlantern/core/rehearsal"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
)

// End ends a rehearsal where it is, and looks back on it. One that has ended stays as it is.
func (d *Desk) End(id int64, to contract.RehearsalMoment) (contract.RehearsalReview, error) {
	l, err := d.open(id)
	if err != nil {
		return contract.RehearsalReview{}, err
	}
	if !l.stored.EndedAt.IsZero() {
		return d.review(l)
	}
	l.stored.AtMS = l.moment(max(to.AtMS, l.stored.AtMS))
	if end := l.class.Led.Timeline(); !end.Open {
		l.stored.AtMS = min(l.stored.AtMS, max(end.End, l.class.LastPress()))
	}
	l.stored.EndedAt = d.Now()
	review, err := d.review(l)
	if err != nil {
		return review, err
	}
	if l.stored.Digest, err = json.Marshal(review.Digest); err != nil {
		return review, err
	}
	return review, d.save(l)
}

// Review looks back on a rehearsal that has ended.
func (d *Desk) Review(id int64) (contract.RehearsalReview, error) {
	l, err := d.open(id)
	if err != nil {
		return contract.RehearsalReview{}, err
	}
	if l.stored.EndedAt.IsZero() {
		return contract.RehearsalReview{}, ErrNotEnded
	}
	return d.review(l)
}

func (d *Desk) review(l *inProgress) (contract.RehearsalReview, error) {
	m, err := l.model(l.stored.AtMS)
	if err != nil {
		return contract.RehearsalReview{}, err
	}
	back := m.Review()
	review := contract.RehearsalReview{
		EndMS:     back.End,
		SlotMS:    l.class.Plan.Slot.Times(60_000).Round(),
		LateMS:    back.Late,
		RestMS:    back.Rest,
		PlannedMS: back.Planned,
		Passages:  []contract.ReviewPassage{},
		People:    []contract.ReviewPerson{},
		Moments:   []contract.ReviewMoment{},
		Said:      []contract.ReviewSaid{},
		Eased:     []contract.ReviewEased{},
		Pressed:   []contract.ReviewPress{},
		Aims:      []contract.ReviewAim{}, Looks: l.stored.Looks, Visible: rehearsal.Visible, Limits: Limits,
	}
	if l.task != nil {
		task := d.scenario(l.task)
		review.Task = &task
		for _, aim := range l.level.Reached(&back, l.stored.Looks) {
			review.Aims = append(review.Aims, contract.ReviewAim{Says: aim.Says, Done: aim.Done})
		}
	}
	passages(&review, l.class)
	for who := range back.Courses {
		review.People = append(review.People, person(&back, m, who))
	}
	for _, one := range back.Moments {
		review.Moments = append(review.Moments, contract.ReviewMoment{
			ID:        one.ID,
			AtMS:      one.At,
			UntilMS:   one.Until,
			People:    len(one.People),
			Few:       one.Few,
			NamedMS:   one.Named,
			PressedMS: one.Pressed,
			By:        string(one.By),
			Missed:    one.Missed(),
		})
	}
	for _, one := range back.Said {
		review.Said = append(review.Said, contract.ReviewSaid{
			AtMS: one.At, ID: one.ID, There: one.There, Known: one.Known, Else: append([]string{}, one.Else...),
		})
	}
	for _, one := range back.Eased {
		review.Eased = append(
			review.Eased,
			contract.ReviewEased{
				AtMS:     one.At,
				Do:       one.Do,
				Strained: one.Strained,
				AtEase:   one.AtEase,
				Lane:     one.Lane,
				Needless: one.Needless(),
			},
		)
	}
	for _, a := range l.class.Answers {
		if a.Refused.None() && !a.Do.Remarks() {
			review.Pressed = append(review.Pressed, contract.ReviewPress{AtMS: a.At, Do: a.Do})
		}
	}
	review.Digest = digest(&back, &review)
	review.Rehearsal, err = d.Entry(withDigest(l.stored, review.Digest))
	return review, err
}

// withDigest returns a rehearsal as it is stored with what came of it.
func withDigest(row Kept, d *contract.RehearsalDigest) Kept {
	text, err := json.Marshal(d)
	if err != nil {
		slog.Error("the numbers of a rehearsal cannot be written", "rehearsal", row.ID, "error", err) // they are numbers
	}
	row.Digest = text
	return row
}

func digest(back *rehearsal.Review, review *contract.RehearsalReview) *contract.RehearsalDigest {
	d := &contract.RehearsalDigest{
		People:   len(back.Courses),
		ToSee:    back.ToSee(),
		Missed:   back.MissedCount(),
		Needless: back.NeedlessCount(),
		ToActMS:  -1,
		Aims:     len(review.Aims),
		Next:     back.Next.Says.Pointer(),
	}
	if seconds, any := back.ToAct(); any {
		d.ToActMS = seconds * 1000
	}
	for _, one := range review.People {
		if one.Highest >= rehearsal.Visible {
			d.Strained++
		}
	}
	for _, aim := range review.Aims {
		if aim.Done {
			d.Reached++
		}
	}
	return d
}

// passages is where the passages lay that it came to.
func passages(review *contract.RehearsalReview, class *led.Class) {
	last := 0
	for _, row := range class.Led.Timeline().Rows {
		if row.Passage != last && row.At <= review.EndMS {
			last = row.Passage
			review.Passages = append(
				review.Passages,
				contract.ReviewPassage{Name: class.Plan.Passages[last-1].Name(), AtMS: row.At},
			)
		}
	}
}

func person(back *rehearsal.Review, m *rehearsal.Led, who int) contract.ReviewPerson {
	course, p := &back.Courses[who], &m.People[who]
	one := contract.ReviewPerson{
		Strain:   []contract.ReviewPoint{},
		Limit:    p.Limit,
		Blocked:  p.Blocked,
		Breaths:  course.Breaths,
		Followed: course.Followed,
		Holds:    back.Held[who].Held,
		Exceeded: back.Held[who].Exceeded,
		Wrong:    course.Wrong, Latecomer: m.Latecomer > 0 && who == len(m.People)-1, Shown: []contract.ReviewShown{},
	}
	for i, point := range course.Points {
		one.Highest = max(one.Highest, point.Strain)
		flat := i > 0 && i+1 < len(course.Points) && course.Points[i-1].Strain == point.Strain &&
			course.Points[i+1].Strain == point.Strain
		if !flat {
			one.Strain = append(one.Strain, contract.ReviewPoint{AtMS: point.At, Strain: point.Strain})
		}
	}
	for _, s := range back.Shown {
		if s.Who == who {
			one.Shown = append(
				one.Shown,
				contract.ReviewShown{
					ID:      s.ID,
					AtMS:    s.At,
					UntilMS: s.Until,
					Times:   s.Times,
					NamedMS: s.Named,
					MetMS:   s.Met,
					By:      string(s.By),
				},
			)
		}
	}
	return one
}
