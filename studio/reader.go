package studio

import (
	"context"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/language"
)

// Called returns the name of a passage for the person who asks.
func Called(ctx context.Context, p plan.Passage) string {
	p.CallIn(language.Of(ctx))
	return p.Name()
}

// Summed returns a passage in a few words for the person who asks, as "Alternate nostril breath 4:4:8 ×6".
func Summed(ctx context.Context, p plan.Passage) string {
	p.CallIn(language.Of(ctx))
	return Told(ctx, p.Summed())
}

// Told returns a fact in words for the person who asks.
func Told(ctx context.Context, f fact.Fact) string { return language.In(language.Of(ctx)).Text(f) }

// AllTold is Told for a list.
func AllTold(ctx context.Context, list []fact.Fact) []string {
	words := make([]string, len(list))
	for i, f := range list {
		words[i] = Told(ctx, f)
	}
	return words
}
