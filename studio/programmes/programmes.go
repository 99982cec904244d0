// Package programmes runs programmes over weeks: where each group is, its next plans, and why it moved or waited.
package programmes

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"log/slog"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/plan/line"
	"vastlantern/core/practice"
	"vastlantern/core/programme"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Programmes is the room.
type Programmes struct {
	studio    *studio.Studio
	library   Library
	plans     Plans
	record    Record
	homes     Homes
	following sync.Mutex // two that make the coming plans at once would make them twice
}

// Library is what is asked of the practice book and the groups.
type Library interface {
	GroupsByID(context.Context) (map[int64]*contract.Group, error)
	Group(ctx context.Context, id int64) (*contract.Group, error)
	OwnPractices(context.Context) ([]*practice.Practice, error)
	Language(context.Context) string
	AttachTeacherSettings(ctx context.Context, doc plan.Document, group *contract.Group) error
}

// Plans is what is asked of the room where plans are made.
type Plans interface {
	Names(context.Context) (*line.Names, error)
	ToStore(ctx context.Context, doc plan.Document, group int64) (store.Plan, error)
	File(ctx context.Context, id int64) (studio.File, error)
}

// Record is what is asked of what was taught.
type Record interface {
	// Since is the records of the classes of a group that began then or later and are over, by their number; of all groups
	// where it is 0.
	Since(ctx context.Context, group int64, from time.Time) (map[int64]taught.Record, error)
}

// Homes is what is asked of the room that makes pages for home.
type Homes interface {
	PageOfClasses(
		ctx context.Context, name, key, begins string, group int64, classes []studio.HomeClass, template []byte,
	) (studio.File, error)
}

// New returns the room of a studio. When a class has come to its end, the programmes follow.
func New(s *studio.Studio, l Library, p Plans, r Record, h Homes) *Programmes {
	ps := &Programmes{studio: s, library: l, plans: p, record: r, homes: h}
	s.OnClass(func(ctx context.Context, class store.Class) {
		if !class.EndedAt.IsZero() && ofProgramme(class.Document) {
			ps.FollowAll(ctx)
		}
	})
	return ps
}

// ofProgramme reports whether a class was led of a programme, or of a course from before there were any: of no other
// does one follow.
func ofProgramme(document []byte) bool {
	return plan.MarkIn(document).Programme != "" || plan.CourseIn(document).Name != ""
}

// Offer returns what a programme can be begun with from a plan.
func (ps *Programmes) Offer(ctx context.Context, planID int64) (contract.ProgrammeOffer, error) {
	offer := contract.ProgrammeOffer{Templates: []contract.ProgrammeTemplate{}}
	stored, err := ps.studio.Store.With(ctx).Plan(planID)
	if err != nil {
		return offer, studio.Missing(err, store.KindPlan, planID)
	}
	for _, t := range programme.Templates() {
		offer.Templates = append(offer.Templates, ps.template(ctx, t))
	}
	offer.Begins = !stored.StartsAt.IsZero()
	offer.Passages, err = ps.passages(ctx, stored.Document, stored.GroupID)
	return offer, err
}

// template returns a programme to begin with: its name and its steps as one would type them in the language of the
// classes, and what it is in that of the person who asks.
func (ps *Programmes) template(ctx context.Context, t programme.Template) contract.ProgrammeTemplate {
	in := ps.library.Language(ctx)
	one := t.Programme
	one.Name = language.In(in).Text(fact.New("programme-template." + t.ID + ".name"))
	one.Steps = slices.Clone(one.Steps)
	for i := range one.Steps {
		step := &one.Steps[i]
		if strokes, found := strings.CutSuffix(step.Says, " strokes"); found {
			if n, err := strconv.Atoi(strokes); err == nil {
				step.Says = language.In(in).Text(fact.New("pattern.strokes", "strokes", n))
			}
			continue
		}
		step.Says = studio.Ours(in, "programme-step.", step.Says)
	}
	return contract.ProgrammeTemplate{
		ID: t.ID, About: studio.Told(ctx, fact.New("programme-template."+t.ID+".about")), Programme: one, Counts: t.Counts,
		Strokes: t.Strokes,
	}
}

// passages returns the practices of a class.
func (ps *Programmes) passages(ctx context.Context, document []byte, group int64) ([]contract.ProgrammePassage, error) {
	list := []contract.ProgrammePassage{}
	doc, p, err := ps.read(ctx, document, group)
	if err != nil {
		return list, err
	}
	lengths := lengthsOf(p)
	point := append(taught.CanGoHome(p, lengths), 0)[0]
	for i, fields := range doc.Passages() {
		if one := &p.Passages[i]; one.Practice != nil && !one.Trial {
			list = append(
				list,
				contract.ProgrammePassage{
					Passage: i + 1,
					Name:    one.Name(),
					Says:    one.Short(fields),
					Counts:  one.TakesCounts(),
					Strokes: one.CountsStrokes(),
					Point:   i+1 == point,
				},
			)
		}
	}
	return list, nil
}

func (ps *Programmes) read(ctx context.Context, document []byte, group int64) (plan.Document, *plan.Plan, error) {
	doc, err := sheet.ReadDocument(bytes.NewReader(document))
	if err != nil {
		return doc, nil, studio.Unreadable(err)
	}
	g, err := ps.library.Group(ctx, group)
	if err != nil {
		return doc, nil, err
	}
	if err := ps.library.AttachTeacherSettings(ctx, doc, g); err != nil {
		return doc, nil, err
	}
	p, err := plan.Read(doc)
	if err != nil {
		return doc, nil, studio.FailInPlan(err, "plan.correct-first")
	}
	return doc, p, nil
}

// Begin has the group of a plan follow a programme: the plan is its first class, and those that come are made.
func (ps *Programmes) Begin(ctx context.Context, planID int64, want programme.Programme) (contract.ProgrammeSheet,
	error) {
	stored, err := ps.studio.Store.With(ctx).Plan(planID)
	if err != nil {
		return contract.ProgrammeSheet{}, studio.Missing(err, store.KindPlan, planID)
	}
	if mark := plan.MarkIn(stored.Document); mark.Programme != "" {
		of, err := ps.of(ctx, mark.Programme)
		if err != nil {
			return contract.ProgrammeSheet{}, err
		}
		if of.ID != 0 {
			return contract.ProgrammeSheet{}, studio.Fail(studio.ErrConflict, "programme.plan-taken")
		}
	}
	if stored.StartsAt.IsZero() {
		return contract.ProgrammeSheet{}, studio.Fail(studio.ErrInvalid, "programme.needs-time")
	}
	if stored.StartsAt.Add(missedAfter).Before(ps.studio.Now()) {
		return contract.ProgrammeSheet{}, studio.Fail(studio.ErrInvalid, "programme.day-over")
	}
	doc, p, err := ps.read(ctx, stored.Document, stored.GroupID)
	if err != nil {
		return contract.ProgrammeSheet{}, err
	}
	doc.SetMark(plan.Mark{})
	base, err := json.Marshal(doc)
	if err != nil {
		return contract.ProgrammeSheet{}, err
	}
	row, err := ps.checked(ctx, store.Programme{GroupID: stored.GroupID, Base: base}, want)
	if err != nil {
		return contract.ProgrammeSheet{}, err
	}
	err = ps.studio.Store.With(ctx).InTransaction(func(st *store.Store) error {
		if row, err = st.AddProgramme(row); err != nil {
			return err
		}
		first, err := ps.making(row, want).plan(ctx, 0, p.StartsAt, 1) // in the zone that it was written in
		if err != nil {
			return err
		}
		first.ID, first.Revision = stored.ID, stored.Revision
		_, err = st.SavePlan(first)
		return err
	})
	if err != nil {
		return contract.ProgrammeSheet{}, changedElsewhere(err)
	}
	return ps.moved(ctx, row.ID)
}

// changedElsewhere tells that a plan was changed meanwhile.
func changedElsewhere(err error) error {
	if errors.Is(err, store.ErrTaken) {
		return studio.Fail(studio.ErrConflict, "programme.plan-changed")
	}
	return err
}

// of returns the programme of a uid; one without a number where it is gone or there is none.
func (ps *Programmes) of(ctx context.Context, uid string) (store.Programme, error) {
	all, err := ps.studio.Store.With(ctx).Programmes()
	for _, one := range all {
		if uid != "" && one.UID == uid {
			return one, nil
		}
	}
	return store.Programme{}, err
}

// checked returns a programme as it is stored, if each of its steps can be made.
func (ps *Programmes) checked(ctx context.Context, row store.Programme, want programme.Programme) (store.Programme,
	error) {
	want.Name = strings.TrimSpace(want.Name)
	if len(want.Steps) > programme.MostSteps { // before the plan of any is read
		return row, studio.FailAll(want.Check())
	}
	want.Steps = slices.Clone(want.Steps)
	for i := range want.Steps {
		step := &want.Steps[i]
		step.Says = strings.TrimSpace(step.Says)
		if !step.Whole() {
			continue
		}
		doc, p, err := ps.read(ctx, step.Plan, row.GroupID)
		if err != nil {
			return row, studio.Fail(studio.ErrInvalid, "programme.step-wrong", "why", err)
		}
		doc.Undate()
		if step.Says == "" {
			step.Says = p.Title
		}
		if step.Plan, err = json.Marshal(doc); err != nil {
			return row, err
		}
	}
	if wrong := want.Check(); len(wrong) > 0 {
		return row, studio.FailAll(wrong)
	}
	making := ps.making(row, want)
	for step := range want.Steps {
		if _, err := making.class(ctx, step); err != nil {
			return row, studio.Fail(studio.ErrInvalid, "programme.step-wrong", "why", err)
		}
	}
	text, err := json.Marshal(want)
	row.Programme, row.UpdatedAt = text, ps.studio.Now()
	return row, err
}

// Save changes a programme in the place of its revision; what comes follows. The same save may come twice, where the
// answer to the first was lost.
func (ps *Programmes) Save(ctx context.Context, id int64, save contract.ProgrammeSave) (contract.ProgrammeSheet,
	error) {
	stored, err := ps.studio.Store.With(ctx).Programme(id)
	if err != nil {
		return contract.ProgrammeSheet{}, studio.Missing(err, store.KindProgramme, id)
	}
	there := stored
	if stored, err = ps.checked(ctx, stored, save.Programme); err != nil {
		return contract.ProgrammeSheet{}, err
	}
	stored.Revision = save.Revision
	err = ps.studio.Store.With(ctx).SaveProgramme(stored)
	if errors.Is(err, store.ErrTaken) && bytes.Equal(there.Programme, stored.Programme) {
		return ps.Sheet(ctx, id)
	}
	if err != nil {
		return contract.ProgrammeSheet{}, studio.Replaced(err, store.KindProgramme, id)
	}
	return ps.moved(ctx, id)
}

// moved returns a programme after something changed: what comes follows.
func (ps *Programmes) moved(ctx context.Context, id int64) (contract.ProgrammeSheet, error) {
	if err := ps.follow(ctx, id); err != nil {
		return contract.ProgrammeSheet{}, err
	}
	ps.studio.NoteChange()
	ps.studio.NotifyAll()
	return ps.Sheet(ctx, id)
}

// Shift moves what comes of a programme by the days between two classes: nobody comes on that day.
func (ps *Programmes) Shift(ctx context.Context, id int64) (contract.ProgrammeSheet, error) {
	now, err := ps.standing(ctx, id)
	if err != nil {
		return contract.ProgrammeSheet{}, err
	}
	err = ps.studio.Store.With(ctx).InTransaction(func(st *store.Store) error {
		for _, class := range now.classes {
			if class.state != contract.StateComing {
				continue
			}
			doc, p, err := sheet.ReadPlan(bytes.NewReader(class.plan.Document))
			if p == nil {
				return err
			}
			doc.SetStart(later(p.StartsAt, now.programme.Days))
			row, err := ps.plans.ToStore(ctx, doc, class.plan.GroupID)
			if err != nil {
				return err
			}
			row.ID, row.Revision = class.plan.ID, class.plan.Revision
			if _, err := st.SavePlan(row); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return contract.ProgrammeSheet{}, changedElsewhere(err)
	}
	return ps.moved(ctx, id)
}

// OfGroup returns the programmes of a group, those that are over last.
func (ps *Programmes) OfGroup(ctx context.Context, group int64) ([]contract.ProgrammeCard, error) {
	all, err := ps.studio.Store.With(ctx).Programmes()
	going, over := []contract.ProgrammeCard{}, []contract.ProgrammeCard{}
	for _, one := range all {
		if one.GroupID != group {
			continue
		}
		s, err := ps.Sheet(ctx, one.ID)
		if err != nil {
			return going, err
		}
		if s.Card.Over {
			over = append(over, s.Card)
		} else {
			going = append(going, s.Card)
		}
	}
	return append(going, over...), err
}

// OfPlan returns the programme that a plan is a class of.
func (ps *Programmes) OfPlan(ctx context.Context, planID int64) (contract.ProgrammeOfPlan, error) {
	stored, err := ps.studio.Store.With(ctx).Plan(planID)
	if err != nil {
		return contract.ProgrammeOfPlan{}, studio.Missing(err, store.KindPlan, planID)
	}
	mark := plan.MarkIn(stored.Document)
	of, err := ps.of(ctx, mark.Programme)
	if err != nil || of.ID == 0 {
		return contract.ProgrammeOfPlan{}, err
	}
	s, err := ps.Sheet(ctx, of.ID)
	return contract.ProgrammeOfPlan{Sheet: &s, Number: mark.Class}, err
}

func lengthsOf(p *plan.Plan) []int64 {
	lengths := make([]int64, len(p.Passages))
	for i := range p.Passages {
		lengths[i] = p.Passages[i].PlannedLength().Round()
	}
	return lengths
}

// about returns the passage that a class of a step is about: the one that follows the steps, or the point of a class of
// its own; nil where it has no practice.
func about(p *plan.Plan, of *programme.Programme, step int) *plan.Passage {
	number := of.Passage
	if of.Steps[step].Whole() {
		number = append(taught.CanGoHome(p, lengthsOf(p)), 0)[0]
	}
	if number < 1 || number > len(p.Passages) {
		return nil
	}
	return &p.Passages[number-1]
}

// Guides returns what the programmes of a group ask for next time.
func (ps *Programmes) Guides(ctx context.Context, group int64) ([]taught.Guide, error) {
	all, err := ps.studio.Store.With(ctx).Programmes()
	if err != nil {
		return nil, err
	}
	var list []taught.Guide
	for _, one := range all {
		if one.GroupID != group || group == 0 {
			continue
		}
		now, err := ps.standingOf(ctx, one)
		if err != nil || now.at.Over {
			if err != nil { // one that cannot be read keeps nobody from planning
				slog.Warn("a programme is left out", "programme", one.ID, "error", err)
			}
			continue
		}
		made, err := now.making.class(ctx, now.at.Step)
		if err != nil {
			continue
		}
		p := about(made.Plan, &now.programme, made.Step)
		if p == nil || p.Practice == nil || !p.Led() {
			continue
		}
		args := []any{"name", now.programme.Name, "step", now.at.Step + 1, "of", len(now.programme.Steps), "why", now.at.Why}
		why := fact.New("guide.step", args...)
		if !made.Why.None() {
			why = fact.New("guide.step-lower", append(args, "lower", made.Why)...)
		}
		list = append(list, taught.Guide{Practice: p.Practice.ID, Next: taught.Next{
			Counts:  p.Measure.Counts,
			Strokes: p.Measure.Strokes,
			Tempo:   p.Measure.Tempo,
			Rounds:  p.TotalRounds(p.Measure),
			Why:     why,
			Length:  p.RoundSpan(p.Measure).Times(p.TotalRounds(p.Measure)).Round(),
		}})
	}
	return list, nil
}
