package home

import (
	"bytes"
	"errors"
	"fmt"
	"math"
	"strconv"
	"strings"

	"vastlantern/core/care"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// cards leaves out what cannot be read, and notes that it is damaged.
func (h *Homes) cards(stored []store.Home) []contract.Home {
	list := []contract.Home{}
	for _, s := range stored {
		card, _, err := card(s)
		if err != nil {
			h.studio.NoteDamage(store.KindHome, s.ID, err)
			continue
		}
		list = append(list, card)
	}
	return list
}

func card(s store.Home) (contract.Home, *plan.Plan, error) {
	_, p, err := sheet.ReadPlan(bytes.NewReader(s.Document))
	if err == nil && len(p.Passages) != 1 {
		err = fmt.Errorf("it has %d passages", len(p.Passages))
	}
	if err != nil {
		return contract.Home{}, nil, studio.Unreadable(err)
	}
	one, amount := &p.Passages[0], amountStored(s)
	return contract.Home{
		ID: s.ID, ClassID: s.ClassID, PlanID: s.PlanID, GivenMS: contract.Millis(s.GivenAt), Name: one.Name(), Says: pieceInWords(one), Amount: amount.Amount(),
		Plays: plays(one), Answer: s.Answer, Revision: s.Revision,
		HomeAmount: contract.HomeAmount{Minutes: amount.Minutes, Pieces: amount.Pieces, Days: amount.Days, When: amount.When, Sentence: amount.Sentence},
	}, p, nil
}

// plays tells whether nothing in the passage waits for a teacher.
func plays(p *plan.Passage) bool { return !p.Is(practice.Open) }

// pieceInWords is one piece: "4:2:7, 12 rounds at 60, about 3 min".
func pieceInWords(p *plan.Passage) string {
	words := []string{}
	if pattern := p.Pattern(); pattern != "" {
		words = append(words, pattern)
	}
	if p.HasRounds() {
		rounds := "one round"
		if n := p.TotalRounds(p.Measure); n > 1 {
			rounds = fmt.Sprintf("%d rounds", n)
		}
		words = append(words, rounds)
	}
	if !p.Is(practice.Open) {
		words[len(words)-1] += " at " + strconv.FormatFloat(math.Round(p.Measure.Tempo.Float()*10)/10, 'f', -1, 64)
	}
	return strings.Join(append(words, "about "+length(p.PlannedLength().Round())), ", ")
}

func length(ms int64) string {
	const minute = 60_000
	if ms < minute {
		return fmt.Sprintf("%d s", (ms+500)/1000)
	}
	return fmt.Sprintf("%d min", (ms+minute/2)/minute)
}

// Sheet is a home practice with what its paper says.
func (h *Homes) Sheet(id int64) (contract.HomeSheet, error) {
	stored, err := h.studio.Store.Home(id)
	if err != nil {
		return contract.HomeSheet{}, studio.Missing(err, "home practice", id)
	}
	home, p, err := card(stored)
	if err != nil {
		return contract.HomeSheet{}, h.studio.OrDamaged(err, store.KindHome, id)
	}
	from := ""
	if stored.ClassID != 0 {
		if class, err := h.classes.Open(stored.ClassID); err == nil {
			from = class.Plan.Title
		}
	} else if from, err = h.planTitle(stored.PlanID); err != nil {
		return contract.HomeSheet{}, err
	}
	return sheetOf(home, p, from), nil
}

func (h *Homes) planTitle(id int64) (string, error) {
	stored, err := h.studio.Store.Plan(id)
	if errors.Is(err, store.ErrNotFound) {
		return "", nil
	}
	return stored.Title, err
}

func sheetOf(home contract.Home, p *plan.Plan, from string) contract.HomeSheet {
	one := &p.Passages[0]
	s := contract.HomeSheet{
		Home: home, From: from, Term: one.Practice.Term, How: append([]string{}, one.Practice.How...), Opening: contract.StepsInWords(one.OpeningSteps),
		Closing: contract.StepsInWords(one.ClosingSteps), Beside: contract.BesideInWords(one.Beside), Cautions: []string{}, Stop: care.Everyone.Text,
	}
	for _, c := range care.Of(one) {
		if c.Text != care.Everyone.Text {
			s.Cautions = append(s.Cautions, c.Text)
		}
	}
	return s
}
