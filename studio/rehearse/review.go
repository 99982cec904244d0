package rehearse

import (
	"bytes"
	"context"
	"encoding/json"
	"log/slog"
	"slices"
	"time"

	"vastlantern/core/fact"
	"vastlantern/core/rehearsal"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// All returns what can be rehearsed, and what was.
func (r *Rehearse) All(ctx context.Context) (contract.Rehearsals, error) {
	all := contract.Rehearsals{
		Scenarios: []contract.Scenario{},
		Plans:     []contract.RehearsalPlan{},
		Done:      []contract.Rehearsal{},
		Limits:    limits,
	}
	var err error
	if all.Rooms, err = simulatedRooms(ctx); err != nil {
		return all, err
	}
	scenarios, err := rehearsal.Scenarios()
	if err != nil {
		return all, err
	}
	for i := range scenarios {
		one := scenario(ctx, &scenarios[i])
		for n := range one.Levels {
			if err := fill(ctx, &one.Levels[n], &scenarios[i], n+1); err != nil {
				return all, err
			}
		}
		all.Scenarios = append(all.Scenarios, one)
	}
	if all.Plans, err = r.plans(ctx); err != nil {
		return all, err
	}
	stored, err := r.studio.Store.With(ctx).Rehearsals()
	if err != nil {
		return all, err
	}
	for _, row := range stored {
		one, err := entry(ctx, row)
		if err != nil {
			r.studio.NoteDamage(store.KindRehearsal, row.ID, err)
			continue
		}
		all.Done = append(all.Done, one)
		count(all.Scenarios, one)
	}
	return all, nil
}

const (
	mostPlans = 60
	lately    = 14 * 24 * time.Hour
)

// plans returns those that come, that were lately, and that have no time.
func (r *Rehearse) plans(ctx context.Context) ([]contract.RehearsalPlan, error) {
	list := []contract.RehearsalPlan{}
	coming, err := r.studio.Store.With(ctx).PlansFrom(r.studio.Now().Add(-lately), mostPlans)
	if err != nil {
		return list, err
	}
	timeless, err := r.studio.Store.With(ctx).PlansWithoutTime(mostPlans - len(coming))
	for _, row := range slices.Concat(coming, timeless) {
		_, p, err := sheet.ReadPlan(bytes.NewReader(row.Document))
		if err != nil || len(p.Passages) == 0 {
			continue // it cannot be led yet, and says so where it is planned
		}
		one := contract.RehearsalPlan{ID: row.ID, Title: p.Title, Passages: []string{}}
		if !row.StartsAt.IsZero() {
			one.StartsMS = contract.Millis(row.StartsAt)
		}
		for i := range p.Passages {
			one.Passages = append(one.Passages, studio.Called(ctx, p.Passages[i]))
		}
		list = append(list, one)
	}
	return list, err
}

// count notes a rehearsal at its task.
func count(scenarios []contract.Scenario, one contract.Rehearsal) {
	for i := range scenarios {
		if scenarios[i].Name != one.Scenario || one.Level < 1 || one.Level > len(scenarios[i].Levels) {
			continue
		}
		level := &scenarios[i].Levels[one.Level-1]
		level.Tries++
		level.Reached = level.Reached || one.Digest != nil && one.Digest.Aims > 0 && one.Digest.Reached == one.Digest.Aims
	}
}

func simulatedRooms(ctx context.Context) ([]contract.SimulatedRoom, error) {
	rooms, err := rehearsal.Rooms()
	list := make([]contract.SimulatedRoom, len(rooms))
	for i, one := range rooms {
		list[i] = contract.SimulatedRoom{
			Name: one.Name, Title: studio.Told(ctx, one.Title()), About: studio.Told(ctx, one.About()), People: one.Size(),
		}
	}
	return list, err
}

func scenario(ctx context.Context, s *rehearsal.Scenario) contract.Scenario {
	one := contract.Scenario{
		Name:   s.Name,
		Title:  studio.Told(ctx, s.Title()),
		Learn:  studio.Told(ctx, s.Learn()),
		Task:   studio.Told(ctx, s.Task()),
		Away:   s.Away,
		Levels: []contract.ScenarioLevel{},
	}
	for i := range s.Levels {
		level := contract.ScenarioLevel{Says: studio.Told(ctx, s.Like(i+1)), Aims: []fact.Fact{}}
		for _, aim := range s.Levels[i].Aims {
			level.Aims = append(level.Aims, aim.Says())
		}
		one.Levels = append(one.Levels, level)
	}
	return one
}

// fill tells of the room and the length of a level.
func fill(ctx context.Context, to *contract.ScenarioLevel, of *rehearsal.Scenario, number int) error {
	level := &of.Levels[number-1]
	room, err := rehearsal.Find(level.Room)
	if err != nil {
		return err
	}
	people, err := level.Seat(level.Seed)
	if err != nil {
		return err
	}
	document, err := level.Document(of.Name)
	if err != nil {
		return err
	}
	_, p, err := sheet.ReadPlan(bytes.NewReader(document))
	if err != nil {
		return err
	}
	to.Room, to.People, to.LengthMS = studio.Told(ctx, room.Title()), len(people), p.Length().Round()
	return nil
}

// entry returns a rehearsal as the list has it.
func entry(ctx context.Context, row store.Rehearsal) (contract.Rehearsal, error) {
	var set setting
	if err := json.Unmarshal(row.Setting, &set); err != nil {
		return contract.Rehearsal{}, err
	}
	_, p, err := sheet.ReadPlan(bytes.NewReader(row.Document))
	if err != nil {
		return contract.Rehearsal{}, err
	}
	room, err := rehearsal.Find(set.Room)
	if err != nil {
		return contract.Rehearsal{}, err
	}
	one := contract.Rehearsal{
		ID:        row.ID,
		Title:     p.Title,
		Scenario:  set.Scenario,
		Level:     set.Level,
		Room:      studio.Told(ctx, room.Title()),
		StartedMS: contract.Millis(row.StartedAt),
		AtMS:      row.AtMS,
		Over:      !row.EndedAt.IsZero(),
	}
	if one.Over {
		one.Digest = &contract.RehearsalDigest{}
		err = json.Unmarshal(row.Digest, one.Digest)
	}
	return one, err
}

// End ends a rehearsal where it is, and looks back on it. One that has ended stays as it is.
func (r *Rehearse) End(ctx context.Context, id int64, to contract.RehearsalMoment) (contract.RehearsalReview, error) {
	r.pressing.Lock()
	defer r.pressing.Unlock()
	l, err := r.open(ctx, id)
	if err != nil {
		return contract.RehearsalReview{}, err
	}
	if !l.stored.EndedAt.IsZero() {
		return r.review(ctx, l)
	}
	l.stored.AtMS = l.moment(max(to.AtMS, l.stored.AtMS))
	if end := l.class.Led.Timeline(); !end.Open {
		l.stored.AtMS = min(l.stored.AtMS, max(end.End, l.class.LastPress()))
	}
	l.stored.EndedAt = r.studio.Now()
	review, err := r.review(ctx, l)
	if err != nil {
		return review, err
	}
	if l.stored.Digest, err = json.Marshal(review.Digest); err != nil {
		return review, err
	}
	return review, r.save(ctx, l)
}

// Review looks back on a rehearsal that has ended.
func (r *Rehearse) Review(ctx context.Context, id int64) (contract.RehearsalReview, error) {
	l, err := r.open(ctx, id)
	if err != nil {
		return contract.RehearsalReview{}, err
	}
	if l.stored.EndedAt.IsZero() {
		return contract.RehearsalReview{}, studio.Fail(studio.ErrConflict, "rehearsal.not-ended")
	}
	return r.review(ctx, l)
}

func (r *Rehearse) review(ctx context.Context, l *inProgress) (contract.RehearsalReview, error) {
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
		Aims:      []contract.ReviewAim{}, Looks: l.stored.Looks, Visible: rehearsal.Visible, Limits: limits,
	}
	if l.task != nil {
		task := scenario(ctx, l.task)
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
	review.Rehearsal, err = entry(ctx, withDigest(l.stored, review.Digest))
	return review, err
}

// withDigest returns a rehearsal as it is stored with what came of it.
func withDigest(row store.Rehearsal, d *contract.RehearsalDigest) store.Rehearsal {
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
func passages(review *contract.RehearsalReview, class *studio.Class) {
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
