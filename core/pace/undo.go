package pace

import (
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
)

// taken is an accepted adjustment that undo can take back, with the machine as it was before it.
type taken struct {
	verb   Verb
	before bookmark
}

// bookmark is a machine without the rows that were done: only their number, since the past never changes.
type bookmark struct {
	machine
	done int
}

func (m *machine) bookmark() bookmark {
	kept := *m
	kept.rows, kept.live = nil, slices.Clone(m.live)
	return bookmark{kept, len(m.rows)}
}

// undo is the verb "undo": it takes back the latest accepted adjustment if it was given in this passage and
// everything up to t, and the length of the row in progress, would be the same without it.
func (c *Class) undo(a Adjustment) (Answer, error) {
	if len(c.done) == 0 {
		return refuse("refused.nothing-to-undo")
	}
	latest := c.done[len(c.done)-1]
	if latest.before.passage != c.now.passage {
		return refuse("refused.undo-in-other-passage")
	}
	without := latest.before.machine.copy()
	without.rows = slices.Clip(c.now.rows[:latest.before.done])
	without.runTo(a.At)
	if !c.now.stoodTheSame(&without, latest.before, breath.Int(a.At)) {
		return refuse("refused.undo-in-effect", "verb", fact.New("verb."+string(latest.verb)))
	}
	for i := latest.before.done; i < len(without.rows); i++ {
		without.rows[i].Say = c.now.rows[i].Say // the same except for what was said, and that was said
	}
	if c.now.at().Less(breath.Int(a.At)) {
		without.row.Say = c.now.row.Say
	}
	last := len(c.done) - 1
	c.now, c.done = without, c.done[:last:last] // a copy of the class may still have the last one
	return Answer{Undone: latest.verb}, nil
}

// stoodTheSame reports whether the class up to t, and the length of the row in progress, is the same in both machines,
// which parted at the bookmark.
func (m *machine) stoodTheSame(other *machine, parted bookmark, t breath.Exact) bool {
	if other.over || len(m.rows) != len(other.rows) || !m.at().Equal(other.at()) || m.waiting() != other.waiting() {
		return false
	}
	if !m.waiting() && !m.end().Equal(other.end()) {
		return false
	}
	for i := parted.done; i < len(m.rows); i++ {
		if !m.rows[i].same(&other.rows[i]) {
			return false
		}
	}
	// What was abandoned since is marked so in the rows before, which both share.
	for i := parted.first; i < parted.done; i++ {
		if parted.inRound() && m.rows[i].Stage == Round && !m.rows[i].Kept {
			return false
		}
	}
	// Of a row in which nothing is done yet only the length counts.
	begun := m.at().Less(t)
	if begun && !m.row.same(&other.row) {
		return false
	}
	if !m.lanedSince(parted) && !other.lanedSince(parted) {
		return true // the lane has done what the class did
	}
	return slices.EqualFunc(m.laneSince(parted, begun), other.laneSince(parted, begun), Row.sameLane)
}

// lanedSince reports whether something ran beside a row from where the machines parted.
func (m *machine) lanedSince(parted bookmark) bool {
	for i := parted.done; i < len(m.rows); i++ {
		if !m.rows[i].Beside.None() {
			return true
		}
	}
	return !m.row.Beside.None()
}

// laneSince returns the lane of this passage from where the machines parted.
func (m *machine) laneSince(parted bookmark, begun bool) []Row {
	rows := slices.Clip(m.rows)
	if begun {
		rows = append(rows, m.row)
	}
	first := parted.done
	for first > 0 && rows[first-1].Passage == m.passage+1 {
		first--
	}
	return laneOf(rows[first:], m.plan)[parted.done-first:]
}

// sameLane reports whether two rows of a lane show the same.
func (r Row) sameLane(other Row) bool {
	return r.Phase == other.Phase && r.Through == other.Through && r.Breath == other.Breath && r.Count == other.Count &&
		r.Of == other.Of &&
		r.Part == other.Part
}

// inRound reports whether a round is in progress, a waiting one of strokes too.
func (m *machine) inRound() bool { return m.stage == Round || m.current.paused }
