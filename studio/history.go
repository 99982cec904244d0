package studio

import (
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strconv"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/taught"
	"vastlantern/studio/contract"
)

// remembered is how many classes back a group's past is looked at: about half a year of weekly ones.
const remembered = 30

// everyGroup is the teacher's classes with all groups together.
const everyGroup = 0

// pasts is the histories that were worked out, good until a class changes: a plan that is being written asks for them
// at every keystroke.
type pasts struct {
	changes int64
	byGroup map[int64]*taught.History
}

// history is what a group has been taught.
func (s *Studio) history(group int64) (*taught.History, error) {
	s.remembering.Lock()
	defer s.remembering.Unlock()
	if changes := s.Changes(); s.pasts.byGroup == nil || s.pasts.changes != changes {
		s.pasts = pasts{changes, map[int64]*taught.History{}}
	}
	if known := s.pasts.byGroup[group]; known != nil {
		return known, nil
	}
	classes, err := s.store.ClassesOf(group, remembered)
	if err != nil {
		return nil, err
	}
	slices.Reverse(classes) // the oldest first
	h := &taught.History{}
	for _, stored := range classes {
		l, err := s.fold(stored)
		if err != nil {
			return nil, err
		}
		h.Add(taught.Of(l.plan, l.script, l.at(s.now())))
	}
	s.pasts.byGroup[group] = h
	return h, nil
}

// advice is what is to be said of a plan: of its order and length, against the group's own past, and of how long talks
// really take.
func (s *Studio) advice(p *plan.Plan, group *contract.Group) ([]contract.Advice, error) {
	all := p.Advise()
	if group != nil {
		h, err := s.history(group.ID)
		if err != nil {
			return nil, err
		}
		all = append(all, h.Advise(p)...)
	}
	list := []contract.Advice{}
	for _, a := range all {
		list = append(list, contract.Advice{Passage: a.Passage, Say: a.Say, Why: a.Why})
	}
	talks := slices.ContainsFunc(p.Passages, func(one plan.Passage) bool { return one.Type == plan.Talk && !one.Keep })
	h, err := s.history(everyGroup)
	if err != nil || !talks {
		return list, err
	}
	if times, of := h.Talks(); of > 0 {
		list = append(list, contract.Advice{
			Say: fmt.Sprintf("Your talks usually take %s times what is planned for them.", tenth(times)),
			Why: fmt.Sprintf("The median of the last %d.", of), Do: "learned",
		})
	}
	return list, nil
}

func tenth(x breath.Exact) string { return strconv.FormatFloat(x.Float(), 'f', 1, 64) }

// learned makes the talks of a plan as long as they usually take, to five seconds; those that are kept stay.
func (s *Studio) learned(doc plan.Doc, p *plan.Plan) (plan.Doc, string, error) {
	h, err := s.history(everyGroup)
	if err != nil {
		return nil, "", err
	}
	times, of := h.Talks()
	if of == 0 {
		return nil, "", errors.New("your talks take about what is planned for them")
	}
	const step = 5
	list, _ := doc["passages"].([]any)
	for i := range p.Passages {
		fields, ok := list[i].(map[string]any)
		if one := &p.Passages[i]; ok && one.Type == plan.Talk && !one.Keep {
			seconds := one.Length.Mul(times).Div(breath.Int(1000*step)).Round() * step
			fields["seconds"] = json.Number(strconv.FormatInt(max(step, seconds), 10))
		}
	}
	return doc, fmt.Sprintf("talks %s times as long", tenth(times)), nil
}
