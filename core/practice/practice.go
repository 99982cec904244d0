// Package practice holds the catalogue: what each practice is called, what it takes, and the figure of one round.
//
// A practice is data, one YAML file of the catalogue, and one engine plays them all: the figure is a list of
// phases whose counts, nostrils and parts are named by their role ("a", "start", "aperture") and filled in from the
// plan.
package practice

import (
	"embed"
	"fmt"
	"io/fs"
	"maps"
	"path"
	"slices"
	"strings"
	"sync"

	"vastlantern/core/breath"
)

// Entry is what the practice book says of a practice, in plain words. Nothing in it promises health.
type Entry struct {
	About   string           `yaml:"about"`
	Also    []string         `yaml:"also"`    // other names
	Called  Called           `yaml:"called"`  // names in other languages than English
	Presets []Preset         `yaml:"presets"` // its well-known ways that have a name of their own
	Intents []string         `yaml:"intents"` // what it is taught for, of Intents
	Level   string           `yaml:"level"`   // of Levels
	Seat    string           `yaml:"seat"`
	Hands   string           `yaml:"hands"`
	Eyes    string           `yaml:"eyes"`
	Locks   string           `yaml:"locks"` // empty if no school uses them
	How     []string         `yaml:"how"`
	Prompts []Prompt         `yaml:"prompts"` // short things to say between rounds
	Again   []Again          `yaml:"again"`   // what helps to hear again and again at own pace
	Watch   []string         `yaml:"watch"`   // what is watched for
	Gentler string           `yaml:"gentler"`
	Harder  string           `yaml:"harder"`
	Finish  string           `yaml:"finish"`
	Course  []map[string]any `yaml:"course"`  // the passages that planning inserts, as fields of a plan's passage
	Schools []string         `yaml:"schools"` // where they differ
	In      map[string]Texts `yaml:"in"`      // the same in other languages, by BCP 47 tag
}

// Again is something that is said again and again while people breathe at their own pace.
type Again struct {
	Say   string `yaml:"say"`
	Every int    `yaml:"every"` // seconds, 10 to 600
}

// Called is names by the BCP 47 tag of their language.
type Called map[string][]string

// Preset is a way of a practice that teachers call by its own name, as square breath.
type Preset struct {
	Name   string         `yaml:"name"`
	Also   []string       `yaml:"also"`
	Called Called         `yaml:"called"`
	With   map[string]any `yaml:"with"` // fields of a plan's passage
}

// NameIn returns what the preset is called in the first of these languages (BCP 47) that has a name for it, else in
// English.
func (p Preset) NameIn(tags ...string) string {
	for _, tag := range tags {
		if names := p.Called[tag]; len(names) > 0 {
			return names[0]
		}
		if tag == "en" {
			break
		}
	}
	return p.Name
}

// TagOf returns the language of one of the preset's names; empty for other texts.
func (p Preset) TagOf(name string) string {
	if strings.EqualFold(p.Name, name) {
		return "en"
	}
	for _, tag := range slices.Sorted(maps.Keys(p.Called)) {
		if slices.ContainsFunc(p.Called[tag], func(n string) bool { return strings.EqualFold(n, name) }) {
			return tag
		}
	}
	return ""
}

// Intents are what a class or a practice is taught for.
var Intents = []string{"settle", "wake-up", "before-sleep", "before-an-exam", "before-meditation", "after-postures"}

// Levels of a group or a practice, the easiest first.
var Levels = []string{"beginners", "some-practice", "experienced"}

// ID returns a word of a list as it is written today: earlier files write "some practice".
func ID(word string) string { return strings.ReplaceAll(word, " ", "-") }

// Effect is what a practice is taught as, where that bears on its place in a class.
type Effect string

// Warming practices come before calming ones, and not late in the evening.
const (
	Warming Effect = "warming"
	Calming Effect = "calming"
)

// Practice is one entry of the catalogue.
type Practice struct {
	ID       string        `yaml:"id"`
	Name     string        `yaml:"name"`
	Term     string        `yaml:"term"` // the Sanskrit term, where a teacher would use one
	Kind     Kind          `yaml:"kind"`
	Takes    []string      `yaml:"takes"`  // fields of a plan's passage beyond those of its kind
	Airway   breath.Airway `yaml:"airway"` // of its rounds where the figure says so, and of its opening and closing
	Figure   []Step        `yaml:"figure"`
	Change   int           `yaml:"change"` // seconds between the two sides of the body, where a round has both
	TaughtAs Effect        `yaml:"taught_as"`
	// prepares or closes a class: it is not climbed, and seldom the point of a class
	Settling bool              `yaml:"settling"`
	From     string            `yaml:"from"`  // of a teacher's own: the practice that it was made from
	Words    map[string]string `yaml:"words"` // said in place of the table's, by phase
	// the phase that the room chants or hums, inhale or exhale; empty for none
	Sounds breath.Phase `yaml:"sounds"`
	// the phase whose breath is loud also through the nose, inhale or exhale; empty for none
	Audible breath.Phase `yaml:"audible"`
	// of strokes: the inhale is as strong as the exhale, as in bellows
	BothWays bool `yaml:"both_ways"`
	// the aspects of core/care that it has beyond holds, which follow from its counts
	Care  []string `yaml:"care"`
	Entry `yaml:",inline"`

	// What a plan's passage has where it gives nothing:
	Counts  string `yaml:"counts"`       // counted practices
	Rounds  int    `yaml:"rounds"`       // or
	Minutes int    `yaml:"minutes"`      //
	Tempo   int    `yaml:"tempo"`        // counts a minute; 0 for the plan's
	Strokes int    `yaml:"strokes"`      // a round; 0 if the strokes are those that fit into the minutes
	After   string `yaml:"after"`        // counts of the breath after each round of strokes; empty for none
	Breaths int    `yaml:"breaths"`      // on each side, where a plan's passage chooses how many
	Rate    int    `yaml:"rate"`         // strokes a minute
	Rest    int    `yaml:"rest"`         // seconds between rounds
	Seconds []int  `yaml:"open_seconds"` // of the four phases of an open practice

	Bounds AllBounds `yaml:"bounds"` // those for some counts after those for all
}

// NameIn returns what the practice is called in a language (BCP 47): as its file says, else by its Sanskrit term, which
// teachers of every language use, else in English.
func (p *Practice) NameIn(tag string) string {
	if name := p.In[tag].Name; name != "" {
		return name
	}
	if names := p.Called[tag]; tag != "en" && len(names) > 0 {
		return names[0]
	}
	term, _, _ := strings.Cut(p.Term, ",")
	term, _, _ = strings.Cut(term, " (")
	if tag == "en" || term == "" {
		if book := Find(p.ID); book != nil {
			return book.Name // p can be translated
		}
		return p.Name
	}
	return strings.ToUpper(term[:1]) + term[1:]
}

// TakesField reports whether a plan's passage of this practice may carry the field beyond those of its kind.
func (p *Practice) TakesField(field string) bool { return slices.Contains(p.Takes, field) }

// FillsMinutes reports whether the practice is one round of as many strokes as its minutes hold.
func (p *Practice) FillsMinutes() bool { return p.Kind.CountsStrokes() && p.Strokes == 0 }

// Sided reports whether the practice breathes through one nostril at a time, so that a hand is needed.
func (p *Practice) Sided() bool {
	return slices.ContainsFunc(p.Figure, func(s Step) bool {
		return slices.Contains([]string{"start", "other", string(breath.Left), string(breath.Right)}, s.Through)
	})
}

// Alternates reports whether the sides of the practice change places from breath to breath.
func (p *Practice) Alternates() bool { return p.TakesField("entry") }

// OneSided reports whether the practice breathes in and out by the side that the passage chooses.
func (p *Practice) OneSided() bool { return p.TakesField("side") && !p.Alternates() }

//go:embed catalogue/*.yaml
var files embed.FS

// Catalogue is the built-in practices in the order of their ids.
var Catalogue = sync.OnceValue(func() []*Practice {
	names, err := fs.Glob(files, "catalogue/*.yaml")
	if err != nil {
		panic(err)
	}
	practices := make([]*Practice, 0, len(names))
	for _, name := range names {
		practices = append(practices, Find(strings.TrimSuffix(path.Base(name), ".yaml")))
	}
	return practices
})

// File returns the catalogue's file of the practice, which is named by its id; nil if there is none.
func File(id string) []byte {
	data, err := files.ReadFile("catalogue/" + id + ".yaml")
	if err != nil {
		return nil
	}
	return data
}

// found is the practices that were looked for, by id.
var found sync.Map

// Find returns the practice of the catalogue with the id, or nil. Each file is read when it is first asked for: a
// command that needs one practice does not read them all. A broken file is a defect of the program, so it panics with
// the file's name and position, and a test reads every file.
func Find(id string) *Practice {
	if p, known := found.Load(id); known {
		return p.(*Practice)
	}
	data := File(id)
	if data == nil {
		return nil
	}
	read, err := Read(data)
	if err != nil {
		panic(fmt.Sprintf("%s.yaml: %v", id, err))
	}
	p, _ := found.LoadOrStore(id, read)
	return p.(*Practice)
}
