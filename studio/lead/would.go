package lead

import (
	"vastlantern/core/sheet"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Would tells what each of the adjustments would do if it were made now.
func (c *Classes) Would(id int64, wants []contract.Adjust) ([]contract.Preview, error) {
	const most = 40
	if len(wants) > most {
		return nil, studio.Fail(studio.ErrInvalid, "These are %d adjustments; at most %d are looked at.", len(wants), most)
	}
	l, err := c.Open(id)
	if err != nil {
		return nil, err
	}
	at := l.At(c.studio.Now())
	previews := make([]contract.Preview, len(wants))
	for i, want := range wants {
		body, err := line(at, want)
		if err != nil {
			return nil, err
		}
		a, err := sheet.ReadAdjustment(body)
		if err != nil {
			return nil, studio.Fail(studio.ErrInvalid, "This is no adjustment: %v.", err)
		}
		would := l.Led.Would(a, 0)
		previews[i] = contract.Preview{Answer: contract.AnswerOf(would.Answer), ChangeMS: would.EndWith - would.EndWithout, EndMS: would.EndWith, Fewer: would.Fewer}
	}
	return previews, nil
}
