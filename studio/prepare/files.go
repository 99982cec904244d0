package prepare

import (
	"bytes"
	"context"
	"fmt"
	"strings"
	"time"

	ical "github.com/arran4/golang-ical"

	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// File returns a plan in the file form that every command reads.
func (ps *Plans) File(ctx context.Context, id int64) (studio.File, error) {
	stored, err := ps.studio.Store.With(ctx).Plan(id)
	if err != nil {
		return studio.File{}, studio.Missing(err, store.KindPlan, id)
	}
	return studio.File{
		Name: studio.FileName(stored.Title) + ".plan.json",
		Type: "application/json",
		Data: stored.Document,
	}, nil
}

// Import stores a plan file that was written elsewhere, or a class that is written as plain text. What is wrong in its
// fields is shown where it is edited; what is no plan file at all is refused.
func (ps *Plans) Import(ctx context.Context, in contract.PlanText) (contract.Plan, error) {
	if strings.HasPrefix(strings.TrimSpace(in.Text), "{") {
		doc, err := sheet.ReadDocument(strings.NewReader(in.Text))
		if err != nil {
			return contract.Plan{}, studio.Fail(studio.ErrInvalid, "file.not-plan", "why", err)
		}
		doc.SetMark(plan.Mark{}) // a copy is no class of the programme
		text, err := written(doc)
		if err != nil {
			return contract.Plan{}, err
		}
		return ps.Add(ctx, text, in.GroupID)
	}
	names, err := ps.Names(ctx)
	if err != nil {
		return contract.Plan{}, err
	}
	doc, err := names.FromText(in.Text, time.Local)
	if err != nil {
		return contract.Plan{}, studio.Fail(studio.ErrInvalid, "file.not-plan-nor-text", "why", err)
	}
	text, err := written(doc)
	if err != nil {
		return contract.Plan{}, err
	}
	return ps.Add(ctx, text, in.GroupID)
}

// Sheet returns the cue sheet of a plan as written, in the form: csv, json or vtt.
func (ps *Plans) Sheet(ctx context.Context, id int64, form string) (studio.File, error) {
	stored, err := ps.studio.Store.With(ctx).Plan(id)
	if err != nil {
		return studio.File{}, studio.Missing(err, store.KindPlan, id)
	}
	_, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	if err != nil {
		return studio.File{}, studio.FailInPlan(err, "plan.no-sheet-yet")
	}
	return studio.SheetFile(studio.FileName(stored.Title), form, pace.Sheet(p))
}

// Calendar returns the plans that have a time, as an iCalendar file (RFC 5545); of one plan where id is not 0.
func (ps *Plans) Calendar(ctx context.Context, id int64) (studio.File, error) {
	all, err := ps.studio.Store.With(ctx).Plans()
	if err != nil {
		return studio.File{}, err
	}
	groups, err := ps.library.GroupsByID(ctx)
	if err != nil {
		return studio.File{}, err
	}
	name := "classes"
	calendar := ical.NewCalendarFor("Vast Lantern")
	calendar.SetMethod(ical.MethodPublish)
	for _, stored := range all {
		if stored.StartsAt.IsZero() || id != 0 && stored.ID != id {
			continue
		}
		if id != 0 {
			name = studio.FileName(stored.Title)
		}
		ps.addEvent(ctx, calendar, stored, groups[stored.GroupID])
	}
	if len(calendar.Events()) == 0 {
		return studio.File{}, studio.Fail(studio.ErrNotFound, "plan.none-with-time")
	}
	return studio.File{Name: name + ".ics", Type: "text/calendar; charset=utf-8", Data: []byte(calendar.Serialize())}, nil
}

func (ps *Plans) addEvent(ctx context.Context, calendar *ical.Calendar, stored store.Plan, group *contract.Group) {
	card := ps.Card(ctx, stored, map[int64]*contract.Group{stored.GroupID: group})
	length := time.Duration(max(card.LengthMS, card.SlotMS)) * time.Millisecond
	event := calendar.AddEvent(fmt.Sprintf("plan-%d@vast-lantern", stored.ID))
	event.SetDtStampTime(stored.UpdatedAt)
	event.SetModifiedAt(stored.UpdatedAt)
	event.SetStartAt(stored.StartsAt)
	event.SetEndAt(stored.StartsAt.Add(max(length.Round(time.Second), time.Minute)))
	event.SetSummary(stored.Title)
	if group != nil {
		event.SetSummary(stored.Title + ", " + group.Name)
	}
	event.SetDescription(strings.Join(card.Passages, "\n"))
}
