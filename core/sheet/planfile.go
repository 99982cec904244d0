// Package sheet reads and writes the plain files of formats.md: plans, adjustment scripts and cue sheets.
package sheet

import (
	"bytes"
	"encoding/json"
	"errors"
	"io"
	"unicode/utf8"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
)

// MostPlanBytes is the largest plan file that is read, 1 MiB.
const MostPlanBytes = 1 << 20

// ReadPlan reads a plan file: the document, which keeps the fields that nobody knows and is what WritePlan writes, and
// what it means. The error is a plan.Errors where the file is JSON but no right plan; the document is there all the
// same, and the plan with defaults in the place of what is wrong.
func ReadPlan(r io.Reader) (plan.Document, *plan.Plan, error) {
	doc, err := ReadDocument(r)
	if err != nil {
		return doc, nil, err
	}
	p, err := plan.Read(doc)
	return doc, p, err
}

// ReadDocument reads a plan file as far as it is JSON.
func ReadDocument(r io.Reader) (doc plan.Document, err error) {
	data, err := io.ReadAll(io.LimitReader(r, MostPlanBytes+1))
	if err != nil {
		return doc, fact.Wrap(err, "file.plan-unreadable", "why", err)
	}
	if len(data) > MostPlanBytes {
		return doc, fact.New("file.plan-too-large")
	}
	return doc, decode(data, &doc)
}

// decode reads one JSON value that is the whole text.
func decode(data []byte, into any) error {
	data = bytes.TrimPrefix(data, []byte("\xef\xbb\xbf")) // editors on some systems write a byte order mark
	if !utf8.Valid(data) {
		return fact.New("file.not-utf-8")
	}
	if depth := Depth(data); depth > MostDepth {
		return fact.New("file.too-deep", "depth", depth, "most", MostDepth)
	}
	decoder := json.NewDecoder(bytes.NewReader(data))
	decoder.UseNumber() // numbers are the exact decimals that are written
	if err := decoder.Decode(into); err != nil {
		return syntaxError(data, err)
	}
	if _, err := decoder.Token(); !errors.Is(err, io.EOF) {
		return fact.New("file.more-after", "line", lineOf(data, decoder.InputOffset()))
	}
	return nil
}

func syntaxError(data []byte, err error) error {
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	switch {
	case errors.As(err, &syntax):
		return fact.Wrap(err, "file.not-json-at", "line", lineOf(data, syntax.Offset), "why", err)
	case errors.As(err, &kind), errors.Is(err, plan.ErrNoObject):
		return plan.ErrNoObject
	case errors.Is(err, io.EOF):
		return fact.New("file.empty")
	}
	return fact.Wrap(err, "file.not-json", "why", err)
}

func lineOf(data []byte, offset int64) int {
	return 1 + bytes.Count(data[:min(int(offset), len(data))], []byte("\n"))
}

// WritePlan writes the document of a plan, two spaces deep, fields in a steady order, unknown ones kept.
func WritePlan(w io.Writer, doc plan.Document) error {
	flat, err := doc.MarshalJSON()
	if err != nil {
		return err
	}
	var out bytes.Buffer
	if err := json.Indent(&out, flat, "", "  "); err != nil {
		return err
	}
	out.WriteByte('\n')
	_, err = w.Write(out.Bytes())
	return err
}
