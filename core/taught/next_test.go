package taught_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/taught"
	"vastlantern/language"
)

// The rules of next time, case by case (handbook.md sections 4 and 8).
func TestNextTime(t *testing.T) {
	const whole = 3_600_000
	kapalabhati := `{"type": "practice", "practice": "kapalabhati", "strokes": 30, "rounds": 3, "rest_between": 30, ` +
		`"lead_in": 0}`
	same := func(passage string, times int) (list []string) {
		for range times {
			list = append(list, passage)
		}
		return list
	}
	for _, c := range []struct {
		name     string
		classes  []string // one passage each
		last     []pace.Adjustment
		practice string
		next     string
		why      string
	}{
		{"never led", nil, nil, "nadi-shodhana", "", ""},
		{"once", same(nadi("4:4", 3, ""), 1), nil, "nadi-shodhana", "4:4 x3", "Led as planned once: the same again"},
		{"twice", same(nadi("4:4", 3, ""), 2), nil, "nadi-shodhana", "4:4 x3", "Led as planned 2 times in a row"},
		{"three times, not yet long", same(nadi("4:4", 3, ""), 3), nil, "nadi-shodhana", "4:4 x4",
			"one step up, 4:4, 4 rounds"},
		{"of many rounds a fifth", same(nadi("4:4", 15, ""), 3), nil, "nadi-shodhana", "4:4 x18", "one step up"},
		{"five minutes: the base count", same(nadi("4:4:8", 10, ""), 3), nil, "nadi-shodhana", "5:5:10 x10",
			"one step up, 5:5:10, 10 rounds"},
		{"base six: the next rung", same(nadi("6:6", 13, ""), 3), nil, "nadi-shodhana", "4:8 x13",
			"one step up, 4:8, 13 rounds"},
		{"at the top of the ladder: the base count", same(nadi("6:24:12", 4, ""), 3), nil, "nadi-shodhana", "8:32:16 x4",
			"one step up"},
		{"other counts before do not count", append(same(nadi("4:4", 3, ""), 2), nadi("5:5", 3, "")), nil, "nadi-shodhana",
			"5:5 x3", "once"},
		{"holds dropped", same(nadi("4:4:8", 10, ", \"lead_in\": 0"), 3), []pace.Adjustment{{At: 70_000, Do: pace.DropHolds}},
			"nadi-shodhana", "4:8 x10", "eased last time: start from where it ended, 4:8, 10 rounds"},
		{"a hold released", same(nadi("4:4:8", 3, ", \"lead_in\": 0"), 3), []pace.Adjustment{{At: 5_000, Do: pace.Release}},
			"nadi-shodhana", "4:4:8 x3", "eased last time"},
		{"counts lowered", same(nadi("5:5:10", 3, ", \"lead_in\": 0"), 3),
			[]pace.Adjustment{{At: 1_000, Do: pace.ToCounts, Counts: [4]int{4, 4, 8, 0}}}, "nadi-shodhana", "4:4:8 x3",
			"eased last time"},
		{"counts raised is no easing", same(nadi("4:4:8", 3, ", \"lead_in\": 0"), 1),
			[]pace.Adjustment{{At: 1_000, Do: pace.ToCounts, Counts: [4]int{5, 5, 10, 0}}}, "nadi-shodhana", "5:5:10 x3",
			"once"},
		{"fewer rounds", same(nadi("4:4", 6, ", \"lead_in\": 0"), 3), []pace.Adjustment{{At: 20_000, Do: pace.LastRound}},
			"nadi-shodhana", "4:4 x6", "2 of 6 rounds were led last time: the same again"},
		{"strokes", same(kapalabhati, 3), nil, "kapalabhati", "35 st x3", "one step up, 35 strokes, 3 rounds"},
		{"enough", same(kapalabhati, 3), []pace.Adjustment{{At: 5_000, Do: pace.Enough}}, "kapalabhati", "30 st x3",
			"eased last time"},
		{"enough in the last round: as done", same(kapalabhati, 3), []pace.Adjustment{{At: 127_500, Do: pace.Enough}},
			"kapalabhati", "8 st x3", "start from where it ended, 8 strokes"},
		{"a try-out says nothing", same(nadi("4:4", 3, ", \"trial\": true"), 3), nil, "nadi-shodhana", "", ""},
	} {
		var h taught.History
		for i, passage := range c.classes {
			var script []pace.Adjustment
			if i == len(c.classes)-1 {
				script = c.last
			}
			h.Add(taught.Of(read(t, passage), script, whole))
		}
		next, known := h.Next(c.practice)
		got := ""
		switch {
		case known && next.Strokes > 0:
			got = fmt.Sprintf("%d st x%d", next.Strokes, next.Rounds)
		case known:
			got = fmt.Sprintf("%s x%d", next.Counts, next.Rounds)
		}
		assert.Equal(t, c.next, got, c.name)
		assert.Contains(t, language.English().Text(next.Why), c.why, c.name)
	}
}

// What is advised in one class (handbook.md section 4, common practice with no source) ends growth.
func TestNextTimeStaysWithinWhatIsAdvised(t *testing.T) {
	for _, c := range []struct{ passage, level, next, why string }{
		{`{"type": "practice", "practice": "breath-of-joy", "rounds": 20}`, "", "0:0 x20",
			"more is not advised in one class"},
		{`{"type": "practice", "practice": "breath-of-joy", "rounds": 12}`, "beginners", "0:0 x12",
			"more is not advised in one class"},
		{`{"type": "practice", "practice": "sigh", "rounds": 6}`, "", "4:6 x6", "settling practices do not progress"},
		{`{"type": "practice", "practice": "belly-breath", "rounds": 6}`, "experienced", "4:4 x6",
			"settling practices do not progress"},
		{`{"type": "practice", "practice": "kapalabhati", "strokes": 30, "rounds": 5, "rest_between": 30}`, "", "30 st x5",
			"more is not advised"},
		{nadi("4:4", 11, ""), "beginners", "5:5 x9", "one step up"}, // three minutes at 60
		{nadi("4:4", 11, ""), "some practice", "4:4 x13", "one step up"},
	} {
		h := taught.History{Level: c.level}
		for range 3 {
			h.Add(taught.Of(read(t, c.passage), nil, 3_600_000))
		}
		var next taught.Next
		for _, id := range []string{"sigh", "belly-breath", "kapalabhati", "nadi-shodhana", "breath-of-joy"} {
			if one, known := h.Next(id); known {
				next = one
			}
		}
		got := fmt.Sprintf("%s x%d", next.Counts, next.Rounds)
		if next.Strokes > 0 {
			got = fmt.Sprintf("%d st x%d", next.Strokes, next.Rounds)
		}
		assert.Equal(t, c.next, got, c.passage)
		assert.Equal(t, got == "5:5 x9", next.Capped, c.passage)
		assert.Contains(t, language.English().Text(next.Why), c.why, c.passage)
	}
}

// What is proposed follows the figure on which the class stayed longest, and a planned passage of another one stays as
// it is.
func TestNextTimeFollowsTheMainFigure(t *testing.T) {
	const whole = 3_600_000
	class := []string{
		square("4:4:4:4", 2, ""),
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4:4:4", "pace": "own", "minutes": 2}`,
		square("4:4:4:4", 1, ""),
		square("4:2:8", 1, ""),
	}
	var h taught.History
	h.Add(taught.Of(read(t, class...), nil, whole))
	next, known := h.Next("counted-breath")
	require.True(t, known)
	assert.Equal(t, "4:4:4:4, 2 rounds", language.English().Text(next.Words()), "not the last, 4:2:8 x1")
	assert.Contains(
		t,
		language.English().Text(next.Why),
		"Led as planned once",
		"a class counts once, however many passages it had",
	)
	for passage, want := range map[string]string{
		square("4:4:4:4", 2, ""): "4:4:4:4, 2 rounds",
		square("5:5:5:5", 2, ""): "4:4:4:4, 2 rounds", // one step back
		square("4:2:8", 1, ""):   "",                  // it was beside it
		square("4:4", 6, ""):     "",                  // far from it
		square("8:8:8:8", 2, ""): "4:4:4:4, 2 rounds", // far above it
	} {
		next, known := h.For(&read(t, passage).Passages[0])
		got := ""
		if known {
			got = language.English().Text(next.Words())
		}
		assert.Equal(t, want, got, passage)
	}
	assert.Empty(t, h.Advise(read(t, class...)), "the same again is no step up for any of its figures")
	for range 2 {
		h.Add(taught.Of(read(t, class...), nil, whole))
	}
	next, _ = h.Next("counted-breath")
	assert.Equal(t, "4:4:4:4, 3 rounds", language.English().Text(next.Words()))
	assert.True(t, next.Climbs)
}

func TestNextTimeGoesOnAtTheTempoThatItEndedWith(t *testing.T) {
	var h taught.History
	p := read(t, nadi("4:4", 3, `, "lead_in": 0`))
	h.Add(taught.Of(p, []pace.Adjustment{{At: 5_000, Do: pace.ToTempo, To: breath.Int(48)}}, 3_600_000))
	next, known := h.Next("nadi-shodhana")
	require.True(t, known)
	assert.Equal(t, "48", next.Tempo.String())
	fields := plan.NewFields("nadi-shodhana")
	next.Apply(fields, &p.Passages[0])
	text, err := fields.MarshalJSON()
	require.NoError(t, err)
	assert.JSONEq(
		t,
		`{"type": "practice", "practice": "nadi-shodhana", "tempo": 48}`,
		string(text),
		"what stays as it is is not written",
	)
}

// What is advised tells its tempo and how long it takes, whatever the last class was planned with.
func TestNextTimeTellsHowLongItTakes(t *testing.T) {
	for _, c := range []struct {
		passage string
		script  []pace.Adjustment
		whole   string
	}{
		// six rounds of two breaths of eight counts, at the plan's 60 a minute
		{nadi("4:4", 6, `, "lead_in": 0`), nil, "4:4, 6 rounds at 60, about 2 min"},
		{nadi("4:4", 6, `, "lead_in": 0`), []pace.Adjustment{{At: 1_000, Do: pace.ToTempo, To: breath.Int(40)}},
			"4:4, 6 rounds at 40, about 2 min"},
		{nadi("4:4:8", 6, `, "lead_in": 0`), []pace.Adjustment{{At: 1_000, Do: pace.ToCounts, Counts: [4]int{4, 0, 4, 0}}},
			"4:4, 6 rounds at 60, about 2 min"},
		{nadi("4:4", 3, `, "lead_in": 0`), nil, "4:4, 3 rounds at 60, about 48 s"},
		{`{"type": "practice", "practice": "kapalabhati", "strokes": 30, "rounds": 3, "rest_between": 30, "lead_in": 0}`, nil,
			"30 strokes, 3 rounds at 60, about 3 min"},
	} {
		var h taught.History
		h.Add(taught.Of(read(t, c.passage), c.script, 3_600_000))
		for _, id := range []string{"nadi-shodhana", "kapalabhati"} {
			if next, known := h.Next(id); known {
				assert.Equal(t, c.whole, language.English().Text(next.Whole()), c.passage)
			}
		}
	}
}

// A passage planned in minutes that was led slower and in fewer rounds is planned again so, and strokes as they ended.
func TestPlannedAgainAsTaught(t *testing.T) {
	p := read(
		t,
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4", "minutes": 2, "lead_in": 0}`,
		`{"type": "practice", "practice": "kapalabhati", "strokes": 30, "rounds": 2, "lead_in": 0, "closing": []}`,
		nadi("4:4", 3, ""),
	)
	r := taught.Of(p, []pace.Adjustment{
		{At: 1_000, Do: pace.ToTempo, To: breath.Int(50)}, {At: 20_000, Do: pace.LastRound},
		{At: 40_000, Do: pace.ToStrokes, To: breath.Int(20)}, {At: 200_000, Do: pace.End},
	}, 3_600_000)
	var doc plan.Document
	require.NoError(
		t,
		json.Unmarshal(
			[]byte(`{"passages": [{"type": "practice", "practice": "counted-breath", "counts": "4:4", "minutes": 2},
		{"type": "practice", "practice": "kapalabhati", "strokes": 30, "rounds": 2}, {}]}`),
			&doc,
		),
	)
	r.Plan(doc, p)
	text, err := doc.MarshalJSON()
	require.NoError(t, err)
	assert.JSONEq(
		t,
		`{"passages": [{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 3, "tempo": 50},
		{"type": "practice", "practice": "kapalabhati", "strokes": 20, "rounds": 2}, {}]}`,
		string(text),
		"the rounds that were kept, not those that the minutes hold",
	)
	var h taught.History
	h.Add(r)
	next, _ := h.Next("kapalabhati")
	assert.Equal(t, 20, next.Strokes)
}

// One thing climbs at a time, never two in one class, and only after three classes in a row without easing.
func TestOnlyOneThingClimbs(t *testing.T) {
	const whole = 3_600_000
	counted := `{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 5, "lead_in": 0}`
	other := `{"type": "practice", "practice": "ujjayi", "counts": "4:4", "rounds": 3, "lead_in": 0}`
	var h taught.History
	add := func(script []pace.Adjustment, passages ...string) {
		h.Add(taught.Of(read(t, passages...), script, whole))
	}
	says := func(practice, why string) {
		t.Helper()
		next, known := h.Next(practice)
		require.True(t, known)
		assert.Contains(t, language.English().Text(next.Why), why)
	}
	add(nil, counted)
	for range 3 {
		add(nil, other, counted)
	}
	says("counted-breath", "Led as planned 4 times in a row: one step up, 4:4, 6 rounds.")
	says(
		"ujjayi",
		"3 times in a row, but only one practice progresses at a time, and Counted breath is first: the same again.",
	)

	add([]pace.Adjustment{{At: 1_000, Do: pace.ToCounts, Counts: [4]int{3, 0, 4, 0}}}, other, counted)
	says("ujjayi", "eased last time")
	says("counted-breath", "5 times in a row, but something was eased last time: the same again.")
	for range 2 {
		add(nil, counted)
	}
	says("counted-breath", "something was eased 3 classes ago")
	add(nil, `{"type": "talk", "seconds": 10}`) // says nothing
	add(nil, counted)
	says("counted-breath", "8 times in a row: one step up")
	add(nil, other)
	says("counted-breath", "8 times in a row: one step up, 4:4, 6 rounds.")
}

func TestTwoPracticesThatClimbInOneClassAreSaid(t *testing.T) {
	var h taught.History
	rounds := func(a, b int) *plan.Plan {
		return read(t, nadi("4:4", a, ""), fmt.Sprintf(`{"type": "practice", "practice": "sigh", "rounds": %d}`, b))
	}
	h.Add(taught.Of(rounds(4, 3), nil, 3_600_000))
	for _, c := range []struct{ a, b, advice int }{{4, 3, 0}, {5, 3, 0}, {4, 4, 0}, {3, 4, 0}, {5, 4, 1}} {
		advice := h.Advise(rounds(c.a, c.b))
		require.Len(t, advice, c.advice, "%d and %d rounds", c.a, c.b)
		if c.advice > 0 {
			assert.Contains(
				t,
				language.English().Text(advice[0].Say),
				"Alternate nostril breath and Sighing out each take a step up",
			)
			assert.Zero(t, advice[0].Passage)
		}
	}
	h.Add(taught.Of(rounds(6, 5), []pace.Adjustment{{At: 70_000, Do: pace.End}}, 3_600_000))
	assert.Empty(t, h.Advise(rounds(6, 5)), "what was cut short and is planned again is no step")
}
