package studio_test

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"testing"
	"time"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// fitsSchema holds a file against its published schema, with a validator that is not ours.
func fitsSchema(t *testing.T, schema string, file []byte) {
	t.Helper()
	text, err := contract.Schemas.ReadFile("schema/" + schema)
	require.NoError(t, err)
	document, err := jsonschema.UnmarshalJSON(bytes.NewReader(text))
	require.NoError(t, err)
	compiler := jsonschema.NewCompiler()
	compiler.AssertFormat()
	require.NoError(t, compiler.AddResource("urn:x", document))
	compiled, err := compiler.Compile("urn:x")
	require.NoError(t, err)
	value, err := jsonschema.UnmarshalJSON(bytes.NewReader(file))
	require.NoError(t, err)
	require.NoError(t, compiled.Validate(value))
	object := value.(map[string]any)
	object["format"] = "another"
	require.Error(t, compiled.Validate(object), "the schema can say no")
}

func TestFilesFitTheirSchemas(t *testing.T) {
	d := machine(t, true)
	file, err := d.RecordsFile(contract.Search{})
	require.NoError(t, err)
	fitsSchema(t, "records.schema.json", file.Data)
	fitsSchema(t, "export.schema.json", []byte(d.export()))
}

// What is in the files of a range of days is what the screen shows of each of its classes.
func TestARangeOfDaysAsFiles(t *testing.T) {
	d := machine(t, true)
	want := contract.Search{From: "2026-02-01", To: "2026-02-15"}
	found, err := d.Find(want)
	require.NoError(t, err)
	require.Greater(t, len(found.Classes), 4)
	file, err := d.RecordsFile(want)
	require.NoError(t, err)
	assert.Equal(t, "taught-from-2026-02-01-to-2026-02-15.records.json", file.Name)
	var whole contract.Records
	require.NoError(t, json.Unmarshal(file.Data, &whole))
	table, err := d.RecordsTable(want)
	require.NoError(t, err)
	rows, err := csv.NewReader(bytes.NewReader(table.Data)).ReadAll()
	require.NoError(t, err)
	column := map[string]int{}
	for i, name := range rows[0] {
		column[name] = i
	}
	next := 1
	for i, card := range found.Classes {
		record, err := d.Record(card.ID)
		require.NoError(t, err)
		assert.Equal(t, record.Passages, whole.Classes[i].Passages)
		assert.Equal(t, record.Marks, whole.Classes[i].Marks)
		assert.Equal(t, record.Remarks, whole.Classes[i].Remarks)
		assert.Equal(t, card.Title, whole.Classes[i].Class.Title)
		for n, p := range record.Passages {
			row := rows[next]
			next++
			for name, value := range map[string]any{
				"class": card.Title, "group": card.Group.Name, "class_start": time.UnixMilli(int64(card.StartedMS)).UTC().Format(time.RFC3339), "passage": n + 1,
				"name": p.Name, "counts": p.Counts, "counts_end": p.CountsEnd, "taught_ms": p.LengthMS, "rounds": p.Rounds, "tempo_mean": p.TempoMean,
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

	for _, ask := range []func(contract.Search) (studio.File, error){d.RecordsFile, d.RecordsTable} {
		_, err := ask(contract.Search{From: "2031-01-01"})
		assert.ErrorIs(t, err, studio.ErrNotFound)
		_, err = ask(contract.Search{From: "soon"})
		assert.ErrorIs(t, err, studio.ErrInvalid)
	}
}

func TestATableHoldsNoFormulas(t *testing.T) {
	d := newDesk(t)
	plan, err := d.AddPlan([]byte(`{"format": "vast-lantern-plan", "version": 1, "title": "=1+1", "passages": [{"type": "talk", "title": "@home", "seconds": 10}]}`), 0)
	require.NoError(t, err)
	table, err := d.RecordTable(d.start(plan))
	require.NoError(t, err)
	assert.Contains(t, string(table.Data), ",'=1+1,")
	assert.Contains(t, string(table.Data), ",'@home,")

	sung := d.addPlan(`{"type": "practice", "practice": "counted-breath", "voice": "syllables", "syllables": ["=HYPERLINK(1)", "ma"], "rounds": 1}`)
	cues, err := d.PlanSheet(sung.ID, "csv")
	require.NoError(t, err)
	assert.Contains(t, string(cues.Data), ",'=HYPERLINK(1),")
	assert.NotContains(t, string(cues.Data), ",=HYPERLINK(1),")
}

// A year's summary is the sum of what the screens show of its classes.
func TestAYearsSummary(t *testing.T) {
	d := machine(t, true)
	summary, err := d.Summary(0)
	require.NoError(t, err)
	assert.Equal(t, 2026, summary.Year)
	found, err := d.Find(contract.Search{From: "2026-01-01", To: "2026-12-31"})
	require.NoError(t, err)
	assert.Equal(t, len(found.Classes), summary.Classes)
	var taught, talks, months, groups int64
	led, rounds := map[string]int64{}, map[string]int{}
	for _, card := range found.Classes {
		record, err := d.Record(card.ID)
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

	empty, err := d.Summary(2019)
	require.NoError(t, err)
	assert.Zero(t, empty.Classes)
}
