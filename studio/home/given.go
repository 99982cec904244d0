package home

import (
	"bytes"

	"vastlantern/core/fact"
	"vastlantern/core/homework"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// given is a home practice as it was given: the plan file of its one passage, and what it is on the days of each step.
type given struct {
	task     homework.Task
	document []byte
	plan     *plan.Plan
	steps    []*plan.Plan // the plan itself where every day is alike
}

func readGiven(s store.Home) (given, error) {
	task, err := taskStored(s)
	if err != nil {
		return given{}, err
	}
	return givenOf(task, s.Document)
}

func givenOf(task homework.Task, document []byte) (given, error) {
	_, p, err := sheet.ReadPlan(bytes.NewReader(document))
	if err == nil && len(p.Passages) != 1 {
		err = fact.New("home.passages", "passages", len(p.Passages))
	}
	if err != nil {
		return given{}, err
	}
	p.Translate()
	steps, err := readSteps(task, document)
	return given{task, document, p, steps}, err
}

// readSteps returns the plan of each step; the plan itself where every day is alike.
func readSteps(task homework.Task, document []byte) ([]*plan.Plan, error) {
	_, p, err := sheet.ReadPlan(bytes.NewReader(document))
	if err != nil {
		return nil, err
	}
	p.Translate()
	list := make([]*plan.Plan, len(task.Stretches()))
	for i := range list {
		if list[i], err = readStep(task, document, p, i); err != nil {
			return nil, err
		}
	}
	return list, nil
}

func readStep(task homework.Task, document []byte, given *plan.Plan, step int) (*plan.Plan, error) {
	_, p, err := stepDocument(task, document, given, step)
	return p, err
}

// stepDocument returns the plan of a step, with its document.
func stepDocument(
	task homework.Task, document []byte, given *plan.Plan, step int,
) (plan.Document, *plan.Plan, error) {
	doc, err := sheet.ReadDocument(bytes.NewReader(document))
	if err != nil || len(task.Steps) == 0 {
		return doc, given, err
	}
	p, err := task.Set(doc, given, step)
	if p != nil {
		p.Translate()
	}
	return doc, p, err
}

// stretches returns the steps with their days, as they were understood.
func (g *given) stretches(words *language.Catalogue) []contract.HomeStretch {
	list := []contract.HomeStretch{}
	for i, days := range g.task.Stretches() {
		stretch := stretchOf(days)
		stretch.Says = pieceInWords(g.steps[i], words)
		if len(g.task.Steps) > 0 {
			stretch.Typed = g.task.Steps[i].Says
		}
		list = append(list, stretch)
	}
	return list
}

func stretchOf(days homework.Stretch) contract.HomeStretch {
	return contract.HomeStretch{First: days.First, Last: days.Last}
}
