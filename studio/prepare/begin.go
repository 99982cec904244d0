package prepare

import (
	"bytes"
	"context"
	"embed"
	"encoding/json"
	"path"
	"slices"
	"strings"
	"time"

	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
	"vastlantern/language"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

//go:embed templates/*.plan.json
var templates embed.FS

// Templates returns the plans that come with the application, in the language of the person who asks.
func (ps *Plans) Templates(ctx context.Context) ([]contract.Template, error) {
	files, err := templates.ReadDir("templates")
	if err != nil {
		return nil, err
	}
	list := []contract.Template{}
	for _, file := range files {
		doc, p, err := template(file.Name(), language.Of(ctx))
		if err != nil {
			return nil, err
		}
		list = append(list, contract.Template{
			ID:       strings.TrimSuffix(file.Name(), ".plan.json"),
			Title:    p.Title,
			About:    doc.TakeAbout(),
			LengthMS: p.Length().Round(),
		})
	}
	return list, nil
}

// template returns a plan that comes with the application, in a language.
func template(name, tag string) (plan.Document, *plan.Plan, error) {
	text, err := templates.ReadFile(path.Join("templates", name))
	if err != nil {
		return plan.Document{}, nil, studio.Fail(
			studio.ErrNotFound,
			"missing.template",
			"template",
			strings.TrimSuffix(name, ".plan.json"),
		)
	}
	var document any
	decoder := json.NewDecoder(bytes.NewReader(text))
	decoder.UseNumber()
	if err := decoder.Decode(&document); err != nil {
		return plan.Document{}, nil, err
	}
	inLanguage(document, tag)
	if text, err = json.Marshal(document); err != nil {
		return plan.Document{}, nil, err
	}
	return sheet.ReadPlan(bytes.NewReader(text))
}

// inLanguage translates the texts of a template.
func inLanguage(value any, tag string) {
	switch value := value.(type) {
	case []any:
		for _, one := range value {
			inLanguage(one, tag)
		}
	case map[string]any:
		for field, one := range value {
			if text, ok := one.(string); ok && slices.Contains([]string{"title", "script", "text", "about"}, field) {
				value[field] = studio.Ours(tag, "template.", text)
			} else {
				inLanguage(one, tag)
			}
		}
	}
}

// Begin makes a new plan from a template, or from a class that was led, for the group's next time.
func (ps *Plans) Begin(ctx context.Context, want contract.Begin) (contract.Plan, error) {
	var doc plan.Document
	var err error
	if want.ClassID == 0 {
		doc, _, err = template(want.Template+".plan.json", ps.library.Language(ctx))
	} else {
		doc, want.GroupID, err = ps.again(ctx, want)
	}
	if err != nil {
		return contract.Plan{}, err
	}
	doc.TakeAbout()
	group, err := ps.library.Group(ctx, want.GroupID)
	if err != nil {
		return contract.Plan{}, err
	}
	doc.SetStart(nextTime(group, ps.studio.Now()))
	text, err := written(doc)
	if err != nil {
		return contract.Plan{}, err
	}
	return ps.Add(ctx, text, want.GroupID)
}

// again returns the plan of a past class, as planned or as taught.
func (ps *Plans) again(ctx context.Context, want contract.Begin) (plan.Document, int64, error) {
	class, err := ps.past.Class(ctx, want.ClassID)
	if err != nil {
		return plan.Document{}, 0, err
	}
	doc, err := sheet.ReadDocument(bytes.NewReader(class.Stored.Document))
	if err != nil {
		return doc, 0, err
	}
	doc.SetMark(plan.Mark{})
	group := want.GroupID
	if group == 0 {
		group = class.Stored.GroupID
	}
	switch want.How {
	case "", "planned":
	case "taught":
		taught.Of(class.Plan, class.Script, class.At(ps.studio.Now())).Plan(doc, class.Plan)
	case "advised":
		h, err := ps.past.History(ctx, group)
		if err != nil {
			return doc, 0, err
		}
		for i, fields := range doc.Passages() {
			advised(fields, &class.Plan.Passages[i], h)
		}
	default:
		return doc, 0, studio.Fail(studio.ErrInvalid, "begin.how", "given", want.How)
	}
	return doc, group, nil
}

// nextTime returns when the group's weekly class is next; zero if it has none.
func nextTime(group *contract.Group, now time.Time) time.Time {
	if group == nil || group.Weekday < 0 {
		return time.Time{}
	}
	clock, err := time.Parse("15:04", group.Weektime)
	if err != nil {
		return time.Time{}
	}
	at := time.Date(now.Year(), now.Month(), now.Day(), clock.Hour(), clock.Minute(), 0, 0, now.Location())
	for int(at.Weekday()) != group.Weekday || !at.After(now) {
		at = at.AddDate(0, 0, 1)
	}
	return at
}
