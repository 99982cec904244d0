package lead_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestTryingAPlanOutKeepsNothing(t *testing.T) {
	d := desktest.New(t)
	p := d.AddPlan(desktest.Rounds)
	one := 1
	script := []contract.Tried{
		{AtMS: 3000, Adjust: contract.Adjust{Do: "rounds", By: &one}},
		{AtMS: 2000, Adjust: contract.Adjust{Do: "pause"}},
	}
	tried, err := d.Classes.Try(t.Context(), p.ID, contract.Try{Script: script, AtMS: 2000})
	require.NoError(t, err)
	assert.Zero(t, tried.StartedMS)
	assert.Equal(t, 4, tried.Passages[0].Rounds)
	assert.EqualValues(t, "pause", tried.Phases[0].Stage)
	assert.EqualValues(t, 3000, tried.Phases[0].AtMS[0], "times never fall")
	today := d.Today.Show(t.Context())
	require.Empty(t, today.Failed)
	running, err := d.Classes.Running(t.Context())
	require.NoError(t, err)
	assert.Zero(t, running)
	assert.Empty(t, today.Taught)

	// The same as a class that is led and adjusted so.
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID})
	require.NoError(t, err)
	d.Pass(3)
	for i, one := range script {
		one.Adjust.Key = string(rune('a' + i))
		_, err := d.Classes.Adjust(t.Context(), score.ClassID, one.Adjust)
		require.NoError(t, err)
	}
	led, err := d.Classes.Score(t.Context(), score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, led.Phases, tried.Phases)
	assert.Equal(t, led.Wait, tried.Wait)

	_, err = d.Classes.Try(t.Context(), 99, contract.Try{})
	assert.ErrorIs(t, err, studio.ErrNotFound)
	_, err = d.Classes.Try(t.Context(), p.ID, contract.Try{Script: []contract.Tried{{Adjust: contract.Adjust{Do: "fly"}}}})
	assert.ErrorIs(t, err, studio.ErrInvalid)
	_, err = d.Classes.Try(t.Context(), p.ID, contract.Try{Script: make([]contract.Tried, 1001)})
	assert.ErrorIs(t, err, studio.ErrInvalid)
	_, err = d.Classes.Try(t.Context(), d.AddPlan("").ID, contract.Try{})
	assert.ErrorIs(t, err, studio.ErrInvalid)
}
