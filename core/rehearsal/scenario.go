package rehearsal

import (
	"embed"
	"encoding/json"
	"fmt"
	"slices"
	"sync"

	"vastlantern/core/fact"
	"vastlantern/core/pace"
)

//go:embed scenarios/*.yaml
var scenarioFiles embed.FS

// Scenario is a short task with one thing to learn, as its file has it.
type Scenario struct {
	Name   string
	Order  int     `yaml:"order"` // in which they are learned
	Away   bool    `yaml:"away"`  // the count is covered on the lead screen
	Levels []Level `yaml:"levels"`
}

// Level is one of the three levels of a scenario.
type Level struct {
	Room      string         `yaml:"room"`      // of Rooms
	More      []Kind         `yaml:"more"`      // people who come besides
	Seed      int64          `yaml:"seed"`      //
	Latecomer int64          `yaml:"latecomer"` // seconds after which somebody comes in; 0 for nobody
	Plan      map[string]any `yaml:"plan"`
	Aims      []Aim          `yaml:"aims"`
}

// Aim is one thing that is to be reached. One of its fields is set, or Seen or Met with Within.
type Aim struct {
	Seen     string `yaml:"seen"`     // it is said, or met, the first time that it is there
	Met      string `yaml:"met"`      // its cause is met by an adjustment, the first time
	Within   int64  `yaml:"within"`   // seconds from when it could be seen
	Spread   *int   `yaml:"spread"`   // so many people at most come to tight faces
	Missed   *int   `yaml:"missed"`   // so many things are missed at most
	Needless *int   `yaml:"needless"` // so often at most it is made easier for nobody
	Looks    *int   `yaml:"looks"`    // so often at most the covered count is looked at
	Hurried  *int   `yaml:"hurried"`  // so many phases at most are over before half of the room is done
	OnTime   bool   `yaml:"on-time"`
	Rest     bool   `yaml:"rest"` // the rest at the end is as long as planned
}

// Scenarios returns all scenarios, in the order in which they are learned.
func Scenarios() ([]Scenario, error) { return scenarios() }

var scenarios = sync.OnceValues(func() ([]Scenario, error) {
	list, err := readFolder(scenarioFiles, "scenarios", func(s *Scenario, name string) { s.Name = name })
	slices.SortFunc(list, func(a, b Scenario) int { return a.Order - b.Order })
	return list, err
})

// FindScenario returns the scenario of a name, and its level from 1.
func FindScenario(name string, level int) (Scenario, Level, error) {
	list, err := Scenarios()
	if err != nil {
		return Scenario{}, Level{}, err
	}
	for _, one := range list {
		if one.Name == name && level >= 1 && level <= len(one.Levels) {
			return one, one.Levels[level-1], nil
		}
	}
	return Scenario{}, Level{}, fact.New("rehearsal.no-task", "task", name, "level", level)
}

// Title, Learn and Task are what the scenario is called, what is learned by it, and what to do.
func (s *Scenario) Title() fact.Fact { return fact.New("task." + s.Name + ".title") }

// Learn is told with Title.
func (s *Scenario) Learn() fact.Fact { return fact.New("task." + s.Name + ".learn") }

// Task is told with Title.
func (s *Scenario) Task() fact.Fact { return fact.New("task." + s.Name + ".task") }

// Like is what a level, from 1, is like in a few words.
func (s *Scenario) Like(level int) fact.Fact {
	return fact.New(fmt.Sprintf("task.%s.level-%d", s.Name, level))
}

// Document returns the plan of a level, as a plan file has it.
func (l *Level) Document(title string) ([]byte, error) {
	document := map[string]any{"format": "vast-lantern-plan", "version": 1, "title": title}
	for name, value := range l.Plan {
		document[name] = value
	}
	return json.Marshal(document)
}

// Seat has the people of a level come.
func (l *Level) Seat(seed int64) ([]Person, error) {
	room, err := Find(l.Room)
	if err != nil {
		return nil, err
	}
	room.People = slices.Concat(room.People, l.More)
	return room.Seat(seed), nil
}

// Reached is one aim, and whether it was reached.
type Reached struct {
	Says fact.Fact
	Done bool
}

// Reached looks at the aims of a level. looks is how often the covered count was looked at.
func (l *Level) Reached(r *Review, looks int) []Reached {
	list := make([]Reached, len(l.Aims))
	for i, aim := range l.Aims {
		list[i].Says = aim.Says()
		list[i].Done = aim.reached(r, looks)
	}
	return list
}

// Says returns what is to be reached.
func (a Aim) Says() fact.Fact {
	switch {
	case a.Seen != "":
		return fact.New("aim.see", "sign", fact.New("sign."+a.Seen), "seconds", a.Within)
	case a.Met == Unwell:
		return fact.New("aim.unwell", "seconds", a.Within)
	case a.Met == Interrupted:
		return fact.New("aim.interrupted", "seconds", a.Within)
	case a.Met != "":
		return fact.New("aim.met", "seconds", a.Within)
	case a.Spread != nil:
		return fact.New("aim.spread", "people", *a.Spread)
	case a.Missed != nil:
		return fact.New("aim.missed", "things", *a.Missed)
	case a.Needless != nil:
		return fact.New("aim.needless", "times", *a.Needless)
	case a.Looks != nil:
		return fact.New("aim.looks", "times", *a.Looks)
	case a.Hurried != nil:
		return fact.New("aim.hurried", "times", *a.Hurried)
	case a.OnTime:
		return fact.New("aim.on-time")
	}
	return fact.New("aim.rest")
}

// reached reports whether it was reached. What somebody did not let come to it is reached too.
func (a Aim) reached(r *Review, looks int) bool {
	switch {
	case a.Seen != "" && !OfStrain(a.Seen) && r.Over && r.never(a.Seen): // it did not come to it
		return true
	case a.Seen != "":
		return r.first(a.Seen, func(m *Moment) bool {
			return m.Named >= 0 && m.Named <= m.At+a.Within*1000 || m.Pressed >= 0 && m.Pressed <= m.At+a.Within*1000
		})
	case a.Met == Unwell && r.Over && r.never(Unwell):
		return true
	case a.Met != "":
		return r.first(a.Met, func(m *Moment) bool {
			natural := m.By == pace.ToPause || a.Met != Unwell && a.Met != Interrupted
			return m.Pressed >= 0 && m.Pressed <= m.At+a.Within*1000 && natural
		})
	case a.Spread != nil:
		strained := 0
		for i := range r.Courses {
			if slices.Max(r.Courses[i].Highest) >= 2*Visible {
				strained++
			}
		}
		return r.Over && strained <= *a.Spread
	case a.Missed != nil:
		return r.Over && r.MissedCount() <= *a.Missed
	case a.Needless != nil:
		return r.NeedlessCount() <= *a.Needless
	case a.Looks != nil:
		return looks <= *a.Looks
	case a.Hurried != nil:
		return r.Over && r.HurriedCount() <= *a.Hurried
	case a.OnTime:
		return r.Over && r.Late <= 0
	}
	return r.Over && r.Rest >= r.Planned
}

// never reports whether nothing of a kind was there, but in a few.
func (r *Review) never(id string) bool {
	return !slices.ContainsFunc(r.Moments, func(m Moment) bool { return m.ID == id && !m.Few })
}

// first reports whether something holds for the first moment of its kind that is not of a few only.
func (r *Review) first(id string, is func(*Moment) bool) bool {
	for i := range r.Moments {
		if m := &r.Moments[i]; m.ID == id && !m.Few {
			return is(m)
		}
	}
	return false
}

// MissedCount returns how many things were missed.
func (r *Review) MissedCount() (n int) {
	for i := range r.Moments {
		if r.Moments[i].Missed() {
			n++
		}
	}
	return n
}

// HurriedCount returns how many phases by hand were over before half of the room was done.
func (r *Review) HurriedCount() (n int) {
	behind := map[int64]int{}
	for i := range r.Courses {
		for _, at := range r.Courses[i].Hurried {
			behind[at]++
		}
	}
	for _, people := range behind {
		if 2*people >= len(r.Courses) {
			n++
		}
	}
	return n
}

// NeedlessCount returns how often it was made easier where nobody had need of it.
func (r *Review) NeedlessCount() (n int) {
	for i := range r.Eased {
		if r.Eased[i].Needless() {
			n++
		}
	}
	return n
}

// ToSee returns how many things were to be seen.
func (r *Review) ToSee() (n int) {
	for _, m := range r.Moments {
		if !m.Few {
			n++
		}
	}
	return n
}
