package lead

import (
	"context"
	"sync"

	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// turned is which card of a passage is up on the lead screens. It belongs to the screens and not to the class: it is
// kept in memory only, and nothing of what is taught depends on it.
type turned struct {
	mutex         sync.Mutex
	class         int64
	passage, card int // from 1, and from 0
}

// of returns the card that is up in a passage of a class.
func (t *turned) of(class int64) contract.CardUp {
	t.mutex.Lock()
	defer t.mutex.Unlock()
	if t.class != class {
		return contract.CardUp{}
	}
	return contract.CardUp{Passage: t.passage, Card: t.card}
}

// TurnCard shows a card of the teacher's own words for a talk or a rest on all lead screens. The error says that there
// is no such card, or that the class is over.
func (c *Classes) TurnCard(ctx context.Context, id int64, to contract.CardUp) (contract.Score, error) {
	l, err := c.Open(ctx, id)
	if err != nil {
		return contract.Score{}, err
	}
	if !l.Stored.EndedAt.IsZero() { // it would turn back the card of the class in progress
		return contract.Score{}, studio.Fail(studio.ErrConflict, "lead.over")
	}
	if to.Passage < 1 || to.Passage > len(l.Plan.Passages) || to.Card < 0 ||
		to.Card >= len(l.Plan.Passages[to.Passage-1].Cards()) {
		return contract.Score{}, studio.Fail(studio.ErrInvalid, "card.none", "number", to.Card+1, "passage", to.Passage)
	}
	c.cards.mutex.Lock()
	c.cards.class, c.cards.passage, c.cards.card = id, to.Passage, to.Card
	c.cards.mutex.Unlock()
	c.studio.Notify(id)
	return c.score(ctx, l)
}
