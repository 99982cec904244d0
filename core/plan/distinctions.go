package plan

import (
	"vastlantern/core/breath"
	"vastlantern/core/fact"
)

// Distinctions returns what tells a practice passage from its like in a running order, each in a few words: the side,
// the zone, the width, the way of the air, own pace, and which set it is ("set 2 of 4") where the practice comes more
// than once in the plan. Counts, rounds and tempo are not named: they may be adjusted while the class is led. It is
// empty for a talk and free breath.
func (p *Plan) Distinctions(passage int) []fact.Fact {
	list := []fact.Fact{}
	here := &p.Passages[passage]
	if here.Type != Practice {
		return list
	}
	add := func(field, id string, args ...any) {
		if field == "" || here.Practice.TakesField(field) {
			list = append(list, fact.New(id, args...))
		}
	}
	sets, set := 0, 0
	for i := range p.Passages {
		if p.Passages[i].Type == Practice && p.Passages[i].Practice.ID == here.Practice.ID {
			sets++
			if i == passage {
				set = sets
			}
		}
	}
	if sets > 1 {
		add("", "distinct.set", "set", set, "of", sets)
	}
	add("side", sideOf(here), "side", here.Side)
	if len(here.Sides) == 1 {
		add("sides", "distinct.side", "side", here.Sides[0])
	}
	if here.Zone != "all" {
		add("zone", "name", "name", here.Zone)
	}
	add("attention", "name", "name", here.Attention)
	add("aperture", widthsOf(here))
	if here.Airway.In() == breath.Mouth || here.Airway.Out() == breath.Mouth {
		add("airway", "distinct.airway", "in", way(here.Airway.In()), "out", way(here.Airway.Out()))
	}
	if here.OwnPace {
		add("", "distinct.own-pace")
	}
	return list
}

func sideOf(p *Passage) string {
	switch {
	case !p.Practice.Alternates():
		return "distinct.side"
	case p.ExhaleFirst:
		return "distinct.exhale-side-first"
	}
	return "distinct.side-first"
}

func widthsOf(p *Passage) string {
	switch [2]string{p.Aperture.Inhale, p.Aperture.Exhale} {
	case [2]string{"narrow", "narrow"}:
		return "distinct.narrow-both"
	case [2]string{"narrow", "wide"}:
		return "distinct.narrow-in"
	case [2]string{"wide", "narrow"}:
		return "distinct.narrow-out"
	}
	return "distinct.wide"
}

func way(t breath.Through) string {
	if t == breath.Mouth {
		return "mouth"
	}
	return "nose"
}
