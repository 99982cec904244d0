package rehearse_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/desk/desktest"
)

// A hold that is too long for newcomers is called so on the plan, with what would make it easier.
func TestAPlanAgainstARoom(t *testing.T) {
	d := desktest.New(t)
	p := d.AddPlan(`{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 3}, {"type": "practice", "practice": "counted-breath", "counts": "4:8:8", "rounds": 6}`)
	e, err := d.Rehearse.Expected(p.ID, "newcomers")
	require.NoError(t, err)
	require.Len(t, e.Passages, 2)
	assert.Zero(t, e.Passages[0].High)
	assert.Empty(t, e.Passages[0].Ways)
	held := e.Passages[1]
	assert.Positive(t, held.Median)
	require.Len(t, held.Ways, 2)
	assert.Equal(t, "with the gentler lane beside", held.Ways[0].Says)
	assert.Equal(t, "at 4:6:8", held.Ways[1].Says)
	for _, way := range held.Ways {
		assert.LessOrEqual(t, way.Median, held.Median, way.Says)
	}
	assert.Contains(t, e.Limits, "not a measurement")
	assert.Len(t, e.Rooms, 8)
	_, err = d.Rehearse.Expected(p.ID, "strangers")
	require.ErrorIs(t, err, studio.ErrNotFound)
	_, err = d.Rehearse.Expected(99, "newcomers")
	assert.ErrorIs(t, err, studio.ErrNotFound)
}
