package plan_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/plan"
	"vastlantern/core/sheet"
)

// A class can be led in a language of its own: then the teacher's words of another language are left out.
func TestAClassHasALanguageOfItsOwn(t *testing.T) {
	german := plan.Said{Language: "de", Sides: "hand", Own: map[string]string{"inhale": "einatmen"}}
	for _, c := range []struct {
		fields         string
		said           plan.Said
		inhale, tag    string
		sidesAsTheHand bool
	}{
		{``, plan.Said{}, "inhale", "en", false},
		{``, german, "einatmen", "de", true},
		{`"language": "fr", `, german, "inspire", "fr", true},
		{`"language": "es", `, plan.Said{}, "inhala", "es", false},
		{`"language": "de", `, german, "einatmen", "de", true},
		{`"language": "en", `, german, "inhale", "en", true},
		{`"language": "en", `, plan.Said{Own: map[string]string{"inhale": "breathe in"}}, "breathe in", "en", false},
	} {
		doc, err := sheet.ReadDocument(strings.NewReader(`{"format": "vast-lantern-plan", "version": 1, ` + c.fields +
			`"passages": [{"type": "talk", "seconds": 5}]}`))
		require.NoError(t, err)
		doc.SetWords(c.said)
		text, err := json.Marshal(doc)
		require.NoError(t, err)
		_, p, err := sheet.ReadPlan(strings.NewReader(string(text)))
		require.NoError(t, err)
		assert.Equal(t, []any{c.inhale, c.tag, c.sidesAsTheHand}, []any{p.Words.Text("inhale"), p.Words.Tag, p.Words.ByHand},
			c.fields)
	}
	_, p, err := sheet.ReadPlan(strings.NewReader(
		`{"format": "vast-lantern-plan", "version": 1, "language": "fr", "passages": [{"type": "talk", "seconds": 5}]}`))
	require.NoError(t, err)
	assert.Equal(t, "fr", p.Words.Tag, "a file needs no words beside it")
	_, err = readWith(`"language": "tlh"`)
	assert.ErrorContains(t, err, "language")
}
