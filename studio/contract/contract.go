// Package contract holds the shapes that cross the wire between the program and its screens. Their TypeScript is
// generated from them (make types). Times named _ms are whole milliseconds: of a class from its start, of the clock
// since 1970 (Unix).
package contract

import "encoding/json"

// Clock is the answer to a clock exchange (RFC 5905, section 8): when the question came and when the answer left,
// on the application's clock, and how fast that clock runs. A screen that noted its own sending and receiving time
// knows the offset.
type Clock struct {
	ReceivedMS float64 `json:"received_ms"`
	SentMS     float64 `json:"sent_ms"`
	Rate       float64 `json:"rate"` // 1, or more where the application was started for try-outs
}

// Problem is every error answer. Say tells what is wrong and what to do.
type Problem struct {
	Say     string       `json:"say"`
	Fields  []FieldError `json:"fields,omitempty"`   // what is wrong in a plan
	ClassID int64        `json:"class_id,omitempty"` // the class that runs already
}

// FieldError is one thing that is wrong in a plan. Passage is 0 for the plan itself.
type FieldError struct {
	Passage int    `json:"passage"`
	Field   string `json:"field"`
	Given   string `json:"given"`
	Allowed string `json:"allowed"`
	Text    string `json:"text"` // all of it in one line
}

// Group is a group of people that is taught.
type Group struct {
	ID         int64             `json:"id"` // 0 for a new one
	Name       string            `json:"name"`
	Level      string            `json:"level"`
	Size       int               `json:"size"`       // usual number of people, 0 where not known
	Weekday    int               `json:"weekday"`    // of its weekly class, 0 is Sunday; -1 for none
	Weektime   string            `json:"weektime"`   // as 18:30
	Under16    bool              `json:"under16"`    // there are people under 16
	Conditions map[string]int    `json:"conditions"` // how many people have each, never who
	Schools    map[string]string `json:"schools"`    // where the group differs from the teacher
	Notes      string            `json:"notes"`
}

// Groups is the groups by name, and what a form of one asks.
type Groups struct {
	Groups     []Group     `json:"groups"`
	Levels     []string    `json:"levels"`
	Conditions []Condition `json:"conditions"`
}

// Condition is something that may be so for somebody in the room.
type Condition struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// Finding is what the rules of care say of a passage for a group.
type Finding struct {
	Do      string `json:"do"` // leave out, gentle variant, carefully
	Say     string `json:"say"`
	Instead string `json:"instead"`
}

// Advice is something about the order or the length of a plan. It forbids nothing.
type Advice struct {
	Passage int    `json:"passage"` // from 1; 0 for the plan as a whole
	Say     string `json:"say"`
	Why     string `json:"why"`
}

// Settings is what the teacher has chosen. Questions, Languages and Words are there to choose from, and not stored.
type Settings struct {
	Schools   map[string]string `json:"schools"`  // the way chosen for each question; absent for the first
	Language  string            `json:"language"` // of what is said, a BCP 47 tag
	OwnWords  map[string]string `json:"own_words"`
	CareRead  bool              `json:"care_read"` // the caution for everyone was read once
	Questions []Question        `json:"questions,omitempty"`
	Languages []string          `json:"languages,omitempty"`
	Words     []Word            `json:"words,omitempty"`   // of the language
	General   string            `json:"general,omitempty"` // the caution for everyone
}

// Question is one thing that schools do in different ways; the first is the default.
type Question struct {
	ID   string `json:"id"`
	Asks string `json:"asks"`
	Ways []Way  `json:"ways"`
}

// Way is one answer to a Question.
type Way struct {
	ID   string `json:"id"`
	Says string `json:"says"`
}

// Word is one entry of the table of what is said.
type Word struct {
	Key  string `json:"key"`
	Text string `json:"text"`
}

// Done is the answer to what has no other.
type Done struct {
	Say string `json:"say"`
}

// Today is what the first screen shows.
type Today struct {
	NowMS   float64     `json:"now_ms"`
	Running *ClassCard  `json:"running" jsonschema:"nullable"` // the class that is being led
	Next    *PlanCard   `json:"next" jsonschema:"nullable"`    // the next by the clock
	Last    *Record     `json:"last" jsonschema:"nullable"`    // what was taught last to the next plan's group
	Plans   []PlanCard  `json:"plans"`                         // all others to come, and those without a time
	Taught  []ClassCard `json:"taught"`                        // the last few classes
}

// PlanCard is a plan in a list.
type PlanCard struct {
	ID       int64    `json:"id"`
	Title    string   `json:"title"`
	Group    *Group   `json:"group" jsonschema:"nullable"`
	StartsMS *float64 `json:"starts_ms" jsonschema:"nullable"` // null where no time is set
	LengthMS int64    `json:"length_ms"`
	SlotMS   int64    `json:"slot_ms"` // 0 where none is set
	Passages []string `json:"passages"`
	Wrong    bool     `json:"wrong"` // has errors and cannot be led yet
}

// Plan is a plan as it is edited.
type Plan struct {
	ID       int64           `json:"id"`
	Revision int64           `json:"revision"`
	Group    *Group          `json:"group" jsonschema:"nullable"`
	Document json.RawMessage `json:"document"` // the plan file
	Summary  PlanSummary     `json:"summary"`
	Groups   []Group         `json:"groups"` // to choose from
}

// PlanSave stores a document in the place of a revision.
type PlanSave struct {
	Revision int64           `json:"revision"`
	GroupID  int64           `json:"group_id"` // 0 for none
	Document json.RawMessage `json:"document"`
}

// Draft asks what a document means, without storing it, after one change that is written the short way.
type Draft struct {
	Document json.RawMessage `json:"document"`
	GroupID  int64           `json:"group_id"`                    // 0 for none
	Passage  int             `json:"passage"`                     // the one that is changed, from 1; with Short 0 adds one at the end
	Short    *string         `json:"short" jsonschema:"nullable"` // null for no such change
	Gentle   bool            `json:"gentle"`                      // the passage in its gentle variant
}

// Drafted is the answer to a Draft. Where the short text was not understood, Document is as it came and Problem
// says why.
type Drafted struct {
	Document json.RawMessage `json:"document"`
	Summary  PlanSummary     `json:"summary"`
	Problem  string          `json:"problem"`
	Changed  string          `json:"changed"` // the change in words, where the core made one
}

// PlanSummary is the numbers of a plan.
type PlanSummary struct {
	Title    string           `json:"title"`
	LengthMS int64            `json:"length_ms"`
	SlotMS   int64            `json:"slot_ms"`  // 0 where none is set
	SpareMS  int64            `json:"spare_ms"` // below 0 where the plan is too long
	StartsMS *float64         `json:"starts_ms" jsonschema:"nullable"`
	Passages []PassageSummary `json:"passages"`
	Errors   []FieldError     `json:"errors"`
	Advice   []Advice         `json:"advice"`
}

// PassageSummary is the numbers of one passage.
type PassageSummary struct {
	Name          string    `json:"name"`
	Type          string    `json:"type"`
	Practice      string    `json:"practice"`
	Term          string    `json:"term"`
	Short         string    `json:"short"` // as Draft takes it
	StartMS       int64     `json:"start_ms"`
	LengthMS      int64     `json:"length_ms"`
	Rounds        int       `json:"rounds"` // 0 where there are none
	RoundMS       int64     `json:"round_ms"`
	PerMinute     float64   `json:"per_minute"` // breaths
	Counts        string    `json:"counts"`
	TrueRatio     string    `json:"true_ratio"` // as it really runs with the words' own beats
	LongestHoldMS int64     `json:"longest_hold_ms"`
	HeldMS        int64     `json:"held_ms"` // in all holds
	OwnPace       bool      `json:"own_pace"`
	Cautions      []Caution `json:"cautions"`
	Findings      []Finding `json:"findings"` // for the plan's group and hour
	Gentler       bool      `json:"gentler"`  // there is a gentle variant to take
}

// Caution is one thing to be careful about.
type Caution struct {
	Text   string `json:"text"`
	Strong bool   `json:"strong"`
}

// Book is the practice book.
type Book struct {
	Practices []Practice `json:"practices"` // by name
	Intents   []string   `json:"intents"`
	Levels    []string   `json:"levels"`
	General   string     `json:"general"` // the caution for everyone
}

// Practice is an entry of the practice book.
type Practice struct {
	ID        string    `json:"id"`
	Name      string    `json:"name"`
	Term      string    `json:"term"`
	Kind      string    `json:"kind"` // counted, strokes, fixed, open
	Own       bool      `json:"own"`
	From      string    `json:"from"` // of an own one: the practice that it was made from
	About     string    `json:"about"`
	Also      []string  `json:"also"`
	Intents   []string  `json:"intents"`
	Level     string    `json:"level"`
	Seat      string    `json:"seat"`
	Hands     string    `json:"hands"`
	Eyes      string    `json:"eyes"`
	Locks     string    `json:"locks"`
	How       []string  `json:"how"`
	Prompts   []string  `json:"prompts"`
	Watch     []string  `json:"watch"`
	Gentler   string    `json:"gentler"`
	Harder    string    `json:"harder"`
	Finish    string    `json:"finish"`
	Schools   []string  `json:"schools"` // where they differ
	Shown     []string  `json:"shown"`   // what the chosen school adds
	Course    []string  `json:"course"`  // what planning inserts, in words
	Pattern   string    `json:"pattern"` // one round in short
	Usual     string    `json:"usual"`   // as it is planned where nothing is said
	RoundMS   int64     `json:"round_ms"`
	PerMinute float64   `json:"per_minute"` // breaths
	Holds     bool      `json:"holds"`
	Cautions  []Caution `json:"cautions"`
	Findings  []Finding `json:"findings"` // for the group that was asked for
}

// PracticeFile is the file of a practice, as text and as a document.
type PracticeFile struct {
	Text     string          `json:"text"`
	Document json.RawMessage `json:"document"`
	Problem  string          `json:"problem"` // why Text is no document
}

// PracticeText sends the file of a practice, in YAML or JSON.
type PracticeText struct {
	Text string `json:"text"`
}

// PracticeCopy begins an own practice as a copy.
type PracticeCopy struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// PracticeDrafted tells what a file means while it is being written: a page and a sample, or a problem.
type PracticeDrafted struct {
	Page    *Practice `json:"page" jsonschema:"nullable"`
	Sample  *Score    `json:"sample" jsonschema:"nullable"`
	Problem string    `json:"problem"`
}

// Lead starts a class.
type Lead struct {
	PlanID int64 `json:"plan_id"`
	// EndRunning ends the class that is being led, if there is one, instead of refusing to start another.
	EndRunning bool `json:"end_running"`
	// Acknowledged is the texts of the strong cautions that were read; without each of them the class does not begin.
	Acknowledged []string `json:"acknowledged"`
}

// ClassCard is a class in a list.
type ClassCard struct {
	ID        int64    `json:"id"`
	Title     string   `json:"title"`
	Group     *Group   `json:"group" jsonschema:"nullable"`
	StartedMS float64  `json:"started_ms"`
	LengthMS  int64    `json:"length_ms"` // so far, where it is running
	Running   bool     `json:"running"`
	Passages  []string `json:"passages"`
}

// Score is the timeline of a class from the stage in progress on: all that a screen needs to play it by itself
// until the next adjustment.
type Score struct {
	ClassID   int64          `json:"class_id"`
	Revision  int            `json:"revision"` // the number of adjustments so far, refused ones too
	Title     string         `json:"title"`
	Group     *Group         `json:"group" jsonschema:"nullable"`
	StartedMS float64        `json:"started_ms"`                 // of the clock
	SlotMS    int64          `json:"slot_ms"`                    // 0 where none is set
	Strands   []Strand       `json:"strands"`                    // the last has no end where Wait is there
	Wait      *Wait          `json:"wait" jsonschema:"nullable"` // what follows the last strand, which waits for the teacher
	EndMS     int64          `json:"end_ms"`                     // of the class; what waits taken at its planned end
	Calls     []Call         `json:"calls"`                      // what is called out, from a moment ago on
	Passages  []ScorePassage `json:"passages"`
	Answer    *Answer        `json:"answer" jsonschema:"nullable"` // to the last adjustment
}

// Call is something to call out at a moment besides the counts: last, half, minute, half-minute, prompt.
type Call struct {
	AtMS    int64  `json:"at_ms"`
	Passage int    `json:"passage"`
	Kind    string `json:"kind"`
	Text    string `json:"text"`
}

// RoomCode is the short code that joins the room.
type RoomCode struct {
	Code string `json:"code"`
}

// Room is what a room screen shows: the class that is led, without what is only for the teacher; null where none is.
type Room struct {
	Score *Score `json:"score" jsonschema:"nullable"`
}

// Wait tells what comes after a strand that has no end yet.
type Wait struct {
	PlannedEndMS int64    `json:"planned_end_ms"`
	Strands      []Strand `json:"strands"` // timed from the end of the wait
	LengthMS     int64    `json:"length_ms"`
}

// Strand is one phase of a class: a string of counts, each lasting from its own time to that of the next.
type Strand struct {
	Passage  int      `json:"passage"` // from 1
	Practice string   `json:"practice"`
	Stage    string   `json:"stage"`
	Round    int      `json:"round"`
	Breath   int      `json:"breath"`
	Phase    string   `json:"phase"`
	Through  string   `json:"through"`
	First    int      `json:"first"` // number of the first count; 0 is a word's own beat
	Of       int      `json:"of"`
	AtMS     []int64  `json:"at_ms"`  // of each count
	EndMS    int64    `json:"end_ms"` // -1 where it has none yet
	Says     []string `json:"says"`   // at each count
	Starts   bool     `json:"starts"` // a round begins here
	Kept     bool     `json:"kept"`
	Parts    []string `json:"parts"` // of each count, as it is said: belly, ribs, chest; forward, side, up; wide, narrow
	Word     string   `json:"word"`  // for what is done, in the words of the class
	Side     string   `json:"side"`  // as it is said; empty where both nostrils breathe
	Open     bool     `json:"open"`  // lasts until the teacher goes on
	Verbs    []string `json:"verbs"` // the adjustments that are met here
}

// ScorePassage is a passage of the running order as it stands.
type ScorePassage struct {
	Name     string    `json:"name"`
	Type     string    `json:"type"`
	Practice string    `json:"practice"`
	Term     string    `json:"term"`
	Script   string    `json:"script"`
	StartMS  int64     `json:"start_ms"` // as it was or will be
	EndMS    int64     `json:"end_ms"`
	Rounds   int       `json:"rounds"` // the total in force, 0 where there are none
	Counts   string    `json:"counts"`
	Tempo    float64   `json:"tempo"` // counts a minute in force
	Slower   float64   `json:"slower"`
	Faster   float64   `json:"faster"`
	Cautions []Caution `json:"cautions"`
	Findings []Finding `json:"findings"` // for the class's group and hour
	InForce  InForce   `json:"in_force"`
	Steps    []string  `json:"steps"` // the closing, in words
}

// Adjust makes a live adjustment. Key is the sender's own name for it: the same key again changes nothing and gets
// the first answer.
type Adjust struct {
	Key  string   `json:"key"`
	Do   string   `json:"do"`
	To   *float64 `json:"to,omitempty"`
	By   *int     `json:"by,omitempty"`
	ToMS *int64   `json:"to_ms,omitempty"` // finish-by: the deadline, from the class's start
	// Counts is for the verb counts: inhale, hold, exhale, empty hold.
	Counts []int `json:"counts,omitempty"`
	// Because is what was seen in the room and led to this; it has no effect and is recorded.
	Because string  `json:"because,omitempty"`
	Carry   bool    `json:"carry,omitempty"`
	Text    *string `json:"text,omitempty"`
	See     *string `json:"see,omitempty"`
}

// Answer is what became of an adjustment.
type Answer struct {
	Number  int     `json:"number"` // within the class, from 1
	AtMS    int64   `json:"at_ms"`
	Do      string  `json:"do"`
	Refused string  `json:"refused"` // the reason, empty where it was accepted
	When    string  `json:"when"`    // from when on it acts
	Before  InForce `json:"before"`  // in the passage that it was met in
	After   InForce `json:"after"`
	Undone  string  `json:"undone"`  // the verb that an undo took back
	LateMS  int64   `json:"late_ms"` // how far beyond its deadline a finish-by could not help ending
	Text    string  `json:"text"`    // of a note
	See     string  `json:"see"`     // of a signal, in words
	Because string  `json:"because"` // what was seen and led to this, in words
}

// Signal is something that can be seen in the room.
type Signal struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// Saw says what was seen in a class. Key is as in Adjust.
type Saw struct {
	Key string `json:"key"`
	See string `json:"see"`
}

// Proposed is what to do about what was seen: adjustments to send as they are but for their keys, or only words.
type Proposed struct {
	Score Score    `json:"score"`
	Say   string   `json:"say"`
	Do    []Adjust `json:"do"`
}

// Taps is moments that were tapped, in milliseconds and in order, at each count or at each inhale.
type Taps struct {
	AtMS    []int64 `json:"at_ms"`
	Breaths bool    `json:"breaths"`
}

// Tapped is the room's own pace.
type Tapped struct {
	IntervalMS float64 `json:"interval_ms"`
	SpreadMS   float64 `json:"spread_ms"`
	Used       int     `json:"used"`
	Aside      int     `json:"aside"`
	Tempo      float64 `json:"tempo"` // at which the class would be as quick as the room; 0 where nothing is counted
}

// InForce is what is in force in a passage: the tempo at once, all else from the next round on.
type InForce struct {
	Tempo   float64 `json:"tempo"` // counts or strokes a minute
	Rounds  int     `json:"rounds"`
	Counts  string  `json:"counts"`
	Strokes int     `json:"strokes"`
}

// Adjusted is the answer to an Adjust, with the score after it.
type Adjusted struct {
	Answer Answer `json:"answer"`
	Score  Score  `json:"score"`
}

// Record is what was taught in one class.
type Record struct {
	Class     ClassCard       `json:"class"`
	PlanID    int64           `json:"plan_id"` // 0 where the plan is gone
	PlannedMS int64           `json:"planned_ms"`
	TaughtMS  int64           `json:"taught_ms"` // so far, where it is running
	Passages  []RecordPassage `json:"passages"`
	Marks     []Mark          `json:"marks"`
	// Acknowledged is the strong cautions that were read before the class was led.
	Acknowledged []string `json:"acknowledged"`
}

// RecordPassage is one passage, planned beside taught.
type RecordPassage struct {
	Name            string  `json:"name"`
	Practice        string  `json:"practice"`
	Counts          string  `json:"counts"`
	OwnPace         bool    `json:"own_pace"`
	Trial           bool    `json:"trial"`
	PlannedAtMS     int64   `json:"planned_at_ms"`
	PlannedLengthMS int64   `json:"planned_length_ms"`
	AtMS            int64   `json:"at_ms"`
	LengthMS        int64   `json:"length_ms"`
	PlannedRounds   int     `json:"planned_rounds"`
	Rounds          int     `json:"rounds"`
	Abandoned       int     `json:"abandoned"`
	PlannedTempo    float64 `json:"planned_tempo"`
	TempoStart      float64 `json:"tempo_start"`
	TempoEnd        float64 `json:"tempo_end"`
	TempoMean       float64 `json:"tempo_mean"`
	PerMinute       float64 `json:"per_minute"`
	LongestHoldMS   int64   `json:"longest_hold_ms"`
	HeldFullMS      int64   `json:"held_full_ms"`
	HeldEmptyMS     int64   `json:"held_empty_ms"`
	LeftInhales     int     `json:"left_inhales"`
	RightInhales    int     `json:"right_inhales"`
}

// Mark is one adjustment of a record, with the passage it was made in.
type Mark struct {
	Answer  Answer `json:"answer"`
	Passage int    `json:"passage"` // from 1, 0 after the end
}
