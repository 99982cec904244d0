package transfer

import (
	"context"
	"errors"
	"maps"
	"slices"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// checkIn returns what the room answered before and after a class, nil if it was not asked.
func (tr *Transfer) checkIn(ctx context.Context, class int64) (*contract.ExportCheckIn, error) {
	c, err := tr.studio.Store.With(ctx).CheckInOfClass(class)
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil
	}
	return &contract.ExportCheckIn{
		Question: plan.CheckIn(c.Question), Before: c.Before, After: c.After,
		MostBefore: c.MostBefore, MostAfter: c.MostAfter,
	}, err
}

// checkedIn returns how many answers there are.
func checkedIn(c *contract.ExportCheckIn) int {
	if c == nil {
		return 0
	}
	return store.People(c.Before) + store.People(c.After)
}

func checkCheckIn(c *contract.ExportCheckIn) error {
	if c == nil {
		return nil
	}
	for _, part := range []struct {
		sums map[string]int
		most int
	}{{c.Before, c.MostBefore}, {c.After, c.MostAfter}} {
		for _, answer := range slices.Sorted(maps.Keys(part.sums)) {
			if !c.Question.Takes(answer) || part.sums[answer] < 1 {
				return fact.New("check-in.answer", "given", answer)
			}
		}
		if given := store.People(part.sums); given > part.most {
			return fact.New("entry.answers-over", "given", given, "most", part.most)
		}
	}
	return nil
}

// putCheckIn stores the sums of a class, in the place of those that there are.
func putCheckIn(st *store.Store, class int64, c *contract.ExportCheckIn) error {
	if c == nil {
		return nil
	}
	there, err := st.CheckInOfClass(class)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return err
	}
	_, err = st.PutCheckIn(store.CheckIn{
		ID: there.ID, ClassID: class, PlanID: there.PlanID, OpenedAt: there.OpenedAt, Question: string(c.Question),
		Before: c.Before, After: c.After, MostBefore: c.MostBefore, MostAfter: c.MostAfter,
	})
	return err
}
