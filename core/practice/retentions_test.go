package practice_test

import (
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/practice"
)

// The lists are those of Hatha Yoga Pradipika 2.44 and Gheranda Samhita 5.46 (both from memory): each retention is in
// the book, or it is said why not, and the manual says the same.
func TestTheEightRetentions(t *testing.T) {
	lists := map[string][]string{
		"Hatha Yoga Pradipika": {
			"surya bhedana", "ujjayi", "sitkari", "sitali", "bhastrika", "bhramari", "murccha", "plavini",
		},
		"Gheranda Samhita": {
			"sahita", "surya bheda", "ujjayi", "sitali", "bhastrika", "bhramari", "murccha", "kevali",
		},
	}
	manual, err := os.ReadFile("../../docs/manual/retentions.md")
	require.NoError(t, err)
	require.Len(t, practice.Classical(), len(lists))
	for _, text := range practice.Classical() {
		var names []string
		for _, one := range text.Retentions {
			names = append(names, one.Name)
			assert.NotEqual(t, one.Practice == "", one.Why == "", "%s: in the book, or why not", one.Name)
			row := "| " + one.Name + " | " + one.Verses + " | " + one.Why
			if one.Practice != "" {
				found := practice.Find(one.Practice)
				require.NotNil(t, found, one.Practice)
				row = "| " + one.Name + " | " + one.Verses + " | " + found.Name
			}
			assert.Contains(t, string(manual), row)
		}
		assert.Equal(t, lists[text.Text], names)
	}
}
