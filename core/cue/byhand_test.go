package cue_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/cue"
	"vastlantern/core/plan"
)

// What is shown and said where phases wait for the teacher (cues.md section 5).
func TestCuesByHand(t *testing.T) {
	for _, c := range []struct {
		name    string
		passage string
		script  []string
		kind    cue.Kind
		want    []string
	}{
		{"now has no number", counted("4:4", 1, `, "by_hand": "all"`), []string{"5000 advance", "12000 advance"}, cue.Now,
			[]string{"0-5 now: inhale", "5-12 now: exhale"}},
		{"next names the phase without counts", counted("4:4", 1, `, "by_hand": ["exhale"]`), []string{"12000 advance"},
			cue.Next,
			[]string{"0-4 next: exhale", "4-12 next: the end of the class"}},
		{"the last round is called with the last phase before it", counted("4:4", 2, `, "by_hand": "all"`),
			[]string{"5000 advance", "12000 advance", "18000 advance", "25000 advance"}, cue.Last,
			[]string{"5-18 last: one more, the last"}},
		{"no minutes while the hand decides", minutes("4:4", `"minutes": 4, "by_hand": "all"`), []string{"5000 advance"},
			cue.Minute, []string{}},
		{"minutes where it does not", minutes("4:4", `"minutes": 4, "by_hand": ["hold"]`), nil, cue.Minute,
			[]string{"180-186 minute: one minute left"}},
		{"a round that becomes the last as it starts", minutes("5:5", `"minutes": 0.5, "by_hand": "all"`),
			[]string{"9000 advance", "19000 advance", "20000 advance", "21000 advance"}, cue.Last,
			[]string{"19-21 last: one more, the last"}},
		{"at own pace in rounds the length counts",
			`{"type": "practice", "practice": "counted-breath", "counts": "5:5", "pace": "own", "rounds": 18, "tempo": 60, ` +
				`"recall": 0}`, nil, cue.Minute,
			[]string{"120-126 minute: one minute left"}},
	} {
		p := read(t, c.passage)
		cues := cue.Sheet(p, cue.Main)
		if c.script != nil {
			cues = cue.Replay(p, script(t, c.script...), cue.Main)
		}
		assert.Equal(t, c.want, short(cues, c.kind), c.name)
	}
}

func minutes(counts, more string) string {
	return `{"type": "practice", "practice": "counted-breath", "lead_in": 0, "counts": "` + counts + `", ` + more + `}`
}

// Sealing is a cue of its own where the plan asks for it: at holds after the inhale only.
func TestTheSeal(t *testing.T) {
	seals := func(passage string) (list []string) {
		for _, c := range cue.Sheet(read(t, passage), cue.Main) {
			if c.Kind == cue.Hand && c.Text == "seal" {
				assert.Equal(t, cue.CloseBoth, c.Fingers)
				assert.Equal(t, plan.ForAll, c.Who)
				list = append(list, fmt.Sprintf("%d-%d", c.At, c.Until))
			}
		}
		return list
	}
	sealed := `{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:4:4", "tempo": 60, "rounds": 1, ` +
		`"lead_in": 0, "closing": [], "seal": true}`
	assert.Equal(t, []string{"4000-6000", "20000-22000"}, seals(sealed), "not at the empty holds")
	assert.Empty(t, seals(strings.Replace(sealed, `, "seal": true`, "", 1)))
	assert.Equal(t, []string{"4000-5000", "14000-15000"}, seals(strings.Replace(sealed, "4:4:4:4", "4:1:5", 1)),
		"a short hold ends it")
}
