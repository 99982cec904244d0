// Package contract holds the shapes that cross the wire between the program and its screens. Their TypeScript is
// generated from them (make types). Times named _ms are whole milliseconds: of a class from its start, of the clock
// since 1970 (Unix).
package contract

import "vastlantern/core/fact"

// Clock is the answer to a clock exchange (RFC 5905, section 8): when the question came and when the answer left,
// on the application's clock, and how fast that clock runs. A screen that noted its own sending and receiving time
// knows the offset.
type Clock struct {
	ReceivedMS float64 `json:"received_ms"`
	SentMS     float64 `json:"sent_ms"`
	Rate       float64 `json:"rate"` // 1, or more where the application was started for try-outs
}

// Problem is every error answer. Say reports what is wrong and what to do.
type Problem struct {
	Say     fact.Fact    `json:"say"`
	Fields  []FieldError `json:"fields,omitempty"`   // what is wrong in a plan
	ClassID int64        `json:"class_id,omitempty"` // the class that runs already
	Changed bool         `json:"changed,omitempty"`  // another screen saved first: read it again and compare
}

// FieldError is one thing that is wrong in a plan. Passage is 0 for the plan itself.
type FieldError struct {
	Passage int       `json:"passage"`
	Field   string    `json:"field"`
	Given   string    `json:"given"`
	Allowed fact.Fact `json:"allowed"`
	Say     fact.Fact `json:"say"` // all of it in one line
}

// Done is the answer to what has no other.
type Done struct {
	Say fact.Fact `json:"say"`
}

// DemoData is what of the demo is in the data file: groups, with their plans and their past.
type DemoData struct {
	Groups  []string `json:"groups"`  // that are there
	Offered []string `json:"offered"` // that there can be
}

// Today is what the first screen shows.
type Today struct {
	NowMS  float64     `json:"now_ms"`
	Next   *PlanCard   `json:"next" jsonschema:"nullable"` // the next by the clock
	Last   *Record     `json:"last" jsonschema:"nullable"` // what was taught last to the next plan's group
	Advice []Advice    `json:"advice"`                     // what the group's record advises for the next plan
	Plans  []PlanCard  `json:"plans"`                      // others to come, and those without a time: the first of each
	More   int64       `json:"more"`                       // how many more of these there are
	Taught []ClassCard `json:"taught"`                     // the last few classes
	Failed []Failed    `json:"failed"`                     // the parts that are missing, each for its own reason
	// entries of the data file that cannot be read and are left out
	Damaged []Entry  `json:"damaged"`
	File    DataFile `json:"file"`
}

// PlansFound is plans that were looked for by their titles, those changed last first.
type PlansFound struct {
	Plans []PlanCard `json:"plans"`
	More  bool       `json:"more"` // there are more after these
}

// Failed is a part of Today that could not be put together: plans, next, last, advice or taught.
type Failed struct {
	Part string    `json:"part"`
	Say  fact.Fact `json:"say"`
}

// Entry is an entry of the data file. Name says of what kind it is, and which.
type Entry struct {
	Kind string    `json:"kind"`
	ID   int64     `json:"id"` // 0 if it has none
	Name string    `json:"name"`
	Why  fact.Fact `json:"why"`
}

// DataFile is what is to be known of the data file since the start of the program.
type DataFile struct {
	Path       string `json:"path"`
	Made       bool   `json:"made"`       // there was none of the name, and nothing is in it yet
	Incomplete bool   `json:"incomplete"` // it looks like a copy of a file in use: the last classes may be missing
}

// PlanCard is a plan in a list.
type PlanCard struct {
	ID       int64    `json:"id"`
	Title    string   `json:"title"`
	Group    *Group   `json:"group" jsonschema:"nullable"`
	StartsMS *float64 `json:"starts_ms" jsonschema:"nullable"` // null if no time is set
	LengthMS int64    `json:"length_ms"`
	SlotMS   int64    `json:"slot_ms"` // 0 if none is set
	Passages []string `json:"passages"`
	Wrong    bool     `json:"wrong"` // has errors and cannot be led yet
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
	Eased     bool     `json:"eased"` // something was made easier for the room
}

// Search asks for classes; what is empty is not asked.
type Search struct {
	GroupID  int64  `json:"group_id" form:"group"`
	Practice string `json:"practice" form:"practice"`
	From     string `json:"from" form:"from"` // days, as 2026-03-02
	To       string `json:"to" form:"to"`
	Eased    bool   `json:"eased" form:"eased"`
	Words    string `json:"words" form:"words"` // each somewhere in titles, notes and remarks
	Skip     int    `json:"skip" form:"skip"`
}

// Found is the classes that were asked for.
type Found struct {
	Classes []ClassCard `json:"classes"`
	More    bool        `json:"more"` // there are more to ask for, with Skip
	// how many are still being worked out, as after an update, and are not in the list yet
	Preparing int64 `json:"preparing"`
}
