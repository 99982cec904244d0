package rehearse

import (
	"bytes"
	"context"
	"slices"
	"time"

	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/rehearsed"
)

// All returns what can be rehearsed, and what was.
func (r *Rehearse) All(ctx context.Context) (contract.Rehearsals, error) {
	all := contract.Rehearsals{
		Scenarios: []contract.Scenario{},
		Plans:     []contract.RehearsalPlan{},
		Done:      []contract.Rehearsal{},
		Limits:    rehearsed.Limits,
	}
	desk := r.desk(ctx)
	var err error
	if all.Rooms, err = desk.Rooms(); err != nil {
		return all, err
	}
	if all.Scenarios, err = desk.Scenarios(); err != nil {
		return all, err
	}
	if all.Plans, err = r.plans(ctx); err != nil {
		return all, err
	}
	rows, err := r.studio.Store.With(ctx).Rehearsals()
	if err != nil {
		return all, err
	}
	for _, row := range rows {
		one, err := desk.Entry(kept(row))
		if err != nil {
			r.studio.NoteDamage(store.KindRehearsal, row.ID, err)
			continue
		}
		all.Done = append(all.Done, one)
		rehearsed.Count(all.Scenarios, one)
	}
	return all, nil
}

const (
	mostPlans = 60
	lately    = 14 * 24 * time.Hour
)

// plans returns those that come, that were lately, and that have no time.
func (r *Rehearse) plans(ctx context.Context) ([]contract.RehearsalPlan, error) {
	list := []contract.RehearsalPlan{}
	coming, err := r.studio.Store.With(ctx).PlansFrom(r.studio.Now().Add(-lately), mostPlans)
	if err != nil {
		return list, err
	}
	timeless, err := r.studio.Store.With(ctx).PlansWithoutTime(mostPlans - len(coming))
	for _, row := range slices.Concat(coming, timeless) {
		_, p, err := sheet.ReadPlan(bytes.NewReader(row.Document))
		if err != nil || len(p.Passages) == 0 {
			continue // it cannot be led yet, and says so where it is planned
		}
		one := contract.RehearsalPlan{ID: row.ID, Title: p.Title, Passages: []string{}}
		if !row.StartsAt.IsZero() {
			one.StartsMS = contract.Millis(row.StartsAt)
		}
		for i := range p.Passages {
			one.Passages = append(one.Passages, studio.Called(ctx, p.Passages[i]))
		}
		list = append(list, one)
	}
	return list, err
}
