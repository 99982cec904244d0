package lead

import (
	"context"
	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/room"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Signals returns what can be seen in a room, in the order of the pad.
func (c *Classes) Signals() []contract.Signal {
	list := make([]contract.Signal, 0, len(room.Signals))
	for _, seen := range room.Signals {
		list = append(list, contract.Signal{ID: seen.ID, Name: seen.Name(), With: append([]breath.Phase{}, seen.With()...)})
	}
	return list
}

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
	scene := room.Scene{Now: l.Led.At(at), SlotEnd: l.Plan.Slot.Times(60_000).Round()}
	if scene.Now.Passage > 0 {
		scene.Passage = &l.Plan.Passages[scene.Now.Passage-1]
	}
	for _, a := range l.Answers {
		if a.Do == pace.Signal && a.See == see && a.Passage == scene.Now.Passage {
			scene.Before++
		}
	}
	if here := c.people.Load(); here != nil && here.class == l.Stored.ID {
		scene.LaneLimit = here.asks.Rules.LaneLimit
	}
	proposal, err := room.Propose(see, scene)
	if err != nil {
		return contract.Proposed{}, studio.Fail(studio.ErrInvalid, "lead.not-noted", "why", err)
	}
	proposed := contract.Proposed{Say: proposal.Say}
	if proposed.Do, err = asAdjusts(proposal.Do, see); err != nil || proposal.Lane.Do == "" {
		return proposed, err
	}
	lane, err := contract.AdjustOf(proposal.Lane)
	lane.Because = see
	proposed.Lane = &lane
	return proposed, err
}

// asAdjusts returns adjustments as a screen sends them.
func asAdjusts(do []pace.Adjustment, because string) ([]contract.Adjust, error) {
	list := []contract.Adjust{}
	for _, a := range do {
		one, err := contract.AdjustOf(a)
		if err != nil {
			return nil, err
		}
		one.Because = because
		list = append(list, one)
	}
	return list, nil
}
