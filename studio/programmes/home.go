package programmes

import (
	"context"
	"encoding/json"

	"vastlantern/core/programme"
	"vastlantern/studio"
)

// HomePage returns a programme as a page for people at home, with the day that is day 1.
func (ps *Programmes) HomePage(ctx context.Context, id int64, begins string, template []byte) (studio.File, error) {
	now, err := ps.standing(ctx, id)
	if err != nil {
		return studio.File{}, err
	}
	if begins == "" {
		begins = ps.studio.Today()
	}
	var classes []studio.HomeClass
	day := 1
	for i, step := range now.programme.Steps {
		made, err := now.making.class(ctx, i)
		if err != nil {
			return studio.File{}, studio.Fail(studio.ErrInvalid, "programme.step-wrong", "why", err)
		}
		document, err := json.Marshal(made.Document)
		if err != nil {
			return studio.File{}, err
		}
		times := step.Classes
		if now.programme.By == programme.Led {
			times = now.programme.Times
		}
		title := step.Says
		if of := about(made.Plan, &now.programme, made.Step); of != nil && !step.Whole() {
			title = of.Headline()
		}
		last := day + max(times, 1)*now.programme.Days - 1
		classes = append(classes, studio.HomeClass{Title: title, First: day, Last: last, Document: document})
		day = last + 1 + step.Rest
	}
	return ps.homes.PageOfClasses(ctx, now.programme.Name, now.row.UID, begins, now.row.GroupID, classes, template)
}
