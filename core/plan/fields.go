package plan

import (
	"bytes"
	"encoding/json"
	"maps"
	"slices"
	"strconv"

	"vastlantern/core/breath"
	"vastlantern/core/practice"
)

// Fields is one passage as the file has it. A Passage is what it means. It keeps what it does not know, as a Document
// does, and belongs to the document that it comes from: what is set in it is set there.
type Fields struct{ values object }

// NewFields returns a passage of the practice with nothing else given.
func NewFields(practice string) Fields {
	return Fields{object{"type": string(Practice), "practice": practice}}
}

// NewStretch returns a talk or a free passage of so many seconds; the title may be empty.
func NewStretch(kind Type, title string, seconds breath.Exact) Fields {
	f := Fields{object{"type": string(kind)}}
	if title != "" {
		f.values["title"] = title
	}
	f.set("seconds", seconds)
	return f
}

// FieldsOf returns the fields of a passage, or some of them, as a file of data has them.
func FieldsOf(values map[string]any) (Fields, error) {
	if len(values) == 0 {
		return Fields{object{}}, nil
	}
	text, err := json.Marshal(values)
	if err != nil {
		return Fields{}, err
	}
	fields, err := readObject(text) // numbers as a plan's document has them
	return Fields{fields}, err
}

// FieldsWith returns a passage with these fields, which belong to it.
func FieldsWith(values map[string]any) Fields { return Fields{values} }

// Values returns the fields by their names. What is set there is set in the passage.
func (f Fields) Values() map[string]any { return f.values }

// UnmarshalJSON reads one passage.
func (f *Fields) UnmarshalJSON(text []byte) (err error) {
	f.values, err = readObject(text)
	return err
}

// MarshalJSON writes the passage with its fields in a steady order.
func (f Fields) MarshalJSON() ([]byte, error) { return f.values.MarshalJSON() }

// Broken reports whether there is no object, but something else in the file.
func (f Fields) Broken() bool { return f.values == nil }

// Clone returns a passage that belongs to no document.
func (f Fields) Clone() Fields { return Fields{maps.Clone(f.values)} }

// Practice returns the id of the practice that is given; empty if none is.
func (f Fields) Practice() string {
	id, _ := f.values["practice"].(string)
	return id
}

// IsPractice reports whether it is a passage of a practice.
func (f Fields) IsPractice() bool { return f.values["type"] == string(Practice) }

// GivesLength reports whether it is given how long the passage is: rounds, minutes, or own pace.
func (f Fields) GivesLength() bool {
	return f.values["rounds"] != nil || f.values["minutes"] != nil || f.values["pace"] == "own"
}

// Variant returns what tells the passage from others of its practice: the zone, the side, and the widths if they are
// given.
func (f Fields) Variant() (words []string, widths bool) {
	for _, field := range []string{"zone", "side"} {
		if word, ok := f.values[field].(string); ok {
			words = append(words, word)
		}
	}
	return words, f.values["aperture"] != nil
}

// Complete gives the passage each of the other's fields that it has not itself and that is allowed on it.
func (f Fields) Complete(with Fields, own ...*practice.Practice) {
	for _, field := range slices.Sorted(maps.Keys(with.values)) {
		if _, there := f.values[field]; there {
			continue
		}
		f.values[field] = with.values[field]
		if _, err := One(f, own...); err != nil {
			delete(f.values, field)
		}
	}
}

// set sets a number, as it is written in decimals.
func (f Fields) set(field string, x breath.Exact) { f.values[field] = json.Number(x.String()) }

// SetRounds plans the passage in rounds.
func (f Fields) SetRounds(rounds int) {
	delete(f.values, "minutes")
	f.values["rounds"] = json.Number(strconv.Itoa(rounds))
}

// SetMinutes plans the passage for its minutes.
func (f Fields) SetMinutes(minutes breath.Exact) {
	delete(f.values, "rounds")
	f.set("minutes", minutes)
}

// SetStrokes plans the passage with so many strokes a round.
func (f Fields) SetStrokes(strokes int) { f.values["strokes"] = json.Number(strconv.Itoa(strokes)) }

// SetCounts plans the passage at the counts.
func (f Fields) SetCounts(c breath.Counts) { f.values["counts"] = c.String() }

// SetTempo plans the passage, which is p, at a tempo, or at a rate where it counts strokes.
func (f Fields) SetTempo(p *Passage, tempo breath.Exact) {
	field := "tempo"
	if p.Practice.TakesField("rate") {
		field = "rate"
	}
	f.values[field] = json.Number(strconv.FormatFloat(tempo.Float(), 'f', -1, 64))
	if p.ByMinutes() { // so that the tempo alone changes
		f.SetRounds(p.TotalRounds(p.Measure))
	}
}

// fieldOrder is the order in which fields are written: as formats.md lists them, then all others by name.
var fieldOrder = []string{
	"format", "version", "type", "practice", "title", "starts_at", "slot_min", "intent", "pace", "counts", "tempo",
	"rounds",
	"minutes", "seconds", "breaths", "wait", "side", "entry",
}

// MarshalJSON writes the object, and those in it, with their fields in a steady order.
func (o object) MarshalJSON() ([]byte, error) {
	var text bytes.Buffer
	err := writeValue(&text, map[string]any(o))
	return text.Bytes(), err
}

func writeValue(w *bytes.Buffer, value any) error {
	switch value := value.(type) {
	case map[string]any:
		w.WriteByte('{')
		for i, field := range slices.SortedFunc(maps.Keys(value), byFieldOrder) {
			if i > 0 {
				w.WriteByte(',')
			}
			if err := writeValue(w, field); err != nil {
				return err
			}
			w.WriteByte(':')
			if err := writeValue(w, value[field]); err != nil {
				return err
			}
		}
		w.WriteByte('}')
	case []any:
		w.WriteByte('[')
		for i, entry := range value {
			if i > 0 {
				w.WriteByte(',')
			}
			if err := writeValue(w, entry); err != nil {
				return err
			}
		}
		w.WriteByte(']')
	default:
		text, err := json.Marshal(value)
		if err != nil {
			return err
		}
		w.Write(text)
	}
	return nil
}

func byFieldOrder(a, b string) int {
	rank := func(field string) int {
		switch i := slices.Index(fieldOrder, field); {
		case field == "passages": // the long one last
			return len(fieldOrder) + 1
		case i < 0:
			return len(fieldOrder)
		default:
			return i
		}
	}
	if d := rank(a) - rank(b); d != 0 {
		return d
	}
	return bytes.Compare([]byte(a), []byte(b))
}
