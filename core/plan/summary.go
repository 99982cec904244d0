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

// Figures returns the numbers of the passage; those of rounds are zero at own pace, and those of breaths where strokes
// are counted. Only for practice passages.
func (p *Passage) Figures() Figures {
	round := p.Round(p.Measure)
	tempo := p.Measure.Tempo
	f := Figures{
		Round:        Span(round, tempo),
		TrueRatio:    p.TrueRatio(),
		CountSeconds: breath.CountLength(tempo).Div(breath.Int(1000)),
	}
	breaths := 0
	for _, ph := range round {
		breaths = max(breaths, ph.Breath)
	}
	f.PerMinute = breath.Int(60_000).Times(breaths).Div(f.Round)
	if p.Led() {
		f.Rounds = p.TotalRounds(p.Measure)
		f.Breaths = f.Rounds * breaths
		f.hold(round, f.Rounds, tempo)
	}
	f.hold(p.Opening(), 1, p.TempoAround(p.Measure))
	f.hold(p.Closing(), 1, p.TempoAround(p.Measure))
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

// TrueRatio returns the counts as they really run: with the cue word on a beat of its own, 4:16:8 runs 5:17:9
// (pacing.md section 3). It is empty if the practice has no counts.
func (p *Passage) TrueRatio() string {
	if !p.TakesCounts() {
		return ""
	}
	c := p.Measure.Counts
	if p.WordBefore {
		for _, n := range []*int{&c.Inhale, &c.Hold, &c.Exhale, &c.Empty} {
			if *n > 0 {
				*n++
			}
		}
	}
	return c.String()
}

// Pattern returns what one round is made of, in short: counts as 4:4:8, strokes as 20 strokes, the seconds of open
// phases as 6:10:8:6 s, or nothing where the practice says it all.
func (p *Passage) Pattern() string {
	switch {
	case p.TakesCounts():
		return p.Measure.Counts.String()
	case p.CountsStrokes():
		strokes := fmt.Sprintf("%d strokes", p.Measure.Strokes)
		if after := p.Measure.Counts; after.Inhale > 0 {
			strokes += ", then " + after.String()
		}
		return strokes
	case p.HasOpenPhases():
		return p.OpenShort() + " s"
	}
	return ""
}

func (p *Passage) OpenShort() string {
	terms := make([]string, len(p.Open))
	for i, length := range p.Open {
		terms[i] = length.Div(breath.Int(1000)).String()
	}
	return strings.Join(terms, ":")
}

// Short writes the passage's length, counts and tempo the short way that Shorten reads.
func (p *Passage) Short(f Fields) string {
	doc := f.values
	if p.Type != Practice {
		if p.Type == Free && doc["breaths"] != nil {
			return fmt.Sprintf("%vb", doc["breaths"])
		}
		return shortTime(p.Length)
	}
	var words []string
	switch {
	case p.TakesCounts():
		words = append(words, p.Measure.Counts.String())
	case p.HasOpenPhases():
		words = append(words, p.OpenShort())
	case p.Practice.TakesField("strokes"):
		words = append(words, fmt.Sprintf("%dst", p.Measure.Strokes))
	}
	switch {
	case p.OwnPace && p.Rounds > 0:
		words = append(words, "own", fmt.Sprintf("x%d", p.Rounds))
	case p.OwnPace:
		words = append(words, "own", shortTime(p.Millis()))
	case p.ByMinutes() || p.Practice.FillsMinutes():
		words = append(words, shortTime(p.Millis()))
	default:
		words = append(words, fmt.Sprintf("x%d", p.Rounds))
	}
	if doc["tempo"] != nil || doc["rate"] != nil {
		words = append(words, "@"+p.Measure.Tempo.String())
	}
	if p.Side == breath.Right || p.Practice.OneSided() {
		words = append(words, string(p.Side))
	}
	return strings.Join(words, " ")
}

// Headline returns the passage in a few words, as "Alternate nostril breath 4:4:8 ×6".
func (p *Passage) Headline() string {
	if p.Practice == nil {
		return p.Name()
	}
	length := fmt.Sprintf("×%d", p.Rounds)
	if p.Minutes.Sign() > 0 {
		length = SpokenTime(p.Millis())
	}
	return strings.Join(strings.Fields(fmt.Sprintf("%s %s %s", p.Name(), p.Pattern(), length)), " ")
}

// shortTime writes milliseconds as 90s, 2m or 1m30s, to a whole second.
func shortTime(length breath.Exact) string {
	secs := breath.Int(max(1, length.Div(breath.Int(1000)).Round()))
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

// SpokenTime writes milliseconds as 90 s, 2 min or 1 min 30 s, to a whole second.
func SpokenTime(length breath.Exact) string {
	return strings.TrimSpace(strings.NewReplacer("m", " min ", "s", " s").Replace(shortTime(length)))
}
