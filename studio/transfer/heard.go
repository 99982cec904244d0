package transfer

import (
	"context"
	"slices"

	"vastlantern/core/breath"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// heard returns what was heard in a class.
func (tr *Transfer) heard(ctx context.Context, class int64) ([]contract.Heard, error) {
	stored, err := tr.studio.Store.With(ctx).Heard(class)
	var list []contract.Heard
	for _, h := range stored {
		list = append(list, contract.Heard{
			Phase: breath.Phase(h.Phase), FromMS: h.FromMS, ToMS: h.ToMS, PerMinute: h.PerMinute,
		})
	}
	return list, err
}

// notYetHeard returns what is in the file and not here.
func notYetHeard(here, in []contract.Heard) (list []contract.Heard) {
	for _, h := range in {
		same := func(other contract.Heard) bool { return other.Phase == h.Phase && other.FromMS == h.FromMS }
		if !slices.ContainsFunc(here, same) {
			list = append(list, h)
		}
	}
	return list
}

// addHeard adds to what was heard in a class.
func addHeard(st *store.Store, class int64, list []contract.Heard) error {
	_, err := st.AddHeard(class, studio.MostHeard, studio.StoredHeard(list)...)
	return err
}
