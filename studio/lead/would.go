package lead

import (
	"context"

	"vastlantern/studio/contract"
)

// Would reports what each of the adjustments would do if it were made now.
func (c *Classes) Would(ctx context.Context, id int64, wants []contract.Adjust) ([]contract.Preview, error) {
	l, err := c.Open(ctx, id)
	if err != nil {
		return nil, err
	}
	previews, err := l.Would(l.At(c.studio.Now()), wants)
	return previews, invalid(err)
}
