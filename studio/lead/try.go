package lead

import (
	"context"

	"vastlantern/core/pace"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
)

// mostTried is how many adjustments a try-out may have.
const mostTried = 1000

// mostWork is how many rows are gone through for a try-out that is not known: a second or less. Who presses one key
// after the other asks for one adjustment at a time.
const mostWork = 1_000_000

// Try plays a plan with adjustments and keeps nothing: the score is that of a class which is so far. Its times are
// those of the class, from 0. The answer is to the last adjustment.
func (c *Classes) Try(ctx context.Context, plan int64, try contract.Try) (contract.Score, error) {
	if len(try.Script) > mostTried {
		return contract.Score{}, studio.Fail(studio.ErrInvalid, "try.too-many", "given", len(try.Script))
	}
	stored, document, p, err := c.plans.ToLead(ctx, plan, false, nil)
	if err != nil {
		return contract.Score{}, err
	}
	l := studio.BeginClass(store.Class{GroupID: stored.GroupID, StartedAt: c.studio.Now(), Document: document}, p)
	before := int64(0)
	script := make([]pace.Adjustment, len(try.Script))
	for i, tried := range try.Script {
		before = max(before, tried.AtMS) // times never fall
		if script[i], _, err = led.Adjustment(before, tried.Adjust); err != nil {
			return contract.Score{}, invalid(err)
		}
	}
	anew := len(script) - c.mainCues.Known(document, script)
	if rows := p.Rows(); anew*rows > mostWork {
		return contract.Score{}, studio.Fail(studio.ErrInvalid, "try.forgotten", "adjustments", anew)
	}
	for i, a := range script {
		l.Add(led.Sent{Because: try.Script[i].Adjust.Because}, a)
	}
	return c.ScoreOf(ctx, l, max(before, try.AtMS))
}

// ScoreOf returns the score of a class that is not stored, so far. Its times are those of the class, from 0.
func (c *Classes) ScoreOf(ctx context.Context, l *studio.Class, at int64) (contract.Score, error) {
	score, err := c.scoreAt(ctx, l, at)
	score.StartedMS = 0
	return score, err
}
