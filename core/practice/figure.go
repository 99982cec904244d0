package practice

import (
	"slices"
	"strconv"

	"vastlantern/core/breath"
)

// Step is one phase of a figure.
type Step struct {
	Phase breath.Phase `yaml:"phase"`
	// Counts is a role of a:b:c:d ("a" to "d"), "strokes", or a number.
	Counts string `yaml:"counts"`
	// Through is "airway", "start" (the side the passage starts on), "other", or a fixed way; empty for holds.
	Through string `yaml:"through"`
	// Parts is "zones up" or "zones down" (the three zones share the counts), "aperture", or a word for each count.
	Parts []string `yaml:"parts"`
	// Steps is in how many steps a phase is breathed, with a hold of Stop ("b" or "d") after each but the last; 0 and 1
	// are one breath without steps (docs/rules/figures.md, section 1).
	Steps int    `yaml:"steps"`
	Stop  string `yaml:"stop"`
	// Move is what the body does in the phase: one text, or two for the right and the left side of the body
	// (docs/rules/figures.md, section 3).
	Move []string `yaml:"move"`
}

// Setting is what a passage fills into the roles of a figure.
type Setting struct {
	Counts       breath.Counts // of an open practice 1, or 0 if the phase is left out
	Strokes      int
	Open         [4]breath.Exact // planned lengths of the phases of an open practice, milliseconds
	Start        breath.Through
	Airway       breath.Airway
	Zone         string // "all", "belly", "ribs" or "chest"
	Aperture     Aperture
	WordBefore   bool         // each phase's word has a beat of its own, count 0
	NaturalPause breath.Exact // milliseconds of stillness where a hold is 0

	Stops   breath.Counts    // with stops of 0 in these counts, what is breathed in steps is one breath
	Breaths int              // how often the figure is repeated on each side; 0 is once
	Sides   []breath.Through // of the body, in order; empty for a figure that has none
}

// Aperture is how far the fingers leave the nostrils open, "wide" or "narrow".
type Aperture struct{ Inhale, Exhale string }

// Width returns narrow where the inhale or the exhale is, else wide.
func (a Aperture) Width() string {
	if a.Inhale == "narrow" || a.Exhale == "narrow" {
		return "narrow"
	}
	return "wide"
}

// Phase is one phase as it is breathed: either a number of counts, or one stretch of time.
type Phase struct {
	Kind    breath.Phase
	Through breath.Through
	Breath  int          // within the round, the opening or the closing; 0 if none is counted
	Counts  int          // 1 for a stretch of time
	Word    bool         // has a beat for its word before count 1
	Timed   bool         // lasts Length, not counts
	Length  breath.Exact // milliseconds; only of a Timed phase
	Waits   bool         // led, it lasts until somebody goes on, and Length is only planned
	Planned int          // of a phase by hand: the counts that it is planned with; 0 elsewhere
	Beat    int          // of a phase by hand: 1 where its word would have a beat of its own
	Text    string       // what a free stretch is for
	Parts   []string     // of each count, or one for all; nil if there are none
	Place   int          // where in the figure: even numbers for its steps, odd ones for the stillness after them
}

// First returns the number of the phase's first row: 0 if its word has a beat of its own, else 1.
func (p Phase) First() int {
	if p.Word {
		return 0
	}
	return 1
}

// Part returns the part of the count; a word's own beat has that of count 1.
func (p Phase) Part(count int) string {
	if len(p.Parts) == 0 {
		return ""
	}
	return p.Parts[min(max(count, 1), len(p.Parts))-1]
}

// Span returns the planned length of the phase in milliseconds at the tempo.
func (p Phase) Span(tempo breath.Exact) breath.Exact {
	if p.Timed {
		return p.Length
	}
	return breath.CountLength(tempo).Times(p.Counts + 1 - p.First())
}

// ByHand returns the phase as one that lasts until the teacher goes on, in one row. Its planned length is that at the
// tempo; withPart keeps its part.
func (p Phase) ByHand(tempo breath.Exact, withPart bool) Phase {
	open := p
	open.Timed, open.Waits, open.Length = true, true, p.Span(tempo)
	open.Planned, open.Beat = p.Counts, 1-p.First()
	open.Counts, open.Word = 1, false
	if !withPart {
		open.Parts = nil
	}
	return open
}

// Free returns a stretch of natural breath. The length is in milliseconds.
func Free(length breath.Exact) Phase { return Stretch(breath.Free, length) }

// Stretch returns a phase of one row that is measured in time. The length is in milliseconds.
func Stretch(kind breath.Phase, length breath.Exact) Phase {
	return Phase{Kind: kind, Counts: 1, Timed: true, Length: length}
}

// Round lays out one round: the figure with the setting filled in, as often as it is repeated, on each side of the
// body. A phase of 0 counts is not there; with a natural pause, stillness takes the place of each hold of 0.
func (p *Practice) Round(s Setting) []Phase {
	l := layout{practice: p, set: s, place: -widest, phases: make([]Phase, 0, len(p.Figure)+2)}
	sides := s.Sides
	if len(sides) == 0 {
		sides = []breath.Through{breath.None}
	}
	for i, side := range sides {
		if i > 0 && p.Change > 0 {
			l.place += widest
			change := Free(breath.Int(int64(p.Change) * 1000))
			change.Place = l.place
			l.phases = append(l.phases, change)
		}
		for range max(1, s.Breaths) {
			l.figure(side)
		}
	}
	return l.phases
}

// layout is a round that is being laid out.
type layout struct {
	practice *Practice
	set      Setting
	phases   []Phase
	breaths  int
	place    int // of the step of the figure that is laid out
}

// widest is how many places a step of a figure has room for: its steps, the stops between them, and stillness.
const widest = 2*mostSteps + 2

// figure lays the figure out once, on a side of the body.
func (l *layout) figure(side breath.Through) {
	figure, s := l.practice.Figure, l.set
	for i, step := range figure {
		l.place += widest
		if step.begins(figure, i) {
			l.breaths++
		}
		l.step(step, side)
		var next Step
		if i+1 < len(figure) {
			next = figure[i+1]
		}
		held := next.Phase.Held() && next.counts(s) > 0
		if !step.Phase.Held() && !held && next.Phase != step.Phase && s.NaturalPause.Sign() > 0 {
			still := Stretch(breath.Still, s.NaturalPause)
			still.Breath, still.Place = l.breaths, l.place+widest-1
			l.phases = append(l.phases, still)
		}
	}
}

// begins reports whether step i of the figure is the first of a breath: an inhale, unless another inhale or a hold of
// the same breath comes before it.
func (s Step) begins(figure []Step, i int) bool {
	return s.Phase.Begins() && (i == 0 || !figure[i-1].Phase.Begins() && figure[i-1].Phase != breath.Hold)
}

// BreathsInFigure returns how many breaths the figure has.
func (p *Practice) BreathsInFigure() (breaths int) {
	for i, step := range p.Figure {
		if step.begins(p.Figure, i) {
			breaths++
		}
	}
	return breaths
}

// step lays out one step of the figure: one phase, or as many as it has steps, with stops between them.
func (l *layout) step(step Step, side breath.Through) {
	s := l.set
	counts := step.counts(s)
	if counts == 0 {
		return
	}
	ph := Phase{
		Kind: step.Phase, Through: step.through(s), Breath: l.breaths, Counts: counts, Parts: step.parts(s, counts, side),
		Word: s.WordBefore, Place: l.place,
	}
	if l.practice.Kind.HasOpenPhases() {
		ph.Timed, ph.Waits, ph.Length = true, true, s.Open[step.role()]
	}
	stop := Step{Counts: step.Stop}
	if step.Steps < 2 || stop.counts(Setting{Counts: s.Stops}) == 0 {
		l.phases = append(l.phases, ph)
		return
	}
	for k, share := range shares(counts, step.Steps) {
		if length := stop.counts(s); k > 0 && length > 0 {
			held := Phase{
				Kind: breath.OfABreath[stop.role()], Breath: l.breaths, Counts: length, Word: s.WordBefore,
				Place: l.place + 2*k - 1,
			}
			l.phases = append(l.phases, held)
		}
		ph.Counts, ph.Place = share, l.place+2*k
		l.phases = append(l.phases, ph)
	}
}

// shares shares counts over steps: alike, and what is left over to the first ones.
func shares(counts, steps int) []int {
	list := make([]int, steps)
	for i := range list {
		list[i] = counts / steps
		if i < counts%steps {
			list[i]++
		}
	}
	return list
}

// MostSteps returns in how many steps the figure breathes a phase, which needs as many counts; 1 where it has no steps.
func (p *Practice) MostSteps() int {
	most := 1
	for _, step := range p.Figure {
		most = max(most, step.Steps)
	}
	return most
}

// role returns which of a:b:c:d the step's counts are, from 0; -1 where they are none of these.
func (s Step) role() int { return slices.Index(fourRoles, s.Counts) }

func (s Step) counts(set Setting) int {
	if s.Counts == "strokes" {
		return set.Strokes
	}
	if role := s.role(); role >= 0 {
		return set.Counts.Four()[role]
	}
	n, _ := strconv.Atoi(s.Counts) // checked when the practice was read
	return n
}

func (s Step) through(set Setting) breath.Through {
	switch s.Through {
	case "airway":
		return set.Airway.Of(s.Phase)
	case "start":
		return set.Start
	case "other":
		return set.Start.Other()
	}
	return breath.Through(s.Through)
}

func (s Step) parts(set Setting, counts int, side breath.Through) []string {
	switch {
	case len(s.Move) == 2 && side == breath.Left:
		return s.Move[1:]
	case len(s.Move) == 2 && side == breath.None:
		return nil
	case len(s.Move) > 0:
		return s.Move[:1]
	case len(s.Parts) == 0:
		return nil
	}
	switch s.Parts[0] {
	case "zones up", "zones down":
		if set.Zone != "all" {
			return []string{set.Zone}
		}
		zones := Zones(counts)
		if s.Parts[0] == "zones down" {
			slices.Reverse(zones)
		}
		return zones
	case "aperture":
		if s.Phase.Begins() {
			return []string{set.Aperture.Inhale}
		}
		return []string{set.Aperture.Exhale}
	}
	return s.Parts
}

// zones are the three of a full breath, the lowest first, and the share of its counts that each is taught to have, in
// tenths: a teaching figure of common practice, not anatomy.
var zones = [3]struct {
	name  string
	share int
}{{"belly", 6}, {"ribs", 3}, {"chest", 1}}

// LeastZoned is the least number of counts that three zones can share.
const LeastZoned = len(zones)

// Zones returns the zone of each of n counts, from below: each zone gets one, and every further count goes to the zone
// that is furthest below its share, the lower first where two are equal (pacing.md section 3).
func Zones(n int) []string {
	has := [3]int{1, 1, 1}
	for range n - len(has) {
		lowest, short := 0, -10*n
		for i, zone := range zones {
			if missing := zone.share*n - 10*has[i]; missing > short {
				lowest, short = i, missing
			}
		}
		has[lowest]++
	}
	list := make([]string, 0, n)
	for i, zone := range zones {
		for range has[i] {
			list = append(list, zone.name)
		}
	}
	return list
}
