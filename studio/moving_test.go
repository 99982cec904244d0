package studio_test

import (
	"bytes"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/demo"
)

// machine is a desk of its own, with the demo's groups, plans and classes where they are wanted.
func machine(t *testing.T, filled bool) *desk {
	d := &desk{t: t, now: time.Date(2026, 3, 2, 12, 0, 0, 0, time.UTC), db: filepath.Join(t.TempDir(), "x.db")}
	if filled {
		s, err := store.Open(d.db, "a test")
		require.NoError(t, err)
		require.NoError(t, demo.Load(s, d.now))
		require.NoError(t, s.Close())
	}
	d.reopen()
	return d
}

func (d *desk) export() string {
	var text bytes.Buffer
	require.NoError(d.t, d.Export(&text))
	return text.String()
}

func (d *desk) bring(file string) *studio.Import {
	read, err := d.ReadImport(strings.NewReader(file))
	require.NoError(d.t, err)
	require.NoError(d.t, read.Apply())
	require.NoError(d.t, d.Prepare(d.t.Context())) // as the next start does
	return read
}

func TestEverythingMovesToANewMachineByteForByte(t *testing.T) {
	old, young := machine(t, true), machine(t, false)
	_, err := old.SaveSettings(contract.Settings{Language: "de", Schools: map[string]string{"eyes": "tenth"}, OwnWords: map[string]string{"hold": "halten & <warten>"}, CareRead: true})
	require.NoError(t, err)
	_, err = old.CopyPractice("nadi-shodhana", "My own way")
	require.NoError(t, err)
	_, err = old.Delete("class", 3, false)
	require.NoError(t, err)
	file := old.export()
	require.Greater(t, strings.Count(file, "\n"), 50)
	assert.Contains(t, file, "My own way")

	read := young.bring(file)
	assert.Zero(t, read.Same)
	assert.Equal(t, file, young.export())
	settings, err := young.Settings()
	require.NoError(t, err)
	assert.Equal(t, "halten & <warten>", settings.OwnWords["hold"])
	here, err := old.Record(2)
	require.NoError(t, err)
	there, err := young.Record(2)
	require.NoError(t, err)
	assert.Equal(t, here, there, "a record is computed of the same")
	list, err := young.Deleted()
	require.NoError(t, err)
	assert.Len(t, list.Deleted, 1, "and can be brought back there")

	again, err := young.ReadImport(strings.NewReader(file))
	require.NoError(t, err)
	assert.False(t, again.Changing(), again.InWords())
}

func TestOfTwoMachinesTheYoungerFormCounts(t *testing.T) {
	home, away := machine(t, true), machine(t, false)
	away.bring(home.export())
	home.pass(3600)
	away.pass(7200)
	group := func(d *desk, n int) contract.Group {
		t.Helper()
		groups, err := d.Groups()
		require.NoError(t, err)
		return groups.Groups[n]
	}
	save := func(d *desk, g contract.Group, notes string) {
		t.Helper()
		g.Notes = notes
		_, err := d.SaveGroup(g)
		require.NoError(t, err)
	}
	save(home, group(home, 0), "changed at home")
	save(away, group(away, 0), "changed away, later")
	save(home, group(home, 1), "changed at home only")
	_, err := away.AddGroup("New away", "beginners", 3)
	require.NoError(t, err)
	_, err = away.Delete("plan", 1, false)
	require.NoError(t, err)
	_, err = away.AddRemark(1, contract.Remark{Kind: "note", Text: "seen away"})
	require.NoError(t, err)
	plan := away.addPlan(rounds)
	class := away.start(plan)
	away.pass(10)
	away.do(class, "end")

	read := home.bring(away.export())
	says := read.InWords()
	for _, line := range []string{
		"group changed: " + group(home, 0).Name + " (notes)\n",
		"group stays as it is here, which is younger: " + group(home, 1).Name,
		"group new: New away\n", "plan deleted: ", "plan new: Lunch\n", "class new: Lunch, ", "(1 remark)\n",
	} {
		assert.Contains(t, says, line)
	}
	assert.Equal(t, "changed away, later", group(home, 0).Notes)
	assert.Equal(t, "changed at home only", group(home, 1).Notes)
	record, err := home.Record(1)
	require.NoError(t, err)
	assert.Equal(t, "seen away", record.Remarks[len(record.Remarks)-1].Text)
	found, err := home.Find(contract.Search{})
	require.NoError(t, err)
	assert.Equal(t, "Lunch", found.Classes[0].Title)

	home.pass(7200)
	_, err = home.BringBack("plan", 1)
	require.NoError(t, err)
	assert.Contains(t, away.bring(home.export()).InWords(), "plan brought back: ")
	assert.Equal(t, "changed at home only", group(away, 1).Notes)
	back, err := away.ReadImport(strings.NewReader(home.export()))
	require.NoError(t, err)
	assert.False(t, back.Changing(), "both are the same now")
}

// What is wrong is told with its place, and nothing of the file is brought in.
func TestAnImportIsWholeOrNotAtAll(t *testing.T) {
	old := machine(t, true)
	file := old.export()
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
		"a level that is none": {`"level":"beginners"`, `"level":"wizards"`, `given "wizards"`},
		"a practice that is none": {`"practices": [`, `"practices": [{"id": "own-x", "updated_at": "2026-03-02T12:00:00Z", "file": "id: ["}`,
			"practice 1"},
	} {
		require.Contains(t, file, one.from, name)
		young := machine(t, false)
		_, err := young.ReadImport(strings.NewReader(strings.Replace(file, one.from, one.to, 1)))
		require.Error(t, err, name)
		assert.ErrorContains(t, err, one.says, name)
		groups, err := young.Groups()
		require.NoError(t, err)
		assert.Empty(t, groups.Groups, name)
	}
}

func TestAClassThatWasLedDifferentlyIsNotMixed(t *testing.T) {
	home, away := machine(t, false), machine(t, false)
	plan := home.addPlan(rounds)
	class := home.start(plan)
	home.pass(3)
	home.do(class, "pause")
	home.pass(1)
	home.do(class, "end")
	longer := home.export()
	away.bring(strings.Replace(longer, `"do":"end"`, `"do":"resume"`, 1))
	_, err := away.ReadImport(strings.NewReader(longer))
	assert.ErrorContains(t, err, "was led differently on the two machines from adjustment 2 on")

	third := machine(t, false)
	third.bring(strings.Replace(longer, longer[strings.Index(longer, `,{"key"`):strings.Index(longer, `],"remarks"`)], "", 1))
	read := third.bring(longer)
	assert.Contains(t, read.InWords(), "(1 adjustment)")
	assert.Equal(t, longer, third.export())

	_, err = machine(t, false).ReadImport(strings.NewReader(strings.Replace(longer, `"at_ms":4000`, `"at_ms":2999`, 1)))
	assert.ErrorContains(t, err, "adjustment 2: its at_ms is 2999, before the 3000 of the one before it: times never fall")
}

// A class that is still led when it is written out is over on the other machine, and becomes longer there later.
func TestAClassInProgressMoves(t *testing.T) {
	home, away := machine(t, false), machine(t, false)
	class := home.start(home.addPlan(`{"type": "talk", "wait": true},` + rounds))
	home.pass(3)
	home.do(class, "advance")
	home.pass(4)
	away.bring(home.export())
	running, err := away.Running()
	require.NoError(t, err)
	assert.Zero(t, running, "it is led there, not here")
	there, err := away.Record(1)
	require.NoError(t, err)
	assert.False(t, there.Class.Running)
	assert.EqualValues(t, 33_000, there.TaughtMS, "to the end of its plan")
	home.do(class, "end")
	read := away.bring(home.export())
	assert.Contains(t, read.InWords(), "1 adjustment")
	here, err := home.Record(class)
	require.NoError(t, err)
	there, err = away.Record(1)
	require.NoError(t, err)
	assert.Equal(t, here.TaughtMS, there.TaughtMS)
}
