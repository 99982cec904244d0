package store

import (
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A title is found however its letters with marks are typed.
func TestTitlesAreFoundWithoutMarks(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	for _, title := range []string{"Été tranquille", "Abend der Stille", "100% wach"} {
		_, err := s.AddPlan(Plan{Title: title, Document: []byte(`{}`)})
		require.NoError(t, err)
	}
	for word, want := range map[string]string{
		"ete": "Été tranquille", "ÉTÉ": "Été tranquille", "stille": "Abend der Stille", "100%": "100% wach",
	} {
		list, _, err := s.PlansTitled([]string{word}, 0, 10)
		require.NoError(t, err)
		if assert.Len(t, list, 1, word) {
			assert.Equal(t, want, list[0].Title)
		}
	}
	list, _, err := s.PlansTitled([]string{"%"}, 0, 10)
	require.NoError(t, err)
	assert.Len(t, list, 1, "a percent sign is itself")
}
