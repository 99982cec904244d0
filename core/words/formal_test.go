package words_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/words"
)

func TestFormalWords(t *testing.T) {
	own := map[string]string{"exhale": "vacíe"}
	assert.Equal(t, own, words.Formal("de", own), "nothing in German says du")
	spanish := words.Formal("es", own)
	assert.Equal(t, []string{"inhale", "vacíe"}, []string{spanish["inhale"], spanish["exhale"]}, "the teacher's own first")
	for _, tag := range []string{"es", "fr"} {
		for key, text := range words.Formal(tag, nil) {
			assert.Contains(t, words.Keys(), key)
			if key != "exhale" || tag != "es" {
				assert.NotEqual(t, words.Languages[tag].Texts[key], text, "%s %s", tag, key)
			}
		}
	}
}
