package contract

import (
	"slices"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/words"
)

// InLanguage reports whether a class can be shown in a language.
func InLanguage(tag string) bool { return words.Languages[tag] != nil }

// ForTheRoom leaves out what is only for the teacher: scripts, prompts, cautions, the group, what was pressed.
func (s Score) ForTheRoom() Score {
	s.Group, s.Answer, s.SlotMS, s.Unstored, s.CardUp, s.Ear = nil, nil, 0, nil, CardUp{}, ""
	s.Cues = slices.DeleteFunc(slices.Clone(s.Cues), func(c Cue) bool { return c.Who == plan.ForTeacher })
	s.Spoken = slices.DeleteFunc(slices.Clone(s.Spoken), func(c Spoken) bool { return c.Who == plan.ForTeacher })
	passages := make([]ScorePassage, len(s.Passages))
	for i, p := range s.Passages {
		passages[i] = ScorePassage{
			Name: p.Name, Type: p.Type, Rounds: p.Rounds, StartMS: p.StartMS, EndMS: p.EndMS, Counts: p.Counts, Tempo: p.Tempo,
			Cards:      []string{},
			Cautions:   []Caution{},
			Findings:   []Finding{},
			Steps:      []fact.Fact{},
			Lanes:      []LaneOffer{},
			Signs:      []string{},
			InForce:    InForce{Beside: p.InForce.Beside},
			OwnRound:   silent(p.OwnRound),
			Pattern:    p.Pattern,
			Choices:    p.Choices,
			HandAtNose: p.HandAtNose,
			Numbers:    p.Numbers,
			HandPlace:  p.HandPlace,
			Sides:      p.Sides, SideBreaths: p.SideBreaths,
			Syllables: p.Syllables,
			Timed:     p.Timed,
			LaneNames: p.LaneNames,
			LinesFor:  slices.DeleteFunc(slices.Clone(p.LinesFor), func(w plan.Who) bool { return w == plan.ForTeacher }),
		}
	}
	s.Passages, s.Phases, s.Lane = passages, silent(s.Phases), silent(s.Lane)
	if s.Wait != nil {
		wait := *s.Wait
		wait.Phases = silent(wait.Phases)
		s.Wait = &wait
	}
	return s
}

func silent(phases []ScorePhase) []ScorePhase {
	phases = slices.Clone(phases)
	for i := range phases {
		phases[i].Verbs, phases[i].Practice = nil, ""
	}
	return phases
}
