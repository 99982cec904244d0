package lead_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/core/words"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

// A screen that chose a language gets the same class: the same phases at the same milliseconds, in its own words, also
// after every press.
func TestAScreenInALanguageOfItsOwn(t *testing.T) {
	d := desktest.New(t)
	p := d.AddPlan(`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 6,
		"beside": "breathe"}`)
	begun, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, Acknowledged: contract.StrongCautions(p)})
	require.NoError(t, err)
	class := begun.ClassID
	at := func(language string) *contract.Score {
		t.Helper()
		score, err := d.Classes.RunningScoreIn(t.Context(), language)
		require.NoError(t, err)
		require.NotNil(t, score)
		return score
	}
	same := func(why string) {
		t.Helper()
		led := at("")
		for tag, w := range words.Languages {
			other := at(tag)
			require.Equal(t, tag, other.Language, why)
			require.Len(t, other.Phases, len(led.Phases), why)
			for i, phase := range led.Phases {
				there := other.Phases[i]
				require.Equal(t, []any{phase.AtMS, phase.EndMS, phase.Kind, phase.Through, phase.Round, phase.Kept},
					[]any{there.AtMS, there.EndMS, there.Kind, there.Through, there.Round, there.Kept}, why)
				if phase.Kind.Moves() && there.Word != "" {
					require.True(t, strings.HasPrefix(there.Word, w.Text(string(phase.Kind))), "%s: %s", tag, there.Word)
				}
			}
			require.Len(t, other.Lane, len(led.Lane), why)
			require.Equal(t, led.Revision, other.Revision, why)
		}
	}
	same("at the start")
	for _, do := range []pace.Verb{"drop-holds", "pause", "resume", "restore-holds"} {
		d.Pass(9)
		d.Do(class, string(do))
		same(string(do))
	}
	french := at("fr")
	said := map[string]bool{}
	for _, phase := range french.Phases {
		said[phase.Word] = true
	}
	assert.True(t, said["inspire"] && said["retiens"] && said["expire"], "%v", said)
	assert.Same(t, french, at("fr"), "it is made once for all screens of a language")
	assert.Equal(t, "en", at("tlh").Language, "a language that nobody speaks is that of the class")
	d.Do(class, "end")
	score, err := d.Classes.RunningScoreIn(t.Context(), "fr")
	require.NoError(t, err)
	assert.Nil(t, score, "none is led")
}

// A school that addresses people formally does so on a phone in another language too.
func TestAFormalSchoolOnAPhoneInItsLanguage(t *testing.T) {
	d := desktest.New(t)
	_, err := d.Library.SaveSettings(t.Context(), contract.Settings{
		Language: "en", Schools: map[string]string{"address": "formal"}})
	require.NoError(t, err)
	p := d.AddPlan(`{"type": "practice", "practice": "ujjayi", "counts": "4:4:6", "rounds": 3}`)
	_, err = d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, Acknowledged: contract.StrongCautions(p)})
	require.NoError(t, err)
	for tag, want := range map[string][]string{"fr": {"inspirez", "retenez", "expirez"}, "es": {"inhale", "sostenga"}} {
		score, err := d.Classes.RunningScoreIn(t.Context(), tag)
		require.NoError(t, err)
		said := map[string]bool{}
		for _, phase := range score.Phases {
			said[phase.Word] = true
		}
		for _, word := range want {
			assert.True(t, said[word], "%s: %v", word, said)
		}
	}
}

// Names of ours are in the language of each phone; a title that the teacher made up stays.
func TestNamesInThePhonesLanguage(t *testing.T) {
	d := desktest.New(t)
	p := d.AddPlan(`{"type": "practice", "practice": "counted-breath", "title": "Square breath", "counts": "4:4:4:4",
		"rounds": 2}, {"type": "practice", "practice": "ujjayi", "rounds": 2}, {"type": "free", "title": "Rest", "seconds": 60},
		{"type": "free", "title": "Under the tree", "seconds": 60}, {"type": "talk", "seconds": 60}`)
	_, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, Acknowledged: contract.StrongCautions(p)})
	require.NoError(t, err)
	for tag, want := range map[string][]string{
		"en": {"Square breath", "Ocean breath", "Rest", "Under the tree", "Talk"},
		"fr": {"Souffle carré", "Souffle de l’océan", "Repos", "Under the tree", "explication"},
		"de": {"Quadratatmung", "Ozeanatem", "Ruhe", "Under the tree", "Ansage"},
	} {
		score, err := d.Classes.RunningScoreIn(t.Context(), tag)
		require.NoError(t, err)
		var names []string
		for _, passage := range score.Passages {
			names = append(names, passage.Name)
		}
		assert.Equal(t, want, names, tag)
	}
}
