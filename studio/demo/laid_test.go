package demo_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/demo"
	"vastlantern/studio/desk/desktest"
)

// The demo is laid in beside a teacher's own classes, and taken out again without them.
func TestTheDemoIsLaidInAndRemoved(t *testing.T) {
	d := desktest.New(t)
	own := d.AddPlan(desktest.Rounds)
	state, err := demo.State(d.Desk)
	require.NoError(t, err)
	assert.Empty(t, state.Groups)
	state, err = demo.Lay(t.Context(), d.Desk)
	require.NoError(t, err)
	assert.ElementsMatch(t, state.Offered, state.Groups)
	assert.NotEmpty(t, d.Today.Show(t.Context()).Taught)
	rehearsed := func() int {
		all, err := d.Rehearse.All(t.Context())
		require.NoError(t, err)
		return len(all.Done)
	}
	assert.Equal(t, 6, rehearsed())
	_, err = demo.Lay(t.Context(), d.Desk)
	require.ErrorIs(t, err, studio.ErrConflict)
	state, err = demo.Remove(t.Context(), d.Desk)
	require.NoError(t, err)
	assert.Empty(t, state.Groups)
	assert.Empty(t, d.Today.Show(t.Context()).Taught)
	assert.Zero(t, rehearsed())
	_, err = d.Plans.Plan(t.Context(), own.ID)
	assert.NoError(t, err)
	_, err = demo.Lay(t.Context(), d.Desk)
	assert.NoError(t, err, "and again")
	assert.Equal(t, 6, rehearsed())
}
