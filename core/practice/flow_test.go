package practice_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/practice"
)

func TestAStepAsALine(t *testing.T) {
	for line, want := range map[string]practice.Step{
		"in arms up":     {Phase: breath.Inhale, Counts: "a", Through: "both", Move: []string{"arms up"}},
		"exhale: fold 6": {Phase: breath.Exhale, Counts: "6", Through: "both", Move: []string{"fold"}},
		"in right foot back | left foot back": {
			Phase: breath.Inhale, Counts: "a", Through: "both", Move: []string{"right foot back", "left foot back"},
		},
		"hold plank 3": {Phase: breath.Hold, Counts: "3", Move: []string{"plank"}},
		"aus 4":        {Phase: breath.Exhale, Counts: "4", Through: "both"},
	} {
		got, err := practice.ParseStep(line)
		require.NoError(t, err, line)
		assert.Equal(t, want, got, line)
	}
	_, err := practice.ParseStep("jump up")
	require.Error(t, err)
}

// A teacher's own flow is written as plain lines; a line that is no step is told with its number.
func TestAFlowAsLines(t *testing.T) {
	file := `id: own-waves
name: Waves
kind: counted
takes: [sides]
airway: nose
counts: "3:3"
rounds: 2
figure:
  - in arms wide
  - out right knee in | left knee in
  - {phase: inhale, counts: a, through: both, move: [open]}
`
	p, err := practice.Read([]byte(file))
	require.NoError(t, err)
	require.Len(t, p.Figure, 3)
	assert.Equal(t, []string{"right knee in", "left knee in"}, p.Figure[1].Move)
	_, err = practice.Read([]byte(file + "  - jump\n"))
	assert.ErrorContains(t, err, "practice.step-line")
	_, err = practice.Read([]byte(file + "  - {phase: inhale, counts: a, trough: both}\n"))
	require.Error(t, err, "an unknown field is an error in a step too")
}
