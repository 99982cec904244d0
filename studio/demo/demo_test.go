package demo_test

import (
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/demo"
)

func TestTheDemoDataIsAWholeScenario(t *testing.T) {
	s, err := store.Open(filepath.Join(t.TempDir(), "demo.db"))
	require.NoError(t, err)
	defer s.Close()
	now := time.Date(2026, 3, 2, 11, 20, 0, 0, time.UTC)
	require.NoError(t, demo.Load(s, now))
	require.NoError(t, demo.Load(s, now), "a second start adds nothing")

	desk := studio.WithTime(s, func() time.Time { return now }, 1)
	today, err := desk.Today()
	require.NoError(t, err)
	require.NotNil(t, today.Next)
	assert.Nil(t, today.Running)
	assert.Len(t, today.Plans, 2)
	assert.Len(t, today.Taught, 9)
	assert.False(t, today.Next.Wrong)
	require.NotNil(t, today.Last)
	for _, card := range today.Taught {
		assert.False(t, card.Running, card.Title)
		record, err := desk.Record(card.ID)
		require.NoError(t, err)
		assert.Equal(t, record.TaughtMS, card.LengthMS)
		assert.NotEmpty(t, record.Marks)
		last := record.Passages[len(record.Passages)-1]
		assert.Positive(t, last.LengthMS, "%d: every class was led to its end", card.ID)
	}

	require.NoError(t, demo.Load(s, now.AddDate(0, 0, 9)), "once all plans are past")
	today, err = studio.WithTime(s, func() time.Time { return now.AddDate(0, 0, 9) }, 1).Today()
	require.NoError(t, err)
	assert.NotNil(t, today.Next, "there is a week to come again")
	assert.Len(t, today.Taught, 9)
}
