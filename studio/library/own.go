package library

import (
	"bytes"
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strings"

	"github.com/goccy/go-yaml"

	"vastlantern/core/care"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// OwnPractices returns the teacher's own practices. One that can no longer be read is left out: its file is still there
// to mend.
func (l *Library) OwnPractices(ctx context.Context) ([]*practice.Practice, error) {
	stored, err := l.studio.Store.With(ctx).Practices()
	var list []*practice.Practice
	for _, p := range stored {
		if read, err := practice.ReadOwn(p.Document); err == nil {
			list = append(list, read)
		}
	}
	return list, err
}

// asObject returns a practice's file as an object of JSON.
func asObject(file []byte) (map[string]any, error) {
	text, err := yaml.YAMLToJSON(file)
	if err != nil {
		return nil, err
	}
	decoder := json.NewDecoder(bytes.NewReader(text))
	decoder.UseNumber()
	var object map[string]any
	return object, decoder.Decode(&object)
}

// OwnPractice returns the file of a practice, to be changed: of the catalogue's, the beginning of an own one.
func (l *Library) OwnPractice(ctx context.Context, id string) (contract.PracticeFile, error) {
	stored, err := l.studio.Store.With(ctx).Practices()
	if err != nil {
		return contract.PracticeFile{}, err
	}
	for _, p := range stored {
		if p.ID == id {
			return practiceFile(p.Document, p.Revision)
		}
	}
	base := practice.Find(id)
	if base == nil {
		return contract.PracticeFile{}, studio.Fail(studio.ErrNotFound, "missing.practice", "practice", id)
	}
	return practiceFile(practice.File(id), 0)
}

func practiceFile(text []byte, revision int64) (contract.PracticeFile, error) {
	object, err := asObject(text)
	if err != nil {
		return contract.PracticeFile{Text: string(text), Problem: fact.Of(err).Pointer(), Revision: revision}, nil
	}
	document, err := json.Marshal(object)
	return contract.PracticeFile{Text: string(text), Document: document, Revision: revision}, err
}

var notInIDs = regexp.MustCompile(`[^a-z0-9]+`)

// CopyPractice begins an own practice as a copy of another.
func (l *Library) CopyPractice(ctx context.Context, id, name string) (contract.PracticeFile, error) {
	file, err := l.OwnPractice(ctx, id)
	if err != nil {
		return file, err
	}
	object, err := asObject([]byte(file.Text))
	if err != nil {
		return file, studio.Fail(studio.ErrInvalid, "own.copy-wrong", "practice", id, "why", err)
	}
	name = strings.TrimSpace(name)
	if name == "" {
		name = fmt.Sprintf("%v, my way", object["name"])
	}
	if practice.Find(id) != nil {
		object["from"] = id
	}
	object["name"] = name
	if object["id"], err = l.freeID(ctx, name); err != nil {
		return file, err
	}
	text, err := json.Marshal(object)
	if err != nil {
		return file, err
	}
	return l.SavePractice(ctx, contract.PracticeText{Text: string(text)})
}

// freeID makes an id of the name that is not taken yet.
func (l *Library) freeID(ctx context.Context, name string) (string, error) {
	stem := practice.OwnPrefix + cmp.Or(
		strings.Trim(notInIDs.ReplaceAllString(strings.ToLower(name), "-"), "-"),
		"practice",
	)
	stored, err := l.studio.Store.With(ctx).Practices()
	taken := func(id string) bool {
		return slices.ContainsFunc(stored, func(p store.Practice) bool { return p.ID == id })
	}
	id := stem
	for n := 2; taken(id); n++ {
		id = fmt.Sprintf("%s-%d", stem, n)
	}
	return id, err
}

// readOwn reads an own practice, in YAML or JSON, and its course.
func readOwn(text string) (*practice.Practice, error) {
	p, err := practice.ReadOwn([]byte(text))
	if err != nil {
		return nil, err
	}
	course, err := plan.Course(p)
	if err != nil {
		return nil, err
	}
	for i, fields := range course {
		if _, err := plan.One(fields, p); err != nil {
			var errs plan.Errors
			errors.As(err, &errs)
			return nil, fact.New(
				"own.course-wrong",
				"passage",
				i+1,
				"field",
				errs[0].Field,
				"given",
				errs[0].Given,
				"allowed",
				errs[0].Allowed,
			)
		}
	}
	if _, err := plan.One(plan.NewFields(p.ID), p); err != nil {
		return nil, err
	}
	return p, nil
}

// DraftPractice reports what the file of an own practice means while it is being written.
func (l *Library) DraftPractice(ctx context.Context, text string) (contract.PracticeDrafted, error) {
	p, err := readOwn(text)
	if err != nil {
		return contract.PracticeDrafted{Problem: firstLine(err).Pointer()}, nil
	}
	score, err := l.sample(ctx, p)
	if err != nil {
		return contract.PracticeDrafted{}, err
	}
	page := page(ctx, p, care.Room{})
	page.Shown = []fact.Fact{}
	return contract.PracticeDrafted{Page: &page, Sample: &score}, nil
}

// firstLine returns what an error tells; of one of the YAML reader the first line, without the colours and the excerpt
// that it adds.
func firstLine(err error) fact.Fact {
	told := fact.Of(err)
	if told.ID == fact.Plain {
		line, _, _ := strings.Cut(err.Error(), "\n")
		return fact.New(fact.Plain, "text", line)
	}
	return told
}

// SavePractice stores an own practice from its file, in YAML or JSON, in the place of its revision. The same save may
// come twice, where the answer to the first was lost.
func (l *Library) SavePractice(ctx context.Context, in contract.PracticeText) (contract.PracticeFile, error) {
	text := in.Text
	p, err := readOwn(text)
	if err != nil {
		return contract.PracticeFile{}, studio.Fail(studio.ErrInvalid, "own.wrong", "why", firstLine(err))
	}
	file := []byte(text)
	if strings.HasPrefix(strings.TrimSpace(text), "{") { // a screen sends JSON; files are for people
		object, err := asObject(file)
		if err != nil {
			return contract.PracticeFile{}, err
		}
		if file, err = yaml.Marshal(inFileOrder(object)); err != nil {
			return contract.PracticeFile{}, err
		}
	}
	saved, err := l.studio.Store.With(ctx).SavePractice(
		store.Practice{ID: p.ID, Document: file, Revision: in.Revision, UpdatedAt: l.studio.Now()},
	)
	switch {
	case errors.Is(err, store.ErrTaken):
		there, unread := l.OwnPractice(ctx, p.ID)
		if unread == nil && there.Text == string(file) {
			return there, nil
		}
		if in.Revision == 0 {
			return contract.PracticeFile{}, studio.ChangedMeanwhile(fact.New("changed.practice-id", "practice", p.ID))
		}
		return contract.PracticeFile{}, studio.FailChanged("practice")
	case errors.Is(err, store.ErrNotFound):
		return contract.PracticeFile{}, studio.Fail(studio.ErrNotFound, "own.removed", "practice", p.ID)
	case err != nil:
		return contract.PracticeFile{}, err
	}
	return practiceFile(file, saved.Revision)
}

// fileOrder is the order of the fields in a practice's file.
var fileOrder = []string{
	"id", "name", "term", "also", "from", "kind", "takes", "taught_as", "airway", "counts", "rounds", "minutes", "tempo",
	"strokes", "rate", "rest",
	"open_seconds", "figure", "about", "intents", "level", "seat", "hands", "eyes", "locks", "how", "words", "prompts",
	"watch", "gentler", "harder",
	"finish", "course", "schools", "care",
}

func inFileOrder(object map[string]any) yaml.MapSlice {
	var ordered yaml.MapSlice
	for _, field := range fileOrder {
		if value, there := object[field]; there && value != nil {
			ordered = append(ordered, yaml.MapItem{Key: field, Value: plainNumbers(value)})
		}
	}
	return ordered
}

// plainNumbers turns JSON's numbers, which YAML would write as texts, into numbers.
func plainNumbers(value any) any {
	switch value := value.(type) {
	case json.Number:
		if n, err := value.Int64(); err == nil {
			return n
		}
		f, _ := value.Float64()
		return f
	case []any:
		for i := range value {
			value[i] = plainNumbers(value[i])
		}
	case map[string]any:
		for key := range value {
			value[key] = plainNumbers(value[key])
		}
	}
	return value
}

// RemovePractice takes an own practice out of the book. Plans and classes that use it carry their own copy.
func (l *Library) RemovePractice(ctx context.Context, id string) (contract.Done, error) {
	err := l.studio.Store.With(ctx).RemovePractice(id)
	if errors.Is(err, store.ErrNotFound) {
		return contract.Done{}, studio.Fail(studio.ErrNotFound, "missing.own-practice", "practice", id)
	}
	return contract.Done{Say: fact.New("done.practice-removed")}, err
}

// CheckPractice returns the id and the name of an own practice from its file, or what is wrong in it.
func (*Library) CheckPractice(file string) (id, name string, err error) {
	p, err := readOwn(file)
	if err != nil {
		return "", "", firstLine(err)
	}
	return p.ID, p.Name, nil
}
