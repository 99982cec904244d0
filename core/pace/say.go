package pace

import (
	"cmp"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/words"
)

// say returns what is said at the row in progress, by the passage's voice as far as it has faded: counts and the words
// of phases only. The hand, calls and lines are cues (cues.md section 1).
func (m *machine) say(ph *practice.Phase) string {
	p := m.here()
	switch ph.Kind {
	case breath.Talk, breath.Still:
		return ""
	case breath.Free:
		return m.sayFree(ph)
	case breath.Beat:
		return m.plan.Words.Number(m.beatNumber())
	case breath.Lead:
		return m.sayLead()
	}
	own := ""
	if m.stage == Round {
		own = m.plan.Words.Own(p.Practice.Words[string(ph.Kind)])
	}
	return sayCount(p, m.plan.Words, m.voice(p), ph, m.count, own)
}

// beatNumber returns the count of the beat as it is said: in groups, where the plan has them.
func (m *machine) beatNumber() int {
	if by := m.here().CountInBy; by > 0 {
		return (m.count-1)%by + 1
	}
	return m.count
}

func (m *machine) sayFree(ph *practice.Phase) string {
	switch {
	case ph.Text != "":
		return ph.Text
	case m.stage == Round:
		return m.plan.Words.Text(words.ChangeSides)
	case m.stage == Recall:
		return m.plan.Words.Text(words.Finish)
	case m.stage == Rest:
		return m.plan.Words.Text(words.Resting)
	case m.stage == Own:
		return m.plan.Words.Text(words.OwnPace)
	}
	return m.plan.Words.Text(words.Natural)
}

// sayLead says the word and counts: what the hand does is a cue of its own.
func (m *machine) sayLead() string {
	if m.count == 1 {
		return m.plan.Words.Text(string(breath.Exhale))
	}
	return m.plan.Words.Number(m.count)
}

// voice returns the passage's, or what it has faded to. Syllables belong to the rounds; around them numbers are said.
func (m *machine) voice(p *plan.Passage) plan.Voice {
	over := func(after int) bool { return m.stage == Round && after >= 0 && m.round > after }
	switch {
	case p.Voice == plan.Silent || over(p.Fade.SilentAfter):
		return plan.Silent
	case over(p.Fade.WordsAfter):
		return plan.Words
	case m.stage == Round:
		if p.UsualVoice && p.Practice.FillsMinutes() {
			return plan.Silent
		}
	case p.Voice == plan.Syllables || p.Voice == plan.HoldSyllables:
		return plan.Numbers
	}
	return p.Voice
}

// tens is how often strokes are numbered aloud: at sixty or more a minute there is time for no more (common practice,
// with no source).
const tens = 10

// sayCount returns what is said at a count; own is the practice's own word for the phase, if it has one, which says by
// itself that the mouth breathes.
func sayCount(p *plan.Passage, w *words.Words, voice plan.Voice, ph *practice.Phase, count int, own string) string {
	if voice == plan.Silent {
		return ""
	}
	part := ""
	if ph.Parts != nil {
		part = w.Own(ph.Part(count))
	}
	if syllables := voice == plan.Syllables || voice == plan.HoldSyllables && ph.Kind.Held(); syllables && count > 0 &&
		!ph.Waits {
		return p.Syllables[(count-1)%len(p.Syllables)]
	}
	if count == ph.First() {
		word := cmp.Or(own, w.Text(string(ph.Kind)))
		if side := w.Side(ph.Through); side != "" && (own == "" || ph.Through != breath.Mouth) {
			word += " " + side
		}
		if part != "" {
			word += ", " + part
		}
		return word
	}
	switch {
	case ph.Kind == breath.Stroke:
		if voice == plan.Words || count%tens != 0 {
			return ""
		}
	case part != "" && ph.Part(count) != ph.Part(count-1): // another zone, another movement
		return part
	}
	switch voice {
	case plan.Words, plan.HoldSyllables:
		return ""
	case plan.UpDown:
		if ph.Kind == breath.Exhale {
			return w.Number(ph.Counts + 1 - count)
		}
	case plan.HoldsOnly:
		if !ph.Kind.Held() {
			return ""
		}
	}
	return w.Number(count)
}
