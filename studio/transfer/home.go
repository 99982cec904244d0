package transfer

import (
	"bytes"
	"strings"

	"vastlantern/core/fact"
	"vastlantern/core/homework"
	"vastlantern/core/practice"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// home returns what is done with a home practice of the file, beside the classes of both sides. It is never edited,
// except for how it was: of two answers the later one counts.
func (i *Import) home(there *here, in []fileClass) func(*contract.ExportHome, contract.ExportHome) error {
	classes := map[string]bool{"": true}
	for _, uid := range there.classUID {
		classes[uid] = true
	}
	for n := range in {
		classes[in[n].UID] = true
	}
	return func(here *contract.ExportHome, in contract.ExportHome) error {
		if err := i.refer(in.Group, in.Plan); err != nil {
			return err
		}
		if !classes[in.Class] {
			return fact.New("entry.no-class", "class", in.Class)
		}
		document, p, err := rewritten(in.Document)
		if err != nil {
			return fact.Wrap(err, "entry.plan-unreadable", "why", err)
		}
		task := amountOf(&in).Task()
		if wrong := task.Check(); len(wrong) > 0 {
			return wrong[0]
		}
		if len(p.Passages) != 1 {
			return fact.New("home.passages", "passages", len(p.Passages))
		}
		for step := range task.Steps {
			doc, err := sheet.ReadDocument(bytes.NewReader(document))
			if err == nil {
				_, err = task.Set(doc, p, step)
			}
			if err != nil {
				return err
			}
		}
		change := Change{Kind: "home", Name: named(titled(p.Title, in.GivenAt)), Does: doesAdd}
		switch {
		case here == nil:
			return i.put(change, func(st *store.Store) error { return i.addHome(st, in, document) })
		case in.AnsweredAt != nil && (here.AnsweredAt == nil || in.AnsweredAt.After(*here.AnsweredAt)):
			change.Does, change.What = doesChange, []fact.Fact{fact.New("what.answer")}
			return i.put(change, func(st *store.Store) error {
				stored, err := st.HomeOf(in.UID)
				if err != nil {
					return err
				}
				return st.AnswerHome(stored.ID, stored.Revision, answerID(in.Answer), *in.AnsweredAt)
			})
		}
		i.Same++
		return nil
	}
}

func amountOf(in *contract.ExportHome) contract.HomeAmount {
	return contract.HomeAmount{
		Minutes: in.Minutes, Pieces: in.Pieces, Days: in.Days, When: in.When, Evening: in.Evening, Begins: in.Begins,
		Sentence: in.Sentence, Ask: in.Ask, Steps: in.Steps,
	}
}

func (i *Import) addHome(st *store.Store, in contract.ExportHome, document []byte) error {
	var class int64
	if in.Class != "" {
		var err error
		if class, err = st.ClassOf(in.Class); err != nil {
			return err
		}
	}
	steps, err := homework.PackSteps(amountOf(&in).Task().Steps)
	if err != nil {
		return err
	}
	_, err = st.AddHome(store.Home{
		UID:        in.UID,
		ClassID:    class,
		PlanID:     i.plans[in.Plan],
		GroupID:    i.groups[in.Group],
		GivenAt:    in.GivenAt,
		Document:   document,
		Minutes:    in.Minutes,
		Pieces:     in.Pieces,
		Days:       in.Days,
		When:       in.When,
		Evening:    in.Evening,
		Begins:     in.Begins,
		Sentence:   in.Sentence,
		Ask:        in.Ask,
		Steps:      steps,
		Answer:     answerID(in.Answer),
		AnsweredAt: orZero(in.AnsweredAt),
	})
	return err
}

// answerID returns an answer as it is stored: earlier files write "now and then" and "it was too much".
func answerID(answer string) string { return strings.TrimPrefix(practice.ID(answer), "it-was-") }
