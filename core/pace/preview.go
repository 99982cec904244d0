package pace

import "vastlantern/core/breath"

// Preview is what an adjustment would do: the answer to it, and the end of the class without and with it in
// milliseconds (what waits is taken as EndAt takes it).
type Preview struct {
	Answer     Answer
	EndWithout int64
	EndWith    int64
	Fewer      int // rounds that the class would have less, in all passages; below 0 for more
}

// Previews reports what each of the adjustments would do if it alone were made at t, in milliseconds from the start of
// the class. It changes nothing. A lead screen asks this of all its controls at each phase, so the rows of the class
// are made up to t once for all of them, and none after it.
func (c *Class) Previews(t int64, wants []Adjustment) []Preview {
	base := c.Copy()
	base.now.runTo(t)
	without := base.endAt(t)
	previews := make([]Preview, len(wants))
	for i, a := range wants {
		a.At = t
		with := base.without(a.Do)
		p := Preview{Answer: with.Adjust(a), EndWithout: without}
		p.EndWith = with.endAt(t)
		for j, l := range base.now.live {
			p.Fewer += l.total - with.now.live[j].total
		}
		previews[i] = p
	}
	return previews
}

// without returns a copy that has what the verb needs to be answered: only undo looks at what was done.
func (c *Class) without(verb Verb) *Class {
	if verb == Undo {
		return c.Copy()
	}
	copied := &Class{now: c.now.copy()}
	copied.now.blind = true
	return copied
}

// EndAt returns when the class would end if nothing more were adjusted after t, in milliseconds: what waits is taken to
// end at its planned time, or at t if that is past, and a pause at t.
func (c *Class) EndAt(t int64) int64 {
	at := Class{now: c.now.copyWithoutRows()}
	at.now.runTo(t)
	return at.endAt(t)
}

func (c *Class) endAt(t int64) int64 { return c.now.projectedEnd(breath.Int(t)).Round() }
