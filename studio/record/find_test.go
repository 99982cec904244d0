package record_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestFindingClasses(t *testing.T) {
	d := desktest.New(t)
	g, err := d.Library.SaveGroup(t.Context(), contract.Group{Name: "Monday", Weekday: -1})
	require.NoError(t, err)
	lead := func(passages string, group int64) int64 {
		t.Helper()
		p, err := d.Plans.Add(
			t.Context(),
			[]byte(`{"format": "vast-lantern-plan", "version": 1, "title": "Lunch", "tempo": 60, "passages": [`+passages+`]}`),
			group,
		)
		require.NoError(t, err)
		score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, Acknowledged: contract.StrongCautions(p)})
		require.NoError(t, err)
		return score.ClassID
	}
	first := lead(desktest.Rounds, 0)
	note := "hands tire"
	_, err = d.Classes.Adjust(t.Context(), first, contract.Adjust{Key: "n", Do: "note", Text: &note})
	require.NoError(t, err)
	d.Pass(24 * 3600)
	second := lead(`{"type": "practice", "practice": "counted-breath", "counts": "4:4:4", "rounds": 3}`, g.ID)
	d.Pass(3)
	d.Do(second, "drop-holds")
	d.Pass(24 * 3600)
	third := lead(`{"type": "practice", "practice": "sigh", "rounds": 3}`, g.ID)
	_, err = d.Records.AddRemark(t.Context(), first, contract.RemarkAdd{Kind: "note", Text: "A warm room"})
	require.NoError(t, err)
	for name, c := range map[string]struct {
		search contract.Search
		ids    []int64
	}{
		"all":      {contract.Search{}, []int64{third, second, first}},
		"group":    {contract.Search{GroupID: g.ID}, []int64{third, second}},
		"practice": {contract.Search{Practice: "nadi-shodhana"}, []int64{first}},
		"eased":    {contract.Search{Eased: true}, []int64{second}},
		"a note":   {contract.Search{Words: "tire Hands"}, []int64{first}},
		"a remark": {contract.Search{Words: "warm"}, []int64{first}},
		"a name":   {contract.Search{Words: "counted"}, []int64{second}},
		"days":     {contract.Search{From: "2026-03-03", To: "2026-03-03"}, []int64{second}},
		"nothing":  {contract.Search{Words: "zebra"}, nil},
	} {
		found, err := d.Records.Find(t.Context(), c.search)
		require.NoError(t, err, name)
		var ids []int64
		for _, card := range found.Classes {
			ids = append(ids, card.ID)
			assert.Equal(t, card.ID == third, card.Running, name)
		}
		assert.Equal(t, c.ids, ids, name)
		assert.False(t, found.More)
	}
	_, err = d.Records.Find(t.Context(), contract.Search{From: "yesterday"})
	assert.ErrorIs(t, err, studio.ErrInvalid)
	d.Do(third, "end")
	d.Reopen()
	found, err := d.Records.Find(t.Context(), contract.Search{})
	require.NoError(t, err)
	assert.False(t, found.Classes[0].Running)
}

func TestALongListComesInParts(t *testing.T) {
	d := desktest.New(t)
	p := d.AddPlan(desktest.Rounds)
	for range 53 {
		_, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, EndRunning: true})
		require.NoError(t, err)
		d.Pass(60)
	}
	found, err := d.Records.Find(t.Context(), contract.Search{})
	require.NoError(t, err)
	assert.Len(t, found.Classes, 50)
	assert.True(t, found.More)
	found, err = d.Records.Find(t.Context(), contract.Search{Skip: 50})
	require.NoError(t, err)
	assert.Len(t, found.Classes, 3)
	assert.False(t, found.More)
}

func TestALongListSaysWhatIsMissing(t *testing.T) {
	d := desktest.New(t)
	plan := d.AddPlan(`{"type": "talk", "seconds": 10}`)
	const classes = 450
	for range classes {
		_, err := d.Store.AddClass(
			store.Class{PlanID: plan.ID, StartedAt: d.Time, EndedAt: d.Time.Add(10 * time.Second), Document: plan.Document},
		)
		require.NoError(t, err)
	}
	found, err := d.Records.Find(t.Context(), contract.Search{})
	require.NoError(t, err)
	assert.Empty(t, found.Classes)
	assert.EqualValues(t, classes, found.Preparing)
	_, err = d.Records.Summary(t.Context(), 2026)
	assert.Contains(t, language.English().Error(err), "450 classes are still being prepared")
	_, err = d.Records.RecordsTable(t.Context(), contract.Search{})
	assert.ErrorIs(t, err, studio.ErrConflict)

	require.NoError(t, d.Prepare(t.Context()))
	found, err = d.Records.Find(t.Context(), contract.Search{})
	require.NoError(t, err)
	assert.Len(t, found.Classes, 50)
	assert.Zero(t, found.Preparing)
	sum, err := d.Records.Summary(t.Context(), 2026)
	require.NoError(t, err)
	assert.Equal(t, classes, sum.Classes)
}
