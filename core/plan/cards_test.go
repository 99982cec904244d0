package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/plan"
)

func TestOwnWordsAreCards(t *testing.T) {
	for script, want := range map[string][]string{
		"":                                      nil,
		"Who is new?":                           {"Who is new?"},
		"Who is new?\n---\nSit tall.\nBreathe.": {"Who is new?", "Sit tall.\nBreathe."},
		"one\n ----- \ntwo\n---\n\n---\nthree\n---": {"one", "two", "three"},
		"one -- two\n--\nthree":                     {"one -- two\n--\nthree"},
	} {
		assert.Equal(t, want, (&plan.Passage{Type: plan.Talk, Script: script}).Cards(), script)
		assert.Equal(t, want, (&plan.Passage{Type: plan.Free, Script: script}).Cards(), script)
	}
	practice := plan.Passage{Type: plan.Practice, Script: "one\n---\ntwo"}
	assert.Equal(t, []string{"one\n---\ntwo"}, practice.Cards(), "there the go-on key has other work")
}
