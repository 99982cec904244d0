package plan_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/plan"
)

// What lasts until the end of the slot or a time of day gets what is left, and never less than it says.
func TestFillUp(t *testing.T) {
	for _, c := range []struct {
		head, passages string
		want           []string
	}{
		{
			`"slot_min": 20`, `{"type": "talk", "seconds": 300}, {"type": "free", "seconds": 60, "fill": "end"}`,
			[]string{"300", "900"}},
		{
			`"slot_min": 5`,
			`{"type": "talk", "seconds": 290}, {"type": "free", "seconds": 9, "fill": "end", "fill_least": 180}`,
			[]string{"290", "180"},
		},
		{
			`"slot_min": 10`, `{"type": "free", "seconds": 9, "fill": "end"}, {"type": "free", "breaths": 9, "fill": "end"}`,
			[]string{"300", "300"},
		},
		{`"tempo": 50`, `{"type": "free", "seconds": 90, "fill": "end"}`, []string{"90"}},
		{
			`"starts_at": "2026-11-29T18:30:00+01:00"`,
			`{"type": "talk", "seconds": 60}, {"type": "free", "seconds": 60, "fill": "7:15"}, {"type": "talk", "seconds": 30}`,
			[]string{"60", "2640", "30"},
		},
		{
			`"starts_at": "2026-11-29T06:30:00+01:00"`, `{"type": "free", "seconds": 60, "fill": "06:40"}`, []string{"600"},
		},
		{
			`"slot_min": 10`,
			`{"type": "talk", "seconds": 60}, {"type": "practice", "practice": "ujjayi", "pace": "own", "recall": 0,
				"minutes": 2, "fill": "end"}`,
			[]string{"60", "9"},
		},
	} {
		doc, p := readText(t, fmt.Sprintf(`{"format": "vast-lantern-plan", "version": 1, %s, "passages": [%s]}`, c.head,
			c.passages))
		doc.FillUp(p)
		var got []string
		for _, f := range doc.Passages() {
			for _, field := range []string{"seconds", "minutes"} {
				if value, there := f.Values()[field]; there {
					got = append(got, fmt.Sprint(value))
				}
			}
		}
		assert.Equal(t, c.want, got, c.passages)
		_, again := readText(t, text(t, doc))
		assert.False(t, doc.FillUp(again), "once is enough")
	}
}

func readText(t *testing.T, text string) (plan.Document, *plan.Plan) {
	t.Helper()
	var doc plan.Document
	require.NoError(t, doc.UnmarshalJSON([]byte(text)))
	p, err := plan.Read(doc)
	require.NoError(t, err)
	return doc, p
}

func text(t *testing.T, doc plan.Document) string {
	t.Helper()
	b, err := doc.MarshalJSON()
	require.NoError(t, err)
	return string(b)
}
