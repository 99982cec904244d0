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
)

// stretch is a stretch of breath through one nostril at a time, in which the hand is at the nose: the runs from first to
// before last.
type stretch struct{ first, end int }

// handNeeded tells whether the hand is at the nose in the practice of a run.
func (f *fold) handNeeded(r run) bool { return handAtNose(&f.plan.Passages[r.Passage-1]) }

func oneSided(r run) bool { return r.Through == breath.Left || r.Through == breath.Right }

// goesOn tells whether a stretch goes on in the run.
func (f *fold) goesOn(r run, passage int) bool {
	if r.Passage != passage {
		return false
	}
	return oneSided(r) || r.Phase.Held() || r.Phase == breath.Still || f.lane == Beside && r.Stage == pace.Round && r.Phase == breath.Free
}

func (f *fold) stretches(runs []run) []stretch {
	var list []stretch
	for i := 0; i < len(runs); {
		if !f.handNeeded(runs[i]) || !oneSided(runs[i]) {
			i++
			continue
		}
		end := i + 1
		for end < len(runs) && f.goesOn(runs[end], runs[i].Passage) {
			end++
		}
		list = append(list, stretch{i, end})
		i = end
	}
	return list
}

// hands is what the hand does: up before a stretch, down after it, and at own pace the pattern and where it ends.
func (f *fold) hands(runs []run) []Cue {
	w := f.plan.Words
	var list []Cue
	var raises []int64
	add := func(at, until int64, text string, fingers Fingers) {
		list = append(list, Cue{At: at, Until: until, Who: plan.ForAll, Kind: Hand, Text: text, Fingers: fingers})
	}
	all := f.stretches(runs)
	for _, s := range all {
		if s.first == 0 || runs[s.first-1].Open || slices.ContainsFunc(all, func(o stretch) bool { return o.end == s.first }) {
			continue
		}
		before, start := runs[s.first-1], runs[s.first].At
		at := max(before.At, start-raising)
		add(at, start, w.Text(words.HandUp)+", "+w.Text(words.Then)+" "+w.Shut(runs[s.first].Through.Other()), closing(runs[s.first].Through.Other()))
		raises = append(raises, at)
	}
	for _, s := range all {
		if s.end == len(runs) { // the class ends there
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
	for _, r := range runs {
		if !f.handNeeded(r) {
			continue
		}
		switch r.Stage {
		case pace.Own:
			add(r.At, r.end, sides(&f.plan.Passages[r.Passage-1], w), NoFingers)
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

// Pattern is what is breathed at own pace, in one line: the sides where the hand is at the nose ("in left, out right; in
// right, out left"), elsewhere each phase of a round with its counts ("inhale 4, hold 4, exhale 4").
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

// sides is the sides of a round in one line.
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

// lastOut is where a round ends.
func (f *fold) lastOut(r run) string {
	p := &f.plan.Passages[r.Passage-1]
	var last breath.Through
	for _, ph := range p.Round(p.Measure) {
		if ph.Kind == breath.Exhale {
			last = ph.Through
		}
	}
	return f.plan.Words.Text(out[last])
}
