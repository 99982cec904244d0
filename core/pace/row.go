package pace

import (
	"vastlantern/core/breath"
	"vastlantern/core/plan"
)

// Stage is what a row belongs to (formats.md, cue sheet).
type Stage string

// The stages of a class.
const (
	Talk    Stage = "talk"
	Free    Stage = "free"
	Setup   Stage = "setup"
	Opening Stage = "opening"
	Round   Stage = "round"
	Rest    Stage = "rest"
	Pause   Stage = "pause"
	Own     Stage = "own"
	Recall  Stage = "recall"
	Closing Stage = "closing"
)

// Row is one row of a cue sheet: one count, or one stretch that is not counted. Times are whole milliseconds from
// the start of the class.
type Row struct {
	At       int64
	Dur      int64 // -1 where the end is not known
	Passage  int   // from 1
	Practice string
	Stage    Stage
	Round    int // 0 outside rounds
	Breath   int
	Phase    breath.Phase
	Through  breath.Through
	Count    int // 0 for a beat that a word has of its own
	Of       int
	Part     string
	Say      string
	Kept     bool // false in a round that was abandoned

	// Not in the cue sheet:
	Tempo       breath.Exact // counts or strokes a minute that the row runs at; 0 where it is not counted
	Starts      bool         // the first row of a round, also of one that starts over
	Open        bool         // lasts until the teacher goes on
	BecameLast  bool         // a round begins here that became the last as it started: a hand slower than planned left no time for more
	Planned     int          // of a phase by hand: the counts that it was planned with, without the beat of its word
	PlannedBeat int          // 1 where its word would have had a beat of its own
	Text        string       // what a free step is for
	Verbs       VerbSet      // the adjustments that are met here
	Beside      plan.Beside  // what stands beside the row, as it was in force when the row started
	lane        laneMark
}

// End is where the row ends, -1 where that is not known.
func (r Row) End() int64 {
	if r.Dur < 0 {
		return -1
	}
	return r.At + r.Dur
}

// Follows tells whether the row is the next count of the phase that the row before it belongs to.
func (r *Row) Follows(before *Row) bool {
	return r.Count == before.Count+1 && r.Phase == before.Phase && r.Breath == before.Breath && r.Passage == before.Passage &&
		r.Stage == before.Stage && r.Round == before.Round && r.Kept == before.Kept
}

// same tells whether two rows are the same but for what is said: that costs no time and is no part of what an
// adjustment does. What stands beside is compared by itself, as the lane shows it.
func (r Row) same(other Row) bool {
	r.Say, r.Verbs, r.Tempo, r.Beside, r.lane = other.Say, other.Verbs, other.Tempo, other.Beside, other.lane
	r.Planned, r.PlannedBeat, r.BecameLast = other.Planned, other.PlannedBeat, other.BecameLast
	return r == other
}

// Timeline is the rows of a class. Open says that the last row waits for the teacher and has no end yet; otherwise
// End is the end of the class in milliseconds.
type Timeline struct {
	Rows []Row
	End  int64
	Open bool
}
