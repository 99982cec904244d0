package programmes_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/plan"
	"vastlantern/core/plan/line"
	"vastlantern/language"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

// A programme to begin with has its steps as one types them in the language of the classes, and each is understood.
func TestProgrammesToBeginWithInOtherLanguages(t *testing.T) {
	for tag, first := range map[string]string{"de": "Bauchatmung 5 min", "fr": "souffle du ventre 5 min",
		"es": "respiración abdominal 5 min"} {
		d := desktest.New(t)
		_, err := d.Library.SaveSettings(t.Context(), contract.Settings{Language: tag})
		require.NoError(t, err)
		p := d.AddPlan(`
			{"type": "practice", "practice": "nadi-shodhana", "rounds": 2}`)
		offer, err := d.Programmes.Offer(language.With(t.Context(), tag), p.ID)
		require.NoError(t, err)
		names := line.NewNames([]string{tag}, nil)
		for _, one := range offer.Templates {
			assert.NotContains(t, one.About, "programme-template.")
			assert.NotContains(t, one.Programme.Name, "programme-template.")
			if one.ID == "seven-days" {
				assert.Equal(t, first, one.Programme.Steps[0].Says)
			}
			fields := plan.NewFields("nadi-shodhana")
			if one.Strokes {
				fields = plan.NewFields("kapalabhati")
			}
			for _, step := range one.Programme.Steps {
				if _, err := line.Restate(fields, step.Says); err == nil {
					continue
				}
				_, err := names.Plainly(step.Says)
				assert.NoError(t, err, "%s: %s", one.ID, step.Says)
			}
		}
	}
}
