package plan_test

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/plan"
	"vastlantern/core/plan/line"
	"vastlantern/language"
)

// What is advised and can be made so is not advised again.
func TestApplyingAdvice(t *testing.T) {
	names := line.NewNames([]string{"en"}, nil)
	for _, text := range []string{
		"even 4:4 x6\nrest 2 min", "talk\neven 4:4 x6\ntalk 30 s goodbye", "talk\nsquare x3\neven x4\nrest 2 min",
		"talk\nnadi 4:4 x6\nkapalabhati x2\npanting\nrest 2 min",
		"starts 2026-03-02 21:00\ntalk\nkapalabhati x2\neven x6\nrest 2 min", "talk\nsighs x8\nsighs x9\nrest 2 min",
		"talk\neven 5:5 x90\nrest 2 min", "talk\neven 9 min\nujjayi own 30 min\nrest 2 min",
		"talk\neven 4:4 x6 beside breathe\nrest 2 min",
	} {
		d, err := names.FromText(text, time.UTC)
		require.NoError(t, err, text)
		p, err := plan.Read(d)
		require.NoError(t, err, text)
		advice := p.Advise("")
		require.NotEmpty(t, advice, text)
		for _, a := range advice {
			if !a.CanApply() {
				continue
			}
			again, err := names.FromText(text, time.UTC)
			require.NoError(t, err)
			a.Apply(again)
			q, err := plan.Read(again)
			require.NoError(t, err, "%s: %s", text, a.Say)
			for _, b := range q.Advise("") {
				assert.NotEqual(t, a.Say, b.Say, text)
			}
		}
	}
}

// What is offered beside a passage fits its round in whole counts, is gentler, and is in the order of ease.
func TestWhatIsOfferedBeside(t *testing.T) {
	names := line.NewNames([]string{"en"}, nil)
	for typed, want := range map[string]string{
		"nadi 4:4:8 x6 @60":          "breathe 4:4",
		"square x3 @60":              "breathe 4:4",
		"even 8:8 x3 @60":            "4:4", // not 2:2, fifteen breaths a minute beside fewer than four
		"even 6:6 x3 @60":            "3:3",
		"even 4:4 x3 @60":            "3:4", // with a count left over
		"even 2:2 x3 @60":            "",    // nothing that is gentler takes six seconds
		"nadi 4:4 own 2 min":         "",
		"kapalabhati 20 strokes @60": "5:5",
		"kapalabhati 24 strokes @60": "6:6 4:4 3:3",
		"open holds x3":              "breathe",
		"rest 2 min":                 "",
		"square x3 pause 2 @60":      "breathe",
	} {
		f, err := names.Read(typed)
		require.NoError(t, err, typed)
		p, err := plan.One(f[0])
		require.NoError(t, err, typed)
		var got []string
		for _, o := range p.LaneOffers(p.Measure, 0) {
			got = append(got, o.Beside.String())
			with := f[0].Clone()
			with.Values()["beside"] = o.Beside.String()
			q, err := plan.One(with)
			require.NoError(t, err, "%s beside %s", typed, o.Beside)
			assert.NotContains(t, strings.Join(adviceOn(q), " "), "Give the breath", typed)
			if o.Beside.Shorter() {
				assert.LessOrEqual(t, o.Left, 1, "%s beside %s", typed, o.Beside)
				assert.LessOrEqual(t, o.PerMinute.Float(), float64(plan.UsualLaneLimit), "%s beside %s", typed, o.Beside)
			}
		}
		assert.Equal(t, want, strings.Join(got, " "), typed)
	}
	f, err := names.Read("kapalabhati 24 strokes @60")
	require.NoError(t, err)
	p, err := plan.One(f[0])
	require.NoError(t, err)
	for limit, want := range map[int]string{6: "6:6", 8: "6:6 4:4", 12: "6:6 4:4 3:3"} {
		var got []string
		for _, o := range p.LaneOffers(p.Measure, limit) {
			got = append(got, o.Beside.String())
		}
		assert.Equal(t, want, strings.Join(got, " "), "at most %d a minute", limit)
	}
}

// adviceOn returns what is advised for a class of one passage.
func adviceOn(p plan.Passage) []string {
	var says []string
	one := plan.Plan{Passages: []plan.Passage{p}}
	for _, a := range one.Advise("") {
		says = append(says, language.English().Text(a.Say))
	}
	return says
}
