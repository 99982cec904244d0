package prepare_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/language"
	"vastlantern/studio/desk/desktest"
)

// Who leads in the teacher's place reads the page in the language of the teacher's screens.
func TestTheSubstitutesPageInAnotherLanguage(t *testing.T) {
	d := desktest.New(t)
	p, err := d.Plans.Add(t.Context(), []byte(`{"format": "vast-lantern-plan", "version": 1, "title": "Mittag",
		"starts_at": "2026-12-01T12:15:00Z", "passages": [
			{"type": "practice", "practice": "kapalabhati", "strokes": 20, "rounds": 2}]}`), 0)
	require.NoError(t, err)
	file, err := d.Plans.Substitute(language.With(t.Context(), "de"), p.ID)
	require.NoError(t, err)
	for _, want := range []string{
		`<html lang="de">`, "Dienstag, 1. Dezember 2026, 12:15", "<h2>Ablauf</h2>", "Schädelleuchten-Atem",
		"durch einen kurzen Zug des Nabels", "Das ist kein medizinischer Rat", "weglassen bei: ",
		"Übersetzt aus den englischen Vorsichtshinweisen",
	} {
		assert.Contains(t, string(file.Data), want)
	}
	for _, not := range []string{"Running order", "Gentler", "Stop and breathe"} {
		assert.NotContains(t, string(file.Data), not)
	}
	file, err = d.Plans.Substitute(language.With(t.Context(), "en"), p.ID)
	require.NoError(t, err)
	assert.NotContains(t, string(file.Data), "Translated") // it is as it was written
}
