package contract

import "vastlantern/core/fact"

// Summary is what was taught in a year. Times are milliseconds.
type Summary struct {
	Year      int           `json:"year"`
	Classes   int           `json:"classes"`
	TaughtMS  int64         `json:"taught_ms"` // from the start of each class to its end
	TalksMS   int64         `json:"talks_ms"`  // of this, talks
	FreeMS    int64         `json:"free_ms"`   // natural breath and rests between practices
	Practices []PracticeSum `json:"practices"` // the longest first
	Groups    []GroupSum    `json:"groups"`    // the same
	Months    []MonthSum    `json:"months"`    // those with classes
}

// PracticeSum is one practice in a summary.
type PracticeSum struct {
	Practice  string `json:"practice"`
	Name      string `json:"name"`
	Classes   int    `json:"classes"`
	Rounds    int    `json:"rounds"` // led and kept
	LedMS     int64  `json:"led_ms"`
	OwnPaceMS int64  `json:"own_pace_ms"`
	TrialMS   int64  `json:"trial_ms"` // try-outs
}

// GroupSum is one group in a summary.
type GroupSum struct {
	Name     string  `json:"name"` // empty for classes of no group
	Classes  int     `json:"classes"`
	TaughtMS int64   `json:"taught_ms"`
	People   float64 `json:"people"` // the mean of the classes where it was noted; 0 if it never was
	Level    string  `json:"level"`  // of the group as it is now; empty for no group
	// what it was taught, the longest first; the names of what it never was; the strong cautions that were read before
	Practices []GroupPractice `json:"practices"`
	Never     []string        `json:"never"`
	Cautions  []CautionSum    `json:"cautions"`
}

// GroupPractice is a practice that a group was taught in a year.
type GroupPractice struct {
	Practice string `json:"practice"`
	Name     string `json:"name"`
	Classes  int    `json:"classes"`
	TaughtMS int64  `json:"taught_ms"`
	Level    string `json:"level"` // the highest that was led, in short: counts, strokes; empty at own pace
}

// CautionSum is a strong caution and before how many classes it was read.
type CautionSum struct {
	ID      string    `json:"id"`
	Say     fact.Fact `json:"say"`
	Classes int       `json:"classes"`
}

// MonthSum is one month in a summary.
type MonthSum struct {
	Month    int   `json:"month"` // 1 is January
	Classes  int   `json:"classes"`
	TaughtMS int64 `json:"taught_ms"`
}
