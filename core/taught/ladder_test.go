package taught_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
	"vastlantern/language"
)

// The rungs are those of handbook.md section 4; counts in between stand on the rung that asks for as much.
func TestRungs(t *testing.T) {
	for counts, rung := range map[string]int{
		"4:4": 0, "5:5": 0, "4:6": 1, "4:8": 1, "4:4:4": 2, "4:2:4": 2, "4:4:8": 3, "4:8:8": 4, "4:12:8": 5, "4:16:8": 6,
		"4:16:12": 7, "4:4:4:4": 3, "4:0:4:2": 3, "6:6:6:6": 3, "4:8:8:4": 4,
	} {
		c, err := breath.ParseCounts(counts)
		require.NoError(t, err)
		assert.Equal(t, rung, taught.Rung(c), counts)
	}
}

func read(t *testing.T, passages ...string) *plan.Plan {
	t.Helper()
	_, p, err := sheet.ReadPlan(
		strings.NewReader(
			`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [` + strings.Join(passages, ",") + `]}`,
		),
	)
	require.NoError(t, err)
	return p
}

func nadi(counts string, rounds int, more string) string {
	return fmt.Sprintf(
		`{"type": "practice", "practice": "nadi-shodhana", "counts": %q, "rounds": %d%s}`,
		counts,
		rounds,
		more,
	)
}

func TestWhatTheGroupsPastSays(t *testing.T) {
	var h taught.History
	assert.Empty(t, h.Advise(read(t, nadi("4:16:8", 20, ""))), "nothing is known of the group")
	h.Add(taught.Of(read(t, nadi("4:4", 6, ""), nadi("4:16:8", 2, `, "trial": true`)), nil, 3_600_000))
	for _, c := range []struct {
		plan string
		says []string
	}{
		{nadi("4:4", 6, ""), nil},
		{nadi("5:5", 6, ""), nil},
		{nadi("4:8", 6, ""), nil},
		{nadi("4:4", 8, ""), nil},
		{nadi("4:8", 8, ""), []string{"more than one step up since it was taught last: ratio 1:1 to 1:2, rounds 6 to 8."}},
		{nadi("5:5", 7, ""), []string{"counts 4:4 to 5:5, rounds 6 to 7"}},
		{nadi("4:4:4", 6, ""), []string{"not been prepared"}},
		{nadi("5:5:10", 9, ""), []string{"counts 4:4 to 5:5:10, ratio 1:1 to 1:1:2, rounds 6 to 9", "not been prepared"}},
		{nadi("5:5:10", 9, `, "trial": true`), nil},
		{`{"type": "practice", "practice": "ujjayi", "counts": "6:6", "rounds": 20}`, nil}, // was not taught yet
		{`{"type": "practice", "practice": "ujjayi", "counts": "6:6:6", "rounds": 2}`, []string{"not been prepared"}},
	} {
		got := h.Advise(read(t, c.plan))
		if assert.Len(t, got, len(c.says), c.plan) {
			for i, says := range c.says {
				assert.Contains(t, language.English().Text(got[i].Say), says, c.plan)
				assert.NotEmpty(t, language.English().Text(got[i].Why))
				assert.Equal(t, 1, got[i].Passage)
			}
		}
	}
	// What was eased is where it goes on from: holds dropped in the first round.
	held := read(t, nadi("4:4:8", 6, `, "lead_in": 0`))
	h.Add(taught.Of(held, []pace.Adjustment{{At: 5000, Do: pace.DropHolds}}, 3_600_000))
	got := h.Advise(read(t, nadi("5:5:10", 6, "")))
	require.Len(t, got, 2)
	assert.Contains(t, language.English().Text(got[0].Say), "counts 4:8 to 5:5:10, ratio 1:2 to 1:1:2")
	assert.Contains(t, language.English().Text(got[1].Why), "as far as 1:2; 1:1:1 would be the next")
}

func TestHowLongTalksReallyTake(t *testing.T) {
	var h taught.History
	talk := read(t, `{"type": "talk", "seconds": 60, "wait": true}`, nadi("4:4", 1, ""))
	for i, seconds := range []int64{90, 80, 100, 84, 87} {
		_, of := h.Talks()
		assert.Zero(t, of, "after %d talks", i)
		h.Add(taught.Of(talk, []pace.Adjustment{{At: seconds * 1000, Do: pace.Advance}}, 3_600_000))
	}
	times, of := h.Talks()
	assert.Equal(t, 5, of)
	assert.Equal(t, "1.45", times.String(), "the median of 80, 84, 87, 90 and 100 s of 60")
	for range 12 {
		h.Add(taught.Of(talk, []pace.Adjustment{{At: 6_000, Do: pace.Next}}, 3_600_000))
	}
	_, of = h.Talks()
	assert.Equal(t, 5, of, "a talk that was skipped says nothing")
	for range 12 {
		h.Add(taught.Of(talk, []pace.Adjustment{{At: 63_000, Do: pace.Advance}}, 3_600_000))
	}
	_, of = h.Talks()
	assert.Zero(t, of, "of late they take what is planned")
}
