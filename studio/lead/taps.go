package lead

import (
	"context"

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
	tapped, err := l.Tapped(at, taps)
	return tapped, invalid(err)
}
