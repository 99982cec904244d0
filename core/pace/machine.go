package pace

import (
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/words"
)

// machine is the state of a class at one row. Copies are cheap and independent: what is shared is never changed in
// place, only replaced (see copy).
type machine struct {
	plan *plan.Plan
	led  bool // what waits has no end; otherwise it ends as planned
	over bool // at is the end of the class

	pulse breath.Pulse // the stretch of equal rows in which the row in progress stands
	beat  int          // the row of it
	tempo breath.Exact // that the pulse runs at, 0 if it is no counted one
	row   Row          // the row in progress as it is printed, without its length

	passage int    // from 0
	live    []live // by passage
	stage   Stage
	unit    []practice.Phase // what the stage is made of; never changed in place
	phase   int              // the one in progress
	count   int              // the row of it
	hold    breath.Exact     // the tempo of the hold in progress, which may be quicker than the passage's, never slower

	leads   Stage // what a setup or a pause belongs to: opening, round, own, recall or closing
	round   int   // in progress; in a rest the one just finished, in a setup or a pause the one to come
	current round // what the round in progress is breathed by
	holds   holds
	spent   breath.Exact // kept rounds and rests of this passage, as they really were
	since   breath.Exact // where the round or rest in progress began or went on
	ownLeft breath.Exact // what was left of a stretch at own pace when it was paused, milliseconds
	recall  breath.Exact // how long people are called back, where that was given, milliseconds
	begun   int          // the last round that has begun: one that starts over is no new one

	lane     laneMark // of the next row that is made
	laneNext bool     // once the row in progress is over, the lane asks anew
	runsOn   bool     // the lane goes on from the round that is over to the next one

	rows  []Row // done
	first int   // the first row of the round in progress
	blind bool  // only where the class comes to is wanted: no rows are made

	figure  figure
	metHere metHere
}

// figure is one round of a passage at a measure, kept since most rounds are like the one before.
type figure struct {
	passage int
	measure plan.Measure
	phases  []practice.Phase // never changed
}

// roundAt returns one round at the measure.
func (m *machine) roundAt(measure plan.Measure) []practice.Phase {
	if m.figure.phases == nil || m.figure.passage != m.passage || m.figure.measure != measure {
		m.figure = figure{m.passage, measure, m.here().Round(measure)}
	}
	return m.figure.phases
}

// recount gives the phase in progress another number of counts.
func (m *machine) recount(counts int) {
	m.unit = slices.Clone(m.unit)
	m.unit[m.phase].Counts = counts
}

// live is what of a passage can be changed while the class is led.
type live struct {
	plan.Measure               // of the next round that starts; its tempo counts at once
	total        int           // rounds
	pinned       bool          // no longer follows the passage's minutes
	byHand       plan.Hand     // the phases that wait for the teacher, from the next one that starts
	dropped      bool          // of a later passage: it begins without holds
	remembered   breath.Counts // its counts when they were dropped
	beside       plan.Beside   // from the next row on
}

// round is the round in progress, as far as it differs from the next.
type round struct {
	counts  breath.Counts // as eased so far
	strokes int           // as lessened so far
	shown   bool          // a row of it is done
	paused  bool          // a round of strokes waits, in a pause or the lead-in after it, for those that are left
	done    int           // strokes done before it was paused
	began   breath.Counts // as it started
	before  breath.Exact  // what it took before it was paused, milliseconds

	becameLast bool // as it started
}

// holds is what drop-holds has done to the passage in progress.
type holds struct {
	dropped                    bool
	remembered                 breath.Counts // the holds of the next round when they were dropped
	openingBegun, closingBegun bool
	openingFlat, closingFlat   bool // has begun and stays without holds, also when it starts over
}

func start(p *plan.Plan, led bool) machine {
	m := machine{plan: p, led: led, live: make([]live, len(p.Passages)), passage: -1, rows: make([]Row, 0, p.Rows())}
	for i := range p.Passages {
		m.live[i].Measure, m.live[i].beside, m.live[i].byHand = p.Passages[i].Measure, p.Passages[i].Beside,
			p.Passages[i].ByHand
		if p.Passages[i].Led() {
			m.live[i].total = p.Passages[i].TotalRounds(p.Passages[i].Measure)
		}
	}
	m.nextPassage()
	m.settle()
	return m
}

func (m *machine) copy() machine {
	c := *m
	c.rows = slices.Clip(m.rows) // the next append of the copy copies
	c.live = slices.Clone(m.live)
	return c
}

// copyWithoutRows returns a copy that keeps no rows.
func (m *machine) copyWithoutRows() machine {
	c := m.copy()
	c.rows, c.first, c.blind = nil, 0, true
	return c
}

func (m *machine) here() *plan.Passage { return &m.plan.Passages[m.passage] }
func (m *machine) inForce() *live      { return &m.live[m.passage] }

// at returns where the row in progress begins, or the end of the class. end is where it will end; of a row that waits
// it is the planned end. Both are in milliseconds.
func (m *machine) at() breath.Exact  { return m.pulse.At(m.beat) }
func (m *machine) end() breath.Exact { return m.pulse.At(m.beat + 1) }

// stand begins a pulse at a position.
func (m *machine) stand(at, step, tempo breath.Exact) {
	m.pulse, m.beat, m.tempo = breath.NewPulse(at, step), 0, tempo
}

// waiting reports whether the row in progress has no end until somebody goes on.
func (m *machine) waiting() bool { return m.led && !m.over && m.unit[m.phase].Waits }

// run goes on to the end of the class, or to the first row that waits.
func (m *machine) run() {
	for !m.over && !m.waiting() {
		if m.blind {
			m.leap()
		}
		m.step()
	}
}

// leap moves to the last row of the phase in progress. Rows that nobody asks for need not be made one by one: those of
// a phase are equally long, unless the tempo was changed in the one in progress.
func (m *machine) leap() {
	ph := &m.unit[m.phase]
	if left := ph.Counts - m.count; left > 0 && !ph.Timed && m.tempo == m.tempoOf(ph) {
		m.beat += left
		m.count += left
	}
}

// runTo goes on to the row that an adjustment at t meets: the one with start <= t < end (pacing.md section 4).
func (m *machine) runTo(t int64) {
	for !m.over && !m.waiting() && m.pulse.Reached(t, m.beat+1) {
		m.step()
	}
}

// projectedEnd returns the end of the class if nothing were adjusted after t.
func (m *machine) projectedEnd(t breath.Exact) breath.Exact {
	if m.over {
		return m.at()
	}
	// Counted from where the row began: after many changes of tempo that is a fraction of many digits, what follows is
	// not.
	began := m.at()
	c := m.copyWithoutRows()
	c.stand(breath.Exact{}, m.rowEnd(t).Sub(began), breath.Exact{})
	c.since = m.since.Sub(began)
	c.led = false
	c.run()
	return began.Add(c.at())
}

// rowEnd returns where the row in progress ends; one that waits is taken to end at its planned end, or at t if that is
// past.
func (m *machine) rowEnd(t breath.Exact) breath.Exact {
	if m.waiting() {
		return breath.Max(m.end(), t)
	}
	return m.end()
}

// step finishes the row in progress and moves to the next.
func (m *machine) step() {
	if !m.pulse.Still() {
		m.print(m.pulse.Round(m.beat + 1))
	} else {
		m.askAnew()
	}
	m.beat++
	m.count++
	m.settle()
}

// cut ends the row in progress at t. The caller then says what follows.
func (m *machine) cut(t breath.Exact) {
	if m.at().Less(t) {
		m.print(t.Round())
	} else {
		m.askAnew()
	}
	m.stand(t, breath.Exact{}, breath.Exact{})
}

// skip ends the phase in progress at t and moves to the one after it.
func (m *machine) skip(t breath.Exact) {
	m.cut(t)
	m.toPhase(m.phase + 1)
	m.settle()
}

// print puts the row in progress, ended at the time that is shown, to those done. A row of no exact length is not
// made: that is for the caller to see.
func (m *machine) print(end int64) {
	m.current.shown = m.current.shown || m.stage == Round
	if m.blind {
		return
	}
	m.row.Dur = end - m.row.At
	m.lane = laneMark{}
	m.askAnew()
	m.rows = append(m.rows, m.row)
}

// enter makes the phases of a stage the ones to run; settle then finds the row.
func (m *machine) enter(stage Stage, unit []practice.Phase) {
	m.stage, m.unit = stage, unit
	m.toPhase(0)
}

func (m *machine) toPhase(i int) {
	m.phase = i
	if i < len(m.unit) {
		m.count = m.unit[i].First()
	}
}

// settle moves to the next row that exists, past finished phases, empty stretches and finished stages.
func (m *machine) settle() {
	for !m.over {
		if m.phase >= len(m.unit) {
			m.follow()
			continue
		}
		ph := &m.unit[m.phase]
		nothing := ph.Timed && ph.Length.Sign() == 0 && !(m.led && ph.Waits)
		if nothing || m.count > ph.Counts {
			m.toPhase(m.phase + 1)
			continue
		}
		if m.count == ph.First() && m.changeWaits(ph) {
			m.waitForChange()
			ph = &m.unit[m.phase]
		}
		if m.count == ph.First() && m.opens(ph) {
			m.open()
			ph = &m.unit[m.phase]
		}
		if ph.Kind.Held() && m.count == ph.First() {
			m.hold = m.runsAt(ph)
		}
		m.measure(ph)
		if !m.blind {
			m.printed(ph)
		}
		return
	}
}

// measure makes sure that the pulse is that of the phase.
func (m *machine) measure(ph *practice.Phase) {
	if ph.Timed {
		m.stand(m.at(), ph.Length, breath.Exact{})
		return
	}
	// The same number may be written in two ways; a new pulse is then begun for nothing, and is right all the same.
	if tempo := m.tempoOf(ph); tempo != m.tempo {
		m.stand(m.at(), breath.CountLength(tempo), tempo)
	}
}

// runsAt returns the tempo that the stage in progress runs at: the rounds' own, or that of what is around them.
func (m *machine) runsAt(ph *practice.Phase) breath.Exact {
	if m.stage == Round {
		return m.here().TempoIn(ph, m.inForce().Measure)
	}
	return m.here().TempoAround(m.inForce().Measure)
}

func (m *machine) tempoOf(ph *practice.Phase) breath.Exact {
	if ph.Kind.Held() && ph == &m.unit[m.phase] {
		return m.hold
	}
	return m.runsAt(ph)
}

// rowLength returns how long one row of the phase lasts from now on, in milliseconds.
func (m *machine) rowLength(ph *practice.Phase) breath.Exact {
	if ph.Timed {
		return ph.Length
	}
	return breath.CountLength(m.tempoOf(ph))
}

// unitEnd returns where the stage in progress will end if the row in progress ends at the given time: the other rows as
// they will run from now on.
func (m *machine) unitEnd(rowEnd breath.Exact) breath.Exact {
	end := rowEnd
	for i := m.phase; i < len(m.unit); i++ {
		ph := &m.unit[i]
		rows := ph.Counts + 1 - ph.First()
		if i == m.phase {
			rows = ph.Counts - m.count
		}
		end = end.Add(m.rowLength(ph).Times(rows))
	}
	return end
}

// printed puts down the row in progress as the cue sheet shows it.
func (m *machine) printed(ph *practice.Phase) {
	row := Row{Shared: m.row.Shared, At: m.pulse.Round(m.beat), Count: m.count, Part: ph.Part(m.count), lane: m.lane}
	if m.count == ph.First() || !m.goesOn(ph) {
		row.share(m.shared(ph))
	}
	if m.stage == Round {
		row.Starts = !m.current.shown
		row.BecameLast = row.Starts && m.current.becameLast
		if row.Beside.Shorter() {
			row.lane.left = m.rowsLeft()
		}
	}
	row.Say = m.say(ph)
	m.row = row
}

// goesOn reports whether the row in progress shares with the one before it of the same phase.
func (m *machine) goesOn(ph *practice.Phase) bool {
	before := m.row.Shared
	return before != nil && before.Stage == m.stage && before.Of == ph.Counts && before.Tempo == m.tempo &&
		before.Beside == m.inForce().beside
}

// shared returns what the rows of the phase share from here on.
func (m *machine) shared(ph *practice.Phase) Shared {
	with := Shared{
		Passage:     m.passage + 1,
		Stage:       m.stage,
		Breath:      ph.Breath,
		Phase:       ph.Kind,
		Through:     ph.Through,
		Of:          ph.Counts,
		Kept:        true,
		Tempo:       m.tempo,
		Open:        ph.Waits,
		Planned:     ph.Planned,
		PlannedBeat: ph.Beat,
		Text:        ph.Text,
		Beside:      m.inForce().beside,
		Verbs:       m.met(),
	}
	if p := m.here(); p.Practice != nil {
		with.Practice = p.Practice.ID
	}
	if m.stage == Round {
		with.Round = m.round
		if ph.Kind == breath.Free {
			with.Text = m.plan.Words.Text(words.ChangeSides)
		}
	}
	return with
}

// meetAnew sees what the row in progress is met by, after an adjustment.
func (m *machine) meetAnew() {
	if m.row.Shared != nil {
		with := *m.row.Shared
		with.Verbs = m.met()
		m.row.share(with)
	}
}

// abandon marks the round in progress as not kept, as it happened so far. Elsewhere it does nothing.
func (m *machine) abandon() {
	if !m.inRound() {
		return
	}
	m.current.paused = false
	if m.blind {
		return
	}
	m.rows = slices.Clone(m.rows)
	abandoned := func(s *Shared) { s.Kept = s.Kept && s.Stage != Round }
	changed(m.rows[m.first:], abandoned)
	with := *m.row.Shared
	abandoned(&with)
	m.row.share(with)
}

// timeline returns the rows so far; where the machine waits, its row has no length.
func (m *machine) timeline() Timeline {
	rows := slices.Clip(m.rows)
	if m.over {
		return Timeline{Rows: rows, End: m.at().Round()}
	}
	row, waits := m.row, m.waiting()
	row.Dur = m.end().Round() - row.At
	if waits {
		row.Dur = -1
	}
	return Timeline{Rows: append(rows, row), End: -1, Open: waits}
}
