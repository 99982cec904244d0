package transfer

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

	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// What an import does with one thing.
const (
	doesAdd    = "new"
	doesChange = "changed"
	doesDelete = "deleted"
	doesReturn = "brought back"
	doesKeep   = "stays as it is here, which is younger"
)

// Change is what an import does with one thing that is not the same here already.
type Change struct {
	Kind string // choices, practice, group, plan, class, home practice, voice, programme, rehearsal
	Name string
	Does string
	What []string // the fields that change, where it is one of some
}

// Import is a file of everything, held against what is here. Nothing is changed before Apply.
type Import struct {
	Changes  []Change
	Same     int // how many things are the same already
	transfer *Transfer
	steps    []func(*store.Store) error
	groups   map[string]int64 // by uid; those that are new are added as they are stored
	plans    map[string]int64
	voices   map[string]int64

	programmes map[string]int64
	rehearsals map[string]int64
}

// ReadImport reads a file that Export has written, here or on another machine, and works out what it would change. Of
// what is on both sides the younger form counts; a class, which is never edited, only becomes longer. Errors say where
// the file is wrong.
func (tr *Transfer) ReadImport(r io.Reader) (*Import, error) {
	in, err := readExport(r)
	if err != nil {
		return nil, err
	}
	here, err := tr.everything()
	if err != nil {
		return nil, err
	}
	i := &Import{transfer: tr, groups: map[string]int64{}, plans: map[string]int64{}, voices: map[string]int64{}, programmes: map[string]int64{}, rehearsals: map[string]int64{}}
	if err := i.know(tr.studio.Store); err != nil {
		return nil, err
	}
	if err := i.choices(here.Choices, in.Choices); err != nil {
		return nil, err
	}
	err = firstOf(slices.Concat(
		each(i.practice, "practice", here.Practices, in.Practices, func(p contract.ExportPractice) string { return p.ID }),
		each(i.group, "group", here.Groups, in.Groups, func(g contract.ExportGroup) string { return g.UID }),
		each(i.plan, "plan", here.Plans, in.Plans, func(p contract.ExportPlan) string { return p.UID }),
		each(i.class, "class", here.Classes, in.Classes, func(c contract.ExportClass) string { return c.UID }),
		each(i.home(here.Classes, in.Classes), "home practice", here.Homes, in.Homes, func(h contract.ExportHome) string { return h.UID }),
		each(i.programme, "programme", here.Programmes, in.Programmes, func(p contract.ExportProgramme) string { return p.UID }),
		each(i.rehearsal, "rehearsal", here.Rehearsals, in.Rehearsals, func(r contract.ExportRehearsal) string { return r.UID }),
		each(i.voice, "voice", here.Voices, in.Voices, func(v contract.ExportVoice) string { return v.UID }),
	))
	return i, err
}

// mostWrong is how many places that are wrong are told at once.
const mostWrong = 10

func firstOf(wrong []error) error {
	if more := len(wrong) - mostWrong; more > 0 {
		wrong = append(wrong[:mostWrong], fmt.Errorf("and %d more", more))
	}
	return errors.Join(wrong...)
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
		return in, fmt.Errorf("this is no file that lantern export has written:\n%w", places(err))
	}
	return in, json.Unmarshal(data, &in)
}

// places is where the file is wrong, the first few of them.
func places(err error) error {
	var wrong []error
	for line := range strings.Lines(err.Error()) {
		if line = strings.TrimSpace(line); strings.HasPrefix(line, "- at") && !strings.HasSuffix(line, "validation failed") {
			wrong = append(wrong, errors.New(line))
		}
	}
	return firstOf(wrong)
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

// know notes the numbers of the groups, plans, voices, programmes and rehearsals that are here.
func (i *Import) know(st *store.Store) error {
	groups, err := st.EveryGroup()
	if err != nil {
		return err
	}
	voices, err := st.EveryVoice()
	if err != nil {
		return err
	}
	for _, v := range voices {
		i.voices[v.UID] = v.ID
	}
	programmes, err := st.EveryProgramme()
	if err != nil {
		return err
	}
	for _, p := range programmes {
		i.programmes[p.UID] = p.ID
	}
	rehearsals, err := st.EveryRehearsal()
	if err != nil {
		return err
	}
	for _, r := range rehearsals {
		i.rehearsals[r.UID] = r.ID
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
func each[T any](merge func(here *T, in T) error, kind string, here, in []T, name func(T) string) (wrong []error) {
	known, seen := map[string]*T{}, map[string]bool{}
	for n := range here {
		known[name(here[n])] = &here[n]
	}
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
	return wrong
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

// Changing tells whether there is anything to change.
func (i *Import) Changing() bool { return len(i.steps) > 0 }

// Apply makes the changes, all of them or none.
func (i *Import) Apply() error {
	return i.transfer.classes.WhileNothingBegins(func(*studio.Class) error {
		err := i.transfer.studio.Store.InTransaction(func(st *store.Store) error {
			for n, step := range i.steps {
				if err := step(st); err != nil {
					return fmt.Errorf("step %d of %d: %w", n+1, len(i.steps), err)
				}
			}
			return nil
		})
		if err == nil {
			i.transfer.studio.NotifyAll()
		}
		return err
	})
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
