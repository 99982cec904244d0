package pace

import (
	"vastlantern/core/fact"
	"vastlantern/core/plan"
)

// Did returns what became of the adjustment, for the teacher: what it did and from when on, or why it was refused.
func (a *Answer) Did() fact.Fact {
	if !a.Refused.None() {
		return fact.New("did.refused", "verb", a.Do.Name(), "why", a.Refused)
	}
	if r := ruleOf(a.Do); r != nil && r.did != nil {
		return r.did(a)
	}
	return fact.New("did." + string(a.Do))
}

// from returns the moment from which it acts.
func (a *Answer) from() fact.Fact { return fact.New("from." + string(a.When)) }

func didTempo(a *Answer) fact.Fact {
	to := a.After.Tempo.Float()
	switch {
	case a.When == Never:
		return fact.New("did.tempo-already", "to", to)
	case a.After.Tempo.Less(a.Before.Tempo):
		return fact.New("did.tempo-slower", "to", to, "from", a.from(), "later", a.Carried)
	}
	return fact.New("did.tempo-faster", "to", to, "from", a.from(), "later", a.Carried)
}

func didRounds(a *Answer) fact.Fact {
	return fact.New("did."+string(a.Do), "rounds", a.After.Total, "before", a.Before.Total)
}

func didCounts(a *Answer) fact.Fact {
	return fact.New("did.counts", "before", a.Before.Counts, "after", a.After.Counts, "from", a.from())
}

func didStrokes(a *Answer) fact.Fact {
	return fact.New("did.strokes", "before", a.Before.Strokes, "after", a.After.Strokes, "from", a.from())
}

func didBeside(a *Answer) fact.Fact {
	lane := a.After.Beside
	if lane.None() {
		return fact.New("did.lane-closed")
	}
	return fact.New("did.beside", "lane", lane.Name(), "from", a.from())
}

func didFinish(a *Answer) fact.Fact {
	switch {
	case a.Late > 0:
		return fact.New("did.finish-late", "rounds", a.Fewer, "late", fact.Clock(a.Late))
	case a.Fewer > 0:
		return fact.New("did.finish-by", "rounds", a.Fewer)
	}
	return fact.New("did.finish-already")
}

func didUndo(a *Answer) fact.Fact { return fact.New("did.undo", "verb", a.Undone.Name()) }

func didHolds(a *Answer) fact.Fact {
	id := "did." + string(a.Do)
	if a.Carry {
		id += "-later"
	}
	return fact.New(id)
}

func didHand(a *Answer) fact.Fact {
	hand := a.After.ByHand
	switch {
	case hand == 0 && a.Breathed > 0:
		return fact.New("did.by-hand-off-at", "from", a.from(), "tempo", a.Breathed)
	case hand == 0:
		return fact.New("did.by-hand-off", "from", a.from())
	case hand == plan.AllByHand:
		return fact.New("did.by-hand-all", "from", a.from())
	}
	var phases []fact.Fact
	for _, phase := range hand.Phases() {
		phases = append(phases, fact.New("phase."+string(phase)))
	}
	return fact.New("did.by-hand", "phases", phases, "from", a.from())
}

func didRecall(a *Answer) fact.Fact { return fact.New("did.recall", "rounds", a.To.Round()) }

func didNote(a *Answer) fact.Fact {
	if a.Carry {
		return fact.New("did.note-next", "text", a.Text)
	}
	return fact.New("did.note", "text", a.Text)
}

func didSignal(a *Answer) fact.Fact {
	return fact.New("did.signal", "signal", fact.New("signal."+a.See))
}
