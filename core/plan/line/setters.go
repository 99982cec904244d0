package line

import (
	"encoding/json"
	"fmt"
	"strconv"
	"strings"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
)

func roundsOfStrokes(of subject, found matched) {
	setRounds(of, found)
	of.f["strokes"] = numeral(found.numbers[1])
}

// strokesFor plans rounds of as many strokes as a time holds at the rate.
func strokesFor(of subject, found matched) {
	rate := of.p.Rate
	if given := whole(fmt.Sprint(of.f["rate"])); given > 0 {
		rate = given
	}
	strokes := found.seconds.Times(rate).Div(breath.Int(60)).Floor()
	roundsOfStrokes(of, matched{numbers: []string{found.numbers[0], fmt.Sprint(max(1, strokes))}})
}

func timesSeconds(of subject, found matched) {
	of.give("seconds", json.Number(found.seconds.Times(whole(found.numbers[0])).String()), "breaths")
}

func setBreaths(of subject, found matched) { of.give("breaths", numeral(found.numbers[0]), "seconds") }

// timed reports whether the passage has a length in time that can be what is left of the class.
func (of subject) timed() bool { return true }

// mirrored reports whether a round of it can be breathed on each side of the body.
func (of subject) mirrored() bool { return of.p != nil && of.p.TakesField("sides") }

func (of subject) oneSided() bool { return of.p != nil && of.p.OneSided() }

// sidesFixed reports whether it goes through one side and out through the other, always the same.
func (of subject) sidesFixed() bool {
	return of.p != nil && of.p.Sided() && !of.p.TakesField("side")
}

// eachPhase gives every phase that there is as many counts.
func eachPhase(of subject, found matched) {
	of.setCounts(func(c *breath.Counts) {
		for _, part := range []*int{&c.Inhale, &c.Hold, &c.Exhale, &c.Empty} {
			if *part > 0 {
				*part = whole(found.numbers[0])
			}
		}
	})
}

// repeatFor gives the passage a time, and has it come so often.
func repeatFor(of subject, found matched) {
	of.give("minutes", json.Number(found.seconds.Div(breath.Int(60)).String()), "rounds")
	of.f[repeats] = numeral(found.numbers[0])
}

// repeats is a field that no passage has: how often it comes.
const repeats = "repeats"

// setAfter changes the breath after strokes.
func (of subject) setAfter(change func(*breath.Counts)) {
	text, _ := of.f["after"].(string)
	c, err := breath.ParseCounts(text)
	if err != nil {
		c, _ = breath.ParseCounts(of.p.After)
	}
	change(&c)
	of.f["after"] = c.String()
}

// setSpeed gives the passage so many hundredths of the usual tempo or rate, rounded to fives: "slow" and "brisk" are
// common practice, with no source.
func setSpeed(hundredths int) func(subject, matched) {
	return func(of subject, found matched) {
		usual := of.p.Tempo
		if of.strokes() {
			usual = of.p.Rate
		}
		if usual == 0 {
			usual = plan.DefaultTempo
		}
		speed := (usual*hundredths + 250) / 500 * 5
		found.numbers = []string{strconv.Itoa(max(speed, breath.SlowestRate))}
		setTempo(of, found)
	}
}

func setSyllables(voice plan.Voice) func(subject, matched) {
	return func(of subject, found matched) {
		of.f["voice"] = string(voice)
		syllables := []any{}
		for word := range strings.FieldsSeq(found.rest) {
			syllables = append(syllables, word)
		}
		of.f["syllables"] = syllables
	}
}

func setRounds(of subject, found matched) { of.give("rounds", numeral(found.numbers[0]), "minutes") }

// isPaced reports whether the passage has a tempo or a rate of its own.
func isPaced(of subject) bool { return of.p != nil && of.p.Kind.HasBeat() }

func setTempo(of subject, found matched) {
	field := "tempo"
	if of.strokes() {
		field = "rate"
	}
	of.f[field] = numeral(found.numbers[0])
}

func setWidths(inhale, exhale string) func(subject, matched) {
	return func(of subject, _ matched) { of.f["aperture"] = map[string]any{"inhale": inhale, "exhale": exhale} }
}

func (of subject) fade(field string, found matched) {
	fade, _ := of.f["fade"].(map[string]any)
	if fade == nil {
		fade = map[string]any{}
	}
	fade[field] = numeral(found.numbers[0])
	of.f["fade"] = fade
}
