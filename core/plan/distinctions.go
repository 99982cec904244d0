package plan

import (
	"fmt"
	"strings"

	"vastlantern/core/breath"
)

// Distinctions is what tells a practice passage from its like in a running order, in a few words: the side, the zone, the
// width, the way of the air, own pace, and which set it is ("set 2 of 4") where the practice comes more than once in the plan.
// Counts, rounds and tempo are not named: they may be adjusted while the class is led. It is empty for a talk and free breath.
func (p *Plan) Distinctions(passage int) string {
	here := &p.Passages[passage]
	if here.Type != Practice {
		return ""
	}
	var list []string
	add := func(field, text string) {
		if text != "" && (field == "" || here.Practice.TakesField(field)) {
			list = append(list, text)
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
		add("", fmt.Sprintf("set %d of %d", set, sets))
	}
	add("side", sideOf(here))
	if here.Zone != "all" {
		add("zone", here.Zone)
	}
	add("attention", here.Attention)
	add("aperture", widthsOf(here))
	if here.Airway.In() == breath.Mouth || here.Airway.Out() == breath.Mouth {
		add("airway", fmt.Sprintf("in by the %s, out by the %s", way(here.Airway.In()), way(here.Airway.Out())))
	}
	if here.OwnPace {
		add("", "own pace")
	}
	return strings.Join(list, ", ")
}

func sideOf(p *Passage) string {
	switch {
	case !p.Practice.Alternates():
		return string(p.Side)
	case p.ExhaleFirst:
		return "exhale " + string(p.Side) + " first"
	}
	return string(p.Side) + " first"
}

func widthsOf(p *Passage) string {
	switch [2]string{p.Aperture.Inhale, p.Aperture.Exhale} {
	case [2]string{"narrow", "narrow"}:
		return "narrow in and out"
	case [2]string{"narrow", "wide"}:
		return "narrow in"
	case [2]string{"wide", "narrow"}:
		return "narrow out"
	}
	return "wide"
}

func way(t breath.Through) string {
	if t == breath.Mouth {
		return "mouth"
	}
	return "nose"
}
