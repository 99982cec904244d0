package language

import (
	_ "embed"
	"encoding/json"
	"errors"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/fact"
)

// cases is facts and their texts; the screens are held to the same (ui/src/language/message.test.ts).
//
//go:embed cases.json
var cases []byte

func TestFactsInWords(t *testing.T) {
	var list []struct {
		Fact fact.Fact `json:"fact"`
		Text string    `json:"text"`
	}
	require.NoError(t, json.Unmarshal(cases, &list))
	require.NotEmpty(t, list)
	for _, one := range list {
		assert.Equal(t, one.Text, English().Text(one.Fact), one.Fact.ID)
	}
}

func TestAFactWithoutAMessageIsShownAsItIs(t *testing.T) {
	assert.Equal(t, "no.such-message n=3", English().Text(fact.New("no.such-message", "n", 3)))
	assert.Empty(t, English().Text(fact.Fact{}))
}

func TestMessagesThatCannotBeRead(t *testing.T) {
	for _, text := range []string{"{", "a { b", "} too many", "{n, plural, one {#}}", "{n, number}",
		"{n, select, other {x}", "{n, plural, other {x"} {
		_, err := parse(text)
		assert.Error(t, err, text)
	}
	err := empty("en").read([]byte(`{"a": "{", "b": "fine"}`))
	assert.Contains(t, English().Error(err), "a: ")
}

func TestAnErrorInWordsKeepsWhatIsAroundIt(t *testing.T) {
	wrong := fact.New("refused.no-hold")
	assert.Equal(t, "plan.json: no hold in progress", English().Error(fmt.Errorf("plan.json: %w", wrong)))
	assert.Equal(t, "as it comes", English().Error(errors.New("as it comes")))
}

func TestPluralFormsAndNumbersOfALanguage(t *testing.T) {
	for tag, want := range map[string]string{"en": "other 2.5", "fr": "one 2,5", "de": "other 2,5", "es": "other 2,5"} {
		c := empty(tag)
		require.NoError(t, c.read([]byte(`{"a": "{n, plural, one {one} other {other}} {x}"}`)))
		assert.Equal(t, want, c.Text(fact.New("a", "n", 0, "x", 2.5)), tag)
	}
}

func TestALanguageThatThereIsNotIsEnglish(t *testing.T) {
	assert.Same(t, English(), In("xx"))
	assert.Contains(t, Tags(), "en")
}

func TestTheLanguageThatAPersonWants(t *testing.T) {
	for _, c := range []struct{ chosen, accepted, want string }{
		{"de", "fr", "de"},
		{"", "de-AT,de;q=0.9,en;q=0.5", "de"},
		{"", "it,es;q=0.8", "es"},
		{"", "ja", "en"},
		{"", "", "en"},
		{"xx", "fr-CA", "fr"},
		{"", "pt-BR,es;q=0.8", "es"}, // Portuguese is not whole yet
		{"pt", "es", "pt"},
		{"", "no language;;q=x", "en"},
	} {
		assert.Equal(t, c.want, Wanted(c.chosen, c.accepted), "%+v", c)
	}
	assert.Equal(t, "en", Of(t.Context()))
	assert.Equal(t, "fr", Of(With(t.Context(), "fr")))
}
