package care

import (
	"slices"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// replaced are the practices whose gentle variant is another practice.
var replaced = map[Aspect]string{
	Strokes: "belly-breath",
	Joy:     "counted-breath",
	Sun:     "nadi-shodhana",
	Moon:    "nadi-shodhana",
}

// gentler reports what softens the passage: another practice, or the same without holds.
func gentler(p *plan.Passage) (practice string, withoutHolds bool) {
	for _, name := range Aspects(p) {
		switch {
		case name == FullHold || name == EmptyHold:
			withoutHolds = true
		case replaced[name] != "":
			practice = replaced[name]
		}
	}
	return practice, withoutHolds
}

// HasGentle reports whether the passage has a gentle variant.
func HasGentle(p *plan.Passage) bool {
	practice, withoutHolds := gentler(p)
	return practice != "" || withoutHolds
}

// AsksForGentle reports whether the passage should not be led as it is for these people: it is left out, or softened.
func AsksForGentle(p *plan.Passage, who Room) bool {
	return slices.ContainsFunc(For(p, who), func(f Finding) bool { return f.Do != Carefully })
}

// GentleOf returns the gentle variant of the passage p, which has these fields, of as nearly the same length as whole
// rounds allow: without holds, or as the practice that runs beside it. It returns its fields and the change; none if
// there is nothing to soften.
func GentleOf(fields plan.Fields, p *plan.Passage) (plan.Fields, fact.Fact) {
	id, withoutHolds := gentler(p)
	switch {
	case id != "":
		return fields.InPlaceOf(p, id), fact.New("change.replaced", "after", practice.Find(id).Name, "before", p.Name())
	case withoutHolds:
		return fields.WithoutHolds(p), fact.New("change.without-holds", "name", p.Name())
	}
	return fields, fact.Fact{}
}
