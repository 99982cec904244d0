package prepare

import (
	"bytes"
	"errors"
	"fmt"
	"strings"
	"unicode/utf16"

	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// names is everything that a typed line can call by name: practices, the teacher's own too, and our templates.
func (ps *Plans) names() (*plan.Names, error) {
	own, err := ps.library.OwnPractices()
	if err != nil {
		return nil, err
	}
	files, err := templates.ReadDir("templates")
	if err != nil {
		return nil, err
	}
	list := make([]plan.Template, 0, len(files))
	for _, file := range files {
		doc, p, err := template(file.Name())
		if err != nil {
			return nil, err
		}
		list = append(list, plan.Template{Name: p.Title, Passages: doc.Passages()})
	}
	return plan.NewNames(ps.library.Language(), own, list...), nil
}

// typed reads lines as a teacher types them, with the ways of the school filled in. The error names every line that is wrong.
func (ps *Plans) typed(names *plan.Names, text string, group *contract.Group) ([]plan.Fields, error) {
	choices, err := ps.library.ChoicesFor(group)
	if err != nil {
		return nil, err
	}
	own, err := ps.library.OwnPractices()
	if err != nil {
		return nil, err
	}
	var all []plan.Fields
	var wrong []error
	lines := strings.Split(text, "\n")
	for i, line := range lines {
		if strings.TrimSpace(line) == "" && len(lines) > 1 {
			continue
		}
		read, err := names.Read(line)
		switch {
		case err != nil && len(lines) > 1:
			wrong = append(wrong, fmt.Errorf("line %d: %w", i+1, err))
		case err != nil:
			wrong = append(wrong, err)
		}
		all = append(all, read...)
	}
	for _, one := range all {
		choices.Fill(one, own...)
	}
	return all, errors.Join(wrong...)
}

// mostTyped is how many lines are read while they are typed.
const mostTyped = plan.MostPassages

// ReadTyped tells what lines would be, while they are typed.
func (ps *Plans) ReadTyped(in contract.Typed) (contract.TypedRead, error) {
	names, err := ps.names()
	if err != nil {
		return contract.TypedRead{}, err
	}
	group, err := ps.library.Group(in.GroupID)
	if err != nil {
		return contract.TypedRead{}, err
	}
	out := contract.TypedRead{Lines: []contract.TypedLine{}, Completions: []contract.Completion{}}
	lines := strings.Split(in.Text, "\n")
	if len(lines) > mostTyped {
		return out, studio.Fail(studio.ErrInvalid, "These are %d lines: up to %d can be added at once.", len(lines), mostTyped)
	}
	for i, line := range lines {
		if strings.TrimSpace(line) == "" {
			continue
		}
		one := contract.TypedLine{Line: i + 1, Passages: []contract.PassageSummary{}}
		if one.Passages, err = ps.typedLine(names, line, group); err != nil {
			if one.Problem = problemOf(line, err); one.Problem == nil {
				return out, err
			}
		}
		out.Lines = append(out.Lines, one)
	}
	for _, c := range names.Complete(lines[len(lines)-1]) {
		completion := contract.Completion{Line: c.Line}
		if c.Name != "" {
			completion.Says = c.Name
			if read, err := names.Read(c.Line); err == nil {
				completion.Says = saysOf(read)
			}
		}
		out.Completions = append(out.Completions, completion)
	}
	return out, nil
}

// saysOf is passages in a few words.
func saysOf(passages []plan.Fields) string {
	words := make([]string, 0, len(passages))
	for _, f := range passages {
		if p, err := plan.One(f); err == nil {
			words = append(words, p.Headline())
		}
	}
	return strings.Join(words, ", ")
}

func (ps *Plans) typedLine(names *plan.Names, line string, group *contract.Group) ([]contract.PassageSummary, error) {
	none := []contract.PassageSummary{}
	added, err := ps.typed(names, line, group)
	if err != nil {
		return none, err
	}
	doc := plan.NewDocument()
	doc.Append(added...)
	summary, err := ps.summary(doc, group)
	if err != nil {
		return none, err
	}
	if len(summary.Errors) > 0 {
		wrong := summary.Errors[0]
		return summary.Passages, &plan.LineError{Why: fmt.Sprintf("%s: %s is not allowed; allowed: %s", wrong.Field, wrong.Given, wrong.Allowed)}
	}
	return summary.Passages, nil
}

// problemOf is what is wrong in a line; nil for another error.
func problemOf(line string, err error) *contract.LineProblem {
	e := plan.AsLineError(err)
	if e == nil {
		return nil
	}
	units := func(bytes int) int { return len(utf16.Encode([]rune(line[:min(bytes, len(line))]))) }
	say := e.Why
	if e.Given != "" {
		say = fmt.Sprintf("“%s” is not understood: %s", e.Given, e.Why)
	}
	return &contract.LineProblem{From: units(e.At), To: units(e.End), Say: say, Nearest: append([]string{}, e.Nearest...)}
}

// Text is a plan as plain text.
func (ps *Plans) Text(id int64) (contract.PlainText, error) {
	stored, err := ps.studio.Store.Plan(id)
	if err != nil {
		return contract.PlainText{}, studio.Missing(err, "plan", id)
	}
	doc, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	if err != nil {
		return contract.PlainText{}, studio.Fail(studio.ErrInvalid, "This plan cannot be written as text yet. Correct what is marked in it first.")
	}
	names, err := ps.names()
	if err != nil {
		return contract.PlainText{}, err
	}
	text, left := names.ToText(doc, p)
	return contract.PlainText{Text: text, Left: append([]string{}, left...)}, nil
}
