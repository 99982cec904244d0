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
	*Shared
	At    int64
	Dur   int64 // -1 where the end is not known
	Count int   // 0 for a beat that a word has of its own
	Part  string
	Say   string

	// Not in the cue sheet:
	Starts bool // the first row of a round, also of one that starts over
	// a round begins here that became the last as it started: a hand slower than planned left no time for more
	BecameLast bool
	lane       laneMark
}

// Shared is what the rows of a phase share, unless an adjustment came between them. It is never changed, only replaced:
// a class of an hour has thousands of rows, which are copied at every press.
type Shared struct {
	Passage  int // from 1
	Practice string
	Stage    Stage
	Round    int // 0 outside rounds
	Breath   int
	Phase    breath.Phase
	Through  breath.Through
	Of       int
	Kept     bool // false in a round that was abandoned

	// Not in the cue sheet:
	Tempo       breath.Exact // counts or strokes a minute that the row runs at; 0 if it is not counted
	Open        bool         // lasts until the teacher goes on
	Planned     int          // of a phase by hand: the counts that it was planned with, without the beat of its word
	PlannedBeat int          // 1 where its word would have had a beat of its own
	Text        string       // what a free step is for
	Verbs       VerbSet      // the adjustments that are met here
	Beside      plan.Beside  // what runs beside the row, as it was in force when the row started
}

// share gives the row what it shares with others: a value that is there already, where it is the same.
func (r *Row) share(with Shared) {
	if r.Shared != nil && *r.Shared == with {
		return
	}
	own := with
	r.Shared = &own
}

// changed replaces what rows share, in rows that nobody else has.
func changed(rows []Row, change func(*Shared)) {
	var before, after *Shared
	for i := range rows {
		if rows[i].Shared != before {
			own := *rows[i].Shared
			change(&own)
			before, after = rows[i].Shared, &own
		}
		rows[i].Shared = after
	}
}

// End returns where the row ends, -1 if that is not known.
func (r Row) End() int64 {
	if r.Dur < 0 {
		return -1
	}
	return r.At + r.Dur
}

// Follows reports whether the row is the next count of the phase that the row before it belongs to.
func (r *Row) Follows(before *Row) bool {
	return r.Count == before.Count+1 && r.Phase == before.Phase && r.Breath == before.Breath &&
		r.Passage == before.Passage &&
		r.Stage == before.Stage && r.Round == before.Round &&
		r.Kept == before.Kept
}

// same reports whether two rows are the same except for what is said: that costs no time and is no part of what an
// adjustment does. What is beside is compared by itself, as the lane shows it.
func (r *Row) same(other *Row) bool {
	a, b := *r.Shared, *other.Shared
	a.Verbs, a.Tempo, a.Beside, a.Planned, a.PlannedBeat = b.Verbs, b.Tempo, b.Beside, b.Planned, b.PlannedBeat
	return a == b && r.At == other.At && r.Dur == other.Dur && r.Count == other.Count && r.Part == other.Part &&
		r.Starts == other.Starts
}

// Timeline is the rows of a class. Open says that the last row waits for the teacher and has no end yet; otherwise
// End is the end of the class in milliseconds. Where the rows stop before (Class.Until), End is -1, and Then is how the
// passages go on to the end of the class, as planned; it is nil elsewhere.
type Timeline struct {
	Rows []Row
	End  int64
	Open bool
	Then []Stretch
}
