package pace_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/pace"
)

// Rounds of 4 s at 60 counts a minute.
func rounds(more string) string {
	return `{"type": "practice", "practice": "counted-breath", "counts": "2:2", "lead_in": 0, ` + more + `}`
}

func totals(c *pace.Class) (list []int) {
	for _, p := range c.Passages() {
		list = append(list, p.Total)
	}
	return list
}

func TestFinishBy(t *testing.T) {
	for _, c := range []struct {
		name     string
		passages []string
		script   []string
		totals   []int
		end      int64 // -1 where it waits
		late     int64
	}{
		{"one round from the one that kept most, the later first", []string{rounds(`"rounds": 4`), rounds(`"rounds": 4`)},
			[]string{`0 finish-by "to_ms": 28000`}, []int{4, 3}, 28_000, 0},
		{"then the other", []string{rounds(`"rounds": 4`), rounds(`"rounds": 4`)}, []string{`0 finish-by "to_ms": 27999`},
			[]int{3, 3}, 24_000, 0},
		{"shares, not numbers", []string{rounds(`"rounds": 10`), rounds(`"rounds": 2`)},
			[]string{`0 finish-by "to_ms": 40000`}, []int{9, 1}, 40_000, 0},
		{"no passage under one round, the current one not under its round in progress",
			[]string{rounds(`"rounds": 4`), rounds(`"rounds": 2`)},
			[]string{`9000 finish-by "to_ms": 9500`}, []int{3, 1}, 16_000, 6500},
		{"kept passages, own pace, talks and free breathing are not touched",
			[]string{rounds(`"rounds": 3, "keep": true`), rounds(`"pace": "own", "minutes": 1, "recall": 0`), talk,
				`{"type": "free", "seconds": 9}`},
			[]string{`0 finish-by "to_ms": 1`}, []int{3, 0, 0, 0}, 86_000, 85_999},
		{"it never adds rounds", []string{rounds(`"rounds": 2`)}, []string{`0 finish-by "to_ms": 999000`}, []int{2}, 8000, 0},
		{"in a rest it may come to the round just finished: the rest ends at t",
			[]string{rounds(`"rounds": 2, "rest_between": 10`), talk},
			[]string{`6000 finish-by "to_ms": 11000`}, []int{1, 0}, 11_000, 0},
		{"what waits is taken to end at its planned time", []string{`{"type": "talk", "seconds": 10, "wait": true}`,
			rounds(`"rounds": 3`)},
			[]string{`5000 finish-by "to_ms": 18000`, `10000 advance`}, []int{0, 2}, 18_000, 0},
		{"or at t, if that is past", []string{`{"type": "talk", "seconds": 10, "wait": true}`, rounds(`"rounds": 3`)},
			[]string{`12000 finish-by "to_ms": 18000`, `12000 advance`}, []int{0, 1}, 16_000, 0},
		{"a pause is taken to end at t", []string{rounds(`"rounds": 3`)},
			[]string{`6000 pause`, `10000 finish-by "to_ms": 15000`, `10000 resume`}, []int{2}, 14_000, 0},
		{"a passage whose closing has begun can lose none", []string{rounds(`"rounds": 2, "closing": [{"seconds": 20}]`)},
			[]string{`9000 finish-by "to_ms": 10000`}, []int{2}, 28_000, 18_000},
		{"it ends the keeping of minutes where it took a round", []string{rounds(`"minutes": 0.5`)},
			[]string{`0 finish-by "to_ms": 20000`, `0 tempo "to": 120`}, []int{5}, 1000 + 9500, 0},
	} {
		p := read(t, c.passages...)
		class := pace.Begin(p)
		var late int64
		for _, a := range script(t, c.script...) {
			answer := class.Adjust(a)
			assert.Empty(t, answer.Refused, c.name)
			late = max(late, answer.Late)
		}
		assert.Equal(t, c.totals, totals(class), c.name)
		assert.Equal(t, c.end, class.Timeline().End, c.name)
		assert.Equal(t, c.late, late, c.name)
	}
	_, answers := pace.Replay(read(t, rounds(`"rounds": 2`)), script(t, `3000 finish-by "to_ms": 3000`))
	assert.Equal(t, []string{"3000 finish-by"}, refused(answers), "the deadline must be after t")
}

func TestUndo(t *testing.T) {
	hour := rounds(`"rounds": 10`)
	for _, c := range []struct {
		name    string
		script  []string
		totals  []int
		end     int64
		refused []string
	}{
		{"what has not taken effect yet is taken back", []string{`500 tempo "to": 30`, `600 undo`}, []int{10, 0}, 45_000,
			nil},
		{"not once a row has run otherwise", []string{`500 tempo "to": 30`, `1500 undo`}, []int{10, 0}, 1000 + 39*2000 + 5000,
			[]string{"1500 undo"}},
		{"a total that nobody has reached", []string{`500 rounds "by": 3`, `30000 undo`}, []int{10, 0}, 45_000, nil},
		{"a second one takes back the one before", []string{`500 rounds "by": 3`, `600 rounds "by": 1`, `700 undo`,
			`800 undo`, `900 undo`}, []int{10, 0}, 45_000, []string{"900 undo"}},
		{"notes and signals are passed over", []string{`500 rounds "by": 3`, `600 note "text": "x"`, `700 signal "see": "y"`,
			`800 undo`}, []int{10, 0}, 45_000, nil},
		{"a refused one is none to take back", []string{`500 rounds "by": 3`, `600 release`, `800 undo`}, []int{10, 0},
			45_000, []string{"600 release"}},
		{"a class that was shortened", []string{`500 finish-by "to_ms": 30000`, `4000 undo`}, []int{10, 0}, 45_000, nil},
		{"only in the passage it was given in", []string{`500 rounds "to": 2`, `9000 undo`}, []int{2, 0}, 13_000,
			[]string{"9000 undo"}},
		{"nothing to take back", []string{`500 undo`}, []int{10, 0}, 45_000, []string{"500 undo"}},
		{"a pause has begun", []string{`500 pause`, `500 undo`, `1000 resume`}, []int{10, 0}, 46_000, []string{"500 undo"}},
		{"a round that was abandoned stays so", []string{`1000 again`, `1000 undo`}, []int{10, 0}, 46_000,
			[]string{"1000 undo"}},
		{"after the end all is refused", []string{`500 end`, `600 undo`}, []int{10, 0}, 500, []string{"600 undo"}},
	} {
		class := pace.Begin(read(t, hour, talk))
		var answers []pace.Answer
		for _, a := range script(t, c.script...) {
			answers = append(answers, class.Adjust(a))
		}
		assert.Equal(t, c.totals, totals(class), c.name)
		assert.Equal(t, c.end, class.Timeline().End, c.name)
		assert.Equal(t, c.refused, refused(answers), c.name)
	}
}

// A copy has what it can take back for itself, whatever is taken back and done in the class that it was made of.
func TestACopyTakesBackItsOwn(t *testing.T) {
	class := pace.Begin(read(t, rounds(`"rounds": 10`), talk))
	adjust := func(c *pace.Class, line string) pace.Answer { return c.Adjust(script(t, line)[0]) }
	adjust(class, `500 rounds "by": 3`)
	adjust(class, `600 tempo "to": 50`)
	copied := class.Copy()
	assert.Equal(t, pace.ToTempo, adjust(class, `700 undo`).Undone)
	adjust(class, `3500 drop-holds`)
	assert.Equal(t, pace.ToTempo, adjust(copied, `700 undo`).Undone)
	assert.Equal(t, pace.Rounds, adjust(copied, `800 undo`).Undone)
	assert.Equal(t, []int{10, 0}, totals(copied))
}

// What an adjustment would do is what it then does, and asking changes nothing.
func TestWould(t *testing.T) {
	class := pace.Begin(read(t, rounds(`"rounds": 3`), talk))
	before := class.Timeline()
	slower := script(t, `1500 tempo "to": 30`)[0]
	release := script(t, `1500 release`)[0]
	all := class.Previews(1500, []pace.Adjustment{slower, release})
	p := all[0]
	assert.Equal(t, before, class.Timeline())
	assert.Equal(t, pace.NextCount, p.Answer.When)
	assert.Equal(t, []int64{17_000, 27_000}, []int64{p.EndWithout, p.EndWith})
	assert.Equal(t, fact.New("refused.no-hold"), all[1].Answer.Refused)
	answer := class.Adjust(slower)
	assert.Equal(t, p.Answer, answer)
	assert.EqualValues(t, 27_000, class.Timeline().End)
	assert.Equal(t, []string{"60", "30"}, []string{answer.Before.Tempo.String(), answer.After.Tempo.String()})
}

// What an adjustment changed beyond its passage is in its answer: rounds that an end on time took, and later passages
// that have another tempo for it.
func TestAnswersTellWhatElseChanged(t *testing.T) {
	const even = `{"type": "practice", "practice": "counted-breath", "counts": "5:5", "rounds": 6, "lead_in": 0}`
	p := read(
		t,
		even,
		even,
		`{"type": "practice", "practice": "kapalabhati", "strokes": 10, "rate": 60, "rounds": 1, "lead_in": 0}`,
	)
	class := pace.Begin(p)
	kept := class.Adjust(pace.Adjustment{At: 500, Do: pace.FinishBy, To: breath.Int(500_000)})
	assert.Equal(t, 0, kept.Fewer, "nothing to do")
	refitted := class.Adjust(pace.Adjustment{At: 600, Do: pace.FinishBy, To: breath.Int(100_000)})
	assert.Equal(t, 3, refitted.Fewer) // 130 s without: three rounds of 10 s go
	carried := class.Adjust(pace.Adjustment{At: 700, Do: pace.ToTempo, To: breath.Int(50), Carry: true})
	assert.Equal(t, 1, carried.Carried, "strokes have a rate of their own")
	assert.Equal(t, 0, class.Adjust(pace.Adjustment{At: 800, Do: pace.ToTempo, To: breath.Int(55)}).Carried)
}
