package prepare

import (
	"bytes"
	"context"

	"vastlantern/core/care"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/plan/fit"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio"
)

// ToLead returns a stored plan as it will be led: with the words and the own practices of this day, the passages
// softer, and if wanted fitted into what is left of its slot. The stored plan stays as it is.
func (ps *Plans) ToLead(ctx context.Context,
	id int64,
	fitted bool,
	softer []int,
) (stored store.Plan, document []byte, p *plan.Plan, err error) {
	if stored, err = ps.studio.Store.With(ctx).Plan(id); err != nil {
		return stored, nil, nil, studio.Missing(err, store.KindPlan, id)
	}
	doc, err := sheet.ReadDocument(bytes.NewReader(stored.Document))
	if err != nil {
		return stored, nil, nil, err
	}
	group, err := ps.library.Group(ctx, stored.GroupID)
	if err != nil {
		return stored, nil, nil, err
	}
	p, err = ps.read(ctx, doc, group)
	switch {
	case p == nil:
		return stored, nil, nil, err
	case err != nil:
		return stored, nil, nil, studio.FailInPlan(err, "plan.cannot-lead-yet")
	case len(p.Passages) == 0:
		return stored, nil, nil, studio.Fail(studio.ErrInvalid, "plan.empty")
	}
	if p, err = care.Softer(doc, p, softer); err != nil {
		return stored, nil, nil, studio.FailWith(studio.ErrInvalid, fact.Of(err))
	}
	if fitted {
		if err := fit.Late(doc, p, level(group), ps.studio.Now()); err != nil {
			return stored, nil, nil, studio.FailWith(studio.ErrInvalid, fact.Of(err))
		}
	}
	document, err = written(doc)
	return stored, document, p, err
}
