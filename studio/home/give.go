package home

import (
	"bytes"
	"context"
	"slices"
	"strconv"
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/care"
	"vastlantern/core/fact"
	"vastlantern/core/homework"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// GiveFromPlan gives something to do at home with a plan.
func (h *Homes) GiveFromPlan(ctx context.Context, id int64, in contract.HomeGive) (contract.HomeOffer, error) {
	from, err := h.ofPlan(ctx, id)
	if err != nil {
		return contract.HomeOffer{}, err
	}
	return h.give(ctx, from, in)
}

// GiveFromClass gives something to do at home after a class, or in it.
func (h *Homes) GiveFromClass(ctx context.Context, id int64, in contract.HomeGive) (contract.HomeOffer, error) {
	from, err := h.ofClass(ctx, id)
	if err != nil {
		return contract.HomeOffer{}, err
	}
	return h.give(ctx, from, in)
}

// PreviewFromPlan returns the steps of what would be given with a plan, as they are understood.
func (h *Homes) PreviewFromPlan(ctx context.Context, id int64, in contract.HomeGive) (contract.HomePreview, error) {
	from, err := h.ofPlan(ctx, id)
	if err != nil {
		return contract.HomePreview{}, err
	}
	return h.preview(ctx, from, in)
}

// PreviewFromClass is PreviewFromPlan of a class.
func (h *Homes) PreviewFromClass(ctx context.Context, id int64, in contract.HomeGive) (contract.HomePreview, error) {
	from, err := h.ofClass(ctx, id)
	if err != nil {
		return contract.HomePreview{}, err
	}
	return h.preview(ctx, from, in)
}

func (h *Homes) give(ctx context.Context, from source, in contract.HomeGive) (contract.HomeOffer, error) {
	task, document, _, err := h.asGiven(ctx, from, in)
	if err != nil {
		return contract.HomeOffer{}, err
	}
	if _, err := readSteps(task, document); err != nil {
		return contract.HomeOffer{}, studio.FailAll([]fact.Fact{fact.Of(err)})
	}
	steps, err := homework.PackSteps(task.Steps)
	if err != nil {
		return contract.HomeOffer{}, err
	}
	_, err = h.studio.Store.With(ctx).AddHome(store.Home{
		ClassID: from.classID, PlanID: from.planID, GroupID: from.group,
		GivenAt:  h.studio.Now().Truncate(time.Second),
		Document: document, Minutes: task.Minutes, Pieces: task.Pieces, Days: task.Days, When: task.When,
		Evening: string(task.Evening), Begins: task.Begins, Sentence: task.Sentence, Ask: task.Ask, Steps: steps,
	})
	if err != nil {
		return contract.HomeOffer{}, err
	}
	h.studio.NoteChange()
	if from.classID != 0 {
		return h.OfferFromClass(ctx, from.classID)
	}
	return h.OfferFromPlan(ctx, from.planID)
}

// asGiven returns what goes home, with the plan file of its one passage and with its plan.
func (h *Homes) asGiven(
	ctx context.Context, from source, in contract.HomeGive,
) (task homework.Task, document []byte, given *plan.Plan, err error) {
	task = in.Task()
	if wrong := task.Check(); len(wrong) > 0 {
		return task, nil, nil, studio.FailAll(wrong)
	}
	number, at := in.Passage, taught.Next{}
	switch {
	case in.Again != 0:
		earlier, err := h.studio.Store.With(ctx).Home(in.Again)
		if err != nil {
			return task, nil, nil, studio.Missing(err, store.KindHome, in.Again)
		}
		if from.doc, from.plan, err = sheet.ReadPlan(bytes.NewReader(earlier.Document)); err != nil {
			return task, nil, nil, studio.FailInPlan(err, "home.given-unreadable")
		}
		number = 1
	case !slices.Contains(taught.CanGoHome(from.plan, from.lengths), number):
		return task, nil, nil, studio.Fail(studio.ErrInvalid, "home.passage-not", "passage", number)
	default:
		at = from.last[number-1]
	}
	if err := overrule(&at, in, &from.plan.Passages[number-1]); err != nil {
		return task, nil, nil, err
	}
	if err := task.Plan(from.doc, from.plan, number, at); err != nil {
		return task, nil, nil, studio.FailInPlan(err, "home.not-like-this")
	}
	var text bytes.Buffer
	if err := sheet.WritePlan(&text, from.doc); err != nil {
		return task, nil, nil, err
	}
	// what cannot be read again is not stored
	if _, given, err = sheet.ReadPlan(bytes.NewReader(text.Bytes())); err != nil {
		return task, nil, nil, studio.FailInPlan(err, "home.not-like-this")
	}
	return task, text.Bytes(), given, nil
}

// preview returns each step as it is understood, with what is wrong with it and what to be careful of.
func (h *Homes) preview(ctx context.Context, from source, in contract.HomeGive) (contract.HomePreview, error) {
	preview := contract.HomePreview{Steps: []contract.HomeStepRead{}}
	task, document, given, err := h.asGiven(ctx, from, in)
	if err != nil {
		return preview, err
	}
	group, err := h.library.Group(ctx, from.group)
	if err != nil {
		return preview, err
	}
	who, err := h.library.CareFor(ctx, group, time.Time{}) // the hour at home is not known
	if err != nil {
		return preview, err
	}
	for i, days := range task.Stretches() {
		read := contract.HomeStepRead{HomeStretch: stretchOf(days), Care: []fact.Fact{}}
		if len(task.Steps) > 0 {
			read.Typed = task.Steps[i].Says
		}
		p, err := readStep(task, document, given, i)
		if err != nil {
			read.Wrong = fact.Of(err).Pointer()
		} else {
			read.Says = pieceInWords(p, language.In(language.Of(ctx)))
			read.Care = careOf(&p.Passages[0], task.Pieces, who)
		}
		preview.Steps = append(preview.Steps, read)
	}
	return preview, nil
}

// careOf returns what to be careful of before a step is given to the people of a group.
func careOf(p *plan.Passage, pieces int, who care.Room) []fact.Fact {
	list := []fact.Fact{}
	if exceeds := homework.Exceeds(p, pieces); !exceeds.None() {
		list = append(list, exceeds)
	}
	for _, f := range contract.FindingsOf(p, who) {
		list = append(list, f.Say)
	}
	return list
}

// overrule takes the counts and the tempo that were chosen, where they were.
func overrule(at *taught.Next, in contract.HomeGive, p *plan.Passage) error {
	if in.Counts != "" {
		counts, err := breath.ParseCounts(in.Counts)
		if err != nil || !p.TakesCounts() {
			return studio.Fail(studio.ErrInvalid, "home.counts", "given", in.Counts)
		}
		at.Counts = counts
	}
	if in.Tempo != 0 {
		tempo, err := breath.ParseExact(strconv.FormatFloat(in.Tempo, 'f', -1, 64))
		if err != nil {
			return studio.Fail(studio.ErrInvalid, "home.tempo", "given", in.Tempo)
		}
		at.Tempo = tempo
	}
	return nil
}

func taskStored(s store.Home) (homework.Task, error) {
	steps, err := homework.UnpackSteps(s.Steps)
	return homework.Task{
		Minutes: s.Minutes, Pieces: s.Pieces, Days: s.Days, When: s.When, Evening: homework.Evening(s.Evening),
		Begins: s.Begins, Sentence: s.Sentence, Ask: s.Ask, Steps: steps,
	}, err
}
