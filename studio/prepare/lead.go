package prepare

import (
	"bytes"
	"context"
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/plan/fit"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio"
)

// ToLead returns a stored plan as it will be led: with the words and the own practices of this day, the passages
// softer, and if wanted fitted into what is left of its slot. The stored plan stays as it is.
func (ps *Plans) ToLead(ctx context.Context,
	id int64,
	fitted bool,
	softer []int,
) (stored store.Plan, document []byte, p *plan.Plan, err error) {
	if stored, err = ps.studio.Store.With(ctx).Plan(id); err != nil {
		return stored, nil, nil, studio.Missing(err, store.KindPlan, id)
	}
	doc, err := sheet.ReadDocument(bytes.NewReader(stored.Document))
	if err != nil {
		return stored, nil, nil, err
	}
	group, err := ps.library.Group(ctx, stored.GroupID)
	if err != nil {
		return stored, nil, nil, err
	}
	p, err = ps.read(ctx, doc, group)
	switch {
	case p == nil:
		return stored, nil, nil, err
	case err != nil:
		return stored, nil, nil, studio.FailInPlan(err, "plan.cannot-lead-yet")
	case len(p.Passages) == 0:
		return stored, nil, nil, studio.Fail(studio.ErrInvalid, "plan.empty")
	}
	for _, number := range softer {
		if _, err = soften(doc, p, number); err != nil {
			return stored, nil, nil, studio.Fail(studio.ErrInvalid, "plan.passage-wrong", "passage", number, "why", err)
		}
		if p, err = plan.Read(doc); err != nil {
			return stored, nil, nil, err
		}
	}
	if fitted {
		if err := ps.late(doc, p, level(group)); err != nil {
			return stored, nil, nil, err
		}
	}
	document, err = written(doc)
	return stored, document, p, err
}

// late fits the document into what is left of its slot: its end stays where it was planned.
func (ps *Plans) late(doc plan.Document, p *plan.Plan, level string) error {
	if p.Slot.Sign() == 0 || p.StartsAt.IsZero() {
		return studio.Fail(studio.ErrInvalid, "plan.no-end")
	}
	left := p.StartsAt.Add(time.Duration(p.Slot.Times(60_000).Round()) * time.Millisecond).
		Sub(ps.studio.Now()).
		Truncate(time.Second)
	if left < time.Minute {
		return studio.Fail(studio.ErrInvalid, "plan.time-passed")
	}
	doc.SetSlot(left)
	if doc.Fills() { // what lasts until the end gives way first
		shorter, err := plan.Read(doc)
		if err != nil {
			return err
		}
		doc.FillUp(shorter)
		if p, err = plan.Read(doc); err != nil {
			return err
		}
	}
	// With one round each where even that is too long.
	fit.To(p, breath.Int(left.Milliseconds()), level).Apply(doc, p)
	return nil
}
