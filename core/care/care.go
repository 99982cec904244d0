// Package care holds the cautions: what a teacher should know before a practice is led. The wording defers to
// doctors and other licensed professionals and to local rules, and promises nothing.
package care

import (
	"slices"

	"vastlantern/core/plan"
)

// Caution is one thing to be careful about.
type Caution struct {
	Text   string `json:"text"`
	Strong bool   `json:"strong"` // to be read before the practice is led
}

// Everyone is the caution that belongs to every practice.
var Everyone = Caution{Text: "Stop and breathe naturally when dizzy, tingling, short of breath, in pain or panicky. Never strain; sit down. " +
	"Never in water or while driving, and not on a full stomach. This is no medical advice: ask a doctor or another licensed professional."}

var holds = Caution{Strong: true, Text: "Holding the breath: leave it out in pregnancy, with uncontrolled high blood pressure, heart disease, " +
	"glaucoma or recent eye surgery, epilepsy, detached retina, chronic lung disease, reflux, recent chest or abdominal surgery, and for newcomers " +
	"until they are prepared; with asthma only after a doctor's word. The same breath without the hold is the gentle way."}

var emptyHolds = Caution{Strong: true, Text: "Holding with empty lungs: leave it out also with panic or low blood pressure."}

// byName are the cautions that a practice of the catalogue names.
var byName = map[string]Caution{
	"one-sided": {Text: "With a cold or a blocked nose, leave the hand down and follow in the mind."},
	"sun":       {Strong: true, Text: "Not with high blood pressure or fever, and not late in the evening. Alternate nostril breath is the gentle way."},
	"moon":      {Strong: true, Text: "Not with low blood pressure or a chest cold. Alternate nostril breath is the gentle way."},
	"strokes": {Strong: true, Text: "Strokes and panting: leave them out in pregnancy, with hernia, ulcer, recent abdominal surgery, heart disease, " +
		"uncontrolled high blood pressure, epilepsy, glaucoma, detached retina, recent nosebleed, vertigo, chronic lung disease or reflux; with asthma only after " +
		"a doctor's word; during menstruation as the person decides. Not late in the evening. Belly breath is the gentle way."},
	"joy":     {Strong: true, Text: "Not with back or knee injury, vertigo, detached retina or uncontrolled high blood pressure. Even breath, sitting, is the gentle way."},
	"partner": {Text: "Ask before touching. The wall is an equal choice."},
}

// Of is the cautions of the passage as planned, strong ones first; none for talks and free breathing.
func Of(p *plan.Passage) []Caution {
	if p.Practice == nil {
		return nil
	}
	var strong, mild []Caution
	add := func(c Caution) {
		if c.Strong {
			strong = append(strong, c)
		} else {
			mild = append(mild, c)
		}
	}
	full, empty := p.Measure.Counts.Hold > 0, p.Measure.Counts.Empty > 0
	for _, step := range slices.Concat(p.OpeningSteps, p.ClosingSteps) {
		full, empty = full || step.Counts.Hold > 0, empty || step.Counts.Empty > 0
	}
	if full || empty {
		add(holds)
	}
	if empty {
		add(emptyHolds)
	}
	for _, name := range p.Practice.Care {
		if c, known := byName[name]; known {
			add(c)
		}
	}
	return append(append(strong, mild...), Everyone)
}

// Known tells whether there is a caution of that name for the catalogue to name.
func Known(name string) bool { _, known := byName[name]; return known }
