package homework_test

import (
	"bytes"
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/homework"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
	"vastlantern/language"
)

func nadi(counts string, rounds int, more string) string {
	return `{"type": "practice", "practice": "nadi-shodhana", "counts": "` + counts + `", "rounds": ` +
		string(rune('0'+rounds)) + more + `}`
}

func read(t *testing.T, passages ...string) *plan.Plan {
	t.Helper()
	_, p := document(t, passages...)
	return p
}

func TestHowMuchGoesHome(t *testing.T) {
	for _, c := range []struct {
		home   homework.Task
		amount string
		rounds int // of nadi 4:4:8 at 60, 32 s each
	}{
		{homework.Task{Minutes: 10, Pieces: 1, Days: 7}, "10 minutes a day, for 7 days", 19},
		{homework.Task{Minutes: 10, Pieces: 5, Days: 1, When: "while waiting"},
			"10 minutes a day, in 5 pieces, for 1 day, while waiting", 4},
		{homework.Task{Minutes: 1, Pieces: 10}, "1 minute a day, in 10 pieces", 1},
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
		homework.Task{Minutes: 3, Pieces: 1}.Rounds(&rests.Passages[0]),
		"four times 30 s and three rests are 180 s",
	)
	assert.Equal(t, homework.Task{Minutes: 3, Pieces: 1, Days: 7}, homework.Usual(20_000))
	assert.Equal(t, homework.Task{Minutes: 7, Pieces: 1, Days: 7}, homework.Usual(415_000))
	assert.Equal(t, 10, homework.Usual(3_600_000).Minutes)
	wrong := homework.Task{
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
		require.NoError(t, homework.Task{Minutes: 10, Pieces: 1}.Plan(doc, p, 2, c.at))
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
	require.NoError(t, homework.Task{Minutes: 3, Pieces: 1}.Plan(waiting, w, 1, taught.Next{}))
	rests, err := json.Marshal(waiting)
	require.NoError(t, err)
	assert.Contains(t, string(rests), `"rest_between":30`, "nobody is there to go on")
	assert.NotContains(t, string(rests), "rest_wait")
	doc, p := document(t, `{"type": "practice", "practice": "panting-breath", "minutes": 1}`)
	require.NoError(t, homework.Task{Minutes: 6, Pieces: 3}.Plan(doc, p, 1, taught.Next{}))
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
