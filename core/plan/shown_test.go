package plan

import (
	"fmt"
	"strings"
	"testing"

	"vastlantern/language"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A plan whose own words would come too often is refused before anything is computed of it.
func TestOwnWordsThatComeTooOften(t *testing.T) {
	plan := func(passages, lines int, passage, line string) string {
		all := strings.TrimSuffix(strings.Repeat(line+",", lines), ",")
		one := fmt.Sprintf("{%s, \"lines\": [%s]}", passage, all)
		list := strings.TrimSuffix(strings.Repeat(one+",", passages), ",")
		return `{"format": "vast-lantern-plan", "version": 1, "tempo": 120, "passages": [` + list + `]}`
	}
	breaths := `"type": "practice", "practice": "counted-breath", "counts": "1:1", "rounds": 999, "lead_in": 0`
	for _, c := range []struct {
		text string
		fits bool
	}{
		{plan(5, 100, `"type": "free", "seconds": 7200`, `{"text": "a", "second": 0, "every": 10, "who": "room"}`), false},
		{plan(1, 100, `"type": "free", "seconds": 7200`, `{"text": "a", "second": 0, "every": 10, "who": "room"}`), true},
		{plan(2, 100, breaths, `{"text": "a", "phase": "inhale", "who": "room"}`), false},
		{plan(30, 2, breaths, `{"text": "a", "phase": "inhale", "who": "room"}`), true},
		{plan(30, 100, breaths, `{"text": "a", "round": [1, 9], "phase": "inhale"}`), true},
		{plan(30, 100, breaths, `{"text": "a", "round": "last"}`), true},
	} {
		_, err := Read(parse(t, c.text))
		if c.fits {
			require.NoError(t, err, c.text[:200])
			continue
		}
		require.Error(t, err, c.text[:200])
		assert.Contains(t, language.English().Error(err), "own words that come")
	}
}
