package home_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

// What goes home is in the language of the class, whatever the teacher's screens are in.
func TestItGoesHomeInTheLanguageOfTheClass(t *testing.T) {
	d := desktest.New(t)
	p, err := d.Plans.Add(t.Context(), []byte(`{"format": "vast-lantern-plan", "version": 1, "title": "Abend",
		"language": "de", "passages": [{"type": "practice", "practice": "bhramari", "rounds": 6}]}`), 0)
	require.NoError(t, err)
	offer, err := d.Homes.GiveFromPlan(t.Context(), p.ID, contract.HomeGive{
		Passage: 1, HomeAmount: contract.HomeAmount{Minutes: 5, Pieces: 1, Days: 7},
	})
	require.NoError(t, err)
	assert.Contains(t, offer.Whens, "am Abend")
	sheet, err := d.Homes.Sheet(t.Context(), offer.Given[0].ID)
	require.NoError(t, err)
	assert.Equal(t, "Bienenatmung", sheet.Home.Name)
	assert.Equal(t, "5 Minuten am Tag, 7 Tage lang", sheet.Home.Amount)
	assert.Contains(t, sheet.How, "Ein durch die Nase, leicht.")
	assert.Contains(t, sheet.Stop, "Das ist kein medizinischer Rat")
	assert.Contains(t, sheet.TooMuch[0], "Hör jetzt auf")
}
