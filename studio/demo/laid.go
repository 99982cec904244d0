package demo

import (
	"context"
	"encoding/json"
	"errors"
	"slices"

	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk"
)

// setting is the name under which stands which groups are the demo's.
const setting = "demo"

// noteLaid stores which groups are the demo's, so that they can be removed.
func noteLaid(s *store.Store, ids map[string]int64) error {
	var list []int64
	for _, g := range groups {
		list = append(list, ids[g.name])
	}
	value, err := json.Marshal(list)
	if err != nil {
		return err
	}
	return s.SaveSetting(setting, value)
}

// laid returns the groups of the demo that are in the data file.
func laid(s *store.Store) ([]store.Group, error) {
	value, err := s.Setting(setting)
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	var ids []int64
	if err := json.Unmarshal(value, &ids); err != nil {
		return nil, nil // nobody can say which they were
	}
	known, err := s.Groups()
	return slices.DeleteFunc(known, func(g store.Group) bool { return !slices.Contains(ids, g.ID) }), err
}

// State reports what of the demo is in the data file of the desk.
func State(d *desk.Desk) (contract.DemoData, error) {
	there, err := laid(d.Store)
	state := contract.DemoData{Groups: []string{}, Offered: []string{}}
	for _, g := range there {
		state.Groups = append(state.Groups, g.Name)
	}
	for _, g := range groups {
		state.Offered = append(state.Offered, g.name)
	}
	return state, err
}

// Lay lays the groups of the demo, their past and their next plans into the data file of the desk, beside what is
// there. Its voice does not speak unless it is chosen.
func Lay(ctx context.Context, d *desk.Desk) (contract.DemoData, error) {
	err := d.Classes.WhileNothingBegins(ctx, func(running *studio.Class) error {
		if running != nil {
			return studio.FailRunning(running, "class.running")
		}
		there, err := laid(d.Store)
		if err != nil {
			return err
		}
		if len(there) > 0 {
			return studio.Fail(studio.ErrConflict, "demo.already")
		}
		if err := load(ctx, d.Store, d.Now(), map[string]int64{}); err != nil {
			return err
		}
		if err := layRehearsals(ctx, d.Store, d.Now()); err != nil {
			return err
		}
		return layVoice(ctx, d, false, readWords)
	})
	if err != nil {
		return contract.DemoData{}, err
	}
	d.NotifyAll()
	if err := d.Prepare(ctx); err != nil {
		return contract.DemoData{}, err
	}
	return State(d)
}

// Remove removes the groups of the demo with their plans and classes, its rehearsals and its voice. They can be brought
// back for 30 days, as all that is deleted.
func Remove(ctx context.Context, d *desk.Desk) (contract.DemoData, error) {
	there, err := laid(d.Store)
	if err != nil {
		return contract.DemoData{}, err
	}
	for _, g := range there {
		if _, err := d.Transfer.Delete(ctx, string(store.KindGroup), g.ID, true); err != nil {
			return contract.DemoData{}, err
		}
	}
	ids, err := laidRehearsals(d.Store)
	if err != nil {
		return contract.DemoData{}, err
	}
	for _, id := range ids {
		if _, err := d.Transfer.Delete(ctx, string(store.KindRehearsal), id, false); err != nil {
			return contract.DemoData{}, err
		}
	}
	if id, err := laidVoice(d.Store); err != nil {
		return contract.DemoData{}, err
	} else if id != 0 {
		if _, err := d.Transfer.Delete(ctx, string(store.KindVoice), id, false); err != nil {
			return contract.DemoData{}, err
		}
	}
	return State(d)
}
