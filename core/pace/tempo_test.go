package pace_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
)

// A tempo that is carried scales those of later counted passages by the new over the old, within the range; passages
// in minutes get the rounds that then fit.
func TestCarriedTempo(t *testing.T) {
	counted := func(more string) string {
		return `{"type": "practice", "practice": "counted-breath", "counts": "2:2", "lead_in": 0, ` + more + `}`
	}
	p := read(t, counted(`"rounds": 3`), talk, counted(`"rounds": 3, "tempo": 90`), counted(`"minutes": 1`),
		counted(`"pace": "own", "minutes": 1, "tempo": 100`), `{"type": "practice", "practice": "kapalabhati"}`,
		`{"type": "practice", "practice": "breath-of-joy"}`, counted(`"rounds": 1, "tempo": 25`))
	tempos := func(class *pace.Class) (list []string) {
		for _, passage := range class.Passages() {
			list = append(list, passage.Tempo.String())
		}
		return list
	}
	for _, c := range []struct {
		to    string
		carry bool
		want  []string
		fits  int // rounds of 4 counts in a minute
	}{
		{"30", false, []string{"30", "0", "90", "60", "100", "60", "88", "25"}, 15},
		{"30", true, []string{"30", "0", "45", "30", "50", "60", "88", "20"}, 7},
		{"90", true, []string{"90", "0", "120", "90", "120", "60", "88", "37.5"}, 22},
		{"60", true, []string{"60", "0", "90", "60", "100", "60", "88", "25"}, 15},
	} {
		class := pace.Begin(p)
		line := `500 tempo "to": ` + c.to
		if c.carry {
			line += `, "carry": true`
		}
		answer := class.Adjust(script(t, line)[0])
		require.Empty(t, answer.Refused)
		assert.Equal(t, c.want, tempos(class), line)
		assert.Equal(t, c.fits, class.Passages()[3].Total, line)
	}
	class := pace.Begin(read(t, `{"type": "practice", "practice": "breath-of-joy", "lead_in": 0}`, counted(`"rounds": 1`)))
	class.Adjust(script(t, `500 tempo "to": 44, "carry": true`)[0])
	assert.Equal(t, []string{"44", "60"}, tempos(class), "only a counted passage carries")
}

// Other parts than the rounds keep the plan's tempo where the practice is not counted.
func TestWhatATempoChanges(t *testing.T) {
	steps := `"opening": [{"breaths": 1, "counts": "1:1"}], "closing": [{"breaths": 1, "counts": "1:1"}]`
	for _, c := range []struct {
		name, passage, script string
		end                   int64
	}{
		{"counted: lead-in, opening and closing too",
			`{"type": "practice", "practice": "counted-breath", "counts": "1:1", "rounds": 1, "lead_in": 2, ` + steps + `}`,
			`500 tempo "to": 30`, 1000 + 2000 + 3*4000},
		{"joy: its rounds only",
			`{"type": "practice", "practice": "breath-of-joy", "tempo": 60, "rounds": 1, "lead_in": 2, ` + steps + `}`,
			`500 tempo "to": 30`, 2000 + 2000 + 8000 + 2000},
		{"strokes: their rate only",
			`{"type": "practice", "practice": "kapalabhati", "strokes": 4, "rounds": 1, "lead_in": 2, ` + steps + `}`,
			`500 tempo "to": 30`, 2000 + 2000 + 8000 + 2000},
		{"a natural pause is not counted",
			`{"type": "practice", "practice": "counted-breath", "counts": "1:1", "rounds": 1, "lead_in": 0, "natural_pause": 1}`,
			`500 tempo "to": 30`, 1000 + 1000 + 2000 + 1000},
		{"a rest is not either",
			`{"type": "practice", "practice": "counted-breath", "counts": "1:1", "rounds": 2, "lead_in": 0, "rest_between": 5}`,
			`3000 tempo "to": 30`, 2000 + 5000 + 4000},
	} {
		tl, answers := pace.Replay(read(t, c.passage), script(t, c.script))
		require.Empty(t, refused(answers), c.name)
		assert.Equal(t, c.end, tl.End, c.name)
	}
}

// Minutes are kept through counts and holds as through tempo: one minute of rounds of 8 s is 7, with 4 s over.
func TestMinutesAreKeptThroughCountsAndHolds(t *testing.T) {
	held := `{"type": "practice", "practice": "counted-breath", "counts": "2:4:2", "minutes": 1, "lead_in": 0}`
	for _, c := range []struct {
		name   string
		script []string
		rounds int
		end    int64
	}{
		{"as planned", nil, 7, 56_000},
		{"dropped in the first inhale: rounds of 4 s", []string{`500 drop-holds`}, 15, 60_000},
		{"dropped in the third hold: 16 s + 5 s, then 9 of 4 s", []string{`18500 drop-holds`}, 12, 16_000 + 5000 + 36_000},
		{"restored: 4 s, then 7 of 8 s", []string{`500 drop-holds`, `600 restore-holds`}, 8, 60_000},
		{"longer counts from the next round: 8 s, then 4 of 12 s", []string{`500 counts "to": [4, 4, 4, 0]`}, 5, 56_000},
		{"the same counts change nothing", []string{`500 release`, `2500 release`, `3500 counts "to": [2, 4, 2, 0]`}, 7,
			52_500},
		{"a release changes no total, the next change of value counts it",
			[]string{`2500 release`, `3500 counts "to": [2, 4, 3, 0]`}, 7, 4500 + 6*9000},
	} {
		tl, _ := pace.Replay(read(t, held), script(t, c.script...))
		rounds := 0
		for _, row := range tl.Rows {
			rounds = max(rounds, row.Round)
		}
		assert.Equal(t, c.rounds, rounds, c.name)
		assert.Equal(t, c.end, tl.End, c.name)
	}
}

// Trade values: 5:5 at 60 counts a minute is a breath in ten seconds (from memory: the pace of resonance-breathing
// studies, about 0.1 Hz); 4:16:8 alternate nostril is 56 s at 60 (common practice, with no source).
func TestTradeValuesInTheSheet(t *testing.T) {
	ends := func(text string) int64 { return pace.Sheet(read(t, text)).End }
	assert.EqualValues(
		t,
		60_000,
		ends(`{"type": "practice", "practice": "counted-breath", "counts": "5:5", "rounds": 6, "lead_in": 0}`),
	)
	assert.EqualValues(
		t,
		56_000,
		ends(`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:16:8", "rounds": 1, "lead_in": 0}`),
	)
	assert.EqualValues(t, 60_000, ends(`{"type": "free", "breaths": 10}`))
	// 10,000 counts at 53 a minute end where arithmetic says: 600000000/53 ms.
	assert.EqualValues(
		t,
		11_320_755,
		ends(`{"type": "practice", "practice": "counted-breath", "counts": "5:5", "rounds": 999, "tempo": 53, "lead_in": 0,
		"closing": [{"breaths": 1, "counts": "5:5"}]}`),
	)
}
