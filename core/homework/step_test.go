package homework_test

import (
	"bytes"
	"encoding/json"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/homework"
	"vastlantern/core/plan"
	"vastlantern/core/school"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
	"vastlantern/language"
)

func stretches(list ...int) (all []homework.Stretch) {
	for i := 0; i < len(list); i += 2 {
		all = append(all, homework.Stretch{First: list[i], Last: list[i+1]})
	}
	return all
}

func TestTheDaysOfSteps(t *testing.T) {
	of := func(n int, unit homework.Unit) homework.Step { return homework.Step{Says: "x1", For: n, Unit: unit} }
	month := of(1, homework.Month)
	for _, c := range []struct {
		name, begins string
		steps        []homework.Step
		days         []homework.Stretch
	}{
		{"every day alike", "2026-11-30", nil, stretches(1, 7)},
		{"days, then until further notice", "", []homework.Step{of(3, homework.Day), of(4, homework.Day),
			of(0, homework.Week)}, stretches(1, 3, 4, 7, 8, 0)},
		{"weeks", "2026-11-30", []homework.Step{of(2, homework.Week), of(1, homework.Week)}, stretches(1, 14, 15, 21)},
		{"months from 30 November: December 30, January 30, the last of February", "2026-11-30",
			[]homework.Step{month, month, month, month}, stretches(1, 30, 31, 61, 62, 90, 91, 120)},
		{"months of a leap year", "2028-01-31", []homework.Step{month, month}, stretches(1, 29, 30, 60)},
		{"months of which the first day is not known", "", []homework.Step{month, month}, stretches(1, 30, 31, 60)},
		{"a month after days", "2026-12-25", []homework.Step{of(6, homework.Day), month, month},
			stretches(1, 6, 7, 37, 38, 65)},
	} {
		task := homework.Task{Minutes: 5, Pieces: 1, Days: 7, Begins: c.begins, Steps: c.steps}
		assert.Empty(t, task.Check(), c.name)
		assert.Equal(t, c.days, task.Stretches(), c.name)
		assert.Equal(t, c.days[len(c.days)-1].Last, task.TotalDays(), c.name)
	}
}

// Months are those of the calendar: on days that every month has they agree with the time package, which is not ours.
// The steps follow each other without a gap.
func TestTheDaysOfStepsFollowTheCalendar(t *testing.T) {
	const seed = 34
	random := rand.New(rand.NewPCG(seed, seed))
	units := []homework.Unit{homework.Day, homework.Week, homework.Month}
	for range 2000 {
		begins := time.Date(2020+random.IntN(20), time.Month(1+random.IntN(12)), 1+random.IntN(31), 0, 0, 0, 0, time.UTC)
		task := homework.Task{Begins: begins.Format(time.DateOnly)}
		at, plain := begins, true
		for range 1 + random.IntN(6) {
			step := homework.Step{Says: "x1", For: 1 + random.IntN(6), Unit: units[random.IntN(3)]}
			task.Steps = append(task.Steps, step)
			plain = plain && at.Day() <= 28
			switch step.Unit {
			case homework.Day:
				at = at.AddDate(0, 0, step.For)
			case homework.Week:
				at = at.AddDate(0, 0, 7*step.For)
			default:
				at = at.AddDate(0, step.For, 0)
			}
		}
		next := 1
		for _, days := range task.Stretches() {
			require.Equal(t, next, days.First)
			require.GreaterOrEqual(t, days.Last, days.First)
			next = days.Last + 1
		}
		if plain {
			require.Equal(t, at, begins.AddDate(0, 0, task.TotalDays()), "%+v", task)
		}
	}
}

// given returns a passage as it goes home, and what a step makes of it.
func given(t *testing.T, task homework.Task, passage string, step int) (*plan.Plan, error) {
	t.Helper()
	doc, p := document(t, passage)
	require.NoError(t, task.Plan(doc, p, 1, taught.Next{}))
	text, err := json.Marshal(doc)
	require.NoError(t, err)
	alone, p, err := sheet.ReadPlan(bytes.NewReader(text))
	require.NoError(t, err)
	return task.Set(alone, p, step)
}

func TestWhatAStepAsksFor(t *testing.T) {
	even := `{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 3, "lead_in": 0}`
	strokes := `{"type": "practice", "practice": "kapalabhati", "strokes": 20, "rate": 60, "rounds": 3, "rest_between": ` +
		`20}`
	const panting = `{"type": "practice", "practice": "panting-breath", "minutes": 1}`
	for _, c := range []struct {
		says, passage string
		pieces        int
		counts        string
		strokes       int
		rounds        int
	}{
		{"x3", even, 2, "4:4", 0, 3},                     // rounds are those of a piece
		{"one round", even, 1, "4:4", 0, 1},              //
		{"4 min", even, 1, "4:4", 0, 30},                 // 240 s in rounds of 8 s
		{"4 min", even, 2, "4:4", 0, 15},                 // minutes are those of a day
		{"hold 4", even, 1, "4:4:4", 0, 25},              // 5 minutes of the task
		{"with a hold of 4, x3", even, 1, "4:4:4", 0, 3}, //
		{"6:6 x5", even, 1, "6:6", 0, 5},
		{"30 strokes", strokes, 1, "", 30, 6}, // 6 x 30 s and 5 x 20 s are 280 s, 7 would be 330 s
		{"25 strokes x3", strokes, 1, "", 25, 3},
		{"2 min", panting, 1, "", 0, 1},
	} {
		task := homework.Task{Minutes: 5, Pieces: c.pieces, Steps: []homework.Step{
			{Says: "x1", For: 3, Unit: homework.Day}, {Says: c.says, Unit: homework.Day}}}
		require.Empty(t, task.Check())
		p, err := given(t, task, c.passage, 1)
		require.NoError(t, err, c.says)
		one := p.Passages[0]
		if c.counts != "" {
			assert.Equal(t, c.counts, one.Measure.Counts.String(), c.says)
		}
		if c.strokes > 0 {
			assert.Equal(t, c.strokes, one.Measure.Strokes, c.says)
		}
		assert.Equal(t, c.rounds, one.TotalRounds(one.Measure), c.says)
	}
	p, err := given(t, homework.Task{Minutes: 5, Pieces: 2, Steps: []homework.Step{{Says: "3 min", Unit: homework.Day}}},
		panting, 0)
	require.NoError(t, err)
	assert.Equal(t, "1.5", p.Passages[0].Minutes.String(), "what fills its minutes takes half of them in each piece")
}

func TestAStepThatCannotBe(t *testing.T) {
	even := `{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 3}`
	for says, wrong := range map[string]string{
		"x3 gladly": "Step 1, “x3 gladly”: ",
		"31 min":    "Minutes a day: given 31, allowed: 1 to 30",
		"99:99":     "Step 1, “99:99”: ",
	} {
		task := homework.Task{Minutes: 5, Pieces: 1, Steps: []homework.Step{{Says: says, Unit: homework.Day}}}
		_, err := given(t, task, even, 0)
		require.Error(t, err, says)
		assert.Contains(t, language.English().Error(err), wrong)
	}
	wrong := homework.Task{Minutes: 5, Pieces: 1, Evening: "twice", Begins: "30.11.2026", Steps: []homework.Step{
		{Says: " ", For: 1, Unit: homework.Day}, {Says: "x1", Unit: homework.Day}, {Says: "x1", For: 13, Unit: "month"},
		{Says: "x1", For: 1, Unit: "moon"}}}.Check()
	many := homework.Task{Minutes: 5, Pieces: 1, Steps: make([]homework.Step, 1_000_000)}.Check()
	assert.Len(t, many, 1, "too many steps are not looked at one by one")
	var says []string
	for _, w := range wrong {
		says = append(says, language.English().Text(w))
	}
	assert.Equal(t, []string{
		"Evening: given “twice”, allowed: same, half or nothing.",
		"First day: given “30.11.2026”, allowed: a day such as 2026-11-30.",
		"Step 1: say what is done, in 1 to 200 characters.",
		"Step 2: lasts 0, allowed: 1 to 90; the last step may also be 0, for an open end.",
		"Step 3: lasts 13, allowed: 1 to 12; the last step may also be 0, for an open end.",
		"Step 4: given “moon”, allowed: day, week or month.",
	}, says)
}

// What is proposed is within the limits of the school, and each of it can be given.
func TestWaysToGrow(t *testing.T) {
	even := `{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 3}`
	says := func(choices school.Choices, level, passage, id string) (list []string) {
		p := read(t, passage)
		for _, g := range homework.Growths(&p.Passages[0], homework.LimitsOf(choices, level)) {
			task := homework.Task{Minutes: 5, Pieces: 1, Steps: g.Steps}
			require.Empty(t, task.Check())
			for i, s := range g.Steps {
				at, err := given(t, task, passage, i)
				require.NoError(t, err, "%s: %s", g.ID, s.Says)
				assert.Empty(t, language.English().Text(homework.Exceeds(&at.Passages[0], 1)), "%s: %s", g.ID, s.Says)
				if g.ID == id {
					list = append(list, s.Says)
				}
			}
		}
		return list
	}
	assert.Equal(t, []string{"x1", "x3", "hold 4 x3"}, says(nil, "experienced", even, "rounds"))
	assert.Equal(t, []string{"x1", "x3", "x5"}, says(nil, "beginners", even, "rounds"), "no hold before it was prepared")
	assert.Equal(t, []string{"x1", "x3", "hold 4 x3"}, says(school.Choices{"newcomers": "equal"}, "beginners", even,
		"rounds"))
	assert.Equal(t, []string{"x1", "x3", "x5"}, says(school.Choices{"holding": "alone"}, "experienced", even, "rounds"))
	assert.Equal(t, []string{"3 min", "5 min", "7 min", "10 min"}, says(nil, "", even, "minutes"))
	assert.Equal(t, []string{"5 min", "7 min", "10 min", "15 min"}, says(nil, "", nadi("4:4:8", 3, ""), "minutes"))
	assert.Equal(t, []string{"4:4", "5:5", "6:6"}, says(nil, "beginners", even, "counts"))
	assert.Equal(t, []string{"4:4:8", "5:5:10", "6:6:12", "7:7:14"}, says(nil, "", nadi("4:4:8", 3, ""), "counts"))
	assert.Empty(t, says(nil, "", nadi("4:2:7", 3, ""), "counts"), "no ratio of whole counts comes next")
	strokes := `{"type": "practice", "practice": "kapalabhati", "strokes": 45, "rate": 60, "rounds": 1}`
	assert.Equal(t, []string{"45 strokes x1", "50 strokes x1", "55 strokes x1", "60 strokes x1"},
		says(nil, "", strokes, "strokes"))
	long, err := given(t, homework.Task{Minutes: 30, Pieces: 1, Steps: []homework.Step{{Says: "x1", For: 1, Unit: "day"},
		{Says: "20 min", Unit: "day"}}}, even, 1)
	require.NoError(t, err)
	assert.Equal(t, "Longer than is advised: at most 10 minutes a day.",
		language.English().Text(homework.Exceeds(&long.Passages[0], 1)))
}
