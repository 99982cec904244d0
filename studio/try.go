package studio

import (
	"vastlantern/core/pace"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// mostTried is how many adjustments a try-out may have.
const mostTried = 1000

// Try plays a plan with adjustments and keeps nothing: the score is that of a class which is so far. Its times are
// those of the class, from 0. The answer is to the last adjustment.
func (s *Studio) Try(plan int64, try contract.Try) (contract.Score, error) {
	stored, err := s.store.Plan(plan)
	if err != nil {
		return contract.Score{}, missing(err, "plan", plan)
	}
	if len(try.Script) > mostTried {
		return contract.Score{}, fail(ErrInvalid, "These are %d adjustments; begin the try-out again.", len(try.Script))
	}
	_, p, err := s.toLead(stored, false, nil)
	if err != nil {
		return contract.Score{}, err
	}
	l := &led{stored: store.Class{GroupID: stored.GroupID, StartedAt: s.now()}, plan: p, class: pace.Begin(p)}
	before := int64(0)
	for _, tried := range try.Script {
		before = max(before, tried.AtMS) // times never fall
		body, err := line(before, tried.Adjust)
		if err != nil {
			return contract.Score{}, err
		}
		a, err := sheet.ReadAdjustment(body)
		if err != nil {
			return contract.Score{}, fail(ErrInvalid, "This is no adjustment: %v.", err)
		}
		l.add(sent{because: tried.Adjust.Because}, a)
	}
	score, err := s.scoreAt(l, max(before, try.AtMS))
	score.StartedMS = 0
	return score, err
}
