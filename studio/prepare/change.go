package prepare

import (
	"bytes"
	"context"
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/care"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/plan/fit"
	"vastlantern/core/plan/line"
	"vastlantern/core/sheet"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Draft reports what a document means while it is being written, after one change that the core makes.
func (ps *Plans) Draft(ctx context.Context, d contract.Draft) (contract.Drafted, error) {
	doc, err := sheet.ReadDocument(bytes.NewReader(d.Document))
	if err != nil {
		return contract.Drafted{}, studio.Fail(studio.ErrInvalid, "file.not-plan", "why", err)
	}
	group, err := ps.library.Group(ctx, d.GroupID)
	if err != nil {
		return contract.Drafted{}, err
	}
	p, err := ps.read(ctx, doc, group)
	if p == nil {
		return contract.Drafted{}, err
	}
	drafted := contract.Drafted{}
	if d.Change != nil {
		changed, err := ps.change(ctx, doc, p, group, *d.Change)
		drafted.Changed = changed.Pointer()
		if err != nil {
			drafted.Problem = fact.Of(err).Pointer()
		}
	}
	if doc.Fills() {
		if p, err := ps.read(ctx, doc, group); err == nil {
			doc.FillUp(p)
		}
	}
	if drafted.Summary, err = ps.summary(ctx, doc, group); err != nil {
		return drafted, err
	}
	drafted.Document, err = written(doc)
	return drafted, err
}

// change makes one change in a document, whose plan is p, and tells it. The error says why it cannot be; the
// document is as it was then.
func (ps *Plans) change(ctx context.Context,
	doc plan.Document,
	p *plan.Plan,
	group *contract.Group,
	c contract.Change,
) (words fact.Fact, err error) {
	if tooLong(doc, p) && !slices.Contains(onePassage, c.Do) {
		return words, fact.New("plan.too-long-to-change")
	}
	switch c.Do {
	case contract.ChangeAdd:
		return words, ps.add(ctx, doc, c.Text, group)
	case contract.ChangeFit:
		return fitToSlot(doc, p, level(group))
	case contract.ChangeApply:
		return words, applyAdvice(doc, p, level(group), c.Text)
	case contract.ChangeTalks:
		return ps.lengthenTalks(ctx, doc, p, group)
	case contract.ChangeRest:
		if doc.LengthenRest(c.LengthMS / 1000) {
			return fact.New("change.longer-rest"), nil
		}
		return fact.New("change.rest-at-end"), nil
	case contract.ChangeSplit:
		return words, doc.Split(p, c.Passage)
	}
	fields, err := doc.Passage(c.Passage)
	if err != nil {
		return words, err
	}
	passage, err := ps.passageOf(ctx, p, fields, c.Passage)
	if err != nil {
		return words, err
	}
	switch c.Do {
	case contract.ChangeShort:
		return words, ps.shorten(ctx, doc, c.Passage, c.Text)
	case contract.ChangeCount:
		return words, ps.setCount(ctx, fields, passage, c)
	case contract.ChangeOwnWords:
		return words, line.SetOwnWords(fields, c.Text)
	case contract.ChangeAgain:
		fields.SetAgain(passage, c.Counts == 1)
		return words, nil
	case contract.ChangePacer:
		return setPacer(fields, passage, c)
	case contract.ChangeGentle:
		return care.Soften(doc, p, c.Passage)
	case contract.ChangeAdvised:
		return ps.asAdvised(ctx, doc, c.Passage, passage, group)
	}
	if !passage.HasRounds() {
		return words, fact.New("change.no-rounds", "name", passage.Name())
	}
	switch c.Do {
	case contract.ChangeRounds:
		fields.SetRounds(passage.TotalRounds(passage.Measure) + c.Rounds)
		return words, nil
	case contract.ChangeRoundsToEnd:
		rounds, fits := fit.RoundsToEnd(p, c.Passage-1, breath.Int(c.EndMS))
		if !fits {
			return words, fact.New("change.one-round-late", "name", passage.Name())
		}
		fields.SetRounds(rounds)
		return fact.New("change.rounds", "rounds", rounds), nil
	case contract.ChangeTempoToEnd:
		if passage.HasOpenPhases() {
			return words, fact.New("change.no-tempo", "name", passage.Name())
		}
		tempo, fits := fit.TempoToEnd(p, c.Passage-1, breath.Int(c.EndMS))
		if !fits {
			return words, fact.New("change.fastest-late", "tempo", tempo, "name", passage.Name())
		}
		fields.SetTempo(passage, tempo)
		return fact.New("change.tempo", "tempo", tempo), nil
	}
	return words, fact.New("change.unknown", "change", c.Do)
}

// onePassage is the changes that need no more than the passage itself: with them a plan that is too long is mended.
var onePassage = []contract.ChangeKind{
	contract.ChangeShort, contract.ChangeCount, contract.ChangeOwnWords, contract.ChangeRounds, contract.ChangePacer,
	contract.ChangeAgain,
}

// tooLong reports whether the plan is longer than a class can be, so that its passages were not computed (plan.Read).
func tooLong(doc plan.Document, p *plan.Plan) bool { return len(p.Passages) < len(doc.Passages()) }

// passageOf returns a passage of the plan, from 1; where the plan is too long it is read by itself.
func (ps *Plans) passageOf(ctx context.Context, p *plan.Plan, fields plan.Fields, number int) (*plan.Passage, error) {
	if number <= len(p.Passages) {
		return &p.Passages[number-1], nil
	}
	own, err := ps.library.OwnPractices(ctx)
	if err != nil {
		return nil, err
	}
	one, _ := plan.OneAt(p.Tempo, fields, own...) // what is wrong in it is told by the summary
	return &one, nil
}

// add adds what is typed, one line or several: passages, or the whole course of a practice, as the school has it.
func (ps *Plans) add(ctx context.Context, doc plan.Document, text string, group *contract.Group) error {
	added, err := ps.typed(ctx, text, group)
	if err != nil {
		return err
	}
	own, err := ps.library.OwnPractices(ctx)
	if err != nil {
		return err
	}
	for _, fields := range added {
		if p, err := plan.One(fields, own...); err == nil && p.OwnPace && len(p.Lines) == 0 {
			fields.SetAgain(&p, true)
		}
	}
	doc.Append(added...)
	return nil
}

// shorten rewrites a passage the short way.
func (ps *Plans) shorten(ctx context.Context, doc plan.Document, number int, text string) error {
	own, err := ps.library.OwnPractices(ctx)
	if err != nil {
		return err
	}
	fields, err := doc.Passage(number)
	if err != nil {
		return err
	}
	changed, err := line.Shorten(fields, text, own...)
	if err == nil {
		line.RetitlePreset(changed, own...)
		doc.Replace(number, changed)
	}
	return err
}

// setCount changes the counts of one phase.
func (ps *Plans) setCount(ctx context.Context, fields plan.Fields, p *plan.Passage, c contract.Change) error {
	own, err := ps.library.OwnPractices(ctx)
	if err != nil {
		return err
	}
	if err := fields.SetCount(p, c.Phase, c.Counts); err != nil {
		return err
	}
	line.RetitlePreset(fields, own...)
	return nil
}

// setPacer changes who sets the pace of a passage, and tells what was removed for it.
func setPacer(fields plan.Fields, p *plan.Passage, c contract.Change) (words fact.Fact, err error) {
	removed, err := fields.SetPacer(p, c.Pacer, c.Waits)
	if err != nil || len(removed) == 0 {
		return words, err
	}
	names := make([]fact.Fact, len(removed))
	for i, field := range removed {
		names[i] = fact.New("field." + field)
	}
	return fact.New("change.removed-for-pacer", "fields", names, "pacer", fact.New("pacer."+string(c.Pacer))), nil
}

// asAdvised plans a passage as the group's record advises.
func (ps *Plans) asAdvised(ctx context.Context,
	doc plan.Document,
	number int,
	p *plan.Passage,
	group *contract.Group,
) (words fact.Fact, err error) {
	nothing := fact.New("change.nothing-advised")
	if group == nil {
		return words, nothing
	}
	h, err := ps.past.History(ctx, group.ID)
	if err != nil {
		return words, err
	}
	fields, err := doc.Passage(number)
	if err != nil {
		return words, err
	}
	next := fields.Clone()
	if words, _ = advised(next, p, h); words.None() {
		return words, nothing
	}
	doc.Replace(number, next)
	return words, nil
}

// lengthenTalks makes the talks of a plan as long as they usually take with its group, to five seconds; those that are
// kept stay.
func (ps *Plans) lengthenTalks(ctx context.Context, doc plan.Document, p *plan.Plan,
	group *contract.Group) (words fact.Fact, err error) {
	if group == nil {
		return words, fact.New("change.choose-group")
	}
	h, err := ps.past.History(ctx, group.ID)
	if err != nil {
		return words, err
	}
	times, of := h.Talks()
	if of == 0 {
		return words, fact.New("change.talks-fit")
	}
	doc.LengthenTalks(p, times)
	return fact.New("change.talks", "times", tenth(times)), nil
}

// applyAdvice makes so what a piece of advice says, by its key.
func applyAdvice(doc plan.Document, p *plan.Plan, level, key string) error {
	for _, a := range p.Advise(level) {
		if a.Key() == key && a.CanApply() {
			a.Apply(doc)
			return nil
		}
	}
	return fact.New("change.advice-gone")
}

func fitToSlot(doc plan.Document, p *plan.Plan, level string) (words fact.Fact, err error) {
	if p.Slot.Sign() == 0 {
		return words, fact.New("change.no-slot")
	}
	chosen := fit.To(p, p.Slot.Times(60_000), level)
	if chosen.Over.Sign() > 0 {
		return words, fact.New("change.still-too-long", "seconds", chosen.Over.Div(breath.Int(1000)).Round())
	}
	chosen.Apply(doc, p)
	if spare := p.Slot.Times(60_000).Sub(chosen.Length); breath.Int(60_000).Less(spare) {
		return fact.New("change.fitted-spare", "minutes", spare.Div(breath.Int(60_000)).Floor()), nil
	}
	return fact.New("change.fitted"), nil
}
