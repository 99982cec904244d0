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
	doc, p, err := sheet.ReadPlan(
		strings.NewReader(`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [` + passages + `]}`),
	)
	require.NoError(t, err)
	return doc, p
}

func field(doc plan.Document, passage int, name string) string {
	var written struct{ Passages []map[string]any }
	text, _ := doc.MarshalJSON()
	_ = json.Unmarshal(text, &written) // what was read as JSON
	return fmt.Sprint(written.Passages[passage-1][name])
}

func TestTalksAreLengthenedToFiveSeconds(t *testing.T) {
	doc, p := document(
		t,
		`{"type": "talk", "seconds": 60}, {"type": "talk", "seconds": 61, "keep": true}, {"type": "free", "seconds": 30}, `+
			`{"type": "talk", "seconds": 1}`,
	)
	doc.LengthenTalks(p, breath.Ratio(143, 100))
	assert.Equal(
		t,
		[]string{"85", "61", "30", "5"},
		[]string{field(doc, 1, "seconds"), field(doc, 2, "seconds"), field(doc, 3, "seconds"), field(doc, 4, "seconds")},
	)
}
