package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/practice"
)

// What can be told by ear of every practice, as it is planned without further fields. Which breaths are loud enough is
// common practice, without a source.
func TestWhatCanBeHeard(t *testing.T) {
	heard := map[string]string{}
	for _, p := range practice.Catalogue() {
		passage := one(t, object{"type": "practice", "practice": p.ID})
		if phase := passage.Hears(); phase != "" {
			heard[p.ID] = string(phase)
			if passage.HearsBreath() {
				heard[p.ID] += " as breath"
			}
			if passage.HearsBothWays() {
				heard[p.ID] += " in and out"
			}
		}
	}
	assert.Equal(t, map[string]string{
		"kapalabhati": "stroke", "bhastrika": "stroke in and out", "panting-breath": "stroke in and out",
		"om-chant": "exhale", "bhramari": "exhale",
		"sigh": "exhale as breath", "simhasana": "exhale as breath", "double-inhale": "exhale as breath",
		"breath-of-joy": "exhale as breath", "ujjayi": "exhale as breath",
		"sitali": "inhale as breath", "sitkari": "inhale as breath",
	}, heard)
	open := one(t, object{"type": "practice", "practice": "ujjayi", "airway": "mouth", "pace": "own", "minutes": n("2")})
	assert.Empty(t, open.Hears(), "at own pace everybody sounds in their own time")
	assert.False(t, open.HearsBreath())
}
