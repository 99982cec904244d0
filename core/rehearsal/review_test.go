package rehearsal_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/rehearsal"
	"vastlantern/language"
)

// practised returns one for whom all of this is easy.
func practised() rehearsal.Person {
	return rehearsal.Person{
		Comfort: 14,
		Reach:   2,
		Full:    25,
		Empty:   12,
		Strokes: 80,
		Rate:    110,
		Growth:  0.02,
		Fade:    10,
		Limit:   0.9,
		Shows:   1,
	}
}

// back leads a plan with one newcomer and some who are practised, presses, and looks back.
func back(t *testing.T, passages string, others int, script ...pace.Adjustment) rehearsal.Review {
	t.Helper()
	led := rehearsal.Led{
		Plan:   read(t, passages),
		Script: script,
		People: []rehearsal.Person{*newcomer()},
		Seed:   1,
		Now:    3_600_000,
	}
	for range others {
		led.People = append(led.People, practised())
	}
	return led.Review()
}

// inShort returns what there was to be seen and what came of it, one a line.
func inShort(r rehearsal.Review) (list []string) {
	for _, m := range r.Moments {
		list = append(list, fmt.Sprintf("%s %d, said %d, %s %d, missed %v", m.ID, m.At, m.Named, m.By, m.Pressed, m.Missed()))
	}
	return list
}

func saw(at int64, see string) pace.Adjustment {
	return pace.Adjustment{At: at, Do: pace.Signal, See: see}
}

func shorter(at int64, counts ...int) pace.Adjustment {
	return pace.Adjustment{At: at, Do: pace.ToCounts, Counts: [4]int(counts)}
}

// A newcomer holds four seconds with ease and gets eight: that is to be seen with the first exhale, and faces are tight
// in the third round.
func TestWhatWasSeenSaidAndMet(t *testing.T) {
	held := counted("4:8:4", 8, "") + `, {"type": "free", "seconds": 30}`
	for _, c := range []struct {
		name   string
		script []pace.Adjustment
		shown  []string
		next   string
	}{
		{"nothing is done", nil, []string{"rushed 12000, said -1,  -1, missed true",
			"tight 32000, said -1,  -1, missed true"}, "falls out"},
		{"said, and nothing done", []pace.Adjustment{saw(15_000, rehearsal.Rushed)},
			[]string{"rushed 12000, said 15000,  -1, missed false", "tight 32000, said -1,  -1, missed true"}, "shoulders"},
		{"said and met", []pace.Adjustment{saw(15_000, rehearsal.Rushed), shorter(16_000, 4, 4, 4, 0)},
			[]string{"rushed 12000, said 15000, counts 16000, missed false"}, "more people were eased"},
		{"met without a word", []pace.Adjustment{shorter(14_000, 4, 4, 4, 0)},
			[]string{"rushed 12000, said -1, counts 14000, missed false"}, "more people were eased"},
		{"only the rounds fewer", []pace.Adjustment{saw(15_000, rehearsal.Rushed), {At: 16_000, Do: pace.Rounds, By: -2,
			Relative: true}},
			[]string{"rushed 12000, said 15000,  -1, missed false", "tight 32000, said -1,  -1, missed true"}, "shoulders"},
		{"a gentler lane for those who want it", []pace.Adjustment{saw(15_000, rehearsal.Rushed),
			{At: 15_500, Do: pace.ToBeside, Text: "breathe"}},
			[]string{"rushed 12000, said 15000, beside 15500, missed false"}, "Nothing was missed"},
		{"taken for something else", []pace.Adjustment{saw(15_000, rehearsal.Gasp), shorter(16_000, 4, 4, 4, 0)},
			[]string{"rushed 12000, said -1, counts 16000, missed false"}, "one thing for another"},
	} {
		r := back(t, held, 3, c.script...)
		assert.Equal(t, c.shown, inShort(r), c.name)
		assert.Contains(t, language.English().Text(r.Next.Says), c.next, c.name)
		assert.True(t, r.Over)
	}
}

// To ease a room that was at ease costs something; what would have become too much without it does not.
func TestWhatWasEasedWithoutNeed(t *testing.T) {
	easy := back(t, counted("4:4:4", 6, ""), 3, pace.Adjustment{At: 20_000, Do: pace.DropHolds})
	require.Len(t, easy.Eased, 1)
	assert.True(t, easy.Eased[0].Needless())
	assert.Equal(t, 4, easy.Eased[0].AtEase)
	assert.Equal(t, 1, easy.NeedlessCount())
	assert.Contains(t, language.English().Text(easy.Next.Says), "was eased once")

	before := back(t, counted("4:8:4", 6, ""), 3, pace.Adjustment{At: 1000, Do: pace.DropHolds})
	require.Len(t, before.Eased, 1)
	assert.False(t, before.Eased[0].Needless(), "who knows the room eases it before it shows anything")
	assert.Equal(t, 1, before.Eased[0].Strained)
	assert.Equal(t, 3, before.Eased[0].AtEase)
	assert.Empty(t, before.Moments)

	longer := back(t, counted("4:4:4", 6, ""), 1, shorter(13_000, 4, 5, 4, 0))
	assert.Empty(t, longer.Eased, "a longer hold eases nobody")

	strokes := `{"type": "practice", "practice": "kapalabhati", "strokes": 30, "rounds": 2, "lead_in": 0}`
	fewer := back(t, strokes, 3, pace.Adjustment{At: 3_000, Do: pace.ToStrokes, To: breath.Int(20)})
	require.Len(t, fewer.Eased, 1, "fewer strokes at the same rate")
	assert.Equal(t, pace.ToStrokes, fewer.Eased[0].Do)
}

// Somebody comes in: natural breath for all is the answer, and nobody's ease is in the way of it.
func TestALatecomer(t *testing.T) {
	led := rehearsal.Led{
		Plan:      read(t, counted("4:4", 16, "")),
		People:    []rehearsal.Person{practised(), practised(), practised()},
		Seed:      1,
		Now:       3_600_000,
		Latecomer: 40_000,
		Script:    []pace.Adjustment{{At: 45_000, Do: pace.ToPause}, {At: 70_000, Do: pace.Resume}},
	}
	r := led.Review()
	require.NotEmpty(t, r.Moments)
	m := r.Moments[0]
	assert.Equal(t, rehearsal.Interrupted, m.ID)
	assert.Equal(t, []int{2}, m.People)
	assert.Equal(t, pace.ToPause, m.By)
	assert.Equal(t, int64(45_000), m.Pressed)
	assert.Empty(t, r.Eased)
	late := r.Courses[2]
	assert.Equal(t, rehearsal.Absent, late.Acts[0].Do)
	assert.Less(t, late.Breaths, r.Courses[0].Breaths)
	assert.Positive(t, late.Followed, "who comes late breathes with the others after the natural breath of all")

	led.Script = nil
	r = led.Review()
	assert.True(t, r.Moments[0].Missed())
	assert.Contains(t, language.English().Text(r.Next.Says), "interrupts")
}

// Who is unwell asks for natural breath for all, before anything else.
func TestSomebodyIsUnwell(t *testing.T) {
	led := rehearsal.Led{
		Plan:   read(t, counted("4:12:4", 8, "")),
		People: []rehearsal.Person{*newcomer(), practised()},
		Seed:   1,
		Now:    3_600_000,
	}
	led.People[0].Dizzy, led.People[0].Limit = 1, 1
	at := int64(-1)
	idle := led.Review()
	for _, m := range idle.Moments {
		if m.ID == rehearsal.Unwell {
			at = m.At
		}
	}
	require.Positive(t, at)
	for _, c := range []struct {
		do   pace.Adjustment
		next string
	}{
		{pace.Adjustment{At: at + 3000, Do: pace.ToPause}, ""},
		{pace.Adjustment{At: at + 3000, Do: pace.DropHolds}, "natural breath for everyone comes first"},
		{pace.Adjustment{At: 1, Do: pace.Note, Text: "nothing"}, "was not seen"},
	} {
		led.Script = []pace.Adjustment{saw(at, rehearsal.Unwell), c.do}
		if c.do.Do == pace.Note {
			led.Script = []pace.Adjustment{c.do}
		}
		r := led.Review()
		if c.next == "" {
			assert.NotEqual(t, rehearsal.Unwell, r.Next.About)
		} else {
			assert.Contains(t, language.English().Text(r.Next.Says), c.next)
			assert.Equal(t, rehearsal.Unwell, r.Next.About)
		}
	}
}

// The slot and the rest at the end: what is too long is taken from the rounds.
func TestTheClockAndTheRest(t *testing.T) {
	of := func(script ...pace.Adjustment) rehearsal.Review {
		p := read(t, counted("4:4", 20, "")+`, {"type": "free", "seconds": 60}`)
		p.Slot = breath.Int(3)
		led := rehearsal.Led{Plan: p, People: []rehearsal.Person{practised()}, Seed: 1, Now: 3_600_000, Script: script}
		return led.Review()
	}
	long := of()
	assert.True(t, long.Slot)
	assert.Equal(t, int64(160_000+60_000-180_000), long.Late)
	assert.Equal(t, long.Planned, long.Rest)
	cut := of(pace.Adjustment{At: 180_000, Do: pace.End})
	assert.Zero(t, cut.Late)
	assert.Equal(t, int64(20_000), cut.Rest, "what was left of it")
	assert.Contains(t, language.English().Text(cut.Next.Says), "keep the rest")
	kept := of(pace.Adjustment{At: 30_000, Do: pace.FinishBy, To: breath.Int(180_000)})
	assert.LessOrEqual(t, kept.Late, int64(0))
	assert.Equal(t, kept.Planned, kept.Rest)
	assert.Contains(t, language.English().Text(kept.Next.Says), "Nothing was missed")
}
