package line

import (
	"fmt"
	"slices"
	"strings"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
)

// Reading is a passage as a typed line was understood.
type Reading struct {
	Fields plan.Fields
	Said   []string // the fields that the line gave by its words or its name; whatever else there is was assumed
	Line   int      // of the text, from 1; 0 for a line alone
	Doubts []Doubt  // what a teacher should look at
}

// Doubt is a piece of a line that was read all the same, and may be meant in another way.
type Doubt struct {
	LineError
	Kind string // one of those below
}

// The kinds of doubt, which the passage keeps (field check) until a teacher has looked.
const (
	DoubtWords   = "words"   // not understood, and kept as a remark
	DoubtName    = "name"    // not in the practice book
	DoubtReading = "reading" // it could be something else
)

// FieldsIn returns the passages of readings.
func FieldsIn(readings []Reading) []plan.Fields {
	var list []plan.Fields
	for _, one := range readings {
		list = append(list, one.Fields)
	}
	return list
}

// Fact is one thing that was understood of a typed line.
type Fact struct {
	Field   string
	Value   string      // a number, or counts; of all fields but a length, counts and a script as a line says it
	Says    []fact.Fact // that in the reader's language, where it is more than a number
	Assumed bool        // the line did not say it
}

// alwaysTold are the fields that are notified of a passage also where its line does not say them.
var alwaysTold = []string{
	"practice",
	"counts",
	"strokes",
	"rate",
	"open_seconds",
	"breaths",
	"seconds",
	"minutes",
	"rounds",
	"side",
	"script",
}

// Facts returns what was understood, with what was assumed that a teacher would want to know: how it is breathed, how
// long, how fast strokes come, on which side it starts. p is the passage that the reading became.
func (r Reading) Facts(p *plan.Passage) []Fact {
	var facts []Fact
	add := func(field, value string) {
		said := slices.Contains(r.Said, field)
		if value != "" && (said || slices.Contains(alwaysTold, field)) {
			facts = append(facts, Fact{Field: field, Value: value, Assumed: !said})
		}
	}
	if p.Type == plan.Practice {
		add("practice", p.PracticeName())
		switch {
		case p.TakesCounts():
			add("counts", p.Measure.Counts.String())
		case p.CountsStrokes():
			if p.Practice.TakesField("strokes") {
				add("strokes", fmt.Sprint(p.Measure.Strokes))
			}
			add("rate", p.Measure.Tempo.String())
		case p.HasOpenPhases():
			add("open_seconds", p.OpenShort())
		}
	}
	switch {
	case p.Type == plan.Free && r.Fields.Values()["breaths"] != nil:
		add("breaths", fmt.Sprint(r.Fields.Values()["breaths"]))
	case p.Type != plan.Practice:
		add("seconds", p.Length.Div(breath.Int(1000)).String())
	case p.KeepsMinutes() || p.OwnPace && p.Rounds == 0:
		add("minutes", p.Minutes.String())
	default:
		add("rounds", fmt.Sprint(p.Rounds))
	}
	if p.Type == plan.Practice && p.Practice.TakesField("side") {
		add("side", string(p.Side))
	}
	for _, said := range plan.Sayings(r.Fields, p) {
		if !slices.Contains(alwaysTold, said.Field) {
			before := len(facts)
			add(said.Field, strings.TrimSuffix(said.Text, ","))
			if len(facts) > before && (said.Field == "pace" || !slices.Contains(plan.InShort, said.Field)) {
				facts[before].Says = p.Saying(said.Field, r.Fields)
			}
		}
	}
	if p.Type == plan.Talk {
		add("script", p.Script)
	}
	add("remark", p.Remark)
	return facts
}
