package cue

import (
	"slices"
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

// handNeeded tells whether the practice of a run breathes through one nostril at a time.
func (f *fold) handNeeded(r run) bool {
	p := &f.plan.Passages[r.Passage-1]
	return p.Type == plan.Practice && p.Practice.Sided()
}

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
	add := func(at, until int64, text string) {
		list = append(list, Cue{At: at, Until: until, Who: plan.ForAll, Kind: Hand, Text: text})
	}
	all := f.stretches(runs)
	for _, s := range all {
		if s.first == 0 || runs[s.first-1].Open || slices.ContainsFunc(all, func(o stretch) bool { return o.end == s.first }) {
			continue
		}
		before, start := runs[s.first-1], runs[s.first].At
		at := max(before.At, start-raising)
		add(at, start, w.Text(words.HandUp)+", "+w.Text(words.Then)+" "+w.Shut(runs[s.first].Through.Other()))
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
		add(from, until, w.Text(words.HandDown))
	}
	for _, r := range runs {
		if !f.handNeeded(r) {
			continue
		}
		switch r.Stage {
		case pace.Own:
			add(r.At, r.end, f.pattern(r))
		case pace.Recall:
			until := r.end
			for _, raise := range raises {
				if raise >= r.At {
					until = min(until, raise)
					break
				}
			}
			add(r.At, until, w.Text(words.Finish)+", "+f.lastOut(r)+", "+w.Text(words.HandDown))
		}
	}
	return list
}

var (
	in  = map[breath.Through]string{breath.Left: words.InLeft, breath.Right: words.InRight}
	out = map[breath.Through]string{breath.Left: words.OutLeft, breath.Right: words.OutRight}
)

// pattern is a round at own pace in one line: "in left, out right; in right, out left".
func (f *fold) pattern(r run) string {
	p := &f.plan.Passages[r.Passage-1]
	var breaths []string
	for _, ph := range p.Round(p.Measure) {
		switch ph.Kind {
		case breath.Inhale:
			breaths = append(breaths, f.plan.Words.Text(in[ph.Through]))
		case breath.Exhale:
			breaths[len(breaths)-1] += ", " + f.plan.Words.Text(out[ph.Through])
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
