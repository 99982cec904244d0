package lead

import (
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Would tells what each of the adjustments would do if it were made now.
func (c *Classes) Would(id int64, wants []contract.Adjust) ([]contract.Preview, error) {
	l, err := c.Open(id)
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
	previews := make([]contract.Preview, len(wants))
	for i, want := range wants {
		a, err := c.Adjustment(at, want)
		if err != nil {
			return nil, err
		}
		would := l.Led.Would(a, 0)
		previews[i] = contract.Preview{Answer: contract.AnswerOf(would.Answer), ChangeMS: would.EndWith - would.EndWithout, EndMS: would.EndWith, Fewer: would.Fewer}
	}
	return previews, nil
}
