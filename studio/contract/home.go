package contract

// HomeAmount is how much of a practice goes home, and how it is to be done there.
type HomeAmount struct {
	Minutes  int    `json:"minutes"` // a day, 1 to 30
	Pieces   int    `json:"pieces"`  // in which they are taken, 1 to 10
	Days     int    `json:"days"`    // 0 if they are left open
	When     string `json:"when"`    // in the day; empty if it does not matter
	Sentence string `json:"sentence"`
}

// HomeOffer is what can go home from a plan or a class, and what did.
type HomeOffer struct {
	Title    string        `json:"title"`
	PlanID   int64         `json:"plan_id"`  // 0 if the plan is gone
	ClassID  int64         `json:"class_id"` // 0 before any class
	Passages []HomePassage `json:"passages"` // the one that was the point of the class first
	Whens    []string      `json:"whens"`    // to choose from; others can be typed
	Given    []Home        `json:"given"`    // from here, the latest first
	Before   []Home        `json:"before"`   // what the group was given before, to be used again
}

// HomePassage is a passage that can go home.
type HomePassage struct {
	Passage int        `json:"passage"` // its number in the plan
	Name    string     `json:"name"`
	Says    string     `json:"says"`   // how it was led: 4:2:7, 9 rounds at 60
	Counts  string     `json:"counts"` // that can be changed; empty if there are none
	Tempo   float64    `json:"tempo"`  // counts or strokes a minute; 0 if there is none
	Usual   HomeAmount `json:"usual"`
}

// HomeGive is what is given to do at home.
type HomeGive struct {
	Passage int     `json:"passage"` // 0 if something is given again
	Again   int64   `json:"again"`   // what was given before
	Counts  string  `json:"counts"`  // empty as they were led
	Tempo   float64 `json:"tempo"`   // 0 as it was led
	HomeAmount
}

// Home is a practice that was given to do at home.
type Home struct {
	ID      int64   `json:"id"`
	ClassID int64   `json:"class_id"` // 0 if it was given with a plan, before any class
	PlanID  int64   `json:"plan_id"`
	GivenMS float64 `json:"given_ms"`
	Name    string  `json:"name"`
	Says    string  `json:"says"`   // one piece: 4:2:7, 12 rounds at 60, about 3 min
	Amount  string  `json:"amount"` // 10 minutes a day, in 3 pieces, for 7 days, in the morning
	Plays   bool    `json:"plays"`  // nothing in it waits for a teacher, so that a page can play it
	Answer  string  `json:"answer"` // how it was; empty if that is not known
	// Revision counts the answers; an answer names the one that it changes.
	Revision int64 `json:"revision"`
	HomeAmount
}

// HomeSheet is a home practice with what its paper says.
type HomeSheet struct {
	Home     Home     `json:"home"`
	From     string   `json:"from"` // the class
	Term     string   `json:"term"`
	How      []string `json:"how"`
	Opening  []string `json:"opening"`
	Closing  []string `json:"closing"`
	Beside   string   `json:"beside"` // what those do who take the gentler lane; empty if there is none
	Cautions []string `json:"cautions"`
	Stop     string   `json:"stop"` // when to stop
}

// HomesOfGroup is what a group was given, and how it was may be asked.
type HomesOfGroup struct {
	Homes   []Home   `json:"homes"`   // the latest first
	Ask     []int64  `json:"ask"`     // those to be asked about when the group comes again
	Answers []string `json:"answers"` // to choose from
}

// HomeAnswer is how it was at home; empty takes an answer back.
type HomeAnswer struct {
	Answer   string `json:"answer"`
	Revision int64  `json:"revision"`
}

// HomeTooMuch is the answer that speaks against a step up.
const HomeTooMuch = "too-much"

// HomePage is what the page that plays is made of. It is in the page, and nothing is asked of any server.
type HomePage struct {
	Sheet   HomeSheet    `json:"sheet"`
	Choices []HomeChoice `json:"choices"` // of how much at once, the least first
	Given   int          `json:"given"`   // which of them it is as it was given, from 0
}

// HomeRecordings is what a recorded voice says in the page that plays, whatever is chosen there.
type HomeRecordings struct {
	Name    string   `json:"name"`    // whose voice; empty if none speaks
	Sums    []string `json:"sums"`    // of the recordings
	Missing []string `json:"missing"` // what is said and was not recorded
}

// HomeChoice is how much is played at once.
type HomeChoice struct {
	Says  string `json:"says"` // 6 rounds, about 3 min
	Score Score  `json:"score"`
}
