package prepare_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestMovingAClass(t *testing.T) {
	d := desktest.New(t)
	p := d.AddPlan(desktest.Rounds)
	to := d.Time.Add(26 * time.Hour)
	card, err := d.Plans.Move(t.Context(), p.ID, contract.MovePlan{StartsMS: float64(to.UnixMilli())})
	require.NoError(t, err)
	assert.InDelta(t, float64(to.UnixMilli()), *card.StartsMS, 1)
	stored, err := d.Plans.Plan(t.Context(), p.ID)
	require.NoError(t, err)
	assert.Contains(t, string(stored.Document), "2026-03-03T14:00:00Z")
	assert.Greater(t, stored.Revision, p.Revision, "a window that has it open is told")
	_, err = d.Plans.Move(t.Context(), 99, contract.MovePlan{})
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

func TestLastTime(t *testing.T) {
	d := desktest.New(t)
	g, err := d.Library.SaveGroup(t.Context(), contract.Group{Name: "Monday", Level: "beginners", Size: 9, Weekday: -1})
	require.NoError(t, err)
	none, err := d.Plans.LastTime(t.Context(), g.ID)
	require.NoError(t, err)
	assert.Zero(t, none.ClassID)
	p, err := d.Plans.Import(t.Context(), contract.PlanText{Text: "# Monday\ntempo 60\neven 4:4 x6\nrest 10 s\n",
		GroupID: g.ID})
	require.NoError(t, err)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID})
	require.NoError(t, err)
	d.Pass(20)
	d.Do(score.ClassID, "last-round")
	d.Pass(60)
	last, err := d.Plans.LastTime(t.Context(), g.ID)
	require.NoError(t, err)
	assert.Equal(t, score.ClassID, last.ClassID)
	assert.Equal(
		t,
		contract.LastPassage{Name: "Even breath", Practice: "counted-breath", Short: "4:4 x3", Says: []string{}},
		last.Passages[0],
		"as it was taught",
	)
}

// A substitute has the order, the words, what to take care of, and the class to read in.
func TestASubstituteHasEverything(t *testing.T) {
	d := desktest.New(t)
	g, err := d.Library.SaveGroup(
		t.Context(),
		contract.Group{
			Name:       "Monday",
			Level:      "beginners",
			Size:       9,
			Weekday:    -1,
			Conditions: map[string]int{"pregnancy": 1},
			Notes:      "The key is <at> the desk.",
		},
	)
	require.NoError(t, err)
	text := "# Monday\nslot 20\nstarts 2026-03-02 18:30\ntalk 1 min \"Arrive\"\n  script: Sit & settle.\nsquare x3\n  " +
		"r2 hold: soft jaw\nrest 2 min\n"
	p, err := d.Plans.Import(t.Context(), contract.PlanText{Text: text, GroupID: g.ID})
	require.NoError(t, err)
	file, err := d.Plans.Substitute(t.Context(), p.ID)
	require.NoError(t, err)
	page := string(file.Data)
	for _, there := range []string{"Monday 2 March 2026", "18:31:00", "Square breath", "4:4:4:4 x3", "r2 hold: soft jaw",
		"Sit &amp; settle.", "The key is &lt;at&gt; the desk.", "pregnancy", "Holding the breath", "slot 20"} {
		assert.Contains(t, page, there)
	}
	assert.NotContains(t, page, "http", "it asks nobody for anything")
}

func TestReadingWhatIsTyped(t *testing.T) {
	d := desktest.New(t)
	read, err := d.Plans.ReadTyped(t.Context(), contract.Typed{Text: "even x6\n  r3 hodl: jaw\nschön hodl 4\nsqua"})
	require.NoError(t, err)
	require.Len(t, read.Lines, 4)
	even := read.Lines[0].Passages[0]
	assert.Equal(t, "Even breath", even.Summary.Name)
	assert.NotEmpty(t, even.Summary.Round)
	assert.Equal(
		t,
		[]contract.TypedFact{
			{Field: "practice", Value: "Counted breath"},
			{Field: "counts", Value: "4:4"},
			{Field: "rounds", Value: "6"},
		},
		even.Facts,
	)
	assert.Contains(t, desktest.Words(read.Lines[1].Problem.Say), "hodl")
	doubt := read.Lines[2].Passages[0].Doubts[0]
	assert.Equal(t, "name", doubt.Kind, "what is not in the practice book is a stretch, and marked")
	assert.Equal(
		t,
		[]int{0, 5},
		[]int{doubt.Problem.From, doubt.Problem.To},
		"in UTF-16, as a browser counts",
	)
	assert.Equal(t, "square breath", read.Completions[0].Line)
	_, err = d.Library.CopyPractice(t.Context(), "counted-breath", "Lake breath")
	require.NoError(t, err)
	read, err = d.Plans.ReadTyped(t.Context(), contract.Typed{Text: "lake"})
	require.NoError(t, err)
	assert.Equal(t, "Lake breath 4:4 ×5", read.Completions[0].Says, "the teacher's own practices too")
	read, err = d.Plans.ReadTyped(t.Context(), contract.Typed{Text: "nadi 5:5\nnadi x3 x4"})
	require.NoError(t, err)
	assert.Equal(
		t,
		contract.TypedFact{Field: "rounds", Value: "6", Assumed: true},
		read.Lines[0].Passages[0].Facts[2],
		"what the line does not say is marked",
	)
	assert.Equal(
		t,
		"x4: the number of rounds was given before: leave one of the two out",
		desktest.Words(read.Lines[1].Passages[0].Doubts[0].Problem.Say),
	)
	wrong, err := d.Plans.ReadTyped(t.Context(), contract.Typed{Text: "even x3000"})
	require.NoError(t, err)
	assert.Contains(t, desktest.Words(wrong.Lines[0].Problem.Say), "3000")
}

func TestPhrases(t *testing.T) {
	d := desktest.New(t)
	_, err := d.Plans.Import(
		t.Context(),
		contract.PlanText{Text: "# A\neven x6\n  r3 exhale: like mist over water\nnadi x3\n  r1: elbow low\n"},
	)
	require.NoError(t, err)
	phrases, err := d.Plans.Phrases(t.Context(), "counted-breath")
	require.NoError(t, err)
	assert.Equal(t, "like mist over water", phrases.Phrases[0], "the same practice first")
	assert.Contains(t, phrases.Phrases, "Soft jaw, soft belly.", "what the practice suggests")
	assert.Equal(t, "elbow low", phrases.Phrases[len(phrases.Phrases)-1])
}
