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
	_, err := read([]byte(`{"a": "{", "b": "fine"}`))
	assert.Contains(t, English().Error(err), "a: ")
}

func TestAnErrorInWordsKeepsWhatIsAroundIt(t *testing.T) {
	wrong := fact.New("refused.no-hold")
	assert.Equal(t, "plan.json: no hold in progress", English().Error(fmt.Errorf("plan.json: %w", wrong)))
	assert.Equal(t, "as it comes", English().Error(errors.New("as it comes")))
}
