package plan

import (
	"bytes"
	"cmp"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
)

// object is a JSON object as a file has it, numbers as json.Number.
type object map[string]any

// Document is a plan as its file has it: what is stored, edited and written back. A Plan is what it means. It keeps the
// fields that nobody knows, and values that are wrong, so that nothing typed is lost. It is changed by its methods
// only; a copy of the value is the same document, as with a map.
type Document struct{ fields object }

// Values returns the fields of the plan by their names. What is set there is set in the document.
func (d Document) Values() map[string]any { return d.fields }

// NewDocument returns a plan without passages.
func NewDocument() Document {
	return Document{object{"format": Format, "version": json.Number(strconv.Itoa(Version)), "passages": []any{}}}
}

// ErrNoObject says that a JSON text is not an object.
var ErrNoObject = fact.New("file.not-object")

// UnmarshalJSON reads a document from JSON of the whole file. What is wrong in the fields is for Read to say.
func (d *Document) UnmarshalJSON(text []byte) (err error) {
	d.fields, err = readObject(text)
	return err
}

// MarshalJSON writes the document with its fields in a steady order.
func (d Document) MarshalJSON() ([]byte, error) { return d.fields.MarshalJSON() }

func readObject(text []byte) (object, error) {
	var fields map[string]any
	decoder := json.NewDecoder(bytes.NewReader(text))
	decoder.UseNumber() // numbers are the exact decimals that are written
	if err := decoder.Decode(&fields); err != nil {
		var kind *json.UnmarshalTypeError
		if errors.As(err, &kind) {
			return nil, ErrNoObject
		}
		return nil, err
	}
	if fields == nil {
		return nil, ErrNoObject
	}
	if _, err := decoder.Token(); !errors.Is(err, io.EOF) {
		return nil, fact.New("file.more-after-object")
	}
	return fields, nil
}

// Passages returns the passages in order. One that is no object in the file is there too, so that all keep their
// numbers; it cannot be changed.
func (d Document) Passages() []Fields {
	list, _ := d.fields["passages"].([]any)
	passages := make([]Fields, len(list))
	for i, entry := range list {
		values, _ := entry.(map[string]any)
		passages[i] = Fields{values}
	}
	return passages
}

// Passage returns the passage of the number, from 1. The error says that there is none, or that it is no object.
func (d Document) Passage(number int) (Fields, error) {
	passages := d.Passages()
	if number < 1 || number > len(passages) || passages[number-1].Broken() {
		return Fields{}, fact.New("plan.no-passage", "passage", number)
	}
	return passages[number-1], nil
}

// Append adds passages at the end.
func (d Document) Append(more ...Fields) {
	list, _ := d.fields["passages"].([]any)
	d.fields["passages"] = append(list, values(more)...)
}

// Insert puts passages in so that the first of them has the number, from 1 to one more than there are.
func (d Document) Insert(number int, more ...Fields) {
	list, _ := d.fields["passages"].([]any)
	d.fields["passages"] = slices.Concat(list[:number-1], values(more), list[number-1:])
}

// Replace puts others in the place of the passage of the number, from 1, which is there.
func (d Document) Replace(number int, by ...Fields) {
	list, _ := d.fields["passages"].([]any)
	d.fields["passages"] = slices.Concat(list[:number-1], values(by), list[number:])
}

// KeepOnly leaves out the passages that are not kept; numbers are from 1.
func (d Document) KeepOnly(kept func(number int) bool) {
	list, _ := d.fields["passages"].([]any)
	left := []any{}
	for i, entry := range list {
		if kept(i + 1) {
			left = append(left, entry)
		}
	}
	d.fields["passages"] = left
}

func values(passages []Fields) []any {
	list := make([]any, len(passages))
	for i, f := range passages {
		list[i] = map[string]any(f.values)
	}
	return list
}

// Split makes two passages of the one with the number, from 1; p is the plan of the document.
func (d Document) Split(p *Plan, number int) error {
	fields, err := d.Passage(number)
	if err != nil {
		return err
	}
	first, second, err := fields.split(&p.Passages[number-1])
	if err == nil {
		d.Replace(number, first, second)
	}
	return err
}

// LengthenRest gives the end of the plan more natural breath, in whole seconds: the last passage, if it is one that is
// timed, or one more. It reports whether there was one.
func (d Document) LengthenRest(seconds int64) (longer bool) {
	passages := d.Passages()
	if n := len(passages); n > 0 {
		last := passages[n-1].values
		if number, ok := last["seconds"].(json.Number); ok && last["type"] == string(Free) {
			if before, err := number.Int64(); err == nil {
				last["seconds"] = json.Number(strconv.FormatInt(before+seconds, 10))
				return true
			}
		}
	}
	d.Append(NewStretch(Free, "Rest", breath.Int(seconds)))
	return false
}

// SetStart sets when the class begins, in the zone of the time; the zero time is none.
func (d Document) SetStart(at time.Time) {
	if at.IsZero() {
		delete(d.fields, "starts_at")
		return
	}
	d.fields["starts_at"] = at.Format(time.RFC3339)
}

// Undate takes out when the class begins, and of what programme it is: what is left can be led on any day.
func (d Document) Undate() {
	for _, field := range []string{"starts_at", "programme", "course"} {
		delete(d.fields, field)
	}
}

// SetSlot sets how long the class has, to a hundredth of a second.
func (d Document) SetSlot(slot time.Duration) {
	d.fields["slot_min"] = json.Number(strconv.FormatFloat(slot.Minutes(), 'f', 4, 64))
}

// TakeAbout takes out what a template says of itself; a plan that is made from it does not.
func (d Document) TakeAbout() string {
	about, _ := d.fields["about"].(string)
	delete(d.fields, "about")
	return about
}

// Mark is which class of a programme a plan is, which is no part of the class itself: field programme.
type Mark struct {
	Programme string `json:"uid"`
	Class     int    `json:"class"` // from 1
	Step      int    `json:"step"`  // from 1, when it was made
	// the sum of the plan as the programme has made it: what a teacher changed since is left as it is
	Made string `json:"made"`
}

// SetMark has the plan be a class of a programme; one without a programme takes it out.
func (d Document) SetMark(m Mark) {
	delete(d.fields, "programme")
	delete(d.fields, "course") // of files from before there were programmes
	if m.Programme != "" {
		d.fields["programme"] = map[string]any{"uid": m.Programme, "class": m.Class, "step": m.Step, "made": m.Made}
	}
}

// MarkIn returns the mark of a document that is not read otherwise, as when many are looked through; empty if there is
// none.
func MarkIn(document []byte) Mark {
	var marked struct {
		Programme Mark `json:"programme"`
	}
	if json.Unmarshal(document, &marked) != nil {
		return Mark{}
	}
	return marked.Programme
}

// OldCourse is the place of a plan in a course, as files from before there were programmes have it.
type OldCourse struct {
	Name  string `json:"name"`
	Class int    `json:"class"`
	Days  int    `json:"days"`
}

// CourseIn returns the course of a document; its Name is empty if it belongs to none.
func CourseIn(document []byte) OldCourse {
	var marked struct {
		Course OldCourse `json:"course"`
	}
	if json.Unmarshal(document, &marked) != nil {
		return OldCourse{}
	}
	return marked.Course
}

// Said is how a class is led in words: what is English, named and our own word needs no entry.
type Said struct {
	Language string            // a BCP 47 tag; empty for English
	Sides    string            // named or hand; empty for named
	Own      map[string]string // the teacher's own words, by key
}

// Language returns the language that the class gives itself, empty for that of the teacher.
func (d Document) Language() string {
	tag, _ := d.fields["language"].(string)
	return tag
}

// SetWords gives the plan the words that it is led with. Where the class has a language of its own, words in another
// one are left out: languages are not mixed.
func (d Document) SetWords(said Said) {
	if own := d.Language(); own != "" {
		if own != cmp.Or(said.Language, "en") {
			said.Own = nil
		}
		said.Language = own
	}
	words := map[string]any{}
	if said.Language != "" && said.Language != "en" {
		words["language"] = said.Language
	}
	if said.Sides != "" {
		words["sides"] = said.Sides
	}
	if len(said.Own) > 0 {
		own := map[string]any{}
		for key, text := range said.Own {
			own[key] = text
		}
		words["own"] = own
	}
	delete(d.fields, "words")
	if len(words) > 0 {
		d.fields["words"] = words
	}
}

// Carry puts those of the teacher's own practices that the plan uses into it, each a file in JSON by its id. What it
// carries already and uses still stays, also where it is not among these.
func (d Document) Carry(own map[string]json.RawMessage) error {
	carried := map[string]any{}
	list, _ := d.fields["practices"].([]any)
	for _, entry := range list {
		if fields, ok := entry.(map[string]any); ok {
			carried[fmt.Sprint(fields["id"])] = fields
		}
	}
	delete(d.fields, "practices")
	var used []string
	for _, f := range d.Passages() {
		if id := f.Practice(); id != "" && !slices.Contains(used, id) {
			used = append(used, id)
		}
	}
	slices.Sort(used)
	var left []any
	for _, id := range used {
		if text := own[id]; text != nil {
			fields, err := readObject(text)
			if err != nil {
				return fact.Wrap(err, "plan.practice-wrong", "practice", id, "why", err)
			}
			carried[id] = map[string]any(fields)
		}
		if carried[id] != nil {
			left = append(left, carried[id])
		}
	}
	if len(left) > 0 {
		d.fields["practices"] = left
	}
	return nil
}
