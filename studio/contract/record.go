package contract

import (
	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
)

// Record is what was taught in one class.
type Record struct {
	Class     ClassCard       `json:"class"`
	PlanID    int64           `json:"plan_id"` // 0 if the plan is gone
	PlannedMS int64           `json:"planned_ms"`
	TaughtMS  int64           `json:"taught_ms"` // so far, where it is running
	Passages  []RecordPassage `json:"passages"`
	Totals    RecordTotals    `json:"totals"`
	Marks     []Mark          `json:"marks"`
	Remarks   []Remark        `json:"remarks"` // added afterwards, in the order they were
	Unsaid    []Unsaid        `json:"unsaid"`  // planned to be said and not reached; empty while it is in progress
	Moods     []string        `json:"moods"`   // to choose from
	Curve     []CurvePoint    `json:"curve"`   // of the rounds as they were led
	Told      Told            `json:"told"`    // by those who breathed
	CheckIn   *CheckInSums    `json:"check_in" jsonschema:"nullable"`
	Homes     []Home          `json:"homes"` // what was given to do at home
	// Acknowledged is the strong cautions that were read before the class was led.
	Acknowledged []string    `json:"acknowledged"`
	SeenAfter    []SeenAfter `json:"seen_after"` // signs beside the holds that waited
	// Heard is the strokes, chants and hums of kept rounds as a microphone told of them, beside how they were led.
	Heard []HeardPhase `json:"heard"`
}

// RecordTotals is what the led passages come to, without try-outs and own pace.
type RecordTotals struct {
	PlannedRounds int   `json:"planned_rounds"`
	Rounds        int   `json:"rounds"`
	LongestHoldMS int64 `json:"longest_hold_ms"`
	HeldFullMS    int64 `json:"held_full_ms"`
	HeldEmptyMS   int64 `json:"held_empty_ms"`
	LeftInhales   int   `json:"left_inhales"`
	RightInhales  int   `json:"right_inhales"`
}

// RecordPassage is one passage, planned beside taught.
type RecordPassage struct {
	Name            string     `json:"name"`
	Practice        string     `json:"practice"`
	Counts          string     `json:"counts"`
	OwnPace         bool       `json:"own_pace"`
	Trial           bool       `json:"trial"`
	PlannedAtMS     int64      `json:"planned_at_ms"`
	PlannedLengthMS int64      `json:"planned_length_ms"`
	AtMS            int64      `json:"at_ms"`
	LengthMS        int64      `json:"length_ms"`
	PlannedRounds   int        `json:"planned_rounds"`
	Rounds          int        `json:"rounds"`
	Abandoned       int        `json:"abandoned"`
	PlannedTempo    float64    `json:"planned_tempo"`
	TempoStart      float64    `json:"tempo_start"`
	TempoEnd        float64    `json:"tempo_end"`
	TempoMean       float64    `json:"tempo_mean"`
	PerMinute       float64    `json:"per_minute"`
	LongestHoldMS   int64      `json:"longest_hold_ms"`
	HeldFullMS      int64      `json:"held_full_ms"`
	HeldEmptyMS     int64      `json:"held_empty_ms"`
	LeftInhales     int        `json:"left_inhales"`
	RightInhales    int        `json:"right_inhales"`
	Eased           bool       `json:"eased"`
	CountsEnd       string     `json:"counts_end"` // in force at the end, where others than planned
	Beside          string     `json:"beside"`     // the gentler lane in force at the end: breathe, a:c or none
	Lanes           []LedLane  `json:"lanes"`      // the gentler lanes that ran beside, one after the other
	Done            []LedRound `json:"done"`       // of strokes and of open practices, each kept round
	// the breaths of kept rounds that were led by hand, at least in part
	Breaths []LedBreath `json:"breaths"`
	// how long the phases of these were on average, in ms: inhale, hold, exhale, empty hold
	MeanBreathMS [4]int64 `json:"mean_breath_ms"`
	// at which inhales and exhales by hand were breathed, in counts a minute; 0 if none was
	HandTempo   int    `json:"hand_tempo"`
	Airway      string `json:"airway"` // empty if the practice has no choice of it, as all that follow
	Zone        string `json:"zone"`
	Attention   string `json:"attention"`
	InhaleWidth string `json:"inhale_width"`
	ExhaleWidth string `json:"exhale_width"`
	Voice       string `json:"voice"`
}

// LedBreath is a breath as it was led by hand: how long its phases lasted, in ms, those that were counted too.
type LedBreath struct {
	AtMS     int64 `json:"at_ms"`
	Round    int   `json:"round"`
	InhaleMS int64 `json:"inhale_ms"`
	HoldMS   int64 `json:"hold_ms"`
	ExhaleMS int64 `json:"exhale_ms"`
	EmptyMS  int64 `json:"empty_ms"`
}

// SeenAfter is a sign that was seen after holds that waited for the teacher.
type SeenAfter struct {
	Passage int          `json:"passage"` // from 1
	Phase   breath.Phase `json:"phase"`   // hold or empty
	Sign    fact.Fact    `json:"sign"`
	Seen    int          `json:"seen"`  // after how many holds
	Holds   int          `json:"holds"` // how many of the phase were as long
	OverMS  int64        `json:"over_ms"`
}

// HeardPhase is the strokes of a round, or its chant or hum, as it was heard, beside what was planned and led.
type HeardPhase struct {
	Passage int          `json:"passage"` // from 1
	Round   int          `json:"round"`
	Breath  int          `json:"breath"`
	AtMS    int64        `json:"at_ms"`
	Phase   breath.Phase `json:"phase"` // stroke, or the phase that was chanted or hummed
	// Of strokes, a minute; 0 elsewhere.
	PlannedRate float64 `json:"planned_rate"`
	LedRate     float64 `json:"led_rate"`
	HeardRate   float64 `json:"heard_rate"`
	// Of a chant or a hum, how long; 0 elsewhere.
	PlannedMS int64 `json:"planned_ms"`
	LedMS     int64 `json:"led_ms"`
	HeardMS   int64 `json:"heard_ms"`
}

// LedLane is one stretch in which a gentler lane ran beside. Nothing is held in it.
type LedLane struct {
	Beside       string  `json:"beside"` // breathe or a:c
	AtMS         int64   `json:"at_ms"`
	LengthMS     int64   `json:"length_ms"`
	Breaths      int     `json:"breaths"` // of those who took it, in kept rounds
	PerMinute    float64 `json:"per_minute"`
	LeftInhales  int     `json:"left_inhales"`
	RightInhales int     `json:"right_inhales"`
}

// CheckInSums is what the room answered before and after a class: sums, never who.
type CheckInSums struct {
	Question plan.CheckIn  `json:"question"`
	Before   []CheckInSum  `json:"before"` // of every answer; none where too few gave one for a sum to hide them
	After    []CheckInSum  `json:"after"`
	People   CheckInPeople `json:"people"`
	// of answers that are numbers; 0 where none is shown
	MeanBefore float64 `json:"mean_before"`
	MeanAfter  float64 `json:"mean_after"`
}

// CheckInSum is how many gave an answer.
type CheckInSum struct {
	Answer string `json:"answer"`
	People int    `json:"people"`
}

// CheckInPeople is how many answered.
type CheckInPeople struct {
	Before int `json:"before"`
	After  int `json:"after"`
}

// CheckInPoint is what a group answered in one class, beside what was breathed in it.
type CheckInPoint struct {
	ClassID   int64    `json:"class_id"`
	StartedMS float64  `json:"started_ms"`
	Breathed  []string `json:"breathed"` // alternate nostril breath 4:4:8, 9 rounds
	CheckInSums
}

// Told is what those who breathed told: sums, never who. Most is how many answers are taken, 0 if nobody was asked.
type Told struct {
	Easy    int `json:"easy"`
	Right   int `json:"right"`
	TooMuch int `json:"too_much"`
	Main    int `json:"main"`   // of these, those who told which lane they took
	Beside  int `json:"beside"` // the gentler one
	Most    int `json:"most"`
	// Counted is what people counted at own pace, rounds or strokes; null if nobody told it.
	Counted *Counted `json:"counted" jsonschema:"nullable"`
	// UntilMS is until when answers are taken; 0 once they are not.
	UntilMS float64 `json:"until_ms"`
	// Unready is why the room is not ready for a step, as a clause; null if nothing that was told speaks against one.
	Unready *fact.Fact `json:"unready" jsonschema:"nullable"`
}

// Counted is what people counted while they breathed at own pace.
type Counted struct {
	Of     string  `json:"of"` // rounds or strokes
	People int     `json:"people"`
	Least  int     `json:"least"`
	Most   int     `json:"most"`
	Median float64 `json:"median"`
}

// LedRound is a round as it was done: its strokes, or how long its open phases lasted.
type LedRound struct {
	Strokes  int   `json:"strokes"`
	InhaleMS int64 `json:"inhale_ms"`
	HoldMS   int64 `json:"hold_ms"`
	ExhaleMS int64 `json:"exhale_ms"`
	EmptyMS  int64 `json:"empty_ms"`
}

// CurvePoint is one round as it was led.
type CurvePoint struct {
	AtMS    int64   `json:"at_ms"`
	EndMS   int64   `json:"end_ms"`
	Passage int     `json:"passage"` // from 1
	Tempo   float64 `json:"tempo"`   // at its beginning; 0 if nothing is counted
	Counts  int     `json:"counts"`  // of its first breath, or its strokes, as led
	Kept    bool    `json:"kept"`
}

// What of a plan can be unsaid.
const (
	UnsaidLine   = "line"   // own words whose place did not come
	UnsaidTalk   = "talk"   // a talk that was left out
	UnsaidScript = "script" // what was written for a passage that was left out
)

// Unsaid is something that was planned to be said and was not reached. Settled is the kind of the remark that says what
// became of it: next, used or put-away; empty for nothing yet.
type Unsaid struct {
	Passage int    `json:"passage"` // from 1
	Name    string `json:"name"`    // of the passage
	Kind    string `json:"kind" jsonschema:"enum=line,enum=talk,enum=script"`
	Text    string `json:"text"`
	Settled string `json:"settled"`
}

// ReturningNote is a note of a class of a group that nobody has used or put away.
type ReturningNote struct {
	ClassID int64   `json:"class_id"`
	Title   string  `json:"title"` // of the class
	AtMS    float64 `json:"at_ms"`
	Text    string  `json:"text"`
	Next    bool    `json:"next"` // it was marked for next time
}

// ReturningNotes is those of a group, those for next time first.
type ReturningNotes struct {
	Notes []ReturningNote `json:"notes"`
}

// Remark is something that is added beside a record: people (a number), gentler (how many of them took the gentler
// lane), took (one of Moods), note, correction, next (a note for next time), used and put-away (what became of the note
// of this text).
type Remark struct {
	ID   int64   `json:"id"`
	AtMS float64 `json:"at_ms"`
	Kind string  `json:"kind"`
	Text string  `json:"text"`
}

// RemarkAdd adds a remark to a record.
type RemarkAdd struct {
	Kind string `json:"kind"`
	Text string `json:"text"`
	// Newest is the id of the remark of this kind in whose place it comes, 0 if there was none. Notes and corrections
	// stand beside each other and need none.
	Newest int64 `json:"newest"`
}

// MarkKind is what a press was in the record.
type MarkKind string

// The kinds of marks. Only changes count as adjustments.
const (
	MarkChange    MarkKind = "change"     // it changed how the class was led, and stood
	MarkRemark    MarkKind = "remark"     // a note, or what was seen
	MarkGoingOn   MarkKind = "going-on"   // from what waited
	MarkTakenBack MarkKind = "taken-back" // and the press that took it back
	MarkRefused   MarkKind = "refused"
)

// Mark is one press of a record, with the passage it was made in.
type Mark struct {
	Answer  Answer   `json:"answer"`
	Kind    MarkKind `json:"kind"`
	Passage int      `json:"passage"` // from 1, 0 after the end
	Stage   string   `json:"stage"`   // where in it
	Round   int      `json:"round"`   // in progress, or just over in a rest; 0 outside rounds
	Breath  int      `json:"breath"`  // in progress, from 1; 0 if none is counted
}
