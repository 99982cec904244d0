package studio

import (
	"errors"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/room"
	"vastlantern/studio/contract"
)

// Signals is what can be seen in a room, in the order of the pad.
func (s *Studio) Signals() []contract.Signal {
	list := make([]contract.Signal, 0, len(room.Signals))
	for _, seen := range room.Signals {
		list = append(list, contract.Signal{ID: seen.ID, Name: seen.Name})
	}
	return list
}

// Saw records what was seen in a class, and proposes what to do about it.
func (s *Studio) Saw(id int64, saw contract.Saw) (contract.Proposed, error) {
	s.leading.Lock()
	defer s.leading.Unlock()
	l, err := s.open(id)
	if err != nil {
		return contract.Proposed{}, err
	}
	at := l.at(s.now())
	press := contract.Adjust{Key: saw.Key, Do: pace.Signal, See: &saw.See, Origin: saw.Origin, PressedMS: saw.PressedMS}
	moment, err := s.moment(l, press)
	if err != nil {
		return contract.Proposed{}, err
	}
	scene := room.Scene{Now: l.class.At(at), SlotEnd: l.plan.Slot.Times(60_000).Round()}
	if scene.Now.Passage > 0 {
		scene.Passage = &l.plan.Passages[scene.Now.Passage-1]
	}
	for _, a := range l.answers {
		if a.Do == pace.Signal && a.See == saw.See && a.Passage == scene.Now.Passage {
			scene.Before++
		}
	}
	proposal, err := room.Propose(saw.See, scene)
	if err != nil {
		return contract.Proposed{}, fail(ErrInvalid, "This cannot be noted: %v.", err)
	}
	if _, err := s.adjust(l, moment, press); err != nil {
		return contract.Proposed{}, err
	}
	score, err := s.tellScore(l)
	return contract.Proposed{Score: score, Say: proposal.Say, Do: asked(proposal.Do, saw.See)}, err
}

// asked is adjustments as a screen sends them.
func asked(do []pace.Adjustment, because string) []contract.Adjust {
	list := []contract.Adjust{}
	for _, a := range do {
		one := contract.Adjust{Do: a.Do, Because: because}
		value := a.To.Float()
		switch a.Do {
		case pace.ToTempo, pace.ToStrokes:
			one.To = &value
		case pace.Rounds:
			one.By = &a.By
		case pace.FinishBy:
			deadline := a.To.Round()
			one.ToMS = &deadline
		case pace.ToCounts:
			one.Counts = a.Counts[:]
		}
		list = append(list, one)
	}
	return list
}

// Tapped tells the room's own pace from taps, and the tempo at which the class would be as quick.
func (s *Studio) Tapped(id int64, taps contract.Taps) (contract.Tapped, error) {
	const most = 500
	l, err := s.open(id)
	if err != nil {
		return contract.Tapped{}, err
	}
	if len(taps.AtMS) > most {
		return contract.Tapped{}, fail(ErrInvalid, "These are %d taps; the last %d are enough.", len(taps.AtMS), most)
	}
	beat, err := room.Taps(taps.AtMS)
	if errors.Is(err, room.ErrTaps) {
		return contract.Tapped{}, fail(ErrInvalid, "Tap twice or more.")
	}
	tapped := contract.Tapped{IntervalMS: beat.Interval.Float(), SpreadMS: beat.Spread.Float(), Used: beat.Used, Aside: beat.Aside}
	now := l.class.At(l.at(s.now()))
	if now.Passage > 0 && now.Met.Has(pace.ToTempo) {
		measure := now.Next.Measure
		measure.Counts = now.Counts
		tempo := beat.Tempo(&l.plan.Passages[now.Passage-1], measure, taps.Breaths)
		if tempo.Cmp(breath.Exact{}) > 0 {
			tapped.Tempo = tempo.Float()
		}
	}
	return tapped, err
}
