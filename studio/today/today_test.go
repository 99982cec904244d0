package today_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	_ "modernc.org/sqlite" // another program at the data file

	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestAPartOfTodayFailsByItself(t *testing.T) {
	d := desktest.New(t)
	g, err := d.Library.AddGroup(t.Context(), "Lunch", "beginners", 12)
	require.NoError(t, err)
	taught := d.Start(d.AddPlan(desktest.Rounds))
	d.Pass(600)
	next := fmt.Sprintf(
		`{"format": "vast-lantern-plan", "version": 1, "title": "Next", "starts_at": %q, "passages": [], "slot_min": "60 `+
			`min"}`,
		d.Time.Add(time.Hour).Format(time.RFC3339),
	)
	half, err := d.Plans.Add(t.Context(), []byte(next), g.ID)
	require.NoError(t, err)
	none, err := d.Plans.Add(t.Context(), []byte(next), 0)
	require.NoError(t, err)
	today := d.Today.Show(t.Context())
	assert.Empty(t, today.Failed, "a plan that is half written is shown as it is")
	require.NotNil(t, today.Next)
	assert.True(t, today.Next.Wrong)
	assert.Len(t, today.Taught, 1)

	d.Exec("UPDATE plans SET document = '{' WHERE id IN (?, ?)", half.ID, none.ID)
	today = d.Today.Show(t.Context())
	require.Len(t, today.Failed, 1)
	assert.Equal(t, "advice", today.Failed[0].Part)
	assert.Len(t, today.Taught, 1)
	require.Len(t, today.Damaged, 1)
	assert.Equal(t, fmt.Sprintf("plan %d", half.ID), today.Damaged[0].Name)
	_, err = d.Plans.Plan(t.Context(), half.ID)
	assert.ErrorIs(t, err, studio.ErrDamaged)

	running := d.Start(d.AddPlan(desktest.Rounds))
	d.Exec("DROP TABLE digests")
	today = d.Today.Show(t.Context())
	assert.NotEmpty(t, today.Failed)
	for _, failed := range today.Failed {
		assert.Contains(t, []string{"taught", "advice"}, failed.Part)
	}
	assert.NotNil(t, today.Next)
	back, err := d.Classes.Running(t.Context())
	require.NoError(t, err)
	assert.Equal(t, running, back.ClassID, "the way back asks for nothing of all that")
	assert.NotEqual(t, taught, running)
}

func TestTodayKnowsNextAndLast(t *testing.T) {
	d := desktest.New(t)
	g, err := d.Library.AddGroup(t.Context(), "Lunch", "beginners", 12)
	require.NoError(t, err)
	at := func(hours int) contract.Plan {
		doc, err := json.Marshal(map[string]any{"format": "vast-lantern-plan", "version": 1, "title": fmt.Sprint(hours),
			"starts_at": d.Time.Add(time.Duration(hours) * time.Hour).
				Format(time.RFC3339),
			"passages": []any{map[string]any{"type": "talk", "seconds": 60}}})
		require.NoError(t, err)
		p, err := d.Plans.Add(t.Context(), doc, g.ID)
		require.NoError(t, err)
		return p
	}
	at(-2)
	past := at(-1)
	next := at(3)
	at(5)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: past.ID})
	require.NoError(t, err)
	d.Pass(100)
	today := d.Today.Show(t.Context())
	require.Empty(t, today.Failed)
	assert.Equal(t, next.ID, today.Next.ID)
	assert.Len(t, today.Plans, 1)
	require.NotNil(t, today.Last)
	assert.Equal(t, score.ClassID, today.Last.Class.ID)
	running, err := d.Classes.Running(t.Context())
	require.NoError(t, err)
	assert.Zero(t, running)
	_, err = d.Records.Record(t.Context(), 99)
	assert.True(t, errors.Is(err, studio.ErrNotFound))
}
