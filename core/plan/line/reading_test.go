package line

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/plan"
)

// What was understood of a line names what it said, and marks (*) what was assumed.
func TestFactsOfALine(t *testing.T) {
	names := NewNames([]string{"en"}, nil,
		Template{Name: "Evening quiet", Passages: []plan.Fields{plan.NewFields("ujjayi")}})
	for line, want := range map[string]string{
		"nadi 4:4:8":                 "practice Alternate nostril breath, counts 4:4:8, rounds 6*, side left*",
		"nadi x4 right":              "practice Alternate nostril breath, counts 4:4*, rounds 4, side right",
		"square":                     "practice Counted breath, counts 4:4:4:4, rounds 5*",
		"4:7:8 x4 @60":               "practice Counted breath*, counts 4:7:8, rounds 4, tempo @60",
		"inhale 4 hold 7 exhale 8":   "practice Counted breath*, counts 4:7:8, rounds 5*",
		"left nostril own":           "practice One nostril, counts 4:4*, minutes 2*, side left, pace own pace",
		"kapalabhati x2":             "practice Skull-shining breath, strokes 20*, rate 60*, rounds 2",
		"kapalabhati 30 strokes @90": "practice Skull-shining breath, strokes 30, rate 90, rounds 3*",
		"open holds x2":              "practice Long held breath, open_seconds 6:10:8:6*, rounds 2",
		"belly breath x3 words only": "practice Belly breath, counts 4:4*, rounds 3, voice words only",
		"even 4:4 x2 no lead in rest 9": "practice Counted breath, counts 4:4, rounds 2, lead_in lead-in 0, rest_between " +
			"rest 9",
		"belly 4:4 x3 then 8:8": "practice Belly breath, counts 4:4, rounds 3; practice Belly breath*, counts 8:8, " +
			"rounds 8*",
		"talk about the knees":         "seconds 60*, script about the knees",
		"sit 10 breaths until I go on": "breaths 10, wait wait",
		"evening quiet":                "practice Ocean breath, counts 5:5, rounds 10",
	} {
		readings, err := names.Understand(line)
		require.NoError(t, err, line)
		var got []string
		for _, r := range readings {
			p, err := plan.One(r.Fields)
			require.NoError(t, err, line)
			var facts []string
			for _, f := range r.Facts(&p) {
				mark := ""
				if f.Assumed {
					mark = "*"
				}
				facts = append(facts, fmt.Sprintf("%s %s%s", f.Field, f.Value, mark))
			}
			got = append(got, strings.Join(facts, ", "))
		}
		assert.Equal(t, want, strings.Join(got, "; "), line)
	}
}
