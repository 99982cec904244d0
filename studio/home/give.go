package home

import (
	"bytes"
	"context"
	"slices"
	"strconv"
	"strings"
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
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

func (h *Homes) give(ctx context.Context, from source, in contract.HomeGive) (contract.HomeOffer, error) {
	amount := amountOf(in.HomeAmount)
	if wrong := amount.Check(); len(wrong) > 0 {
		return contract.HomeOffer{}, studio.FailAll(wrong)
	}
	number, at := in.Passage, taught.Next{}
	switch {
	case in.Again != 0:
		earlier, err := h.studio.Store.With(ctx).Home(in.Again)
		if err != nil {
			return contract.HomeOffer{}, studio.Missing(err, store.KindHome, in.Again)
		}
		if from.doc, from.plan, err = sheet.ReadPlan(bytes.NewReader(earlier.Document)); err != nil {
			return contract.HomeOffer{}, studio.FailInPlan(err, "home.given-unreadable")
		}
		number = 1
	case !slices.Contains(taught.CanGoHome(from.plan, from.lengths), number):
		return contract.HomeOffer{}, studio.Fail(studio.ErrInvalid, "home.passage-not", "passage", number)
	default:
		at = from.last[number-1]
	}
	if err := overrule(&at, in, &from.plan.Passages[number-1]); err != nil {
		return contract.HomeOffer{}, err
	}
	if err := amount.Plan(from.doc, from.plan, number, at); err != nil {
		return contract.HomeOffer{}, studio.FailInPlan(err, "home.not-like-this")
	}
	var document bytes.Buffer
	if err := sheet.WritePlan(&document, from.doc); err != nil {
		return contract.HomeOffer{}, err
	}
	// what cannot be read again is not stored
	if _, _, err := sheet.ReadPlan(bytes.NewReader(document.Bytes())); err != nil {
		return contract.HomeOffer{}, studio.FailInPlan(err, "home.not-like-this")
	}
	_, err := h.studio.Store.With(ctx).AddHome(store.Home{
		ClassID:  from.classID,
		PlanID:   from.planID,
		GroupID:  from.group,
		GivenAt:  h.studio.Now().Truncate(time.Second),
		Document: document.Bytes(),
		Minutes:  amount.Minutes, Pieces: amount.Pieces, Days: amount.Days, When: amount.When, Sentence: amount.Sentence,
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

func amountOf(a contract.HomeAmount) taught.Home {
	return taught.Home{
		Minutes:  a.Minutes,
		Pieces:   a.Pieces,
		Days:     a.Days,
		When:     strings.TrimSpace(a.When),
		Sentence: strings.TrimSpace(a.Sentence),
	}
}

func amountStored(s store.Home) taught.Home {
	return taught.Home{Minutes: s.Minutes, Pieces: s.Pieces, Days: s.Days, When: s.When, Sentence: s.Sentence}
}
