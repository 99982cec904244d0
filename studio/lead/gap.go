package lead

import (
	"context"
	"time"

	"vastlantern/core/pace"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Gap reports what to do about a stretch that began at that time of the class and in which no screen of the teacher's
// showed the count: the lid was closed, the program or the browser had ended.
func (c *Classes) Gap(ctx context.Context, id, from int64) (contract.Gap, error) {
	l, err := c.Open(ctx, id)
	if err != nil {
		return contract.Gap{}, err
	}
	return l.Gap(from, l.At(c.studio.Now())), nil
}

// TakeAgain repeats a round that no screen showed: the time from then until now becomes a pause with natural breath,
// and the round starts over. The record has it as such a pause.
func (c *Classes) TakeAgain(ctx context.Context, id int64, want contract.TakeAgain) (contract.Adjusted, error) {
	c.leading.Lock()
	defer c.leading.Unlock()
	l, err := c.Open(ctx, id)
	if err != nil {
		return contract.Adjusted{}, err
	}
	if number := l.Known(want.Key); number > 0 {
		return c.adjusted(ctx, l, number)
	}
	over := !l.Stored.EndedAt.IsZero() // it may have come to its end by the clock, unseen
	if over {
		newest, err := c.studio.Store.With(ctx).NewestClass()
		if err != nil {
			return contract.Adjusted{}, err
		}
		if newest != id {
			return contract.Adjusted{}, studio.Fail(studio.ErrConflict, "gap.other-class")
		}
		l.End(time.Time{})
	}
	at := l.At(c.studio.Now())
	from, can := l.Lost(want.FromMS, at)
	if !can {
		return contract.Adjusted{}, studio.Fail(studio.ErrConflict, "gap.cannot-again")
	}
	if over {
		if err := c.reopen(ctx, l.Stored); err != nil {
			return contract.Adjusted{}, err
		}
	}
	// The pause first: if all ends between the two, the class is in natural breath and waits.
	if _, err := c.adjust(ctx, l, from, contract.Adjust{Key: want.Key + "-lost", Do: pace.ToPause,
		Origin: want.Origin}); err != nil {
		return contract.Adjusted{}, err
	}
	number, err := c.adjust(ctx, l, at, contract.Adjust{Key: want.Key, Do: pace.Resume, Origin: want.Origin})
	if err != nil {
		return contract.Adjusted{}, err
	}
	return c.adjusted(ctx, l, number)
}
