package plan

import (
	"encoding/json"
	"fmt"
	"strings"
)

// FieldError tells one thing that is wrong in a plan: where it stands, what was given and what is allowed.
type FieldError struct {
	Passage int    `json:"passage"` // from 1; 0 for the plan itself
	Name    string `json:"name"`    // the passage's title, practice or type, for people
	Field   string `json:"field"`   // as written in the file; steps as "closing 2: counts"
	Given   string `json:"given"`   // as JSON; empty where nothing was given
	Allowed string `json:"allowed"`
}

// Error is one line that names passage, field, what was given and what is allowed.
func (e FieldError) Error() string {
	where := "plan"
	if e.Passage > 0 {
		where = fmt.Sprintf("passage %d", e.Passage)
	}
	if e.Name != "" {
		where += " (" + e.Name + ")"
	}
	given := "given " + e.Given
	if e.Given == "" {
		given = "missing"
	}
	return fmt.Sprintf("%s, %s: %s, allowed: %s", where, e.Field, given, e.Allowed)
}

// Errors is all that is wrong in a plan, in the order of the file, as in go/scanner.ErrorList.
type Errors []FieldError

// Error has one line for each error.
func (e Errors) Error() string {
	lines := make([]string, len(e))
	for i, one := range e {
		lines[i] = one.Error()
	}
	return strings.Join(lines, "\n")
}

// shown is a value as the file has it, short enough for one line of an error.
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
