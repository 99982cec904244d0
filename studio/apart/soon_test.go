package apart_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"vastlantern/studio/contract"
)

// What a press returns at once is what the whole score has for the next half minute: phases, what is shown and said,
// and what is in force. The rest follows.
func TestTheNextMinuteIsThatOfTheWholeClass(t *testing.T) {
	told := 0
	rapid.Check(t, func(t *rapid.T) {
		s := open(t, &program{}, "a")
		at := int64(0)
		for i := range rapid.IntRange(1, 25).Draw(t, "presses") {
			at += rapid.Int64Range(0, 15_000).Draw(t, "ms")
			want := adjusts.Draw(t, "press")
			want.Key = fmt.Sprint(i)
			made, err := s.Press(at, want)
			require.NoError(t, err)
			whole := s.Score(at)
			if !made.Soon {
				require.Equal(t, whole, made.Score)
				continue
			}
			told++
			until := at + 30_000
			require.Equal(t, phasesUntil(whole.Phases, until), phasesUntil(made.Score.Phases, until))
			require.Equal(t, phasesUntil(whole.Lane, until), phasesUntil(made.Score.Lane, until))
			require.Equal(t, cuesUntil(whole.Cues, until), cuesUntil(made.Score.Cues, until))
			require.Equal(t, cuesUntil(whole.LaneCues, until), cuesUntil(made.Score.LaneCues, until))
			require.Equal(t, spokenUntil(whole.Spoken, until), spokenUntil(made.Score.Spoken, until))
			require.Equal(t, whole.Answer, made.Score.Answer)
			for i, passage := range whole.Passages {
				soon := made.Score.Passages[i]
				soon.StartMS, soon.EndMS = passage.StartMS, passage.EndMS
				require.Equal(t, passage, soon)
			}
		}
	})
	require.Positive(t, told)
}

func phasesUntil(all []contract.ScorePhase, until int64) (list []contract.ScorePhase) {
	for _, phase := range all {
		if phase.EndMS < until && phase.AtMS[0] < until { // what waits has no end
			list = append(list, phase)
		}
	}
	return list
}

func cuesUntil(all []contract.Cue, until int64) (list []contract.Cue) {
	for _, one := range all {
		if one.AtMS < until {
			one.UntilMS = min(one.UntilMS, until) // a cue ends with its phase, which may be later
			list = append(list, one)
		}
	}
	return list
}

func spokenUntil(all []contract.Spoken, until int64) (list []contract.Spoken) {
	for _, one := range all {
		if one.AtMS < until {
			list = append(list, one)
		}
	}
	return list
}
