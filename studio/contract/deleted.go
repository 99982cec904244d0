package contract

import "vastlantern/core/fact"

// Deletion is what goes with something that is deleted, to be said before.
type Deletion struct {
	Goes    *fact.Fact `json:"goes" jsonschema:"nullable"`    // goes with it always; null if nothing does
	Classes *fact.Fact `json:"classes" jsonschema:"nullable"` // of a group: goes with it if that is wanted
	Days    int        `json:"days"`                          // for which it can be brought back
}

// Deleted is something that can still be brought back.
type Deleted struct {
	Kind      string  `json:"kind"` // group, plan, class
	ID        int64   `json:"id"`
	Name      string  `json:"name"`
	StartedMS float64 `json:"started_ms"` // of a class, else 0
	UntilMS   float64 `json:"until_ms"`
}

// DeletedList is what can still be brought back, the latest first.
type DeletedList struct {
	Deleted []Deleted `json:"deleted"`
}
