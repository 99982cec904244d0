// Package apart leads a class on a lead screen that is on its own (docs/rules/apart.md). It holds the screen's copy of
// the class and what the program does not know yet. It knows no clock and no network: the page gives it the time, sends
// what is unsent, and tells it what came of that.
package apart

import (
	"bytes"
	"encoding/json"
	"slices"
	"time"

	"vastlantern/core/cue"
	"vastlantern/core/fact"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
)

// Screen is a lead screen's copy of a class.
type Screen struct {
	kit        contract.Kit // without its adjustments
	pressed    []contract.Pressed
	known      int // how many of them the program has
	class      *led.Class
	main, lane *led.Cues
}

// Open returns the copy of the class of a kit with what the screen did itself, which the program may not have yet.
func Open(kit contract.Kit, mine []contract.Pressed) (*Screen, error) {
	s := &Screen{kit: kit, known: len(kit.Pressed)}
	s.kit.Pressed = nil
	rows := slices.Clone(kit.Pressed)
	for _, row := range mine {
		if !slices.ContainsFunc(rows, func(r contract.Pressed) bool { return r.Key == row.Key }) {
			rows = append(rows, row)
		}
	}
	return s, s.build(rows)
}

// build makes the class of adjustments, from its start.
func (s *Screen) build(rows []contract.Pressed) error {
	class, err := led.Read([]byte(s.kit.Document))
	if err != nil {
		return err
	}
	class.ID, class.StartedAt = s.kit.ClassID, time.UnixMilli(s.kit.StartedMS).UTC()
	for _, row := range rows {
		if err := class.AddLine(row.Key, row.Origin, row.Line); err != nil {
			return err
		}
	}
	s.class, s.pressed, s.main, s.lane = class, rows, led.NewCues(), led.NewCues()
	return nil
}

// Press makes an adjustment at that time of the class, and returns how it is kept and the score after it: of the next
// minute, or all of it.
func (s *Screen) Press(at int64, want contract.Adjust) (contract.PressedHere, error) {
	if want.Key == "" {
		return contract.PressedHere{}, fact.New("lead.needs-key")
	}
	if number := s.class.Known(want.Key); number > 0 {
		return contract.PressedHere{Pressed: s.pressed[number-1], Score: s.Score(at)}, nil
	}
	at = s.moment(at)
	_, line, err := led.Adjustment(at, want)
	if err != nil {
		return contract.PressedHere{}, err
	}
	row := contract.Pressed{Key: want.Key, Origin: s.kit.Origin, Line: line}
	if err := s.class.AddLine(row.Key, row.Origin, line); err != nil {
		return contract.PressedHere{}, err
	}
	s.pressed = append(s.pressed, row)
	if soon, ok := s.soon(at); ok {
		return contract.PressedHere{Pressed: row, Score: soon, Soon: true}, nil
	}
	return contract.PressedHere{Pressed: row, Score: s.Score(at)}, nil
}

// soonMS is how much of a class is told at once after a press, in milliseconds.
const soonMS = 60_000

// soon returns the score of the next minute at that time of the class, to the end of a stage. It reports false where
// the whole class has to be told.
func (s *Screen) soon(at int64) (contract.Score, bool) {
	class := *s.class
	class.Led, class.EndedAt = s.class.Led.Until(at+soonMS), time.Time{}
	timeline := class.Led.Timeline()
	if timeline.Open {
		timeline = class.Led.Ahead().Then
	}
	if timeline.Then == nil { // the whole is no longer
		return contract.Score{}, false
	}
	main, ok := s.main.Soon(&class)
	if !ok {
		return contract.Score{}, false
	}
	return s.score(&class, at, func(*led.Class, cue.Lane) *cue.Class { return main }, s.laneSoon), true
}

// laneSoon returns the cues of the gentler lane, where the class has one now.
func (s *Screen) laneSoon(soon *led.Class, lane cue.Lane) *cue.Class {
	if cues, ok := s.lane.Soon(soon); ok {
		return cues
	}
	return s.lane.Of(s.class, lane)
}

// follow has the cues know what was pressed, so that the next press needs not.
func (s *Screen) follow() { s.main.Of(s.class, cue.Main) }

// Score returns the score at that time of the class.
func (s *Screen) Score(at int64) contract.Score {
	at = s.moment(at)
	timeline := s.class.Led.Timeline()
	s.class.EndedAt = time.Time{}
	if s.class.Led.At(at).Passage == 0 {
		s.class.EndedAt = s.class.StartedAt.Add(time.Duration(timeline.End) * time.Millisecond)
	}
	return s.score(s.class, at, s.main.Of, s.lane.Of)
}

func (s *Screen) score(class *led.Class, at int64, main, lane led.CuesOf) contract.Score {
	here := led.Here{Group: s.kit.Group, Care: s.kit.Care, Fingers: s.kit.Fingers}
	score := led.Score(class, class.Led.Timeline(), here, at, main, lane)
	if s.kit.Voice != nil {
		score.Speaker = led.Speaker(s.kit.Voice, led.Texts(&score))
	}
	score.Sample, score.CardUp = s.kit.Sample, s.kit.CardUp
	return score
}

// Adopt has the class, which was begun on this screen, be the one that the program has now. Its adjustments stay.
func (s *Screen) Adopt(kit contract.Kit) {
	s.kit.ClassID, s.kit.StartedMS, s.kit.Origin = kit.ClassID, kit.StartedMS, kit.Origin
	s.class.ID, s.class.StartedAt = kit.ClassID, time.UnixMilli(kit.StartedMS).UTC()
}

// Turn turns a card of the teacher's own words on this screen.
func (s *Screen) Turn(to contract.CardUp) { s.kit.CardUp = to }

// Would reports what each of the adjustments would do if it were made at that time.
func (s *Screen) Would(at int64, wants []contract.Adjust) ([]contract.Preview, error) {
	return s.class.Would(s.moment(at), wants)
}

// Propose returns what to do about what is seen at that time. It notes nothing and has no score.
func (s *Screen) Propose(at int64, see string) (contract.Proposed, error) {
	return s.class.Propose(s.moment(at), see, s.kit.Care.Rules.LaneLimit)
}

// Tapped tells the room's own pace from taps, and the tempo at which the class would be as quick.
func (s *Screen) Tapped(at int64, taps contract.Taps) (contract.Tapped, error) {
	return s.class.Tapped(s.moment(at), taps)
}

// ProposeHeard returns what to do about how the room was heard to stroke at that time.
func (s *Screen) ProposeHeard(at int64, heard contract.HeardStrokes) (contract.FromHeard, error) {
	return s.class.ProposeHeard(s.moment(at), heard)
}

// Gap reports what to do about a stretch from one time to another in which the screen did not show the count.
func (s *Screen) Gap(from, at int64) contract.Gap { return s.class.Gap(from, s.moment(at)) }

func (s *Screen) moment(at int64) int64 { return max(0, at, s.class.LastPress()) }

// Unsent returns what the program does not know yet.
func (s *Screen) Unsent() (contract.Presses, error) {
	sent := contract.Presses{Since: s.known, Presses: []contract.TimedPress{}}
	if s.known > 0 {
		sent.Last = s.pressed[s.known-1].Key
	}
	for _, row := range s.pressed[s.known:] {
		press := contract.TimedPress{}
		if err := json.Unmarshal(row.Line, &press); err != nil {
			return sent, err
		}
		press.Key = row.Key
		sent.Presses = append(sent.Presses, press)
	}
	return sent, nil
}

// Rows returns all adjustments of the class as the screen has it, in order.
func (s *Screen) Rows() []contract.Pressed { return s.pressed }

// Copy returns the adjustments of the class as the screen has it, in order, without those that were set aside.
func (s *Screen) Copy() []contract.Pressed {
	list := []contract.Pressed{}
	for i, sent := range s.class.Sent {
		if sent.Aside == nil {
			list = append(list, s.pressed[i])
		}
	}
	return list
}

// Done returns the answers to what the program does not know yet.
func (s *Screen) Done() []contract.Answer {
	list := []contract.Answer{}
	for i := s.known; i < len(s.pressed); i++ {
		list = append(list, s.class.Answer(i+1))
	}
	return list
}

// Sync takes the adjustments that the program has, from a number on, counted from 0. What the screen did since and the
// program does not know stays after them, at its moments.
func (s *Screen) Sync(from int, rows []contract.Pressed) error {
	all := append(s.pressed[:min(from, len(s.pressed)):min(from, len(s.pressed))], rows...)
	known := len(all)
	for _, row := range s.pressed {
		if !slices.ContainsFunc(all, func(r contract.Pressed) bool { return r.Key == row.Key }) &&
			!slices.ContainsFunc(s.pressed[:s.known], func(r contract.Pressed) bool { return r.Key == row.Key }) {
			all = append(all, row)
		}
	}
	s.known = known
	if len(all) < len(s.pressed) || !slices.EqualFunc(all[:len(s.pressed)], s.pressed, same) {
		return s.build(all)
	}
	for _, row := range all[len(s.pressed):] {
		if err := s.class.AddLine(row.Key, row.Origin, row.Line); err != nil {
			return err
		}
	}
	s.pressed = all
	return nil
}

// same reports whether two adjustments are the same, and kept the same way.
func same(a, b contract.Pressed) bool {
	return a.Key == b.Key && a.Origin == b.Origin && bytes.Equal(a.Line, b.Line)
}
