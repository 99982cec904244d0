package contract

import (
	"encoding/json"
	"vastlantern/core/fact"
	"vastlantern/core/programme"
)

// ProgrammeTemplate is a programme of ours to begin with.
type ProgrammeTemplate struct {
	ID        string              `json:"id"`
	About     string              `json:"about"`
	Programme programme.Programme `json:"programme"`
	Counts    bool                `json:"counts"`  // it needs a practice of counts
	Strokes   bool                `json:"strokes"` // it needs a practice of strokes
}

// ProgrammeOffer is what a programme can be begun with, for a plan.
type ProgrammeOffer struct {
	Templates []ProgrammeTemplate `json:"templates"`
	Passages  []ProgrammePassage  `json:"passages"` // practices, each of which can follow the steps
	Begins    bool                `json:"begins"`   // the plan has a time, from which the others follow
}

// ProgrammePassage is a practice of a plan.
type ProgrammePassage struct {
	Passage int    `json:"passage"` // from 1
	Name    string `json:"name"`
	Says    string `json:"says"` // the short way of writing it
	Counts  bool   `json:"counts"`
	Strokes bool   `json:"strokes"`
	Point   bool   `json:"point"` // what the class is about
}

// ProgrammeCard is a programme, and where its group is.
type ProgrammeCard struct {
	ID    int64     `json:"id"`
	Name  string    `json:"name"`
	Group *Group    `json:"group" jsonschema:"nullable"`
	Step  int       `json:"step"` // of the next class, from 1
	Steps int       `json:"steps"`
	Says  string    `json:"says"` // what the step asks for
	Why   fact.Fact `json:"why"`  // it is there
	Over  bool      `json:"over"` // the last step is done
}

// ProgrammeSheet is a programme over time.
type ProgrammeSheet struct {
	Card      ProgrammeCard       `json:"card"`
	Programme programme.Programme `json:"programme"`
	Classes   []ProgrammeClass    `json:"classes"` // what was, and what comes, in the order of their times
	Passages  []ProgrammePassage  `json:"passages"`
	// Planned is the step of each class if every one had been led as planned from the first on.
	Planned []int `json:"planned"`
	// Revision counts the saves; a save names the one that it changes.
	Revision int64 `json:"revision"`
}

// ProgrammeSave changes the steps of a programme.
type ProgrammeSave struct {
	Revision  int64               `json:"revision"`
	Programme programme.Programme `json:"programme"`
}

// ProgrammeState is how a class of a programme went, or that it comes.
type ProgrammeState string

// The states besides the outcomes of the core.
const (
	StatePlanned ProgrammeState = "planned"
	StateEased   ProgrammeState = "eased"
	StateTooMuch ProgrammeState = "too-much"
	StateMissed  ProgrammeState = "missed"
	StateRunning ProgrammeState = "running"
	StateComing  ProgrammeState = "coming"
)

// ProgrammeClass is one class of a programme.
type ProgrammeClass struct {
	Number   int            `json:"number"`
	PlanID   int64          `json:"plan_id"`  // 0 if it is gone
	ClassID  int64          `json:"class_id"` // 0 if it was not led
	StartsMS float64        `json:"starts_ms"`
	Step     int            `json:"step"` // from 1
	Says     string         `json:"says"`
	State    ProgrammeState `json:"state"`
	Changed  bool           `json:"changed"`                   // by the teacher: what comes is left as it is
	Why      *fact.Fact     `json:"why" jsonschema:"nullable"` // it stays below its step
}

// ProgrammeOfPlan is the programme that a plan is a class of; null if it is of none.
type ProgrammeOfPlan struct {
	Sheet  *ProgrammeSheet `json:"sheet" jsonschema:"nullable"`
	Number int             `json:"number"`
}

// ProgrammeGive is which group follows a programme, from when on.
type ProgrammeGive struct {
	GroupID  int64  `json:"group_id"`  // 0 for none
	StartsAt string `json:"starts_at"` // of the first class, as RFC 3339 writes it
}

// ProgrammeFile is a programme as a file.
type ProgrammeFile struct {
	Format    string              `json:"format"`  // vast-lantern-programme
	Version   int                 `json:"version"` // 1
	Programme programme.Programme `json:"programme"`
	// Base is the plan file of the class that its steps change.
	Base json.RawMessage `json:"base" jsonschema:"type=object"`
}

// ProgrammeBring begins a programme from a file.
type ProgrammeBring struct {
	File ProgrammeFile `json:"file"`
	ProgrammeGive
}
