package contract

import (
	"vastlantern/core/care"
	"vastlantern/core/fact"
)

// Group is a group of people that is taught.
type Group struct {
	ID         int64             `json:"id"` // 0 for a new one
	Name       string            `json:"name"`
	Level      string            `json:"level"`
	Size       int               `json:"size"`       // usual number of people, 0 if not known
	Weekday    int               `json:"weekday"`    // of its weekly class, 0 is Sunday; -1 for none
	Weektime   string            `json:"weektime"`   // as 18:30
	Under16    bool              `json:"under16"`    // there are people under 16
	Conditions map[string]int    `json:"conditions"` // how many people have each, never who
	Schools    map[string]string `json:"schools"`    // where the group differs from the teacher
	Notes      string            `json:"notes"`
	Revision   int64             `json:"revision"` // a save names the one that it changes
}

// Groups is the groups by name, and what a form of one asks.
type Groups struct {
	Groups     []Group     `json:"groups"`
	Levels     []string    `json:"levels"`
	Conditions []Condition `json:"conditions"`
}

// Condition is something that may be so for somebody in the room.
type Condition struct {
	ID   string    `json:"id"`
	Name fact.Fact `json:"name"`
}

// Finding is what the rules of care say of a passage for a group.
type Finding struct {
	Do      care.Do    `json:"do"` // leave out, gentle variant, carefully
	Say     fact.Fact  `json:"say"`
	Instead *fact.Fact `json:"instead" jsonschema:"nullable"`
}

// Advice is something about the order or the length of a plan. It forbids nothing.
type Advice struct {
	Passage int       `json:"passage"` // from 1; 0 for the plan as a whole
	Key     string    `json:"key"`     // by which it is put away and applied
	Say     fact.Fact `json:"say"`
	Why     fact.Fact `json:"why"`
	// Do is the change that the core can make about it; empty if it is for the teacher to change.
	Do ChangeKind `json:"do"`
}

// Settings is what the teacher has chosen. Questions, Languages and Words are there to choose from, and not stored.
type Settings struct {
	Schools  map[string]string `json:"schools"`  // the way chosen for each question; absent for the first
	Language string            `json:"language"` // of what is said, a BCP 47 tag
	OwnWords map[string]string `json:"own_words"`
	CareRead bool              `json:"care_read"` // the caution for everyone was read once
	Bring    string            `json:"bring"`     // what people are asked to bring, on the room's page before a class
	AskAfter bool              `json:"ask_after"` // the room's page asks after a class how it was
	// the uid of the recorded voice that speaks; empty for the browser's own
	Voice     string     `json:"voice"`
	Keys      Keys       `json:"keys"`
	Revision  int64      `json:"revision"` // a save names the one that it changes
	Meanings  []Means    `json:"meanings,omitempty"`
	Questions []Question `json:"questions,omitempty"`
	Languages []string   `json:"languages,omitempty"`
	Words     []Word     `json:"words,omitempty"`  // of the language
	General   fact.Fact  `json:"general,omitzero"` // the caution for everyone
}

// Question is one thing that schools do in different ways; the first is the default.
type Question struct {
	ID   string    `json:"id"`
	Asks fact.Fact `json:"asks"`
	Ways []Way     `json:"ways"`
}

// Way is one answer to a Question.
type Way struct {
	ID   string    `json:"id"`
	Says fact.Fact `json:"says"`
}

// Means is what a pedal or a key of a remote can mean.
type Means struct {
	ID   string    `json:"id"` // of a control
	Says fact.Fact `json:"says"`
}

// Word is one entry of the table of what is said.
type Word struct {
	Key  string `json:"key"`
	Text string `json:"text"`
	Name string `json:"name"` // what it is, in the reader's language
}

// Caution is one thing to be careful about.
type Caution struct {
	ID     string    `json:"id"` // of what it is about, or everyone
	Say    fact.Fact `json:"say"`
	Strong bool      `json:"strong"`
}

// MostPeople is how many people a group, or a class, can have.
const MostPeople = 999
