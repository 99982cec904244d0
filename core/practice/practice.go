// Package practice holds the catalogue: what each practice is called, what it takes, and the figure of one round.
//
// A practice is data, one YAML file of the catalogue, and one engine plays them all: the figure is a list of
// phases whose counts and nostrils are named by their role ("a", "start") and filled in from the plan.
package practice

import (
	"embed"
	"fmt"
	"io/fs"
	"path"
	"slices"
	"strconv"
	"sync"

	"github.com/goccy/go-yaml"

	"vastlantern/core/breath"
)

// Kind tells how a practice is timed (pacing.md section 1).
type Kind string

// Counted practices run in phases of counts.
const Counted Kind = "counted"

// Practice is one entry of the catalogue.
type Practice struct {
	ID     string        `yaml:"id"`
	Name   string        `yaml:"name"`
	Term   string        `yaml:"term"` // the Sanskrit term, where a teacher would use one
	Kind   Kind          `yaml:"kind"`
	Takes  []string      `yaml:"takes"`  // fields of a plan's passage beyond those of its kind
	Airway breath.Airway `yaml:"airway"` // of its rounds where the figure says so, and of its opening and closing
	Counts string        `yaml:"counts"` // where a plan gives none
	Rounds int           `yaml:"rounds"` // where a plan gives neither rounds nor minutes
	Figure []Step        `yaml:"figure"`
	About  string        `yaml:"about"`
	Care   []string      `yaml:"care"` // the cautions of core/care that it has beyond those of everyone and of holds
}

// Step is one phase of a figure. Counts is a role of a:b:c:d ("a" to "d") or a number. Through is "airway", "start"
// (the side the passage starts on), "other", or a fixed way; it is empty for holds.
type Step struct {
	Phase   breath.Phase `yaml:"phase"`
	Counts  string       `yaml:"counts"`
	Through string       `yaml:"through"`
}

// TakesField tells whether a plan's passage of this practice may carry the field beyond those of its kind.
func (p *Practice) TakesField(field string) bool { return slices.Contains(p.Takes, field) }

// Setting is what a passage fills into the roles of a figure.
type Setting struct {
	Counts       breath.Counts
	Start        breath.Through
	Airway       breath.Airway
	WordBefore   bool         // each phase's word has a beat of its own, count 0
	NaturalPause breath.Exact // milliseconds of stillness where a hold is 0
}

// Phase is one phase as it is breathed: either a number of counts, or one stretch of time.
type Phase struct {
	Kind    breath.Phase
	Through breath.Through
	Breath  int          // within the round, the opening or the closing; 0 where none is counted
	Counts  int          // 1 for a stretch of time
	Word    bool         // has a beat for its word before count 1
	Timed   bool         // lasts Length, not counts
	Length  breath.Exact // milliseconds; only of a Timed phase
	Waits   bool         // led, it lasts until somebody goes on, and Length is only planned
	Text    string       // what a free stretch is for
}

// First is the number of the phase's first row: 0 where its word has a beat of its own, else 1.
func (p Phase) First() int {
	if p.Word {
		return 0
	}
	return 1
}

// Span is the planned length of the phase in milliseconds at the tempo.
func (p Phase) Span(tempo breath.Exact) breath.Exact {
	if p.Timed {
		return p.Length
	}
	return breath.CountLength(tempo).Times(p.Counts + 1 - p.First())
}

// Stretch is a phase of one row that is measured in time. The length is in milliseconds.
func Stretch(kind breath.Phase, length breath.Exact) Phase {
	return Phase{Kind: kind, Counts: 1, Timed: true, Length: length}
}

// Round lays out one round: the figure with the setting filled in. A phase of 0 counts is not there; with a
// natural pause, stillness takes the place of each hold of 0.
func (p *Practice) Round(s Setting) []Phase {
	phases := make([]Phase, 0, len(p.Figure)+2)
	breaths := 0
	for i, step := range p.Figure {
		if step.Phase == breath.Inhale {
			breaths++
		}
		counts := step.counts(s.Counts)
		if counts > 0 {
			phases = append(phases, Phase{
				Kind: step.Phase, Through: step.through(s), Breath: breaths, Counts: counts, Word: s.WordBefore,
			})
		}
		held := i+1 < len(p.Figure) && p.Figure[i+1].Phase.Held() && p.Figure[i+1].counts(s.Counts) > 0
		if !step.Phase.Held() && !held && s.NaturalPause.Sign() > 0 {
			still := Stretch(breath.Still, s.NaturalPause)
			still.Breath = breaths
			phases = append(phases, still)
		}
	}
	return phases
}

func (s Step) counts(c breath.Counts) int {
	switch s.Counts {
	case "a":
		return c.Inhale
	case "b":
		return c.Hold
	case "c":
		return c.Exhale
	case "d":
		return c.Empty
	}
	n, _ := strconv.Atoi(s.Counts)
	return n
}

func (s Step) through(set Setting) breath.Through {
	switch s.Through {
	case "airway":
		if s.Phase == breath.Inhale {
			return set.Airway.In()
		}
		return set.Airway.Out()
	case "start":
		return set.Start
	case "other":
		return set.Start.Other()
	}
	return breath.Through(s.Through)
}

//go:embed catalogue/*.yaml
var files embed.FS

// Catalogue is the built-in practices in the order of their ids. It is read once; a broken file is a defect of
// the program, so it panics with the file's name and position, and a test reads every file.
var Catalogue = sync.OnceValue(func() []*Practice {
	names, err := fs.Glob(files, "catalogue/*.yaml")
	if err != nil {
		panic(err)
	}
	practices := make([]*Practice, 0, len(names))
	for _, name := range names {
		data, err := files.ReadFile(name)
		if err != nil {
			panic(err)
		}
		p, err := Read(data)
		if err != nil {
			panic(fmt.Sprintf("%s: %v", path.Base(name), err))
		}
		practices = append(practices, p)
	}
	return practices
})

// Find is the practice of the catalogue with the id, or nil.
func Find(id string) *Practice {
	for _, p := range Catalogue() {
		if p.ID == id {
			return p
		}
	}
	return nil
}

// Read reads one practice from YAML and checks it. Errors tell the line where they can.
func Read(data []byte) (*Practice, error) {
	var p Practice
	if err := yaml.UnmarshalWithOptions(data, &p, yaml.Strict()); err != nil {
		return nil, err
	}
	if p.ID == "" || p.Name == "" || p.Kind != Counted || len(p.Figure) == 0 {
		return nil, fmt.Errorf("a practice needs id, name, kind (counted) and figure")
	}
	if _, err := breath.ParseCounts(p.Counts); err != nil {
		return nil, fmt.Errorf("counts: given %q, allowed: %w", p.Counts, err)
	}
	if p.Rounds < 1 {
		return nil, fmt.Errorf("rounds: given %d, allowed: 1 or more", p.Rounds)
	}
	for i, step := range p.Figure {
		if err := step.check(); err != nil {
			return nil, fmt.Errorf("figure, phase %d: %w", i+1, err)
		}
	}
	return &p, nil
}

func (s Step) check() error {
	ways := []string{""}
	switch s.Phase {
	case breath.Inhale, breath.Exhale:
		ways = []string{"airway", "start", "other", "left", "right", "both", "mouth"}
	case breath.Hold, breath.Empty:
	default:
		return fmt.Errorf("phase: given %q, allowed: inhale, hold, exhale, empty", s.Phase)
	}
	if !slices.Contains(ways, s.Through) {
		return fmt.Errorf("through: given %q, allowed for %s: %q", s.Through, s.Phase, ways)
	}
	if n, err := strconv.Atoi(s.Counts); !slices.Contains([]string{"a", "b", "c", "d"}, s.Counts) && (err != nil || n < 1) {
		return fmt.Errorf("counts: given %q, allowed: a, b, c, d or a number from 1", s.Counts)
	}
	return nil
}
