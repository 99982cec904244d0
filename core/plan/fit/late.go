package fit

import (
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
)

// Late fits the document, whose plan is p, into what is left of its slot at that time: its end stays where it was
// planned. The error says that it has none, or that less than a minute is left.
func Late(doc plan.Document, p *plan.Plan, level string, now time.Time) error {
	if p.Slot.Sign() == 0 || p.StartsAt.IsZero() {
		return fact.New("plan.no-end")
	}
	slot := time.Duration(p.Slot.Times(60_000).Round()) * time.Millisecond
	left := p.StartsAt.Add(slot).Sub(now).Truncate(time.Second)
	if left < time.Minute {
		return fact.New("plan.time-passed")
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
	To(p, breath.Int(left.Milliseconds()), level).Apply(doc, p)
	return nil
}
