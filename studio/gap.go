package studio

import (
	"fmt"
	"time"

	"vastlantern/core/pace"
	"vastlantern/studio/contract"
)

// Gap tells what to do about a stretch that began at that time of the class and in which no screen of the teacher's
// showed the count: the lid was closed, the program or the browser had ended.
func (s *Studio) Gap(id, from int64) (contract.Gap, error) {
	l, err := s.open(id)
	if err != nil {
		return contract.Gap{}, err
	}
	at := l.at(s.now())
	_, again := l.lost(from, at)
	return contract.Gap{Away: l.where(from), Now: l.where(at), Again: again}, nil
}

// lost is where in the class a gap begins that can be taken back: at its first moment, if the class could be paused
// there and nobody has adjusted it since.
func (l *led) lost(from, at int64) (int64, bool) {
	from = max(0, from)
	if n := len(l.script); from >= at || n > 0 && from < l.script[n-1].At {
		return 0, false
	}
	moment := l.class.At(from)
	return from, moment.Passage > 0 && moment.Met.Has(pace.ToPause)
}

// where is a moment of the class in words.
func (l *led) where(at int64) string {
	moment := l.class.At(max(0, at))
	if moment.Passage == 0 {
		return "after the end of the class"
	}
	name := l.plan.Passages[moment.Passage-1].Name()
	if moment.Stage == pace.Round {
		return fmt.Sprintf("%s, round %d", name, moment.Round)
	}
	return name
}

// TakeAgain takes a round again that was lost from sight: everybody breathed naturally from then until now, and what
// was in progress then starts over. The record has it as such a pause.
func (s *Studio) TakeAgain(id int64, want contract.TakeAgain) (contract.Adjusted, error) {
	s.leading.Lock()
	defer s.leading.Unlock()
	l, err := s.open(id)
	if err != nil {
		return contract.Adjusted{}, err
	}
	if number := l.known(want.Key); number > 0 {
		return s.adjusted(l, number)
	}
	over := !l.stored.EndedAt.IsZero() // it may have come to its end by the clock, unseen
	if over {
		newest, err := s.store.NewestClass()
		if err != nil {
			return contract.Adjusted{}, err
		}
		if newest != id {
			return contract.Adjusted{}, fail(ErrConflict, "Another class was begun since.")
		}
		l.stored.EndedAt = time.Time{}
	}
	at := l.at(s.now())
	from, can := l.lost(want.FromMS, at)
	if !can {
		return contract.Adjusted{}, fail(ErrConflict, "This cannot be taken again: the class was adjusted since, or nothing was being counted.")
	}
	if over {
		if err := s.reopen(l.stored); err != nil {
			return contract.Adjusted{}, err
		}
	}
	// The pause first: if all ends between the two, the class stands in natural breath and waits.
	if _, err := s.adjust(l, from, contract.Adjust{Key: want.Key + " lost from sight", Do: pace.ToPause, Origin: want.Origin}); err != nil {
		return contract.Adjusted{}, err
	}
	number, err := s.adjust(l, at, contract.Adjust{Key: want.Key, Do: pace.Resume, Origin: want.Origin})
	if err != nil {
		return contract.Adjusted{}, err
	}
	return s.adjusted(l, number)
}
