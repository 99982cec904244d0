package pace_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
)

// The table "where each verb is met" of pacing.md section 4, as it is written there, and the verbs that a kind of
// practice refuses beside it.
func TestWhereEachVerbIsMet(t *testing.T) {
	const (
		everywhere = "next end finish-by undo note signal"
		leadIn     = "tempo by-hand counts drop-holds restore-holds beside rounds last-round strokes pause close"
		atClosing  = "tempo by-hand drop-holds restore-holds beside strokes"
		ownPace    = "advance close counts drop-holds restore-holds strokes pause"
	)
	counted := `{"type": "practice", "practice": "counted-breath", "counts": "2:2:2", "rounds": 3, "count_in": 2, "lead_in": 2, "rest_between": 5,
		"opening": [{"breaths": 1, "counts": "2:2:2"}, {"seconds": 5}], "closing": [{"breaths": 1, "counts": "2:2:2"}, {"seconds": 5}]}`
	strokes := `{"type": "practice", "practice": "kapalabhati", "strokes": 10, "rounds": 3, "lead_in": 2, ` +
		`"rest_between": 5}`
	panting := `{"type": "practice", "practice": "panting-breath", "lead_in": 2}`
	own := `{"type": "practice", "practice": "nadi-shodhana", "pace": "own", "minutes": 1, "lead_in": 2}`
	open := `{"type": "practice", "practice": "open-holds", "lead_in": 2}`
	for _, c := range []struct {
		place    string
		passage  string
		before   []string
		at       int64
		accepted string
		refuses  string // what the kind of practice has not
	}{
		{"talk", talk, nil, 1000, "advance", ""},
		{"free", `{"type": "free", "seconds": 9}`, nil, 1000, "advance", ""},
		{"beat", counted, nil, 1000, leadIn, "strokes"},
		{"lead-in", counted, nil, 3000, leadIn, "strokes"},
		{"opening", counted, nil, 5000, leadIn, "strokes"},
		{"opening, in a hold", counted, nil, 7000, leadIn + " release", "strokes"},
		{"opening, in a free step", counted, nil, 11_000, leadIn + " advance", "strokes"},
		{"round", counted, nil, 15_500, leadIn + " again", "strokes"},
		{"round, in a hold", counted, nil, 17_500, leadIn + " again release", "strokes"},
		{"rest", counted, nil, 22_000, leadIn + " advance", "strokes"},
		{"pause", counted, []string{"15500 pause"}, 16_000, leadIn + " resume advance", "strokes pause"},
		{"lead-in after a pause", counted, []string{"15500 pause", "16000 resume"}, 16_500, leadIn, "strokes"},
		{"closing", counted, []string{"15500 close"}, 16_000, atClosing + " pause", "strokes"},
		{"closing, in a hold", counted, []string{"15500 close"}, 18_000, atClosing + " pause release", "strokes"},
		{"closing, in a free step", counted, []string{"15500 close"}, 22_000, atClosing + " pause advance", "strokes"},
		{"pause before the closing", counted, []string{"15500 close", "16000 pause"}, 17_000, atClosing + " resume advance",
			"strokes"},
		{"lead-in before the closing", counted, []string{"15500 close", "16000 pause", "17000 resume"}, 17_500,
			atClosing + " pause", "strokes"},
		{"lead-in of strokes", strokes, nil, 1000, leadIn, "counts by-hand"},
		{"round of strokes", strokes, nil, 4000, leadIn + " again enough", "counts by-hand"},
		{"pause of strokes", strokes, []string{"4000 pause"}, 5000, leadIn + " resume advance enough",
			"counts pause by-hand"},
		{"lead-in after a pause of strokes", strokes, []string{"4000 pause", "5000 resume"}, 5500, leadIn, "counts by-hand"},
		{"panting", panting, nil, 4000, leadIn + " again enough", "counts rounds last-round by-hand"},
		{"lead-in after a rest", strings.Replace(counted, `"rest_between"`, `"rest_lead_in": 2, "rest_between"`, 1), nil,
			27_000, leadIn, "strokes"},
		{"lead-in to own pace", own, nil, 1000, leadIn, "tempo rounds last-round strokes beside by-hand"},
		{"pause of that lead-in", own, []string{"1000 pause"}, 2000, leadIn + " resume advance",
			"tempo rounds last-round strokes beside pause by-hand"},
		{"own pace", own, nil, 4000, ownPace + " recall", "strokes"},
		{"pause of own pace", own, []string{"4000 pause"}, 5000, ownPace + " resume", "strokes pause"},
		{"recall", own, nil, 64_000, ownPace, "strokes"},
		{"pause of the recall", own, []string{"64000 pause"}, 65_000, ownPace + " resume", "strokes pause"},
		{"open phase", open, nil, 4000, leadIn + " again advance", "counts strokes by-hand"},
		{"open hold", open, []string{"4000 advance"}, 5000, leadIn + " again advance release", "counts strokes by-hand"},
	} {
		takes := map[pace.Verb]string{
			pace.ToTempo: ` "to": 61`, pace.ToCounts: ` "to": [3, 1, 3, 0]`, pace.Rounds: ` "by": 1`, pace.ToStrokes: ` "to": 9`,
			pace.FinishBy: ` "to_ms": 999999`, pace.ToBeside: ` "to": "breathe"`, pace.ToHand: ` "to": "all"`,
			pace.ToRecall: ` "rounds": 2`, pace.Note: ` "text": "x"`, pace.Signal: ` "see": "x"`,
		}
		met := slices.DeleteFunc(
			strings.Fields(c.accepted+" "+everywhere),
			func(v string) bool { return slices.Contains(strings.Fields(c.refuses), v) },
		)
		for _, verb := range pace.Verbs() {
			class := pace.Begin(read(t, c.passage, talk))
			for _, a := range script(t, c.before...) {
				require.Empty(t, class.Adjust(a).Refused, "%s: on the way there", c.place)
			}
			switch verb { // there must be something to restore, or to take back
			case pace.RestoreHolds:
				class.Adjust(script(t, fmt.Sprintf("%d drop-holds", c.at))[0])
			case pace.Undo:
				class.Adjust(script(t, fmt.Sprintf(`%d finish-by "to_ms": 999999`, c.at))[0])
			}
			answer := class.Adjust(script(t, fmt.Sprintf("%d %s%s", c.at, verb, takes[verb]))[0])
			assert.Equal(
				t,
				slices.Contains(met, string(verb)),
				answer.Refused.None(),
				"%s in %s: %s",
				verb,
				c.place,
				answer.Refused,
			)
		}
	}
}
