package lead

import (
	"context"

	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Would reports what each of the adjustments would do if it were made now.
func (c *Classes) Would(ctx context.Context, id int64, wants []contract.Adjust) ([]contract.Preview, error) {
	l, err := c.Open(ctx, id)
	if err != nil {
		return nil, err
	}
	return c.WouldIn(l, l.At(c.studio.Now()), wants)
}

// WouldIn is Would for any class, at a time of it.
func (c *Classes) WouldIn(l *studio.Class, at int64, wants []contract.Adjust) ([]contract.Preview, error) {
	previews, err := l.Would(at, wants)
	return previews, invalid(err)
}
