// Package school holds the questions on which schools differ, and what each answer changes: planning, cues, screens and
// care. The questions are data; the first answer of each is the default.
package school

import (
	_ "embed"
	"maps"
	"slices"
	"strings"
	"sync"

	"github.com/goccy/go-yaml"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// Question is one thing that schools do in different ways.
type Question struct {
	ID   string `yaml:"id"`
	Ways []Way  `yaml:"ways"`
}

// Way is one answer, and what it changes.
type Way struct {
	ID    string         `yaml:"id"`
	Shows bool           `yaml:"shows"` // a line beside the practice
	Sets  map[string]any `yaml:"sets"`  // fields of a new passage, where it may carry them

	ByMinutes        bool   `yaml:"by_minutes"`       // new passages are planned in minutes
	AlternateCounts  string `yaml:"alternate_counts"` // of a new passage of alternate nostril breath
	Sides            string `yaml:"sides"`            // how sides are said, as in a plan's words
	NewcomersMay     bool   `yaml:"newcomers_may"`    // hold as long as they breathe in
	SlowStrokes      bool   `yaml:"slow_strokes"`
	LeaveOutAtMenses bool   `yaml:"leave_out_at_menses"`
	Lane             bool   `yaml:"lane"` // beside new passages with holds others breathe through them
	// people are addressed formally in class, where the language has such a form
	Formal    bool `yaml:"formal"`
	LaneLimit int  `yaml:"lane_limit"` // breaths a minute that the gentler lane takes at most

	fields plan.Fields // Sets
}

//go:embed schools.yaml
var file []byte

// Questions is every question, in the order in which a form asks them. A broken file is a defect of the program.
var Questions = sync.OnceValue(func() []Question {
	var list []Question
	if err := yaml.UnmarshalWithOptions(file, &list, yaml.Strict()); err != nil {
		panic(err)
	}
	for _, q := range list {
		for i := range q.Ways {
			var err error
			if q.Ways[i].fields, err = plan.FieldsOf(q.Ways[i].Sets); err != nil {
				panic(err)
			}
		}
	}
	return list
})

// Choices is the way chosen for each question; a question that is not in it is answered with its first way.
type Choices map[string]string

// Check reports which choice is none, as an error that says what is allowed.
func (c Choices) Check() error {
	for _, id := range slices.Sorted(maps.Keys(c)) {
		i := slices.IndexFunc(Questions(), func(q Question) bool { return q.ID == id })
		if i < 0 {
			return fact.New("school.no-question", "question", id)
		}
		q := Questions()[i]
		if !slices.ContainsFunc(q.Ways, func(w Way) bool { return w.ID == c[id] }) {
			var ways []string
			for _, w := range q.Ways {
				ways = append(ways, w.ID)
			}
			return fact.New("school.no-way", "question", id, "given", c[id], "ways", strings.Join(ways, ", "))
		}
	}
	return nil
}

// With returns the choices with those of a group in their place where it differs.
func (c Choices) With(group Choices) Choices {
	all := maps.Clone(c)
	if all == nil {
		all = Choices{}
	}
	maps.Copy(all, group)
	return all
}

// Way returns the answer to the question.
func (c Choices) Way(question string) Way {
	for _, q := range Questions() {
		if q.ID != question {
			continue
		}
		for _, w := range q.Ways {
			if w.ID == c[question] {
				return w
			}
		}
		return q.Ways[0]
	}
	return Way{}
}

// Asks returns what the question asks.
func (q Question) Asks() fact.Fact { return fact.New("question." + q.ID) }

// Says returns what one of its answers says.
func (q Question) Says(way Way) fact.Fact { return fact.New("way." + q.ID + "." + way.ID) }

// Line returns the line that a way of a question shows beside a practice.
func Line(question, way string) fact.Fact { return fact.New("shown." + question + "." + way) }

// Shown returns the lines that the choices show beside a practice.
func (c Choices) Shown(p *practice.Practice) []fact.Fact {
	questions := []string{"palms", "eyes", "chin"}
	if p.Sided() || p.TakesField("aperture") {
		questions = []string{"fingers", "eyes", "chin", "mirrored"}
	}
	if counts, err := breath.ParseCounts(p.Counts); p.Kind.HasOpenPhases() || err == nil && counts.Holds() {
		questions = append(questions, "newcomers", "holding")
	}
	var lines []fact.Fact
	for _, question := range append(questions, "when") {
		if way := c.Way(question); way.Shows {
			lines = append(lines, Line(question, way.ID))
		}
	}
	return lines
}

// Fill gives a new passage what the choices set, where it has nothing of its own and may carry it.
func (c Choices) Fill(passage plan.Fields, own ...*practice.Practice) {
	if !passage.IsPractice() {
		return
	}
	for _, q := range Questions() {
		way := c.Way(q.ID)
		if way.ID == q.Ways[0].ID { // the default needs no field
			continue
		}
		passage.Complete(way.fields, own...)
		if way.AlternateCounts != "" && alternates(passage) {
			counts, _ := plan.FieldsOf(map[string]any{"counts": way.AlternateCounts}) // a text can be written as JSON
			passage.Complete(counts, own...)
		}
		if way.ByMinutes {
			byMinutes(passage, own)
		}
		if way.Lane {
			laneBeside(passage, own)
		}
	}
}

// alternates reports whether the passage is of a practice in which the sides alternate.
func alternates(passage plan.Fields) bool {
	p := practice.Find(passage.Practice())
	return p != nil && p.TakesField("entry")
}

// laneBeside has those breathe through the holds of a passage who do not hold, where it has holds.
func laneBeside(passage plan.Fields, own []*practice.Practice) {
	p, err := plan.One(passage, own...)
	if err != nil || !p.Led() || !p.Holds() {
		return
	}
	breathe, _ := plan.FieldsOf(map[string]any{"beside": "breathe"}) // a text can be written as JSON
	passage.Complete(breathe, own...)
}

// byMinutes plans a passage that gives no rounds in the minutes that it would take, half minutes at the least.
func byMinutes(passage plan.Fields, own []*practice.Practice) {
	if passage.GivesLength() {
		return
	}
	p, err := plan.One(passage, own...)
	if err != nil || p.Rounds == 0 || p.Practice.FillsMinutes() {
		return
	}
	halves := max(1, p.RoundSpan(p.Measure).Times(p.Rounds).Div(breath.Int(30_000)).Round())
	passage.SetMinutes(breath.Ratio(halves, 2))
}
