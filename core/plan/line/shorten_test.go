package line

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
)

type object = map[string]any

func n(text string) json.Number { return json.Number(text) }

// passage reads a passage at 60 counts a minute.
func passage(t testing.TB, fields object) *plan.Passage {
	t.Helper()
	p, err := plan.OneAt(breath.Int(60), plan.FieldsWith(fields))
	require.NoError(t, err)
	return &p
}

func TestShorten(t *testing.T) {
	practice := object{"type": "practice", "practice": "nadi-shodhana", "minutes": n("3"), "tempo": n("44"), "keep": true}
	for text, want := range map[string]object{
		"4:4:8 x6 @50":   {"counts": "4:4:8", "rounds": n("6"), "tempo": n("50")},
		" 4:8   ×12 ":    {"counts": "4:8", "rounds": n("12")},
		"4:4 2m30s":      {"counts": "4:4", "minutes": n("2.5")},
		"90s right":      {"minutes": n("1.5"), "side": "right"},
		"@52.5":          {"tempo": n("52.5")},
		"04:4 x06 @050":  {"counts": "04:4", "rounds": n("6"), "tempo": n("50")},
		"4:4 own 3m":     {"counts": "4:4", "pace": "own", "minutes": n("3")},
		"":               {},
		"4:4:4:4:4 x0 @": nil,
		"4-4":            {"counts": "4:4"},
		"4:4 three min":  {"counts": "4:4", "minutes": n("3")},
		"x6 10b":         nil,
		"fast":           nil,
	} {
		got, err := Shorten(plan.FieldsWith(practice), text)
		if want == nil {
			assert.Error(t, err, text)
			assert.Equal(t, plan.FieldsWith(practice), got, "nothing is lost")
			continue
		}
		require.NoError(t, err, text)
		want["type"], want["practice"], want["keep"] = "practice", "nadi-shodhana", true
		assert.Equal(t, plan.FieldsWith(want), got, text)
	}
}

func TestShortIsReadBackAsTheSame(t *testing.T) {
	for _, doc := range []object{
		{"type": "talk", "seconds": n("90")},
		{"type": "free", "breaths": n("10")},
		{"type": "free", "seconds": n("120")},
		{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": n("6"), "tempo": n("50"),
			"side": "right"},
		{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4", "minutes": n("2.5")},
		{"type": "practice", "practice": "surya-bhedana", "counts": "4:6", "pace": "own", "minutes": n("2")},
		{"type": "practice", "practice": "nadi-shodhana", "counts": "4:6", "pace": "own", "rounds": n("7")},
		{"type": "practice", "practice": "kapalabhati", "strokes": n("30"), "rounds": n("3"), "rate": n("72")},
		{"type": "practice", "practice": "open-holds", "open_seconds": []any{n("6"), n("10"), n("7.5"), n("6")},
			"minutes": n("3")},
		{"type": "practice", "practice": "panting-breath", "minutes": n("1.5"), "rate": n("100")},
		{"type": "practice", "practice": "breath-of-joy", "rounds": n("12"), "tempo": n("80")},
	} {
		again, err := Shorten(plan.FieldsWith(doc), passage(t, doc).Short(plan.FieldsWith(doc)))
		require.NoError(t, err)
		assert.Equal(t, plan.FieldsWith(doc), again)
	}
}
