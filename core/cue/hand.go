package cue

import (
	"slices"
	"strconv"
	"strings"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/words"
)

const (
	raising  = 6000 // ms before a stretch in which the hand comes up
	lowering = 6000 // ms after it in which the hand comes down
	sealing  = 2000 // ms in which both nostrils are closed for a hold
)

// stretch is where the hand is at the nose: the runs from first to before last.
type stretch struct {
	first, end int
	kind       stretchKind
	closes     breath.Through // the side that is closed for its first breath
}

type stretchKind int

const (
	oneAtATime stretchKind = iota // breath through one nostril at a time
	ownPace                       // the same at everybody's own pace
	narrowed                      // both nostrils, narrowed
)

// handNeeded reports whether the hand closes nostrils in the practice of a run.
func (f *fold) handNeeded(r run) bool { return handAtNose(&f.plan.Passages[r.Passage-1]) }

func oneSided(r run) bool { return r.Through == breath.Left || r.Through == breath.Right }

// narrows reports whether both nostrils are narrowed in a run.
func (f *fold) narrows(r run) bool {
	p := &f.plan.Passages[r.Passage-1]
	if r.Stage != pace.Round || !p.Practice.TakesField("aperture") || p.Aperture.Width() != "narrow" {
		return false
	}
	return r.Phase.Moves() || f.between(r)
}

// between reports whether a run is what comes between the breaths of a stretch.
func (f *fold) between(r run) bool {
	return r.Phase.Held() || r.Phase == breath.Still || f.lane == Beside && r.Stage == pace.Round && r.Phase == breath.Free
}

// stretchAt returns the stretch that begins with a run; false if none does.
func (f *fold) stretchAt(runs []run, i int) (stretch, bool) {
	r := runs[i]
	s := stretch{first: i, end: i + 1}
	switch {
	case f.handNeeded(r) && oneSided(r):
		s.closes = r.Through.Other()
	case f.handNeeded(r) && r.Stage == pace.Own:
		p := &f.plan.Passages[r.Passage-1]
		s.kind, s.closes = ownPace, p.Round(p.Measure)[0].Through.Other()
		return s, true
	case f.narrows(r):
		s.kind = narrowed
	default:
		return s, false
	}
	goesOn := func(next run) bool {
		if next.Passage != r.Passage {
			return false
		}
		if s.kind == narrowed {
			return f.narrows(next)
		}
		return oneSided(next) || f.between(next)
	}
	for s.end < len(runs) && goesOn(runs[s.end]) {
		s.end++
	}
	return s, true
}

func (f *fold) stretches(runs []run) []stretch {
	var list []stretch
	for i := 0; i < len(runs); {
		s, begins := f.stretchAt(runs, i)
		if begins {
			list = append(list, s)
		}
		i = s.end
	}
	return list
}

// raise returns when the hand comes up for a stretch: at the end of what comes before it. Where that waits, or nothing
// comes before, at own pace it comes up as the stretch begins.
func (f *fold) raise(runs []run, s stretch) (at, until int64, there bool) {
	start := runs[s.first].At
	if s.first > 0 {
		switch before := runs[s.first-1]; {
		case before.Open && before.Phase.Led():
			return before.At, start, true
		case !before.Open:
			return max(before.At, start-raising), start, true
		}
	}
	return start, min(start+raising, runs[s.first].end), s.kind == ownPace
}

// hands returns what the hand does: up before a stretch, down after it, and at own pace the pattern and where it ends.
func (f *fold) hands(runs []run) []Cue {
	w := f.plan.Words
	var list []Cue
	var raises []int64
	add := func(at, until int64, text string, fingers Fingers) {
		list = append(list, Cue{At: at, Until: until, Who: plan.ForAll, Kind: Hand, Text: text, Fingers: fingers})
	}
	all := f.stretches(runs)
	raised := map[int]int64{} // until when, by the first run of a stretch at own pace
	for _, s := range all {
		if slices.ContainsFunc(all, func(o stretch) bool { return o.end == s.first && o.kind != ownPace }) {
			continue
		}
		at, until, there := f.raise(runs, s)
		if !there {
			continue
		}
		if s.kind == narrowed {
			add(at, until, w.Text(words.HandUp)+", "+w.Text(words.BothNarrow), Narrow)
		} else {
			add(at, until, w.Text(words.HandUp)+", "+w.Text(words.Then)+" "+w.Shut(s.closes), closing(s.closes))
		}
		raises = append(raises, at)
		if s.kind == ownPace {
			raised[s.first] = max(until, runs[s.first].At)
		}
	}
	for _, s := range all {
		if s.end == len(runs) || s.kind == ownPace { // the class ends there, or the recall has the hand down
			continue
		}
		from := runs[s.end].At
		ledAgain := func(o stretch) bool {
			return o.first == s.end || o.first == s.end+1 && runs[s.end].Phase == breath.Lead
		}
		if slices.ContainsFunc(all, ledAgain) {
			continue
		}
		until := min(from+lowering, f.state.end)
		for _, raise := range raises {
			if raise >= from {
				until = min(until, raise)
				break
			}
		}
		add(from, until, w.Text(words.HandDown), Lower)
	}
	for i, r := range runs {
		if !f.handNeeded(r) {
			continue
		}
		switch r.Stage {
		case pace.Round:
			if f.plan.Passages[r.Passage-1].Seal && r.Phase == breath.Hold {
				add(r.At, min(r.end, r.At+sealing), w.Text(words.Seal), CloseBoth)
			}
		case pace.Own:
			add(max(r.At, raised[i]), r.end, sides(&f.plan.Passages[r.Passage-1], w), NoFingers)
		case pace.Recall:
			until := r.end
			for _, raise := range raises {
				if raise >= r.At {
					until = min(until, raise)
					break
				}
			}
			add(r.At, until, w.Text(words.Finish)+", "+f.lastOut(r)+", "+w.Text(words.HandDown), NoFingers)
		}
	}
	return list
}

var (
	in  = map[breath.Through]string{breath.Left: words.InLeft, breath.Right: words.InRight}
	out = map[breath.Through]string{breath.Left: words.OutLeft, breath.Right: words.OutRight}
)

// Pattern returns what is breathed at own pace, in one line: the sides where the hand is at the nose ("in left, out
// right; in right, out left"), elsewhere each phase of a round with its counts ("inhale 4, hold 4, exhale 4").
func Pattern(p *plan.Passage, round []pace.Row, of *plan.Plan) string {
	if handAtNose(p) {
		return sides(p, of.Words)
	}
	var phases []string
	for i := range round {
		row := &round[i]
		if i+1 < len(round) && round[i+1].Follows(row) || row.Phase == breath.Still {
			continue
		}
		word, side, _ := Words(row, of)
		text := strings.TrimSpace(word + " " + side)
		if row.Phase != breath.Free && !row.Open {
			text += " " + strconv.Itoa(row.Of)
		}
		phases = append(phases, text)
	}
	return strings.Join(slices.Compact(phases), ", ")
}

// sides returns the sides of a round in one line.
func sides(p *plan.Passage, w *words.Words) string {
	var breaths []string
	for _, ph := range p.Round(p.Measure) {
		switch ph.Kind {
		case breath.Inhale:
			breaths = append(breaths, w.Text(in[ph.Through]))
		case breath.Exhale:
			breaths[len(breaths)-1] += ", " + w.Text(out[ph.Through])
		}
	}
	return strings.Join(slices.Compact(breaths), "; ")
}

// lastOut returns where a round ends.
func (f *fold) lastOut(r run) string {
	p := &f.plan.Passages[r.Passage-1]
	var last breath.Through
	for _, ph := range p.Round(p.Measure) {
		if ph.Kind == breath.Exhale {
			last = ph.Through
		}
	}
	if last == breath.Right {
		return f.plan.Words.Text(words.EndRight)
	}
	return f.plan.Words.Text(words.EndLeft)
}
