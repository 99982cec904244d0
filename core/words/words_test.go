package words

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/breath"
)

func TestEveryLanguageHasEveryWord(t *testing.T) {
	for tag, w := range Languages {
		for _, key := range Keys() {
			assert.NotEmpty(t, w.Text(key), "%s: %s", tag, key)
		}
		assert.Len(t, w.Texts, len(Keys()), tag)
		assert.Len(t, w.Numbers, 21, tag)
		assert.Equal(t, "21", w.Number(21))
	}
}

func TestOwnWordsAndSides(t *testing.T) {
	own := English.With(map[string]string{"inhale": "breathe in"}, true)
	assert.Equal(t, "breathe in", own.Text("inhale"))
	assert.Equal(t, "inhale", English.Text("inhale"), "the shipped table stays")
	assert.Equal(t, "close the right", own.Side(breath.Left), "what the hand does for a breath through the left")
	assert.Equal(t, "left", English.Side(breath.Left))
	assert.Equal(t, "through the mouth", own.Side(breath.Mouth))
	assert.Empty(t, own.Side(breath.Both))
	assert.Same(t, &English, English.With(nil, false))
}
