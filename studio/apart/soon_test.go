package apart_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"vastlantern/core/cue"
	"vastlantern/studio/apart"
	"vastlantern/studio/contract"
)

// Classes that are longer than what a press returns at once: with calls, prompts and lines, a lane, phases by hand,
// long stages, and rows that wait soon and late.
var longPlans = []string{
	plan,
	`{"format": "vast-lantern-plan", "version": 1, "slot_min": 30, "tempo": 55, "passages": [
		{"type": "talk", "title": "Arriving", "seconds": 20},
		{"type": "practice", "practice": "ujjayi", "counts": "4:6", "minutes": 5, "lines": [
			{"text": "soften", "round": [2, 9]}, {"text": "slowly", "phase": "exhale", "round": "last", "say": true}]},
		{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "minutes": 4, "beside": "4:6"},
		{"type": "talk", "title": "Questions", "seconds": 60, "wait": true},
		{"type": "practice", "practice": "kapalabhati", "strokes": 108, "rounds": 3, "rest_between": 40},
		{"type": "practice", "practice": "bhramari", "own_pace": true, "minutes": 4},
		{"type": "free", "title": "Rest", "seconds": 180}]}`,
	`{"format": "vast-lantern-plan", "version": 1, "passages": [
		{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 40, "by_hand": ["hold"]},
		{"type": "practice", "practice": "counted-breath", "counts": "4:4:4:4", "rounds": 40, "by_hand": ["hold"]},
		{"type": "practice", "practice": "counted-breath", "counts": "3:6", "rounds": 12, "by_hand": "all"},
		{"type": "practice", "practice": "kapalabhati", "strokes": 40, "rounds": 3, "rest_between": 20}]}`,
}

// What a press returns at once is the whole score up to some moment after the next minute. Only calls and prompts stay
// as they were. Several presses can be answered so before anybody asks for the whole.
func TestAPressIsAnsweredWithTheNextMinute(t *testing.T) {
	told, waited := 0, 0
	rapid.Check(t, func(t *rapid.T) {
		kit := (&program{}).kit("a")
		kit.Document = rapid.SampledFrom(longPlans).Draw(t, "plan")
		s, err := apart.Open(kit, nil)
		require.NoError(t, err)
		other, err := apart.Open(kit, nil)
		require.NoError(t, err)
		stood, at := other.Score(0).Cues, int64(0) // since the whole was asked for
		for i := range rapid.IntRange(1, 12).Draw(t, "presses") {
			at += rapid.Int64Range(0, 90_000).Draw(t, "ms")
			want := adjusts.Draw(t, "press")
			want.Key = fmt.Sprint(i)
			made, err := s.Press(at, want)
			require.NoError(t, err)
			_, err = other.Press(at, want)
			require.NoError(t, err)
			whole := other.Score(at)
			if made.Soon {
				told++
				if whole.Wait != nil && made.Score.Wait != nil {
					waited++
				}
				startsLike(t, whole, made.Score, at)
				standAs(t, stood, made.Score, at)
			} else {
				require.Equal(t, whole, made.Score)
			}
			if rapid.IntRange(0, 2).Draw(t, "asks") == 0 {
				require.Equal(t, whole, s.Score(at))
				stood = nil
			}
			stood = append(stood, whole.Cues...)
		}
	})
	require.Positive(t, told)
	require.Positive(t, waited)
}

// startsLike checks that a score is the whole one up to at least a minute after at.
func startsLike(t require.TestingT, whole, soon contract.Score, at int64) {
	require.LessOrEqual(t, len(soon.Phases), len(whole.Phases))
	require.Equal(t, whole.Phases[:len(soon.Phases)], soon.Phases)
	until := soon.Phases[len(soon.Phases)-1].EndMS
	if until < 0 {
		require.NotNil(t, soon.Wait)
		require.Equal(t, whole.Wait.PlannedEndMS, soon.Wait.PlannedEndMS)
		require.Equal(t, whole.Wait.Phases[:len(soon.Wait.Phases)], soon.Wait.Phases)
		if after := len(soon.Wait.Phases); after < len(whole.Wait.Phases) {
			require.Greater(t, whole.Wait.PlannedEndMS+soon.Wait.Phases[after-1].EndMS, at+60_000)
		}
	} else {
		require.Greater(t, until, at+60_000)
		if n := len(soon.Phases); n < len(whole.Phases) {
			next, last := whole.Phases[n], soon.Phases[n-1]
			require.False(t, next.Passage == last.Passage && next.Stage == last.Stage && next.Round == last.Round,
				"a stage is not cut")
		}
	}
	if len(soon.Lane) > 0 { // else it comes later, or never
		require.Equal(t, phasesUntil(whole.Lane, at+30_000), phasesUntil(soon.Lane, at+30_000))
		require.Equal(t, cuesUntil(whole.LaneCues, at+30_000), cuesUntil(soon.LaneCues, at+30_000))
	}
	require.Equal(t, cuesUntil(whole.Cues, at+30_000), cuesUntil(soon.Cues, at+30_000))
	require.Equal(t, whole.Passages, soon.Passages)
	require.Equal(t, whole.EndMS, soon.EndMS)
	require.Equal(t, whole.Answer, soon.Answer)
	require.Equal(t, whole.Revision, soon.Revision)
}

// standAs checks that calls and prompts are those that were there before. Those to come are only known where nothing
// was changed.
func standAs(t require.TestingT, stood []contract.Cue, soon contract.Score, at int64) {
	changed := soon.Answer.Refused == nil && !soon.Answer.Do.Remarks()
	for _, one := range soon.Cues {
		if called(one) {
			require.True(t, !changed || one.AtMS <= at, "%v has not come", one)
			require.True(t, slices.ContainsFunc(stood, func(c contract.Cue) bool {
				return c.Kind == one.Kind && c.Text == one.Text && c.AtMS == one.AtMS
			}), "%v was not there", one)
		}
	}
}

func called(c contract.Cue) bool {
	return slices.Contains([]cue.Kind{cue.Prompt, cue.Last, cue.Half, cue.Minute, cue.HalfMinute}, c.Kind)
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
		if one.AtMS < until && !called(one) {
			one.UntilMS = min(one.UntilMS, until) // a cue ends with its phase, which may be later
			list = append(list, one)
		}
	}
	return list
}
