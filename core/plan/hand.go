package plan

import (
	"slices"
	"strings"

	"vastlantern/core/breath"
)

// Hand is the phases that are by hand: they wait for the teacher, who leads by breathing (pacing.md section 7).
type Hand uint8

// handPhases are the phases that can be by hand, each a bit in this order.
var handPhases = breath.OfABreath

// AllByHand is every phase by hand. The zero Hand is none.
const AllByHand Hand = 1<<4 - 1

// Has reports whether the phase is by hand.
func (h Hand) Has(kind breath.Phase) bool {
	i := slices.Index(handPhases, kind)
	return i >= 0 && h&(1<<i) != 0
}

// Phases returns the phases that are by hand, in the order of a breath.
func (h Hand) Phases() []breath.Phase {
	var list []breath.Phase
	for _, kind := range handPhases {
		if h.Has(kind) {
			list = append(list, kind)
		}
	}
	return list
}

// String returns as an adjustment has it: all, none, or the phases with a space between.
func (h Hand) String() string {
	switch h {
	case 0:
		return "none"
	case AllByHand:
		return "all"
	}
	var words []string
	for _, kind := range h.Phases() {
		words = append(words, string(kind))
	}
	return strings.Join(words, " ")
}

// HandOf returns the phases of a list; false for an empty list or a phase that cannot be by hand. To name one twice is
// to name it once.
func HandOf(phases []string) (h Hand, ok bool) {
	for _, phase := range phases {
		i := slices.Index(handPhases, breath.Phase(phase))
		if i < 0 {
			return 0, false
		}
		h |= 1 << i
	}
	return h, len(phases) > 0
}

// readByHand reads the field by_hand: "all", or a list of phases.
func (p *Passage) readByHand(o reader) {
	value, there := o.fields["by_hand"]
	if !there {
		return
	}
	ok := value == "all"
	p.ByHand = AllByHand
	if list, isList := value.([]any); isList {
		var phases []string
		for _, one := range list {
			word, _ := one.(string)
			phases = append(phases, word)
		}
		p.ByHand, ok = HandOf(phases)
	}
	switch {
	case !ok:
		p.ByHand = 0
		o.fail("by_hand", "allowed.by-hand")
	case p.Beside.Shorter():
		o.fail("by_hand", "allowed.by-hand-without-lane")
	}
}
