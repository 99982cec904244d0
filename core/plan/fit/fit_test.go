package fit

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
)

func parse(t require.TestingT, text string) (plan.Document, *plan.Plan) {
	var doc plan.Document
	require.NoError(t, json.Unmarshal([]byte(text), &doc))
	p, err := plan.Read(doc)
	require.NoError(t, err)
	return doc, p
}

func minutes(n float64) breath.Exact { return breath.Int(int64(n * 60_000)) }

// bruteForce looks at every choice of up to most rounds and returns the nearest, as To says what is nearest.
func bruteForce(p *plan.Plan, time breath.Exact, most int) (best []int) {
	var free []int
	fixed, planned := p.Length(), breath.Exact{}
	for i := range p.Passages {
		if one := &p.Passages[i]; one.Led() && !one.Keep {
			free = append(free, i)
			planned = planned.Add(round(one).Times(one.TotalRounds(one.Measure)))
		}
	}
	within := time.Sub(fixed.Sub(planned))
	rounds := make([]int, len(free))
	var bestOff, bestTaken breath.Exact
	var try func(int)
	try = func(at int) {
		if at < len(free) {
			for rounds[at] = 1; rounds[at] <= most; rounds[at]++ {
				try(at + 1)
			}
			return
		}
		var taken, off breath.Exact
		for i, passage := range free {
			one := &p.Passages[passage]
			taken = taken.Add(round(one).Times(rounds[i]))
			ideal := within.Mul(breath.Int(int64(one.TotalRounds(one.Measure)))).Div(planned)
			d := breath.Int(int64(rounds[i])).Sub(ideal).Mul(round(one))
			off = off.Add(d.Mul(d))
		}
		if within.Less(taken) {
			return
		}
		better := best == nil || off.Less(bestOff) ||
			off.Equal(bestOff) && (bestTaken.Less(taken) || bestTaken.Equal(taken) && slices.Compare(rounds, best) > 0)
		if better {
			best, bestOff, bestTaken = append([]int{}, rounds...), off, taken
		}
	}
	try(0)
	return best
}

func round(p *plan.Passage) breath.Exact { return p.RoundSpan(p.Measure).Add(p.BetweenSpan(p.Measure)) }

func TestFittingFindsTheNearestChoiceThereIs(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, 3).Draw(t, "passages")
		passages := []string{`{"type": "talk", "seconds": 60}`}
		for i := range n { // a practice each, and less time than is advised for any
			passages = append(
				passages,
				fmt.Sprintf(
					`{"type": "practice", "practice": "%s", "counts": "%d:%d", "rounds": %d, "tempo": %d, "rest_between": %d, `+
						`"rest_lead_in": %d, "keep": %t}`,
					[]string{"counted-breath", "ujjayi", "partner-breath"}[i],
					rapid.IntRange(1, 9).Draw(t, "in"),
					rapid.IntRange(1, 9).Draw(t, "out"),
					rapid.IntRange(1, 5).Draw(t, "rounds"),
					rapid.IntRange(40, 70).
						Draw(t, "tempo"),
					rapid.SampledFrom([]int{0, 0, 20}).Draw(t, "rest"),
					rapid.IntRange(0, 3).Draw(t, "rest lead-in"),
					rapid.IntRange(0, 5).Draw(t, "keep") == 0,
				),
			)
		}
		_, p := parse(t, `{"format": "vast-lantern-plan", "version": 1, "passages": [`+strings.Join(passages, ",")+`]}`)
		time := breath.Int(int64(rapid.IntRange(60, 300).Draw(t, "seconds")) * 1000)
		fit := To(p, time, "")
		require.True(t, fit.Exact)
		want := bruteForce(p, time, 12)
		var got []int
		for _, rounds := range fit.Rounds {
			if rounds > 0 {
				got = append(got, rounds)
			}
		}
		switch {
		case len(got) == 0:
		case want == nil:
			assert.Positive(t, fit.Over.Sign(), "one round each is too long")
			for _, rounds := range got {
				assert.Equal(t, 1, rounds)
			}
		case slices.Max(got) < 12: // as far as the brute force looks
			assert.Equal(t, want, got)
			assert.Zero(t, fit.Over.Sign())
		}
		for i, rounds := range fit.Rounds { // and the length is that of the plan with these rounds
			if rounds > 0 {
				p.Passages[i].Rounds = rounds
			}
		}
		assert.True(t, p.Length().Equal(fit.Length))
	})
}

func TestFitKeepsProportions(t *testing.T) {
	doc, p := parse(t, `{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [
		{"type": "practice", "practice": "counted-breath", "counts": "5:5", "rounds": 12, "lead_in": 0},
		{"type": "practice", "practice": "nadi-shodhana", "counts": "5:5", "rounds": 6, "lead_in": 0, "closing": []},
		{"type": "practice", "practice": "ujjayi", "counts": "5:5", "minutes": 1, "lead_in": 0},
		{"type": "practice", "practice": "ujjayi", "counts": "5:5", "rounds": 6, "lead_in": 0, "keep": true},
		{"type": "free", "seconds": 60}]}`)
	require.EqualValues(t, 120_000+120_000+60_000+60_000+60_000, p.Length().Round())
	fit := To(p, minutes(4.5), "") // of seven minutes two are fixed: half of the other five
	assert.Equal(t, []int{6, 3, 3, 0, 0}, fit.Rounds)
	assert.Zero(t, fit.Over.Sign())
	assert.Equal(t, []int{24, 12, 12, 0, 0}, To(p, minutes(12), "").Rounds, "and longer where there is time")
	short := To(p, minutes(2), "")
	assert.Equal(t, []int{1, 1, 1, 0, 0}, short.Rounds)
	assert.EqualValues(t, 40_000, short.Over.Round(), "10 + 20 + 10 s beyond the two minutes")

	fit.Apply(doc, p)
	fitted, err := plan.Read(doc)
	require.NoError(t, err)
	assert.EqualValues(t, 270_000, fitted.Length().Round())
	assert.Equal(t, 3, fitted.Passages[2].Rounds, "planned in rounds now")
}

// How much of a practice is proposed: handbook.md section 4, common practice with no source.
func TestNothingIsProposedBeyondWhatIsAdvised(t *testing.T) {
	even := func(rounds int, more string) string {
		return fmt.Sprintf(
			`{"type": "practice", "practice": "counted-breath", "counts": "5:5", "rounds": %d, "lead_in": 0%s}`,
			rounds,
			more,
		)
	}
	const rest, sighs = `{"type": "free", "seconds": 60}`,
		`{"type": "practice", "practice": "sigh", "rounds": 2, "lead_in": 0}`
	for _, c := range []struct {
		name     string
		passages []string
		level    string
		rounds   []int // fitted to an hour
	}{
		{"even breath is ten minutes at most", []string{even(6, ""), rest}, "", []int{60, 0}},
		{"and three with beginners", []string{even(6, ""), rest}, "beginners", []int{18, 0}},
		{"square five", []string{even(6, `, "counts": "5:5:5:5"`)}, "experienced", []int{15}},
		{"in one class, however many passages", []string{even(6, ""), rest, even(3, "")}, "", []int{40, 0, 20}},
		{"what is planned beyond it stays", []string{even(90, "")}, "beginners", []int{90}},
		{"rests count", []string{even(6, `, "rest_between": 10, "rest_lead_in": 0`)}, "", []int{30}},
		{"sighs are told by rounds", []string{sighs, even(1, "")}, "", []int{6, 60}},
	} {
		_, p := parse(
			t,
			`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "slot_min": 60, "passages": [`+strings.Replace(
				strings.Join(c.passages, ","),
				`"counts": "5:5", "rounds": 6, "lead_in": 0, "counts"`,
				`"rounds": 6, "lead_in": 0, "counts"`,
				1,
			)+`]}`,
		)
		assert.Equal(t, c.rounds, To(p, minutes(60), c.level).Rounds, c.name)
		for _, a := range Additions(p, c.level) {
			if a.Passage > 0 {
				i := a.Passage - 1
				assert.Equal(t, p.AdvisedRounds(i, c.level)-p.Passages[i].Rounds, a.Rounds, c.name)
			}
		}
	}
}

func TestManyPassagesAreFittedInTime(t *testing.T) {
	var passages []string
	for i := range 200 {
		passages = append(
			passages,
			fmt.Sprintf(
				`{"type": "practice", "practice": "counted-breath", "counts": "%d:%d", "rounds": %d, "tempo": %d}`,
				2+i%5,
				3+i%7,
				1+i%4,
				40+i%31,
			),
		)
	}
	_, p := parse(t, `{"format": "vast-lantern-plan", "version": 1, "passages": [`+strings.Join(passages, ",")+`]}`)
	time := p.Length().Times(2).Div(breath.Int(3))
	fit := To(p, time, "")
	assert.Zero(t, fit.Over.Sign())
	assert.Less(t, time.Sub(fit.Length).Float(), time.Float()/50)
}

func TestWhatCouldBeAdded(t *testing.T) {
	_, p := parse(t, `{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "slot_min": 5, "passages": [
		{"type": "practice", "practice": "counted-breath", "counts": "5:5", "rounds": 6, "lead_in": 0},
		{"type": "practice", "practice": "nadi-shodhana", "counts": "5:5", "rounds": 3, "lead_in": 0, "closing": [], "rest_between": 10}]}`)
	var got []string // 5:00 less 1:00 and 1:20
	for _, a := range Additions(p, "") {
		got = append(got, fmt.Sprintf("%d: %d, %d ms", a.Passage, a.Rounds, a.Length.Round()))
	}
	assert.Equal(t, []string{"1: 16, 160000 ms", "2: 5, 150000 ms", "0: 0, 150000 ms"}, got)
	p.Slot = breath.Int(3)
	assert.Empty(t, Additions(p, ""), "less than a minute")
	p.Slot = breath.Exact{}
	assert.Empty(t, Additions(p, ""), "no slot")
}

func TestSolvingOnePassageForItsEnd(t *testing.T) {
	doc, p := parse(t, `{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [
		{"type": "talk", "seconds": 60},
		{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 10, "lead_in": 4},
		{"type": "practice", "practice": "kapalabhati", "rounds": 2, "strokes": 30, "rate": 60, "lead_in": 0, "closing": [], "opening": []}]}`)
	require.EqualValues(t, 144_000, EndAt(p, 1).Round())
	rounds, fits := RoundsToEnd(p, 1, breath.Int(200_000))
	assert.True(t, fits)
	assert.Equal(t, 17, rounds, "60 + 4 + 17 x 8 = 200")
	rounds, fits = RoundsToEnd(p, 1, breath.Int(199_999))
	assert.Equal(t, 16, rounds)
	assert.True(t, fits)
	rounds, fits = RoundsToEnd(p, 1, breath.Int(70_000))
	assert.Equal(t, 1, rounds)
	assert.False(t, fits)

	tempo, fits := TempoToEnd(p, 1, breath.Int(160_000))
	assert.True(t, fits)
	assert.Equal(t, "50.4", tempo.String(), "84 counts in 100 s")
	doc.Passages()[1].SetTempo(&p.Passages[1], tempo)
	changed, err := plan.Read(doc)
	require.NoError(t, err)
	assert.EqualValues(t, 160_000, EndAt(changed, 1).Round())
	_, fits = TempoToEnd(p, 1, breath.Int(70_000))
	assert.False(t, fits, "not at 120 either")
	tempo, fits = TempoToEnd(p, 1, breath.Int(3_600_000))
	assert.True(t, fits)
	assert.Equal(t, "20", tempo.String(), "no slower than the field allows")
}
