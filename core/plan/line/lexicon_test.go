package line

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/fold"
	"vastlantern/core/plan"
)

// The teacher's own words have their place in her language.
func TestOwnWordsInOtherLanguages(t *testing.T) {
	for typed, want := range map[string]string{
		"ronde 3, rétention: racine":     `{"phase":"hold","round":3,"text":"racine"}`,
		"chaque inspiration: par le bas": `{"phase":"inhale","text":"par le bas"}`,
		"dernière ronde, expire à gauche: laisse aller": `{"phase":"exhale","round":"last","text":"laisse aller",` +
			`"through":"left"}`,
		"toutes les 30 s: adoucis": `{"every":30,"second":30,"text":"adoucis"}`,
		"ronde 2, rétention à vide (à voix haute, 3 s d'avance): calme": `{"ahead":3,"phase":"empty","round":2,` +
			`"say":true,"text":"calme"}`,
		"rondas 2-4, exhala (sala, en voz alta): suave": `{"phase":"exhale","round":[2,4],"say":true,"text":"suave",` +
			`"who":"room"}`,
		"última ronda, inhala izquierda: deja ir": `{"phase":"inhale","round":"last","text":"deja ir","through":"left"}`,
		"cada 30 s: ablanda":                      `{"every":30,"second":30,"text":"ablanda"}`,
		"jede Einatmung: von unten":               `{"phase":"inhale","text":"von unten"}`,
		"Runde 3 halten (laut): Wurzel":           `{"phase":"hold","round":3,"say":true,"text":"Wurzel"}`,
		"alle 30 s (alle): weich":                 `{"every":30,"second":30,"text":"weich","who":"all"}`,
	} {
		f := plan.NewFields("nadi-shodhana")
		require.NoError(t, SetOwnWords(f, typed), typed)
		text, err := json.Marshal(f.Values()["lines"])
		require.NoError(t, err)
		assert.Equal(t, "["+want+"]", string(text), typed)
	}
}

// Words that several languages have stay what they are in English, and nothing in brackets is dropped.
func TestOwnWordsInEnglishStay(t *testing.T) {
	for typed, want := range map[string]string{
		"each side: turn":               `{"part":"side","text":"turn"}`,
		"every inhale (everyone): soft": `{"phase":"inhale","text":"soft","who":"all"}`,
		"r2 hold (to the room): soft":   `{"phase":"hold","round":2,"text":"soft","who":"room"}`,
	} {
		f := plan.NewFields("cat-cow")
		require.NoError(t, SetOwnWords(f, typed), typed)
		text, err := json.Marshal(f.Values()["lines"])
		require.NoError(t, err)
		assert.Equal(t, "["+want+"]", string(text), typed)
	}
	assert.Error(t, SetOwnWords(plan.NewFields("cat-cow"), "r2 hold (with): soft"))
}

// A place that is not understood is pointed out where it was written, also after letters with marks.
func TestPlaceOfAnUnknownWord(t *testing.T) {
	line := "dernière rétention xyz: calme"
	_, err := ownWords(line)
	wrong := AsLineError(err)
	require.NotNil(t, wrong)
	assert.Equal(t, "xyz", line[wrong.At:wrong.End])
}

// A word of another language is read as one of the grammar: a slip in a file would be read as nothing.
func TestWordsStandForTheGrammar(t *testing.T) {
	for _, tag := range wordTags() {
		l := lexiconOf(tag)
		for word, key := range l.words {
			assert.Equal(t, fold.Text(word), word, "%s: words are written without marks", tag)
			assert.NotEmpty(t, key, word)
			assert.NotContains(t, key, " ", "%s: %s is a word, and stands for several: write it as a phrase", tag, word)
		}
		for _, s := range l.spellings {
			text := strings.Join(s.words, " ")
			assert.Equal(t, fold.Text(text), text, "%s: phrases are written without marks", tag)
		}
	}
}

// Numbers in words are understood up to a hundred as far as a class needs them.
func TestNumbersInWords(t *testing.T) {
	for tag, numbers := range map[string]map[string]string{
		"de": {"fünf": "5", "zwölf": "12", "fünfundzwanzig": "25", "einundzwanzig": "21", "achtzig": "80"},
		"fr": {
			"cinq": "5", "dix-sept": "17", "vingt-cinq": "25", "soixante-dix": "70", "quatre-vingts": "80", "trente": "30",
		},
		"es": {"cinco": "5", "once": "11", "dieciséis": "16", "veinticinco": "25", "treinta": "30", "ochenta": "80"},
	} {
		names := NewNames([]string{tag}, nil)
		for word, want := range numbers {
			read, err := names.Read(fmt.Sprintf("ujjayi 4:4 %s %s", word, lexiconOf(tag).written["times"]))
			require.NoError(t, err, word)
			assert.Equal(t, want, fmt.Sprint(read[0].Values()["rounds"]), word)
		}
	}
}

// A title has the quotation marks of its language.
func TestTitlesInQuotationMarks(t *testing.T) {
	for _, typed := range []string{`"Ankunft"`, "„Ankunft“", "“Ankunft”", "«Ankunft»", "« Ankunft »", "»Ankunft«"} {
		list := tokens("sit "+typed+" 3 min", lexiconOf("en"))
		i := slices.IndexFunc(list, func(t token) bool { return t.quoted })
		require.Positive(t, i, typed)
		assert.Equal(t, "Ankunft", list[i].text, typed)
		assert.Len(t, list, 4, typed)
	}
}
