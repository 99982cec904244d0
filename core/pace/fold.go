package pace

import (
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// machine stands in one row of a class. Copies are cheap and independent: slices are shared and never changed in
// place, only replaced (see copy).
type machine struct {
	plan *plan.Plan
	led  bool // what waits has no end; otherwise it ends as planned
	over bool // at is the end of the class

	at, end breath.Exact // of the row in progress; the end of a row that waits is its planned one
	row     Row          // the row in progress as it is printed, without its length

	passage int    // from 0
	live    []live // by passage
	stage   Stage
	unit    []practice.Phase // what the stage is made of
	phase   int              // the one in progress
	count   int              // the row of it
	hold    breath.Exact     // the tempo of the hold in progress, which may be quicker than the passage's, never slower

	round int          // in progress; in a rest the one just finished, in a setup or a pause the one to come
	leads Stage        // what a setup or a pause belongs to: opening, round, own or closing
	spent breath.Exact // kept rounds and rests of this passage, as they really were
	since breath.Exact // where the round or rest in progress began
	first int          // the first row of the round in progress

	rows []Row // done
}

// live is what of a passage can be changed while the class is led.
type live struct {
	tempo  breath.Exact // counts a minute of its rounds
	total  int          // rounds
	pinned bool         // no longer follows the passage's minutes
}

func start(p *plan.Plan, led bool) machine {
	m := machine{plan: p, led: led, live: make([]live, len(p.Passages)), passage: -1}
	for i := range p.Passages {
		m.live[i].tempo = p.Passages[i].Tempo
		if p.Passages[i].Led() {
			m.live[i].total = p.Passages[i].TotalRounds(p.Passages[i].Tempo)
		}
	}
	m.nextPassage()
	m.settle()
	return m
}

func (m *machine) copy() machine {
	c := *m
	c.rows = slices.Clip(m.rows) // the next append of either copies
	c.live = slices.Clone(m.live)
	return c
}

func (m *machine) here() *plan.Passage { return &m.plan.Passages[m.passage] }

// waiting tells whether the row in progress has no end until somebody goes on.
func (m *machine) waiting() bool { return m.led && !m.over && m.unit[m.phase].Waits }

// run goes on to the end of the class, or to the first row that waits.
func (m *machine) run() {
	for !m.over && !m.waiting() {
		m.step()
	}
}

// runTo goes on to the row that an adjustment at t meets: the one with start <= t < end (pacing.md section 4).
func (m *machine) runTo(t breath.Exact) {
	for !m.over && !m.waiting() && !t.Less(m.end) {
		m.step()
	}
}

// projected is a copy at the end of the class, if nothing were adjusted after t.
func (m *machine) projected(t breath.Exact) machine {
	c := m.copy()
	if c.waiting() {
		c.end = c.waitEnd(t)
	}
	c.led = false
	c.run()
	return c
}

// waitEnd is where a row that waits is taken to end: at its planned end, or at t if that is past.
func (m *machine) waitEnd(t breath.Exact) breath.Exact { return breath.Max(m.end, t) }

// step finishes the row in progress and stands in the next.
func (m *machine) step() {
	m.print(m.end)
	m.count++
	m.settle()
}

// cut ends the row in progress at t. The caller then says what follows.
func (m *machine) cut(t breath.Exact) { m.print(t) }

// print puts the row in progress, ended at the given time, to those done. A row of no exact length is not made.
func (m *machine) print(end breath.Exact) {
	if m.at.Less(end) {
		m.rows = append(m.rows, m.row)
	}
	m.at = end
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

// settle stands in the next row that is there: past phases that are done, empty stretches and finished stages.
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
		if ph.Kind.Held() && m.count == ph.First() {
			m.hold = m.live[m.passage].tempo
		}
		m.end = m.at.Add(m.rowLength(ph))
		m.row = m.printed(ph)
		return
	}
}

// rowLength is how long one row of the phase lasts from now on, in milliseconds.
func (m *machine) rowLength(ph *practice.Phase) breath.Exact {
	if ph.Timed {
		return ph.Length
	}
	return breath.CountLength(m.tempoOf(ph))
}

func (m *machine) tempoOf(ph *practice.Phase) breath.Exact {
	if ph.Kind.Held() && ph == &m.unit[m.phase] {
		return m.hold
	}
	return m.live[m.passage].tempo
}

// unitEnd is where the stage in progress will end: the row in progress as it is, the others at the tempo in force.
func (m *machine) unitEnd() breath.Exact {
	end := m.end
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

// follow is the order of a class: what comes after the stage that is done (pacing.md section 3).
func (m *machine) follow() {
	switch m.stage {
	case Setup:
		m.begin(m.leads)
	case Opening:
		m.begin(m.body())
	case Round:
		m.spent = m.spent.Add(m.at.Sub(m.since))
		if m.round >= m.live[m.passage].total {
			m.begin(Closing)
			return
		}
		m.begin(Rest)
	case Rest:
		m.spent = m.spent.Add(m.at.Sub(m.since))
		m.round++
		m.begin(Round)
	case Own:
		m.begin(Recall)
	case Recall:
		m.begin(Closing)
	case Pause:
		m.resume()
	default: // talk, free, closing
		m.nextPassage()
	}
}

// body is what stands between opening and closing: rounds, or one stretch at own pace.
func (m *machine) body() Stage {
	if m.here().OwnPace {
		return Own
	}
	return Round
}

// begin starts a stage of the passage from its beginning.
func (m *machine) begin(stage Stage) {
	p := m.here()
	m.since = m.at
	switch stage {
	case Opening:
		m.enter(Opening, p.Opening())
	case Round:
		m.first = len(m.rows)
		m.enter(Round, p.Round(p.Counts))
	case Rest:
		rest := practice.Stretch(breath.Free, p.RestBetween)
		rest.Waits = p.RestWait
		m.enter(Rest, []practice.Phase{rest})
	case Own:
		m.enter(Own, []practice.Phase{practice.Stretch(breath.Free, p.Minutes.Times(60_000))})
	case Recall:
		m.enter(Recall, []practice.Phase{practice.Stretch(breath.Free, p.Recall)})
	case Closing:
		m.enter(Closing, p.Closing())
	}
}

// nextPassage stands at the beginning of the next passage, or at the end of the class.
func (m *machine) nextPassage() {
	m.passage++
	if m.passage >= len(m.plan.Passages) {
		m.over = true
		return
	}
	p := m.here()
	m.round, m.spent, m.since = 1, breath.Exact{}, m.at
	switch p.Type {
	case plan.Talk, plan.Free:
		stretch := practice.Stretch(breath.Phase(p.Type), p.Length)
		stretch.Waits = p.Wait
		m.enter(Stage(p.Type), []practice.Phase{stretch})
	default:
		m.leads = m.body()
		if len(p.Opening()) > 0 {
			m.leads = Opening
		}
		m.enter(Setup, append(p.Beat(), p.Lead()...))
	}
}

// printed is the row in progress as the cue sheet shows it.
func (m *machine) printed(ph *practice.Phase) Row {
	row := Row{
		At: m.at.Round(), Passage: m.passage + 1, Stage: m.stage, Breath: ph.Breath, Phase: ph.Kind, Through: ph.Through,
		Count: m.count, Of: ph.Counts, Kept: true,
	}
	if p := m.here(); p.Practice != nil {
		row.Practice = p.Practice.ID
	}
	if m.stage == Round {
		row.Round = m.round
		row.Starts = m.phase == 0 && m.count == ph.First()
	}
	if !ph.Timed {
		row.Tempo = m.tempoOf(ph)
	}
	row.Say = m.say(ph)
	row.Verbs = m.met()
	return row
}

// abandon marks the round in progress as not kept, as it happened so far. Elsewhere it does nothing.
func (m *machine) abandon() {
	if m.stage != Round {
		return
	}
	m.rows = slices.Clone(m.rows)
	for i := m.first; i < len(m.rows); i++ {
		m.rows[i].Kept = false
	}
	m.row.Kept = false
}

// timeline is the rows so far, each with its length; where the machine waits, its row has none.
func (m *machine) timeline() Timeline {
	t := Timeline{Rows: slices.Clip(m.rows), End: m.at.Round()}
	if !m.over {
		t.Rows, t.Open, t.End = append(t.Rows, m.row), true, -1
	} else {
		t.Rows = slices.Clone(t.Rows)
	}
	for i := range t.Rows {
		switch {
		case i+1 < len(t.Rows):
			t.Rows[i].Dur = t.Rows[i+1].At - t.Rows[i].At
		case t.Open:
			t.Rows[i].Dur = -1
		default:
			t.Rows[i].Dur = t.End - t.Rows[i].At
		}
	}
	return t
}
