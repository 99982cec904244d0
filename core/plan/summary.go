package plan

import (
	"fmt"
	"strings"

	"vastlantern/core/breath"
	"vastlantern/core/practice"
)

// Figures are the numbers of a practice passage as planned that a teacher plans by.
type Figures struct {
	Rounds       int
	Round        breath.Exact // the length of one round, milliseconds
	PerMinute    breath.Exact // breaths a minute in the rounds
	TrueRatio    string       // the counts as they really run, with the words' own beats
	LongestHold  breath.Exact // milliseconds, full or empty, anywhere in the passage
	HeldFull     breath.Exact // milliseconds in all rounds, opening and closing
	HeldEmpty    breath.Exact
	Breaths      int // in all rounds
	CountSeconds breath.Exact
}

// Figures are the numbers of the passage; those of rounds are zero at own pace. Only for practice passages.
func (p *Passage) Figures() Figures {
	round := p.Round(p.Counts)
	f := Figures{Round: Span(round, p.Tempo), TrueRatio: p.TrueRatio(), CountSeconds: breath.CountLength(p.Tempo).Div(breath.Int(1000))}
	breaths := 0
	for _, ph := range round {
		breaths = max(breaths, ph.Breath)
	}
	f.PerMinute = breath.Int(60_000).Times(breaths).Div(f.Round)
	if p.Led() {
		f.Rounds = p.TotalRounds(p.Tempo)
		f.Breaths = f.Rounds * breaths
		f.hold(round, f.Rounds, p.Tempo)
	}
	f.hold(p.Opening(), 1, p.Tempo)
	f.hold(p.Closing(), 1, p.Tempo)
	return f
}

func (f *Figures) hold(phases []practice.Phase, times int, tempo breath.Exact) {
	for _, ph := range phases {
		if !ph.Kind.Held() {
			continue
		}
		span := ph.Span(tempo)
		f.LongestHold = breath.Max(f.LongestHold, span)
		if ph.Kind == breath.Hold {
			f.HeldFull = f.HeldFull.Add(span.Times(times))
		} else {
			f.HeldEmpty = f.HeldEmpty.Add(span.Times(times))
		}
	}
}

// TrueRatio is the counts as they really run: with the cue word on a beat of its own, 4:16:8 runs 5:17:9 (pacing.md
// section 3).
func (p *Passage) TrueRatio() string {
	c := p.Counts
	if p.WordBefore {
		for _, n := range []*int{&c.Inhale, &c.Hold, &c.Exhale, &c.Empty} {
			if *n > 0 {
				*n++
			}
		}
	}
	return c.String()
}

// Short writes the passage's length, counts and tempo the short way that Shorten reads.
func (p *Passage) Short(doc Doc) string {
	if p.Type != Practice {
		if p.Type == Free && doc["breaths"] != nil {
			return fmt.Sprintf("%vb", doc["breaths"])
		}
		return shortTime(p.Length)
	}
	words := []string{p.Counts.String()}
	switch {
	case p.OwnPace:
		words = append(words, "own", shortTime(p.Minutes.Times(60_000)))
	case p.Rounds == 0:
		words = append(words, shortTime(p.Minutes.Times(60_000)))
	default:
		words = append(words, fmt.Sprintf("x%d", p.Rounds))
	}
	if doc["tempo"] != nil {
		words = append(words, "@"+p.Tempo.String())
	}
	if p.Side == breath.Right {
		words = append(words, "right")
	}
	return strings.Join(words, " ")
}

// shortTime writes milliseconds as 90s, 2m or 1m30s.
func shortTime(length breath.Exact) string {
	secs := length.Div(breath.Int(1000))
	minutes := secs.Div(breath.Int(60)).Floor()
	rest := secs.Sub(breath.Int(60 * minutes))
	switch {
	case minutes == 0:
		return rest.String() + "s"
	case rest.Sign() == 0:
		return fmt.Sprintf("%dm", minutes)
	}
	return fmt.Sprintf("%dm%ss", minutes, rest)
}
