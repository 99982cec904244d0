package plan_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
)

func document(t *testing.T, passages string) (plan.Document, *plan.Plan) {
	t.Helper()
	doc, p, err := sheet.ReadPlan(strings.NewReader(`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [` + passages + `]}`))
	require.NoError(t, err)
	return doc, p
}

func field(doc plan.Document, passage int, name string) string {
	var written struct{ Passages []map[string]any }
	text, _ := doc.MarshalJSON()
	_ = json.Unmarshal(text, &written) // what was read as JSON
	return fmt.Sprint(written.Passages[passage-1][name])
}

func TestGrow(t *testing.T) {
	for _, c := range []struct {
		passage, what string
		steps         int
		field, want   string
		wrong         string
		taken         int
	}{
		{`"practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 6`, plan.GrowRounds, 2, "rounds", "8", "", 2},
		{`"practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 6`, plan.GrowCounts, 2, "counts", "6:6:12", "", 2},
		{`"practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 6`, plan.GrowCounts, 0, "counts", "4:4:8", "", 0},
		{`"practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 6`, plan.GrowNothing, 5, "rounds", "6", "", 5},
		{`"practice": "counted-breath", "counts": "4:4", "minutes": 2`, plan.GrowRounds, 1, "rounds", "16", "", 1},
		{`"practice": "counted-breath", "counts": "5:5", "tempo": 60, "rounds": 58`, plan.GrowRounds, 5, "rounds", "60", "", 2}, // ten minutes
		{`"practice": "counted-breath", "rounds": 998`, plan.GrowRounds, 5, "rounds", "998", "", 0},
		{`"practice": "breath-of-joy", "rounds": 19`, plan.GrowRounds, 3, "rounds", "20", "", 1},
		{`"practice": "counted-breath", "counts": "4:16"`, plan.GrowCounts, 12, "counts", "16:64", "allowed", 0},
		{`"practice": "kapalabhati"`, plan.GrowCounts, 1, "", "", "no counts that could grow", 0},
		{`"practice": "counted-breath", "pace": "own"`, plan.GrowRounds, 1, "", "", "no practice that is led", 0},
	} {
		doc, p := document(t, `{"type": "practice", `+c.passage+`}`)
		taken, err := doc.Grow(p, 1, c.what, c.steps, "")
		if c.wrong != "" {
			assert.ErrorContains(t, err, c.wrong, c.passage)
		} else {
			require.NoError(t, err, c.passage)
			assert.Equal(t, c.taken, taken, c.passage)
		}
		if c.field != "" {
			assert.Equal(t, c.want, field(doc, 1, c.field), c.passage)
		}
	}
	doc, p := document(t, `{"type": "practice", "practice": "counted-breath", "counts": "5:5", "tempo": 60, "rounds": 5, "lead_in": 0}`)
	p.Slot = breath.Int(1)
	taken, err := doc.Grow(p, 1, plan.GrowRounds, 3, "")
	require.NoError(t, err)
	assert.Equal(t, "1 6", fmt.Sprint(taken, " ", field(doc, 1, "rounds")), "never past the slot")
	doc, p = document(t, `{"type": "talk", "seconds": 60}`)
	for _, passage := range []int{0, 1, 2} {
		_, err := doc.Grow(p, passage, plan.GrowRounds, 1, "")
		assert.Error(t, err, "passage %d", passage)
	}
}

func TestTalksAreLengthenedToFiveSeconds(t *testing.T) {
	doc, p := document(t, `{"type": "talk", "seconds": 60}, {"type": "talk", "seconds": 61, "keep": true}, {"type": "free", "seconds": 30}, {"type": "talk", "seconds": 1}`)
	doc.LengthenTalks(p, breath.Ratio(143, 100))
	assert.Equal(t, []string{"85", "61", "30", "5"}, []string{field(doc, 1, "seconds"), field(doc, 2, "seconds"), field(doc, 3, "seconds"), field(doc, 4, "seconds")})
}
