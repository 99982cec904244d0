package line_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/plan"
	"vastlantern/core/plan/line"
)

// A passage called by a preset takes the name of the preset that it has become: of those with its counts the first,
// and one that has a tempo only at that tempo.
func TestAPresetThatBecameAnother(t *testing.T) {
	for _, c := range []struct {
		counts string
		tempo  any
		title  any
	}{
		{"4:4:4:4", nil, "Square breath"},
		{"4:4:4", nil, "Even breath with a hold"},
		{"5:5", nil, nil},
		{"5:5", json.Number("55"), "Resonance breath"},
		{"3:9", nil, nil},
	} {
		f := plan.NewFields("counted-breath")
		f.Values()["title"], f.Values()["counts"] = "Square breath", c.counts
		if c.tempo != nil {
			f.Values()["tempo"] = c.tempo
		}
		line.RetitlePreset(f)
		assert.Equal(t, c.title, f.Values()["title"], "%s at %v", c.counts, c.tempo)
	}
}
