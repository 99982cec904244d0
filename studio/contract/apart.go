package contract

import (
	"encoding/json"

	"vastlantern/core/care"
)

// Kit is what a lead screen needs of a class to go on with it by itself (docs/rules/apart.md). Its group has no notes:
// they are the teacher's, and stay with the program.
type Kit struct {
	// ClassID is 0 in the kit of a plan, of which a class can be begun.
	ClassID   int64     `json:"class_id"`
	UID       string    `json:"uid"` // of the class
	PlanID    int64     `json:"plan_id"`
	StartedMS int64     `json:"started_ms"`
	EndedMS   *int64    `json:"ended_ms" jsonschema:"nullable"` // null while it is in progress
	Document  string    `json:"document"`                       // the plan file, as it is led
	Pressed   []Pressed `json:"pressed"`
	Group     *Group    `json:"group" jsonschema:"nullable"`
	Care      care.Room `json:"care"`
	Fingers   string    `json:"fingers"`
	// the recorded voice; null if the browser's own speaks
	Voice  *KitVoice `json:"voice" jsonschema:"nullable"`
	Sample bool      `json:"sample"`
	CardUp CardUp    `json:"card_up"`
	Origin string    `json:"origin"` // the device that asks
}

// KitVoice is a recorded voice: its recordings by their plain texts.
type KitVoice struct {
	Name       string            `json:"name"`
	Recordings map[string]string `json:"recordings"`
}

// BegunApart is a class that a lead screen began while the program did not answer.
type BegunApart struct {
	UID     string `json:"uid"` // as Lead.UID; needed
	PlanID  int64  `json:"plan_id"`
	GroupID int64  `json:"group_id"` // 0 if it is of nobody
	// StartedMS is when it began, by the screen's reading of the program's clock; AtMS is how far it had come on the
	// screen when this was sent.
	StartedMS    int64    `json:"started_ms"`
	AtMS         int64    `json:"at_ms"`
	Document     string   `json:"document"` // the plan file, as it is led
	Acknowledged []string `json:"acknowledged"`
}

// Held is what a device of the teacher's keeps for when the program does not answer.
type Held struct {
	Paths  []string `json:"paths"` // what can be asked then, each from /api on
	Plans  []string `json:"plans"` // the titles of the plans that can be led
	Groups int      `json:"groups"`
}

// Pressed is one adjustment as it is kept, accepted or refused.
type Pressed struct {
	Key    string          `json:"key"`
	Origin string          `json:"origin"`
	Line   json.RawMessage `json:"line"` // of an adjustment script
}

// Presses is what a lead screen did and the program does not know yet, in order.
type Presses struct {
	// Since is how many adjustments of the program the screen knew before the first of them, Last the key of the last of
	// those.
	Since   int          `json:"since"`
	Last    string       `json:"last"`
	Presses []TimedPress `json:"presses"`
	// Apart says that the screen went on by itself: it had no answer for a second or longer.
	Apart bool `json:"apart"`
	// Choose is which class goes on where others adjusted it meanwhile: "" if nobody has chosen yet, "screen" for that of
	// this screen, "program" for that of the program.
	Choose Choice `json:"choose"`
	// Keys is the adjustments of the class as the screen has it, in order, without those that were set aside. Needed
	// where Apart is set.
	Keys []string `json:"keys,omitempty"`
	// Copy is those adjustments. Needed with the choice "screen".
	Copy []Pressed `json:"copy,omitempty"`
}

// Choice is which of two classes goes on.
type Choice string

// The choices.
const (
	ChooseNone    Choice = ""
	ChooseScreen  Choice = "screen"
	ChooseProgram Choice = "program"
)

// TimedPress is a press with its moment, in milliseconds of the class.
type TimedPress struct {
	Adjust
	AtMS int64 `json:"at_ms"`
}

// Taken is the class after Presses.
type Taken struct {
	Score Score `json:"score"`
	// Pressed is the adjustments of the class from number From, counted from 0, to the last.
	From    int       `json:"from"`
	Pressed []Pressed `json:"pressed"`
	// Asked is where the teacher has to choose: nothing of Presses was taken. It is what was done on other screens; null
	// elsewhere.
	Asked []Answer `json:"asked" jsonschema:"nullable"`
}

// Ask is what a lead screen asks of its own copy of a class.
type Ask string

// What can be asked. Each takes some of the fields of CoreQuestion.
const (
	AskOpen    Ask = "open"    // Kit, Mine, AtMS: a Score
	AskToLead  Ask = "to-lead" // Kit (of a plan), Gentle, Fit, AtMS (of the clock): its document as it is led
	AskAdopt   Ask = "adopt"   // Kit, AtMS: the class that was begun here as the program has it: a Score
	AskPress   Ask = "press"   // AtMS, Presses (one): a PressedHere
	AskScore   Ask = "score"   // AtMS: a Score
	AskWould   Ask = "would"   // AtMS, Presses: a Preview each
	AskPropose Ask = "propose" // AtMS, See: a Proposed without a score
	AskTapped  Ask = "tapped"  // AtMS, Taps: a Tapped
	AskHeard   Ask = "heard"   // AtMS, Heard: a FromHeard
	AskGap     Ask = "gap"     // FromMS, AtMS: a Gap
	AskTurn    Ask = "turn"    // CardUp, AtMS: a Score
	AskUnsent  Ask = "unsent"  // an UnsentHere
	AskSync    Ask = "sync"    // From, Mine (of the program), AtMS: a Score; null where the program has everything
	AskSheet   Ask = "sheet"   // Plan, Script, Beside: a cue sheet as text
	AskCues    Ask = "cues"    // Plan, Script, Beside: cues as text
)

// CoreQuestion is what the page of a lead screen asks of its worker.
type CoreQuestion struct {
	Ask     Ask       `json:"ask"`
	AtMS    int64     `json:"at_ms,omitempty"`
	FromMS  int64     `json:"from_ms,omitempty"`
	From    int       `json:"from,omitempty"`
	Kit     *Kit      `json:"kit,omitempty"`
	Mine    []Pressed `json:"mine,omitempty"`
	Presses []Adjust  `json:"presses,omitempty"`
	See     string    `json:"see,omitempty"`
	Taps    *Taps     `json:"taps,omitempty"`
	CardUp  *CardUp   `json:"card_up,omitempty"`

	Heard  *HeardStrokes `json:"heard,omitempty"`
	Gentle []int         `json:"gentle,omitempty"` // as Lead.Gentle
	Fit    bool          `json:"fit,omitempty"`    // as Lead.Fit
	Plan   string        `json:"plan,omitempty"`
	Script string        `json:"script,omitempty"`
	Beside bool          `json:"beside,omitempty"`
}

// PressedHere is a press that a lead screen made, and the score after it.
type PressedHere struct {
	Pressed Pressed `json:"pressed"`
	Score   Score   `json:"score"`
	// Soon says that phases and cues are those of the next minute only, and that calls and prompts are as they were.
	// The whole is to be asked for then.
	Soon bool `json:"soon"`
}

// UnsentHere is what a lead screen did and the program does not know yet.
type UnsentHere struct {
	Presses Presses   `json:"presses"`
	Keys    []string  `json:"keys"` // as Presses.Keys
	Copy    []Pressed `json:"copy"` // as Presses.Copy
	Done    []Answer  `json:"done"`
}
