package contract

import (
	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/core/rehearsal"
)

// Expected is where a simulated room would be strained by a plan. It is a model, not a measurement.
type Expected struct {
	Rooms    []SimulatedRoom   `json:"rooms"` // to choose from
	Room     string            `json:"room"`
	Passages []ExpectedPassage `json:"passages"` // each of the plan, in its order
	Limits   fact.Fact         `json:"limits"`   // of the model
}

// SimulatedRoom is a kind of room.
type SimulatedRoom struct {
	Name   string `json:"name"`
	Title  string `json:"title"`
	About  string `json:"about"`
	People int    `json:"people"`
}

// ExpectedPassage is for how many people a passage is beyond what is easy.
type ExpectedPassage struct {
	FromRound int            `json:"from_round"` // 0 if it is easy for all
	Low       int            `json:"low"`        // a tenth of the rooms has no more
	Median    int            `json:"median"`
	High      int            `json:"high"` // nine tenths have no more
	Ways      []ExpectedEase `json:"ways"` // what would make it easier, and by how much
}

// ExpectedEase is what would make a passage easier.
type ExpectedEase struct {
	Says   fact.Fact `json:"says"`
	Low    int       `json:"low"`
	Median int       `json:"median"`
	High   int       `json:"high"`
}

// Rehearsals is what can be rehearsed, and what was.
type Rehearsals struct {
	Scenarios []Scenario      `json:"scenarios"` // in the order in which they are learned
	Rooms     []SimulatedRoom `json:"rooms"`
	Plans     []RehearsalPlan `json:"plans"`
	Done      []Rehearsal     `json:"done"` // the latest first; one that goes on among them
	Limits    fact.Fact       `json:"limits"`
}

// RehearsalPlan is a plan that can be rehearsed.
type RehearsalPlan struct {
	ID       int64    `json:"id"`
	Title    string   `json:"title"`
	StartsMS float64  `json:"starts_ms"` // 0 if it has no time
	Passages []string `json:"passages"`  // their names
}

// Scenario is a short task with one thing to learn.
type Scenario struct {
	Name   string          `json:"name"`
	Title  string          `json:"title"`
	Learn  string          `json:"learn"`
	Task   string          `json:"task"`
	Away   bool            `json:"away"` // the count is covered
	Levels []ScenarioLevel `json:"levels"`
}

// ScenarioLevel is one of the levels of a task, from 1.
type ScenarioLevel struct {
	Says     string      `json:"says"`
	Room     string      `json:"room"` // its title
	People   int         `json:"people"`
	LengthMS int64       `json:"length_ms"` // as planned
	Aims     []fact.Fact `json:"aims"`
	Tries    int         `json:"tries"`
	Reached  bool        `json:"reached"` // once, with all its aims
}

// Rehearsal is one rehearsal in the list.
type Rehearsal struct {
	ID        int64            `json:"id"`
	Title     string           `json:"title"`
	Scenario  string           `json:"scenario"` // its name; empty if a plan was rehearsed freely
	Level     int              `json:"level"`
	Room      string           `json:"room"` // its title
	StartedMS float64          `json:"started_ms"`
	AtMS      int64            `json:"at_ms"` // how far it came
	Over      bool             `json:"over"`
	Digest    *RehearsalDigest `json:"digest" jsonschema:"nullable"` // null while it goes on
}

// RehearsalDigest is what came of a rehearsal, in few numbers.
type RehearsalDigest struct {
	People   int `json:"people"`
	ToSee    int `json:"to_see"` // how many things were to be seen
	Missed   int `json:"missed"`
	Needless int `json:"needless"` // how often all were eased and nobody had need of it
	// the middle of the times from what could be seen to what met it; -1 if nothing was met
	ToActMS  float64    `json:"to_act_ms"`
	Strained int        `json:"strained"` // how many came to where strain is to be seen
	Aims     int        `json:"aims"`
	Reached  int        `json:"reached"`                    // of the aims
	Next     *fact.Fact `json:"next" jsonschema:"nullable"` // the one thing to practise next
}

// Rehearse begins a rehearsal: of a task at a level, or of a plan with a room.
type Rehearse struct {
	Scenario string `json:"scenario,omitempty"`
	Level    int    `json:"level,omitempty"`
	PlanID   int64  `json:"plan_id,omitempty"`
	Room     string `json:"room,omitempty"`
	Passage  int    `json:"passage,omitempty"` // from which of the plan it begins, from 1
	Seed     int64  `json:"seed,omitempty"`    // of the room; 0 for one by chance
}

// Rehearsing is a rehearsal as it is led: its score, and what the people of its room do. Times are milliseconds from
// its start.
type Rehearsing struct {
	ID      int64     `json:"id"`
	Score   Score     `json:"score"`
	Task    *Scenario `json:"task" jsonschema:"nullable"` // null if a plan is rehearsed freely
	Level   int       `json:"level"`
	Room    string    `json:"room"`     // its title
	AtMS    int64     `json:"at_ms"`    // how far it came
	UntilMS int64     `json:"until_ms"` // to when it is known what people do
	People  []Watched `json:"people"`   // each at their place
	Looks   int       `json:"looks"`
	Limits  fact.Fact `json:"limits"`
}

// Watched is what is to be seen of one of the people.
type Watched struct {
	BreathMS int64         `json:"breath_ms"` // of natural breath
	Acts     []WatchedAct  `json:"acts"`
	Signs    []WatchedSign `json:"signs"`
}

// WatchedAct is what somebody does from a moment on until the next.
type WatchedAct struct {
	AtMS    int64           `json:"at_ms"`
	UntilMS int64           `json:"until_ms"` // when a movement is done
	Do      rehearsal.Doing `json:"do"`
	Through breath.Through  `json:"through,omitempty"`
	Counts  int             `json:"counts,omitempty"` // strokes
}

// WatchedSign is something to be seen of somebody for a while.
type WatchedSign struct {
	ID      string `json:"id"`
	AtMS    int64  `json:"at_ms"`
	UntilMS int64  `json:"until_ms"`
}

// RehearsalAdjusted is the answer to an adjustment in a rehearsal.
type RehearsalAdjusted struct {
	Answer Answer     `json:"answer"`
	Now    Rehearsing `json:"now"`
}

// RehearsalProposed is what to do about what was seen in a rehearsal.
type RehearsalProposed struct {
	Proposed Proposed   `json:"proposed"`
	Now      Rehearsing `json:"now"`
}

// RehearsalWould asks what adjustments would do at a moment of a rehearsal.
type RehearsalWould struct {
	AtMS int64    `json:"at_ms"`
	Do   []Adjust `json:"do"`
}

// RehearsalMoment is how far a rehearsal is.
type RehearsalMoment struct {
	AtMS   int64 `json:"at_ms"`
	Looked bool  `json:"looked,omitempty"` // the covered count was looked at
}

// RehearsalReview is what is to be learned of a rehearsal. Times are milliseconds from its start; -1 is never.
type RehearsalReview struct {
	Rehearsal Rehearsal        `json:"rehearsal"`
	Task      *Scenario        `json:"task" jsonschema:"nullable"`
	EndMS     int64            `json:"end_ms"`
	SlotMS    int64            `json:"slot_ms"`
	LateMS    int64            `json:"late_ms"`    // beyond the slot, less than 0 for within it
	RestMS    int64            `json:"rest_ms"`    // of the natural breath at the end, as it was
	PlannedMS int64            `json:"planned_ms"` // of it, 0 if there is none
	Passages  []ReviewPassage  `json:"passages"`
	People    []ReviewPerson   `json:"people"`
	Moments   []ReviewMoment   `json:"moments"`
	Said      []ReviewSaid     `json:"said"`
	Eased     []ReviewEased    `json:"eased"`
	Pressed   []ReviewPress    `json:"pressed"`
	Aims      []ReviewAim      `json:"aims"`
	Looks     int              `json:"looks"`
	Digest    *RehearsalDigest `json:"digest"`
	Visible   float64          `json:"visible"` // the strain from which on something is to be seen
	Limits    fact.Fact        `json:"limits"`
}

// ReviewPassage is where a passage lay.
type ReviewPassage struct {
	Name string `json:"name"`
	AtMS int64  `json:"at_ms"`
}

// ReviewPerson is how it went for one of the people.
type ReviewPerson struct {
	Strain    []ReviewPoint `json:"strain"` // straight from one to the next
	Highest   float64       `json:"highest"`
	Limit     float64       `json:"limit"`
	Blocked   string        `json:"blocked"` // the nostril, empty for none
	Breaths   int           `json:"breaths"`
	Followed  int           `json:"followed"`
	Holds     int           `json:"holds"`
	Exceeded  int           `json:"exceeded"` // holds that were too long
	Wrong     int           `json:"wrong"`    // nostrils that were mixed up
	Latecomer bool          `json:"latecomer"`
	Shown     []ReviewShown `json:"shown"`
}

// ReviewPoint is strain at a moment.
type ReviewPoint struct {
	AtMS   int64   `json:"at_ms"`
	Strain float64 `json:"strain"`
}

// ReviewShown is something that was to be seen of somebody for a while.
type ReviewShown struct {
	ID      string `json:"id"` // of the signal
	AtMS    int64  `json:"at_ms"`
	UntilMS int64  `json:"until_ms"`
	Times   int    `json:"times"`
	NamedMS int64  `json:"named_ms"`
	MetMS   int64  `json:"met_ms"` // when its cause was met, or was over
	By      string `json:"by"`     // the adjustment that met it; empty if it passed by itself
}

// ReviewMoment is something that was to be seen in the room for a while.
type ReviewMoment struct {
	ID        string `json:"id"` // of the signal
	AtMS      int64  `json:"at_ms"`
	UntilMS   int64  `json:"until_ms"`
	People    int    `json:"people"`
	Few       bool   `json:"few"` // too few to do anything about it
	NamedMS   int64  `json:"named_ms"`
	PressedMS int64  `json:"pressed_ms"` // the adjustment that met its cause
	By        string `json:"by"`
	Missed    bool   `json:"missed"`
}

// ReviewSaid is what was said to be seen.
type ReviewSaid struct {
	AtMS  int64    `json:"at_ms"`
	ID    string   `json:"id"` // of the signal
	There bool     `json:"there"`
	Else  []string `json:"else"`  // the ids of what was there in its place
	Known bool     `json:"known"` // whether the model knows of such a thing
}

// ReviewEased is an adjustment that made it easier for all.
type ReviewEased struct {
	AtMS     int64     `json:"at_ms"`
	Do       pace.Verb `json:"do"`
	Strained int       `json:"strained"` // how many had need of it
	AtEase   int       `json:"at_ease"`
	Lane     bool      `json:"lane"` // a gentler lane ran beside, or could have
	Needless bool      `json:"needless"`
}

// ReviewPress is one adjustment.
type ReviewPress struct {
	AtMS int64     `json:"at_ms"`
	Do   pace.Verb `json:"do"`
}

// ReviewAim is one aim of a task.
type ReviewAim struct {
	Says fact.Fact `json:"says"`
	Done bool      `json:"done"`
}
