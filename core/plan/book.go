package plan

import (
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"

	"vastlantern/core/fact"
	"vastlantern/core/practice"
	"vastlantern/core/words"
)

// book is the practices of a plan beyond the catalogue: a teacher's own, which the plan carries with it (field
// practices), so that it can be led anywhere and a class of the past stays what it was.
type book []*practice.Practice

func (b book) find(id string) *practice.Practice {
	for _, p := range b {
		if p.ID == id {
			return p
		}
	}
	return practice.Find(id)
}

func (b book) ids() string {
	var list []string
	for _, p := range slices.Concat(b, practice.Catalogue()) {
		list = append(list, p.ID)
	}
	return strings.Join(list, ", ")
}

func (o reader) ownPractices() book {
	var own book
	for i, entry := range o.objects("practices") {
		where := fmt.Sprintf("practices %d", i+1)
		text, err := json.Marshal(map[string]any(entry.fields))
		if err != nil {
			continue // what was read as JSON can be written as JSON
		}
		p, err := practice.ReadOwn(text) // JSON is YAML
		if err != nil {
			*o.errs = append(
				*o.errs,
				FieldError{Field: where, Given: shown(entry.fields["id"]), Allowed: fact.New("allowed.whole-practice", "why", err)},
			)
			continue
		}
		own = append(own, p)
	}
	return own
}

// words reads what is said: the language, the teacher's own words in place of some, and how sides are said. A class has
// the language that it gives itself (language), else that of its words, else English.
func (o reader) words() *words.Words {
	language := "en"
	if o.has("language") {
		language = choice(o, "language", languages()...)
	}
	value, there := o.fields["words"]
	if !there {
		return words.Languages[language]
	}
	fields, ok := value.(map[string]any)
	if !ok {
		o.fail("words", "allowed.words")
		return words.Languages[language]
	}
	w := reader{fields, o.passage, o.name, "words: ", o.errs}
	if said := choice(w, "language", languages()...); !o.has("language") {
		language = said
	}
	byHand := choice(w, "sides", "named", "hand") == "hand"
	own := map[string]string{}
	if given, there := fields["own"]; there {
		table, ok := given.(map[string]any)
		if !ok {
			w.fail("own", "allowed.words-own")
		}
		for key, text := range table {
			said, isText := text.(string)
			if !isText || !slices.Contains(words.Keys(), key) {
				w.fail("own", "allowed.words-keys", "words", strings.Join(words.Keys(), ", "))
				break
			}
			own[key] = said
		}
	}
	return words.Languages[language].With(own, byHand)
}

// languages returns the tags of those that a class can be led in, English first.
func languages() []string {
	tags := slices.DeleteFunc(slices.Sorted(maps.Keys(words.Languages)), func(tag string) bool { return tag == "en" })
	return append([]string{"en"}, tags...)
}

// PracticeOf returns the practice of a passage, one of the teacher's own too. One that is not known is counted.
func PracticeOf(f Fields, own []*practice.Practice) *practice.Practice {
	if p := book(own).find(f.Practice()); p != nil {
		return p
	}
	return unknownPractice
}
