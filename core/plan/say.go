package plan

import (
	"fmt"
	"strings"

	"vastlantern/core/breath"
	"vastlantern/core/practice"
)

// How fields are said in a line; the table of fields names one for each.

func sayValue(field, format string) func(Fields, *Passage) string {
	return func(f Fields, _ *Passage) string {
		if value, there := f.values[field]; there {
			return fmt.Sprintf(format, value)
		}
		return ""
	}
}

func sayChoice(field string, words map[string]string) func(Fields, *Passage) string {
	return func(f Fields, _ *Passage) string {
		word, _ := f.values[field].(string)
		return words[word]
	}
}

func sayFlag(field, word string) func(Fields, *Passage) string {
	return func(f Fields, _ *Passage) string {
		if f.values[field] == true {
			return word
		}
		return ""
	}
}

func sayOf(field string, say func(p *Passage) string) func(Fields, *Passage) string {
	return func(f Fields, p *Passage) string {
		if f.values[field] == nil {
			return ""
		}
		return say(p)
	}
}

func sayCounts(_ Fields, p *Passage) string {
	if p.TakesCounts() {
		return p.Measure.Counts.String()
	}
	return ""
}

func sayRounds(_ Fields, p *Passage) string {
	if p.Type != Practice || p.Rounds == 0 || p.KeepsMinutes() {
		return ""
	}
	return fmt.Sprintf("x%d", p.Rounds)
}

func sayMinutes(_ Fields, p *Passage) string {
	if p.Type != Practice || !p.KeepsMinutes() && !(p.OwnPace && p.Rounds == 0) {
		return ""
	}
	return p.Minutes.String() + " min"
}

func saySeconds(f Fields, p *Passage) string {
	if p.Type == Practice || f.values["breaths"] != nil {
		return ""
	}
	if minutes := p.Length.Div(breath.Int(60_000)); minutes.Equal(breath.Int(minutes.Floor())) {
		return minutes.String() + " min"
	}
	return p.Length.Div(breath.Int(1000)).String() + " s"
}

func sayWidths(f Fields, p *Passage) string {
	if f.values["aperture"] == nil {
		return ""
	}
	return map[practice.Aperture]string{
		{Inhale: "narrow", Exhale: "wide"}: "narrow in", {Inhale: "wide", Exhale: "narrow"}: "narrow out",
		{Inhale: "narrow", Exhale: "narrow"}: "narrow both",
	}[p.Aperture]
}

func saySyllables(_ Fields, p *Passage) string {
	switch p.Voice {
	case Syllables:
		return "saying " + strings.Join(p.Syllables, " ") + ","
	case HoldSyllables:
		return "saying in holds " + strings.Join(p.Syllables, " ") + ","
	}
	return ""
}

func sayFade(p *Passage) string {
	var words []string
	if p.Fade.WordsAfter >= 0 {
		words = append(words, fmt.Sprintf("words after %d", p.Fade.WordsAfter))
	}
	if p.Fade.SilentAfter >= 0 {
		words = append(words, fmt.Sprintf("silent after %d", p.Fade.SilentAfter))
	}
	return strings.Join(words, " ")
}

func sayChoices(p *Passage) string { return "choice of " + choicesOf(p) }

func choicesOf(p *Passage) string {
	var list []string
	for _, counts := range p.Choices {
		list = append(list, counts.String())
	}
	return strings.Join(list, " ")
}

func sayByHand(p *Passage) string {
	if p.ByHand == AllByHand {
		return "by hand"
	}
	return "by hand " + p.ByHand.String()
}

func sayFill(_ Fields, p *Passage) string {
	switch p.Fill {
	case "":
		return ""
	case FillToEnd:
		return "till the end"
	}
	return "until " + p.Fill
}
