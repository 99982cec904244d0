package prepare

import (
	"bytes"
	"context"
	"slices"
	"strings"
	"sync"
	"unicode/utf16"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/plan/line"
	"vastlantern/core/practice"
	"vastlantern/core/sheet"
	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Names returns everything that a typed line can call by name: practices, the teacher's own too, and our templates.
func (ps *Plans) Names(ctx context.Context) (*line.Names, error) {
	own, err := ps.library.OwnPractices(ctx)
	if err != nil {
		return nil, err
	}
	tags := []string{ps.library.Language(ctx), language.Of(ctx)}
	var list []line.Template
	for _, tag := range slices.Compact(slices.Clone(tags)) {
		here, err := templatesIn(tag)
		if err != nil {
			return nil, err
		}
		list = append(list, here...)
	}
	return line.NewNames(tags, own, list...), nil
}

var templatesByTag sync.Map // []line.Template; they are asked for at every key that is typed

// templatesIn returns what a line can call of the plans that come with the application, in a language. Each is read
// once.
func templatesIn(tag string) ([]line.Template, error) {
	if known, ok := templatesByTag.Load(tag); ok {
		return known.([]line.Template), nil
	}
	files, err := templates.ReadDir("templates")
	if err != nil {
		return nil, err
	}
	list := make([]line.Template, 0, len(files))
	for _, file := range files {
		doc, p, err := template(file.Name(), tag)
		if err != nil {
			return nil, err
		}
		list = append(list, line.Template{Name: p.Title, Passages: doc.Passages()})
	}
	templatesByTag.Store(tag, list)
	return list, nil
}

// typed reads lines as a teacher types them, with the ways of the school filled in. The error names every line that is
// wrong.
func (ps *Plans) typed(ctx context.Context, text string, group *contract.Group) ([]plan.Fields, error) {
	names, err := ps.Names(ctx)
	if err != nil {
		return nil, err
	}
	readings, wrong := names.ReadLines(text)
	passages := line.FieldsIn(readings)
	switch {
	case len(wrong) > 0 && !strings.Contains(strings.TrimSpace(text), "\n"):
		return nil, wrong[0].Err // there is only one
	case len(wrong) > 0:
		return nil, wrong
	case len(passages) == 0:
		_, err := names.Read("")
		return nil, err
	}
	return passages, ps.fill(ctx, passages, group)
}

// fill fills the ways of the school into passages that do not say otherwise.
func (ps *Plans) fill(ctx context.Context, passages []plan.Fields, group *contract.Group) error {
	choices, err := ps.library.ChoicesFor(ctx, group)
	if err != nil {
		return err
	}
	own, err := ps.library.OwnPractices(ctx)
	if err != nil {
		return err
	}
	for _, one := range passages {
		choices.Fill(one, own...)
	}
	return nil
}

// mostTyped is how many lines are read while they are typed.
const mostTyped = plan.MaxPassages

// ReadTyped reports what lines would be, while they are typed.
func (ps *Plans) ReadTyped(ctx context.Context, in contract.Typed) (contract.TypedRead, error) {
	names, err := ps.Names(ctx)
	if err != nil {
		return contract.TypedRead{}, err
	}
	group, err := ps.library.Group(ctx, in.GroupID)
	if err != nil {
		return contract.TypedRead{}, err
	}
	out := contract.TypedRead{Lines: []contract.TypedLine{}, Completions: []contract.Completion{}}
	lines := strings.Split(in.Text, "\n")
	if len(lines) > mostTyped {
		return out, studio.Fail(studio.ErrInvalid, "typed.too-many", "given", len(lines), "most", mostTyped)
	}
	readings, wrong := names.ReadLines(in.Text)
	if err := ps.fill(ctx, line.FieldsIn(readings), group); err != nil {
		return out, err
	}
	for i, typed := range lines {
		if strings.TrimSpace(typed) == "" {
			continue
		}
		one := contract.TypedLine{Line: i + 1, Passages: []contract.TypedPassage{}}
		var here []line.Reading
		for _, r := range readings {
			if r.Line == i+1 {
				here = append(here, r)
			}
		}
		err := errorIn(wrong, i+1)
		if err == nil {
			one.Passages, err = ps.wouldBe(ctx, typed, here, group)
		}
		if err != nil {
			if one.Problem = problemOf(typed, err); one.Problem == nil {
				return out, err
			}
		}
		if len(one.Passages) > 0 || one.Problem != nil {
			out.Lines = append(out.Lines, one)
		}
	}
	own, err := ps.library.OwnPractices(ctx)
	if err != nil {
		return out, err
	}
	for _, c := range names.Complete(lines[len(lines)-1]) {
		completion := contract.Completion{Line: c.Line}
		if c.Name != "" {
			completion.Says = c.Name
			if read, err := names.Read(c.Line); err == nil {
				completion.Says = saysOf(ctx, read, own)
			}
		}
		out.Completions = append(out.Completions, completion)
	}
	return out, nil
}

// saysOf returns passages in a few words.
func saysOf(ctx context.Context, passages []plan.Fields, own []*practice.Practice) string {
	words := make([]string, 0, len(passages))
	for _, f := range passages {
		if p, err := plan.One(f, own...); err == nil {
			words = append(words, studio.Summed(ctx, p))
		}
	}
	return strings.Join(words, ", ")
}

// errorIn is what is wrong in a line, from 1; nil if nothing is.
func errorIn(wrong line.TextErrors, number int) error {
	for _, e := range wrong {
		if e.Line == number {
			return e.Err
		}
	}
	return nil
}

// wouldBe returns what was understood of a line, and what it amounts to in a plan of the group.
func (ps *Plans) wouldBe(ctx context.Context, typed string, readings []line.Reading, group *contract.Group) (
	[]contract.TypedPassage, error) {
	list := []contract.TypedPassage{}
	doc := plan.NewDocument()
	doc.Append(line.FieldsIn(readings)...)
	summary, err := ps.summary(ctx, doc, group)
	if err != nil {
		return list, err
	}
	own, err := ps.library.OwnPractices(ctx)
	if err != nil {
		return list, err
	}
	for i, r := range readings {
		p, err := plan.One(r.Fields, own...)
		p.CallIn(language.Of(ctx))
		if err != nil || i >= len(summary.Passages) {
			continue // one of the errors below
		}
		one := contract.TypedPassage{
			Summary: summary.Passages[i], Facts: []contract.TypedFact{}, Doubts: []contract.TypedDoubt{},
		}
		for _, d := range r.Doubts {
			one.Doubts = append(one.Doubts, contract.TypedDoubt{Kind: d.Kind, Problem: *problemOf(typed, &d.LineError)})
		}
		for _, f := range r.Facts(&p) {
			value := f.Value
			if len(f.Says) > 0 {
				value = strings.Join(studio.AllTold(ctx, f.Says), ", ")
			}
			one.Facts = append(one.Facts, contract.TypedFact{Field: f.Field, Value: value, Assumed: f.Assumed})
		}
		list = append(list, one)
	}
	if len(summary.Errors) > 0 {
		wrong := summary.Errors[0]
		return list, &line.LineError{
			Why: fact.New("typed.not-allowed", "field", wrong.Field, "given", wrong.Given, "allowed", wrong.Allowed),
		}
	}
	return list, nil
}

// problemOf returns what is wrong in a line; nil for another error.
func problemOf(typed string, err error) *contract.LineProblem {
	e := line.AsLineError(err)
	if e == nil {
		return nil
	}
	units := func(bytes int) int { return len(utf16.Encode([]rune(typed[:min(bytes, len(typed))]))) }
	say := e.Why
	if e.Given != "" && !e.Refused {
		say = fact.New("line.not-understood", "given", e.Given, "why", e.Why)
	}
	return &contract.LineProblem{
		From: units(e.At), To: units(e.End), Given: e.Given, Say: say, Nearest: append([]string{}, e.Nearest...),
	}
}

// Text returns a plan as plain text.
func (ps *Plans) Text(ctx context.Context, id int64) (contract.PlainText, error) {
	stored, err := ps.studio.Store.With(ctx).Plan(id)
	if err != nil {
		return contract.PlainText{}, studio.Missing(err, store.KindPlan, id)
	}
	doc, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	if err != nil {
		return contract.PlainText{}, studio.Fail(studio.ErrInvalid, "plan.no-text-yet")
	}
	names, err := ps.Names(ctx)
	if err != nil {
		return contract.PlainText{}, err
	}
	text, left := names.ToText(doc, p)
	return contract.PlainText{Text: text, Left: append([]string{}, left...)}, nil
}
