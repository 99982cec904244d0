package words_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/practice"
	"vastlantern/core/words"
)

// What the body does in a practice of the book is said in every language, and nothing else stands there.
func TestEveryMovementIsSaidInEveryLanguage(t *testing.T) {
	moves := map[string]bool{}
	for _, p := range practice.Catalogue() {
		for _, step := range p.Figure {
			for _, move := range step.Move {
				moves[move] = true
			}
		}
	}
	assert.NotEmpty(t, moves)
	for tag, w := range words.Languages {
		if tag == "en" {
			continue
		}
		for move := range moves {
			assert.NotEqual(t, move, w.Own(move), "%s: %s", tag, move)
		}
		for move := range w.Moves {
			assert.True(t, moves[move], "%s: %s is no movement of the book", tag, move)
		}
	}
	assert.Equal(t, "Arme hoch", words.German.With(map[string]string{"inhale": "atme ein"}, false).Own("arms up"))
}
