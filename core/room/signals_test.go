package room_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"vastlantern/core/pace"
	"vastlantern/core/room"
	"vastlantern/core/sheet"
	"vastlantern/language"
)

// scene returns a class at 60 counts a minute, at t.
func scene(t *testing.T, passage string, at int64, before int) (room.Scene, *pace.Class) {
	t.Helper()
	_, p, err := sheet.ReadPlan(
		strings.NewReader(`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [` + passage + `]}`),
	)
	require.NoError(t, err)
	class := pace.Begin(p)
	return room.Scene{Now: class.At(at), Passage: &p.Passages[0], Before: before, SlotEnd: 60_000}, class
}

func done(p room.Proposal) string {
	var list []string
	for _, a := range p.Do {
		switch a.Do {
		case pace.ToCounts:
			list = append(list, fmt.Sprint("counts ", a.Counts))
		case pace.ToTempo, pace.ToStrokes, pace.FinishBy:
			list = append(list, fmt.Sprintf("%s %s", a.Do, a.To))
		case pace.Rounds:
			list = append(list, fmt.Sprintf("%s %+d", a.Do, a.By))
		default:
			list = append(list, string(a.Do))
		}
	}
	return strings.Join(list, ", ")
}

// What is seen, and what to do about it now and next, as it is handed down in the trade (common practice, with no
// source).
func TestProposals(t *testing.T) {
	held := func(counts string) string {
		return fmt.Sprintf(
			`{"type": "practice", "practice": "counted-breath", "counts": %q, "rounds": 4, "lead_in": 0}`,
			counts,
		)
	}
	const strokes = `{"type": "practice", "practice": "kapalabhati", "strokes": 20, "rounds": 3, "lead_in": 0}`
	const open = `{"type": "practice", "practice": "open-holds", "lead_in": 0}`
	for _, c := range []struct {
		seen, passage string
		before        int
		do, say       string
	}{
		{"gasp", held("4:4:4:4"), 0, "counts [4 4 4 3]", "empty hold 4 to 3, from this breath"},
		{"gasp", held("4:4:4:6"), 0, "counts [4 4 4 4]", "empty hold 6 to 4, from this breath"},
		{"gasp", held("4:4:4:6"), 1, "counts [4 4 4 0]", "empty hold 6 to 0, from this breath"},
		{"gasp", held("4:8"), 0, "counts [4 0 7 0]", "exhale 8 to 7, from the next round"},
		{"gasp", open, 0, "", "A shorter empty hold next time: go on after 4 s instead of 6 s."},
		{"gasp", strokes, 0, "", "Softer"},
		{"rushed", held("4:8:8"), 0, "counts [4 6 8 0]", "hold 8 to 6, from this breath"},
		{"rushed", held("4:3:4"), 0, "counts [4 2 4 0]", "hold 3 to 2, from this breath"},
		{"rushed", held("4:16:8"), 0, "counts [4 12 8 0]", "hold 16 to 12, from this breath"},
		{"rushed", held("4:8:8"), 1, "drop-holds", "no holds"},
		{"rushed", held("4:8"), 0, "", "slowly"},
		{"early", held("4:4"), 0, "tempo 62", "faster, 60 to 62"},
		{"late", held("4:4"), 0, "tempo 58", "slower, 60 to 58"},
		{"tight", held("4:4:4"), 0, "drop-holds", "no holds"},
		{"tight", held("4:6"), 0, "counts [3 0 5 0]", "4:6 to 3:5, from the next round"},
		{"tight", held("2:6"), 0, "", "Shoulders"},
		{"restless", held("4:4"), 0, "rounds -1", "one round less, 3 in all"},
		{"restless", `{"type": "practice", "practice": "sigh", "rounds": 1, "lead_in": 0}`, 0, "", "numbers"},
		{"strokes", strokes, 0, "enough, strokes 15", "then 15 strokes instead of 20"},
		{"strokes", `{"type": "practice", "practice": "panting-breath", "lead_in": 0}`, 0, "enough", "ends here"},
		{"strokes", held("4:4"), 0, "", "no strokes"},
		{"belly", held("4:4"), 0, "", "belly breath"},
		{"pinched", held("4:4"), 0, "", "Lightly"},
		{"interrupted", held("4:4"), 0, "pause", "Natural breath"},
		{"pressure", held("4:4"), 0, "pause", "Natural breath"},
		{"unwell", held("4:4"), 0, "pause", "Help that person"},
		{"backs", held("4:4"), 0, "", "chair"},
		{"settled", held("4:4"), 0, "", "Keep"},
		{"clock", held("4:4"), 0, "finish-by 60000", "refit"},
		{"late", `{"type": "talk", "seconds": 60}`, 0, "", "slower"},
	} {
		s, class := scene(t, c.passage, 500, c.before)
		p, err := room.Propose(c.seen, s)
		require.NoError(t, err)
		assert.Equal(t, c.do, done(p), "%s in %s", c.seen, c.passage)
		assert.Contains(t, language.English().Text(p.Say), c.say, "%s in %s", c.seen, c.passage)
		for _, a := range p.Do {
			a.At = 500
			assert.Empty(t, class.Adjust(a).Refused, "what is proposed is not refused")
		}
	}
	_, err := room.Propose("fire", room.Scene{})
	assert.Contains(t, language.English().Error(err), "fire")
	over, err := room.Propose("late", room.Scene{})
	require.NoError(t, err)
	assert.Contains(t, language.English().Text(over.Say), "over")
}

// A proposal rests on the round as it was eased so far, not on the plan.
// What some show need not ease everybody: the gentler lane is there for them, where it can be opened.
func TestSomeOfTheRoom(t *testing.T) {
	for _, c := range []struct{ seen, passage, lane string }{
		{"gasp", `"practice": "counted-breath", "counts": "4:4:4:4"`, "breathe"},
		{"late", `"practice": "counted-breath", "counts": "6:6"`, "3:3"},
		{"settled", `"practice": "counted-breath", "counts": "4:4:4:4"`, ""},
		{"gasp", `"practice": "counted-breath", "counts": "4:4:4:4", "beside": "breathe"`, ""},
		{"tight", `"practice": "counted-breath", "counts": "4:4:4:4", "pace": "own"`, ""},
	} {
		s, class := scene(t, `{"type": "practice", "lead_in": 0, `+c.passage+`}`, 1000, 0)
		p, err := room.Propose(c.seen, s)
		require.NoError(t, err)
		assert.Equal(t, c.lane, p.Lane.Text, "%s, %s", c.seen, c.passage)
		if c.lane != "" {
			p.Lane.At = 1000
			answer := class.Adjust(p.Lane)
			assert.Empty(t, answer.Refused)
		}
	}
}

func TestProposalsRestOnWhatIsInForce(t *testing.T) {
	s, class := scene(
		t,
		`{"type": "practice", "practice": "counted-breath", "counts": "4:8:8", "rounds": 4, "lead_in": 0}`,
		500,
		0,
	)
	class.Adjust(pace.Adjustment{At: 500, Do: pace.ToCounts, Counts: [4]int{4, 4, 8, 0}})
	s.Now = class.At(600)
	p, err := room.Propose("rushed", s)
	require.NoError(t, err)
	assert.Equal(t, "hold 4 to 3, from this breath", language.English().Text(p.Say))
}

// What this breath can no longer have is offered for the next breath or the next round, and in the last round for
// another time.
func TestProposalsNeverPromiseWhatIsOver(t *testing.T) {
	const held = `{"type": "practice", "practice": "counted-breath", "counts": "4:8:8", "rounds": 2, "lead_in": 0}`
	const sides = `{"type": "practice", "practice": "nadi-shodhana", "counts": "4:8:8", "rounds": 2, "lead_in": 0}`
	const gasped = `{"type": "practice", "practice": "counted-breath", "counts": "4:0:4:4", "rounds": 2, "lead_in": 0}`
	for _, c := range []struct {
		seen, passage string
		at            int64 // s
		say           string
	}{
		{"rushed", held, 2, "hold 8 to 6, from this breath"},
		{"rushed", held, 6, "hold 8 to 6, from this breath"}, // in the hold
		{"rushed", held, 14, "hold 8 to 6, from the next round"},
		{"rushed", held, 34, "hold 8 to 6, next time: it does not come again here"},
		{"rushed", sides, 14, "hold 8 to 6, from the next breath"},
		{"rushed", sides, 34, "hold 8 to 6, from the next round"},
		{"tight", sides, 14, "no holds, from the next breath"},
		{"tight", held, 34, "no holds, next time: it does not come again here"},
		{"gasp", gasped, 13, "empty hold 4 to 3, from this breath"},
	} {
		s, class := scene(t, c.passage, c.at*1000, 0)
		p, err := room.Propose(c.seen, s)
		require.NoError(t, err)
		assert.Equal(t, c.say, language.English().Text(p.Say), "%s at %d s", c.seen, c.at)
		assert.Equal(t, strings.Contains(c.say, "next time"), len(p.Do) == 0, "what cannot act is not offered")
		for _, a := range p.Do {
			a.At = c.at * 1000
			assert.Empty(t, class.Adjust(a).Refused)
		}
	}
}

func TestTaps(t *testing.T) {
	for _, c := range []struct {
		name             string
		taps             []int64
		interval, spread string
		used, aside      int
	}{
		{"two", []int64{0, 1200}, "1200", "0", 1, 0},
		{"the median", []int64{0, 1000, 2100, 3050}, "1000", "75", 3, 0},
		{"of an even number", []int64{0, 1000, 2100}, "1050", "50", 2, 0},
		{"one that was missed is set aside", []int64{0, 1000, 2000, 4000, 5000}, "1000", "0", 3, 1},
		{"and one that was doubled", []int64{0, 1000, 1100, 2100, 3100}, "1000", "0", 3, 1},
		{"two that have nothing in common: the quicker one", []int64{0, 10, 50}, "10", "0", 1, 1},
		{"taps at the same time are one", []int64{0, 0, 900}, "900", "0", 1, 0},
	} {
		b, err := room.Taps(c.taps)
		require.NoError(t, err, c.name)
		assert.Equal(t, []string{c.interval, c.spread}, []string{b.Interval.String(), b.Spread.String()}, c.name)
		assert.Equal(t, []int{c.used, c.aside}, []int{b.Used, b.Aside}, c.name)
	}
	for _, few := range [][]int64{nil, {5}, {5, 5}} {
		_, err := room.Taps(few)
		assert.ErrorIs(t, err, room.ErrTaps)
	}
}

// Whatever is tapped, a beat is told or the taps are too few.
func TestAnyTaps(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		taps := rapid.SliceOfN(rapid.Int64Range(0, 100_000), 0, 12).Draw(t, "taps")
		slices.Sort(taps)
		b, err := room.Taps(taps)
		if len(taps) < 2 || taps[0] == taps[len(taps)-1] {
			assert.ErrorIs(t, err, room.ErrTaps)
			return
		}
		assert.NoError(t, err)
		assert.Positive(t, b.Used)
		assert.Positive(t, b.Interval.Sign())
		assert.GreaterOrEqual(t, b.Spread.Sign(), 0)
	})
}

func TestTempoOfTaps(t *testing.T) {
	beat, err := room.Taps([]int64{0, 1200})
	require.NoError(t, err)
	breath, err := room.Taps([]int64{0, 14_000, 28_000})
	require.NoError(t, err)
	for passage, want := range map[string][2]string{
		// ten counts in 14 s
		`{"type": "practice", "practice": "counted-breath", "counts": "4:6"}`: {"50", "43"},
		// a breath, not a round
		`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:6"}`:                    {"50", "43"},
		`{"type": "practice", "practice": "counted-breath", "counts": "4:6", "word": "before"}`: {"50", "51"}, // twelve
		// ten in 12 s
		`{"type": "practice", "practice": "counted-breath", "counts": "4:6", "natural_pause": 1}`: {"50", "50"},
		// not below the range
		`{"type": "practice", "practice": "counted-breath", "counts": "1:1"}`: {"50", "20"},
		// strokes have no breaths
		`{"type": "practice", "practice": "kapalabhati"}`: {"50", "30"},
	} {
		s, _ := scene(t, passage, 0, 0)
		assert.Equal(t, want[0], beat.Tempo(s.Passage, s.Passage.Measure, false).String(), passage)
		assert.Equal(t, want[1], breath.Tempo(s.Passage, s.Passage.Measure, true).String(), passage)
	}
}

// The pad shows first what a passage can show.
func TestWhatAPassageCanShow(t *testing.T) {
	const always = "restless interrupted unwell backs settled clock"
	for passage, want := range map[string]string{
		`"type": "talk"`: always,
		`"type": "practice", "practice": "counted-breath", "counts": "4:4"`: "gasp early late tight belly pressure " + always,
		`"type": "practice", "practice": "counted-breath", "counts": ` +
			`"4:4:4"`: "gasp rushed early late tight belly pressure " + always,
		`"type": "practice", "practice": "kapalabhati"`: "early late tight strokes pressure " + always,
		`"type": "practice", "practice": "nadi-shodhana", "counts": "4:4", ` +
			`"pace": "own"`: "gasp tight belly pinched pressure " + always,
		`"type": "practice", "practice": "digital-control", "aperture": ` +
			`{"inhale": "wide", "exhale": "narrow"}`: "gasp early late tight belly pinched pressure " + always,
		`"type": "practice", "practice": "digital-control", "aperture": ` +
			`{"inhale": "wide", "exhale": "wide"}, "rounds": 2`: "gasp early late tight belly pressure " + always,
	} {
		s, _ := scene(t, "{"+passage+"}", 0, 0)
		var got []string
		for _, seen := range room.Signals {
			if seen.Fits(s.Passage, s.Passage.Measure) {
				got = append(got, seen.ID)
			}
		}
		assert.ElementsMatch(t, strings.Fields(want), got, passage)
	}
}
