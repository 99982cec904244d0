package plan

import (
	"encoding/json"
	"fmt"
	"strings"

	"vastlantern/core/fact"
)

// FieldError tells one thing that is wrong in a plan: where it is, what was given and what is allowed.
type FieldError struct {
	Passage int       // from 1; 0 for the plan itself
	Name    string    // the passage's title, practice or type, for people
	Field   string    // as written in the file; steps as "closing 2: counts"
	Given   string    // as JSON; empty if nothing was given
	Total   fact.Fact // in place of Given, where a sum is too large
	Allowed fact.Fact
}

// Tell names the passage, the field, what was given and what is allowed.
func (e FieldError) Tell() fact.Fact {
	where := fact.New("where.plan")
	switch {
	case e.Passage > 0 && e.Name != "":
		where = fact.New("where.passage-named", "passage", e.Passage, "name", e.Name)
	case e.Passage > 0:
		where = fact.New("where.passage", "passage", e.Passage)
	}
	switch {
	case !e.Total.None():
		return fact.New("plan.field-wrong", "where", where, "field", e.Field, "given", e.Total, "allowed", e.Allowed)
	case e.Given == "":
		return fact.New("plan.field-missing", "where", where, "field", e.Field, "allowed", e.Allowed)
	}
	return fact.New("plan.field-wrong", "where", where, "field", e.Field, "given", e.Given, "allowed", e.Allowed)
}

func (e FieldError) Error() string { return e.Tell().Error() }

// Errors is all that is wrong in a plan, in the order of the file, as in go/scanner.ErrorList.
type Errors []FieldError

// Tell has one line for each error.
func (e Errors) Tell() fact.Fact { return fact.Lines(e) }

func (e Errors) Error() string { return e.Tell().Error() }

// shown returns a value as the file has it, short enough for one line of an error.
func shown(value any) string {
	text, err := json.Marshal(value)
	if err != nil {
		return fmt.Sprint(value)
	}
	const most = 80
	if len(text) > most {
		return strings.ToValidUTF8(string(text[:most]), "") + "…"
	}
	return string(text)
}
