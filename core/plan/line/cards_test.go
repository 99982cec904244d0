package line_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/plan"
	"vastlantern/core/plan/line"
)

// The words of a talk keep their lines as text, and with them its cards.
func TestTextKeepsCards(t *testing.T) {
	names := line.NewNames("en", nil)
	doc, err := names.FromText("talk 2 min\n  script: Who is new?\n  script: ---\n  script: Sit tall.\n  script:\n"+
		"  script: Breathe.\n", time.UTC)
	require.NoError(t, err)
	p, err := plan.Read(doc)
	require.NoError(t, err)
	assert.Equal(t, []string{"Who is new?", "Sit tall.\n\nBreathe."}, p.Passages[0].Cards())
	text, left := names.ToText(doc, p)
	assert.Empty(t, left)
	again, err := names.FromText(text, time.UTC)
	require.NoError(t, err)
	assert.Equal(t, doc, again)
}
