package pace

// Stands tells of each answer whether its adjustment stands: accepted, and not taken back since. Notes and signals do;
// what took something back does not.
func Stands(answers []Answer) []bool {
	var changes []int // those that can be taken back, the latest last
	stands := make([]bool, len(answers))
	for i := range answers {
		switch a := &answers[i]; {
		case !a.Refused.None():
		case a.Do == Undo:
			if n := len(changes); n > 0 {
				stands[changes[n-1]] = false
				changes = changes[:n-1]
			}
		default:
			stands[i] = true
			if !a.Do.Remarks() {
				changes = append(changes, i)
			}
		}
	}
	return stands
}

// Standing returns the answers whose adjustments stand.
func Standing(answers []Answer) []Answer {
	var list []Answer
	for i, stands := range Stands(answers) {
		if stands {
			list = append(list, answers[i])
		}
	}
	return list
}

// Changes reports whether an adjustment that stands changed how the class was led: notes and signals do not, nor what
// goes on from what waited.
func (a *Answer) Changes() bool { return ruleOf(a.Do).effect == changesClass }

// Ease is whether an adjustment asked less of the room.
type Ease int

// The answers to that. What may ease has other reasons too: the clock, a latecomer, something that happened.
const (
	EasesNothing Ease = iota
	MayEase
	Eases
)

// Eases reports whether an accepted adjustment asked less of the room: shorter or no holds, fewer counts or strokes.
func (a *Answer) Eases() Ease {
	r := ruleOf(a.Do)
	if !a.Refused.None() || r == nil || r.eases == nil {
		return EasesNothing
	}
	return r.eases(a)
}

func always(*Answer) Ease  { return Eases }
func perhaps(*Answer) Ease { return MayEase }

func fewerStrokesEase(a *Answer) Ease {
	if a.After.Strokes < a.Before.Strokes {
		return Eases
	}
	return EasesNothing
}

func fewerCountsEase(a *Answer) Ease {
	before, after := a.Before.Counts, a.After.Counts
	if after.Inhale < before.Inhale || after.Hold < before.Hold || after.Exhale < before.Exhale ||
		after.Empty < before.Empty {
		return Eases
	}
	return EasesNothing
}

// slowerMayEase returns of a change of tempo: a slower one is easier to keep, a quicker one shorter.
func slowerMayEase(a *Answer) Ease {
	if a.After.Tempo.Equal(a.Before.Tempo) {
		return EasesNothing
	}
	return MayEase
}
