package contract

import (
	"strings"
	"vastlantern/core/fact"
	"vastlantern/core/homework"
)

// HomeAmount is how much of a practice goes home, and how it is to be done there.
type HomeAmount struct {
	Minutes  int        `json:"minutes"`  // a day, 1 to 30; of steps that say no amount
	Pieces   int        `json:"pieces"`   // in which they are taken, 1 to 10
	Days     int        `json:"days"`     // 0 if they are left open; steps say their own
	When     string     `json:"when"`     // in the day; empty if it does not matter
	Evening  string     `json:"evening"`  // a second time in the evening: same or half; empty for none
	Begins   string     `json:"begins"`   // the day that is day 1, as 2026-11-30; empty if it is left open
	Sentence string     `json:"sentence"` // of the teacher's own
	Ask      string     `json:"ask"`      // whom to ask, and how to reach them; empty for the teacher
	Steps    []HomeStep `json:"steps"`    // how it grows; none if every day is alike
}

// Task returns what goes home, without the spaces around what was typed.
func (a HomeAmount) Task() homework.Task {
	task := homework.Task{
		Minutes: a.Minutes, Pieces: a.Pieces, Days: a.Days, When: strings.TrimSpace(a.When),
		Evening: homework.Evening(a.Evening), Begins: a.Begins, Sentence: strings.TrimSpace(a.Sentence),
		Ask: strings.TrimSpace(a.Ask),
	}
	for _, s := range a.Steps {
		task.Steps = append(task.Steps, homework.Step{
			Says: strings.TrimSpace(s.Says), For: s.For, Unit: homework.Unit(s.Unit),
		})
	}
	return task
}

// HomeAmountOf returns a task as it crosses the wire.
func HomeAmountOf(t homework.Task) HomeAmount {
	return HomeAmount{
		Minutes: t.Minutes, Pieces: t.Pieces, Days: t.Days, When: t.When, Evening: string(t.Evening), Begins: t.Begins,
		Sentence: t.Sentence, Ask: t.Ask, Steps: HomeStepsOf(t.Steps),
	}
}

// HomeStepsOf returns the steps as they cross the wire.
func HomeStepsOf(steps []homework.Step) []HomeStep {
	list := []HomeStep{}
	for _, s := range steps {
		list = append(list, HomeStep{Says: s.Says, For: s.For, Unit: string(s.Unit)})
	}
	return list
}

// HomeStep is a stretch of days of a home practice that grows, as it is typed.
type HomeStep struct {
	Says string `json:"says"` // what changes: "x3", "4:4:8", "7 min", "30 strokes"
	For  int    `json:"for"`  // so many of the unit; 0 of the last for an open end
	Unit string `json:"unit"` // day, week or month
}

// HomeGrowth is a way to grow that is proposed, within the limits of the school.
type HomeGrowth struct {
	ID    string     `json:"id"`
	Name  fact.Fact  `json:"name"`
	Steps []HomeStep `json:"steps"`
}

// HomeStretch is a step as it was understood.
type HomeStretch struct {
	First int    `json:"first"` // its first day, from 1
	Last  int    `json:"last"`  // 0 if it has no end
	Typed string `json:"typed"` // empty where every day is alike
	Says  string `json:"says"`  // one piece: 4:2:7, 12 rounds at 60, about 3 min
}

// HomePreview is what steps would be, before they are given.
type HomePreview struct {
	Steps []HomeStepRead `json:"steps"`
}

// HomeStepRead is a typed step as it was understood, or what is wrong with it.
type HomeStepRead struct {
	HomeStretch
	Wrong *fact.Fact `json:"wrong" jsonschema:"nullable"` // null if it can be given
	// Care is what to be careful of: longer than is advised, or what the people of the group should leave out.
	Care []fact.Fact `json:"care"`
}

// HomeOffer is what can go home from a plan or a class, and what did.
type HomeOffer struct {
	Title    string        `json:"title"`
	PlanID   int64         `json:"plan_id"`  // 0 if the plan is gone
	ClassID  int64         `json:"class_id"` // 0 before any class
	Passages []HomePassage `json:"passages"` // the one that was the point of the class first
	Whens    []string      `json:"whens"`    // to choose from; others can be typed
	Begins   string        `json:"begins"`   // the day that is proposed as day 1: today, as 2026-11-30
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
	// Grows is the ways to grow that fit it; none where nothing of it can grow.
	Grows []HomeGrowth `json:"grows"`
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
	// Stretches is its steps with their days; one where every day is alike.
	Stretches []HomeStretch `json:"stretches"`
	Answer    string        `json:"answer"` // how it was; empty if that is not known
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
	Beside   string   `json:"beside"`   // what those do who take the gentler lane; empty if there is none
	Cautions []string `json:"cautions"` // of all its steps
	Stop     string   `json:"stop"`     // when to stop
	TooMuch  []string `json:"too_much"` // what to do when it was too much, and whom to ask
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
	Sheet HomeSheet  `json:"sheet"`
	Key   string     `json:"key"`   // under which a device remembers what was done; empty if it remembers nothing
	Steps []HomeDays `json:"steps"` // in the order of their days; at least one
	// Scores is what is played. Steps that play the same share one.
	Scores []Score `json:"scores"`
	// Language is the tag of what the page is written in: the language of its plan.
	Language string `json:"language"`
}

// HomeDays is a step as it is played.
type HomeDays struct {
	HomeStretch
	Name     string       `json:"name"`
	Term     string       `json:"term"`
	How      []string     `json:"how"`
	Cautions []string     `json:"cautions"`
	Choices  []HomeChoice `json:"choices"` // of how much at once, the least first
	Given    int          `json:"given"`   // which of them it is as it was given, from 0
	Evening  int          `json:"evening"` // which of them is for the evening; -1 if there is no second time
}

// HomeRecordings is what a recorded voice says in the page that plays, whatever is chosen there.
type HomeRecordings struct {
	Name    string   `json:"name"`    // whose voice; empty if none speaks
	Sums    []string `json:"sums"`    // of the recordings
	Missing []string `json:"missing"` // what is said and was not recorded
}

// HomeChoice is how much is played at once.
type HomeChoice struct {
	Says  string `json:"says"`  // 6 rounds, about 3 min
	Score int    `json:"score"` // which of the page's scores, from 0: by the beat, what waits at its usual length
	// ByTouch is the score in which a touch ends each phase that waits; -1 where nothing waits.
	ByTouch int `json:"by_touch"`
}
