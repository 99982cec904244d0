package sheet

import (
	"bufio"
	"bytes"
	"encoding/json"
	"io"
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
)

// LineError is one wrong line of a script.
type LineError struct {
	Line int // from 1
	Why  fact.Fact
}

// Tell says which line it is, and what is wrong in it.
func (e LineError) Tell() fact.Fact { return fact.New("script.line", "line", e.Line, "error", e.Why) }

func (e LineError) Error() string { return e.Tell().Error() }

// ScriptErrors is every wrong line of a script.
type ScriptErrors []LineError

// Tell has a line for each.
func (e ScriptErrors) Tell() fact.Fact { return fact.Lines(e) }

func (e ScriptErrors) Error() string { return e.Tell().Error() }

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
			err = fact.New("script.time-fell", "given", a.At, "least", last)
		}
		if err != nil {
			errs = append(errs, LineError{n, fact.Of(err)})
			continue
		}
		last = a.At
		script = append(script, a)
	}
	if err := lines.Err(); err != nil {
		return nil, fact.New("script.unreadable", "why", err)
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
		return a, fact.New("script.not-object", "why", err)
	}
	if doc == nil { // null
		return a, fact.New("script.not-object", "why", plan.ErrNoObject)
	}
	at, ok := wholeNumber(doc["at_ms"])
	if !ok {
		return a, fact.New("script.whole", "field", "at_ms")
	}
	if at < 0 {
		return a, fact.New("script.time-negative", "given", at)
	}
	a.At = at
	do, _ := doc["do"].(string)
	a.Do = pace.Verb(do)
	if !slices.Contains(pace.Verbs(), a.Do) {
		return a, fact.New("script.unknown-verb", "given", do, "verbs", pace.Verbs())
	}
	return a, takes(&a, doc)
}

// takes reads what comes with the verb.
func takes(a *pace.Adjustment, doc map[string]any) error {
	for _, arg := range a.Do.Takes() {
		given := &arg
		if arg.Or != nil {
			_, first := doc[arg.Name]
			_, second := doc[arg.Or.Name]
			if first == second {
				return fact.New("script.by-or-to", "verb", a.Do, "first", arg.Name, "second", arg.Or.Name)
			}
			if second {
				given = arg.Or
			}
		}
		value, there := doc[given.Name]
		if !there && given.Kind == pace.Flag {
			continue
		}
		read, err := argument(given, value)
		if err != nil {
			return err
		}
		given.Set(a, read)
	}
	return nil
}

// argument reads one value of the kind that the argument has.
func argument(arg *pace.Argument, value any) (any, error) {
	switch arg.Kind {
	case pace.Number:
		if n, ok := value.(json.Number); ok {
			if x, err := breath.ParseExact(n.String()); err == nil {
				return x, nil
			}
		}
		return nil, fact.New("script.number", "field", arg.Name)
	case pace.Whole:
		if n, ok := wholeNumber(value); ok {
			return n, nil
		}
		return nil, fact.New("script.whole", "field", arg.Name)
	case pace.FourWholes:
		if four, ok := fourWholes(value); ok {
			return four, nil
		}
		return nil, fact.New("script.four", "field", arg.Name)
	case pace.TextOrList:
		if words, ok := textOrList(value); ok {
			return words, nil
		}
		return nil, fact.New("script.text-or-list", "field", arg.Name)
	case pace.Flag:
		if flag, ok := value.(bool); ok {
			return flag, nil
		}
		return nil, fact.New("script.flag", "field", arg.Name, "given", value)
	}
	if text, ok := value.(string); ok {
		return text, nil
	}
	return nil, fact.New("script.text", "field", arg.Name)
}

// farOut bounds whole numbers: far beyond any class, and safe to add to. What is beyond it is out of range, which the
// class says when it is made.
const farOut = 1 << 40

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

// textOrList returns a text, or a list of texts.
func textOrList(value any) (any, bool) {
	list, isList := value.([]any)
	if !isList {
		text, ok := value.(string)
		return text, ok
	}
	words := make([]string, len(list))
	for i, one := range list {
		var ok bool
		if words[i], ok = one.(string); !ok {
			return nil, false
		}
	}
	return words, true
}

func fourWholes(value any) (four [4]int, ok bool) {
	list, _ := value.([]any)
	if len(list) != len(four) {
		return four, false
	}
	for i, value := range list {
		n, ok := wholeNumber(value)
		if !ok {
			return four, false
		}
		four[i] = int(n)
	}
	return four, true
}
