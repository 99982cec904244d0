package sheet

import (
	"bufio"
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"slices"
	"strings"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
)

// LineError is one wrong line of a script.
type LineError struct {
	Line int // from 1
	Why  string
}

func (e LineError) Error() string { return fmt.Sprintf("line %d: %s", e.Line, e.Why) }

// ScriptErrors is every wrong line of a script.
type ScriptErrors []LineError

func (e ScriptErrors) Error() string {
	lines := make([]string, len(e))
	for i, one := range e {
		lines[i] = one.Error()
	}
	return strings.Join(lines, "\n")
}

// mostLine bounds one line of a script: a note may be long, a line without end is none.
const mostLine = 1 << 20

// ReadScript reads an adjustment script (JSON Lines). Empty lines and unknown fields are skipped. The error is a
// ScriptErrors where lines are wrong.
func ReadScript(r io.Reader) ([]pace.Adjustment, error) {
	var script []pace.Adjustment
	var errs ScriptErrors
	lines := bufio.NewScanner(r)
	lines.Buffer(nil, mostLine)
	last := int64(0)
	for n := 1; lines.Scan(); n++ {
		text := bytes.TrimSpace(lines.Bytes())
		if len(text) == 0 {
			continue
		}
		a, err := ReadAdjustment(text)
		if err == nil && a.At < last {
			err = fmt.Errorf("at_ms: given %d, allowed: %d or later, since times never fall", a.At, last)
		}
		if err != nil {
			errs = append(errs, LineError{n, err.Error()})
			continue
		}
		last = a.At
		script = append(script, a)
	}
	if err := lines.Err(); err != nil {
		return nil, fmt.Errorf("the script cannot be read: %w", err)
	}
	if len(errs) > 0 {
		return nil, errs
	}
	return script, nil
}

// ReadAdjustment reads one adjustment, a line of a script. What depends on the moment, and a value out of range, is
// no error here: it is refused when it is made.
func ReadAdjustment(data []byte) (pace.Adjustment, error) {
	var a pace.Adjustment
	var doc map[string]any
	if err := decode(data, &doc); err != nil {
		return a, fmt.Errorf("not a JSON object: %w", err)
	}
	if doc == nil { // null
		return a, fmt.Errorf("not a JSON object: %w", plan.ErrNoObject)
	}
	at, err := whole(doc, "at_ms")
	if err != nil {
		return a, err
	}
	if at < 0 {
		return a, fmt.Errorf("at_ms: given %d, allowed: 0 or later", at)
	}
	a.At = at
	do, _ := doc["do"].(string)
	a.Do = pace.Verb(do)
	if !slices.Contains(pace.Verbs(), a.Do) {
		return a, fmt.Errorf("do: given %q, allowed: %v", do, pace.Verbs())
	}
	return a, takes(&a, doc)
}

// takes reads what the verb takes.
func takes(a *pace.Adjustment, doc map[string]any) (err error) {
	switch a.Do {
	case pace.ToTempo:
		if a.To, err = number(doc, "to"); err != nil {
			return err
		}
		if carry, there := doc["carry"]; there {
			var ok bool
			if a.Carry, ok = carry.(bool); !ok {
				return fmt.Errorf("carry: given %v, allowed: true or false", carry)
			}
		}
	case pace.Rounds:
		_, by := doc["by"]
		_, to := doc["to"]
		if by == to {
			return fmt.Errorf("rounds takes either by or to")
		}
		field := "to"
		if by {
			field = "by"
		}
		n, err := whole(doc, field)
		if err != nil {
			return err
		}
		a.Relative, a.By, a.To = by, int(n), breath.Int(n)
	case pace.ToStrokes:
		n, err := whole(doc, "to")
		if err != nil {
			return err
		}
		a.To = breath.Int(n)
	case pace.FinishBy:
		n, err := whole(doc, "to_ms")
		if err != nil {
			return err
		}
		a.To = breath.Int(n)
	case pace.ToCounts:
		a.Counts, err = fourWholes(doc, "to")
	case pace.ToBeside:
		a.Text, err = text(doc, "to")
	case pace.Note:
		a.Text, err = text(doc, "text")
	case pace.Signal:
		a.See, err = text(doc, "see")
	}
	return err
}

func number(doc map[string]any, field string) (breath.Exact, error) {
	if n, ok := doc[field].(json.Number); ok {
		if x, err := breath.ParseExact(n.String()); err == nil {
			return x, nil
		}
	}
	return breath.Exact{}, fmt.Errorf("%s: a number is needed", field)
}

// farOut bounds whole numbers: far beyond any class, and safe to add to. What is beyond it is out of range, which the
// class says when it is made.
const farOut = 1 << 40

func whole(doc map[string]any, field string) (int64, error) {
	if n, ok := wholeNumber(doc[field]); ok {
		return n, nil
	}
	return 0, fmt.Errorf("%s: a whole number is needed", field)
}

func wholeNumber(value any) (int64, bool) {
	given, ok := value.(json.Number)
	if !ok {
		return 0, false
	}
	x, err := breath.ParseExact(given.String())
	if err != nil {
		return 0, false
	}
	x = breath.Max(breath.Int(-farOut), breath.Min(breath.Int(farOut), x))
	n, ok := x.Whole()
	return int64(n), ok
}

func fourWholes(doc map[string]any, field string) (four [4]int, err error) {
	list, _ := doc[field].([]any)
	if len(list) != len(four) {
		return four, fmt.Errorf("%s: four whole numbers are needed, as [4, 4, 8, 0]", field)
	}
	for i, value := range list {
		n, ok := wholeNumber(value)
		if !ok {
			return four, fmt.Errorf("%s: four whole numbers are needed, as [4, 4, 8, 0]", field)
		}
		four[i] = int(n)
	}
	return four, nil
}

func text(doc map[string]any, field string) (string, error) {
	if text, ok := doc[field].(string); ok {
		return text, nil
	}
	return "", fmt.Errorf("%s: a text is needed", field)
}
