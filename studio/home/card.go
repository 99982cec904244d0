package home

import (
	"context"
	"errors"
	"math"
	"slices"

	"vastlantern/core/care"
	"vastlantern/core/fact"
	"vastlantern/core/homework"
	"vastlantern/core/plan"
	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// cards leaves out what cannot be read, and notes that it is damaged.
func (h *Homes) cards(ctx context.Context, stored []store.Home) []contract.Home {
	list := []contract.Home{}
	for _, s := range stored {
		card, _, err := card(s, language.In(language.Of(ctx)))
		if err != nil {
			h.studio.NoteDamage(store.KindHome, s.ID, err)
			continue
		}
		list = append(list, card)
	}
	return list
}

// card returns a home practice in words: those of the catalogue, and with none in the language of its class.
func card(s store.Home, words *language.Catalogue) (contract.Home, *plan.Plan, error) {
	given, err := readGiven(s)
	if err != nil {
		return contract.Home{}, nil, studio.Unreadable(err)
	}
	if words == nil {
		words = in(given.plan)
	}
	one := given.plan.Passages[0]
	one.CallIn(words.Tag())
	return contract.Home{
		ID:         s.ID,
		ClassID:    s.ClassID,
		PlanID:     s.PlanID,
		GivenMS:    contract.Millis(s.GivenAt),
		Name:       one.Name(),
		Says:       pieceInWords(given.plan, words),
		Amount:     words.Text(given.task.Amount()),
		Stretches:  given.stretches(words),
		Answer:     s.Answer,
		Revision:   s.Revision,
		HomeAmount: contract.HomeAmountOf(given.task),
	}, given.plan, nil
}

// pieceInWords returns one piece: "4:2:7, 12 rounds at 60, about 3 min".
func pieceInWords(given *plan.Plan, to *language.Catalogue) string {
	p := &given.Passages[0]
	pattern, rounds := p.PatternFact(), fact.New(
		"measure.rounds",
		"rounds",
		p.TotalRounds(p.Measure),
	)
	words := pattern
	switch {
	case p.HasRounds() && p.Pattern() != "":
		words = fact.New("piece.pattern-rounds", "pattern", pattern, "rounds", rounds)
	case p.HasRounds():
		words = rounds
	}
	if !p.HasOpenPhases() {
		words = fact.New("measure.at-tempo", "measure", words, "tempo", math.Round(p.Measure.Tempo.Float()*10)/10)
	}
	const minute = 60_000
	if ms := p.PlannedLength().Round(); ms < minute {
		words = fact.New("measure.about-seconds", "measure", words, "seconds", (ms+500)/1000)
	} else {
		words = fact.New("measure.about-minutes", "measure", words, "minutes", (ms+minute/2)/minute)
	}
	return to.Text(words)
}

// in returns the texts in which a plan goes home: those of its own language.
func in(p *plan.Plan) *language.Catalogue { return language.In(p.Words.Tag) }

func texts(in *language.Catalogue, facts []fact.Fact) []string {
	list := make([]string, len(facts))
	for i, f := range facts {
		list[i] = in.Text(f)
	}
	return list
}

// Sheet returns a home practice with what its paper says.
func (h *Homes) Sheet(ctx context.Context, id int64) (contract.HomeSheet, error) {
	_, s, err := h.sheet(ctx, id)
	return s, err
}

func (h *Homes) sheet(ctx context.Context, id int64) (given, contract.HomeSheet, error) {
	stored, err := h.studio.Store.With(ctx).Home(id)
	if err != nil {
		return given{}, contract.HomeSheet{}, studio.Missing(err, store.KindHome, id)
	}
	home, _, err := card(stored, nil)
	if err != nil {
		return given{}, contract.HomeSheet{}, h.studio.OrDamaged(err, store.KindHome, id)
	}
	of, err := readGiven(stored)
	if err != nil {
		return of, contract.HomeSheet{}, h.studio.OrDamaged(studio.Unreadable(err), store.KindHome, id)
	}
	from := ""
	if stored.ClassID != 0 {
		if class, err := h.classes.Open(ctx, stored.ClassID); err == nil {
			from = class.Plan.Title
		}
	} else if from, err = h.planTitle(ctx, stored.PlanID); err != nil {
		return of, contract.HomeSheet{}, err
	}
	return of, sheetOf(home, &of, from), nil
}

func (h *Homes) planTitle(ctx context.Context, id int64) (string, error) {
	stored, err := h.studio.Store.With(ctx).Plan(id)
	if errors.Is(err, store.ErrNotFound) {
		return "", nil
	}
	return stored.Title, err
}

func sheetOf(home contract.Home, of *given, from string) contract.HomeSheet {
	one, in := &of.plan.Passages[0], in(of.plan)
	s := contract.HomeSheet{
		Home:     home,
		From:     from,
		Term:     one.Practice.Term,
		How:      append([]string{}, one.Practice.How...),
		Opening:  texts(in, contract.StepsOf(one.OpeningSteps)),
		Closing:  texts(in, contract.StepsOf(one.ClosingSteps)),
		Beside:   besideInWords(in, one.Beside),
		Cautions: []string{},
		Stop:     in.Text(care.Everyone.Say),
		TooMuch:  texts(in, homework.TooMuch(home.Ask)),
	}
	for _, p := range of.steps {
		for _, caution := range cautions(in, &p.Passages[0]) {
			if !slices.Contains(s.Cautions, caution) {
				s.Cautions = append(s.Cautions, caution)
			}
		}
	}
	return s
}

// cautions returns those of a passage besides everybody's.
func cautions(in *language.Catalogue, p *plan.Passage) []string {
	list := []string{}
	for _, c := range care.Of(p) {
		if c.ID != care.EveryoneID {
			list = append(list, in.Text(c.Say))
		}
	}
	return list
}

// besideInWords returns what those do who take the gentler lane; empty if there is none.
func besideInWords(in *language.Catalogue, b plan.Beside) string {
	if b.None() {
		return ""
	}
	return in.Text(b.Name())
}
