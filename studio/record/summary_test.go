package record_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestAYearsSummary(t *testing.T) {
	d := desktest.NewFilled(t)
	summary, err := d.Records.Summary(t.Context(), 0)
	require.NoError(t, err)
	assert.Equal(t, 2026, summary.Year)
	found, err := d.Records.Find(t.Context(), contract.Search{From: "2026-01-01", To: "2026-12-31"})
	require.NoError(t, err)
	assert.Equal(t, len(found.Classes), summary.Classes)
	var taught, talks, months, groups int64
	led, rounds := map[string]int64{}, map[string]int{}
	for _, card := range found.Classes {
		record, err := d.Records.Record(t.Context(), card.ID)
		require.NoError(t, err)
		taught += record.TaughtMS
		for _, p := range record.Passages {
			if p.Practice != "" {
				led[p.Practice] += p.LengthMS
				rounds[p.Practice] += p.Rounds
			} else {
				talks += p.LengthMS
			}
		}
	}
	assert.Equal(t, taught, summary.TaughtMS)
	assert.Equal(t, talks, summary.TalksMS+summary.FreeMS)
	for _, p := range summary.Practices {
		assert.Equal(t, led[p.Practice], p.LedMS+p.OwnPaceMS+p.TrialMS, p.Name)
		assert.Equal(t, rounds[p.Practice], p.Rounds, p.Name)
		delete(led, p.Practice)
	}
	assert.Empty(t, led)
	for _, m := range summary.Months {
		months += m.TaughtMS
	}
	for _, g := range summary.Groups {
		groups += g.TaughtMS
		assert.Positive(t, g.People, g.Name)
	}
	assert.Equal(t, []int64{taught, taught}, []int64{months, groups})

	empty, err := d.Records.Summary(t.Context(), 2019)
	require.NoError(t, err)
	assert.Zero(t, empty.Classes)
}
