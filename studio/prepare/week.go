package prepare

import (
	"bytes"
	"context"
	"errors"
	"time"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/plan/line"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Move plans a stored plan for another time, in the zone of the program.
func (ps *Plans) Move(ctx context.Context, id int64, move contract.MovePlan) (contract.PlanCard, error) {
	stored, err := ps.studio.Store.With(ctx).Plan(id)
	if err != nil {
		return contract.PlanCard{}, studio.Missing(err, store.KindPlan, id)
	}
	doc, err := sheet.ReadDocument(bytes.NewReader(stored.Document))
	if err != nil {
		return contract.PlanCard{}, ps.studio.OrDamaged(studio.Unreadable(err), "plan", id)
	}
	at := time.UnixMilli(int64(move.StartsMS)).In(ps.studio.Now().Location())
	if !plan.InCalendar(at) {
		return contract.PlanCard{}, studio.Fail(
			studio.ErrInvalid,
			"plan.move-outside",
			"allowed",
			fact.New("allowed.calendar"),
		)
	}
	doc.SetStart(at)
	text, err := written(doc)
	if err != nil {
		return contract.PlanCard{}, err
	}
	stored.Document, stored.StartsAt, stored.UpdatedAt = text, at, ps.studio.Now()
	if stored, err = ps.studio.Store.With(ctx).SavePlan(stored); err != nil {
		return contract.PlanCard{}, changedElsewhere(err)
	}
	groups, err := ps.library.GroupsByID(ctx)
	return ps.Card(ctx, stored, groups), err
}

// LastTime returns what a group was taught last, passage by passage as it was; it has no class where there was none.
func (ps *Plans) LastTime(ctx context.Context, group int64) (contract.LastTime, error) {
	last := contract.LastTime{Passages: []contract.LastPassage{}}
	id, err := ps.past.Last(ctx, group)
	if err != nil || id == 0 {
		return last, err
	}
	class, err := ps.past.Class(ctx, id)
	if err != nil {
		return last, err
	}
	doc, err := sheet.ReadDocument(bytes.NewReader(class.Stored.Document))
	if err != nil {
		return last, err
	}
	taught.Of(class.Plan, class.Script, class.At(ps.studio.Now())).Plan(doc, class.Plan)
	p, err := plan.Read(doc)
	if p == nil {
		return last, err
	}
	last.ClassID, last.Title, last.StartedMS = id, class.Plan.Title, contract.Millis(class.Stored.StartedAt)
	fields := doc.Passages()
	for i := range p.Passages {
		one := &p.Passages[i]
		shape := contract.LastPassage{
			Name: studio.Called(ctx, *one), Short: line.ShortIn(language.Of(ctx), one.Short(fields[i])),
			Says: studio.AllTold(ctx, one.Says(fields[i])),
		}
		if one.Practice != nil {
			shape.Practice = one.Practice.ID
		}
		last.Passages = append(last.Passages, shape)
	}
	return last, nil
}

// changedElsewhere tells that a plan was changed meanwhile.
func changedElsewhere(err error) error {
	if errors.Is(err, store.ErrTaken) {
		return studio.Fail(studio.ErrConflict, "plan.changed-elsewhere")
	}
	return err
}
