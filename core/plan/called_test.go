package plan_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/plan"
	"vastlantern/core/plan/line"
	"vastlantern/language"
)

// What a reader sees of a passage is in her language: names of ours, how much of it, and what tells it from others.
func TestAPassageInAReadersLanguage(t *testing.T) {
	names := line.NewNames([]string{"en"}, nil)
	for _, c := range []struct{ line, tag, summed string }{
		{"nadi 4:4:8 x6", "fr", "Respiration alternée 4:4:8 ×6"},
		{"nadi 4:4:8 x6", "en", "Alternate nostril breath 4:4:8 ×6"},
		{"square 5 min", "es", "Respiración cuadrada 4:4:4:4 5 min"},
		{"kapalabhati x3 30 strokes", "de", "Schädelleuchten-Atem 30 Stöße ×3"},
		{"bhastrika 20 strokes x3, then 4:8:8", "fr", "Souffle du soufflet 20 expulsions, puis 4:8:8 ×3"},
		{"rest 2 min", "fr", "Repos"},
		{"lying down 2 min", "de", "Liegen"},
		{"free 2 min", "es", "Respiración natural"},
		{"talk 2 min the hand", "fr", "Explication"},
		{`nadi "My own name" x6`, "fr", "My own name 4:4 ×6"},
		{"even 5:5 x5", "de", "Gleichmäßiger Atem 5:5 ×5"},
	} {
		fields, err := names.Read(c.line)
		require.NoError(t, err, c.line)
		p, err := plan.One(fields[0])
		require.NoError(t, err, c.line)
		before := p.Headline()
		p.CallIn(c.tag)
		assert.Equal(t, c.summed, language.In(c.tag).Text(p.Summed()), c.line)
		p.CallIn("")
		assert.Equal(t, before, p.Headline(), "the plan itself does not change")
	}
}

// Every field that is shown beside a passage has words in every language.
func TestSayingsInEveryLanguage(t *testing.T) {
	said := map[string]bool{}
	for _, document := range []string{
		`{"type":"practice","practice":"nadi-shodhana","counts":"4:4:8","rounds":6,"entry":"exhale","seal":true,
		  "airway":"nose","aperture":{"inhale":"narrow","exhale":"wide"},"voice":"words","fade":{"words_after":2,
		  "silent_after":4},"word":"before","numbers":"lamps","count_in":4,"count_in_by":2,"lead_in":3,"rest_between":20,
		  "rest_lead_in":2,"rest_wait":true,"natural_pause":1,"beside":"breathe","point":true,"trial":true,"keep":true,
		  "fill":"end"}`,
		`{"type":"practice","practice":"ujjayi","counts":"4:4","rounds":3,"rest_breaths":2,"airway":"out-mouth",
		  "voice":"syllables","syllables":["om","mani"],"by_hand":"all"}`,
		`{"type":"practice","practice":"ujjayi","counts":"4:4","rounds":3,"by_hand":["inhale","exhale"],
		  "voice":"hold-syllables","syllables":["om"],"fill":"19:30","fill_least":60}`,
		`{"type":"practice","practice":"three-part-breath","zone":"belly","attention":"front","rounds":2}`,
		`{"type":"practice","practice":"counted-breath","counts":"4:4","pace":"own","minutes":3,"recall":30,
		  "choices":["4:4","6:6"]}`,
		`{"type":"practice","practice":"sun-salutation","rounds":3,"sides":"right-left"}`,
		`{"type":"free","seconds":60,"wait":true}`,
	} {
		var f plan.Fields
		require.NoError(t, json.Unmarshal([]byte(document), &f))
		p, _ := plan.One(f) // one that may not be so still has words
		for _, tag := range []string{"en", "de", "es", "fr"} {
			for _, fact := range p.Says(f) {
				text := language.In(tag).Text(fact)
				assert.NotContains(t, text, "saying.", "%s has no words for %s", tag, fact.ID)
				assert.NotContains(t, text, "phase.", "%s has no words for %s", tag, fact)
				said[strings.Join(strings.SplitN(fact.ID, ".", 3)[:2], ".")] = true
			}
		}
	}
	for _, id := range []string{"airway", "aperture", "beside", "by-hand", "by-hand-phases", "choices", "count-in",
		"count-in-by", "entry", "fade-silent", "fade-words", "fill", "fill-least", "fill-to-end", "keep", "lead-in",
		"natural-pause", "numbers", "point", "recall", "rest-between", "rest-breaths", "rest-lead-in", "rest-wait", "seal",
		"sides", "syllables", "trial", "voice", "wait", "word", "zone"} {
		assert.True(t, said["saying."+id], "%s was shown", id)
	}
}

// The short way of writing a passage is in the reader's language, and read in every one.
func TestShortWayInALanguage(t *testing.T) {
	own := plan.NewFields("surya-bhedana")
	for tag, short := range map[string]string{"en": "4:6 own 2m", "de": "4:6 eigen 2m", "fr": "4:6 libre 2m",
		"es": "4:6 libre 2m"} {
		assert.Equal(t, short, line.ShortIn(tag, "4:6 own 2m"))
		again, err := line.Shorten(own, short)
		require.NoError(t, err, short)
		assert.Equal(t, "own", again.Values()["pace"], short)
	}
	side := plan.NewFields("single-nostril")
	for tag, word := range map[string]string{"de": "rechts", "fr": "droite", "es": "derecha"} {
		short := line.ShortIn(tag, "4:4 x5 right")
		assert.Equal(t, "4:4 x5 "+word, short)
		again, err := line.Shorten(side, short)
		require.NoError(t, err, short)
		assert.Equal(t, "right", again.Values()["side"], short)
	}
}
