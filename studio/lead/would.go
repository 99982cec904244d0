package lead

import (
	"context"
	"vastlantern/core/pace"
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
	const most = 40
	if len(wants) > most {
		return nil, studio.Fail(studio.ErrInvalid, "would.too-many", "given", len(wants), "most", most)
	}
	adjustments := make([]pace.Adjustment, len(wants))
	for i, want := range wants {
		var err error
		if adjustments[i], err = c.Adjustment(at, want); err != nil {
			return nil, err
		}
	}
	previews := make([]contract.Preview, len(wants))
	for i, p := range l.Led.Previews(at, adjustments) {
		previews[i] = contract.Preview{
			Answer: contract.AnswerOf(p.Answer), ChangeMS: p.EndWith - p.EndWithout, EndMS: p.EndWith, Fewer: p.Fewer,
		}
	}
	return previews, nil
}
