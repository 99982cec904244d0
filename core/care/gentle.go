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

// Soften puts the gentle variant of a passage, counted from 1, in its place in the document, whose plan is p, and tells
// what it is. The error says that there is none.
func Soften(doc plan.Document, p *plan.Plan, number int) (words fact.Fact, err error) {
	fields, err := doc.Passage(number)
	if err != nil {
		return words, err
	}
	gentle, words := GentleOf(fields, &p.Passages[number-1])
	if words.None() {
		return words, fact.New("change.no-gentler", "name", p.Passages[number-1].Name())
	}
	doc.Replace(number, gentle)
	return words, nil
}

// Softer puts the gentle variants of passages in their places, and returns the plan after it.
func Softer(doc plan.Document, p *plan.Plan, numbers []int) (*plan.Plan, error) {
	for _, number := range numbers {
		if _, err := Soften(doc, p, number); err != nil {
			return nil, fact.New("plan.passage-wrong", "passage", number, "why", err)
		}
		var err error
		if p, err = plan.Read(doc); err != nil {
			return nil, err
		}
	}
	return p, nil
}
