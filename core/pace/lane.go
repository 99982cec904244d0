package pace

import (
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
)

// laneMark is what a row has for the lane beside it, fixed when the row starts: the past of the lane never changes.
type laneMark struct {
	// rows to the end of the round as it was then, this one included; only where a shorter breath is in force
	left    int
	anew    bool // a breath of the lane that was begun falls away
	restart bool // and its breaths are counted from 1 again
}

// setBeside is the verb "beside": opens, changes or closes the gentler lane of the passage, from the next row on.
func (m *machine) setBeside(a Adjustment) (Answer, error) {
	b, ok := plan.ParseBeside(a.Text)
	l, p := m.inForce(), m.here()
	if !ok {
		return refuse("refused.lane-unknown", "given", a.Text)
	}
	if b == l.beside {
		return Answer{When: Never}, nil
	}
	if b.Shorter() && l.byHand != 0 {
		return refuse("refused.lane-by-hand")
	}
	if why := p.AgainstBeside(b, m.roundRows()); !why.None() {
		return refuse("refused.lane-does-not-fit", "lane", b, "why", why)
	}
	l.beside, m.laneNext = b, true
	return Answer{When: NextCount}, nil
}

// roundRows returns how many rows a round has as it is now in force; where the lane runs on, what is left of the
// rounds, the one in progress counted whole.
func (m *machine) roundRows() int {
	rows := plan.RowsOf(m.here().Round(m.inForce().Measure))
	switch {
	case !m.here().RunsOn():
		return rows
	case m.place()&atClosing != 0:
		return 0
	}
	return rows * (m.inForce().total - m.round + 1)
}

// rowsLeft returns how many rows there are from the one in progress, itself included, to where the lane's breath has to
// be done.
func (m *machine) rowsLeft() int {
	rows := m.unit[m.phase].Counts - m.count + 1 + plan.RowsOf(m.unit[m.phase+1:])
	if m.here().RunsOn() {
		rows += plan.RowsOf(m.here().Round(m.inForce().Measure)) * (m.inForce().total - m.round)
	}
	return rows
}

// askAnew makes a change of the lane act, now that the row in which it was given is over.
func (m *machine) askAnew() {
	m.lane.anew = m.lane.anew || m.laneNext
	m.laneNext = false
}

// Lane returns the second reading of the rows of a timeline: what those do who take what runs beside (pacing.md section
// 6). It has the times of the rows, and nothing is said.
func (t Timeline) Lane(p *plan.Plan) Timeline {
	t.Rows = laneOf(t.Rows, p)
	return t
}

func laneOf(rows []Row, p *plan.Plan) []Row {
	lane := slices.Clone(rows)
	var l lanes
	for i := range lane {
		row := &lane[i]
		if i == 0 || row.Passage != rows[i-1].Passage {
			l = lanes{passage: &p.Passages[row.Passage-1]}
		}
		row.Say = ""
		l.read(row)
	}
	return lane
}

// lanes is how far the lane is in a passage.
type lanes struct {
	passage *plan.Passage
	inhale  Shared // the main lane's last inhale
	made    Row    // the row that was made last: most share with the one before

	left   int  // counts that the lane's own breath has left
	number int  // of it
	second bool // it is the second of two
	owed   bool // the second of two is to come
}

// read turns a row of the main lane into that of the lane beside.
func (l *lanes) read(row *Row) {
	if row.Phase.Begins() {
		l.inhale = *row.Shared
	}
	if row.Stage != Round || row.lane.anew {
		l.left, l.owed = 0, false
	}
	if row.lane.restart {
		l.number = 0
	}
	with := *row.Shared
	switch {
	case row.Stage == Round && row.Beside.Shorter():
		l.shorter(row, &with)
	case !row.Beside.None() && (row.Stage == Opening || row.Stage == Round || row.Stage == Closing):
		l.breathe(row, &with)
	}
	if with != *row.Shared {
		l.made.share(with)
		row.Shared = l.made.Shared
	}
}

// breathe is "breathe": through the holds. A long hold ends with a fresh inhale, so that nobody meets the exhale empty.
func (l *lanes) breathe(row *Row, with *Shared) {
	if !row.Phase.Held() {
		return
	}
	inhale := l.inhale.Of
	if l.inhale.Planned > 0 {
		inhale = l.inhale.Planned
	}
	before := row.Of - inhale // counts of the hold before the fresh inhale
	if row.Phase == breath.Hold && !row.Open && row.Of >= 2*inhale && row.Count > before {
		with.Phase, with.Through, with.Of = breath.Inhale, l.inhale.Through, inhale
		row.Count, row.Part = row.Count-before, ""
		return
	}
	with.Phase, with.Through = breath.Free, breath.None
	row.Part = ""
}

// shorter is "a:c": each row of a round is one count of a breath of its own.
func (l *lanes) shorter(row *Row, with *Shared) {
	b, rows := row.Beside, row.lane.left
	whole := b.Inhale + b.Exhale
	starts := false
	switch {
	case l.left > 0:
		if rows < l.left {
			l.left, l.owed = 0, false
		}
	case l.owed:
		starts, l.second, l.owed = rows >= whole, true, false
	case rows >= l.passage.NeededBeside(b):
		starts, l.second, l.owed = true, false, l.passage.Practice.Alternates()
	}
	if starts {
		l.left = whole
		l.number++
	}
	if l.left == 0 {
		with.Phase, with.Through, with.Breath, with.Of = breath.Free, breath.None, 0, 1
		row.Part, row.Count = "", 1
		return
	}
	count := whole - l.left + 1
	with.Phase, with.Breath, with.Of = breath.Inhale, l.number, b.Inhale
	row.Part, row.Count = "", count
	if count > b.Inhale {
		with.Phase, with.Of = breath.Exhale, b.Exhale
		row.Count = count - b.Inhale
	}
	with.Through = l.through(with.Phase)
	l.left--
}

// through returns which way a breath of the lane goes.
func (l *lanes) through(phase breath.Phase) breath.Through {
	side := l.passage.Side
	switch {
	case l.passage.Practice.OneSided():
		return side
	case !l.passage.Practice.Alternates():
		return breath.Both
	case (phase == breath.Inhale) == l.second: // the first goes in by the side and out by the other, the second back again
		return side.Other()
	}
	return side
}
