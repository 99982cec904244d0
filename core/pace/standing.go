package pace

// Stands tells of each answer whether its adjustment stands: accepted, and not taken back since. Notes and signals do; what took
// something back does not.
func Stands(answers []Answer) []bool {
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
	return stands
}

// Standing is the answers whose adjustments stand.
func Standing(answers []Answer) []Answer {
	var list []Answer
	for i, stands := range Stands(answers) {
		if stands {
			list = append(list, answers[i])
		}
	}
	return list
}

// Changes tells whether an adjustment that stands changed how the class was led: notes and signals do not, nor what goes on from
// what waited.
func (a *Answer) Changes() bool {
	switch a.Do {
	case Note, Signal, Advance, Resume:
		return false
	}
	return true
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
