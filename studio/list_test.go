package studio_test

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

func TestFindingClasses(t *testing.T) {
	d := newDesk(t)
	g, err := d.SaveGroup(contract.Group{Name: "Monday", Weekday: -1})
	require.NoError(t, err)
	lead := func(passages string, group int64) int64 {
		t.Helper()
		p, err := d.AddPlan([]byte(`{"format": "vast-lantern-plan", "version": 1, "title": "Lunch", "tempo": 60, "passages": [`+passages+`]}`), group)
		require.NoError(t, err)
		score, err := d.Lead(contract.Lead{PlanID: p.ID, Acknowledged: studio.StrongCautions(p)})
		require.NoError(t, err)
		return score.ClassID
	}
	first := lead(rounds, 0)
	note := "hands tire"
	_, err = d.Adjust(first, contract.Adjust{Key: "n", Do: "note", Text: &note})
	require.NoError(t, err)
	d.pass(24 * 3600)
	second := lead(`{"type": "practice", "practice": "counted-breath", "counts": "4:4:4", "rounds": 3}`, g.ID)
	d.pass(3)
	d.do(second, "drop-holds")
	d.pass(24 * 3600)
	third := lead(`{"type": "practice", "practice": "sigh", "rounds": 3}`, g.ID)
	_, err = d.AddRemark(first, contract.Remark{Kind: "note", Text: "A warm room"})
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
		found, err := d.Find(c.search)
		require.NoError(t, err, name)
		var ids []int64
		for _, card := range found.Classes {
			ids = append(ids, card.ID)
			assert.Equal(t, card.ID == third, card.Running, name)
		}
		assert.Equal(t, c.ids, ids, name)
		assert.False(t, found.More)
	}
	_, err = d.Find(contract.Search{From: "yesterday"})
	assert.ErrorIs(t, err, studio.ErrInvalid)
	d.do(third, "end")
	d.reopen()
	found, err := d.Find(contract.Search{})
	require.NoError(t, err)
	assert.False(t, found.Classes[0].Running)
}

func TestALongListComesInParts(t *testing.T) {
	d := newDesk(t)
	p := d.addPlan(rounds)
	for range 53 {
		_, err := d.Lead(contract.Lead{PlanID: p.ID, EndRunning: true})
		require.NoError(t, err)
		d.pass(60)
	}
	found, err := d.Find(contract.Search{})
	require.NoError(t, err)
	assert.Len(t, found.Classes, 50)
	assert.True(t, found.More)
	found, err = d.Find(contract.Search{Skip: 50})
	require.NoError(t, err)
	assert.Len(t, found.Classes, 3)
	assert.False(t, found.More)
}

func TestRemarksStandBesideTheRecord(t *testing.T) {
	d := newDesk(t)
	score, err := d.Lead(contract.Lead{PlanID: d.addPlan(rounds).ID})
	require.NoError(t, err)
	d.pass(100)
	before, err := d.Record(score.ClassID)
	require.NoError(t, err)
	for _, r := range []contract.Remark{{Kind: "people", Text: " 9 "}, {Kind: "took", Text: "settled"}, {Kind: "note", Text: "cold feet"}, {Kind: "correction", Text: "two rounds were led by voice"}} {
		_, err = d.AddRemark(score.ClassID, r)
		require.NoError(t, err)
		d.pass(1)
	}
	after, err := d.Record(score.ClassID)
	require.NoError(t, err)
	require.Len(t, after.Remarks, 4)
	assert.Equal(t, "9", after.Remarks[0].Text)
	assert.InDelta(t, 1000, after.Remarks[1].AtMS-after.Remarks[0].AtMS, 0)
	after.Remarks = before.Remarks
	assert.Equal(t, before, after, "what happened stays what it was")
	for _, wrong := range []contract.Remark{{Kind: "people", Text: "many"}, {Kind: "people", Text: "-1"}, {Kind: "took", Text: "great"}, {Kind: "note", Text: " "}, {Kind: "note", Text: strings.Repeat("x", 2001)}, {Kind: "score", Text: "5"}} {
		_, err = d.AddRemark(score.ClassID, wrong)
		assert.ErrorIs(t, err, studio.ErrInvalid, wrong)
	}
	_, err = d.AddRemark(99, contract.Remark{Kind: "note", Text: "x"})
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

// The files of a record agree with the record, and its figures with an independent count over its own cue sheet.
func TestTheFilesOfARecord(t *testing.T) {
	d := newDesk(t)
	score, err := d.Lead(contract.Lead{PlanID: d.addPlan(rounds).ID})
	require.NoError(t, err)
	d.pass(11)
	d.do(score.ClassID, "again")
	d.pass(100)
	record, err := d.Record(score.ClassID)
	require.NoError(t, err)

	// A round of 8 s from 2 s; the second, from 10 s, was abandoned at 11 s and began again after the lead-in of 2 s.
	var curve []string
	for _, p := range record.Curve {
		curve = append(curve, fmt.Sprintf("%d: %v %d %t", p.AtMS, p.Tempo, p.Counts, p.Kept))
	}
	assert.Equal(t, []string{"2000: 60 4 true", "10000: 60 1 false", "13000: 60 4 true", "21000: 60 4 true"}, curve)

	table, err := d.RecordTable(score.ClassID)
	require.NoError(t, err)
	rows, err := csv.NewReader(bytes.NewReader(table.Data)).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 2)
	for i, column := range rows[0] {
		want, known := map[string]any{"rounds": record.Passages[0].Rounds, "abandoned": 1, "left_inhales": record.Passages[0].LeftInhales, "taught_ms": record.Passages[0].LengthMS, "counts": "2:2"}[column]
		if known {
			assert.Equal(t, fmt.Sprint(want), rows[1][i], column)
		}
	}
	whole, err := d.RecordFile(score.ClassID)
	require.NoError(t, err)
	var again contract.Records
	require.NoError(t, json.Unmarshal(whole.Data, &again))
	require.Len(t, again.Classes, 1)
	assert.Equal(t, record.Passages, again.Classes[0].Passages)
	assert.Equal(t, record.Marks, again.Classes[0].Marks)
	assert.Equal(t, "2026-03-02-lunch.records.json", whole.Name)

	cues, err := d.TaughtSheet(score.ClassID, "csv")
	require.NoError(t, err)
	rows, err = csv.NewReader(bytes.NewReader(cues.Data)).ReadAll()
	require.NoError(t, err)
	kept, left := map[string]bool{}, 0
	for _, row := range rows[1:] { // at_ms,dur_ms,passage,practice,stage,round,breath,phase,through,count,of,part,say,kept
		if row[4] == "round" && row[13] == "yes" {
			kept[row[5]] = true
			if row[7] == "inhale" && row[8] == "left" && row[9] == "1" {
				left++
			}
		}
	}
	assert.Len(t, kept, record.Passages[0].Rounds)
	assert.Equal(t, record.Passages[0].LeftInhales, left)
	_, err = d.TaughtSheet(score.ClassID, "doc")
	assert.ErrorIs(t, err, studio.ErrNotFound)
	for _, ask := range []func(int64) (studio.File, error){d.RecordTable, d.RecordFile, func(id int64) (studio.File, error) { return d.TaughtSheet(id, "csv") }} {
		_, err = ask(99)
		assert.ErrorIs(t, err, studio.ErrNotFound)
	}
	// The cue sheet of a class that was not adjusted is that of its plan.
	other, err := d.Lead(contract.Lead{PlanID: d.addPlan(rounds).ID})
	require.NoError(t, err)
	d.pass(200)
	cues, err = d.TaughtSheet(other.ClassID, "vtt")
	require.NoError(t, err)
	_, p, err := sheet.ReadPlan(strings.NewReader(`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [` + rounds + `]}`))
	require.NoError(t, err)
	var want bytes.Buffer
	require.NoError(t, sheet.WriteVTT(&want, pace.Sheet(p)))
	assert.Equal(t, want.String(), string(cues.Data))
}

// After an import there may be thousands of classes to work out: a list comes at once and says how many are missing in
// it, and a sum or a file is not made before they are there.
func TestALongListSaysWhatIsMissing(t *testing.T) {
	d := newDesk(t)
	plan := d.addPlan(`{"type": "talk", "seconds": 10}`)
	const classes = 450
	for range classes {
		_, err := d.store.AddClass(store.Class{PlanID: plan.ID, StartedAt: d.now, EndedAt: d.now.Add(10 * time.Second), Document: plan.Document})
		require.NoError(t, err)
	}
	found, err := d.Find(contract.Search{})
	require.NoError(t, err)
	assert.Empty(t, found.Classes)
	assert.EqualValues(t, classes, found.Left)
	_, err = d.Summary(2026)
	assert.ErrorContains(t, err, "450 classes are still being prepared")
	_, err = d.RecordsTable(contract.Search{})
	assert.ErrorIs(t, err, studio.ErrConflict)

	require.NoError(t, d.Prepare(d.t.Context()))
	found, err = d.Find(contract.Search{})
	require.NoError(t, err)
	assert.Len(t, found.Classes, 50)
	assert.Zero(t, found.Left)
	sum, err := d.Summary(2026)
	require.NoError(t, err)
	assert.Equal(t, classes, sum.Classes)
}
