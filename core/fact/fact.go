// Package fact holds what the core and the studio report to a person: an id and arguments, never a sentence. Package
// language and ui/src/language make the sentence from one catalogue of messages.
package fact

import (
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"reflect"
	"slices"
	"strings"
)

// Fact is one thing to tell. It is an error too, so that a rule can return the reason for a refusal.
type Fact struct {
	ID   string `json:"id"`             // of the message in the catalogue
	Args Args   `json:"args,omitempty"` // what the message fills in
}

// Args are the arguments of a message by name: an int, float64 or string, a Fact, or a []Fact.
type Args map[string]any

// New returns a fact with arguments, which alternate between name and value, as in log/slog. A value that is none of
// the types of Args is kept as its text. New panics where a name is missing: that is a mistake in the program.
func New(id string, args ...any) Fact {
	if len(args)%2 != 0 {
		panic(fmt.Sprintf("fact %s: a name or a value is missing in %v", id, args))
	}
	if len(args) == 0 {
		return Fact{ID: id}
	}
	named := make(Args, len(args)/2)
	for i := 0; i < len(args); i += 2 {
		named[args[i].(string)] = value(args[i+1])
	}
	return Fact{id, named}
}

func value(arg any) any {
	switch arg := arg.(type) {
	case int, string, Fact, []Fact:
		return arg
	case float64:
		if whole := int(arg); float64(whole) == arg { // as JSON would bring it back
			return whole
		}
		return arg
	case int64:
		return int(arg)
	case error:
		return Of(arg)
	}
	return fmt.Sprint(arg)
}

// None reports whether there is nothing to tell.
func (f Fact) None() bool { return f.ID == "" }

// Pointer returns nil if there is nothing to tell: the form for a field that can be null.
func (f Fact) Pointer() *Fact {
	if f.None() {
		return nil
	}
	return &f
}

// Error returns the fact for a log: the id and the arguments in the order of their names.
func (f Fact) Error() string {
	var text strings.Builder
	text.WriteString(f.ID)
	for _, name := range slices.Sorted(maps.Keys(f.Args)) {
		fmt.Fprintf(&text, " %s=%v", name, f.Args[name])
	}
	return text.String()
}

// String returns the same as Error, for facts among the arguments of others.
func (f Fact) String() string { return f.Error() }

// Is makes errors.Is find a fact: by its id and arguments, or by its id alone where the target has no arguments.
func (f Fact) Is(target error) bool {
	other, ok := target.(Fact)
	return ok && other.ID == f.ID && (other.Args == nil || reflect.DeepEqual(other.Args, f.Args))
}

// Plain is the id of a fact that is the text of an error of another package, as it comes.
const Plain = "error.plain"

// Teller is an error that can be told to a person.
type Teller interface {
	error
	Tell() Fact
}

// Tell makes a Fact a Teller.
func (f Fact) Tell() Fact { return f }

// Of returns what an error tells: its own fact, or its text as it comes. The zero Fact for nil.
func Of(err error) Fact {
	var teller Teller
	switch {
	case err == nil:
		return Fact{}
	case errors.As(err, &teller):
		return teller.Tell()
	}
	return New(Plain, "text", err.Error())
}

// Text returns the fact as it is stored, JSON; empty for none.
func (f Fact) Text() string {
	if f.None() {
		return ""
	}
	text, err := json.Marshal(f)
	if err != nil {
		return f.Error()
	}
	return string(text)
}

// FromText returns a fact as Text has it. A text of an earlier form is a fact that is that text.
func FromText(text string) Fact {
	var f Fact
	if text == "" || json.Unmarshal([]byte(text), &f) == nil && !f.None() {
		return f
	}
	return New(Plain, "text", text)
}

// UnmarshalJSON reads facts among the arguments as facts.
func (a *Args) UnmarshalJSON(text []byte) error {
	var raw map[string]json.RawMessage
	if err := json.Unmarshal(text, &raw); err != nil {
		return err
	}
	*a = Args{}
	for name, value := range raw {
		var one Fact
		var list []Fact
		var number float64
		var words string
		switch {
		case json.Unmarshal(value, &words) == nil:
			(*a)[name] = words
		case json.Unmarshal(value, &number) == nil:
			(*a)[name] = number
			if whole := int(number); float64(whole) == number {
				(*a)[name] = whole
			}
		case json.Unmarshal(value, &list) == nil:
			(*a)[name] = list
		case json.Unmarshal(value, &one) == nil:
			(*a)[name] = one
		default:
			return fmt.Errorf("argument %s: %s", name, value)
		}
	}
	return nil
}

// UnmarshalJSON reads a fact. Earlier forms had a sentence in its place, which becomes a fact that is that sentence.
func (f *Fact) UnmarshalJSON(text []byte) error {
	var sentence string
	if json.Unmarshal(text, &sentence) == nil {
		*f = Fact{}
		if sentence != "" {
			*f = New(Plain, "text", sentence)
		}
		return nil
	}
	type plain Fact // without this method
	return json.Unmarshal(text, (*plain)(f))
}

// Lines returns a fact of several lines, one for each error.
func Lines[E error](errs []E) Fact {
	lines := make([]Fact, len(errs))
	for i, err := range errs {
		lines[i] = Of(err)
	}
	return New("error.lines", "lines", lines)
}

// Names returns a list of names, for a message that joins them.
func Names(names []string) []Fact {
	list := make([]Fact, len(names))
	for i, name := range names {
		list[i] = New("name", "name", name)
	}
	return list
}

// Clock returns a time in milliseconds as minutes and seconds, 1:05.
func Clock(ms int64) string {
	seconds := (ms + 500) / 1000
	return fmt.Sprintf("%d:%02d", seconds/60, seconds%60)
}

// caused is a fact that wraps the error it came of, for errors.Is and errors.As.
type caused struct {
	Fact
	err error
}

func (c caused) Unwrap() error { return c.err }

// Wrap is a fact that wraps an error, which is one of its arguments.
func Wrap(err error, id string, args ...any) error { return caused{New(id, args...), err} }
