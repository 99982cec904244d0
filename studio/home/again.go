package home

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"strings"
	"time"

	"vastlantern/core/fact"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// answers is how it can have been at home.
var answers = []string{"every-day", "now-and-then", "hardly", contract.HomeTooMuch}

func answerName(answer string) fact.Fact { return fact.New("home-answer." + cmp.Or(answer, "none")) }

// OfGroup returns what a group was given, with what to ask about when it comes again: what was not answered yet, and
// was given some days ago.
func (h *Homes) OfGroup(ctx context.Context, group int64) (contract.HomesOfGroup, error) {
	stored, err := h.studio.Store.With(ctx).HomesOfGroup(group, mostBefore)
	of := contract.HomesOfGroup{Homes: h.cards(ctx, stored), Ask: []int64{}, Answers: answers}
	for _, s := range stored {
		if s.Answer == "" && h.studio.Now().Sub(s.GivenAt) >= soonest {
			of.Ask = append(of.Ask, s.ID)
		}
	}
	return of, err
}

// soonest is how long after it was given a home practice is asked about: not in the class in which it was.
const soonest = 12 * time.Hour

// OfClass returns what was given in a class, or with its plan before it.
func (h *Homes) OfClass(ctx context.Context, class store.Class) ([]contract.Home, error) {
	stored, err := h.studio.Store.With(ctx).HomesOfClass(class.ID, class.PlanID)
	return h.cards(ctx, stored), err
}

// Answer notes how it was at home, in the place of the answer of one revision; an empty answer takes back what was
// noted.
func (h *Homes) Answer(ctx context.Context, id int64, in contract.HomeAnswer) (contract.HomesOfGroup, error) {
	if in.Answer != "" && !slices.Contains(answers, in.Answer) {
		return contract.HomesOfGroup{}, studio.Fail(studio.ErrInvalid, "home.answer", "allowed", strings.Join(answers, ", "))
	}
	stored, err := h.studio.Store.With(ctx).Home(id)
	if err == nil {
		err = h.studio.Store.With(ctx).AnswerHome(id, in.Revision, in.Answer, h.studio.Now())
	}
	if errors.Is(err, store.ErrTaken) {
		if stored, err = h.studio.Store.With(ctx).Home(id); err == nil && stored.Answer != in.Answer {
			return contract.HomesOfGroup{}, studio.ChangedMeanwhile(
				fact.New("changed.home-answer", "there", answerName(stored.Answer), "yours", answerName(in.Answer)),
			)
		}
	}
	if err != nil {
		return contract.HomesOfGroup{}, studio.Missing(err, store.KindHome, id)
	}
	h.changed(ctx, stored)
	return h.OfGroup(ctx, stored.GroupID)
}

// changed has what is known of its class worked out anew: how it was at home counts for next time.
func (h *Homes) changed(ctx context.Context, stored store.Home) {
	if class, err := h.studio.Store.With(ctx).Class(stored.ClassID); err == nil {
		h.studio.ClassChanged(ctx, class)
	}
	h.studio.NoteChange()
}

// TakeBack removes what was given by mistake.
func (h *Homes) TakeBack(ctx context.Context, id int64) (contract.Done, error) {
	stored, err := h.studio.Store.With(ctx).Home(id)
	if err == nil {
		err = h.studio.Store.With(ctx).TakeBackHome(id)
	}
	if err != nil {
		return contract.Done{}, studio.Missing(err, store.KindHome, id)
	}
	h.changed(ctx, stored)
	return contract.Done{Say: fact.New("done.taken-back")}, nil
}
