package record_test

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

const strokesAndHum = `{"type": "practice", "practice": "kapalabhati", "rate": 60, "strokes": 20, "rounds": 1, ` +
	`"lead_in": 0}, {"type": "practice", "practice": "bhramari", "counts": "4:8", "rounds": 2, "lead_in": 0}`

func heardOf(list ...contract.Heard) contract.HeardMore { return contract.HeardMore{Heard: list} }

// What a lead screen heard is in the record, in its files and in an export, beside what was planned; what is told again
// counts once.
func TestWhatWasHeard(t *testing.T) {
	d := desktest.New(t)
	class := d.Start(d.AddPlan(strokesAndHum))
	strokes := contract.Heard{Phase: breath.Stroke, FromMS: 4_000, ToMS: 14_000, PerMinute: 66.2}
	d.Pass(15)
	record, err := d.Records.Record(t.Context(), class)
	require.NoError(t, err)
	assert.Empty(t, record.Heard)
	begins := record.Curve[0].AtMS // of the strokes
	strokes.FromMS, strokes.ToMS = strokes.FromMS+begins, strokes.ToMS+begins
	kept, err := d.Records.AddHeard(t.Context(), class, heardOf(strokes))
	require.NoError(t, err)
	assert.Equal(t, 1, kept.Kept)
	d.Pass(300)
	record, err = d.Records.Record(t.Context(), class)
	require.NoError(t, err)
	hums := record.Curve[len(record.Curve)-2].AtMS // the first round of the hum
	hum := contract.Heard{Phase: breath.Exhale, FromMS: hums + 4_200, ToMS: hums + 11_400}
	kept, err = d.Records.AddHeard(t.Context(), class, heardOf(strokes, hum))
	require.NoError(t, err)
	assert.Equal(t, 1, kept.Kept)

	record, err = d.Records.Record(t.Context(), class)
	require.NoError(t, err)
	require.Len(t, record.Heard, 2)
	assert.Equal(t, contract.HeardPhase{
		Passage: 1, Round: 1, AtMS: begins, Phase: breath.Stroke, PlannedRate: 60, LedRate: 60, HeardRate: 66.2,
		Breath: record.Heard[0].Breath,
	}, record.Heard[0])
	assert.Equal(t, []int64{8_000, 8_000, 7_200}, []int64{
		record.Heard[1].PlannedMS, record.Heard[1].LedMS, record.Heard[1].HeardMS})

	table, err := d.Records.RecordTable(t.Context(), class)
	require.NoError(t, err)
	rows, err := csv.NewReader(bytes.NewReader(table.Data)).ReadAll()
	require.NoError(t, err)
	column := slices.Index(rows[0], "heard")
	assert.Equal(t, []string{"1:66.2/60", "1:7.2/8"}, []string{rows[1][column], rows[2][column]})
	whole, err := d.Records.RecordFile(t.Context(), class)
	require.NoError(t, err)
	var file contract.Records
	require.NoError(t, json.Unmarshal(whole.Data, &file))
	assert.Equal(t, record.Heard, file.Classes[0].Heard)

	away := desktest.New(t)
	away.Import(d.Export())
	assert.Equal(t, d.Export(), away.Export())
	more := contract.Heard{Phase: breath.Exhale, FromMS: hums + 16_000, ToMS: hums + 22_000}
	_, err = d.Records.AddHeard(t.Context(), class, heardOf(more))
	require.NoError(t, err)
	away.Import(d.Export())
	there, err := away.Records.Record(t.Context(), 1)
	require.NoError(t, err)
	assert.Len(t, there.Heard, 3, "what was heard later comes along")
}

func TestWhatCannotBeHeard(t *testing.T) {
	d := desktest.New(t)
	class := d.Start(d.AddPlan(strokesAndHum))
	for name, h := range map[string]contract.Heard{
		"a hold":             {Phase: breath.Hold, FromMS: 0, ToMS: 1000},
		"no time":            {Phase: breath.Exhale, FromMS: 5, ToMS: 5},
		"before the class":   {Phase: breath.Exhale, FromMS: -5, ToMS: 5},
		"a day":              {Phase: breath.Exhale, FromMS: 0, ToMS: 90_000_000},
		"no rate":            {Phase: breath.Stroke, FromMS: 0, ToMS: 1000},
		"too quick":          {Phase: breath.Stroke, FromMS: 0, ToMS: 1000, PerMinute: 1001},
		"a hum has no rate":  {Phase: breath.Exhale, FromMS: 0, ToMS: 1000, PerMinute: 60},
		"nothing is stroked": {FromMS: 0, ToMS: 1000},
	} {
		_, err := d.Records.AddHeard(t.Context(), class, heardOf(h))
		assert.ErrorIs(t, err, studio.ErrInvalid, name)
	}
	_, err := d.Records.AddHeard(t.Context(), class, heardOf(make([]contract.Heard, studio.MostHeard+1)...))
	assert.ErrorIs(t, err, studio.ErrInvalid)
	_, err = d.Records.AddHeard(t.Context(), 99, heardOf())
	assert.ErrorIs(t, err, studio.ErrNotFound)

	var full []contract.Heard
	for i := range studio.MostHeard {
		full = append(full, contract.Heard{Phase: breath.Exhale, FromMS: int64(i), ToMS: int64(i) + 1})
	}
	_, err = d.Records.AddHeard(t.Context(), class, heardOf(full...))
	require.NoError(t, err)
	late := contract.Heard{Phase: breath.Exhale, FromMS: 9e6, ToMS: 9e6 + 1}
	_, err = d.Records.AddHeard(t.Context(), class, heardOf(late))
	assert.ErrorIs(t, err, studio.ErrConflict)
}

// A class that is removed for good takes what was heard in it along.
func TestWhatWasHeardGoesWithItsClass(t *testing.T) {
	d := desktest.New(t)
	plan := d.AddPlan(strokesAndHum)
	class := d.Start(plan)
	_, err := d.Records.AddHeard(t.Context(), class,
		heardOf(contract.Heard{Phase: breath.Exhale, FromMS: 0, ToMS: 1000}))
	require.NoError(t, err)
	require.NoError(t, d.Studio.Store.RemovePlanAndClasses(plan.ID))
	left, err := d.Studio.Store.Heard(class)
	require.NoError(t, err)
	assert.Empty(t, left)
}
