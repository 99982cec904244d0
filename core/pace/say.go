package pace

import (
	"strconv"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// words is the one table of what is said. Sides are everyone's own left and right.
var words = struct {
	phase   map[breath.Phase]string
	through map[breath.Through]string
	stage   map[Stage]string
	numbers []string
}{
	phase:   map[breath.Phase]string{breath.Inhale: "inhale", breath.Hold: "hold", breath.Exhale: "exhale", breath.Empty: "empty"},
	through: map[breath.Through]string{breath.Left: "left", breath.Right: "right", breath.Mouth: "by the mouth"},
	stage:   map[Stage]string{Pause: "natural breath", Rest: "rest, natural breath", Own: "own pace", Recall: "finish your round, hand down"},
	numbers: []string{"zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve", "thirteen", "fourteen", "fifteen", "sixteen", "seventeen", "eighteen", "nineteen", "twenty"},
}

func number(n int) string {
	if n < len(words.numbers) {
		return words.numbers[n]
	}
	return strconv.Itoa(n)
}

// say is what is said at the row in progress, by the passage's voice as far as it has faded.
func (m *machine) say(ph *practice.Phase) string {
	p := m.here()
	switch ph.Kind {
	case breath.Talk, breath.Still:
		return ""
	case breath.Free:
		if ph.Text != "" {
			return ph.Text
		}
		return words.stage[m.stage]
	case breath.Beat:
		return number(m.count)
	case breath.Lead:
		if m.count == 1 {
			return words.phase[breath.Exhale]
		}
		return number(m.count)
	}
	voice := m.voice(p)
	if voice == plan.Silent {
		return ""
	}
	if m.count == ph.First() {
		word := words.phase[ph.Kind]
		if side := words.through[ph.Through]; side != "" {
			word += " " + side
		}
		return word
	}
	return counted(p, voice, ph, m.count)
}

// voice is the passage's, or what it has faded to.
func (m *machine) voice(p *plan.Passage) plan.Voice {
	over := func(after int) bool { return m.stage == Round && after >= 0 && m.round > after }
	switch {
	case p.Voice == plan.Silent || over(p.Fade.SilentAfter):
		return plan.Silent
	case over(p.Fade.WordsAfter):
		return plan.Words
	}
	return p.Voice
}

func counted(p *plan.Passage, voice plan.Voice, ph *practice.Phase, count int) string {
	switch voice {
	case plan.Words:
		return ""
	case plan.Syllables:
		return p.Syllables[(count-1)%len(p.Syllables)]
	case plan.UpDown:
		if ph.Kind == breath.Exhale {
			return number(ph.Counts + 1 - count)
		}
	case plan.HoldsOnly:
		if !ph.Kind.Held() {
			return ""
		}
	}
	return number(count)
}
