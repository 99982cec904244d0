package prepare

import (
	"bytes"
	"context"
	"errors"
	"slices"
	"strings"
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/care"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/plan/fit"
	"vastlantern/core/plan/line"
	"vastlantern/core/sheet"
	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Plan returns a stored plan with its summary.
func (ps *Plans) Plan(ctx context.Context, id int64) (contract.Plan, error) {
	stored, err := ps.studio.Store.With(ctx).Plan(id)
	if err != nil {
		return contract.Plan{}, ps.studio.OrDamaged(studio.Missing(err, store.KindPlan, id), store.KindPlan, id)
	}
	return ps.shapePlan(ctx, stored)
}

func (ps *Plans) shapePlan(ctx context.Context, stored store.Plan) (contract.Plan, error) {
	groups, err := ps.library.GroupsByID(ctx)
	if err != nil {
		return contract.Plan{}, err
	}
	doc, err := sheet.ReadDocument(bytes.NewReader(stored.Document))
	if err != nil {
		return contract.Plan{}, ps.studio.OrDamaged(studio.Unreadable(err), store.KindPlan, stored.ID)
	}
	group := groups[stored.GroupID]
	summary, err := ps.summary(ctx, doc, group)
	return contract.Plan{
		ID:       stored.ID,
		Revision: stored.Revision,
		Group:    group,
		Document: stored.Document,
		Summary:  summary,
		Groups:   contract.GroupsByName(groups, language.Order(language.Of(ctx))),
	}, err
}

// read gives the document what it is led with, for the group, and reads it. The plan is there also where it has errors.
func (ps *Plans) read(ctx context.Context, doc plan.Document, group *contract.Group) (*plan.Plan, error) {
	if err := ps.library.AttachTeacherSettings(ctx, doc, group); err != nil {
		return nil, err
	}
	p, err := plan.Read(doc)
	if p != nil {
		p.CallIn(language.Of(ctx))
	}
	return p, err
}

// Add stores a new plan. A document with errors in its fields is stored too: it is being written, and cannot be
// led until they are mended. What is no plan document at all is refused.
func (ps *Plans) Add(ctx context.Context, document []byte, group int64) (contract.Plan, error) {
	stored, err := ps.toStore(ctx, document, group)
	if err != nil {
		return contract.Plan{}, err
	}
	if stored, err = ps.studio.Store.With(ctx).AddPlan(stored); err != nil {
		return contract.Plan{}, studio.Missing(err, store.KindGroup, group)
	}
	return ps.shapePlan(ctx, stored)
}

// Save stores the document in the place of the revision that it was made from. The same save may come twice, where
// the answer to the first was lost: it is stored once.
func (ps *Plans) Save(ctx context.Context, id int64, save contract.PlanSave) (contract.Plan, error) {
	mine, err := ps.toStore(ctx, save.Document, save.GroupID)
	if err != nil {
		return contract.Plan{}, err
	}
	mine.ID, mine.Revision = id, save.Revision
	stored, err := ps.studio.Store.With(ctx).SavePlan(mine)
	if errors.Is(err, store.ErrTaken) {
		if there, err := ps.studio.Store.With(ctx).Plan(id); err == nil && there.GroupID == mine.GroupID &&
			bytes.Equal(there.Document, mine.Document) {
			return ps.shapePlan(ctx, there)
		}
	}
	if err != nil {
		return contract.Plan{}, studio.Replaced(err, store.KindPlan, id)
	}
	return ps.shapePlan(ctx, stored)
}

// written returns the document as a plan file.
func written(doc plan.Document) ([]byte, error) {
	var text bytes.Buffer
	err := sheet.WritePlan(&text, doc)
	return text.Bytes(), err
}

const longestTitle = 300 // bytes

// toStore returns a document as it is stored. What could not be read again is refused.
func (ps *Plans) toStore(ctx context.Context, document []byte, group int64) (store.Plan, error) {
	doc, err := sheet.ReadDocument(bytes.NewReader(document))
	if err != nil {
		return store.Plan{}, studio.Fail(studio.ErrInvalid, "file.not-plan", "why", err)
	}
	g, err := ps.library.Group(ctx, group)
	if err != nil {
		return store.Plan{}, err
	}
	p, err := ps.read(ctx, doc, g)
	if p == nil {
		return store.Plan{}, err
	}
	if err == nil {
		doc.FillUp(p)
	}
	if len(p.Title) > longestTitle {
		return store.Plan{}, studio.Fail(studio.ErrInvalid, "plan.title-long", "most", longestTitle)
	}
	if control := sheet.ControlCharacter(document); control != "" {
		return store.Plan{}, studio.Fail(studio.ErrInvalid, "plan.control-character", "character", control)
	}
	text, err := written(doc)
	if err != nil {
		return store.Plan{}, err
	}
	// With the teacher's own words and practices it may have become longer than what is read.
	if _, err := sheet.ReadDocument(bytes.NewReader(text)); err != nil {
		return store.Plan{}, studio.Fail(studio.ErrInvalid, "plan.not-readable-again", "why", err)
	}
	return store.Plan{
		GroupID:   group,
		Title:     p.Title,
		StartsAt:  p.StartsAt,
		Document:  text,
		UpdatedAt: ps.studio.Now(),
	}, nil
}

// ToStore returns a document as a plan of the group, with what it is led with; errors are those of Add.
func (ps *Plans) ToStore(ctx context.Context, doc plan.Document, group int64) (store.Plan, error) {
	text, err := written(doc)
	if err != nil {
		return store.Plan{}, err
	}
	return ps.toStore(ctx, text, group)
}

// summary summarises a document for the group. Wrong fields count with their defaults.
func (ps *Plans) summary(ctx context.Context, doc plan.Document, group *contract.Group) (contract.PlanSummary, error) {
	p, wrong := ps.read(ctx, doc, group)
	if p == nil {
		return contract.PlanSummary{}, wrong
	}
	who, err := ps.library.CareFor(ctx, group, p.StartsAt)
	if err != nil {
		return contract.PlanSummary{}, err
	}
	shape := contract.PlanSummary{
		Title:     p.Title,
		LengthMS:  p.Length().Round(),
		SlotMS:    p.Slot.Times(60_000).Round(),
		StartsMS:  contract.Moment(p.StartsAt),
		Passages:  []contract.PassageSummary{},
		Errors:    contract.FieldErrorsOf(wrong),
		Strong:    contract.StrongOf(p),
		Additions: []contract.Addition{},
	}
	for _, a := range fit.Additions(p, level(group)) {
		shape.Additions = append(
			shape.Additions,
			contract.Addition{Passage: a.Passage, Rounds: a.Rounds, LengthMS: a.Length.Round()},
		)
	}
	if shape.Advice, err = ps.advice(ctx, doc, p, group); err != nil {
		return contract.PlanSummary{}, err
	}
	if shape.SlotMS > 0 {
		shape.SpareMS = shape.SlotMS - shape.LengthMS
	}
	fields := doc.Passages()
	var start breath.Exact
	for i := range p.Passages {
		passage := &p.Passages[i]
		length := passage.PlannedLength()
		one := passageSummary(ctx, passage, who)
		one.Round, one.LaneRound = roundOf(p, i), laneRoundOf(p, i)
		one.Short = line.ShortIn(language.Of(ctx), passage.Short(fields[i]))
		one.Says = studio.AllTold(ctx, passage.Says(fields[i]))
		one.StartMS, one.LengthMS = start.Round(), length.Round()
		start = start.Add(length)
		shape.Passages = append(shape.Passages, one)
	}
	return shape, nil
}

// level returns that of the group; empty if it is not known, or there is none.
func level(group *contract.Group) string {
	if group == nil {
		return ""
	}
	return group.Level
}

func passageSummary(ctx context.Context, p *plan.Passage, who care.Room) contract.PassageSummary {
	read := *p // for its steps, some of which have our words
	read.Translate(language.Of(ctx))
	shape := contract.PassageSummary{
		Name:     p.Name(),
		Type:     p.Type,
		OwnPace:  p.OwnPace,
		Cautions: contract.CautionsOf(p),
		Findings: contract.FindingsOf(p, who),
		Offers:   contract.OffersOf(p),
		Opening:  contract.StepsOf(read.OpeningSteps),
		Closing:  contract.StepsOf(read.ClosingSteps),
		OwnWords: line.OwnWords(p),
		Again:    []string{},
		Lines:    contract.OwnLinesOf(p),
		Remark:   p.Remark,
		Check:    p.Check,
		Roles:    contract.RolesOf(p),
		Pacer:    p.Pacer(),
		Pacers:   append([]plan.Pacer{}, p.Pacers()...),
		Waits:    append([]breath.Phase{}, p.Waits()...),
		CanWait:  append([]breath.Phase{}, p.CanWait()...),
		Lanes:    contract.LanesOf(p, p.Measure, who.Rules.LaneLimit),
		Beside:   contract.BesideOf(p.Beside),
	}
	if p.Practice == nil {
		return shape
	}
	f := p.Figures()
	if on, there := p.Again(); there {
		shape.AgainOn = on
		for _, again := range p.Practice.Again {
			shape.Again = append(shape.Again, again.Say)
		}
	}
	shape.Gentler = care.HasGentle(p)
	shape.Soften = shape.Gentler && care.AsksForGentle(p, who)
	shape.Practice, shape.Term, shape.TrueRatio = p.Practice.ID, p.Practice.Term, f.TrueRatio
	shape.Counts = studio.Told(ctx, p.PatternFact())
	shape.Rounds, shape.RoundMS, shape.PerMinute = f.Rounds, f.Round.Round(), f.PerMinute.Float()
	if !p.HasOpenPhases() {
		shape.CountMS = breath.CountLength(p.Measure.Tempo).Float()
	}
	shape.LongestHoldMS, shape.HeldMS = f.LongestHold.Round(), f.HeldFull.Add(f.HeldEmpty).Round()
	return shape
}

// roundOf returns a round of a passage as it is drawn; empty if it has none.
func roundOf(p *plan.Plan, passage int) []contract.ScorePhase {
	one := &p.Passages[passage]
	if one.Type != plan.Practice {
		return []contract.ScorePhase{}
	}
	return contract.PhasesOf(pace.OneRound(p, passage, one.Measure), p)
}

// laneRoundOf returns the same round in the gentler lane; empty if nothing runs beside.
func laneRoundOf(p *plan.Plan, passage int) []contract.ScorePhase {
	one := &p.Passages[passage]
	if one.Type != plan.Practice || one.Beside.None() {
		return []contract.ScorePhase{}
	}
	return contract.PhasesOf(pace.OneLane(p, passage, one.Measure, one.Beside), p)
}

// Card returns a plan in a list.
func (*Plans) Card(ctx context.Context, stored store.Plan, groups map[int64]*contract.Group) contract.PlanCard {
	card := contract.PlanCard{
		ID:       stored.ID,
		Title:    stored.Title,
		Group:    groups[stored.GroupID],
		StartsMS: contract.Moment(stored.StartsAt),
		Passages: []string{},
	}
	_, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	card.Wrong = err != nil
	if p != nil {
		card.LengthMS, card.SlotMS = p.Length().Round(), p.Slot.Times(60_000).Round()
		for i := range p.Passages {
			card.Passages = append(card.Passages, studio.Summed(ctx, p.Passages[i]))
		}
	}
	return card
}

// Bounds of looking for plans.
const (
	mostFound   = 50  // at once
	longestFind = 200 // bytes
)

// Find returns the plans that have all of the words in their titles, those changed last first, after so many.
func (ps *Plans) Find(ctx context.Context, words string, skip int) (contract.PlansFound, error) {
	if len(words) > longestFind {
		return contract.PlansFound{}, studio.Fail(
			studio.ErrInvalid,
			"find.too-long",
			"given",
			len(words),
			"most",
			longestFind,
		)
	}
	groups, err := ps.library.GroupsByID(ctx)
	if err != nil {
		return contract.PlansFound{}, err
	}
	stored, more, err := ps.studio.Store.With(ctx).PlansTitled(strings.Fields(words), max(skip, 0), mostFound)
	found := contract.PlansFound{Plans: []contract.PlanCard{}, More: more}
	for _, one := range stored {
		found.Plans = append(found.Plans, ps.Card(ctx, one, groups))
	}
	return found, err
}

// Upcoming returns the next class that is planned for a time and not led yet, as everybody may know it; nil if there is
// none.
func (ps *Plans) Upcoming(ctx context.Context) (*contract.Upcoming, error) {
	const enough = 2 // of which at most one was begun
	plans, err := ps.studio.Store.With(ctx).PlansFrom(ps.studio.Now().Add(-studio.Late), enough)
	if err != nil {
		return nil, err
	}
	led, err := ps.newest(ctx)
	if err != nil {
		return nil, err
	}
	for _, stored := range plans {
		const early = 2 * time.Hour // a class that begins so long before its time is still that class
		begun := led.PlanID == stored.ID && led.StartedAt.After(stored.StartsAt.Add(-early))
		if !begun {
			return upcoming(ctx, stored), nil
		}
	}
	return nil, nil
}

func upcoming(ctx context.Context, stored store.Plan) *contract.Upcoming {
	next := &contract.Upcoming{
		PlanID: stored.ID, CheckIn: plan.CheckInOf(stored.Document), Title: stored.Title,
		StartsMS: contract.Millis(stored.StartsAt), Passages: []string{},
	}
	_, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	if err != nil { // it is told with its time alone
		return next
	}
	next.LengthMS = p.Length().Round()
	for i := range p.Passages {
		name := studio.Called(ctx, p.Passages[i])
		if p.Passages[i].Type == plan.Practice && !slices.Contains(next.Passages, name) {
			next.Passages = append(next.Passages, name)
		}
	}
	return next
}

// newest returns the class that was begun last; an empty one where there was none.
func (ps *Plans) newest(ctx context.Context) (store.Class, error) {
	id, err := ps.studio.Store.With(ctx).NewestClass()
	if errors.Is(err, store.ErrNotFound) || id == 0 && err == nil {
		return store.Class{}, nil
	}
	if err != nil {
		return store.Class{}, err
	}
	return ps.studio.Store.With(ctx).Class(id)
}
