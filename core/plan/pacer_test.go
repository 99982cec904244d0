package plan_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
)

// paced changes who sets the pace of a passage, and returns it as it reads then.
func paced(t *testing.T, passage string, by plan.Pacer, waits ...breath.Phase) (plan.Passage, plan.Fields, []string) {
	t.Helper()
	text := `{"format": "vast-lantern-plan", "version": 1, "passages": [{"type": "practice", ` + passage + `}]}`
	doc, err := sheet.ReadDocument(strings.NewReader(text))
	require.NoError(t, err)
	p, err := plan.Read(doc)
	require.NoError(t, err)
	fields, err := doc.Passage(1)
	require.NoError(t, err)
	removed, err := fields.SetPacer(&p.Passages[0], by, waits)
	require.NoError(t, err)
	p, err = plan.Read(doc)
	require.NoError(t, err, "the passage is still a right one")
	return p.Passages[0], fields, removed
}

func TestPacers(t *testing.T) {
	for name, c := range map[string]struct {
		passage string
		by      plan.Pacer
		waits   []breath.Phase
		has     map[string]any // fields afterwards; nil for one that is gone
		removed []string
	}{
		"my breath": {
			`"practice": "counted-breath", "counts": "4:4:6", "rounds": 5`, plan.PacedByTeacher, nil,
			map[string]any{"by_hand": "all"}, nil,
		},
		"counted holds": {
			`"practice": "nadi-shodhana", "counts": "4:16:8"`, plan.PacedByTeacher,
			[]breath.Phase{breath.Exhale, breath.Inhale},
			map[string]any{"by_hand": []any{"inhale", "exhale"}}, nil,
		},
		"every phase that there is": {
			`"practice": "counted-breath", "counts": "4:6"`, plan.PacedByTeacher,
			[]breath.Phase{breath.Inhale, breath.Exhale},
			map[string]any{"by_hand": "all"}, nil,
		},
		"a shorter breath beside cannot follow": {
			`"practice": "nadi-shodhana", "counts": "4:16:8", "beside": "4:4"`, plan.PacedByTeacher, nil,
			map[string]any{"by_hand": "all", "beside": nil}, []string{"beside"},
		},
		"through the holds it can": {
			`"practice": "nadi-shodhana", "counts": "4:16:8", "beside": "breathe"`, plan.PacedByTeacher, nil,
			map[string]any{"beside": "breathe"}, nil,
		},
		"each person, in as many rounds": {
			`"practice": "counted-breath", "counts": "4:6", "rounds": 7, "by_hand": "all"`, plan.PacedByEach, nil,
			map[string]any{"pace": "own", "by_hand": nil, "rounds": json.Number("7")}, nil,
		},
		"each person, for as many minutes": {
			`"practice": "counted-breath", "minutes": 3`, plan.PacedByEach, nil,
			map[string]any{"pace": "own", "minutes": json.Number("3"), "rounds": nil}, nil,
		},
		"each person, with what comes round again": {
			`"practice": "nadi-shodhana", "rounds": 2, "lines": [{"text": "soft face"}]`, plan.PacedByEach, nil,
			map[string]any{"pace": "own", "lines": []any{
				map[string]any{"text": "soft face"},
				map[string]any{
					"text":   "Go on at your own pace. Tired arm: rest the elbow on the other hand.",
					"second": json.Number("60"), "every": json.Number("60"), "who": "all",
				},
			}}, nil,
		},
		"back to the beat, with the own lines": {
			`"practice": "kapalabhati", "pace": "own", "minutes": 2, "lines": [{"text": "soft face"},
				{"text": "Go on. Tired: stop, watch, begin again.", "second": 40, "every": 40, "who": "all"}]`,
			plan.PacedByBeat, nil,
			map[string]any{"lines": []any{map[string]any{"text": "soft face"}}}, nil,
		},
		"each person, as long": {
			`"practice": "kapalabhati", "strokes": 60, "rate": 60, "rounds": 2, "rest_between": 30`, plan.PacedByEach, nil,
			map[string]any{"pace": "own", "rounds": nil, "minutes": json.Number("3")}, nil,
		},
		"back to the beat": {
			`"practice": "counted-breath", "pace": "own", "minutes": 3, "recall": 20, "choices": ["4:4", "4:6"]`,
			plan.PacedByBeat, nil,
			map[string]any{"pace": nil, "recall": nil, "choices": nil}, []string{"choices", "recall"},
		},
	} {
		p, fields, removed := paced(t, c.passage, c.by, c.waits...)
		assert.Equal(t, c.by, p.Pacer(), name)
		assert.Equal(t, c.removed, removed, name)
		for field, value := range c.has {
			assert.Equal(t, value, fields.Values()[field], "%s: %s", name, field)
		}
	}
}
