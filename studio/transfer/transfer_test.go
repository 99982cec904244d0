package transfer_test

import (
	"bytes"
	"context"
	"encoding/json"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/language"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestEverythingMovesToANewMachineByteForByte(t *testing.T) {
	old, young := desktest.NewFilled(t), desktest.New(t)
	before, err := old.Library.Settings(t.Context())
	require.NoError(t, err)
	_, err = old.Library.SaveSettings(
		t.Context(),
		contract.Settings{
			Revision: before.Revision,
			Language: "de",
			Schools:  map[string]string{"eyes": "tenth"},
			OwnWords: map[string]string{"hold": "halten & <warten>"},
			CareRead: true,
		},
	)
	require.NoError(t, err)
	_, err = old.Library.CopyPractice(t.Context(), "nadi-shodhana", "My own way")
	require.NoError(t, err)
	_, err = old.Transfer.Delete(t.Context(), "class", 3, false)
	require.NoError(t, err)
	file := old.Export()
	require.Greater(t, strings.Count(file, "\n"), 50)
	assert.Contains(t, file, "My own way")

	read := young.Import(file)
	assert.Zero(t, read.Same)
	assert.Equal(t, file, young.Export())
	settings, err := young.Library.Settings(t.Context())
	require.NoError(t, err)
	assert.Equal(t, "halten & <warten>", settings.OwnWords["hold"])
	here, err := old.Records.Record(t.Context(), 2)
	require.NoError(t, err)
	there, err := young.Records.Record(t.Context(), 2)
	require.NoError(t, err)
	assert.Equal(t, here, there, "a record is computed of the same")
	list, err := young.Transfer.Deleted(t.Context())
	require.NoError(t, err)
	assert.Len(t, list.Deleted, 1, "and can be brought back there")

	again, err := young.Transfer.ReadImport(t.Context(), strings.NewReader(file))
	require.NoError(t, err)
	assert.False(t, again.Changing(), desktest.Lines(again))
}

// A time that could not be written again is refused where it comes in, with its place; one that is stored all the same
// is left out.
func TestTimesOutsideTheCalendar(t *testing.T) {
	old := desktest.NewFilled(t)
	var export contract.Export
	require.NoError(t, json.Unmarshal([]byte(old.Export()), &export))
	for says, change := range map[string]func(*contract.Export, time.Time){
		"/classes/0/started_at":  func(e *contract.Export, at time.Time) { e.Classes[0].StartedAt = at },
		"/classes/1/ended_at":    func(e *contract.Export, at time.Time) { e.Classes[1].EndedAt = &at },
		"/groups/0/updated_at":   func(e *contract.Export, at time.Time) { e.Groups[0].UpdatedAt = at },
		"/rehearsals/0/ended_at": func(e *contract.Export, at time.Time) { e.Rehearsals[0].EndedAt = &at },
	} {
		for _, at := range []time.Time{time.Date(2201, 1, 1, 0, 0, 0, 0, time.UTC), time.Date(1969, 12, 31, 23, 0, 0, 0,
			time.UTC)} {
			var changed contract.Export
			require.NoError(t, json.Unmarshal([]byte(old.Export()), &changed))
			change(&changed, at)
			text, err := json.Marshal(changed)
			require.NoError(t, err)
			_, err = old.Transfer.ReadImport(t.Context(), bytes.NewReader(text))
			require.Contains(t, language.English().Error(err), says)
			assert.Contains(t, language.English().Error(err), "a time from 1970 to 2200")
		}
	}
	old.Exec("UPDATE classes SET started_at = '2500-03-02 18:30:00', ended_at = '2500-03-02 19:30:00' WHERE id = 1")
	old.Exec("DELETE FROM digests")
	old.Reopen()
	require.NoError(t, old.Prepare(t.Context()))
	found, err := old.Records.Find(t.Context(), contract.Search{})
	require.NoError(t, err)
	assert.Zero(t, found.Preparing, "it does not keep the lists waiting")
	_, err = old.Records.Record(t.Context(), 1)
	require.ErrorIs(t, err, studio.ErrDamaged)
	assert.Contains(t, err.Error(), "2500")
	var rest contract.Export
	require.NoError(t, json.Unmarshal([]byte(old.Export()), &rest))
	assert.Len(t, rest.Classes, len(export.Classes)-1)
	assert.Equal(t, "class", rest.Damaged[0].Kind)
}

func TestOfTwoMachinesTheYoungerFormCounts(t *testing.T) {
	home, away := desktest.NewFilled(t), desktest.New(t)
	away.Import(home.Export())
	home.Pass(3600)
	away.Pass(7200)
	group := func(d *desktest.Desk, n int) contract.Group {
		t.Helper()
		groups, err := d.Library.Groups(t.Context())
		require.NoError(t, err)
		return groups.Groups[n]
	}
	save := func(d *desktest.Desk, g contract.Group, notes string) {
		t.Helper()
		g.Notes = notes
		_, err := d.Library.SaveGroup(t.Context(), g)
		require.NoError(t, err)
	}
	save(home, group(home, 0), "changed at home")
	save(away, group(away, 0), "changed away, later")
	save(home, group(home, 1), "changed at home only")
	_, err := away.Library.AddGroup(t.Context(), "New away", "beginners", 3)
	require.NoError(t, err)
	_, err = away.Transfer.Delete(t.Context(), "plan", 1, false)
	require.NoError(t, err)
	_, err = away.Records.AddRemark(t.Context(), 1, contract.RemarkAdd{Kind: "note", Text: "seen away"})
	require.NoError(t, err)
	plan := away.AddPlan(desktest.Rounds)
	class := away.Start(plan)
	away.Pass(10)
	away.Do(class, "end")

	read := home.Import(away.Export())
	says := desktest.Lines(read)
	for _, line := range []string{
		"group changed: " + group(home, 0).Name + " (notes)\n",
		"group kept as it is here, because this version is newer: " + group(home, 1).Name,
		"group new: New away\n", "plan deleted: ", "plan new: Lunch\n", "class new: Lunch, ", "(1 remark)\n",
	} {
		assert.Contains(t, desktest.Words(says), line)
	}
	assert.Equal(t, "changed away, later", group(home, 0).Notes)
	assert.Equal(t, "changed at home only", group(home, 1).Notes)
	record, err := home.Records.Record(t.Context(), 1)
	require.NoError(t, err)
	assert.Equal(t, "seen away", record.Remarks[len(record.Remarks)-1].Text)
	found, err := home.Records.Find(t.Context(), contract.Search{})
	require.NoError(t, err)
	assert.Equal(t, "Lunch", found.Classes[0].Title)

	home.Pass(7200)
	_, err = home.Transfer.BringBack(t.Context(), "plan", 1)
	require.NoError(t, err)
	assert.Contains(t, desktest.Words(desktest.Lines(away.Import(home.Export()))), "plan restored: ")
	assert.Equal(t, "changed at home only", group(away, 1).Notes)
	back, err := away.Transfer.ReadImport(t.Context(), strings.NewReader(home.Export()))
	require.NoError(t, err)
	assert.False(t, back.Changing(), "both are the same now")
}

func TestAnImportIsWholeOrNotAtAll(t *testing.T) {
	old := desktest.NewFilled(t)
	file := old.Export()
	line := func(kind string, n int) string {
		return strings.Split(file[strings.Index(file, `"`+kind+`": [`):], "\n")[n]
	}
	class := strings.TrimSuffix(line("classes", 2), ",")
	require.Contains(t, class, `"do":`)
	for name, one := range map[string]struct{ from, to, says string }{
		"half a file":          {file[len(file)/2:], "", "not JSON"},
		"another format":       {`vast-lantern-export`, `vast-lantern-plan`, "/format"},
		"a missing field":      {`"weekday":3,`, ``, "weekday"},
		"a time that is none":  {`"started_at":"2`, `"started_at":"x2`, "/started_at"},
		"a class twice":        {class, class + ",\n" + class, "class 3: it is in the file twice"},
		"a group that is not":  {`"group":"`, `"group":"x`, "is not in the file"},
		"no adjustment":        {`"do":"`, `"do":"un`, "adjustment"},
		"a level that is none": {`"level":"beginners"`, `"level":"wizards"`, `given “wizards”`},
		"a practice that is none": {`"practices": [`,
			`"practices": [{"id": "own-x", "updated_at": "2026-03-02T12:00:00Z", "file": "id: ["}`,
			"practice 1"},
	} {
		require.Contains(t, file, one.from, name)
		young := desktest.New(t)
		_, err := young.Transfer.ReadImport(t.Context(), strings.NewReader(strings.Replace(file, one.from, one.to, 1)))
		require.Error(t, err, name)
		assert.Contains(t, language.English().Error(err), one.says, name)
		groups, err := young.Library.Groups(t.Context())
		require.NoError(t, err)
		assert.Empty(t, groups.Groups, name)
	}
}

func TestAClassThatWasLedDifferentlyIsNotMixed(t *testing.T) {
	home, away := desktest.New(t), desktest.New(t)
	plan := home.AddPlan(desktest.Rounds)
	class := home.Start(plan)
	home.Pass(3)
	home.Do(class, "pause")
	home.Pass(1)
	home.Do(class, "end")
	longer := home.Export()
	away.Import(strings.Replace(longer, `"do":"end"`, `"do":"resume"`, 1))
	_, err := away.Transfer.ReadImport(t.Context(), strings.NewReader(longer))
	assert.Contains(t, language.English().Error(err), "was led differently on the two machines from adjustment 2 on")

	third := desktest.New(t)
	third.Import(
		strings.Replace(longer, longer[strings.Index(longer, `,{"key"`):strings.Index(longer, `],"remarks"`)], "", 1),
	)
	read := third.Import(longer)
	assert.Contains(t, desktest.Lines(read), "(1 adjustment)")
	assert.Equal(t, longer, third.Export())

	_, err = desktest.New(t).Transfer.ReadImport(
		t.Context(),
		strings.NewReader(strings.Replace(longer, `"at_ms":4000`, `"at_ms":2999`, 1)),
	)
	assert.Contains(
		t,
		language.English().Error(err),
		"adjustment 2: its at_ms is 2999, before the 3000 of the previous one: times never go back",
	)
}

func TestAClassInProgressMoves(t *testing.T) {
	home, away := desktest.New(t), desktest.New(t)
	class := home.Start(home.AddPlan(`{"type": "talk", "wait": true},` + desktest.Rounds))
	home.Pass(3)
	home.Do(class, "advance")
	home.Pass(4)
	away.Import(home.Export())
	running, err := away.Classes.Running(t.Context())
	require.NoError(t, err)
	assert.Zero(t, running, "it is led there, not here")
	there, err := away.Records.Record(t.Context(), 1)
	require.NoError(t, err)
	assert.False(t, there.Class.Running)
	assert.EqualValues(t, 33_000, there.TaughtMS, "to the end of its plan")
	home.Do(class, "end")
	read := away.Import(home.Export())
	assert.Contains(t, desktest.Lines(read), "1 adjustment")
	here, err := home.Records.Record(t.Context(), class)
	require.NoError(t, err)
	there, err = away.Records.Record(t.Context(), 1)
	require.NoError(t, err)
	assert.Equal(t, here.TaughtMS, there.TaughtMS)
}

func TestFilesFitTheirSchemas(t *testing.T) {
	d := desktest.NewFilled(t)
	file, err := d.Records.RecordsFile(t.Context(), contract.Search{})
	require.NoError(t, err)
	desktest.FitsSchema(t, "records.schema.json", file.Data)
	desktest.FitsSchema(t, "export.schema.json", []byte(d.Export()))
}

// endsWhile is a context that has ended while something is true; who asks it may be any goroutine.
type endsWhile struct {
	context.Context
	over func() bool
}

func (e endsWhile) Err() error {
	if e.over() {
		return context.Canceled
	}
	return nil
}

// An application that is ended in the middle of an import has nothing of it.
func TestAnImportThatIsGivenUp(t *testing.T) {
	file, young := desktest.NewFilled(t).Export(), desktest.New(t)
	before := young.Export()
	read, err := young.Transfer.ReadImport(t.Context(), strings.NewReader(file))
	require.NoError(t, err)
	halfway := func() bool {
		writing := young.Transfer.Progress()
		return writing.Stage == contract.ImportWriting && writing.Done >= 2
	}
	require.ErrorIs(t, read.Apply(endsWhile{t.Context(), halfway}), context.Canceled)
	assert.Equal(t, before, young.Export())
	young.Import(file)
	assert.Equal(t, file, young.Export(), "and it can be done again")
}
