package programme

import (
	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/plan/line"
	"vastlantern/core/practice"
)

// Made is the class of a step.
type Made struct {
	Document plan.Document
	Plan     *plan.Plan
	Step     int       // that it has: a lower one where its own would overrun the slot or the ceiling
	Why      fact.Fact // why it is lower; none if it is not
}

// Make makes the class of a step, from 0. open reads a plan file anew, with what it is led with: that of a whole class,
// or, given none, the class that the programme was begun with; names is what a typed line can call by name. The slot is
// never overrun by growth: where it would be, the highest step that fits is taken, and this is said. A whole class is
// taken as it is. The error says which step cannot be read, and why.
func (p *Programme) Make(
	step int,
	open func(whole []byte) (plan.Document, error),
	names *line.Names,
	own ...*practice.Practice,
) (Made, error) {
	why := fact.Fact{}
	for at := step; at >= 0; at-- {
		whole := p.Steps[at].Whole()
		doc, err := open(p.Steps[at].Plan)
		if err != nil && whole {
			err = fact.Wrap(err, "programme.step-unreadable", "step", at+1, "says", p.Steps[at].Says, "why", err)
		}
		if err != nil {
			return Made{}, err
		}
		if whole {
			doc.Undate()
		} else if err := p.set(doc, at, names, own...); err != nil {
			return Made{}, fact.New("programme.step-unreadable", "step", at+1, "says", p.Steps[at].Says, "why", err)
		}
		read, err := plan.Read(doc)
		if err != nil {
			return Made{}, fact.New("programme.step-unreadable", "step", at+1, "says", p.Steps[at].Says, "why", err)
		}
		over := ""
		if !whole {
			over = p.overruns(read)
		}
		if over == "" || at == 0 || whole {
			if at == 0 && over != "" && why.None() {
				why = fact.New("programme.first-over-"+over, "minutes", p.Ceiling)
			}
			return Made{doc, read, at, why}, nil
		}
		if why.None() {
			why = fact.New("programme.over-"+over, "step", step+1, "minutes", p.Ceiling)
		}
	}
	return Made{}, fact.New("programme.no-step", "step", step+1)
}

// overruns reports what a class with the passage would be longer than, its slot or its ceiling; empty if it fits.
func (p *Programme) overruns(read *plan.Plan) string {
	const minute = 60_000
	if p.Ceiling > 0 && breath.Int(int64(p.Ceiling)*minute).Less(read.Passages[p.Passage-1].PlannedLength()) {
		return "ceiling"
	}
	if read.Slot.Sign() > 0 && read.Slot.Times(minute).Less(read.Length()) {
		return "slot"
	}
	return ""
}

// set has the passage be as the step says: the short way of writing it, or a line that names another practice.
func (p *Programme) set(doc plan.Document, step int, names *line.Names, own ...*practice.Practice) error {
	fields, err := doc.Passage(p.Passage)
	if err != nil {
		return err
	}
	says := p.Steps[step].Says
	if fields.IsPractice() {
		if next, err := line.Restate(fields, says, own...); err == nil {
			doc.Replace(p.Passage, next)
			return nil
		}
	}
	named, err := names.Plainly(says)
	if err != nil {
		return err
	}
	doc.Replace(p.Passage, named...)
	return nil
}
