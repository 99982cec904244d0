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

// What a group has learned in the year, at which level, what it never was, and the cautions that were read before.
func TestWhatAGroupLearnedInAYear(t *testing.T) {
	d := desktest.New(t)
	group := d.WithGroup(nil)
	for _, counts := range []string{"4:4", "4:8:8", "4:4:8"} {
		plan := d.AddPlan(`{"type": "practice", "practice": "nadi-shodhana", "counts": "` + counts +
			`", "rounds": 1, "lead_in": 0}`)
		plan, err := d.Plans.Save(t.Context(), plan.ID,
			contract.PlanSave{Revision: plan.Revision, Document: plan.Document, GroupID: group.ID})
		require.NoError(t, err)
		score, err := d.Classes.Begin(t.Context(),
			contract.Lead{PlanID: plan.ID, Acknowledged: contract.StrongCautions(plan)})
		require.NoError(t, err)
		d.Pass(120)
		_, err = d.Records.Record(t.Context(), score.ClassID)
		require.NoError(t, err)
	}
	summary, err := d.Records.Summary(t.Context(), 0)
	require.NoError(t, err)
	require.Len(t, summary.Groups, 1)
	g := summary.Groups[0]
	assert.Equal(t, "beginners", g.Level)
	require.Len(t, g.Practices, 1)
	assert.Equal(t, []any{"Alternate nostril breath", 3, "4:8:8"},
		[]any{g.Practices[0].Name, g.Practices[0].Classes, g.Practices[0].Level}, "the highest, not the last")
	assert.Contains(t, g.Never, "Sun salutation")
	assert.NotContains(t, g.Never, "Alternate nostril breath")
	require.NotEmpty(t, g.Cautions)
	assert.Equal(t, []any{"full-hold", 2}, []any{g.Cautions[0].ID, g.Cautions[0].Classes})
	file, err := d.Records.SummaryTable(t.Context(), 0)
	require.NoError(t, err)
	text := string(file.Data)
	assert.Contains(t, text, "year,group,group_level,kind,name,classes,hours,highest\n")
	assert.Contains(t, text, ",Lunch,beginners,practice,Alternate nostril breath,3,")
	assert.Contains(t, text, ",Lunch,beginners,caution,full-hold,2,,\n")
}
