package contract

import (
	"encoding/json"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
)

// Book is the practice book.
type Book struct {
	Practices []Practice `json:"practices"` // by name
	Intents   []string   `json:"intents"`
	Levels    []string   `json:"levels"`
	General   fact.Fact  `json:"general"` // the caution for everyone
}

// Practice is an entry of the practice book.
type Practice struct {
	ID        string      `json:"id"`
	Name      string      `json:"name"`
	Term      string      `json:"term"`
	Language  string      `json:"language"` // of its texts, a BCP 47 tag; empty for one of the teacher's own
	Kind      string      `json:"kind"`     // counted, strokes, fixed, open
	Own       bool        `json:"own"`
	From      string      `json:"from"` // of an own one: the practice that it was made from
	About     string      `json:"about"`
	Also      []string    `json:"also"`
	Intents   []string    `json:"intents"`
	Level     string      `json:"level"`
	Seat      string      `json:"seat"`
	Hands     string      `json:"hands"`
	Eyes      string      `json:"eyes"`
	Locks     string      `json:"locks"`
	How       []string    `json:"how"`
	Prompts   []string    `json:"prompts"`
	Again     []string    `json:"again"` // what comes round again at own pace
	Watch     []string    `json:"watch"`
	Gentler   string      `json:"gentler"`
	Harder    string      `json:"harder"`
	Finish    string      `json:"finish"`
	Schools   []string    `json:"schools"` // where they differ
	Texts     []string    `json:"texts"`   // the verses of the classical texts that name it as a retention
	Shown     []fact.Fact `json:"shown"`   // what the chosen school adds
	Course    []string    `json:"course"`  // what planning inserts, in words
	Pattern   string      `json:"pattern"` // one round in short
	Usual     string      `json:"usual"`   // as it is planned if nothing is said
	RoundMS   int64       `json:"round_ms"`
	PerMinute float64     `json:"per_minute"` // breaths
	Holds     bool        `json:"holds"`
	// who can set its pace, the usual one first
	Pacers   []plan.Pacer `json:"pacers"`
	Cautions []Caution    `json:"cautions"`
	Findings []Finding    `json:"findings"` // for the group that was asked for
}

// PracticeFile is the file of a practice, as text and as a document.
type PracticeFile struct {
	Text     string          `json:"text"`
	Document json.RawMessage `json:"document"`
	Problem  *fact.Fact      `json:"problem" jsonschema:"nullable"` // why Text is no document
	// a save names the one that it changes; 0 for a practice of the catalogue
	Revision int64 `json:"revision"`
}

// PracticeText sends the file of a practice, in YAML or JSON.
type PracticeText struct {
	Text     string `json:"text"`
	Revision int64  `json:"revision"` // 0 for a new one
}

// PracticeCopy begins an own practice as a copy.
type PracticeCopy struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// PracticeDrafted reports what a file means while it is being written: a page and a sample, or a problem.
type PracticeDrafted struct {
	Page    *Practice  `json:"page" jsonschema:"nullable"`
	Sample  *Score     `json:"sample" jsonschema:"nullable"`
	Problem *fact.Fact `json:"problem" jsonschema:"nullable"`
}
