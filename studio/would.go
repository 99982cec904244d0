package studio

import (
	"vastlantern/core/sheet"
	"vastlantern/studio/contract"
)

// Would tells what each of the adjustments would do if it were made now.
func (s *Studio) Would(id int64, wants []contract.Adjust) ([]contract.Preview, error) {
	const most = 40
	if len(wants) > most {
		return nil, fail(ErrInvalid, "These are %d adjustments; at most %d are looked at.", len(wants), most)
	}
	l, err := s.open(id)
	if err != nil {
		return nil, err
	}
	at := l.at(s.now())
	previews := make([]contract.Preview, len(wants))
	for i, want := range wants {
		body, err := line(at, want)
		if err != nil {
			return nil, err
		}
		a, err := sheet.ReadAdjustment(body)
		if err != nil {
			return nil, fail(ErrInvalid, "This is no adjustment: %v.", err)
		}
		would := l.class.Would(a, 0)
		previews[i] = contract.Preview{Answer: answerOf(would.Answer), ChangeMS: would.EndWith - would.EndWithout}
	}
	return previews, nil
}
