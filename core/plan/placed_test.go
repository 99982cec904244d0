package plan_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/plan"
	"vastlantern/core/plan/line"
	"vastlantern/language"
)

// Where a line of the teacher's own words comes is told in the reader's language.
func TestPlaceOfALine(t *testing.T) {
	names := line.NewNames([]string{"en"}, nil)
	for _, c := range []struct{ passage, typed, tag, place string }{
		{"nadi 4:4:8 x6", "throughout: soften", "en", "all the time"},
		{"nadi 4:4:8 x6", "every inhale: soften", "en", "every round, inhale"},
		{"nadi 4:4:8 x6", "r3 hold: soften", "en", "round 3, hold"},
		{"nadi 4:4:8 x6", "r3 hold: soften", "fr", "cycle 3, rétention"},
		{"nadi 4:4:8 x6", "r2-4 b2: soften", "en", "rounds 2 to 4, breath 2"},
		{"nadi 4:4:8 x6", "last exhale left: soften", "en", "last round, exhale, through the left"},
		{"nadi 4:4:8 x6", "last exhale left: soften", "es", "última ronda, exhalación, por la izquierda"},
		{"nadi 4:4:8 x6 rest 20", "rest 1: soften", "en", "in the rest, after round 1"},
		{"nadi 4:4:8 x6 rest 20", "rest last: soften", "de", "in der Ruhe, vor der letzten Runde"},
		{"ujjayi 4:4 x6", "every pause: soften", "en", "every round, natural pause"},
		{"rest 5 min", "1:00 every 30 s: soften", "en", "at 1:00, and every 30 s after it"},
		{"rest 5 min", "1:00 every 30 s: soften", "fr", "à 1:00, et toutes les 30 s ensuite"},
		{"three-part x4", "ribs: soften", "de", "Rippen"},
	} {
		fields, err := names.Read(c.passage)
		require.NoError(t, err, c.passage)
		require.NoError(t, line.SetOwnWords(fields[0], c.typed), c.typed)
		p, err := plan.One(fields[0])
		require.NoError(t, err, c.typed)
		require.Len(t, p.Lines, 1)
		var parts []string
		for _, part := range p.Lines[0].Place(&p) {
			parts = append(parts, language.In(c.tag).Text(part))
		}
		assert.Equal(t, c.place, strings.Join(parts, ", "), c.typed)
	}
}
