package home

import (
	"bytes"
	"cmp"
	"encoding/json"

	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/studio/contract"
)

// scores makes each score once: the steps of a home practice share many.
type scores struct {
	make    score
	fingers string
	list    []contract.Score
	known   map[string]int // by what the plan file has
	tag     string         // of the language of the first plan
}

// choice returns what is played of a plan: by the beat, and by touch where something of it waits.
func (s *scores) choice(doc plan.Document) (choice contract.HomeChoice, err error) {
	text, err := json.Marshal(doc)
	if err != nil {
		return choice, err
	}
	beat, p, err := sheet.ReadPlan(bytes.NewReader(text))
	if err != nil {
		return choice, err
	}
	p.Translate()
	s.tag = cmp.Or(s.tag, p.Words.Tag)
	choice = contract.HomeChoice{Says: lengthInWords(p), ByTouch: -1}
	if len(p.Passages) == 1 {
		choice.Says = pieceInWords(p, in(p))
	}
	waits := false
	for i, fields := range beat.Passages() {
		waits = waits || p.Passages[i].ByHand != 0 || p.Passages[i].HasOpenPhases()
		fields.ByBeat()
	}
	if waits {
		if choice.ByTouch, err = s.of(text); err != nil {
			return choice, err
		}
	}
	if text, err = json.Marshal(beat); err != nil {
		return choice, err
	}
	choice.Score, err = s.of(text)
	return choice, err
}

// of returns the number of the score of a plan file in the list, from 0.
func (s *scores) of(document []byte) (int, error) {
	if n, known := s.known[string(document)]; known {
		return n, nil
	}
	_, p, err := sheet.ReadPlan(bytes.NewReader(document))
	if err != nil {
		return 0, err
	}
	p.Translate()
	score, err := s.make(p, s.fingers)
	if err != nil {
		return 0, err
	}
	s.list = append(s.list, score.ForTheRoom())
	s.known[string(document)] = len(s.list) - 1
	return len(s.list) - 1, nil
}
