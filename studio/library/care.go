package library

import (
	"context"
	"time"

	"vastlantern/core/care"
	"vastlantern/core/plan"
	"vastlantern/studio/contract"
)

// CareFor returns who and when a plan is for, as the rules of care ask.
func (l *Library) CareFor(ctx context.Context, group *contract.Group, at time.Time) (care.Room, error) {
	choices, err := l.ChoicesFor(ctx, group)
	room := care.Room{
		Present: map[care.Condition]int{}, Late: plan.Late(at),
		Rules: care.Rules{
			SlowStrokes: choices.Way("pressure").SlowStrokes, LeaveOutAtMenses: choices.Way("menses").LeaveOutAtMenses,
			NewcomersMay: choices.Way("newcomers").NewcomersMay, LaneLimit: choices.Way("lane-limit").LaneLimit,
		},
	}
	if group != nil {
		room.Under16 = group.Under16
		for id, n := range group.Conditions {
			room.Present[care.Condition(id)] = n
		}
	}
	return room, err
}
