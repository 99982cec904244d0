package led

import (
	"encoding/json"
	"errors"
	"math"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/core/room"
	"vastlantern/core/sheet"
	"vastlantern/studio/contract"
)

// Bounds of what comes with an adjustment, in bytes, and of what is asked at once.
const (
	longestKey   = 200
	longestNote  = 2000
	longestLabel = 100 // of a verb, a signal
	mostAsked    = 40
	mostTaps     = 500
)

// Line returns what a screen sends as a line of a script, at that time of a class. The error says what is wrong with
// it.
func Line(at int64, want contract.Adjust) ([]byte, error) {
	switch {
	case len(want.Key) > longestKey || len(want.Do) > longestLabel || len(want.Because) > longestLabel ||
		want.See != nil && len(*want.See) > longestLabel || toBytes(want.To) > longestLabel:
		return nil, fact.New("lead.too-long", "key", longestKey, "label", longestLabel)
	case want.Text != nil && len(*want.Text) > longestNote:
		return nil, fact.New("lead.note-long", "most", longestNote)
	}
	want.PressedMS = nil // it has become the time
	return json.Marshal(struct {
		At int64 `json:"at_ms"`
		contract.Adjust
	}{at, want})
}

// toBytes returns how long what an adjustment is set to is as JSON; what cannot be JSON is too long for any bound.
func toBytes(to any) int {
	text, err := json.Marshal(to)
	if err != nil {
		return math.MaxInt
	}
	return len(text)
}

// Adjustment returns what a screen sends, as a class takes it at a time of it, and its line of a script.
func Adjustment(at int64, want contract.Adjust) (pace.Adjustment, []byte, error) {
	line, err := Line(at, want)
	if err != nil {
		return pace.Adjustment{}, nil, err
	}
	a, err := sheet.ReadAdjustment(line)
	if err != nil {
		return pace.Adjustment{}, nil, fact.New("lead.not-adjustment", "why", err)
	}
	return a, line, nil
}

// Would reports what each of the adjustments would do if it were made at that time of the class.
func (c *Class) Would(at int64, wants []contract.Adjust) ([]contract.Preview, error) {
	if len(wants) > mostAsked {
		return nil, fact.New("would.too-many", "given", len(wants), "most", mostAsked)
	}
	adjustments := make([]pace.Adjustment, len(wants))
	for i, want := range wants {
		var err error
		if adjustments[i], _, err = Adjustment(at, want); err != nil {
			return nil, err
		}
	}
	previews := make([]contract.Preview, len(wants))
	for i, p := range c.Led.Previews(at, adjustments) {
		previews[i] = contract.Preview{
			Answer: contract.AnswerOf(p.Answer), ChangeMS: p.EndWith - p.EndWithout, EndMS: p.EndWith, Fewer: p.Fewer,
		}
	}
	return previews, nil
}

// Propose returns what to do about what is seen in the class at a time of it. laneLimit is care.Rules.LaneLimit. The
// answer has no score.
func (c *Class) Propose(at int64, see string, laneLimit int) (contract.Proposed, error) {
	scene := room.Scene{Now: c.Led.At(at), SlotEnd: c.Plan.Slot.Times(60_000).Round(), LaneLimit: laneLimit}
	if scene.Now.Passage > 0 {
		scene.Passage = &c.Plan.Passages[scene.Now.Passage-1]
	}
	for _, a := range c.Answers {
		if a.Do == pace.Signal && a.See == see && a.Passage == scene.Now.Passage {
			scene.Before++
		}
	}
	proposal, err := room.Propose(see, scene)
	if err != nil {
		return contract.Proposed{}, fact.New("lead.not-noted", "why", err)
	}
	proposed := contract.Proposed{Say: proposal.Say}
	if proposed.Do, err = asAdjusts(proposal.Do, see); err != nil || proposal.Lane.Do == "" {
		return proposed, err
	}
	lane, err := contract.AdjustOf(proposal.Lane)
	lane.Because = see
	proposed.Lane = &lane
	return proposed, err
}

// asAdjusts returns adjustments as a screen sends them.
func asAdjusts(do []pace.Adjustment, because string) ([]contract.Adjust, error) {
	list := []contract.Adjust{}
	for _, a := range do {
		one, err := contract.AdjustOf(a)
		if err != nil {
			return nil, err
		}
		one.Because = because
		list = append(list, one)
	}
	return list, nil
}

// Tapped tells the room's own pace from taps, and the tempo at which the class would be as quick.
func (c *Class) Tapped(at int64, taps contract.Taps) (contract.Tapped, error) {
	if len(taps.AtMS) > mostTaps {
		return contract.Tapped{}, fact.New("taps.too-many", "given", len(taps.AtMS), "most", mostTaps)
	}
	beat, err := room.Taps(taps.AtMS)
	if errors.Is(err, room.ErrTaps) {
		return contract.Tapped{}, fact.New("taps.twice")
	}
	tapped := contract.Tapped{
		IntervalMS: beat.Interval.Float(),
		SpreadMS:   beat.Spread.Float(),
		Used:       beat.Used,
		Aside:      beat.Aside,
	}
	now := c.Led.At(at)
	if now.Passage > 0 && now.Met.Has(pace.ToTempo) {
		measure := now.Next.Measure
		measure.Counts = now.Counts
		tempo := beat.Tempo(&c.Plan.Passages[now.Passage-1], measure, taps.Breaths)
		if tempo.Cmp(breath.Exact{}) > 0 {
			tapped.Tempo = tempo.Float()
		}
	}
	return tapped, err
}

// Gap reports what to do about a stretch from one time of the class to another in which no screen of the teacher's
// showed the count: the lid was closed, the program or the browser had ended.
func (c *Class) Gap(from, at int64) contract.Gap {
	_, again := c.Lost(from, at)
	return contract.Gap{Away: c.where(from), Now: c.where(at), Again: again}
}

// Lost returns where in the class a gap begins that can be taken back: at its first moment, if the class could be
// paused there and nobody has adjusted it since.
func (c *Class) Lost(from, at int64) (int64, bool) {
	from = max(0, from)
	if from >= at || from < c.LastPress() {
		return 0, false
	}
	moment := c.Led.At(from)
	return from, moment.Passage > 0 && moment.Met.Has(pace.ToPause)
}

// where returns a moment of the class.
func (c *Class) where(at int64) fact.Fact {
	moment := c.Led.At(max(0, at))
	if moment.Passage == 0 {
		return fact.New("gap.after-end")
	}
	name := c.Plan.Passages[moment.Passage-1].Name()
	if moment.Stage == pace.Round {
		return fact.New("gap.round", "name", name, "round", moment.Round)
	}
	return fact.New("name", "name", name)
}

// notStored reports what was pressed in the class and is not in the data file yet.
func (c *Class) notStored() *contract.Unstored {
	if c.Unstored == 0 {
		return nil
	}
	u := &contract.Unstored{Why: c.WhyUnstored, Presses: []contract.UnstoredPress{}}
	for i := len(c.Answers) - c.Unstored; i < len(c.Answers); i++ {
		u.Presses = append(u.Presses, contract.UnstoredPress{Number: i + 1, AtMS: c.Answers[i].At, Do: c.Answers[i].Do})
	}
	return u
}

// Signals returns what can be seen in a room, in the order of the pad.
func Signals() []contract.Signal {
	list := make([]contract.Signal, 0, len(room.Signals))
	for _, seen := range room.Signals {
		list = append(list, contract.Signal{ID: seen.ID, Name: seen.Name(), With: append([]breath.Phase{}, seen.With()...)})
	}
	return list
}
