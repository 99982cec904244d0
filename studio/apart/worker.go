package apart

import (
	"bytes"
	"encoding/json"
	"time"

	"vastlantern/core/cue"
	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/core/sheet"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
)

// Worker answers what the page asks, for one class at a time.
type Worker struct {
	screen *Screen
}

// Answer returns the answer to a question as JSON: its result, or the fact of what is wrong with it.
func (w *Worker) Answer(question []byte) []byte {
	result, err := w.answer(question)
	if err != nil {
		return written(`{"result":null,"wrong":`, fact.Of(err), "}")
	}
	if pressed, is := result.(contract.PressedHere); is {
		// A score is much, and would be gone through twice inside of another value.
		text := append(written(`{"result":{"pressed":`, pressed.Pressed, `,"score":`), written("", pressed.Score, "")...)
		return append(text, written(`,"soon":`, pressed.Soon, `},"wrong":null}`)...)
	}
	return written(`{"result":`, result, `,"wrong":null}`)
}

// written returns a value as JSON between two texts.
func written(before string, value any, after string) []byte {
	encode := func() ([]byte, error) { return json.Marshal(value) }
	if score, is := value.(contract.Score); is {
		encode = score.MarshalJSON
	}
	text, err := encode()
	if err != nil {
		panic(err) // only of what cannot be JSON, which no result is
	}
	return append(append([]byte(before), text...), after...)
}

func (w *Worker) answer(text []byte) (any, error) {
	var q contract.CoreQuestion
	if err := json.Unmarshal(text, &q); err != nil {
		return nil, err
	}
	switch q.Ask {
	case contract.AskOpen:
		screen, err := Open(*q.Kit, q.Mine)
		if err != nil {
			return nil, err
		}
		w.screen = screen
		return screen.Score(q.AtMS), nil
	case contract.AskToLead:
		level := ""
		if q.Kit.Group != nil {
			level = q.Kit.Group.Level
		}
		late := time.Time{}
		if q.Fit {
			late = time.UnixMilli(q.AtMS)
		}
		document, err := led.ToLead([]byte(q.Kit.Document), q.Gentle, late, level)
		return string(document), err
	case contract.AskSheet, contract.AskCues:
		return printed(q)
	}
	if w.screen == nil {
		return nil, fact.New("apart.no-class")
	}
	return w.screen.answer(q)
}

func (s *Screen) answer(q contract.CoreQuestion) (any, error) {
	switch q.Ask {
	case contract.AskPress:
		return s.Press(q.AtMS, q.Presses[0])
	case contract.AskScore:
		return s.Score(q.AtMS), nil
	case contract.AskWould:
		return s.Would(q.AtMS, q.Presses)
	case contract.AskPropose:
		return s.Propose(q.AtMS, q.See)
	case contract.AskTapped:
		return s.Tapped(q.AtMS, *q.Taps)
	case contract.AskHeard:
		return s.ProposeHeard(q.AtMS, *q.Heard)
	case contract.AskGap:
		return s.Gap(q.FromMS, q.AtMS), nil
	case contract.AskTurn:
		s.Turn(*q.CardUp)
		return s.Score(q.AtMS), nil
	case contract.AskAdopt:
		s.Adopt(*q.Kit)
		return s.Score(q.AtMS), nil
	case contract.AskUnsent:
		sent, err := s.Unsent()
		unsent := contract.UnsentHere{Presses: sent, Keys: []string{}, Copy: s.Copy(), Done: s.Done()}
		for _, row := range unsent.Copy {
			unsent.Keys = append(unsent.Keys, row.Key)
		}
		return unsent, err
	case contract.AskSync:
		if err := s.Sync(q.From, q.Mine); err != nil {
			return nil, err
		}
		if s.known == len(s.pressed) {
			s.follow()
			return nil, nil // the program's score has everything
		}
		return s.Score(q.AtMS), nil
	}
	return nil, fact.New("apart.question", "given", string(q.Ask))
}

// printed returns a cue sheet or cues as the commands print them: the same bytes come from the program (formats.md).
func printed(q contract.CoreQuestion) (string, error) {
	_, p, err := sheet.ReadPlan(bytes.NewReader([]byte(q.Plan)))
	if err != nil {
		return "", err
	}
	script, err := sheet.ReadScript(bytes.NewReader([]byte(q.Script)))
	if err != nil {
		return "", err
	}
	var out bytes.Buffer
	if q.Ask == contract.AskCues {
		cues := cue.Sheet(p, cue.Lane(q.Beside))
		if len(script) > 0 {
			cues = cue.Replay(p, script, cue.Lane(q.Beside))
		}
		err = sheet.WriteCues(&out, cues)
		return out.String(), err
	}
	timeline := pace.Sheet(p)
	if len(script) > 0 {
		timeline, _ = pace.Replay(p, script)
	}
	if q.Beside {
		timeline = timeline.Lane(p)
	}
	err = sheet.WriteCSV(&out, timeline)
	return out.String(), err
}
