package contract

import (
	"embed"
	"encoding/json"
	"time"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
)

// The JSON Schemas (2020-12) of the files that leave the application, made of the structs below by make types.
//
//go:embed schema/*.json
var Schemas embed.FS

// Formats of files, as their first field names them.
const (
	ExportFormat  = "vast-lantern-export"
	RecordsFormat = "vast-lantern-records"
)

// Export is everything that a teacher has, to be moved to another machine: what was chosen, the own practices, the
// groups, the plans, and each class that was taught with all that was pressed in it. What is deleted and can still be
// brought back is in it too. It holds no passcode, no signed-in device and no room code.
//
// Lists are in the order in which they were made. The file has no time of its own: the same content is the same file.
type Export struct {
	Format    string           `json:"format" jsonschema:"enum=vast-lantern-export"`
	Version   int              `json:"version" jsonschema:"enum=1"`
	Choices   *Choices         `json:"choices,omitempty"` // missing if nothing was chosen
	Practices []ExportPractice `json:"practices"`
	Groups    []ExportGroup    `json:"groups"`
	Plans     []ExportPlan     `json:"plans"`
	Classes   []ExportClass    `json:"classes"`
	Homes     []ExportHome     `json:"homes,omitempty"`  // missing in files of before there were any
	Voices    []ExportVoice    `json:"voices,omitempty"` // missing in files of before there were any
	// Programmes is missing in files of before there were any.
	Programmes []ExportProgramme `json:"programmes,omitempty"`
	// Rehearsals is missing in files of before there were any.
	Rehearsals []ExportRehearsal `json:"rehearsals,omitempty"`
	Damaged    []ExportDamaged   `json:"damaged,omitempty"` // what could not be read and is missing here
}

// Choices is what the teacher has chosen for all groups, as it is stored too.
type Choices struct {
	// the way for each question on which schools differ, by the question's id
	Schools  map[string]string `json:"schools"`
	Language string            `json:"language"`  // of what is said, as en
	OwnWords map[string]string `json:"own_words"` // what is said in the place of the words of the language
	CareRead bool              `json:"care_read"` // the caution for everyone was read
	// what people are asked to bring, on the room's page before a class
	Bring    string `json:"bring,omitempty"`
	AskAfter bool   `json:"ask_after,omitempty"` // the room's page asks after a class how it was
	// the uid of the recorded voice that speaks in classes of its language
	Voice string `json:"voice,omitempty"`
	Keys  *Keys  `json:"keys,omitempty"`
	// PedalDown and PedalUp are of files from before there were Keys: what Page Down and Page Up mean.
	PedalDown string `json:"pedal_down,omitempty"`
	PedalUp   string `json:"pedal_up,omitempty"`
}

// Keys is how the teacher leads by hand.
type Keys struct {
	Letters   map[string]string `json:"letters"`    // other keys for controls, by the control's id; empty switches one off
	NoLetters bool              `json:"no_letters"` // single letters and digits do nothing (WCAG 2.1.4)
	Remote    []RemoteKey       `json:"remote"`     // what pedals and a presenter's remote mean
}

// RemoteKey is a key of a pedal or a remote, pressed in one way, and what it means.
type RemoteKey struct {
	Key   string   `json:"key"` // its name, as the browser has it: PageDown, ArrowRight
	Press PressWay `json:"press"`
	Means string   `json:"means"` // one of Settings.Meanings
}

// PressWay is how a key is pressed.
type PressWay string

// The ways of pressing.
const (
	Short  PressWay = "short"
	Long   PressWay = "long"
	Double PressWay = "double"
)

// ExportDamaged is an entry that could not be read and is missing in the file.
type ExportDamaged struct {
	Kind string `json:"kind"` // group, plan, class, practice, setting, home practice
	ID   int64  `json:"id"`   // its number on the machine that wrote the file; 0 if it has none
	Name string `json:"name,omitempty"`
	Why  string `json:"why"`
}

// ExportPractice is a teacher's own practice.
type ExportPractice struct {
	ID        string    `json:"id"`
	UpdatedAt time.Time `json:"updated_at"`
	File      string    `json:"file"` // YAML, as docs/practice-files.md tells
}

// ExportGroup is a group of people that is taught.
type ExportGroup struct {
	UID        string            `json:"uid" jsonschema:"minLength=1"` // the same on every machine
	UpdatedAt  time.Time         `json:"updated_at"`
	DeletedAt  *time.Time        `json:"deleted_at,omitempty"`
	Name       string            `json:"name"`
	Level      string            `json:"level"`
	Size       int               `json:"size"`       // usual number of people, 0 if not known
	Weekday    int               `json:"weekday"`    // of its weekly class, 0 is Sunday; -1 for none
	Weektime   string            `json:"weektime"`   // as 18:30
	Under16    bool              `json:"under16"`    // there are people under 16
	Conditions map[string]int    `json:"conditions"` // how many people have each, never who
	Schools    map[string]string `json:"schools"`    // where the group differs from the teacher
	Notes      string            `json:"notes"`
}

// ExportPlan is a plan.
type ExportPlan struct {
	UID       string          `json:"uid" jsonschema:"minLength=1"` // the same on every machine
	Group     string          `json:"group"`                        // the group's uid, empty for none
	UpdatedAt time.Time       `json:"updated_at"`
	DeletedAt *time.Time      `json:"deleted_at,omitempty"`
	Document  json.RawMessage `json:"document" jsonschema:"type=object"` // the plan file
}

// ExportClass is a class that was taught: its plan as it was led, its start and its adjustments, of which all else is
// computed, and what was added to its record.
type ExportClass struct {
	UID   string `json:"uid" jsonschema:"minLength=1"` // the same on every machine
	Group string `json:"group"`                        // the group's uid, empty for none
	// the uid of the plan that it was led from, empty if it is gone
	Plan         string             `json:"plan"`
	StartedAt    time.Time          `json:"started_at"`
	EndedAt      *time.Time         `json:"ended_at,omitempty"` // missing while it is in progress
	DeletedAt    *time.Time         `json:"deleted_at,omitempty"`
	Acknowledged []string           `json:"acknowledged"`                      // the strong cautions that were read before
	Document     json.RawMessage    `json:"document" jsonschema:"type=object"` // the plan file as it was led
	Adjustments  []ExportAdjustment `json:"adjustments"`                       // in the order they were made
	Remarks      []ExportRemark     `json:"remarks"`                           // in the order they were made
	Answers      *ExportAnswers     `json:"answers,omitempty"`                 // missing where nobody was asked
	CheckIn      *ExportCheckIn     `json:"check_in,omitempty"`                // missing where nobody was asked
	Heard        []Heard            `json:"heard,omitempty"`                   // what a lead screen heard of the room
}

// ExportCheckIn is what the room answered before and after a class: sums, never who.
type ExportCheckIn struct {
	Question   plan.CheckIn   `json:"question" jsonschema:"enum=side,enum=calm"`
	Before     map[string]int `json:"before"` // by the answer, how many gave it
	After      map[string]int `json:"after"`
	MostBefore int            `json:"most_before" jsonschema:"minimum=0"` // no more are taken
	MostAfter  int            `json:"most_after" jsonschema:"minimum=0"`
}

// ExportAdjustment is one adjustment, accepted or refused.
type ExportAdjustment struct {
	Key    string          `json:"key"`                           // the sender's own name for it, once in a class
	Origin string          `json:"origin,omitempty"`              // the device, where one had to sign in
	Line   json.RawMessage `json:"line" jsonschema:"type=object"` // a line of an adjustment script
}

// ExportAnswers is what those who breathed answered after a class: sums, never who.
type ExportAnswers struct {
	Most    int `json:"most" jsonschema:"minimum=0"` // no more are taken
	Easy    int `json:"easy" jsonschema:"minimum=0"`
	Right   int `json:"right" jsonschema:"minimum=0"`
	TooMuch int `json:"too_much" jsonschema:"minimum=0"`
	Main    int `json:"main" jsonschema:"minimum=0"`   // of these, those who told which lane they took
	Beside  int `json:"beside" jsonschema:"minimum=0"` // the gentler one
	// what people counted at own pace: by the number of rounds or strokes, how many told it
	Amounts map[int]int `json:"amounts,omitempty"`
}

// ExportHome is a practice that was given to do at home.
type ExportHome struct {
	UID string `json:"uid" jsonschema:"minLength=1"` // the same on every machine
	// the uid of the class it was given in, empty if it was given with a plan
	Class      string          `json:"class"`
	Plan       string          `json:"plan"`  // the plan's uid, empty if it is gone
	Group      string          `json:"group"` // the group's uid, empty for none
	GivenAt    time.Time       `json:"given_at"`
	Document   json.RawMessage `json:"document" jsonschema:"type=object"` // a plan file of one passage
	Minutes    int             `json:"minutes"`                           // a day
	Pieces     int             `json:"pieces"`
	Days       int             `json:"days"` // 0 if they are left open
	When       string          `json:"when"` // in the day
	Sentence   string          `json:"sentence"`
	Evening    string          `json:"evening,omitempty"` // same or half; empty for none
	Begins     string          `json:"begins,omitempty"`  // the day that is day 1, as 2026-11-30
	Ask        string          `json:"ask,omitempty"`     // whom to ask
	Steps      []HomeStep      `json:"steps,omitempty"`   // how it grows
	Answer     string          `json:"answer"`            // how it was; empty if that is not known
	AnsweredAt *time.Time      `json:"answered_at,omitempty"`
}

// ExportProgramme is what a group follows over weeks. Its plans and classes carry its uid.
type ExportProgramme struct {
	UID       string          `json:"uid" jsonschema:"minLength=1"` // the same on every machine
	Group     string          `json:"group"`                        // the group's uid, empty for none
	UpdatedAt time.Time       `json:"updated_at"`
	DeletedAt *time.Time      `json:"deleted_at,omitempty"`
	Programme json.RawMessage `json:"programme" jsonschema:"type=object"` // its steps, and when it goes on
	// the plan file of the class with which it was begun
	Base json.RawMessage `json:"base" jsonschema:"type=object"`
}

// ExportRehearsal is a plan that was led with a simulated room.
type ExportRehearsal struct {
	UID       string          `json:"uid" jsonschema:"minLength=1"` // the same on every machine
	StartedAt time.Time       `json:"started_at"`
	UpdatedAt time.Time       `json:"updated_at"`
	EndedAt   *time.Time      `json:"ended_at,omitempty"`
	DeletedAt *time.Time      `json:"deleted_at,omitempty"`
	AtMS      int64           `json:"at_ms" jsonschema:"minimum=0"` // how far it came
	Looks     int             `json:"looks" jsonschema:"minimum=0"`
	Setting   json.RawMessage `json:"setting" jsonschema:"type=object"` // the room, the seed, the task and its level
	Script    json.RawMessage `json:"script" jsonschema:"type=array"`   // what was pressed, and when
	Digest    json.RawMessage `json:"digest,omitempty" jsonschema:"type=object"`
	Document  json.RawMessage `json:"document" jsonschema:"type=object"` // the plan file
}

// ExportVoice is a recorded voice.
type ExportVoice struct {
	UID       string            `json:"uid" jsonschema:"minLength=1"` // the same on every machine
	Name      string            `json:"name"`
	Language  string            `json:"language"`
	UpdatedAt time.Time         `json:"updated_at"`
	DeletedAt *time.Time        `json:"deleted_at,omitempty"`
	Words     []ExportRecording `json:"words"` // in the order in which they were recorded
}

// ExportRecording is a word of a voice.
type ExportRecording struct {
	Text    string    `json:"text"`
	MadeAt  time.Time `json:"made_at"`
	Was     float64   `json:"was"`  // loudness before it was brought to one, LUFS
	Gain    float64   `json:"gain"` // dB
	Clipped bool      `json:"clipped,omitempty"`
	Sound   []byte    `json:"sound"` // RIFF WAVE, in base64
}

// ExportRemark is something that was added to a record afterwards.
type ExportRemark struct {
	At time.Time `json:"at"`
	// people, gentler, took, note, correction, next (a note for next time), used or put-away
	Kind string `json:"kind"`
	Text string `json:"text"`
}

// Records is the record of one class or of several, the newest first, with everything that is known of it.
type Records struct {
	Format  string          `json:"format" jsonschema:"enum=vast-lantern-records"`
	Version int             `json:"version" jsonschema:"enum=1"`
	Classes []RecordOfClass `json:"classes"`
}

// RecordOfClass is one class: its record as the screen shows it, and the plan that it was led from. Times of the
// adjustments, passages and rounds are milliseconds from the start of the class.
type RecordOfClass struct {
	Class     ClassCard       `json:"class"`
	PlannedMS int64           `json:"planned_ms"`
	TaughtMS  int64           `json:"taught_ms"` // so far, where it is running
	Passages  []RecordPassage `json:"passages"`
	Totals    RecordTotals    `json:"totals"`
	Marks     []Mark          `json:"marks"`   // the adjustments, and what became of each
	Remarks   []Remark        `json:"remarks"` // added afterwards, in the order they were
	Curve     []CurvePoint    `json:"curve"`   // of the rounds as they were led
	Told      Told            `json:"told"`    // by those who breathed
	CheckIn   *CheckInSums    `json:"check_in,omitempty"`
	Heard     []HeardPhase    `json:"heard,omitempty"` // what a lead screen heard, beside what was planned and led
	Homes     []Home          `json:"homes"`           // what was given to do at home
	// the strong cautions that were read before the class was led
	Acknowledged []string        `json:"acknowledged"`
	Plan         json.RawMessage `json:"plan" jsonschema:"type=object"` // the plan file as it was led
}

// ImportStage is what is done with a file that is imported.
type ImportStage string

// The stages. While nothing is imported it is empty.
const (
	ImportReading ImportStage = "reading" // its bytes
	ImportWriting ImportStage = "writing" // its changes
)

// ImportProgress is how far that is.
type ImportProgress struct {
	Stage ImportStage `json:"stage"`
	Done  int64       `json:"done"`
	Of    int64       `json:"of"` // 0 if it is not known
}

// Imported is what a file of everything would change here, or has changed.
type Imported struct {
	Lines   []fact.Fact `json:"lines"`   // the changes, the first of many alike
	Changes bool        `json:"changes"` // whether there is anything to change
	Done    bool        `json:"done"`
	Kept    string      `json:"kept"` // the copy of the data file as it was before
}
