// Package today collects what the first screen shows: the next plan, what was taught last, and the state of the data
// file.
package today

import (
	"context"
	"fmt"
	"slices"
	"time"

	"vastlantern/core/fact"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Today is the room.
type Today struct {
	studio  *studio.Studio
	library Library
	plans   Plans
	records Records
}

// Library is what is asked of the groups.
type Library interface {
	GroupsByID(context.Context) (map[int64]*contract.Group, error)
}

// Plans is what is asked of the room where plans are made.
type Plans interface {
	Card(context.Context, store.Plan, map[int64]*contract.Group) contract.PlanCard
	Advised(context.Context, store.Plan, *contract.Group) ([]contract.Advice, error)
}

// Records is what is asked of the record.
type Records interface {
	Find(context.Context, contract.Search) (contract.Found, error)
	Record(ctx context.Context, id int64) (contract.Record, error)
}

// New returns the room of a studio.
func New(s *studio.Studio, l Library, p Plans, r Records) *Today { return &Today{s, l, p, r} }

// Show returns what the first screen shows. Each part fails by itself: one that cannot be put together takes nothing
// else with it.
func (t *Today) Show(ctx context.Context) contract.Today {
	now := t.studio.Now()
	today := contract.Today{
		NowMS:  contract.Millis(now),
		Plans:  []contract.PlanCard{},
		Advice: []contract.Advice{},
		Taught: []contract.ClassCard{},
		Failed: []contract.Failed{},
	}
	part := func(name string, err error) {
		if err != nil {
			today.Failed = append(today.Failed, contract.Failed{Part: name, Say: fact.Of(err)})
		}
	}
	next, err := t.plansOfToday(ctx, &today, now)
	part("plans", err)
	if next != nil {
		today.Advice, err = t.plans.Advised(ctx, *next, today.Next.Group)
		part("advice", err)
	}
	found, err := t.records.Find(ctx, contract.Search{})
	part("taught", err)
	today.Taught = found.Classes
	for _, card := range today.Taught {
		if today.Next != nil && today.Next.Group != nil && card.Group != nil && card.Group.ID == today.Next.Group.ID &&
			!card.Running {
			record, err := t.records.Record(ctx, card.ID)
			part("last", err)
			if err == nil {
				today.Last = &record
			}
			break
		}
	}
	today.Damaged, err = t.damaged(ctx)
	part("taught", err)
	opened := t.studio.Store.Opened()
	today.File = contract.DataFile{
		Path:       t.studio.Store.Path(),
		Made:       opened.Made && today.Next == nil && len(today.Plans) == 0,
		Incomplete: opened.Incomplete,
	}
	return today
}

// How many plans are listed: of those to come more than a week has, and of those without a time the ones in use.
const (
	mostComing   = 100
	mostTimeless = 50
)

// plansOfToday fills in the next plan by the clock, which it returns, and the others to come.
func (t *Today) plansOfToday(ctx context.Context, today *contract.Today, now time.Time) (next *store.Plan, err error) {
	groups, err := t.library.GroupsByID(ctx)
	if err != nil {
		return nil, err
	}
	st, notOver := t.studio.Store, now.Add(-studio.Late)
	coming, err := st.PlansFrom(notOver, mostComing)
	if err != nil {
		return nil, err
	}
	comingInAll, err := st.CountPlansFrom(notOver)
	if err != nil {
		return nil, err
	}
	if len(coming) > 0 {
		card := t.plans.Card(ctx, coming[0], groups)
		next, today.Next = &coming[0], &card
	}
	timeless, err := st.PlansWithoutTime(mostTimeless)
	if err != nil {
		return next, err
	}
	timelessInAll, err := st.CountPlansWithoutTime()
	for _, stored := range slices.Concat(coming[min(1, len(coming)):], timeless) {
		today.Plans = append(today.Plans, t.plans.Card(ctx, stored, groups))
	}
	today.More = comingInAll + timelessInAll - int64(len(coming)+len(timeless))
	return next, err
}

// damaged returns the entries that cannot be read: those that were met since the start, and those that lists leave out.
func (t *Today) damaged(ctx context.Context) ([]contract.Entry, error) {
	list := []contract.Entry{}
	classes, err := t.studio.Store.With(ctx).DamagedClasses()
	if err != nil {
		return list, err
	}
	for _, d := range classes {
		t.studio.Store.With(ctx).NoteDamage(d)
	}
	for _, d := range t.studio.Store.Damage() {
		name := string(d.Kind)
		switch {
		case d.Name != "":
			name += " " + d.Name
		case d.ID != 0:
			name = fmt.Sprintf("%s %d", d.Kind, d.ID)
		}
		list = append(list, contract.Entry{Kind: string(d.Kind), ID: d.ID, Name: name, Why: d.Why})
	}
	return list, nil
}
