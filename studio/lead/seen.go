package lead

import (
	"context"

	"vastlantern/core/pace"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
)

// Signals returns what can be seen in a room, in the order of the pad.
func (c *Classes) Signals() []contract.Signal { return led.Signals() }

// Saw records what was seen in a class, and proposes what to do about it.
func (c *Classes) Saw(ctx context.Context, id int64, saw contract.Saw) (contract.Proposed, error) {
	c.leading.Lock()
	defer c.leading.Unlock()
	l, err := c.Open(ctx, id)
	if err != nil {
		return contract.Proposed{}, err
	}
	at := l.At(c.studio.Now())
	press := contract.Adjust{Key: saw.Key, Do: pace.Signal, See: &saw.See, Origin: saw.Origin, PressedMS: saw.PressedMS}
	moment, err := c.moment(l, press)
	if err != nil {
		return contract.Proposed{}, err
	}
	proposed, err := c.ProposedIn(l, at, saw.See)
	if err != nil {
		return contract.Proposed{}, err
	}
	if _, err := c.adjust(ctx, l, moment, press); err != nil {
		return contract.Proposed{}, err
	}
	proposed.Score, err = c.notifyWithScore(ctx, l)
	return proposed, err
}

// ProposedIn returns what to do about what is seen in a class at a time of it. It has no score.
func (c *Classes) ProposedIn(l *studio.Class, at int64, see string) (contract.Proposed, error) {
	limit := 0
	if here := c.people.Load(); here != nil && here.class == l.Stored.ID {
		limit = here.Care.Rules.LaneLimit
	}
	proposed, err := l.Propose(at, see, limit)
	return proposed, invalid(err)
}
