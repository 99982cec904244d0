package home_test

import (
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/core/sheet"
	"vastlantern/language"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
	"vastlantern/studio/home"
	"vastlantern/studio/led"
)

// growing is what a teacher says: one round for three days, then three, then with longer holds.
func growing() contract.HomeAmount {
	return contract.HomeAmount{
		Minutes: 5, Pieces: 1, Begins: "2026-11-30", Evening: "half", Ask: "Nora, 555 0100",
		Steps: []contract.HomeStep{{Says: "4:7 x1", For: 3, Unit: "day"}, {Says: "4:7 x3", For: 4, Unit: "day"},
			{Says: "hold 4 x4", Unit: "week"}},
	}
}

// A practice that grows is on one paper and in one page, each step as it was understood.
func TestAHomePracticeThatGrows(t *testing.T) {
	d := desktest.New(t)
	_, id := class(t, d)
	offer, err := d.Homes.GiveFromClass(t.Context(), id, contract.HomeGive{Passage: 3, HomeAmount: growing()})
	require.NoError(t, err)
	given := offer.Given[0]
	assert.Equal(t, "growing in 3 steps, and half of it in the evening", given.Amount)
	assert.Equal(t, []contract.HomeStretch{
		{First: 1, Last: 3, Typed: "4:7 x1", Says: "4:7, one round at 60, about 11 s"},
		{First: 4, Last: 7, Typed: "4:7 x3", Says: "4:7, 3 rounds at 60, about 33 s"},
		{First: 8, Typed: "hold 4 x4", Says: "4:4:7, 4 rounds at 60, about 1 min"},
	}, given.Stretches)
	s, err := d.Homes.Sheet(t.Context(), given.ID)
	require.NoError(t, err)
	assert.Contains(t, desktest.Words(strings.Join(s.Cautions, " ")), "Holding the breath", "of a later step too")
	assert.Contains(t, strings.Join(s.TooMuch, " "), "ask Nora, 555 0100.")
	assert.Contains(t, strings.Join(s.TooMuch, " "), "licensed professional")

	file, err := d.Homes.Page(t.Context(), given.ID, []byte(template), false)
	require.NoError(t, err)
	page := inPage(t, file.Data)
	assert.NotEmpty(t, page.Key)
	require.Len(t, page.Steps, 3)
	var rounds []int
	for _, step := range page.Steps {
		for _, choice := range step.Choices {
			rounds = append(rounds, page.Scores[choice.Score].Passages[0].Rounds)
		}
		evening := page.Scores[step.Choices[step.Evening].Score].Passages[0].Rounds
		all := page.Scores[step.Choices[step.Given].Score].Passages[0].Rounds
		assert.Equal(t, (all+1)/2, evening)
	}
	assert.Equal(t, []int{1, 1, 2, 3, 1, 2, 4}, rounds, "never more than the step")
	assert.Len(t, page.Scores, 6, "one round of the first two steps is the same")
	assert.Empty(t, page.Steps[0].Cautions)
	assert.NotEmpty(t, page.Steps[2].Cautions)

	young := desktest.New(t)
	young.Import(d.Export())
	assert.Equal(t, d.Export(), young.Export(), "all of it moves to another machine")

	for step, rounds := range []int{1, 3, 4} {
		score, err := d.Homes.Score(t.Context(), given.ID, step)
		require.NoError(t, err)
		assert.Equal(t, rounds, score.Passages[0].Rounds)
	}
	_, err = d.Homes.Score(t.Context(), given.ID, 3)
	assert.ErrorIs(t, err, studio.ErrInvalid)
}

// Before it is given, each step says what was understood, what is wrong with it and what to be careful of.
func TestStepsAreReadBeforeTheyAreGiven(t *testing.T) {
	d := desktest.New(t)
	_, id := class(t, d)
	give := contract.HomeGive{Passage: 3, HomeAmount: growing()}
	give.Steps = append(give.Steps[:2], contract.HomeStep{Says: "20 min", For: 1, Unit: "month"},
		contract.HomeStep{Says: "gladly", Unit: "day"})
	preview, err := d.Homes.PreviewFromClass(t.Context(), id, give)
	require.NoError(t, err)
	require.Len(t, preview.Steps, 4)
	assert.Equal(t, "4:7, one round at 60, about 11 s", preview.Steps[0].Says)
	assert.Empty(t, preview.Steps[0].Care)
	long := preview.Steps[2]
	assert.Equal(t, []int{8, 38}, []int{long.First, long.Last}, "from 7 December to 6 January")
	assert.Contains(t, language.English().Text(long.Care[0]), "Longer than is advised")
	require.NotNil(t, preview.Steps[3].Wrong)
	assert.Contains(t, language.English().Text(*preview.Steps[3].Wrong), "Step 4, “gladly”")

	_, err = d.Homes.GiveFromClass(t.Context(), id, give)
	assert.ErrorIs(t, err, studio.ErrInvalid)
	assert.Contains(t, language.English().Error(err), "Step 4, “gladly”")
	same, err := d.Homes.PreviewFromClass(t.Context(), id, contract.HomeGive{Passage: 3,
		HomeAmount: contract.HomeAmount{Minutes: 3, Pieces: 1, Days: 7}})
	require.NoError(t, err)
	require.Len(t, same.Steps, 1)
	assert.Equal(t, []any{1, 7, "4:2:7, 14 rounds at 60, about 3 min"},
		[]any{same.Steps[0].First, same.Steps[0].Last, same.Steps[0].Says})
}

// What waits for a teacher in class goes home too: by a touch, or by the beat at its usual length. The counts of the
// beat
// are those of the sheet without a hand.
func TestWhatWaitsPlaysAtHome(t *testing.T) {
	for _, c := range []struct {
		name, passage, beat string
		open                int // phases of one round that wait
	}{
		{"by hand", `{"type": "practice", "practice": "ujjayi", "counts": "4:2:6", "rounds": 3, "by_hand": "all"}`,
			`{"type": "practice", "practice": "ujjayi", "counts": "4:2:6", "rounds": 3}`, 3},
		{"holds by hand", `{"type": "practice", "practice": "ujjayi", "counts": "4:2:6", "rounds": 3, "by_hand": ["hold"]}`,
			`{"type": "practice", "practice": "ujjayi", "counts": "4:2:6", "rounds": 3}`, 1},
		{"open holds", `{"type": "practice", "practice": "open-holds", "open_seconds": [4, 10, 6, 5], "rounds": 3}`,
			`{"type": "practice", "practice": "open-holds", "open_seconds": [4, 10, 6, 5], "rounds": 3}`, 4},
	} {
		const plan = `{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [`
		doc, p, err := sheet.ReadPlan(strings.NewReader(plan + c.passage + `]}`))
		require.NoError(t, err)
		page, err := home.PageOf([]byte(template), doc, p, 1, led.PlanScore)
		require.NoError(t, err, c.name)
		data := inPage(t, page)
		choice := data.Steps[0].Choices[data.Steps[0].Given]
		require.GreaterOrEqual(t, choice.ByTouch, 0, c.name)
		byTouch, beat := data.Scores[choice.ByTouch], data.Scores[choice.Score]
		waits := 0
		for _, phase := range byTouch.Phases {
			require.GreaterOrEqual(t, phase.EndMS, phase.AtMS[0], "it has its usual length")
			if phase.Open {
				waits++
			}
		}
		assert.Equal(t, 3*c.open, waits, c.name)
		_, plain, err := sheet.ReadPlan(strings.NewReader(plan + c.beat + `]}`))
		require.NoError(t, err)
		agrees(t, pace.Sheet(plain).Rows, beat.Phases)
		assert.Equal(t, byTouch.EndMS, beat.EndMS, "as long as planned either way")
	}
}

// Twelve steps up to half an hour stay small enough to be sent.
func TestALongPageIsSmallEnoughToBeSent(t *testing.T) {
	built, err := os.ReadFile("../../web/dist/home.html")
	if os.IsNotExist(err) {
		t.Skip("the front end is not built")
	}
	require.NoError(t, err)
	d := desktest.New(t)
	_, id := class(t, d)
	amount := contract.HomeAmount{Minutes: 10, Pieces: 1, Begins: "2026-11-30", Evening: "half"}
	for _, says := range []string{"4:4 3 min", "4:4 5 min", "4:4 7 min", "4:4 10 min", "4:6 10 min", "4:8 10 min",
		"4:8 15 min", "4:4:8 15 min", "4:4:8 20 min", "5:5:10 20 min", "5:5:10 25 min", "5:5:10 30 min"} {
		amount.Steps = append(amount.Steps, contract.HomeStep{Says: says, For: 1, Unit: "month"})
	}
	offer, err := d.Homes.GiveFromClass(t.Context(), id, contract.HomeGive{Passage: 3, HomeAmount: amount})
	require.NoError(t, err)
	file, err := d.Homes.Page(t.Context(), offer.Given[0].ID, built, false)
	require.NoError(t, err)
	assert.Less(t, len(file.Data), 250_000)
	t.Logf("%d bytes", len(file.Data))
}

// The teacher's own lines and images, a mantra in the place of numbers and the gentler lane go along; what only the
// teacher reads does not.
func TestWhatGoesAlong(t *testing.T) {
	const text = `{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [{"type": "practice",
		"practice": "counted-breath", "counts": "4:4:4", "rounds": 3, "voice": "syllables", "syllables": ["sa", "ta", "na", "ma"],
		"beside": "breathe", "script": "watch the shoulders", "lines": [
		{"phase": "inhale", "text": "fill from below", "who": "all"}, {"phase": "exhale", "text": "only for me", "who": "teacher"}]}]}`
	doc, p, err := sheet.ReadPlan(strings.NewReader(text))
	require.NoError(t, err)
	page, err := home.PageOf([]byte(template), doc, p, 1, led.PlanScore)
	require.NoError(t, err)
	data := inPage(t, page)
	score := data.Scores[data.Steps[0].Choices[data.Steps[0].Given].Score]
	said := map[string]bool{}
	for _, c := range score.Cues {
		said[c.Text] = true
	}
	assert.True(t, said["fill from below"])
	assert.False(t, said["only for me"])
	assert.Contains(t, score.Phases[len(score.Phases)-1].Says, "ma")
	assert.NotEmpty(t, score.Lane)
	assert.Empty(t, score.Passages[0].Script)
}
