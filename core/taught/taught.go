// Package taught computes the record of a class, what was planned beside what was taught, from the plan and the
// adjustments and from nothing else.
package taught

import (
	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// Record is what was taught in one class. Times are milliseconds from the start of the class.
type Record struct {
	Planned   int64 // the length of the plan
	Taught    int64 // the length of the class, so far
	Passages  []Passage
	Told      Told          // by those who breathed
	Answers   []pace.Answer // every adjustment, refused ones too, in the order they were made
	SeenAfter []SeenAfter   // signs beside the holds that waited
}

// Passage is one passage of a record. What was not reached has a taught length of 0.
type Passage struct {
	Name          string
	Practice      string
	Pattern       string // one round as planned, in short: counts, strokes or seconds
	OwnPace       bool   // its breaths are not counted by anybody
	Trial         bool
	Point         bool // the plan says that it was what the class was about
	Settling      bool // prepares or closes a class: it is not climbed
	PlannedAt     int64
	PlannedLength int64
	At            int64
	Length        int64
	PlannedRounds int
	Rounds        int // kept
	Abandoned     int
	Type          plan.Type
	PlannedCounts breath.Counts // of counted practices
	Counts        breath.Counts // in force at the end: what the next round would have been
	Strokes       int           // a round, in force at the end; 0 if none are counted
	Eased         bool          // something was made easier for the room: shorter or no holds, fewer counts or strokes
	CutShort      bool          // it was left for the next, or with the end of the class, before it was over
	Round         int64         // the planned length of a round and what is between two, milliseconds
	Bounds        practice.AllBounds
	PlannedTempo  breath.Exact // counts a minute; all tempos are of the rounds, 0 if none was counted
	TempoStart    breath.Exact
	TempoEnd      breath.Exact
	TempoMean     breath.Exact // weighted by time
	PerMinute     breath.Exact // breaths a minute in kept rounds
	LongestHold   int64
	HeldFull      int64 // all the time in full holds, abandoned rounds too
	HeldEmpty     int64
	LeftInhales   int // in kept rounds
	RightInhales  int
	Beside        plan.Beside // the gentler lane in force at the end
	Lanes         []Lane      // the gentler lanes that ran beside, one after the other
	Done          []LedRound  // of strokes and of open practices, each kept round
	Breaths       []LedBreath // that were led by hand, at least in part, in kept rounds

	// How it was breathed and said; empty if the practice has no choice of it.
	Airway    breath.Airway
	Zone      string
	Attention string
	Aperture  practice.Aperture
	Voice     plan.Voice

	handCounts int   // of inhales and exhales by hand, as planned
	handTook   int64 // ms, what they took
}

// LedRound is a round as it was done: its strokes, or how long each of its open phases lasted, in milliseconds.
type LedRound struct {
	Strokes int
	Lasted  [4]int64 // in the order of breath.OfABreath
}

// Totals is what the led passages of a class come to, without try-outs and own pace.
type Totals struct {
	PlannedRounds int
	Rounds        int
	LongestHold   int64
	HeldFull      int64
	HeldEmpty     int64
	LeftInhales   int
	RightInhales  int
}

// Totals adds up the passages.
func (r *Record) Totals() (t Totals) {
	for _, p := range r.Passages {
		if p.Trial || p.OwnPace {
			continue
		}
		t.PlannedRounds += p.PlannedRounds
		t.Rounds += p.Rounds
		t.LongestHold = max(t.LongestHold, p.LongestHold)
		t.HeldFull += p.HeldFull
		t.HeldEmpty += p.HeldEmpty
		t.LeftInhales += p.LeftInhales
		t.RightInhales += p.RightInhales
	}
	return t
}

// Of returns the record of a class led from the plan with the adjustments, as far as the time at, in milliseconds from
// its start. A class that was over by then is recorded whole. A round in progress does not count yet.
func Of(p *plan.Plan, script []pace.Adjustment, at int64) Record {
	class := pace.Begin(p)
	answers := make([]pace.Answer, len(script))
	for i, a := range script {
		answers[i] = class.Adjust(a)
	}
	timeline := class.Timeline()
	taught := Until(timeline, at)
	planned := pace.Sheet(p)
	r := Record{Planned: planned.End, Taught: taught.End, Answers: answers, Passages: make([]Passage, len(p.Passages))}
	for i, led := range class.Passages() {
		r.Passages[i] = blank(&p.Passages[i])
		r.Passages[i].Beside = led.Beside
		if p.Passages[i].TakesCounts() {
			r.Passages[i].PlannedCounts, r.Passages[i].Counts = p.Passages[i].Measure.Counts, led.Counts
		}
		if p.Passages[i].CountsStrokes() {
			r.Passages[i].Strokes = led.Strokes
		}
	}
	for _, a := range pace.Standing(answers) {
		if a.Passage == 0 {
			continue
		}
		of := &r.Passages[a.Passage-1]
		of.Eased = of.Eased || a.Eases() == pace.Eases
		of.CutShort = of.CutShort || a.Do == pace.Next || a.Do == pace.End
	}
	for _, row := range planned.Rows {
		at := &r.Passages[row.Passage-1]
		if at.PlannedLength == 0 {
			at.PlannedAt = row.At
		}
		at.PlannedLength += row.Dur
	}
	for start := 0; start < len(taught.Rows); {
		end := start
		for end < len(taught.Rows) && taught.Rows[end].Passage == taught.Rows[start].Passage {
			end++
		}
		number := taught.Rows[start].Passage - 1
		var kind practice.Kind
		if of := p.Passages[number].Practice; of != nil {
			kind = of.Kind
		}
		r.Passages[number].add(taught.Rows[start:end], kind)
		start = end
	}
	r.SeenAfter = seenAfter(taught.Rows, answers)
	r.addLanes(Until(timeline.Lane(p), at).Rows)
	if n := len(taught.Rows); n > 0 && breaksOff(timeline, n, at) {
		last := &r.Passages[taught.Rows[n-1].Passage-1]
		last.Rounds--
		last.Done = last.Done[:max(0, len(last.Done)-1)]
	}
	return r
}

// Until returns the timeline as far as the time, in milliseconds; a class that was over by then is whole.
func Until(tl pace.Timeline, at int64) pace.Timeline {
	if !tl.Open && tl.End <= at {
		return tl
	}
	cut := pace.Timeline{End: at}
	for _, row := range tl.Rows {
		if row.At >= at {
			break
		}
		if row.Dur < 0 || row.End() > at {
			row.Dur = at - row.At
		}
		cut.Rows = append(cut.Rows, row)
	}
	return cut
}

// breaksOff reports whether the first n rows, as far as the time at, end inside a kept round.
func breaksOff(tl pace.Timeline, n int, at int64) bool {
	last := tl.Rows[n-1]
	if last.Stage != pace.Round || !last.Kept {
		return false
	}
	if last.End() > at {
		return true
	}
	return n < len(tl.Rows) && tl.Rows[n].Stage == pace.Round && tl.Rows[n].Passage == last.Passage && !tl.Rows[n].Starts
}

func blank(p *plan.Passage) Passage {
	blank := Passage{Name: p.Name(), Type: p.Type, OwnPace: p.OwnPace, Trial: p.Trial, Point: p.Point}
	if p.Practice != nil {
		blank.Practice, blank.Pattern, blank.PlannedTempo = p.Practice.ID, p.Pattern(), p.Measure.Tempo
		blank.Voice, blank.Settling = p.Voice, p.Practice.Settling
		if p.Practice.TakesField("airway") {
			blank.Airway = p.Airway
		}
		if p.Practice.TakesField("zone") {
			blank.Zone = p.Zone
		}
		if p.Practice.TakesField("attention") {
			blank.Attention = p.Attention
		}
		if p.Practice.TakesField("aperture") {
			blank.Aperture = p.Aperture
		}
	}
	if p.Led() {
		blank.PlannedRounds = p.TotalRounds(p.Measure)
		blank.Round = p.RoundSpan(p.Measure).Add(p.BetweenSpan(p.Measure)).Round()
		blank.Bounds = p.Practice.Bounds
	}
	return blank
}

// add counts the rows of the passage.
func (p *Passage) add(rows []pace.Row, kind practice.Kind) {
	p.At = rows[0].At
	p.Length = rows[len(rows)-1].End() - p.At
	t := tally{done: kind.CountsStrokes() || kind.HasOpenPhases()}
	for i, row := range rows {
		if i == 0 || startsPhase(rows[i-1], row) {
			t.phase(p, row)
		}
		t.row(p, row)
	}
	p.onlyByHand()
	if t.counted > 0 {
		p.TempoMean = t.weighted.Div(breath.Int(t.counted))
	}
	if t.kept > 0 {
		p.PerMinute = breath.Ratio(60_000*t.breaths, t.kept)
	}
}

func startsPhase(before, row pace.Row) bool {
	return row.Starts || before.Phase != row.Phase || before.Breath != row.Breath || before.Stage != row.Stage
}

// tally is what is summed up over the rows of a passage.
type tally struct {
	hold     int64        // the hold in progress
	counted  int64        // time in counted rows of rounds
	weighted breath.Exact // their tempo times their time
	kept     int64        // time in kept rounds
	breaths  int64        // in kept rounds
	breath   int          // the last one that was counted in its round
	done     bool         // what was done is told round by round
}

func (t *tally) phase(p *Passage, row pace.Row) {
	t.hold = 0
	if row.Starts {
		t.breath = 0
		if row.Kept {
			p.Rounds++
			if t.done {
				p.Done = append(p.Done, LedRound{})
			}
		} else {
			p.Abandoned++
		}
	}
	if row.Stage == pace.Round && row.Phase.Begins() && row.Kept && row.Breath != t.breath { // one in steps is one
		t.breath = row.Breath
		t.breaths++
		switch row.Through {
		case breath.Left:
			p.LeftInhales++
		case breath.Right:
			p.RightInhales++
		}
	}
}

func (d *LedRound) add(row pace.Row) {
	if role := row.Phase.Role(); role >= 0 {
		d.Lasted[role] += row.Dur
	} else if row.Phase == breath.Stroke {
		d.Strokes++ // one that was cut by a pause is done (pacing.md section 4)
	}
}

func (t *tally) row(p *Passage, row pace.Row) {
	if row.Phase.Held() {
		t.hold += row.Dur
		p.LongestHold = max(p.LongestHold, t.hold)
		if row.Phase == breath.Hold {
			p.HeldFull += row.Dur
		} else {
			p.HeldEmpty += row.Dur
		}
	}
	if row.Stage != pace.Round {
		return
	}
	if row.Kept {
		t.kept += row.Dur
		if t.done {
			p.Done[len(p.Done)-1].add(row)
		} else {
			p.breathe(row)
		}
	}
	if row.Tempo.Sign() > 0 {
		if p.TempoStart.Sign() == 0 {
			p.TempoStart = row.Tempo
		}
		p.TempoEnd = row.Tempo
		t.counted += row.Dur
		t.weighted = t.weighted.Add(row.Tempo.Mul(breath.Int(row.Dur)))
	}
}
