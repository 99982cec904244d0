package line_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/plan"
	"vastlantern/core/plan/line"
)

// A line that begins as a heading of the class does is a passage where the rest is no value of it.
func TestHeadsOfTheClassAreNoPassages(t *testing.T) {
	names := line.NewNames([]string{"en"}, nil)
	doc, err := names.FromText("chin bowed\nfingers brows or little\nnumbers lamps\nrest 2 min\n", time.UTC)
	require.NoError(t, err)
	assert.Equal(t, []any{"bowed", "brows little", "lamps"},
		[]any{doc.Values()["chin"], doc.Values()["fingers"], doc.Values()["numbers"]})
	assert.Len(t, doc.Passages(), 1)
	doc, _ = names.FromText("chin to the chest 1 min\nfingers to the toes 1 min\nrest 2 min\n", time.UTC)
	assert.Nil(t, doc.Values()["chin"])
	assert.Nil(t, doc.Values()["fingers"])
}

// The words of a talk keep their lines as text, and with them its cards.
func TestTextKeepsCards(t *testing.T) {
	names := line.NewNames([]string{"en"}, nil)
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
