package lead

import (
	"context"

	"vastlantern/studio/contract"
)

// Tapped tells the room's own pace from taps, and the tempo at which the class would be as quick.
func (c *Classes) Tapped(ctx context.Context, id int64, taps contract.Taps) (contract.Tapped, error) {
	l, err := c.Open(ctx, id)
	if err != nil {
		return contract.Tapped{}, err
	}
	tapped, err := l.Tapped(l.At(c.studio.Now()), taps)
	return tapped, invalid(err)
}
