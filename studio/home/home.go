// Package home makes home practice: which practice and how much, on paper or as a page that plays by itself, and how it
// went.
package home

import (
	"bytes"
	"context"
	"errors"
	"math"
	"slices"
	"time"

	"vastlantern/core/care"
	"vastlantern/core/fact"
	"vastlantern/core/homework"
	"vastlantern/core/plan"
	"vastlantern/core/school"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Homes is the room.
type Homes struct {
	studio  *studio.Studio
	library Library
	classes Classes
}

// Library is what is asked of the school.
type Library interface {
	Group(ctx context.Context, id int64) (*contract.Group, error)
	AttachTeacherSettings(ctx context.Context, doc plan.Document, group *contract.Group) error
	FingersOf(ctx context.Context, group *contract.Group) (string, error)
	ChoicesFor(ctx context.Context, group *contract.Group) (school.Choices, error)
	CareFor(ctx context.Context, group *contract.Group, at time.Time) (care.Room, error)
}

// Classes is what is asked of the room where classes are led.
type Classes interface {
	Open(ctx context.Context, id int64) (*studio.Class, error)
	// PlanScore is the whole of a plan as it is played without this program.
	PlanScore(ctx context.Context, p *plan.Plan, fingers string) (contract.Score, error)
}

// New returns the room of a studio.
func New(s *studio.Studio, l Library, c Classes) *Homes { return &Homes{s, l, c} }

// whens returns when in the day, to choose from: common practice, with no source.
func whens(in *language.Catalogue) []string {
	return texts(
		in,
		[]fact.Fact{
			fact.New("when.morning"),
			fact.New("when.before-lunch"),
			fact.New("when.evening"),
			fact.New("when.before-sleep"),
			fact.New("when.waiting"),
		},
	)
}

// source is where a home practice comes from: a plan, or a class that was led from it.
type source struct {
	doc     plan.Document
	plan    *plan.Plan
	lengths []int64       // of each passage, in milliseconds
	last    []taught.Next // what was in force at the end of each
	planID  int64
	classID int64
	group   int64
}

func (h *Homes) ofPlan(ctx context.Context, id int64) (source, error) {
	stored, err := h.studio.Store.With(ctx).Plan(id)
	if err != nil {
		return source{}, studio.Missing(err, store.KindPlan, id)
	}
	doc, err := sheet.ReadDocument(bytes.NewReader(stored.Document))
	if err != nil {
		return source{}, err
	}
	group, err := h.library.Group(ctx, stored.GroupID)
	if err != nil {
		return source{}, err
	}
	if err := h.library.AttachTeacherSettings(ctx, doc, group); err != nil {
		return source{}, err
	}
	p, err := plan.Read(doc)
	if err != nil {
		return source{}, studio.FailInPlan(err, "home.plan-wrong")
	}
	from := source{
		doc:     doc,
		plan:    p,
		planID:  id,
		group:   stored.GroupID,
		lengths: make([]int64, len(p.Passages)),
		last:    make([]taught.Next, len(p.Passages)),
	}
	for i := range p.Passages {
		from.lengths[i] = p.Passages[i].PlannedLength().Round()
	}
	return from, nil
}

func (h *Homes) ofClass(ctx context.Context, id int64) (source, error) {
	class, err := h.classes.Open(ctx, id)
	if err != nil {
		return source{}, err
	}
	doc, p, err := sheet.ReadPlan(bytes.NewReader(class.Stored.Document))
	if err != nil {
		return source{}, err
	}
	record := taught.Of(p, class.Script, class.At(h.studio.Now()))
	from := source{doc: doc, plan: p, classID: id, planID: class.Stored.PlanID, group: class.Stored.GroupID}
	if _, err := h.studio.Store.With(ctx).Plan(from.planID); errors.Is(err, store.ErrNotFound) {
		from.planID = 0
	}
	for i, was := range record.Passages {
		from.lengths = append(from.lengths, was.Length)
		last := taught.Next{}
		if p.Passages[i].Led() && was.Rounds > 0 {
			last = taught.Next{Counts: was.Counts, Strokes: was.Strokes, Tempo: was.TempoEnd}
		}
		from.last = append(from.last, last)
	}
	return from, nil
}

// OfferFromPlan returns what can go home from a plan.
func (h *Homes) OfferFromPlan(ctx context.Context, id int64) (contract.HomeOffer, error) {
	from, err := h.ofPlan(ctx, id)
	if err != nil {
		return contract.HomeOffer{}, err
	}
	return h.offer(ctx, from)
}

// OfferFromClass returns what can go home from a class, as it was led.
func (h *Homes) OfferFromClass(ctx context.Context, id int64) (contract.HomeOffer, error) {
	from, err := h.ofClass(ctx, id)
	if err != nil {
		return contract.HomeOffer{}, err
	}
	return h.offer(ctx, from)
}

// mostBefore is how many earlier ones are offered again.
const mostBefore = 10

func (h *Homes) offer(ctx context.Context, from source) (contract.HomeOffer, error) {
	offer := contract.HomeOffer{
		Title:    from.plan.Title,
		PlanID:   from.planID,
		ClassID:  from.classID,
		Passages: []contract.HomePassage{},
		Whens:    whens(in(from.plan)),
		Begins:   h.studio.Today(),
		Before:   []contract.Home{},
	}
	limits, err := h.limits(ctx, from.group)
	if err != nil {
		return offer, err
	}
	for _, number := range taught.CanGoHome(from.plan, from.lengths) {
		offer.Passages = append(offer.Passages, homePassage(ctx, from, number, limits))
	}
	given, err := h.given(ctx, from)
	if err != nil {
		return offer, err
	}
	offer.Given = h.cards(ctx, given)
	if from.group == 0 {
		return offer, nil
	}
	before, err := h.studio.Store.With(ctx).HomesOfGroup(from.group, mostBefore)
	before = slices.DeleteFunc(before, func(b store.Home) bool {
		return slices.ContainsFunc(given, func(g store.Home) bool { return g.ID == b.ID })
	})
	offer.Before = h.cards(ctx, before)
	return offer, err
}

// given returns what was given from there.
func (h *Homes) given(ctx context.Context, from source) ([]store.Home, error) {
	if from.classID == 0 {
		return h.studio.Store.With(ctx).HomesOfPlan(from.planID)
	}
	return h.studio.Store.With(ctx).HomesOfClass(from.classID, from.planID)
}

// limits returns those of the school for a group.
func (h *Homes) limits(ctx context.Context, id int64) (homework.Limits, error) {
	group, err := h.library.Group(ctx, id)
	if err != nil {
		return homework.Limits{}, err
	}
	choices, err := h.library.ChoicesFor(ctx, group)
	level := ""
	if group != nil {
		level = group.Level
	}
	return homework.LimitsOf(choices, level), err
}

// growths returns the ways to grow that fit a passage as it was at the end.
func growths(p *plan.Passage, m plan.Measure, limits homework.Limits) []contract.HomeGrowth {
	last := *p
	last.Measure = m
	list := []contract.HomeGrowth{}
	for _, g := range homework.Growths(&last, limits) {
		list = append(list, contract.HomeGrowth{ID: g.ID, Name: g.Name, Steps: contract.HomeStepsOf(g.Steps)})
	}
	return list
}

// homePassage returns a passage as it would go home: as it was at the end.
func homePassage(ctx context.Context, from source, number int, limits homework.Limits) contract.HomePassage {
	p, last := &from.plan.Passages[number-1], from.last[number-1]
	usual := homework.Usual(from.lengths[number-1])
	m := p.Measure
	if last.Counts.Inhale > 0 {
		m.Counts = last.Counts
	}
	if last.Strokes > 0 {
		m.Strokes = last.Strokes
	}
	if last.Tempo.Sign() > 0 {
		m.Tempo = last.Tempo
	}
	one := contract.HomePassage{
		Passage: number,
		Name:    studio.Called(ctx, *p),
		Says:    studio.Summed(ctx, *p),
		Usual:   contract.HomeAmountOf(usual),
		Grows:   growths(p, m, limits),
	}
	if p.TakesCounts() {
		one.Counts = m.Counts.String()
	}
	if !p.HasOpenPhases() {
		one.Tempo = math.Round(m.Tempo.Float()*10) / 10
	}
	return one
}
