package prepare

import (
	"bytes"
	"context"
	"slices"

	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/sheet"
	"vastlantern/studio/contract"
)

// The teacher's own words are looked for in the newest plans, and not all that were ever said are offered.
const (
	phrasePlans = 60
	mostPhrases = 12
)

// Phrases returns what a teacher may want to say again: own words of the newest plans, those with the practice first,
// then what the practice suggests. The practice is an id; empty for talks and rests.
func (ps *Plans) Phrases(ctx context.Context, id string) (contract.Phrases, error) {
	plans, err := ps.studio.Store.With(ctx).NewestPlans(phrasePlans)
	if err != nil {
		return contract.Phrases{}, err
	}
	var same, others []string
	for _, stored := range plans {
		_, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
		if err != nil {
			continue
		}
		for i := range p.Passages {
			one := &p.Passages[i]
			for _, line := range one.Lines {
				if one.Practice != nil && one.Practice.ID == id || one.Type != plan.Practice && id == "" {
					same = append(same, line.Text)
				} else {
					others = append(others, line.Text)
				}
			}
		}
	}
	own, err := ps.library.OwnPractices(ctx)
	if err != nil {
		return contract.Phrases{}, err
	}
	var suggested []string
	for _, p := range slices.Concat(own, practice.Catalogue()) {
		if p.ID == id {
			suggested = p.PromptTexts()
		}
	}
	phrases := []string{}
	for _, text := range slices.Concat(same, suggested, others) {
		if text != "" && !slices.Contains(phrases, text) && len(phrases) < mostPhrases {
			phrases = append(phrases, text)
		}
	}
	return contract.Phrases{Phrases: phrases}, nil
}
