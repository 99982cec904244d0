package plan

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"vastlantern/core/breath"
	"vastlantern/core/practice"
	"vastlantern/language"
)

// one reads a plan of one passage at 60 counts a minute, where a count is a second.
func one(t testing.TB, fields object) *Passage {
	t.Helper()
	p, err := OneAt(breath.Int(60), Fields{fields})
	require.NoError(t, err)
	return &p
}

func n(text string) json.Number { return json.Number(text) }

func TestPlannedLengths(t *testing.T) {
	nadi := func(extra object) object {
		doc := object{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": n("6")}
		for field, value := range extra {
			doc[field] = value
		}
		return doc
	}
	for _, c := range []struct {
		name    string
		doc     object
		seconds int64
	}{
		{"talk by default", object{"type": "talk"}, 60},
		// Ten natural breaths, once attended to, take about a minute: common practice, with no source.
		{"ten natural breaths", object{"type": "free", "breaths": n("10")}, 60},
		{"lead-in and six rounds of 32", nadi(nil), 4 + 6*32},
		{"count-in", nadi(object{"count_in": n("8"), "lead_in": n("0")}), 8 + 6*32},
		{"exhale first", nadi(object{"entry": "exhale"}), 4 + 12 + 6*32},
		{"word before: every phase one count longer", nadi(object{"word": "before"}), 4 + 6*2*(5+5+9)},
		{"a pause after each exhale", nadi(object{"natural_pause": n("1.5")}), 4 + 6*(32+3)},
		{"rests between, none after the last", nadi(object{"rest_between": n("10")}), 4 + 6*32 + 5*10},
		{"closing: planned a:c, own counts, free", nadi(object{"closing": []any{
			map[string]any{"breaths": n("2")}, map[string]any{"breaths": n("1"), "counts": "4:5:6"},
			map[string]any{"seconds": n("30")},
		}}), 4 + 6*32 + 24 + 15 + 30},
		{"minutes: only whole rounds", object{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8",
			"minutes": n("3")}, 4 + 5*32},
		{"minutes: at least one round", object{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8",
			"minutes": n("0.1")}, 4 + 32},
		{"own pace with recall and no lead-in", object{"type": "practice", "practice": "surya-bhedana", "pace": "own",
			"minutes": n("2")}, 135},
		{"three rounds of twenty strokes at 60, with rests of 30", object{"type": "practice", "practice": "kapalabhati"},
			4 + 3*20 + 2*30},
		{"strokes that fit into minutes with their rests", object{"type": "practice", "practice": "kapalabhati",
			"minutes": n("1.9")}, 4 + 2*20 + 30},
		{"one round of the strokes that a minute holds at 90", object{"type": "practice", "practice": "panting-breath"},
			4 + 60},
		{"open phases as planned, as many rounds of 30 as fit", object{"type": "practice", "practice": "open-holds",
			"minutes": n("2.4")}, 4 + 4*30},
		{"steps where the practice has no counts: 4:4", object{"type": "practice", "practice": "kapalabhati",
			"rounds": n("1"), "closing": []any{map[string]any{"breaths": n("1")}}}, 4 + 20 + 8},
		{"own pace of a practice of strokes", object{"type": "practice", "practice": "kapalabhati", "pace": "own",
			"minutes": n("5")}, 315},
	} {
		assert.Equal(t, c.seconds*1000, one(t, c.doc).PlannedLength().Round(), c.name)
	}
}

// What planning inserts for each practice is a right plan of that practice.
func TestEveryCourseCanBePlanned(t *testing.T) {
	for _, p := range practice.Catalogue() {
		course, err := Course(p)
		require.NoError(t, err, p.ID)
		for _, doc := range course {
			passage := one(t, doc.values)
			assert.Same(t, p, passage.Practice)
			assert.Positive(t, passage.PlannedLength().Sign())
		}
		of := Of(p)
		assert.Equal(t, p.Name, of.Name())
	}
}

// Twenty rounds of breath of joy take a little under a minute: common practice, with no source.
func TestTwentyRoundsOfJoy(t *testing.T) {
	joy := one(t, object{"type": "practice", "practice": "breath-of-joy", "lead_in": n("0")}).PlannedLength()
	assert.InDelta(t, 55, joy.Float()/1000, 4)
}

// The most rounds that fit, found by trying one after the other.
func TestRoundsWithinAgreesWithTrying(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		within := breath.Ratio(rapid.Int64Range(1, 600_000).Draw(t, "within"), rapid.Int64Range(1, 7).Draw(t, "of"))
		round := breath.Ratio(rapid.Int64Range(1000, 90_000).Draw(t, "round"), rapid.Int64Range(1, 7).Draw(t, "of"))
		rest := breath.Int(rapid.Int64Range(0, 60_000).Draw(t, "rest"))
		r := 1
		for !within.Less(round.Times(r + 1).Add(rest.Times(r))) {
			r++
		}
		assert.Equal(t, r, RoundsWithin(within, round, rest))
	})
}

func TestFigures(t *testing.T) {
	f := one(
		t,
		object{"type": "practice", "practice": "nadi-shodhana", "counts": "4:16:8", "rounds": n("3"), "word": "before"},
	).Figures()
	assert.Equal(t, "5:17:9", f.TrueRatio, "pacing.md section 3 gives this example")
	assert.EqualValues(t, 17_000, f.LongestHold.Round())
	assert.EqualValues(t, 3*2*17_000, f.HeldFull.Round())
	assert.Equal(t, 6, f.Breaths)

	// 5:5 at 60 counts a minute is 6 breaths a minute, the pace of resonance-breathing studies (from memory: Lehrer and
	// others, about 0.1 Hz).
	f = one(t, object{"type": "practice", "practice": "counted-breath", "counts": "5:5"}).Figures()
	assert.True(t, f.PerMinute.Equal(breath.Int(6)))
}

func TestSplittingAPassage(t *testing.T) {
	for _, c := range []struct{ passage, first, second string }{
		{`{"type": "talk", "seconds": 75}`, `{"type": "talk", "seconds": 37.5}`, `{"type": "talk", "seconds": 37.5}`},
		{`{"type": "free", "breaths": 10, "script": "look"}`, `{"type": "free", "seconds": 30, "script": "look"}`,
			`{"type": "free", "seconds": 30}`},
		{`{"type": "practice", "practice": "nadi-shodhana", "rounds": 5, "prompts": [{"round": 2, "text": "a"}, {"round": ` +
			`4, "text": "b"}]}`,
			`{"type": "practice", "practice": "nadi-shodhana", "rounds": 3, "prompts": [{"round": 2, "text": "a"}]}`,
			`{"type": "practice", "practice": "nadi-shodhana", "rounds": 2, "prompts": [{"round": 1, "text": "b"}]}`},
		{`{"type": "practice", "practice": "counted-breath", "pace": "own", "minutes": 3, "closing": [{"breaths": 1}]}`,
			`{"type": "practice", "practice": "counted-breath", "pace": "own", "minutes": 1.5, "closing": []}`,
			`{"type": "practice", "practice": "counted-breath", "pace": "own", "minutes": 1.5, "closing": [{"breaths": 1}]}`},
		{`{"type": "practice", "practice": "nadi-shodhana", "pace": "own", "rounds": 5}`,
			`{"type": "practice", "practice": "nadi-shodhana", "pace": "own", "rounds": 3}`,
			`{"type": "practice", "practice": "nadi-shodhana", "pace": "own", "rounds": 2}`},
		{`{"type": "practice", "practice": "ujjayi", "rounds": 5, "lines": [{"text": "a", "round": [2, 5]}, {"text": "b"}, ` +
			`{"text": "c", "stage": "closing"}, {"text": "d", "stage": "opening"}, {"text": "e", "round": 4}, {"text": "f", ` +
			`"round": "last"}]}`,
			`{"type": "practice", "practice": "ujjayi", "rounds": 3, "lines": [{"text": "a", "round": [2, 3]}, {"text": "b"}, ` +
				`{"text": "d", "stage": "opening"}]}`,
			`{"type": "practice", "practice": "ujjayi", "rounds": 2, "lines": [{"text": "a", "round": [1, 2]}, {"text": "b"}, ` +
				`{"text": "c", "stage": "closing"}, {"text": "e", "round": 1}, {"text": "f", "round": "last"}]}`},
		{`{"type": "talk", "seconds": 60, "lines": [{"text": "a", "second": 5, "every": 10}]}`,
			`{"type": "talk", "seconds": 30, "lines": [{"text": "a", "second": 5, "every": 10}]}`,
			`{"type": "talk", "seconds": 30, "lines": [{"text": "a", "second": 5, "every": 10}]}`},
		{`{"type": "talk", "seconds": 60, "lines": [{"text": "a", "second": 10}, {"text": "b", "second": 45}]}`,
			`{"type": "talk", "seconds": 30, "lines": [{"text": "a", "second": 10}]}`,
			`{"type": "talk", "seconds": 30, "lines": [{"text": "b", "second": 15}]}`},
	} {
		doc := parse(t, `{"format": "vast-lantern-plan", "version": 1, "passages": [{"type": "talk"}, `+c.passage+`]}`)
		p, err := Read(doc)
		require.NoError(t, err)
		require.NoError(t, doc.Split(p, 2))
		assert.Equal(
			t,
			parse(t, `{"format": "vast-lantern-plan", "version": 1, "passages": [{"type": "talk"}, `+c.first+`, `+c.second+`]}`),
			doc,
		)
	}
	doc := parse(
		t,
		`{"format": "vast-lantern-plan", "version": 1, "passages": [{"type": "practice", "practice": "ujjayi", "rounds": `+
			`1}, {"type": "practice", "practice": "panting-breath"}, 7]}`,
	)
	p, _ := Read(doc)
	for number, says := range map[int]string{0: "no passage", 1: "one round", 2: "one round", 3: "no passage",
		4: "no passage"} {
		assert.Contains(t, language.English().Error(doc.Split(p, number)), says)
	}
	assert.Len(t, doc.Passages(), 3, "nothing was changed")
}

// parse returns a plan file.
func parse(t testing.TB, text string) (doc Document) {
	require.NoError(t, json.Unmarshal([]byte(text), &doc))
	return doc
}
