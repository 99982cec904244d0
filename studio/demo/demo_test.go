package demo_test

import (
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/store"
	"vastlantern/studio/contract"
	"vastlantern/studio/demo"
	"vastlantern/studio/desk"
)

func TestTheDemoDataIsAWholeScenario(t *testing.T) {
	s, err := store.Open(filepath.Join(t.TempDir(), "demo.db"), "a test")
	require.NoError(t, err)
	defer s.Close()
	now := time.Date(2026, 3, 2, 11, 20, 0, 0, time.UTC)
	require.NoError(t, demo.Load(t.Context(), s, now))
	require.NoError(t, demo.Load(t.Context(), s, now), "a second start adds nothing")

	at := desk.WithTime(s, func() time.Time { return now }, 1)
	today := at.Today.Show(t.Context())
	require.Empty(t, today.Failed)
	require.NotNil(t, today.Next)
	running, err := at.Classes.Running(t.Context())
	require.NoError(t, err)
	assert.Zero(t, running)
	assert.Len(t, today.Plans, 6, "three, and three of a programme")
	assert.Len(t, today.Taught, 29)
	assert.False(t, today.Next.Wrong)
	require.NotNil(t, today.Last)
	for _, card := range today.Taught {
		assert.False(t, card.Running, card.Title)
		record, err := at.Records.Record(t.Context(), card.ID)
		require.NoError(t, err)
		assert.Equal(t, record.TaughtMS, card.LengthMS)
		assert.NotEmpty(t, record.Marks)
		last := record.Passages[len(record.Passages)-1]
		assert.Positive(t, last.LengthMS, "%d: every class was led to its end", card.ID)
	}

	// The story is in the numbers: one group climbs, one was eased back, one is irregular.
	groups, err := at.Library.Groups(t.Context())
	require.NoError(t, err)
	story := map[string]contract.GroupCourse{}
	for _, g := range groups.Groups {
		story[g.Name], err = at.Records.GroupCourse(t.Context(), g.ID)
		require.NoError(t, err)
	}
	points := func(group string) (list []contract.CoursePoint) {
		for _, p := range story[group].Practices {
			if p.Practice == "nadi-shodhana" {
				for _, one := range p.Points {
					if one.Rounds > 0 {
						list = append(list, one)
					}
				}
			}
		}
		return list
	}
	climbs := points("Birkholm House, offices")
	assert.Less(t, climbs[0].Rounds, climbs[len(climbs)-1].Rounds)
	eased := 0
	for _, p := range points("Evening circle, Aldersee") {
		if p.Eased {
			eased++
		}
	}
	assert.Equal(t, 2, eased)
	assert.Equal(t, 5, story["Sunday drop-in, Fellgard"].Classes)
	assert.Equal(t, 8, story["Class 10b, Ostrand School"].Classes)

	require.NoError(t, demo.Load(t.Context(), s, now.AddDate(0, 0, 9)), "once all plans are past")
	today = desk.WithTime(s, func() time.Time { return now.AddDate(0, 0, 9) }, 1).Today.Show(t.Context())
	require.Empty(t, today.Failed)
	assert.NotNil(t, today.Next, "there is a week to come again")
	assert.Len(t, today.Taught, 29)
}
