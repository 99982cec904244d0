package studio

import (
	"bytes"
	"cmp"
	"encoding/json"
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strings"
	"time"

	"github.com/goccy/go-yaml"

	"vastlantern/core/breath"
	"vastlantern/core/care"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/words"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// own is the teacher's own practices. One that can no longer be read is left out: its file is still there to mend.
func (s *Studio) own() ([]*practice.Practice, error) {
	stored, err := s.store.Practices()
	var list []*practice.Practice
	for _, p := range stored {
		if read, err := practice.ReadOwn(p.Document); err == nil {
			list = append(list, read)
		}
	}
	return list, err
}

// carryOwn puts the teacher's own practices that the document uses into it. Those that it carries already and that are
// not in the book any more stay.
func (s *Studio) carryOwn(doc plan.Doc) error {
	stored, err := s.store.Practices()
	if err != nil {
		return err
	}
	used := doc.Uses()
	carried := map[string]any{}
	if list, ok := doc["practices"].([]any); ok {
		for _, entry := range list {
			if fields, ok := entry.(map[string]any); ok {
				carried[fmt.Sprint(fields["id"])] = fields
			}
		}
	}
	for _, p := range stored {
		object, err := asObject(p.Document)
		if err == nil {
			carried[p.ID] = object
		}
	}
	delete(doc, "practices")
	var list []any
	for id := range used {
		if carried[id] != nil {
			list = append(list, carried[id])
		}
	}
	if len(list) > 0 {
		slices.SortFunc(list, func(a, b any) int {
			return cmp.Compare(fmt.Sprint(a.(map[string]any)["id"]), fmt.Sprint(b.(map[string]any)["id"]))
		})
		doc["practices"] = list
	}
	return nil
}

// asObject is a practice's file as an object of JSON.
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

// Practices is the practice book: the catalogue, and the teacher's own.
func (s *Studio) Practices(group int64) (contract.Book, error) {
	own, err := s.own()
	if err != nil {
		return contract.Book{}, err
	}
	g, err := s.group(group)
	if err != nil {
		return contract.Book{}, err
	}
	choices, err := s.choicesFor(g)
	if err != nil {
		return contract.Book{}, err
	}
	room, err := s.room(g, time.Time{}) // the hour of reading is not that of teaching
	if err != nil {
		return contract.Book{}, err
	}
	book := contract.Book{Practices: []contract.Practice{}, Intents: practice.Intents, Levels: practice.Levels, General: care.Everyone.Text}
	for _, p := range slices.Concat(own, practice.Catalogue()) {
		page := page(p, room)
		page.Shown = choices.Shown(p)
		book.Practices = append(book.Practices, page)
	}
	slices.SortStableFunc(book.Practices, func(a, b contract.Practice) int { return cmp.Compare(a.Name, b.Name) })
	return book, nil
}

func page(p *practice.Practice, room care.Room) contract.Practice {
	passage := plan.Of(p)
	figures := passage.Figures()
	page := contract.Practice{
		ID: p.ID, Name: p.Name, Term: p.Term, Kind: string(p.Kind), Own: strings.HasPrefix(p.ID, practice.OwnPrefix), From: p.From,
		About: p.About, Also: list(p.Also), Intents: list(p.Intents), Level: p.Level, Seat: p.Seat, Hands: p.Hands, Eyes: p.Eyes, Locks: p.Locks,
		How: list(p.How), Prompts: list(p.Prompts), Watch: list(p.Watch), Gentler: p.Gentler, Harder: p.Harder, Finish: p.Finish, Schools: list(p.Schools),
		Pattern: passage.Pattern(), Usual: headline(&passage), RoundMS: figures.Round.Round(), PerMinute: figures.PerMinute.Float(),
		Holds: passage.Measure.Counts.Holds(), Cautions: cautions(&passage), Findings: findings(&passage, room), Course: []string{},
	}
	course, err := plan.Course(p)
	if err != nil {
		return page // a course was read with the practice
	}
	for _, doc := range course {
		if one, err := plan.One(doc, p); err == nil {
			page.Course = append(page.Course, courseInWords(doc, &one))
		}
	}
	return page
}

// courseInWords is one passage of a course, with what tells it from the others: "chest 6:6 ×3".
func courseInWords(doc plan.Doc, p *plan.Passage) string {
	var words []string
	for _, field := range []string{"zone", "side"} {
		if word, ok := doc[field].(string); ok {
			words = append(words, word)
		}
	}
	if a := p.Aperture; doc["aperture"] != nil {
		words = append(words, fmt.Sprintf("%s in, %s out,", a.Inhale, a.Exhale))
	}
	return strings.Join(append(words, strings.TrimSpace(strings.TrimPrefix(headline(p), p.Name()))), " ")
}

func list(texts []string) []string { return append([]string{}, texts...) }

// Sample is two rounds of the practice, for its lamp sheet to play silently on its page.
func (s *Studio) Sample(id string) (contract.Score, error) {
	own, err := s.own()
	if err != nil {
		return contract.Score{}, err
	}
	for _, p := range slices.Concat(own, practice.Catalogue()) {
		if p.ID == id {
			return sample(p), nil
		}
	}
	return contract.Score{}, fail(ErrNotFound, "There is no practice %q. It may have been removed.", id)
}

func sample(p *practice.Practice) contract.Score {
	passage := plan.Of(p)
	passage.LeadIn, passage.RestBetween, passage.Minutes, passage.Rounds = 0, breath.Exact{}, breath.Exact{}, 2
	if p.Kind == practice.Strokes { // one round shows them all
		passage.Rounds = 1
	}
	tl := pace.Sheet(&plan.Plan{Words: &words.English, Passages: []plan.Passage{passage}})
	return contract.Score{
		Title: p.Name, Strands: strands(tl.Rows, &words.English), EndMS: tl.End,
		Passages: []contract.ScorePassage{{Name: p.Name, Rounds: passage.Rounds, Cautions: []contract.Caution{}, Findings: []contract.Finding{}, Steps: []string{}}},
		Calls:    []contract.Call{},
	}
}

// OwnPractice is the file of a practice, to be changed: of the catalogue's, the beginning of an own one.
func (s *Studio) OwnPractice(id string) (contract.PracticeFile, error) {
	stored, err := s.store.Practices()
	if err != nil {
		return contract.PracticeFile{}, err
	}
	for _, p := range stored {
		if p.ID == id {
			return practiceFile(p.Document)
		}
	}
	base := practice.Find(id)
	if base == nil {
		return contract.PracticeFile{}, fail(ErrNotFound, "There is no practice %q. It may have been removed.", id)
	}
	return practiceFile(practice.File(id))
}

func practiceFile(text []byte) (contract.PracticeFile, error) {
	object, err := asObject(text)
	if err != nil {
		return contract.PracticeFile{Text: string(text), Problem: err.Error()}, nil
	}
	document, err := json.Marshal(object)
	return contract.PracticeFile{Text: string(text), Document: document}, err
}

var notInIDs = regexp.MustCompile(`[^a-z0-9]+`)

// CopyPractice begins an own practice as a copy of another.
func (s *Studio) CopyPractice(id, name string) (contract.PracticeFile, error) {
	file, err := s.OwnPractice(id)
	if err != nil {
		return file, err
	}
	object, err := asObject([]byte(file.Text))
	if err != nil {
		return file, fail(ErrInvalid, "%q cannot be copied before its file is mended: %v.", id, err)
	}
	name = strings.TrimSpace(name)
	if name == "" {
		name = fmt.Sprintf("%v, my way", object["name"])
	}
	if practice.Find(id) != nil {
		object["from"] = id
	}
	object["name"] = name
	if object["id"], err = s.freeID(name); err != nil {
		return file, err
	}
	text, err := json.Marshal(object)
	if err != nil {
		return file, err
	}
	return s.SavePractice(string(text))
}

// freeID makes an id of the name that is not taken yet.
func (s *Studio) freeID(name string) (string, error) {
	stem := practice.OwnPrefix + cmp.Or(strings.Trim(notInIDs.ReplaceAllString(strings.ToLower(name), "-"), "-"), "practice")
	stored, err := s.store.Practices()
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
	for i, doc := range course {
		if _, err := plan.One(doc, p); err != nil {
			var errs plan.Errors
			errors.As(err, &errs)
			return nil, fmt.Errorf("course, passage %d, %s: given %s, allowed: %s", i+1, errs[0].Field, errs[0].Given, errs[0].Allowed)
		}
	}
	if _, err := plan.One(plan.Doc{"type": string(plan.Practice), "practice": p.ID}, p); err != nil {
		return nil, err
	}
	return p, nil
}

// DraftPractice tells what the file of an own practice means while it is being written.
func (s *Studio) DraftPractice(text string) contract.PracticeDrafted {
	p, err := readOwn(text)
	if err != nil {
		return contract.PracticeDrafted{Problem: plainly(err)}
	}
	score := sample(p)
	page := page(p, care.Room{})
	page.Shown = []string{}
	return contract.PracticeDrafted{Page: &page, Sample: &score}
}

// plainly is the first line of an error of the YAML reader, without the colours and the excerpt that it adds.
func plainly(err error) string {
	line, _, _ := strings.Cut(err.Error(), "\n")
	return line
}

// SavePractice stores an own practice from its file, in YAML or JSON, in the place of one with the same id.
func (s *Studio) SavePractice(text string) (contract.PracticeFile, error) {
	p, err := readOwn(text)
	if err != nil {
		return contract.PracticeFile{}, fail(ErrInvalid, "This practice is not stored yet: %s.", plainly(err))
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
	if err := s.store.SavePractice(store.Practice{ID: p.ID, Document: file, UpdatedAt: s.now()}); err != nil {
		return contract.PracticeFile{}, err
	}
	return practiceFile(file)
}

// fileOrder is the order of the fields in a practice's file.
var fileOrder = []string{
	"id", "name", "term", "also", "from", "kind", "takes", "taught_as", "airway", "counts", "rounds", "minutes", "tempo", "strokes", "rate", "rest",
	"open_seconds", "figure", "about", "intents", "level", "seat", "hands", "eyes", "locks", "how", "words", "prompts", "watch", "gentler", "harder",
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
func (s *Studio) RemovePractice(id string) (contract.Done, error) {
	err := s.store.RemovePractice(id)
	if errors.Is(err, store.ErrNotFound) {
		return contract.Done{}, fail(ErrNotFound, "There is no practice of your own called %q.", id)
	}
	return contract.Done{Say: "Removed from the book. Plans that use it keep it."}, err
}
