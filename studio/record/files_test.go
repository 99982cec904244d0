package record_test

import (
	"bytes"
	"context"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"strings"
	"testing"
	"time"

	"vastlantern/core/sheet"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestTheFilesOfARecord(t *testing.T) {
	d := desktest.New(t)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: d.AddPlan(desktest.Rounds).ID})
	require.NoError(t, err)
	d.Pass(11)
	d.Do(score.ClassID, "again")
	d.Pass(100)
	record, err := d.Records.Record(t.Context(), score.ClassID)
	require.NoError(t, err)

	// A round of 8 s from 2 s; the second, from 10 s, was abandoned at 11 s and began again after the lead-in of 2 s.
	var curve []string
	for _, p := range record.Curve {
		curve = append(curve, fmt.Sprintf("%d: %v %d %t", p.AtMS, p.Tempo, p.Counts, p.Kept))
	}
	assert.Equal(t, []string{"2000: 60 4 true", "10000: 60 1 false", "13000: 60 4 true", "21000: 60 4 true"}, curve)

	table, err := d.Records.RecordTable(t.Context(), score.ClassID)
	require.NoError(t, err)
	rows, err := csv.NewReader(bytes.NewReader(table.Data)).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 2)
	for i, column := range rows[0] {
		want, known := map[string]any{"rounds": record.Passages[0].Rounds, "abandoned": 1,
			"left_inhales": record.Passages[0].LeftInhales, "taught_ms": record.Passages[0].LengthMS, "counts": "2:2"}[column]
		if known {
			assert.Equal(t, fmt.Sprint(want), rows[1][i], column)
		}
	}
	whole, err := d.Records.RecordFile(t.Context(), score.ClassID)
	require.NoError(t, err)
	var again contract.Records
	require.NoError(t, json.Unmarshal(whole.Data, &again))
	require.Len(t, again.Classes, 1)
	assert.Equal(t, record.Passages, again.Classes[0].Passages)
	assert.Equal(t, record.Marks, again.Classes[0].Marks)
	assert.Equal(t, "2026-03-02-lunch.records.json", whole.Name)

	cues, err := d.Records.TaughtSheet(t.Context(), score.ClassID, "csv")
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
	_, err = d.Records.TaughtSheet(t.Context(), score.ClassID, "doc")
	assert.ErrorIs(t, err, studio.ErrNotFound)
	taughtSheet := func(ctx context.Context, id int64) (studio.File, error) {
		return d.Records.TaughtSheet(ctx, id,
			"csv")
	}
	for _, ask := range []func(context.Context, int64) (studio.File, error){
		d.Records.RecordTable, d.Records.RecordFile, taughtSheet,
	} {
		_, err = ask(t.Context(), 99)
		assert.ErrorIs(t, err, studio.ErrNotFound)
	}
	// The cue sheet of a class that was not adjusted is that of its plan.
	other, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: d.AddPlan(desktest.Rounds).ID})
	require.NoError(t, err)
	d.Pass(200)
	cues, err = d.Records.TaughtSheet(t.Context(), other.ClassID, "vtt")
	require.NoError(t, err)
	_, p, err := sheet.ReadPlan(
		strings.NewReader(
			`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [` + desktest.Rounds + `]}`,
		),
	)
	require.NoError(t, err)
	var want bytes.Buffer
	require.NoError(t, sheet.WriteVTT(&want, pace.Sheet(p)))
	assert.Equal(t, want.String(), string(cues.Data))
}

func TestARangeOfDaysAsFiles(t *testing.T) {
	d := desktest.NewFilled(t)
	want := contract.Search{From: "2026-02-01", To: "2026-02-15"}
	found, err := d.Records.Find(t.Context(), want)
	require.NoError(t, err)
	require.Greater(t, len(found.Classes), 4)
	file, err := d.Records.RecordsFile(t.Context(), want)
	require.NoError(t, err)
	assert.Equal(t, "taught-from-2026-02-01-to-2026-02-15.records.json", file.Name)
	var whole contract.Records
	require.NoError(t, json.Unmarshal(file.Data, &whole))
	table, err := d.Records.RecordsTable(t.Context(), want)
	require.NoError(t, err)
	rows, err := csv.NewReader(bytes.NewReader(table.Data)).ReadAll()
	require.NoError(t, err)
	column := map[string]int{}
	for i, name := range rows[0] {
		column[name] = i
	}
	next := 1
	for i, card := range found.Classes {
		record, err := d.Records.Record(t.Context(), card.ID)
		require.NoError(t, err)
		assert.Equal(t, record.Passages, whole.Classes[i].Passages)
		assert.Equal(t, record.Marks, whole.Classes[i].Marks)
		assert.Equal(t, record.Remarks, whole.Classes[i].Remarks)
		assert.Equal(t, card.Title, whole.Classes[i].Class.Title)
		for n, p := range record.Passages {
			row := rows[next]
			next++
			for name, value := range map[string]any{
				"class": card.Title, "group": card.Group.Name,
				"class_start": time.UnixMilli(int64(card.StartedMS)).UTC().Format(time.RFC3339), "passage": n + 1,
				"name": p.Name, "counts": p.Counts, "counts_end": p.CountsEnd, "taught_ms": p.LengthMS, "rounds": p.Rounds,
				"tempo_mean":      p.TempoMean,
				"longest_hold_ms": p.LongestHoldMS, "held_full_ms": p.HeldFullMS, "right_inhales": p.RightInhales, "eased": p.Eased,
			} {
				assert.Equal(t, fmt.Sprint(value), row[column[name]], "%s of passage %d of class %d", name, n+1, card.ID)
			}
		}
		for _, r := range record.Remarks {
			if r.Kind == "people" {
				assert.Equal(t, r.Text, rows[next-1][column["people"]])
			}
		}
	}
	assert.Len(t, rows, next)

	for _, ask := range []func(context.Context, contract.Search) (studio.File, error){
		d.Records.RecordsFile, d.Records.RecordsTable,
	} {
		_, err := ask(t.Context(), contract.Search{From: "2031-01-01"})
		assert.ErrorIs(t, err, studio.ErrNotFound)
		_, err = ask(t.Context(), contract.Search{From: "soon"})
		assert.ErrorIs(t, err, studio.ErrInvalid)
	}
}

func TestATableHoldsNoFormulas(t *testing.T) {
	d := desktest.New(t)
	plan, err := d.Plans.Add(
		t.Context(),
		[]byte(
			`{"format": "vast-lantern-plan", "version": 1, "title": "=1+1", "passages": [{"type": "talk", "title": "@home", `+
				`"seconds": 10}]}`,
		),
		0,
	)
	require.NoError(t, err)
	table, err := d.Records.RecordTable(t.Context(), d.Start(plan))
	require.NoError(t, err)
	assert.Contains(t, string(table.Data), ",'=1+1,")
	assert.Contains(t, string(table.Data), ",'@home,")

	sung := d.AddPlan(
		`{"type": "practice", "practice": "counted-breath", "voice": "syllables", "syllables": ["=HYPERLINK(1)", "ma"], ` +
			`"rounds": 1}`,
	)
	cues, err := d.Plans.Sheet(t.Context(), sung.ID, "csv")
	require.NoError(t, err)
	assert.Contains(t, string(cues.Data), ",'=HYPERLINK(1),")
	assert.NotContains(t, string(cues.Data), ",=HYPERLINK(1),")
}

// A sample class that has ended is held in memory alone, for the screen that shows it: its file is made of that.
func TestTheFileOfAClassThatIsNotInTheDataFile(t *testing.T) {
	d := desktest.New(t)
	score, err := d.Classes.BeginSample(t.Context())
	require.NoError(t, err)
	d.Pass(20)
	d.Do(score.ClassID, "end")
	require.NoError(t, d.Classes.Settle(t.Context()))
	_, err = d.Store.Class(score.ClassID)
	require.ErrorIs(t, err, store.ErrNotFound)
	file, err := d.Records.RecordFile(t.Context(), score.ClassID)
	require.NoError(t, err)
	assert.Contains(t, string(file.Data), `"vast-lantern-plan"`)
	_, err = d.Records.RecordFile(t.Context(), score.ClassID+100)
	assert.ErrorIs(t, err, studio.ErrNotFound)
}
