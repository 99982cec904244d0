package library_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestAPracticeOfOnesOwn(t *testing.T) {
	d := desktest.New(t)
	file, err := d.Library.CopyPractice(t.Context(), "surya-bhedana", "Sun, slowly")
	require.NoError(t, err)
	assert.Contains(t, file.Text, "id: own-sun-slowly\nname: Sun, slowly\n")
	second, err := d.Library.CopyPractice(t.Context(), "surya-bhedana", "Sun slowly!")
	require.NoError(t, err)
	assert.Contains(t, second.Text, "id: own-sun-slowly-2\n", "ids are not taken twice")

	changed := strings.Replace(file.Text, "4:6", "4:8", 1)
	_, err = d.Library.SavePractice(t.Context(), contract.PracticeText{Text: changed, Revision: file.Revision})
	require.NoError(t, err)
	draft, err := d.Library.DraftPractice(t.Context(), strings.Replace(changed, "- sun\n", "", 1))
	require.NoError(t, err)
	assert.Contains(t, desktest.Words(draft.Problem), "not remove any", "cautions can be added only")
	draft, err = d.Library.DraftPractice(t.Context(), changed)
	require.NoError(t, err)
	require.Empty(t, draft.Problem)
	assert.Equal(t, "4:8", draft.Page.Pattern)
	assert.NotEmpty(t, draft.Sample.Phases)
	_, err = d.Library.SavePractice(t.Context(), contract.PracticeText{Text: "id: ["})
	assert.ErrorIs(t, err, studio.ErrInvalid)

	short := "own-sun-slowly x3"
	planned, err := d.Plans.Draft(
		t.Context(),
		contract.Draft{Document: desktest.Document(""), Change: &contract.Change{Do: contract.ChangeAdd, Text: short}},
	)
	require.NoError(t, err)
	require.Empty(t, planned.Problem)
	plan, err := d.Plans.Add(t.Context(), planned.Document, 0)
	require.NoError(t, err)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: plan.ID, Acknowledged: contract.StrongCautions(plan)})
	require.NoError(t, err)

	_, err = d.Library.RemovePractice(t.Context(), "own-sun-slowly")
	require.NoError(t, err)
	_, err = d.Library.RemovePractice(t.Context(), "own-sun-slowly")
	assert.ErrorIs(t, err, studio.ErrNotFound)
	after, err := d.Classes.Score(t.Context(), score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, score, after, "the class of the past stays what it was")
	kept, err := d.Plans.Plan(t.Context(), plan.ID)
	require.NoError(t, err)
	assert.Empty(t, kept.Summary.Errors, "and a plan keeps what it uses")
	_, err = d.Library.Sample(t.Context(), "own-sun-slowly")
	assert.ErrorIs(t, err, studio.ErrNotFound)
	_, err = d.Library.CopyPractice(t.Context(), "juggling", "")
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

func TestEveryPracticeIsPlannedAndLed(t *testing.T) {
	d := desktest.New(t)
	book, err := d.Library.Practices(t.Context(), 0)
	require.NoError(t, err)
	for _, p := range book.Practices {
		line := p.ID
		drafted, err := d.Plans.Draft(
			t.Context(),
			contract.Draft{Document: desktest.Document(""), Change: &contract.Change{Do: contract.ChangeAdd, Text: line}},
		)
		require.NoError(t, err, p.ID)
		require.Empty(t, drafted.Problem, p.ID)
		assert.Len(t, drafted.Summary.Passages, len(p.Course), p.ID)
		plan, err := d.Plans.Add(t.Context(), drafted.Document, 0)
		require.NoError(t, err, p.ID)
		score, err := d.Classes.Begin(
			t.Context(),
			contract.Lead{PlanID: plan.ID, EndRunning: true, Acknowledged: contract.StrongCautions(plan)},
		)
		require.NoError(t, err, p.ID)
		require.NotEmpty(t, score.Phases, p.ID)
		for _, strand := range score.Phases {
			assert.NotEmpty(t, strand.Word, "%s, %s", p.ID, strand.Kind)
		}
		sample, err := d.Library.Sample(t.Context(), p.ID)
		require.NoError(t, err)
		assert.Positive(t, sample.EndMS)
	}
}

// The example of a practice is said as it is in class, movements too.
func TestTheExampleIsInTheLanguageOfTheClass(t *testing.T) {
	d := desktest.New(t)
	_, err := d.Library.SaveSettings(t.Context(), contract.Settings{Language: "de"})
	require.NoError(t, err)
	score, err := d.Library.Sample(t.Context(), "sun-salutation")
	require.NoError(t, err)
	assert.Equal(t, "ein", score.Phases[0].Word)
	assert.Equal(t, "Arme hoch", score.Phases[0].Parts[0])
}
