package pace

// Standing is the answers whose adjustments stand: accepted, and not taken back since. Notes and signals are among them; what took
// something back is not.
func Standing(answers []Answer) []Answer {
	var changes []int // those that can be taken back, the latest last
	stands := make([]bool, len(answers))
	for i := range answers {
		switch a := &answers[i]; {
		case a.Refused != "":
		case a.Do == Undo:
			if n := len(changes); n > 0 {
				stands[changes[n-1]] = false
				changes = changes[:n-1]
			}
		default:
			stands[i] = true
			if a.Do != Note && a.Do != Signal {
				changes = append(changes, i)
			}
		}
	}
	var list []Answer
	for i := range answers {
		if stands[i] {
			list = append(list, answers[i])
		}
	}
	return list
}

// Ease is whether an adjustment asked less of the room.
type Ease int

// The answers to that. What may ease has other reasons too: the clock, a latecomer, something that happened.
const (
	EasesNothing Ease = iota
	MayEase
	Eases
)

// Eases tells whether an accepted adjustment asked less of the room: shorter or no holds, fewer counts or strokes.
func (a *Answer) Eases() Ease {
	if a.Refused != "" {
		return EasesNothing
	}
	switch a.Do {
	case DropHolds, Release, Enough:
		return Eases
	case ToStrokes:
		if a.After.Strokes < a.Before.Strokes {
			return Eases
		}
	case ToCounts:
		before, after := a.Before.Counts, a.After.Counts
		if after.Inhale < before.Inhale || after.Hold < before.Hold || after.Exhale < before.Exhale || after.Empty < before.Empty {
			return Eases
		}
	case ToPause:
		return MayEase
	case ToTempo: // a slower one is easier to keep, a quicker one shorter
		if !a.After.Tempo.Equal(a.Before.Tempo) {
			return MayEase
		}
	}
	return EasesNothing
}
