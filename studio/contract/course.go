package contract

import "vastlantern/core/fact"

// GroupCourse is what a group was taught over the weeks, and what comes next.
type GroupCourse struct {
	Classes   int              `json:"classes"` // that are over, of the last year or so
	Streak    int              `json:"streak"`  // of the last ones, led as planned with nothing eased
	Practices []PracticeCourse `json:"practices"`
	CheckIns  []CheckInPoint   `json:"check_ins"` // what the room said before and after, the oldest first
	Never     []string         `json:"never"`     // names of practices that this group was never taught
}

// PracticeCourse is the course of one practice.
type PracticeCourse struct {
	Practice string        `json:"practice"`
	Name     string        `json:"name"`
	Points   []CoursePoint `json:"points"` // the oldest first
	// what next time, in short; null if it was never led in rounds
	Next    *fact.Fact `json:"next" jsonschema:"nullable"`
	Why     *fact.Fact `json:"why" jsonschema:"nullable"`
	BasedOn []int64    `json:"based_on"` // on these classes
}

// CoursePoint is a practice in one class. What it has none of is 0.
type CoursePoint struct {
	ClassID   int64   `json:"class_id"`
	StartedMS float64 `json:"started_ms"`
	Counts    string  `json:"counts"` // at the end
	Breath    int     `json:"breath"` // counts of one breath
	Rung      int     `json:"rung"`   // of the ratio, from 1
	Rounds    int     `json:"rounds"`
	Planned   int     `json:"planned"` // rounds
	Tempo     float64 `json:"tempo"`   // the mean
	LengthMS  int64   `json:"length_ms"`
	HeldMS    int64   `json:"held_ms"`
	Eased     bool    `json:"eased"`
}
