package studio

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"reflect"
	"slices"
	"strings"
	"time"

	"github.com/santhosh-tekuri/jsonschema/v6"

	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// What an import does with one thing.
const (
	doesAdd    = "new"
	doesChange = "changed"
	doesDelete = "deleted"
	doesKeep   = "stays as it is here, which is younger"
)

// Change is what an import does with one thing that is not the same here already.
type Change struct {
	Kind string // choices, practice, group, plan, class
	Name string
	Does string
	What []string // the fields that change, where it is one of some
}

// Import is a file of everything, held against what is here. Nothing is changed before Apply.
type Import struct {
	Changes []Change
	Same    int // how many things are the same already
	studio  *Studio
	steps   []func(*store.Store) error
	groups  map[string]int64 // by uid; those that are new are added as they are stored
	plans   map[string]int64
}

// ReadImport reads a file that Export has written, here or on another machine, and works out what it would change. Of
// what is on both sides the younger form counts; a class, which is never edited, only becomes longer. Errors say where
// the file is wrong.
func (s *Studio) ReadImport(r io.Reader) (*Import, error) {
	in, err := readExport(r)
	if err != nil {
		return nil, err
	}
	here, err := s.everything()
	if err != nil {
		return nil, err
	}
	i := &Import{studio: s, groups: map[string]int64{}, plans: map[string]int64{}}
	if err := i.know(s.store); err != nil {
		return nil, err
	}
	if err := i.choices(here.Choices, in.Choices); err != nil {
		return nil, err
	}
	err = errors.Join(
		each(i.practice, "practice", here.Practices, in.Practices, func(p contract.ExportPractice) string { return p.ID }),
		each(i.group, "group", here.Groups, in.Groups, func(g contract.ExportGroup) string { return g.UID }),
		each(i.plan, "plan", here.Plans, in.Plans, func(p contract.ExportPlan) string { return p.UID }),
		each(i.class, "class", here.Classes, in.Classes, func(c contract.ExportClass) string { return c.UID }),
	)
	return i, err
}

// readExport reads and checks the form of the file.
func readExport(r io.Reader) (in contract.Export, err error) {
	data, err := io.ReadAll(r)
	if err != nil {
		return in, err
	}
	value, err := jsonschema.UnmarshalJSON(bytes.NewReader(data))
	if err != nil {
		return in, fmt.Errorf("this is not JSON, or not all of it: %w", err)
	}
	schema, err := exportSchema()
	if err != nil {
		return in, err
	}
	if err := schema.Validate(value); err != nil {
		return in, fmt.Errorf("this is no file that lantern export has written:\n%s", places(err))
	}
	return in, json.Unmarshal(data, &in)
}

// places is where the file is wrong, the first few of them.
func places(err error) string {
	const most = 10
	var list []string
	for line := range strings.Lines(err.Error()) {
		if line = strings.TrimSpace(line); strings.HasPrefix(line, "- at") && !strings.HasSuffix(line, "validation failed") {
			list = append(list, line)
		}
	}
	if more := len(list) - most; more > 0 {
		list = append(list[:most], fmt.Sprintf("and %d more", more))
	}
	return strings.Join(list, "\n")
}

func exportSchema() (*jsonschema.Schema, error) {
	const name = "urn:vast-lantern:export"
	text, err := contract.Schemas.ReadFile("schema/export.schema.json")
	if err != nil {
		return nil, err
	}
	document, err := jsonschema.UnmarshalJSON(bytes.NewReader(text))
	if err != nil {
		return nil, err
	}
	compiler := jsonschema.NewCompiler()
	compiler.AssertFormat() // times are times
	if err := compiler.AddResource(name, document); err != nil {
		return nil, err
	}
	return compiler.Compile(name)
}

// know notes the numbers of the groups and plans that are here.
func (i *Import) know(st *store.Store) error {
	groups, err := st.EveryGroup()
	if err != nil {
		return err
	}
	plans, err := st.EveryPlan()
	for _, g := range groups {
		i.groups[g.UID] = g.ID
	}
	for _, p := range plans {
		i.plans[p.UID] = p.ID
	}
	return err
}

// each holds every thing of a list in the file against the one here, if any.
func each[T any](merge func(here *T, in T) error, kind string, here, in []T, name func(T) string) error {
	known, seen := map[string]*T{}, map[string]bool{}
	for n := range here {
		known[name(here[n])] = &here[n]
	}
	var wrong []error
	for n, one := range in {
		err := error(nil)
		if seen[name(one)] {
			err = errors.New("it is in the file twice")
		} else {
			err = merge(known[name(one)], one)
		}
		if err != nil {
			wrong = append(wrong, fmt.Errorf("%s %d: %w", kind, n+1, err))
		}
		seen[name(one)] = true
	}
	return errors.Join(wrong...)
}

// put notes a change and how it is made.
func (i *Import) put(change Change, step func(*store.Store) error) error {
	i.Changes = append(i.Changes, change)
	if step != nil {
		i.steps = append(i.steps, step)
	}
	return nil
}

// differing is the names of the fields in which two things differ, but not of the times.
func differing(a, b any) []string {
	fields := func(value any) map[string]any {
		text, _ := json.Marshal(value)
		object := map[string]any{}
		_ = json.Unmarshal(text, &object) // both are structs of ours
		delete(object, "updated_at")
		return object
	}
	one, other := fields(a), fields(b)
	for name := range one {
		if reflect.DeepEqual(one[name], other[name]) {
			delete(other, name)
		} else {
			other[name] = true
		}
	}
	return slices.Sorted(maps.Keys(other))
}

// does is what is done with a thing that is on both sides: the form that was changed last counts.
func does[T any](here *T, in T, hereAt, inAt time.Time) (does string, what []string) {
	what = differing(*here, in)
	switch {
	case len(what) == 0:
		return "", nil
	case !inAt.After(hereAt):
		return doesKeep, nil
	case slices.Equal(what, []string{"deleted_at"}) && hereAt.Before(inAt):
		return doesChange, nil
	}
	return doesChange, what
}

// changedAt is when a thing was changed or deleted last.
func changedAt(updated time.Time, deleted *time.Time) time.Time {
	if deleted != nil && deleted.After(updated) {
		return *deleted
	}
	return updated
}

func (i *Import) choices(here, in *contract.Choices) error {
	if in == nil {
		return nil
	}
	chosen, err := checkChoices(*in)
	if err != nil {
		return fmt.Errorf("choices: %w", err)
	}
	change := Change{Kind: "choices", Name: "school, words and pedals", Does: doesAdd}
	if here != nil {
		if change.Does, change.What = doesChange, differing(*here, chosen); len(change.What) == 0 {
			i.Same++
			return nil
		}
	}
	return i.put(change, func(st *store.Store) error { return saveChoices(st, chosen) })
}

func (i *Import) practice(here *contract.ExportPractice, in contract.ExportPractice) error {
	p, err := readOwn(in.File)
	if err != nil {
		return errors.New(plainly(err))
	}
	if p.ID != in.ID {
		return fmt.Errorf("it is called %q, and its file %q", in.ID, p.ID)
	}
	change := Change{Kind: "practice", Name: p.Name, Does: doesAdd}
	if here != nil {
		if change.Does, _ = does(here, in, here.UpdatedAt, in.UpdatedAt); change.Does == "" {
			i.Same++
			return nil
		}
	}
	if change.Does == doesKeep {
		return i.put(change, nil)
	}
	return i.put(change, func(st *store.Store) error {
		return st.SavePractice(store.Practice{ID: in.ID, Document: []byte(in.File), UpdatedAt: in.UpdatedAt})
	})
}

func (i *Import) group(here *contract.ExportGroup, in contract.ExportGroup) error {
	shape := contract.Group{
		Name: in.Name, Level: in.Level, Size: in.Size, Weekday: in.Weekday, Weektime: in.Weektime, Under16: in.Under16, Conditions: in.Conditions,
		Schools: in.Schools, Notes: in.Notes,
	}
	if err := checkGroup(&shape); err != nil {
		return err
	}
	row := store.Group{
		Name: shape.Name, Level: in.Level, Size: in.Size, Weekday: in.Weekday, Weektime: in.Weektime, Under16: in.Under16, Conditions: in.Conditions,
		Schools: in.Schools, Notes: in.Notes, UID: in.UID, UpdatedAt: in.UpdatedAt, DeletedAt: orZero(in.DeletedAt),
	}
	change := Change{Kind: "group", Name: in.Name, Does: doesAdd}
	if here == nil {
		i.groups[in.UID] = 0 // known from when it is stored
		return i.put(change, func(st *store.Store) error {
			added, err := st.AddGroup(row)
			i.groups[in.UID] = added.ID
			return err
		})
	}
	change.Does, change.What = does(here, in, changedAt(here.UpdatedAt, here.DeletedAt), changedAt(in.UpdatedAt, in.DeletedAt))
	return i.replace(change, in.DeletedAt != nil && here.DeletedAt == nil, func(st *store.Store) error { return st.PutGroup(row) })
}

// replace is what is done with a thing that is on both sides.
func (i *Import) replace(change Change, deleted bool, step func(*store.Store) error) error {
	switch change.Does {
	case "":
		i.Same++
		return nil
	case doesKeep:
		return i.put(change, nil)
	}
	if deleted {
		change.Does, change.What = doesDelete, nil
	}
	return i.put(change, step)
}

// refer checks that what is referred to is here or in the file.
func (i *Import) refer(group, plan string) error {
	if _, known := i.groups[group]; group != "" && !known {
		return fmt.Errorf("its group %q is not in the file", group)
	}
	if _, known := i.plans[plan]; plan != "" && !known {
		return fmt.Errorf("its plan %q is not in the file", plan)
	}
	return nil
}

func (i *Import) plan(here *contract.ExportPlan, in contract.ExportPlan) error {
	if err := i.refer(in.Group, ""); err != nil {
		return err
	}
	document, p, err := rewritten(in.Document)
	if p == nil {
		return err
	}
	row := store.Plan{Title: p.Title, StartsAt: p.StartsAt, Document: document, UpdatedAt: in.UpdatedAt, UID: in.UID, DeletedAt: orZero(in.DeletedAt)}
	change := Change{Kind: "plan", Name: titled(row.Title, row.StartsAt), Does: doesAdd}
	if here == nil {
		i.plans[in.UID] = 0
		return i.put(change, func(st *store.Store) error {
			row.GroupID = i.groups[in.Group]
			added, err := st.AddPlan(row)
			i.plans[in.UID] = added.ID
			return err
		})
	}
	change.Does, change.What = does(here, in, changedAt(here.UpdatedAt, here.DeletedAt), changedAt(in.UpdatedAt, in.DeletedAt))
	return i.replace(change, in.DeletedAt != nil && here.DeletedAt == nil, func(st *store.Store) error {
		row.GroupID = i.groups[in.Group]
		return st.PutPlan(row)
	})
}

// rewritten is a plan document as the application stores it. The plan is there also where its fields have errors.
func rewritten(document []byte) ([]byte, *plan.Plan, error) {
	doc, p, err := sheet.ReadPlan(bytes.NewReader(document))
	if p == nil {
		return nil, nil, err
	}
	var text bytes.Buffer
	err = errors.Join(err, sheet.WritePlan(&text, doc))
	return text.Bytes(), p, err
}

func titled(title string, at time.Time) string {
	if title == "" {
		title = "untitled"
	}
	if at.IsZero() {
		return title
	}
	return title + ", " + at.Local().Format("2 Jan 2006 15:04")
}

func (i *Import) class(here *contract.ExportClass, in contract.ExportClass) error {
	if err := i.refer(in.Group, in.Plan); err != nil {
		return err
	}
	document, p, err := rewritten(in.Document)
	if err != nil {
		return fmt.Errorf("its plan cannot be read: %w", err)
	}
	rows := make([]store.Adjustment, len(in.Adjustments))
	keys := map[string]bool{}
	for n, a := range in.Adjustments {
		if _, err := sheet.ReadAdjustment(a.Line); err != nil {
			return fmt.Errorf("adjustment %d: %w", n+1, err)
		}
		if keys[a.Key] {
			return fmt.Errorf("adjustment %d: its key %q is there already", n+1, a.Key)
		}
		keys[a.Key] = true
		rows[n] = store.Adjustment{Number: n + 1, Key: a.Key, Body: compact(a.Line), Origin: a.Origin}
	}
	change := Change{Kind: "class", Name: titled(p.Title, in.StartedAt), Does: doesAdd}
	if here == nil {
		return i.put(change, func(st *store.Store) error {
			added, err := st.AddClass(store.Class{
				PlanID: i.plans[in.Plan], GroupID: i.groups[in.Group], StartedAt: in.StartedAt, Document: document, Acknowledged: in.Acknowledged,
				UID: in.UID, DeletedAt: orZero(in.DeletedAt),
			})
			if err != nil {
				return err
			}
			if err := st.AddAdjustments(added.ID, rows); err != nil {
				return err
			}
			return addRemarks(st, added.ID, in.Remarks)
		})
	}
	return i.longer(change, *here, in, rows)
}

// longer makes a class that is on both sides longer by what only the file has.
func (i *Import) longer(change Change, here, in contract.ExportClass, rows []store.Adjustment) error {
	both := min(len(here.Adjustments), len(in.Adjustments))
	for n := range both {
		if len(differing(here.Adjustments[n], in.Adjustments[n])) > 0 {
			return fmt.Errorf("%s was led differently on the two machines from adjustment %d on: it cannot be made one", change.Name, n+1)
		}
	}
	for _, field := range []string{"document", "started_at"} {
		if slices.Contains(differing(here, in), field) {
			return fmt.Errorf("%s has another %s on this machine: it cannot be made one", change.Name, field)
		}
	}
	var remarks []contract.ExportRemark
	for _, r := range in.Remarks {
		same := func(other contract.ExportRemark) bool {
			return other.At.Equal(r.At) && other.Kind == r.Kind && other.Text == r.Text
		}
		if !slices.ContainsFunc(here.Remarks, same) {
			remarks = append(remarks, r)
		}
	}
	deleted := in.DeletedAt != nil && here.DeletedAt == nil
	if len(rows) > both {
		change.What = append(change.What, count(int64(len(rows)-both), "adjustment"))
	}
	if len(remarks) > 0 {
		change.What = append(change.What, count(int64(len(remarks)), "remark"))
	}
	if len(change.What) == 0 && !deleted {
		i.Same++
		return nil
	}
	if change.Does = doesChange; deleted {
		change.Does = doesDelete
	}
	return i.put(change, func(st *store.Store) error {
		id, err := st.ClassOf(in.UID)
		if err != nil {
			return err
		}
		if err := st.AddAdjustments(id, rows[both:]); err != nil {
			return err
		}
		if err := addRemarks(st, id, remarks); err != nil || !deleted {
			return err
		}
		return st.Delete(store.Thing{Kind: store.KindClass, ID: id}, false, *in.DeletedAt)
	})
}

func addRemarks(st *store.Store, class int64, remarks []contract.ExportRemark) error {
	for _, r := range remarks {
		if err := st.AddRemark(class, store.Remark{At: r.At, Kind: r.Kind, Text: r.Text}); err != nil {
			return err
		}
	}
	return nil
}

// Changing tells whether there is anything to change.
func (i *Import) Changing() bool { return len(i.steps) > 0 }

// Apply makes the changes, all of them or none.
func (i *Import) Apply() error {
	i.studio.leading.Lock()
	defer i.studio.leading.Unlock()
	err := i.studio.store.InTransaction(func(st *store.Store) error {
		for n, step := range i.steps {
			if err := step(st); err != nil {
				return fmt.Errorf("step %d of %d: %w", n+1, len(i.steps), err)
			}
		}
		return nil
	})
	if err == nil {
		i.studio.tell(everyClass)
	}
	return err
}

// InWords is a line for each change, but only the first of many alike.
func (i *Import) InWords() string {
	const shown = 12 // of a kind
	var text strings.Builder
	byKind := map[string]int{}
	for _, c := range i.Changes {
		kind := c.Kind + " " + c.Does
		if byKind[kind]++; byKind[kind] > shown {
			continue
		}
		fmt.Fprintf(&text, "%s %s: %s", c.Kind, c.Does, c.Name)
		if len(c.What) > 0 {
			fmt.Fprintf(&text, " (%s)", strings.Join(c.What, ", "))
		}
		text.WriteByte('\n')
	}
	for _, kind := range slices.Sorted(maps.Keys(byKind)) {
		if more := byKind[kind] - shown; more > 0 {
			fmt.Fprintf(&text, "%s: %d more\n", kind, more)
		}
	}
	fmt.Fprintf(&text, "the same already: %d\n", i.Same)
	return text.String()
}
