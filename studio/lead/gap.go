package lead

import (
	"context"
	"time"

	"vastlantern/core/fact"
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
	at := l.At(c.studio.Now())
	_, again := lost(l, from, at)
	return contract.Gap{Away: where(l, from), Now: where(l, at), Again: again}, nil
}

// lost returns where in the class a gap begins that can be taken back: at its first moment, if the class could be
// paused there and nobody has adjusted it since.
func lost(l *studio.Class, from, at int64) (int64, bool) {
	from = max(0, from)
	if n := len(l.Script); from >= at || n > 0 && from < l.Script[n-1].At {
		return 0, false
	}
	moment := l.Led.At(from)
	return from, moment.Passage > 0 && moment.Met.Has(pace.ToPause)
}

// where returns a moment of the class.
func where(l *studio.Class, at int64) fact.Fact {
	moment := l.Led.At(max(0, at))
	if moment.Passage == 0 {
		return fact.New("gap.after-end")
	}
	name := l.Plan.Passages[moment.Passage-1].Name()
	if moment.Stage == pace.Round {
		return fact.New("gap.round", "name", name, "round", moment.Round)
	}
	return fact.New("name", "name", name)
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
		l.Stored.EndedAt = time.Time{}
	}
	at := l.At(c.studio.Now())
	from, can := lost(l, want.FromMS, at)
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
