package library

import (
	"context"
	"errors"
	"maps"
	"reflect"
	"regexp"
	"slices"
	"strings"

	"vastlantern/core/care"
	"vastlantern/core/fact"
	"vastlantern/core/practice"
	"vastlantern/core/school"
	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

func shapeGroup(g store.Group) *contract.Group {
	return &contract.Group{
		ID: g.ID, Name: g.Name, Level: g.Level, Size: g.Size, Weekday: g.Weekday, Weektime: g.Weektime, Under16: g.Under16,
		Conditions: contract.OrEmpty(g.Conditions),
		Schools:    contract.OrEmpty(g.Schools),
		Notes:      g.Notes,
		Revision:   g.Revision,
	}
}

// GroupsByID returns all groups, as screens see them.
func (l *Library) GroupsByID(ctx context.Context) (map[int64]*contract.Group, error) {
	list, err := l.studio.Store.With(ctx).Groups()
	groups := make(map[int64]*contract.Group, len(list))
	for _, g := range list {
		groups[g.ID] = shapeGroup(g)
	}
	return groups, err
}

// EveryGroupByID is GroupsByID with those that were deleted, which say so: a class that was taught keeps its group.
func (l *Library) EveryGroupByID(ctx context.Context) (map[int64]*contract.Group, error) {
	list, err := l.studio.Store.With(ctx).EveryGroup()
	groups := make(map[int64]*contract.Group, len(list))
	for _, g := range list {
		groups[g.ID] = shapeGroup(g)
		if !g.DeletedAt.IsZero() {
			groups[g.ID].Name = language.In(language.Of(ctx)).Text(fact.New("group.deleted", "name", g.Name))
		}
	}
	return groups, err
}

// Groups returns the groups by name, and what a form of one has to ask.
func (l *Library) Groups(ctx context.Context) (contract.Groups, error) {
	all, err := l.GroupsByID(ctx)
	if err != nil {
		return contract.Groups{}, err
	}
	list := contract.Groups{
		Groups:     contract.GroupsByName(all, language.Order(language.Of(ctx))),
		Levels:     practice.Levels,
		Conditions: []contract.Condition{},
	}
	for _, c := range care.Conditions {
		list.Conditions = append(list.Conditions, contract.Condition{ID: string(c), Name: c.Name()})
	}
	return list, nil
}

var timeOfDay = regexp.MustCompile(`^([01]\d|2[0-3]):[0-5]\d$`)

const (
	mostPeople = contract.MostPeople
	mostNotes  = 10_000 // bytes
)

// SaveGroup stores a group in the place of its revision, a new one where its id is 0. The same save may come twice,
// where the answer to the first was lost.
func (l *Library) SaveGroup(ctx context.Context, g contract.Group) (contract.Group, error) {
	row, err := l.CheckGroup(g)
	if err != nil {
		return g, err
	}
	row.UpdatedAt = l.studio.Now()
	if g.ID == 0 {
		added, err := l.studio.Store.With(ctx).AddGroup(row)
		return *shapeGroup(added), err
	}
	saved, err := l.studio.Store.With(ctx).SaveGroup(row)
	if errors.Is(err, store.ErrTaken) {
		if there, err := l.Group(ctx, g.ID); err == nil && sameGroup(*there, *shapeGroup(row)) {
			return *there, nil
		}
	}
	return *shapeGroup(saved), studio.Replaced(err, store.KindGroup, g.ID)
}

// sameGroup reports whether two groups are the same except for their revisions.
func sameGroup(a, b contract.Group) bool {
	a.Revision = b.Revision
	return reflect.DeepEqual(a, b)
}

// CheckGroup returns a group as it is stored, without what says nothing, or what is wrong in it.
func (*Library) CheckGroup(g contract.Group) (store.Group, error) {
	row := store.Group{
		ID:         g.ID,
		Name:       strings.TrimSpace(g.Name),
		Level:      g.Level,
		Size:       g.Size,
		Weekday:    g.Weekday,
		Weektime:   g.Weektime,
		Under16:    g.Under16,
		Conditions: maps.Clone(g.Conditions), Schools: g.Schools, Notes: g.Notes, Revision: g.Revision,
	}
	maps.DeleteFunc(row.Conditions, func(_ string, n int) bool { return n == 0 })
	return row, checkGroup(row)
}

func checkGroup(g store.Group) error {
	known := func(id string) bool { return care.Condition(id).Known() }
	switch {
	case g.Name == "":
		return studio.Fail(studio.ErrInvalid, "group.name")
	case len(g.Name) > 200 || len(g.Notes) > mostNotes:
		return studio.Fail(studio.ErrInvalid, "group.too-long", "most", mostNotes)
	case g.Level != "" && !slices.Contains(practice.Levels, g.Level):
		return studio.Fail(studio.ErrInvalid, "group.level", "given", g.Level, "allowed", strings.Join(practice.Levels, ", "))
	case g.Size < 0 || g.Size > mostPeople:
		return studio.Fail(studio.ErrInvalid, "group.people", "given", g.Size, "most", mostPeople)
	case g.Weekday < -1 || g.Weekday > 6:
		return studio.Fail(studio.ErrInvalid, "group.weekday", "given", g.Weekday)
	case g.Weektime != "" && !timeOfDay.MatchString(g.Weektime):
		return studio.Fail(studio.ErrInvalid, "group.time", "given", g.Weektime)
	}
	for id, n := range g.Conditions {
		if !known(id) || n < 0 || n > mostPeople {
			return studio.Fail(studio.ErrInvalid, "group.conditions", "given", id, "people", n, "most", mostPeople)
		}
	}
	if err := school.Choices(g.Schools).Check(); err != nil {
		return studio.Fail(studio.ErrInvalid, "group.school", "why", err)
	}
	return nil
}

// AddGroup stores a new group.
func (l *Library) AddGroup(ctx context.Context, name, level string, size int) (contract.Group, error) {
	return l.SaveGroup(ctx, contract.Group{Name: name, Level: level, Size: size, Weekday: -1})
}

// Group returns the group with the id, nil for 0.
func (l *Library) Group(ctx context.Context, id int64) (*contract.Group, error) {
	if id == 0 {
		return nil, nil
	}
	groups, err := l.GroupsByID(ctx)
	if err == nil && groups[id] == nil {
		err = studio.Missing(store.ErrNotFound, store.KindGroup, id)
	}
	return groups[id], err
}
