package taught_test

import (
	"bytes"
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/language"

	"vastlantern/core/taught"
)

func square(counts string, rounds int, more string) string {
	return `{"type": "practice", "practice": "counted-breath", "counts": "` + counts + `", "rounds": ` + string(
		rune('0'+rounds),
	) + more + `}`
}

// What goes home is what was the point of the class: never its try-out, nor the first of a course.
func TestWhatGoesHome(t *testing.T) {
	const sigh = `{"type": "practice", "practice": "sigh", "rounds": 6}`
	for _, c := range []struct {
		name     string
		passages []string
		order    []int
	}{
		{"a class on 4:2:7", []string{square("4:4", 3, `, "trial": true`), square("4:4", 9, ""), square("4:2:6", 9, ""),
			square("4:2:7", 9, "")}, []int{4, 3, 2}},
		{"counts that go back at the end", []string{square("4:4", 9, ""), square("4:2:7", 9, ""), square("4:4", 9, "")},
			[]int{2, 3, 1}},
		{"the main figure, not the last", []string{square("4:4:4:4", 2, ""), square("4:4:4:4", 1, ""),
			square("4:2:8", 3, "")}, []int{1, 2, 3}},
		{"the practice that took longest", []string{square("4:4", 4, ""), nadi("4:4:8", 6, ""),
			`{"type": "free", "seconds": 600}`}, []int{2, 1}},
		{"what settles comes last", []string{sigh, sigh, square("4:4", 1, "")}, []int{3, 2, 1}},
		{"at own pace too", []string{nadi("4:4", 1, ""),
			`{"type": "practice", "practice": "nadi-shodhana", "pace": "own", "minutes": 5}`}, []int{2, 1}},
		{"no practice", []string{`{"type": "talk", "seconds": 60}`}, []int{}},
	} {
		p := read(t, c.passages...)
		lengths := make([]int64, len(p.Passages))
		for i := range lengths {
			lengths[i] = p.Passages[i].PlannedLength().Round()
		}
		assert.Equal(t, c.order, taught.CanGoHome(p, lengths), c.name)
	}
	p := read(t, nadi("4:4:8", 6, ""), square("4:4", 3, ""))
	assert.Equal(t, []int{2}, taught.CanGoHome(p, []int64{0, 24_000}), "what was not reached does not go home")
}

func TestHowMuchGoesHome(t *testing.T) {
	for _, c := range []struct {
		home   taught.Home
		amount string
		rounds int // of nadi 4:4:8 at 60, 32 s each
	}{
		{taught.Home{Minutes: 10, Pieces: 1, Days: 7}, "10 minutes a day, for 7 days", 19},
		{taught.Home{Minutes: 10, Pieces: 5, Days: 1, When: "while waiting"},
			"10 minutes a day, in 5 pieces, for 1 day, while waiting", 4},
		{taught.Home{Minutes: 1, Pieces: 10}, "1 minute a day, in 10 pieces", 1},
	} {
		assert.Empty(t, c.home.Check())
		assert.Equal(t, c.amount, language.English().Text(c.home.Amount()))
		assert.Equal(t, c.rounds, c.home.Rounds(&read(t, nadi("4:4:8", 3, "")).Passages[0]), c.amount)
	}
	rests := read(
		t,
		`{"type": "practice", "practice": "kapalabhati", "strokes": 30, "rate": 60, "rounds": 3, "rest_between": 20}`,
	)
	assert.Equal(
		t,
		4,
		taught.Home{Minutes: 3, Pieces: 1}.Rounds(&rests.Passages[0]),
		"four times 30 s and three rests are 180 s",
	)
	assert.Equal(t, taught.Home{Minutes: 3, Pieces: 1, Days: 7}, taught.UsualHome(20_000))
	assert.Equal(t, taught.Home{Minutes: 7, Pieces: 1, Days: 7}, taught.UsualHome(415_000))
	assert.Equal(t, 10, taught.UsualHome(3_600_000).Minutes)
	wrong := taught.Home{
		Minutes:  31,
		Pieces:   0,
		Days:     91,
		When:     string(make([]rune, 61)),
		Sentence: string(make([]rune, 301)),
	}.Check()
	assert.Len(t, wrong, 5)
	assert.Contains(t, language.English().Text(wrong[0]), "given 31, allowed: 1 to 30")
}

// What goes home is a plan of one passage, as it is practised there: led, no try-out, in as many rounds as fit a piece.
func TestAHomePracticeIsAPlanOfOnePassage(t *testing.T) {
	own := `{"type": "practice", "practice": "nadi-shodhana", "pace": "own", "minutes": 5, "counts": "4:4:8", "beside": ` +
		`"breathe"}`
	for _, c := range []struct {
		passage string
		at      taught.Next
		counts  string
		rounds  int
	}{
		{nadi("4:4:8", 3, `, "trial": true, "keep": true, "script": "for the class"`), taught.Next{}, "4:4:8", 19},
		{nadi("4:4:8", 3, ""), taught.Next{Counts: breath.Counts{Inhale: 3, Exhale: 6}, Tempo: breath.Int(30)}, "3:6", 16},
		{strings.Replace(own, `, "beside": "breathe"`, "", 1), taught.Next{}, "4:4:8", 19},
	} {
		doc, p := document(t, nadi("2:2", 3, ""), c.passage)
		require.NoError(t, taught.Home{Minutes: 10, Pieces: 1}.Plan(doc, p, 2, c.at))
		text, err := json.Marshal(doc)
		require.NoError(t, err)
		_, home, err := sheet.ReadPlan(bytes.NewReader(text))
		require.NoError(t, err, string(text))
		require.Len(t, home.Passages, 1)
		one := home.Passages[0]
		assert.Equal(
			t,
			[]any{c.counts, c.rounds, true, false, ""},
			[]any{one.Measure.Counts.String(), one.TotalRounds(one.Measure), one.Led(), one.Trial, one.Script},
		)
		assert.Equal(t, "Alternate nostril breath", home.Title)
		assert.Zero(t, home.Slot.Sign())
	}
	waiting, w := document(
		t,
		`{"type": "practice", "practice": "kapalabhati", "strokes": 30, "rate": 60, "rounds": 3, "rest_between": 0, `+
			`"rest_wait": true}`,
	)
	require.NoError(t, taught.Home{Minutes: 3, Pieces: 1}.Plan(waiting, w, 1, taught.Next{}))
	rests, err := json.Marshal(waiting)
	require.NoError(t, err)
	assert.Contains(t, string(rests), `"rest_between":30`, "nobody is there to go on")
	assert.NotContains(t, string(rests), "rest_wait")
	doc, p := document(t, `{"type": "practice", "practice": "panting-breath", "minutes": 1}`)
	require.NoError(t, taught.Home{Minutes: 6, Pieces: 3}.Plan(doc, p, 1, taught.Next{}))
	text, err := json.Marshal(doc)
	require.NoError(t, err)
	assert.Contains(t, string(text), `"minutes":2`, "what fills its minutes has those of a piece")
}

func document(t *testing.T, passages ...string) (plan.Document, *plan.Plan) {
	t.Helper()
	doc, p, err := sheet.ReadPlan(
		strings.NewReader(
			`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "slot_min": 20, "passages": [` + strings.Join(
				passages,
				",",
			) + `]}`,
		),
	)
	require.NoError(t, err)
	return doc, p
}

// What the plan says is the point goes home first, and climbs next time, though another practice took longer.
func TestThePointOfAClassThatIsChosen(t *testing.T) {
	p := read(t, nadi("4:4", 9, `, "lead_in": 0`)+
		`, {"type": "practice", "practice": "ujjayi", "rounds": 4, "lead_in": 0, "point": true}`)
	lengths := []int64{p.Passages[0].PlannedLength().Round(), p.Passages[1].PlannedLength().Round()}
	assert.Equal(t, []int{2, 1}, taught.CanGoHome(p, lengths))
	p.Passages[1].Point = false
	assert.Equal(t, []int{1, 2}, taught.CanGoHome(p, lengths))
	p.Passages[1].Point = true
	var h taught.History
	for range 3 {
		h.Add(taught.Of(p, nil, 3_600_000))
	}
	next, _ := h.Next("ujjayi")
	assert.True(t, next.Climbs)
	next, _ = h.Next("nadi-shodhana")
	assert.False(t, next.Climbs, "the rest is kept as it was")
}
