package studio

import (
	"cmp"
	"errors"
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strings"
	"time"

	"vastlantern/core/care"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/school"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

func shapeGroup(g store.Group) *contract.Group {
	return &contract.Group{
		ID: g.ID, Name: g.Name, Level: g.Level, Size: g.Size, Weekday: g.Weekday, Weektime: g.Weektime, Under16: g.Under16,
		Conditions: orEmpty(g.Conditions), Schools: orEmpty(g.Schools), Notes: g.Notes,
	}
}

func orEmpty[K comparable, V any](m map[K]V) map[K]V {
	if m == nil {
		return map[K]V{}
	}
	return m
}

// groups is all groups by id, as screens see them.
func (s *Studio) groups() (map[int64]*contract.Group, error) {
	list, err := s.store.Groups()
	groups := make(map[int64]*contract.Group, len(list))
	for _, g := range list {
		groups[g.ID] = shapeGroup(g)
	}
	return groups, err
}

// groupsEver is groups, with those that were deleted, which say so: a class that was taught keeps its group.
func (s *Studio) groupsEver() (map[int64]*contract.Group, error) {
	list, err := s.store.EveryGroup()
	groups := make(map[int64]*contract.Group, len(list))
	for _, g := range list {
		groups[g.ID] = shapeGroup(g)
		if !g.DeletedAt.IsZero() {
			groups[g.ID].Name += " (deleted)"
		}
	}
	return groups, err
}

// groupEver is the group with the id, deleted or not; nil for 0 and for one that cannot be read.
func (s *Studio) groupEver(id int64) (*contract.Group, error) {
	if id == 0 {
		return nil, nil
	}
	groups, err := s.groupsEver()
	return groups[id], err
}

// Groups is the groups by name, and what a form of one has to ask.
func (s *Studio) Groups() (contract.Groups, error) {
	all, err := s.groups()
	if err != nil {
		return contract.Groups{}, err
	}
	list := contract.Groups{Groups: byName(all), Levels: practice.Levels, Conditions: []contract.Condition{}}
	for _, c := range care.Conditions {
		list.Conditions = append(list.Conditions, contract.Condition{ID: string(c.ID), Name: c.Name})
	}
	return list, nil
}

func byName(groups map[int64]*contract.Group) []contract.Group {
	list := []contract.Group{}
	for _, g := range groups {
		list = append(list, *g)
	}
	slices.SortFunc(list, func(a, b contract.Group) int { return cmp.Or(cmp.Compare(a.Name, b.Name), cmp.Compare(a.ID, b.ID)) })
	return list
}

var timeOfDay = regexp.MustCompile(`^([01]\d|2[0-3]):[0-5]\d$`)

const (
	mostPeople = 999
	mostNotes  = 10_000 // bytes
)

// SaveGroup stores a group, a new one where its id is 0.
func (s *Studio) SaveGroup(g contract.Group) (contract.Group, error) {
	if err := checkGroup(&g); err != nil {
		return g, err
	}
	row := groupRow(g)
	row.UpdatedAt = s.now()
	if g.ID == 0 {
		added, err := s.store.AddGroup(row)
		return *shapeGroup(added), err
	}
	return g, missing(s.store.SaveGroup(row), "group", g.ID)
}

// groupRow is shapeGroup the other way round.
func groupRow(g contract.Group) store.Group {
	return store.Group{
		ID: g.ID, Name: g.Name, Level: g.Level, Size: g.Size, Weekday: g.Weekday, Weektime: g.Weektime, Under16: g.Under16,
		Conditions: g.Conditions, Schools: g.Schools, Notes: g.Notes,
	}
}

func checkGroup(g *contract.Group) error {
	g.Name = strings.TrimSpace(g.Name)
	maps.DeleteFunc(g.Conditions, func(_ string, n int) bool { return n == 0 })
	known := func(id string) bool { return care.Condition(id).Name() != "" }
	switch {
	case g.Name == "":
		return fail(ErrInvalid, "A group needs a name.")
	case len(g.Name) > 200 || len(g.Notes) > mostNotes:
		return fail(ErrInvalid, "This is too long: a name has at most 200 characters, the notes %d.", mostNotes)
	case g.Level != "" && !slices.Contains(practice.Levels, g.Level):
		return fail(ErrInvalid, "Level: given %q, allowed: %s.", g.Level, strings.Join(practice.Levels, ", "))
	case g.Size < 0 || g.Size > mostPeople:
		return fail(ErrInvalid, "People: given %d, allowed: 0 to %d.", g.Size, mostPeople)
	case g.Weekday < -1 || g.Weekday > 6:
		return fail(ErrInvalid, "Weekday: given %d, allowed: 0 for Sunday to 6, or -1 for none.", g.Weekday)
	case g.Weektime != "" && !timeOfDay.MatchString(g.Weektime):
		return fail(ErrInvalid, "Time: given %q, allowed: a time of day as 18:30.", g.Weektime)
	}
	for id, n := range g.Conditions {
		if !known(id) || n < 0 || n > mostPeople {
			return fail(ErrInvalid, "Conditions: given %q for %d people, allowed: the conditions of the form, 0 to %d people each.", id, n, mostPeople)
		}
	}
	if err := school.Choices(g.Schools).Check(); err != nil {
		return fail(ErrInvalid, "School: %v.", err)
	}
	return nil
}

// AddGroup stores a new group.
func (s *Studio) AddGroup(name, level string, size int) (contract.Group, error) {
	return s.SaveGroup(contract.Group{Name: name, Level: level, Size: size, Weekday: -1})
}

// room is who and when a plan is for, as the rules of care ask.
func (s *Studio) room(group *contract.Group, at time.Time) (care.Room, error) {
	choices, err := s.choicesFor(group)
	room := care.Room{
		Present: map[care.Condition]int{}, Late: plan.Late(at),
		Rules: care.Rules{
			SlowStrokes: choices.Way("pressure").SlowStrokes, LeaveOutAtMenses: choices.Way("menses").LeaveOutAtMenses,
			NewcomersMay: choices.Way("newcomers").NewcomersMay,
		},
	}
	if group != nil {
		room.Under16 = group.Under16
		for id, n := range group.Conditions {
			room.Present[care.Condition(id)] = n
		}
	}
	return room, err
}

// StrongCautions is the texts that must be acknowledged before the plan is led.
func StrongCautions(p contract.Plan) []string {
	texts := []string{}
	for _, passage := range p.Summary.Passages {
		for _, c := range passage.Cautions {
			if c.Strong && !slices.Contains(texts, c.Text) {
				texts = append(texts, c.Text)
			}
		}
	}
	return texts
}

func findings(p *plan.Passage, room care.Room) []contract.Finding {
	list := []contract.Finding{}
	for _, f := range care.For(p, room) {
		list = append(list, contract.Finding{Do: f.Do, Say: f.Say, Instead: f.Instead})
	}
	return list
}

// choicesFor is the teacher's school, with the group's own ways in place where it differs.
func (s *Studio) choicesFor(group *contract.Group) (school.Choices, error) {
	settings, err := s.Settings()
	choices := school.Choices(settings.Schools)
	if group != nil {
		choices = choices.With(group.Schools)
	}
	return choices, err
}

// group is the group with the id, nil for 0.
func (s *Studio) group(id int64) (*contract.Group, error) {
	if id == 0 {
		return nil, nil
	}
	groups, err := s.groups()
	if err == nil && groups[id] == nil {
		err = missing(store.ErrNotFound, "group", id)
	}
	return groups[id], err
}

// gentle rewrites one passage of the document to its gentle variant, and tells the change in words.
func gentle(doc plan.Doc, p *plan.Plan, passage int) (plan.Doc, string, error) {
	list, _ := doc["passages"].([]any)
	if passage < 1 || passage > len(list) || passage > len(p.Passages) {
		return doc, "", errors.New("there is no such passage")
	}
	fields, _ := list[passage-1].(map[string]any)
	soft, words := care.GentleOf(fields, &p.Passages[passage-1])
	if words == "" {
		return doc, "", fmt.Errorf("%s has no gentler variant", p.Passages[passage-1].Name())
	}
	list[passage-1] = map[string]any(soft)
	return doc, words, nil
}
