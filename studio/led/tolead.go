package led

import (
	"bytes"
	"time"

	"vastlantern/core/care"
	"vastlantern/core/plan"
	"vastlantern/core/plan/fit"
	"vastlantern/core/sheet"
)

// ToLead returns a plan's document, in which the own practices are already, as it is led: passages in their gentle
// variant, and fitted into what is left of its slot at the time late, if that is not zero.
func ToLead(document []byte, gentle []int, late time.Time, level string) ([]byte, error) {
	doc, err := sheet.ReadDocument(bytes.NewReader(document))
	if err != nil {
		return nil, err
	}
	p, err := plan.Read(doc)
	if err != nil {
		return nil, err
	}
	if p, err = care.Softer(doc, p, gentle); err != nil {
		return nil, err
	}
	if !late.IsZero() {
		if err := fit.Late(doc, p, level, late); err != nil {
			return nil, err
		}
	}
	var text bytes.Buffer
	err = sheet.WritePlan(&text, doc)
	return text.Bytes(), err
}
