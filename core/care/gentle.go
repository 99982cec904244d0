package care

import (
	"fmt"
	"slices"

	"vastlantern/core/plan"
)

// replaced are the practices whose gentle variant is another practice.
var replaced = map[Aspect]string{Strokes: "belly-breath", Joy: "counted-breath", Sun: "nadi-shodhana", Moon: "nadi-shodhana"}

// gentler tells what softens the passage: another practice, or the same without holds.
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

// HasGentle tells whether the passage has a gentle variant.
func HasGentle(p *plan.Passage) bool {
	practice, withoutHolds := gentler(p)
	return practice != "" || withoutHolds
}

// AsksForGentle tells whether the passage should not be led as it is for these people: it is left out, or softened.
func AsksForGentle(p *plan.Passage, who Room) bool {
	return slices.ContainsFunc(For(p, who), func(f Finding) bool { return f.Do != Carefully })
}

// GentleOf is the gentle variant of the passage p, which has these fields, of as nearly the same length as whole rounds
// allow: without holds, or as the practice that runs beside it. It returns its fields and the change in words; the words
// are empty where there is nothing to soften.
func GentleOf(fields plan.Fields, p *plan.Passage) (plan.Fields, string) {
	practice, withoutHolds := gentler(p)
	switch {
	case practice != "":
		return fields.InPlaceOf(p, practice), fmt.Sprintf("%s in place of %s", practice, p.Name())
	case withoutHolds:
		return fields.WithoutHolds(p), p.Name() + " without holds"
	}
	return fields, ""
}
