package cue

import (
	"slices"
	"sort"

	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

const (
	calling       = 6000 // ms for which a call is there
	noticed       = 2000 // ms that something said before a round must have
	halvesFrom    = 6    // rounds
	halvesLonger  = 180_000
	minuteFrom    = 180_000 // planned ms from which a minute is called
	halfMinFrom   = 60_000
	minuteLeft    = 60_000
	halfMinLeft   = 30_000
	everyNthRound = 3 // if there are no rests a prompt comes with each third round
)

// rounds holds the kept rounds of a passage by number.
type rounds struct {
	starts map[int]int   // the run in which it begins
	ends   map[int]int64 // where it ends
}

func roundsOf(runs []run, passage int) rounds {
	r := rounds{map[int]int{}, map[int]int64{}}
	from, to := ofPassage(runs, passage)
	for i := from; i < to; i++ {
		one := runs[i]
		if one.Stage != pace.Round || !one.Kept {
			continue
		}
		if _, known := r.starts[one.Round]; !known {
			r.starts[one.Round] = i
		}
		r.ends[one.Round] = one.end
	}
	return r
}

// calls returns the last round, half way, and a minute and half a minute before the end, in every passage.
func (f *fold) calls(runs []run) []Cue {
	var list []Cue
	for i := range f.plan.Passages {
		if f.plan.Passages[i].Type == plan.Practice {
			list = append(list, f.callsOf(runs, i)...)
		}
	}
	for _, e := range f.given {
		if e.total == 0 || f.state.totals[e.passage].Total == e.total {
			c := e.cue
			c.Until = min(c.Until, endOf(runs, e.passage+1)) // the passage may have been left since
			list = append(list, c)
		}
	}
	return list
}

// endOf returns where the last run of a passage ends.
func endOf(runs []run, passage int) int64 {
	from, to := ofPassage(runs, passage)
	if from == to {
		return 0
	}
	return runs[to-1].end
}

// ofPassage returns where the runs of a passage begin and end. A class never goes back to an earlier passage.
func ofPassage(runs []run, passage int) (from, to int) {
	from = sort.Search(len(runs), func(i int) bool { return runs[i].Passage >= passage })
	return from, from + sort.Search(len(runs)-from, func(i int) bool { return runs[from+i].Passage > passage })
}

func (f *fold) callsOf(runs []run, i int) []Cue {
	var list []Cue
	p, total := &f.plan.Passages[i], f.state.totals[i].Total
	first, after := ofPassage(runs, i+1)
	if first == after {
		return nil
	}
	end := endOf(runs, i+1)
	add := func(kind Kind, at, until int64) {
		list = append(
			list,
			Cue{
				At:    at,
				Until: min(until, end),
				Who:   plan.ForAll,
				Kind:  kind,
				Text:  f.plan.Words.Text(string(kind)),
				key:   int64(i),
			},
		)
	}
	all := roundsOf(runs, i+1)
	became := f.becameLast(runs, i, all)
	last, there := all.starts[total]
	switch {
	case became >= 0: // as it started: nobody could say so before
		add(Last, runs[became].At, runs[became].At+calling)
	case p.Led() && total >= 2 && there && (runs[last].At > f.from || f.callsLast(i)):
		start := runs[last].At
		add(Last, f.beforeLast(runs, last, total), min(runs[last].end, start+calling))
	}
	if one, began := all.starts[1]; p.Led() && total >= halvesFrom && there && began &&
		f.state.length(runs[one].At, all.ends[total]) >= halvesLonger {
		if half, comes := all.starts[total/2+1]; comes {
			add(Half, runs[half].At, min(runs[half].end, runs[half].At+calling))
		}
	}
	from, to, timed := f.timed(runs, i, all, total)
	planned := p.Millis().Round()
	if p.OwnPace {
		planned = p.OwnSpan().Round()
	}
	if !timed || planned == 0 || f.byHand(i) {
		return list
	}
	for _, c := range []struct {
		kind         Kind
		left, longer int64
	}{{Minute, minuteLeft, minuteFrom}, {HalfMinute, halfMinLeft, halfMinFrom}} {
		once := slices.ContainsFunc(f.given, func(e event) bool { return e.passage == i && e.cue.Kind == c.kind })
		if at := to - c.left; at >= from && planned >= c.longer && !once {
			add(c.kind, at, at+calling)
		}
	}
	return list
}

// becameLast returns the run with which a round begins that becomes the last as it starts; -1 if there is none. Once it
// has begun, it is the last as long as the total says so.
func (f *fold) becameLast(runs []run, i int, all rounds) int {
	for number, first := range all.starts {
		if runs[first].BecameLast && (runs[first].At > f.from || f.state.totals[i].Total == number) {
			return first
		}
	}
	return -1
}

// byHand reports whether a phase of the passage's rounds waits for the teacher, at this point.
func (f *fold) byHand(i int) bool {
	p, now := &f.plan.Passages[i], f.state.totals[i]
	if now.ByHand == 0 || !p.Led() {
		return false
	}
	return slices.ContainsFunc(p.Round(now.Measure), func(ph practice.Phase) bool { return now.ByHand.Has(ph.Kind) })
}

// callsLast reports whether the last round was being called already when things came to stand as they do: once it has
// begun, it is no longer called.
func (f *fold) callsLast(passage int) bool {
	return slices.ContainsFunc(
		f.cues,
		func(c Cue) bool { return c.Kind == Last && c.key == int64(passage) && c.At < f.from && c.lasts(f.from) },
	)
}

// beforeLast returns when the call of the last round begins, which begins in that run.
func (f *fold) beforeLast(runs []run, last, total int) int64 {
	start := runs[last].At
	passage := runs[last].Passage
	for i := last - 1; i >= 0 && runs[i].Passage == passage; i-- {
		if runs[i].Stage == pace.Rest {
			return runs[i].At
		}
		if runs[i].Stage != pace.Setup && runs[i].Stage != pace.Pause {
			break
		}
	}
	at, byHand := start, false
	for i := last - 1; i >= 0 && runs[i].Passage == passage; i-- {
		r := runs[i]
		if r.Stage == pace.Round && r.Kept && r.Round == total-1 {
			if at == start {
				at = r.At // its last run
			}
			byHand = byHand || r.Planned > 0
		}
	}
	if byHand {
		return at
	}
	at = start
	for i := last - 1; i >= 0 && runs[i].Passage == passage; i-- {
		r := runs[i]
		if r.Stage != pace.Round || !r.Kept || r.Round != total-1 {
			if r.Stage == pace.Round && r.Kept && r.Round < total-1 {
				break
			}
			continue
		}
		at = r.At // of the round, if no run of it is early enough
		if r.At <= start-noticed {
			break
		}
	}
	return max(at, start-calling)
}

// timed returns from where to where the rounds of a passage last, or its stretch at own pace, as they are.
func (f *fold) timed(runs []run, i int, all rounds, total int) (from, to int64, there bool) {
	if f.plan.Passages[i].Led() {
		one, began := all.starts[1]
		end, ends := all.ends[total]
		if !began || !ends {
			return 0, 0, false
		}
		return runs[one].At, end, true
	}
	for _, r := range runs {
		if r.Passage == i+1 && r.Stage == pace.Own {
			if !there {
				from, there = r.At, true
			}
			to = r.end
		}
	}
	return from, to, there
}

// prompts returns those of each practice, over and over: with rests and pauses, and with every third round if there are
// no rests. One is left out where a call or a line for the teacher is there.
func (f *fold) prompts(runs []run, calls, lines []Cue) []Cue {
	var list []Cue
	passage, number := 0, 0
	for i, r := range runs {
		if r.Passage != passage {
			passage, number = r.Passage, 0
		}
		p := &f.plan.Passages[r.Passage-1]
		if p.Type != plan.Practice || len(p.Practice.Prompts) == 0 ||
			!promptWith(runs, i, p, f.state.totals[r.Passage-1].Total) {
			continue
		}
		prompt, next := nextPrompt(p, r.Stage, number)
		if prompt == "" {
			continue
		}
		number = next
		taken := func(c Cue) bool {
			return c.Who != plan.ForRoom && c.At < r.end && (c.Until == Open || r.At < c.Until)
		}
		if !slices.ContainsFunc(calls, taken) && !slices.ContainsFunc(lines, taken) {
			list = append(list, Cue{At: r.At, Until: r.end, Who: plan.ForTeacher, Kind: Prompt, Text: prompt, key: r.At})
		}
	}
	return list
}

// nextPrompt returns the next prompt from a number on that is for the passage and the stage, and the number after it.
// What is not for it is passed over; empty if none is.
func nextPrompt(p *plan.Passage, stage pace.Stage, number int) (text string, next int) {
	values := map[string]string{
		"zone":      p.Zone,
		"attention": p.Attention,
		"width":     p.Aperture.Width(),
		"airway":    string(p.Airway),
		"stage":     string(stage),
	}
	prompts := p.Practice.Prompts
	for i := range prompts {
		if one := prompts[(number+i)%len(prompts)]; one.Fits(values) {
			return one.Text, number + i + 1
		}
	}
	return "", number
}

// promptWith reports whether a prompt comes with the run; total is the passage's current rounds. After the last round
// nothing follows for which it could be said.
func promptWith(runs []run, i int, p *plan.Passage, total int) bool {
	r := runs[i]
	switch {
	case r.Stage == pace.Rest || r.Stage == pace.Pause:
		return true
	case r.Stage != pace.Round || p.HasRests() || r.Round%everyNthRound != 0 || !r.Kept || r.Round == total:
		return false
	}
	return i+1 == len(runs) || runs[i+1].Stage != pace.Round || runs[i+1].Starts
}
