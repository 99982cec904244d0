package rehearsal

import (
	"fmt"
	"slices"

	"vastlantern/core/pace"
)

// Advice is the one thing to practise next.
type Advice struct {
	Says string
	// About is what it is about, as in Moment; empty where it is about no sign.
	About string
}

// look is what to look for, by sign.
var look = map[string]string{
	Gasp:        "Look at the way in after an empty hold: a gasp is short, and says that the hold was too long.",
	Rushed:      "Look at the way out after a full hold: an exhale that falls out says that the hold was too long.",
	Early:       "Look at who is done while you still count: for them the breath is too long.",
	Late:        "Look at who still moves when the cue changes: slow down, or say the cue once more.",
	Tight:       "Look at shoulders and faces between the rounds: what is tight there needs fewer counts, or no holds.",
	Restless:    "Look for eyes that open and heads that turn: bring the spoken numbers back.",
	Strokes:     "Look at the bellies in the last third of the strokes: where the rhythm falls apart it is enough.",
	Unwell:      "Look once around the whole room in each round: somebody was unwell, and it was not seen.",
	Interrupted: "When something interrupts, let everybody breathe naturally, and take the same round again when it is quiet.",
}

// advice is what to practise next: the gravest first.
func (r *Review) advice() Advice {
	for i := range r.Moments {
		if m := &r.Moments[i]; m.ID == Unwell && (m.By != pace.ToPause || m.Pressed > m.At+tookWell) {
			if m.Missed() {
				return Advice{look[Unwell], Unwell}
			}
			return Advice{"When somebody is unwell, natural breath for everyone comes first, by one key, and then you look further.", Unwell}
		}
	}
	if id := r.gravest(func(m *Moment) bool { return m.Missed() }); id != "" {
		return Advice{look[id], id}
	}
	for _, s := range r.Said {
		if s.Known && !s.There && len(s.Else) > 0 {
			return Advice{"You looked, and took one thing for another. " + look[s.Else[0]], s.Else[0]}
		}
	}
	if id := r.gravest(func(m *Moment) bool { return !m.Few && OfStrain(m.ID) && m.Named >= 0 && m.Pressed < 0 }); id != "" {
		return Advice{"You saw it, and the cause stayed. After saying what you see, take what is proposed, or a gentler lane for some.", id}
	}
	if needless := r.NeedlessCount(); needless > 0 {
		return Advice{fmt.Sprintf("The room was at ease and was eased %s. Look once around before you make it easier for all.", times(needless)), ""}
	}
	if r.Slot && r.Over && r.Late > 0 {
		return Advice{"Everything was seen, and the class ended after its slot. Press the time to finish as soon as it says late.", ""}
	}
	if r.Planned > 0 && r.Over && r.Rest < r.Planned {
		return Advice{"Everything was seen, and the rest at the end was shorter than planned. Finish on time by rounds, and keep the rest.", ""}
	}
	for i := range r.Eased {
		if e := &r.Eased[i]; e.Lane && e.AtEase > e.Strained {
			return Advice{"Everything was met, and more people were eased than had need of it. Try a gentler lane for those, and leave the others what they hold.", ""}
		}
	}
	if seconds, any := r.ToAct(); any && seconds > slow {
		return Advice{fmt.Sprintf("Everything was met, %.0f seconds after it could be seen. Look once around in each round.", seconds), ""}
	}
	return Advice{"Nothing was missed. Take the next level, or a room that shows less.", ""}
}

const slow = 45 // s from a sign to the adjustment that met it

func times(n int) string {
	if n == 1 {
		return "once"
	}
	return fmt.Sprintf("%d times", n)
}

// gravest is the gravest of what a condition holds for, empty for nothing.
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

// ToAct is the middle of the seconds from what could be seen to the adjustment that met it, and whether there was any. Attention that
// is away for a while is no part of it: one word brings it back.
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
