package lead_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

// The sample is led like any class, and nothing of it stays.
func TestTheSampleLeavesNothing(t *testing.T) {
	d := desktest.New(t)
	score, err := d.Classes.BeginSample(t.Context())
	require.NoError(t, err)
	assert.True(t, score.Sample)
	assert.InDelta(t, 120_000, score.EndMS, 15_000, "two minutes")
	_, err = d.Classes.BeginSample(t.Context())
	require.ErrorIs(t, err, studio.ErrConflict, "one class at a time")
	d.Pass(20)
	_, err = d.Classes.Adjust(t.Context(), score.ClassID, contract.Adjust{Key: "k", Do: "pause"})
	require.NoError(t, err)
	d.Reopen() // as after a crash
	require.NoError(t, d.Classes.Resume(t.Context()))
	d.Pass(5)
	ended, err := d.Classes.Adjust(t.Context(), score.ClassID, contract.Adjust{Key: "e", Do: "end"})
	require.NoError(t, err)
	assert.True(t, ended.Score.Sample)
	require.NoError(t, d.Classes.Settle(t.Context()))
	still, err := d.Classes.Score(t.Context(), score.ClassID)
	require.NoError(t, err, "a screen that shows it is answered")
	assert.True(t, still.Over)
	assert.True(t, still.Sample)
	today := d.Today.Show(t.Context())
	assert.Empty(t, today.Plans)
	assert.Nil(t, today.Next)
	assert.Empty(t, today.Taught)
	_, err = d.Store.Class(score.ClassID)
	assert.ErrorIs(t, err, store.ErrNotFound)

	kept := d.AddPlan(desktest.Rounds)
	again, err := d.Classes.BeginSample(t.Context())
	require.NoError(t, err)
	d.Pass(300)
	require.NoError(t, d.Classes.Settle(t.Context()), "it came to its end by itself")
	require.NoError(t, d.Classes.Settle(t.Context()))
	_, err = d.Store.Class(again.ClassID)
	require.ErrorIs(t, err, store.ErrNotFound)
	_, err = d.Plans.Plan(t.Context(), kept.ID)
	assert.NoError(t, err, "others stay")
}
