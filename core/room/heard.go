package room

import (
	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/pace"
)

// Heard is how a microphone told that the room strokes.
type Heard struct {
	PerMinute breath.Exact // strokes
	From      int64        // the first stroke that it rests on, in milliseconds from the start of the class
}

// heardApart is by how many strokes a minute the room has to be apart from the beat before anything is proposed. A rate
// that is told is right within two (docs/listening.md).
const heardApart = 3

// ProposeHeard returns to lead at the rate at which the room strokes, and false where nothing is to be proposed: the
// room is with the beat, or is not stroking, or the strokes that were heard are older than the last change, which is
// its time in milliseconds.
func ProposeHeard(h Heard, s Scene, changed int64) (Proposal, bool) {
	if s.Passage == nil || s.Passage.Hears() != breath.Stroke || s.Now.Stage != pace.Round ||
		s.Now.Phase != breath.Stroke || !s.Now.Met.Has(pace.ToTempo) || h.From < changed {
		return Proposal{}, false
	}
	beat := s.Now.Next.Tempo
	slowest, fastest := bounds(s.Passage)
	to := breath.Max(slowest, breath.Min(fastest, breath.Int(h.PerMinute.Round())))
	apart := h.PerMinute.Sub(beat)
	if apart.Sign() < 0 {
		apart = apart.Neg()
	}
	if apart.Less(breath.Int(heardApart)) || to.Equal(beat) {
		return Proposal{}, false
	}
	say := fact.New("propose.heard-strokes", "heard", breath.Int(h.PerMinute.Round()), "beat", beat, "after", to)
	return s.propose(say, pace.Adjustment{Do: pace.ToTempo, To: to}), true
}
