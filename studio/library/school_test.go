package library_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/fact"
	"vastlantern/language"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestTheSchoolIsPlannedCuedShownAndCaredFor(t *testing.T) {
	d := desktest.New(t)
	settings, err := d.Library.Settings(t.Context())
	require.NoError(t, err)
	settings.Schools = map[string]string{"start": "right", "sides": "hand", "palms": "down", "pressure": "slow"}
	settings.OwnWords = map[string]string{"inhale": "breathe in", "hold": ""}
	settings, err = d.Library.SaveSettings(t.Context(), settings)
	require.NoError(t, err)
	g := d.WithGroup(func(g *contract.Group) { g.Schools = map[string]string{"start": "exhale"} })

	short := "nadi 4:4 x2"
	planned, err := d.Plans.Draft(
		t.Context(),
		contract.Draft{Document: desktest.Document(""), Change: &contract.Change{Do: contract.ChangeAdd, Text: short}},
	)
	require.NoError(t, err)
	assert.Contains(t, string(planned.Document), `"side": "right"`)
	differs, err := d.Plans.Draft(
		t.Context(),
		contract.Draft{
			Document: desktest.Document(""),
			Change:   &contract.Change{Do: contract.ChangeAdd, Text: short},
			GroupID:  g.ID,
		},
	)
	require.NoError(t, err)
	assert.Contains(t, string(differs.Document), `"entry": "exhale"`, "where the group differs")
	assert.NotContains(t, string(differs.Document), `"side"`)

	plan, err := d.Plans.Add(t.Context(), planned.Document, 0)
	require.NoError(t, err)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: plan.ID})
	require.NoError(t, err)
	inhale := score.Phases[1]
	assert.Equal(t, []string{"breathe in", "close the left"}, []string{inhale.Word, inhale.Side})
	assert.Equal(t, "breathe in close the left", inhale.Says[0])

	settings.OwnWords, settings.Language = map[string]string{}, "de"
	_, err = d.Library.SaveSettings(t.Context(), settings)
	require.NoError(t, err)
	still, err := d.Classes.Score(t.Context(), score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, score.Phases, still.Phases, "a class keeps the words that it was led with")
	german, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: plan.ID, EndRunning: true})
	require.NoError(t, err)
	assert.Equal(t, "ein links schließen", german.Phases[1].Says[0])

	book, err := d.Library.Practices(t.Context(), 0)
	require.NoError(t, err)
	for _, p := range book.Practices {
		if p.ID == "ujjayi" {
			assert.Contains(t, p.Shown, fact.New("shown.palms.down"))
		}
	}
	for says, change := range map[string]func(*contract.Settings){
		"Language":      func(s *contract.Settings) { s.Language = "xx" },
		"School":        func(s *contract.Settings) { s.Schools = map[string]string{"eyes": "crossed"} },
		"Keys: given":   func(s *contract.Settings) { s.Keys.Letters = map[string]string{"slower": "ä"} },
		"given to both": func(s *contract.Settings) { s.Keys.Letters = map[string]string{"slower": "y", "again": "y"} },
		"is an unknown action": func(s *contract.Settings) {
			s.Keys.Remote = []contract.RemoteKey{{Key: "PageDown", Press: contract.Long, Means: "dance"}}
		},
		"is there twice": func(s *contract.Settings) {
			s.Keys.Remote = []contract.RemoteKey{{Key: "F5", Press: contract.Short, Means: "pause"},
				{Key: "F5", Press: contract.Short, Means: "last"}}
		},
		"What to bring": func(s *contract.Settings) { s.Bring = strings.Repeat("a", 301) },
		"Words":         func(s *contract.Settings) { s.OwnWords = map[string]string{"nonsense": "x"} },
	} {
		bad := settings
		change(&bad)
		_, err := d.Library.SaveSettings(t.Context(), bad)
		assert.Contains(t, language.English().Error(err), says)
	}
}

// What pedals meant before there was more to choose is kept, and a form that knows nothing of keys changes none.
func TestPedalsOfOlderFilesAreKept(t *testing.T) {
	d := desktest.New(t)
	require.NoError(
		t,
		d.Store.SaveSetting(
			"teacher",
			[]byte(
				`{"schools": {}, "language": "en", "own_words": {}, "care_read": true, "pedal_down": "last", "pedal_up": "slower"}`,
			),
		),
	)
	settings, err := d.Library.Settings(t.Context())
	require.NoError(t, err)
	assert.Equal(t, []contract.RemoteKey{
		{Key: "PageDown", Press: contract.Short, Means: "last"}, {Key: "PageDown", Press: contract.Long, Means: "pause"},
		{Key: "PageDown", Press: contract.Double, Means: "pause"}, {Key: "PageUp", Press: contract.Short, Means: "slower"},
	}, settings.Keys.Remote)
	kept, err := d.Library.SaveSettings(t.Context(), contract.Settings{Revision: 1, Language: "en", CareRead: true})
	require.NoError(t, err)
	assert.Equal(t, settings.Keys, kept.Keys)
	none, err := d.Library.SaveSettings(
		t.Context(),
		contract.Settings{Revision: 2, Language: "en", Keys: contract.Keys{Remote: []contract.RemoteKey{}}},
	)
	require.NoError(t, err)
	assert.Empty(t, none.Keys.Remote, "who wants no pedal has none")
}
