package transfer

import (
	"context"
	"encoding/json"
	"io"
	"maps"
	"reflect"
	"slices"
	"sync"
	"time"

	"vastlantern/core/fact"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// What an import does with one thing.
const (
	doesAdd    = "new"
	doesChange = "changed"
	doesDelete = "deleted"
	doesReturn = "restored"
	doesKeep   = "kept"
)

// Change is what an import does with one thing that is not the same here already.
type Change struct {
	Kind store.Kind // choices, practice, group, plan, class, home, voice, programme, rehearsal
	Name fact.Fact
	Does string      // one of the above; the message "import.does.<does>" says it
	What []fact.Fact // what changes of it, where that is not all
}

// Import is a file of everything, held against what is here. Nothing is changed before Apply.
type Import struct {
	Changes  []Change
	Same     int // how many things are the same already
	transfer *Transfer
	steps    []step
	groups   map[string]int64 // by uid; those that are new are added as they are stored
	plans    map[string]int64
	voices   map[string]int64

	rehearsals map[string]int64
}

// step is how one change is made.
type step struct {
	ahead func() // is called before, while another one is stored; nil if there is nothing to do
	do    func(*store.Store) error
}

// stepsAhead is how many are made ready.
const stepsAhead = 32

// ReadImport reads a file that Export has written, here or on another machine, and works out what it would change. Of
// what is on both sides the younger form counts; a class, which is never edited, only becomes longer. Errors say where
// the file is wrong.
func (tr *Transfer) ReadImport(ctx context.Context, r io.Reader) (*Import, error) {
	in, err := readExport(r, &tr.progress)
	if err != nil {
		return nil, err
	}
	here, err := tr.allButClasses(ctx)
	if err != nil {
		return nil, err
	}
	i := &Import{
		transfer:   tr,
		groups:     map[string]int64{},
		plans:      map[string]int64{},
		voices:     map[string]int64{},
		rehearsals: map[string]int64{},
	}
	if err := i.know(tr.studio.Store); err != nil {
		return nil, err
	}
	if err := i.choices(here.Choices, in.Choices); err != nil {
		return nil, err
	}
	wrong := slices.Concat(
		each(i.practice, "practice", here.Practices, in.Practices, func(p contract.ExportPractice) string { return p.ID }),
		each(i.group, "group", here.Groups, in.Groups, func(g contract.ExportGroup) string { return g.UID }),
		each(i.plan, "plan", here.Plans, in.Plans, func(p contract.ExportPlan) string { return p.UID }),
	)
	more, err := i.classes(ctx, &here, in.classes)
	if err != nil {
		return nil, err
	}
	if here.Homes, err = tr.homes(ctx, &here); err != nil {
		return nil, err
	}
	err = firstOf(slices.Concat(
		wrong,
		more,
		each(i.home(&here, in.classes), "home", here.Homes, in.Homes, func(h contract.ExportHome) string { return h.UID }),
		each(
			i.programme,
			"programme",
			here.Programmes,
			in.Programmes,
			func(p contract.ExportProgramme) string { return p.UID },
		),
		each(
			i.rehearsal,
			"rehearsal",
			here.Rehearsals,
			in.Rehearsals,
			func(r contract.ExportRehearsal) string { return r.UID },
		),
		each(i.voice, "voice", here.Voices, in.Voices, func(v contract.ExportVoice) string { return v.UID }),
	))
	return i, err
}

// classes holds every class of the file against the one here, which is read for it: there may be thousands.
func (i *Import) classes(ctx context.Context, here *here, in []fileClass) (wrong []error, err error) {
	known, seen := map[string]*store.Class{}, map[string]bool{}
	for n := range here.stored {
		known[here.stored[n].UID] = &here.stored[n]
	}
	for n := range in {
		one := &in[n]
		var there *contract.ExportClass
		if stored := known[one.UID]; stored != nil {
			if there, err = i.transfer.class(ctx, here, stored); err != nil {
				return nil, err
			}
		}
		merged := error(errTwice)
		if !seen[one.UID] {
			merged = i.class(there, one)
		}
		if merged != nil {
			wrong = append(wrong, fact.Wrap(merged, "entry.class-numbered", "class", n+1, "why", merged))
		}
		seen[one.UID] = true
	}
	return wrong, nil
}

var errTwice = fact.New("entry.twice")

// mostWrong is how many places that are wrong are told at once.
const mostWrong = 10

func firstOf(wrong []error) error {
	if more := len(wrong) - mostWrong; more > 0 {
		wrong = append(wrong[:mostWrong], fact.New("entry.more", "more", more))
	}
	if len(wrong) == 0 {
		return nil
	}
	return fact.Lines(wrong)
}

// know notes the numbers of the groups, plans, voices and rehearsals that are here.
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
func each[T any](merge func(here *T, in T) error, kind store.Kind, here, in []T, name func(T) string) (wrong []error) {
	known, seen := map[string]*T{}, map[string]bool{}
	for n := range here {
		known[name(here[n])] = &here[n]
	}
	for n, one := range in {
		err := error(nil)
		if seen[name(one)] {
			err = errTwice
		} else {
			err = merge(known[name(one)], one)
		}
		if err != nil {
			wrong = append(wrong, fact.Wrap(err, "entry.numbered", "thing", studio.Thing(kind), "number", n+1, "why", err))
		}
		seen[name(one)] = true
	}
	return wrong
}

// put notes a change and how it is made.
func (i *Import) put(change Change, do func(*store.Store) error) error {
	i.Changes = append(i.Changes, change)
	if do != nil {
		i.steps = append(i.steps, step{do: do})
	}
	return nil
}

// differing returns the names of the fields in which two things differ, but not of the times.
func differing(a, b any) []fact.Fact {
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
	return fact.Names(slices.Sorted(maps.Keys(other)))
}

// does returns what is done with a thing that is on both sides: the form that was changed last counts.
func does[T any](here *T, in T, hereAt, inAt time.Time) (does string, what []fact.Fact) {
	what = differing(*here, in)
	switch {
	case len(what) == 0:
		return "", nil
	case !inAt.After(hereAt):
		return doesKeep, nil
	}
	return doesChange, what
}

// changedAt returns when a thing was changed or deleted last.
func changedAt(updated time.Time, deleted *time.Time) time.Time {
	if deleted != nil && deleted.After(updated) {
		return *deleted
	}
	return updated
}

// Changing reports whether there is anything to change.
func (i *Import) Changing() bool { return len(i.steps) > 0 }

// Apply makes the changes, all of them or none; none if the context ends first.
func (i *Import) Apply(ctx context.Context) error {
	return i.transfer.classes.WhileNothingBegins(ctx, func(*studio.Class) error {
		ready, over := make(chan bool, stepsAhead), make(chan bool)
		var ahead sync.WaitGroup
		defer ahead.Wait()
		defer close(over)
		ahead.Go(func() {
			for _, one := range i.steps {
				if one.ahead != nil {
					one.ahead()
				}
				select {
				case ready <- true:
				case <-over:
					return
				}
			}
		})
		err := i.transfer.studio.Store.With(ctx).InTransaction(func(st *store.Store) error {
			for n, step := range i.steps {
				if err := ctx.Err(); err != nil {
					return fact.Wrap(err, "import.given-up")
				}
				<-ready
				i.transfer.progress.note(
					contract.ImportProgress{Stage: contract.ImportWriting, Done: int64(n), Of: int64(len(i.steps))},
				)
				if err := step.do(st); err != nil {
					return fact.Wrap(err, "import.step", "step", n+1, "of", len(i.steps), "why", err)
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

// Lines returns a line for each change, but only the first of many alike.
func (i *Import) Lines() []fact.Fact {
	const shown = 12 // of a kind
	type alike struct {
		kind store.Kind
		does string
	}
	var lines []fact.Fact
	var kinds []alike
	sums := map[alike]int{}
	for _, c := range i.Changes {
		of := alike{c.Kind, c.Does}
		if sums[of]++; sums[of] == 1 {
			kinds = append(kinds, of)
		}
		if sums[of] > shown {
			continue
		}
		args := []any{"thing", studio.Thing(c.Kind), "does", fact.New("import.does." + c.Does), "name", c.Name}
		line := fact.New("import.change", args...)
		if len(c.What) > 0 {
			line = fact.New("import.change-what", append(args, "what", c.What)...)
		}
		lines = append(lines, line)
	}
	for _, of := range kinds {
		if more := sums[of] - shown; more > 0 {
			lines = append(
				lines,
				fact.New("import.more", "thing", studio.Thing(of.kind), "does", fact.New("import.does."+of.does), "more", more),
			)
		}
	}
	return append(lines, fact.New("import.same", "same", i.Same))
}

func named(name string) fact.Fact { return fact.New("name", "name", name) }
