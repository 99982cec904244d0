package prepare

import (
	"bytes"
	"context"
	"slices"
	"strconv"

	"vastlantern/core/breath"
	"vastlantern/core/cue"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// advised plans a passage as the group's record advises, and reports what and why; none if there is nothing to change.
func advised(fields plan.Fields, p *plan.Passage, h *taught.History) (say, why fact.Fact) {
	if !p.Led() || p.Trial {
		return say, why
	}
	next, known := h.For(p)
	if !known {
		return say, why
	}
	before := p.Short(fields)
	as := fields.Clone()
	next.Apply(as, p)
	changed, err := plan.OneAt(p.PlanTempo, as, p.Practice)
	if err != nil {
		return say, why
	}
	after := changed.Short(as)
	if after == before {
		return say, why
	}
	if changed.PlannedLength().Less(p.PlannedLength()) {
		switch {
		case next.Capped:
			next.Why = fact.New("next.capped", "why", next.Why, "rounds", next.Rounds)
		case next.Climbs:
			next.Why = fact.New("next.beyond-step", "why", next.Why)
		case !next.Eased && !next.Back:
			return say, why // the teacher planned more, and nothing that was taught speaks for less
		}
	}
	next.Apply(fields, p)
	return fact.New("advice.as-advised", "name", p.Name(), "after", after, "before", before), next.Why
}

// forNext returns what the group's record advises for the passages of a plan. Of several passages of a practice only
// the first has it: one thing is changed at a time.
func forNext(doc plan.Document, p *plan.Plan, h *taught.History) []contract.Advice {
	advice := []contract.Advice{}
	if tooLong(doc, p) {
		return advice
	}
	told := map[*practice.Practice]bool{}
	for i, fields := range doc.Passages() {
		if of := p.Passages[i].Practice; told[of] {
			continue
		}
		if say, why := advised(fields.Clone(), &p.Passages[i], h); !say.None() {
			told[p.Passages[i].Practice] = true
			advice = append(
				advice,
				contract.Advice{Passage: i + 1, Key: say.Error(), Say: say, Why: why, Do: contract.ChangeAdvised},
			)
		}
	}
	return advice
}

// Advised returns what the record of its group advises for a stored plan. A plan that is half written has advice for
// what is right in it.
func (ps *Plans) Advised(ctx context.Context, stored store.Plan, group *contract.Group) ([]contract.Advice, error) {
	none := []contract.Advice{}
	if group == nil {
		return none, nil
	}
	doc, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	if p == nil {
		return none, ps.studio.OrDamaged(studio.Unreadable(err), store.KindPlan, stored.ID)
	}
	h, err := ps.past.History(ctx, group.ID)
	if err != nil {
		return none, err
	}
	return forNext(doc, p, h), nil
}

// advice returns the advice on a plan: of its order and length, against the group's own past, and of how long talks
// really take.
func (ps *Plans) advice(ctx context.Context, doc plan.Document, p *plan.Plan, group *contract.Group) ([]contract.Advice,
	error) {
	all := append(p.Advise(level(group)), cue.Advise(p)...)
	list, last := []contract.Advice{}, []contract.Advice{}
	if group != nil {
		h, err := ps.past.History(ctx, group.ID)
		if err != nil {
			return nil, err
		}
		all = append(all, h.Advise(p)...)
		list, last = forNext(doc, p, h), talksAdvice(p, h)
	}
	for _, a := range all {
		one := contract.Advice{Passage: a.Passage, Key: a.Key(), Say: a.Say, Why: a.Why}
		if a.CanApply() {
			one.Do = contract.ChangeApply
		}
		list = append(list, one)
	}
	return append(list, last...), nil
}

// talksAdvice returns how long the group's own talks really take.
func talksAdvice(p *plan.Plan, h *taught.History) []contract.Advice {
	times, of := h.Talks()
	if of == 0 ||
		!slices.ContainsFunc(p.Passages, func(one plan.Passage) bool { return one.Type == plan.Talk && !one.Keep }) {
		return nil
	}
	say := fact.New("advice.talks", "times", tenth(times))
	return []contract.Advice{
		{Key: say.Error(), Say: say, Why: fact.New("advice.talks.why", "of", of), Do: contract.ChangeTalks},
	}
}

func tenth(x breath.Exact) string { return strconv.FormatFloat(x.Float(), 'f', 1, 64) }
