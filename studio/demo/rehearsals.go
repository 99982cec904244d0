package demo

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/store"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk"
)

// rehearsed is one rehearsal of the past days: the task, and what was said and done in it.
type rehearsed struct {
	daysAgo  int
	scenario string
	level    int
	saw      []sawIt
}

// sawIt is something that was said to be seen, some seconds after the beginning. With take what is proposed is taken.
type sawIt struct {
	at   float64
	see  string
	take bool
	rest float64 // seconds until the class is resumed, where natural breath was taken
}

// A teacher who learns: at first late, then in time.
var rehearsals = []rehearsed{
	{9, "gasp", 1, []sawIt{{96, "gasp", true, 0}}},
	{9, "gasp", 1, []sawIt{{62, "restless", false, 0}, {74, "gasp", true, 0}}},
	{6, "spreads", 1, []sawIt{{40, "tight", true, 0}, {70, "rushed", true, 0}}},
	{5, "gasp", 1, []sawIt{{48, "gasp", true, 0}}},
	{3, "latecomer", 1, []sawIt{{56, "interrupted", true, 25}}},
	{2, "spreads", 1, []sawIt{{22, "rushed", true, 0}, {35, "tight", true, 0}, {142, "restless", false, 0}}},
}

const rehearsalsSetting = "demo rehearsals"

// layRehearsals has the teacher of the demo rehearse, unless some of that is there.
func layRehearsals(ctx context.Context, s *store.Store, now time.Time) error {
	ids, err := laidRehearsals(s)
	if err != nil || len(ids) > 0 {
		return err
	}
	for i, r := range rehearsals {
		at := now.AddDate(0, 0, -r.daysAgo).Add(time.Duration(i) * 20 * time.Minute)
		id, err := r.lead(ctx, desk.WithTime(s, func() time.Time { return at }, 1))
		if err != nil {
			return fact.Wrap(err, "demo.rehearsal", "task", r.scenario, "why", err)
		}
		ids = append(ids, id)
	}
	value, err := json.Marshal(ids)
	if err != nil {
		return err
	}
	return s.SaveSetting(rehearsalsSetting, value)
}

const reaction = 1500 // ms from what is said to what is taken

func (r rehearsed) lead(ctx context.Context, d *desk.Desk) (id int64, err error) {
	begun, err := d.Rehearse.Begin(ctx, contract.Rehearse{Scenario: r.scenario, Level: r.level})
	if err != nil {
		return 0, err
	}
	keys := 0
	press := func(at float64, do contract.Adjust) error {
		keys++
		do.Key, do.PressedMS = fmt.Sprint("demo ", keys), &at
		_, err := d.Rehearse.Adjust(ctx, begun.ID, do)
		return err
	}
	for i, one := range r.saw {
		at := one.at * 1000
		seen, err := d.Rehearse.Saw(ctx, begun.ID, contract.Saw{Key: fmt.Sprint("seen ", i), See: one.see, PressedMS: &at})
		if err != nil {
			return 0, err
		}
		if !one.take {
			continue
		}
		for _, do := range seen.Proposed.Do {
			if err := press(at+reaction, do); err != nil {
				return 0, err
			}
		}
		if one.rest > 0 {
			if err := press(at+one.rest*1000, contract.Adjust{Do: pace.Resume}); err != nil {
				return 0, err
			}
		}
	}
	const beyond = 3_600_000 // ms: to its own end
	_, err = d.Rehearse.End(ctx, begun.ID, contract.RehearsalMoment{AtMS: beyond})
	return begun.ID, err
}

// laidRehearsals returns those of the demo that are there.
func laidRehearsals(s *store.Store) ([]int64, error) {
	value, err := s.Setting(rehearsalsSetting)
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil
	}
	var ids, there []int64
	if err != nil || json.Unmarshal(value, &ids) != nil {
		return nil, err
	}
	for _, id := range ids {
		switch _, err := s.Rehearsal(id); {
		case errors.Is(err, store.ErrNotFound):
		case err != nil:
			return nil, err
		default:
			there = append(there, id)
		}
	}
	return there, nil
}
