package care_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/care"
	"vastlantern/core/practice"
	"vastlantern/core/sheet"
)

func TestEveryCautionThatAPracticeNamesIsThere(t *testing.T) {
	for _, p := range practice.Catalogue() {
		for _, name := range p.Care {
			assert.True(t, care.Known(name), "%s names %q", p.ID, name)
		}
	}
}

// Which passages carry a strong caution (handbook, section 7): full and empty holds, sun and moon breath.
func TestStrongCautions(t *testing.T) {
	for passage, strong := range map[string]int{
		`{"type": "talk"}`: 0,
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4"}`:                                                0,
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4:4"}`:                                              1,
		`{"type": "practice", "practice": "counted-breath", "counts": "4:0:4:1"}`:                                            2,
		`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4", "closing": [{"breaths": 1, "counts": "4:2:4"}]}`: 1,
		`{"type": "practice", "practice": "surya-bhedana"}`:                                                                  1,
		`{"type": "practice", "practice": "segmented-breath", "counts": "4:4:4:4"}`:                                          2,
	} {
		_, p, err := sheet.ReadPlan(strings.NewReader(`{"format": "vast-lantern-plan", "version": 1, "passages": [` + passage + `]}`))
		require.NoError(t, err)
		all := care.Of(&p.Passages[0])
		got := 0
		for i, c := range all {
			if c.Strong {
				got++
				assert.Less(t, i, strong, "strong ones come first")
			}
		}
		assert.Equal(t, strong, got, passage)
		if p.Passages[0].Practice != nil {
			assert.Contains(t, all, care.Everyone)
		}
	}
}
