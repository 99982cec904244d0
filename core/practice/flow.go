package practice

import (
	"regexp"
	"slices"
	"strings"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
)

// UnmarshalYAML reads a step of a figure: its fields, or a line as a teacher writes it, "in arms up".
func (s *Step) UnmarshalYAML(unmarshal func(any) error) error {
	var line string
	if err := unmarshal(&line); err == nil {
		step, err := ParseStep(line)
		*s = step
		return err
	}
	type fields Step
	return unmarshal((*fields)(s))
}

// stepWords are the words that begin the line of a step.
var stepWords = map[string]breath.Phase{
	"in": breath.Inhale, "inhale": breath.Inhale, "out": breath.Exhale, "exhale": breath.Exhale,
	"hold": breath.Hold, "stay": breath.Hold, "empty": breath.Empty,
	"ein": breath.Inhale, "einatmen": breath.Inhale, "aus": breath.Exhale, "ausatmen": breath.Exhale,
	"halten": breath.Hold, "leer": breath.Empty,
}

var stepCounts = regexp.MustCompile(`\s(\d+)$`)

// ParseStep reads a step of a flow from a line: the phase, what the body does, and a number where it has its own counts
// ("hold plank 3"); words for the right and the left side are parted by a bar ("in right foot back | left foot back").
func ParseStep(line string) (Step, error) {
	word, move, _ := strings.Cut(strings.TrimSpace(line), " ")
	phase, known := stepWords[strings.ToLower(strings.TrimRight(word, ":,"))]
	if !known {
		return Step{}, fact.New("practice.step-line", "given", line)
	}
	role := slices.Index(breath.OfABreath, phase)
	s := Step{Phase: phase, Counts: fourRoles[role]}
	if !phase.Held() {
		s.Through = string(breath.Both)
	}
	if own := stepCounts.FindStringSubmatch(" " + move); own != nil {
		s.Counts = own[1]
		move = strings.TrimSuffix(strings.TrimSuffix(move, own[1]), " ")
	}
	for side := range strings.SplitSeq(move, "|") {
		if side = strings.TrimSpace(side); side != "" {
			s.Move = append(s.Move, side)
		}
	}
	return s, nil
}
