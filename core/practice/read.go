package practice

import (
	"errors"
	"fmt"
	"slices"
	"strconv"

	"github.com/goccy/go-yaml"

	"vastlantern/core/breath"
)

// Read reads one practice from YAML and checks it. Errors tell the line where they can.
func Read(data []byte) (*Practice, error) {
	var p Practice
	if err := yaml.UnmarshalWithOptions(data, &p, yaml.Strict()); err != nil {
		return nil, err
	}
	if p.ID == "" || p.Name == "" || len(p.Figure) == 0 {
		return nil, errors.New("a practice needs id, name and figure")
	}
	if (p.Rounds < 1) == (p.Minutes < 1) {
		return nil, fmt.Errorf("rounds, minutes: given %d and %d, allowed: one of them, 1 or more", p.Rounds, p.Minutes)
	}
	if !slices.Contains([]breath.Airway{breath.ByNose, breath.OutByMouth, breath.ByMouth}, p.Airway) {
		return nil, fmt.Errorf("airway: given %q, allowed: nose, out-mouth, mouth", p.Airway)
	}
	if !slices.Contains([]Lean{"", Warming, Calming}, p.Leans) {
		return nil, fmt.Errorf("taught_as: given %q, allowed: warming, calming, or nothing", p.Leans)
	}
	if err := p.checkKind(); err != nil {
		return nil, err
	}
	for i, step := range p.Figure {
		if err := step.check(p.Kind); err != nil {
			return nil, fmt.Errorf("figure, phase %d: %w", i+1, err)
		}
	}
	return &p, nil
}

func (p *Practice) checkKind() error {
	switch p.Kind {
	case Counted:
		if _, err := breath.ParseCounts(p.Counts); err != nil {
			return fmt.Errorf("counts: given %q, allowed: %w", p.Counts, err)
		}
	case Strokes:
		if p.Rate < breath.SlowestRate || p.Rate > breath.FastestRate {
			return fmt.Errorf("rate: given %d, allowed: %d to %d", p.Rate, breath.SlowestRate, breath.FastestRate)
		}
		if p.FillsMinutes() && p.Minutes == 0 {
			return errors.New("strokes: missing, allowed: a number, or minutes that the strokes fill")
		}
	case Open:
		if len(p.Seconds) != 4 || slices.Min(p.Seconds) < 1 {
			return fmt.Errorf("open_seconds: given %v, allowed: four planned lengths", p.Seconds)
		}
	case Fixed:
	default:
		return fmt.Errorf("kind: given %q, allowed: counted, strokes, fixed, open", p.Kind)
	}
	return nil
}

// roles are what the counts of a figure may be called in each kind, besides plain numbers.
var roles = map[Kind][]string{Counted: {"a", "b", "c", "d"}, Open: {"a", "b", "c", "d"}, Strokes: {"strokes"}, Fixed: {}}

// partRoles are what the parts of a phase may be called, besides their own words.
var partRoles = []string{"zones up", "zones down", "aperture"}

func (s Step) check(kind Kind) error {
	ways := []string{""}
	switch s.Phase {
	case breath.Inhale, breath.Exhale:
		ways = []string{"airway", "start", "other", "left", "right", "both", "mouth"}
	case breath.Stroke:
		ways = []string{"airway", "both", "mouth"}
	case breath.Hold, breath.Empty:
	default:
		return fmt.Errorf("phase: given %q, allowed: inhale, hold, exhale, empty, stroke", s.Phase)
	}
	if (s.Phase == breath.Stroke) != (kind == Strokes) {
		return fmt.Errorf("phase: given %q, allowed: strokes and nothing else in the kind strokes, and nowhere else", s.Phase)
	}
	if !slices.Contains(ways, s.Through) {
		return fmt.Errorf("through: given %q, allowed for %s: %q", s.Through, s.Phase, ways)
	}
	n, err := strconv.Atoi(s.Counts)
	if !slices.Contains(roles[kind], s.Counts) && (err != nil || n < 1 || n > breath.MostCounts || kind == Open || kind == Strokes) {
		return fmt.Errorf("counts: given %q, allowed: %q or, in counted and fixed practices, a number from 1 to %d", s.Counts, roles[kind], breath.MostCounts)
	}
	role := len(s.Parts) == 1 && slices.Contains(partRoles, s.Parts[0])
	if len(s.Parts) > 0 && !role && (n == 0 || len(s.Parts) != n) {
		return fmt.Errorf("parts: given %q, allowed: one of %q, or a word for each of a fixed number of counts", s.Parts, partRoles)
	}
	return nil
}
