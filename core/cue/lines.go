package cue

import (
	"slices"
	"sort"

	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
)

const (
	secondLasts = 8000            // ms for which a line at a second of its stage is there
	longestWait = 2 * 60 * 60_000 // ms for which lines are laid out in a row that waits
)

// span is a stretch of time, in milliseconds.
type span struct{ at, until int64 }

// place is where a line belongs.
type place struct {
	span
	waits bool  // the row directly before it waits for the teacher
	since int64 // when that row began
}

// lines returns the teacher's own words at their places (cues.md section 3).
func (f *fold) lines(rows []pace.Row) []Cue {
	var list []Cue
	f.eachLine(rows, func(line *plan.Line, number int64, places []place) {
		for _, s := range joined(places, line.Ahead.Times(1000).Round()) {
			list = append(
				list,
				Cue{At: s.at, Until: s.until, Who: line.Who, Kind: Line, Text: line.Text, Say: line.Say, key: number},
			)
		}
	})
	return list
}

// saidPlaces returns where the lines are said that the voice says.
func (f *fold) saidPlaces() []Spoken {
	var list []Spoken
	f.eachLine(f.state.rows, func(line *plan.Line, _ int64, places []place) {
		for _, s := range places {
			if line.Say {
				list = append(list, Spoken{s.at, line.Who, line.Text})
			}
		}
	})
	return list
}

// mostInPassage is more than the lines that a passage can have, with those that its prompts are read as.
const mostInPassage = 1 << 20

// eachLine is every line with its number and its places.
func (f *fold) eachLine(rows []pace.Row, do func(line *plan.Line, number int64, places []place)) {
	for start := 0; start < len(rows); {
		end := start + 1
		for end < len(rows) && rows[end].Passage == rows[start].Passage {
			end++
		}
		p := &f.plan.Passages[rows[start].Passage-1]
		for n := range p.Lines {
			places := placesOf(&p.Lines[n], rows, start, end, f.state.totals[rows[start].Passage-1].Total)
			do(&p.Lines[n], int64(rows[start].Passage*mostInPassage+n), places)
		}
		start = end
	}
}

// joined gives each place its time ahead; what is still there when the next comes goes on. Where what comes before
// waits for the teacher, nobody knows when the place begins: the line is there as long as the waiting.
func joined(places []place, ahead int64) []span {
	var list []span
	for _, s := range places {
		at := max(0, s.at-ahead)
		if ahead > 0 && s.waits {
			at = s.since
		}
		if n := len(list); n > 0 && at <= list[n-1].until {
			list[n-1].until = max(list[n-1].until, s.until)
			continue
		}
		list = append(list, span{at, s.until})
	}
	return list
}

// placesOf returns the places of a line in the rows of its passage, from start to end; total is the passage's current
// rounds.
func placesOf(line *plan.Line, rows []pace.Row, start, end, total int) []place {
	if line.Second.Sign() >= 0 {
		return secondsOf(line, rows[start:end])
	}
	var places []place
	round, before := 0, -2 // the round that is or was in progress; the last row that belongs to the line
	for i := start; i < end; i++ {
		row := rows[i]
		if row.Round > 0 {
			round = row.Round
		}
		if !belongs(line, row, round, total) {
			continue
		}
		until := row.At + max(row.Dur, 0)
		if before == i-1 && unbroken(line, rows[before], row) {
			places[len(places)-1].until = until
		} else {
			one := place{span: span{row.At, until}}
			if i > 0 && rows[i-1].Open {
				one.waits, one.since = true, rows[i-1].At
			}
			places = append(places, one)
		}
		before = i
	}
	return places
}

func belongs(line *plan.Line, row pace.Row, round, total int) bool {
	if line.LastRound {
		last := total
		if row.Stage == pace.Rest {
			last-- // the rest before it
		}
		if round != last {
			return false
		}
	}
	switch {
	case string(row.Stage) != line.Stage:
		return false
	case line.First > 0 && (round < line.First || round > line.Last):
		return false
	case line.Breath > 0 && row.Breath != line.Breath:
		return false
	case line.Through != "" && row.Through != line.Through:
		return false
	case line.Part != "" && row.Part != line.Part:
		return false
	}
	return line.Phase == "" || row.Phase == line.Phase
}

// unbroken reports whether two rows that follow each other are of one place.
func unbroken(line *plan.Line, before, row pace.Row) bool {
	switch {
	case row.Starts:
		return false
	case line.Phase != "":
		return row.Phase == before.Phase && row.Breath == before.Breath
	case line.Breath > 0 || line.Through != "" || line.Part != "":
		return row.Breath == before.Breath
	}
	return true
}

// secondsOf returns where a line stands that comes at a second of its stage, or again and again from that second on.
func secondsOf(line *plan.Line, rows []pace.Row) []place {
	first, last := -1, -1
	for i, row := range rows {
		if string(row.Stage) == line.Stage {
			if first < 0 {
				first = i
			}
			last = i
		}
	}
	if first < 0 {
		return nil
	}
	stageEnd := rows[last].At + max(rows[last].Dur, 0)
	if stageEnd >= far && rows[last].At < far {
		stageEnd = rows[last].At + longestWait
	}
	end := rows[len(rows)-1].At + max(rows[len(rows)-1].Dur, 0)
	at, every := rows[first].At+line.Second.Times(1000).Round(), line.Every.Times(1000)
	var places []place
	for n := 0; ; n++ {
		begins := at + every.Times(n).Round()
		if begins >= stageEnd {
			return places // not reached
		}
		places = append(places, place{span: span{begins, min(begins+secondLasts, end)}})
		if every.Sign() == 0 {
			return places
		}
	}
}

// Advise tells the lines of a plan that fit nowhere in their passage: its stage, round, breath or phase is not in the
// plan as written, or its second comes after the end (cues.md section 3).
func Advise(p *plan.Plan) (list []plan.Advice) {
	if !slices.ContainsFunc(p.Passages, func(one plan.Passage) bool { return len(one.Lines) > 0 }) {
		return nil
	}
	reached := Reached(p, pace.Sheet(p).Rows, pace.Begin(p).Passages())
	for i := range p.Passages {
		for n, there := range reached[i] {
			if !there {
				list = append(list, plan.Advice{
					Passage: i + 1, Say: fact.New("advice.line-fits-nowhere", "text", p.Passages[i].Lines[n].Text),
					Why: fact.New("advice.line-fits-nowhere.why"),
				})
			}
		}
	}
	return list
}

// Reached reports of each line of each passage whether its place comes in the rows of a class. The totals are what is
// in force in each passage.
func Reached(p *plan.Plan, rows []pace.Row, totals []pace.Passage) [][]bool {
	reached := make([][]bool, len(p.Passages))
	for i := range p.Passages {
		lines := p.Passages[i].Lines
		start := sort.Search(len(rows), func(n int) bool { return rows[n].Passage >= i+1 })
		end := sort.Search(len(rows), func(n int) bool { return rows[n].Passage > i+1 })
		reached[i] = make([]bool, len(lines))
		for n := range lines {
			reached[i][n] = len(placesOf(&lines[n], rows, start, end, totals[i].Total)) > 0
		}
	}
	return reached
}
