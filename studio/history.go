package studio

import (
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strconv"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// remembered is how many classes back a group's past is looked at: about a year of weekly ones.
const remembered = 52

// everyGroup is the teacher's classes with all groups together.
const everyGroup = 0

// past is what a group was taught, the oldest class first.
type past struct {
	classes []pastClass
	history taught.History
}

type pastClass struct {
	stored store.Class
	record taught.Record
}

// pasts is what was worked out, good until a class changes: a plan that is being written asks for it at every
// keystroke.
type pasts struct {
	changes int64
	byGroup map[int64]*past
}

// history is what a group has been taught.
func (s *Studio) history(group int64) (*taught.History, error) {
	p, err := s.past(group)
	if err != nil {
		return nil, err
	}
	return &p.history, nil
}

// past is the classes of a group that are over.
func (s *Studio) past(group int64) (*past, error) {
	s.remembering.Lock()
	defer s.remembering.Unlock()
	if changes := s.Changes(); s.pasts.byGroup == nil || s.pasts.changes != changes {
		s.pasts = pasts{changes, map[int64]*past{}}
	}
	if known := s.pasts.byGroup[group]; known != nil {
		return known, nil
	}
	classes, err := s.find(store.Search{Group: group, Over: true, Records: true, Most: remembered})
	if err != nil {
		return nil, err
	}
	p := &past{}
	for _, listed := range slices.Backward(classes) {
		var record taught.Record
		if err := json.Unmarshal(listed.Digest.Record, &record.Passages); err != nil {
			s.noteDamage(store.KindClass, listed.Class.ID, err)
			continue
		}
		p.classes = append(p.classes, pastClass{listed.Class, record})
		p.history.Add(record)
	}
	s.pasts.byGroup[group] = p
	return p, nil
}

// advised plans a passage as the group's record advises, and tells in words what and why; empty where there is nothing to
// change.
func advised(fields plan.Doc, p *plan.Passage, h *taught.History) (say, why string) {
	if !p.Led() || p.Trial {
		return "", ""
	}
	next, known := h.Next(p.Practice.ID)
	if !known {
		return "", ""
	}
	before := p.Short(fields)
	next.Apply(fields, p)
	// What it is written like then is read as any plan is.
	changed, err := plan.Read(plan.Doc{"format": plan.Format, "version": json.Number("1"), "tempo": json.Number(p.PlanTempo.String()), "passages": []any{map[string]any(fields)}})
	if err != nil || len(changed.Passages) == 0 {
		return "", ""
	}
	after := changed.Passages[0].Short(fields)
	if after == before {
		return "", ""
	}
	return fmt.Sprintf("%s: %s in the place of %s.", p.Name(), after, before), next.Why
}

// forNext is what the group's record advises for the passages of a plan.
func forNext(doc plan.Doc, p *plan.Plan, h *taught.History) []contract.Advice {
	list, _ := doc["passages"].([]any)
	advice := []contract.Advice{}
	for i := range p.Passages {
		fields, ok := list[i].(map[string]any)
		if !ok {
			continue
		}
		if say, why := advised(maps.Clone(fields), &p.Passages[i], h); say != "" {
			advice = append(advice, contract.Advice{Passage: i + 1, Say: say, Why: why, Do: "next"})
		}
	}
	return advice
}

// takeOver plans one passage as the group's record advises.
func (s *Studio) takeOver(doc plan.Doc, p *plan.Plan, d contract.Draft) (plan.Doc, string, error) {
	list, _ := doc["passages"].([]any)
	if d.Passage < 1 || d.Passage > len(list) {
		return nil, "", fmt.Errorf("there is no passage %d", d.Passage)
	}
	h, err := s.history(d.GroupID)
	if err != nil {
		return nil, "", err
	}
	fields, _ := list[d.Passage-1].(map[string]any)
	say, _ := advised(fields, &p.Passages[d.Passage-1], h)
	if d.GroupID == 0 || say == "" {
		return nil, "", errors.New("the record advises nothing else for this passage")
	}
	return doc, say, nil
}

// advice is what is to be said of a plan: of its order and length, against the group's own past, and of how long talks
// really take.
func (s *Studio) advice(doc plan.Doc, p *plan.Plan, group *contract.Group) ([]contract.Advice, error) {
	all := p.Advise()
	list := []contract.Advice{}
	if group != nil {
		h, err := s.history(group.ID)
		if err != nil {
			return nil, err
		}
		all = append(all, h.Advise(p)...)
		list = forNext(doc, p, h)
	}
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
	plan.LengthenTalks(doc, p, times)
	return doc, fmt.Sprintf("talks %s times as long", tenth(times)), nil
}
