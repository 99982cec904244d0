package prepare_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

// A plan can differ from the school, and who leads in the teacher's place reads how.
func TestAPlanDiffersFromTheSchool(t *testing.T) {
	d := desktest.New(t)
	page := func(head string) string {
		document := `{"format": "vast-lantern-plan", "version": 1, "title": "Lunch", ` + head + `"passages": [
			{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4", "rounds": 3}]}`
		p, err := d.Plans.Add(t.Context(), []byte(document), 0)
		require.NoError(t, err)
		require.Empty(t, p.Summary.Errors)
		file, err := d.Plans.Substitute(t.Context(), p.ID)
		require.NoError(t, err)
		return string(file.Data)
	}
	usual := page("")
	assert.Contains(t, usual, "Chin level.")
	assert.Contains(t, usual, "Index and middle finger are folded to the palm.")
	other := page(`"chin": "bowed", "fingers": "brows little", `)
	assert.NotContains(t, other, "Chin level.")
	assert.Contains(t, other, "Chin slightly bowed as the breath comes in.")
	assert.NotContains(t, other, "Index and middle finger are folded to the palm.")
	assert.Contains(t, other, "Index and middle finger rest between the brows.")
	assert.Contains(t, other, "Thumb for the right, the little finger for the left.")
	assert.Contains(t, other, "fingers brows or little\n", "the class as text has it too")
	assert.Contains(t, other, "chin bowed\n")

	wrong, err := d.Plans.Add(t.Context(), []byte(`{"format": "vast-lantern-plan", "version": 1, "chin": "up",
		"fingers": "folded folded", "numbers": "few", "passages": []}`), 0)
	require.NoError(t, err)
	var fields []string
	for _, e := range wrong.Summary.Errors {
		fields = append(fields, e.Field)
	}
	assert.ElementsMatch(t, []string{"chin", "fingers", "numbers"}, fields)
}

// The lead and room screens draw the fingers as the plan has them.
func TestTheScoreHasTheFingersOfThePlan(t *testing.T) {
	d := desktest.New(t)
	p, err := d.Plans.Add(t.Context(), []byte(`{"format": "vast-lantern-plan", "version": 1, "title": "Lunch",
		"fingers": "brows little", "numbers": "lamps", "passages": [
		{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4", "rounds": 3},
		{"type": "practice", "practice": "belly-breath", "attention": "back", "numbers": "hidden"}]}`), 0)
	require.NoError(t, err)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, Acknowledged: contract.StrongCautions(p)})
	require.NoError(t, err)
	room := score.ForTheRoom()
	assert.Equal(t, "brows little", room.FingersBy)
	assert.EqualValues(t, "lamps", room.Passages[0].Numbers)
	assert.EqualValues(t, "hidden", room.Passages[1].Numbers)
	assert.Equal(t, "back", room.Passages[1].HandPlace)
}
