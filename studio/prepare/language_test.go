package prepare_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/language"
	"vastlantern/studio/contract"
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

// Names, steps and own words of ours on the page of a substitute, and on the plan, are in the reader's language.
func TestStepsAndNamesInAnotherLanguage(t *testing.T) {
	d := desktest.New(t)
	p, err := d.Plans.Add(t.Context(), []byte(`{"format": "vast-lantern-plan", "version": 1, "title": "Noon", "passages": [
		{"type": "practice", "practice": "nadi-shodhana", "rounds": 2, "lines": [{"round": 2, "phase": "hold", "text": "soft"}],
			"counts": "4:4:4", "closing": [{"seconds": 20, "text": "hand down, notice"}]},
		{"type": "free", "seconds": 60}, {"type": "practice", "practice": "counted-breath", "title": "Square breath",
			"counts": "4:4:4:4", "rounds": 2}]}`), 0)
	require.NoError(t, err)
	french := language.With(t.Context(), "fr")
	file, err := d.Plans.Substitute(french, p.ID)
	require.NoError(t, err)
	for _, want := range []string{"pose la main, ressens", "Respiration naturelle", "Souffle carré",
		"cycle 2, rétention : soft"} {
		assert.Contains(t, string(file.Data), want)
	}
	shown, err := d.Plans.Plan(french, p.ID)
	require.NoError(t, err)
	assert.Equal(t, "pose la main, ressens", shown.Summary.Passages[0].Closing[0].Args["text"])
	assert.Contains(t, string(shown.Document), "hand down, notice", "the plan itself stays")
}

// What was understood of a line is told in the language of whoever types, field by field.
func TestWhatWasUnderstoodInAnotherLanguage(t *testing.T) {
	d := desktest.New(t)
	for _, c := range []struct{ tag, typed, told string }{
		{"fr", "respiration alternée 4:4:8 six cycles, à droite d'abord, @50, mots seuls",
			"practice=Respiration alternée counts=4:4:8 rounds=6 side=right tempo=@50 voice=mots seuls"},
		{"es", "respiración solar 4:6 a su ritmo 3 minutos",
			"practice=Respiración solar counts=4:6 minutes=3 pace=ritmo propio"},
		{"de", "Quadrat x5, Zahlen beim Halten, Pause 30", "practice=Gezählter Atem counts=4:4:4:4 rounds=5 " +
			"voice=Zahlen beim Halten rest_between=Pause 30 s"},
		{"fr", "silence 2 min, attendre", "seconds=120 wait=t’attend"},
		{"en", "left nostril own", "practice=One nostril counts=4:4 minutes=2 side=left pace=own pace"},
	} {
		read, err := d.Plans.ReadTyped(language.With(t.Context(), c.tag), contract.Typed{Text: c.typed})
		require.NoError(t, err)
		require.Len(t, read.Lines, 1, c.typed)
		require.Nil(t, read.Lines[0].Problem, c.typed)
		var told []string
		for _, one := range read.Lines[0].Passages {
			assert.Empty(t, one.Doubts, c.typed)
			for _, f := range one.Facts {
				told = append(told, f.Field+"="+f.Value)
			}
		}
		assert.Equal(t, c.told, strings.Join(told, " "), c.typed)
	}
}
