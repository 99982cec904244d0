// Package sheet reads and writes the plain files of formats.md: plans, adjustment scripts and cue sheets.
package sheet

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"unicode/utf8"

	"vastlantern/core/plan"
)

// MostPlanBytes is the largest plan file that is read, 1 MiB.
const MostPlanBytes = 1 << 20

// ReadPlan reads a plan file. The Doc keeps the fields that nobody knows, and is what WritePlan writes. The error
// is a plan.Errors where the file is JSON but no right plan; the Doc is there all the same.
func ReadPlan(r io.Reader) (plan.Doc, *plan.Plan, error) {
	doc, err := ReadDoc(r)
	if err != nil {
		return nil, nil, err
	}
	p, err := plan.Read(doc)
	return doc, p, err
}

// ReadDoc reads a plan file as far as it is JSON.
func ReadDoc(r io.Reader) (plan.Doc, error) {
	data, err := io.ReadAll(io.LimitReader(r, MostPlanBytes+1))
	if err != nil {
		return nil, fmt.Errorf("the plan cannot be read: %w", err)
	}
	if len(data) > MostPlanBytes {
		return nil, errors.New("the plan file is over 1 MiB")
	}
	return decodeObject(data)
}

func decodeObject(data []byte) (plan.Doc, error) {
	data = bytes.TrimPrefix(data, []byte("\xef\xbb\xbf")) // editors on some systems write a byte order mark
	if !utf8.Valid(data) {
		return nil, errors.New("the file is not UTF-8 text")
	}
	if depth := Depth(data); depth > MostDepth {
		return nil, fmt.Errorf("objects and lists are nested %d deep, at most %d are read", depth, MostDepth)
	}
	var doc map[string]any
	decoder := json.NewDecoder(bytes.NewReader(data))
	decoder.UseNumber() // numbers are the exact decimals that are written
	if err := decoder.Decode(&doc); err != nil {
		return nil, syntaxError(data, err)
	}
	if doc == nil {
		return nil, errors.New("the file is not a JSON object")
	}
	if _, err := decoder.Token(); !errors.Is(err, io.EOF) {
		return nil, fmt.Errorf("line %d: there is more after the JSON object", lineOf(data, decoder.InputOffset()))
	}
	return doc, nil
}

func syntaxError(data []byte, err error) error {
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	switch {
	case errors.As(err, &syntax):
		return fmt.Errorf("line %d: not JSON: %w", lineOf(data, syntax.Offset), err)
	case errors.As(err, &kind):
		return errors.New("the file is not a JSON object")
	case errors.Is(err, io.EOF):
		return errors.New("the file is empty")
	}
	return fmt.Errorf("not JSON: %w", err)
}

func lineOf(data []byte, offset int64) int {
	return 1 + bytes.Count(data[:min(int(offset), len(data))], []byte("\n"))
}

// fieldOrder is the order in which a plan is written: as formats.md lists the fields, then all others by name.
var fieldOrder = []string{
	"format", "version", "type", "practice", "title", "starts_at", "slot_min", "intent", "pace", "counts", "tempo", "rounds",
	"minutes", "seconds", "breaths", "wait", "side", "entry",
}

// WritePlan writes the document of a plan, two spaces deep, fields in a steady order, unknown ones kept.
func WritePlan(w io.Writer, doc plan.Doc) error {
	var flat bytes.Buffer
	if err := writeValue(&flat, map[string]any(doc)); err != nil {
		return err
	}
	var out bytes.Buffer
	if err := json.Indent(&out, flat.Bytes(), "", "  "); err != nil {
		return err
	}
	out.WriteByte('\n')
	_, err := w.Write(out.Bytes())
	return err
}

func writeValue(w *bytes.Buffer, value any) error {
	switch value := value.(type) {
	case plan.Doc:
		return writeValue(w, map[string]any(value))
	case map[string]any:
		fields := make([]string, 0, len(value))
		for field := range value {
			fields = append(fields, field)
		}
		slices.SortFunc(fields, byFieldOrder)
		w.WriteByte('{')
		for i, field := range fields {
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
