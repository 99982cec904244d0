package plan

import (
	"vastlantern/core/breath"
	"vastlantern/core/fact"
)

// Place returns where the line comes, in parts: "round 3", "hold". p is its passage.
func (l *Line) Place(p *Passage) []fact.Fact {
	var parts []fact.Fact
	add := func(id string, args ...any) { parts = append(parts, fact.New("own-line."+id, args...)) }
	stage := ""
	if l.Stage != p.UsualStage() {
		stage = l.Stage
		add("stage." + stage)
	}
	rest := stage == "rest"
	switch {
	case l.LastRound && rest:
		add("before-the-last")
	case l.LastRound:
		add("last")
	case l.First == 0 && l.Phase != "" && l.Second.Sign() < 0 && stage == "":
		add("every-round")
	case l.First == 0:
	default:
		rounds := fact.New("own-line.round", "first", l.First)
		if l.Last != l.First {
			rounds = fact.New("own-line.rounds", "first", l.First, "last", l.Last)
		}
		if rest {
			rounds = fact.New("own-line.after", "of", rounds)
		}
		parts = append(parts, rounds)
	}
	if l.Breath > 0 {
		add("breath", "n", l.Breath)
	}
	if l.Phase != "" {
		add("phase." + string(l.Phase))
	}
	if l.Through != "" && l.Through != breath.None {
		add("through." + string(l.Through))
	}
	if l.Part != "" {
		add("part." + l.Part)
	}
	if l.Second.Sign() >= 0 {
		add("at", "clock", fact.Clock(l.Second.Times(1000).Round()))
	}
	if l.Every.Sign() > 0 {
		add("every", "seconds", l.Every.Float())
	}
	if len(parts) == 0 {
		add("all-the-time")
	}
	return parts
}
