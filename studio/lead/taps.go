package lead

import (
	"context"
	"errors"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/room"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Tapped tells the room's own pace from taps, and the tempo at which the class would be as quick.
func (c *Classes) Tapped(ctx context.Context, id int64, taps contract.Taps) (contract.Tapped, error) {
	l, err := c.Open(ctx, id)
	if err != nil {
		return contract.Tapped{}, err
	}
	return c.TappedIn(l, l.At(c.studio.Now()), taps)
}

// TappedIn is Tapped for any class, at a time of it.
func (c *Classes) TappedIn(l *studio.Class, at int64, taps contract.Taps) (contract.Tapped, error) {
	const most = 500
	if len(taps.AtMS) > most {
		return contract.Tapped{}, studio.Fail(studio.ErrInvalid, "taps.too-many", "given", len(taps.AtMS), "most", most)
	}
	beat, err := room.Taps(taps.AtMS)
	if errors.Is(err, room.ErrTaps) {
		return contract.Tapped{}, studio.Fail(studio.ErrInvalid, "taps.twice")
	}
	tapped := contract.Tapped{
		IntervalMS: beat.Interval.Float(),
		SpreadMS:   beat.Spread.Float(),
		Used:       beat.Used,
		Aside:      beat.Aside,
	}
	now := l.Led.At(at)
	if now.Passage > 0 && now.Met.Has(pace.ToTempo) {
		measure := now.Next.Measure
		measure.Counts = now.Counts
		tempo := beat.Tempo(&l.Plan.Passages[now.Passage-1], measure, taps.Breaths)
		if tempo.Cmp(breath.Exact{}) > 0 {
			tapped.Tempo = tempo.Float()
		}
	}
	return tapped, err
}
