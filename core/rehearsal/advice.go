package rehearsal

import (
	"math"
	"slices"

	"vastlantern/core/fact"
	"vastlantern/core/pace"
)

// Advice is the one thing to practise next.
type Advice struct {
	Says fact.Fact
	// About is what it is about, as in Moment; empty if it is about no sign.
	About string
}

// look returns what to look for, by sign.
func look(id string) fact.Fact { return fact.New("look." + id) }

// advice returns what to practise next: the gravest first.
func (r *Review) advice() Advice {
	for i := range r.Moments {
		if m := &r.Moments[i]; m.ID == Unwell && (m.By != pace.ToPause || m.Pressed > m.At+tookWell) {
			if m.Missed() {
				return Advice{look(Unwell), Unwell}
			}
			return Advice{fact.New("practise.unwell-first"), Unwell}
		}
	}
	if id := r.gravest(func(m *Moment) bool { return m.Missed() }); id != "" {
		return Advice{look(id), id}
	}
	for _, s := range r.Said {
		if s.Known && !s.There && len(s.Else) > 0 {
			return Advice{fact.New("practise.mistaken", "look", look(s.Else[0])), s.Else[0]}
		}
	}
	if id := r.gravest(func(m *Moment) bool {
		return !m.Few && OfStrain(m.ID) && m.Named >= 0 && m.Pressed < 0
	}); id != "" {
		return Advice{fact.New("practise.cause"), id}
	}
	if needless := r.NeedlessCount(); needless > 0 {
		return Advice{fact.New("practise.needless", "times", needless), ""}
	}
	if r.Slot && r.Over && r.Late > 0 {
		return Advice{fact.New("practise.late"), ""}
	}
	if r.Planned > 0 && r.Over && r.Rest < r.Planned {
		return Advice{fact.New("practise.rest"), ""}
	}
	for i := range r.Eased {
		if e := &r.Eased[i]; e.Lane && e.AtEase > e.Strained {
			return Advice{fact.New("practise.lane"), ""}
		}
	}
	if seconds, any := r.ToAct(); any && seconds > slow {
		return Advice{fact.New("practise.sooner", "seconds", int(math.Round(seconds))), ""}
	}
	return Advice{fact.New("practise.next-level"), ""}
}

const slow = 45 // s from a sign to the adjustment that met it

// gravest returns the gravest of what a condition holds for, empty for nothing.
func (r *Review) gravest(is func(*Moment) bool) string {
	for _, id := range []string{Unwell, Gasp, Rushed, Strokes, Tight, Early, Interrupted, Late, Restless} {
		for i := range r.Moments {
			if m := &r.Moments[i]; m.ID == id && is(m) {
				return id
			}
		}
	}
	return ""
}

// ToAct returns the middle of the seconds from what could be seen to the adjustment that met it, and whether there was
// any. Attention that is away for a while is no part of it: one word brings it back.
func (r *Review) ToAct() (seconds float64, any bool) {
	var all []int64
	for _, m := range r.Moments {
		if m.Pressed >= 0 && m.ID != Late && m.ID != Restless {
			all = append(all, m.Pressed-m.At)
		}
	}
	n := len(all)
	if n == 0 {
		return 0, false
	}
	slices.Sort(all)
	return float64(all[(n-1)/2]+all[n/2]) / 2000, true
}
