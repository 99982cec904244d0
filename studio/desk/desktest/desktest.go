// Package desktest is a desk for tests: a data file of its own, and a clock that the test sets.
package desktest

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/store"
	"vastlantern/studio/contract"
	"vastlantern/studio/demo"
	"vastlantern/studio/desk"
	"vastlantern/studio/transfer"
)

// Rounds and Holds are passages: three short rounds with a closing; and holds, which are cautioned of.
const (
	Rounds = `{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2", "rounds": 3, "lead_in": 2, "closing": ` +
		`[{"breaths": 1}]}`
	Holds = `{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 6, "lead_in": 0}`
)

// Document returns a plan file of these passages at 60 counts a minute, where a count is a second.
func Document(passages string) json.RawMessage {
	return json.RawMessage(`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [` + passages + `]}`)
}

// Desk is a desk whose clock shows Time.
type Desk struct {
	*desk.Desk
	Time time.Time
	Path string // of the data file
	t    testing.TB
	sent int
}

// New returns a desk with an empty data file, on a Monday at noon.
func New(t testing.TB) *Desk {
	d := &Desk{t: t, Time: start, Path: filepath.Join(t.TempDir(), "x.db")}
	d.Reopen()
	return d
}

// NewFilled returns a desk with the groups, plans and classes of the demo.
func NewFilled(t testing.TB) *Desk {
	d := New(t)
	file, err := filled()
	require.NoError(t, err)
	require.NoError(t, d.Store.Close())
	require.NoError(t, os.WriteFile(d.Path, file, 0o600))
	d.Desk = nil
	d.Reopen()
	return d
}

// filled is the data file of a desk with the demo, made once: it takes seconds.
var filled = sync.OnceValues(func() ([]byte, error) {
	folder, err := os.MkdirTemp("", "desktest")
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(folder)
	path := filepath.Join(folder, "x.db")
	s, err := store.Open(path, "a test")
	if err != nil {
		return nil, err
	}
	if err := errors.Join(demo.Load(context.Background(), s, start), s.Close()); err != nil {
		return nil, err
	}
	return os.ReadFile(path)
})

// start is what the clock shows first: a Monday at noon.
var start = time.Date(2026, 3, 2, 12, 0, 0, 0, time.UTC)

// Reopen does what a restart of the program does.
func (d *Desk) Reopen() {
	if d.Desk != nil {
		require.NoError(d.t, d.Store.Close())
	}
	s, err := store.Open(d.Path, "a test")
	require.NoError(d.t, err)
	d.t.Cleanup(func() { s.Close() })
	d.Desk = desk.WithTime(s, func() time.Time { return d.Time }, 1)
}

// Pass lets seconds pass, in which the program does what is due.
func (d *Desk) Pass(seconds float64) {
	d.Time = d.Time.Add(time.Duration(seconds * float64(time.Second)))
	require.NoError(d.t, d.Classes.Settle(d.t.Context())) // as the program does every second
}

// AddPlan stores a plan called Lunch with a slot of two minutes.
func (d *Desk) AddPlan(passages string) contract.Plan {
	p, err := d.Plans.Add(
		d.t.Context(),
		[]byte(
			`{"format": "vast-lantern-plan", "version": 1, "title": "Lunch", "tempo": 60, "slot_min": 2, "passages": [`+passages+
				`]}`,
		),
		0,
	)
	require.NoError(d.t, err)
	return p
}

// WithGroup stores a group in which somebody is pregnant, changed as wanted.
func (d *Desk) WithGroup(change func(*contract.Group)) contract.Group {
	g := contract.Group{
		Name:       "Lunch",
		Level:      "beginners",
		Weekday:    1,
		Weektime:   "12:30",
		Conditions: map[string]int{"pregnancy": 1},
	}
	if change != nil {
		change(&g)
	}
	stored, err := d.Library.SaveGroup(d.t.Context(), g)
	require.NoError(d.t, err)
	return stored
}

// Start leads the plan, whose strong cautions were read, and returns the class.
func (d *Desk) Start(plan contract.Plan) int64 {
	lead := contract.Lead{PlanID: plan.ID, Acknowledged: contract.StrongCautions(plan)}
	score, err := d.Classes.Begin(d.t.Context(), lead)
	require.NoError(d.t, err)
	return score.ClassID
}

// Do makes an adjustment that takes no value.
func (d *Desk) Do(class int64, do string) contract.Adjusted {
	d.sent++
	a, err := d.Classes.Adjust(d.t.Context(), class, contract.Adjust{Key: fmt.Sprintf("test %d", d.sent),
		Do: pace.Verb(do)})
	require.NoError(d.t, err)
	return a
}

// TaughtOnce returns a group with a class that was led and ended, and had a remark.
func (d *Desk) TaughtOnce() (group contract.Group, class int64) {
	group, err := d.Library.AddGroup(d.t.Context(), "Lunch", "beginners", 12)
	require.NoError(d.t, err)
	plan := d.AddPlan(Rounds)
	plan, err = d.Plans.Save(
		d.t.Context(),
		plan.ID,
		contract.PlanSave{Revision: plan.Revision, Document: plan.Document, GroupID: group.ID},
	)
	require.NoError(d.t, err)
	class = d.Start(plan)
	d.Pass(20)
	d.Do(class, "end")
	_, err = d.Records.AddRemark(d.t.Context(), class, contract.RemarkAdd{Kind: "people", Text: "11"})
	require.NoError(d.t, err)
	return group, class
}

// Export returns everything, as a file.
func (d *Desk) Export() string {
	var text bytes.Buffer
	require.NoError(d.t, d.Transfer.Export(d.t.Context(), &text))
	return text.String()
}

// Import imports a file of everything.
func (d *Desk) Import(file string) *transfer.Import {
	read, err := d.Transfer.ReadImport(d.t.Context(), strings.NewReader(file))
	require.NoError(d.t, err)
	require.NoError(d.t, read.Apply(d.t.Context()))
	require.NoError(d.t, d.Prepare(d.t.Context())) // as the next start does
	return read
}

// Other returns a connection of another program to the data file.
func (d *Desk) Other() *sql.DB {
	db, err := sql.Open("sqlite", "file:"+d.Path+"?_txlock=immediate")
	require.NoError(d.t, err)
	d.t.Cleanup(func() { db.Close() })
	return db
}

// Exec changes the data file as another program would.
func (d *Desk) Exec(statement string, args ...any) {
	_, err := d.Other().Exec(statement, args...)
	require.NoError(d.t, err, statement)
}

// Locked does something while another program holds the data file.
func (d *Desk) Locked(do func()) {
	tx, err := d.Other().Begin()
	require.NoError(d.t, err)
	do()
	require.NoError(d.t, tx.Rollback())
}

// FitsSchema reads the file by the schema of the contract, with a reader that is not ours.
func FitsSchema(t *testing.T, schema string, file []byte) {
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
