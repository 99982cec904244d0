package sheet

import (
	"fmt"
	"strings"
	"testing"

	"vastlantern/language"

	"github.com/stretchr/testify/assert"
)

func ExampleDepth() {
	fmt.Println(Depth([]byte(`{"passages": [{"title": "[[[ as text \" ]"}]}`)))
	// Output: 3
}

func TestDepth(t *testing.T) {
	for text, want := range map[string]int{
		"": 0, "7": 0, "{}": 1, `[[1], {"a": [2]}]`: 3, `"[" [`: 1, `"\\" [`: 1, `"\"[" `: 0, `"[`: 0,
		strings.Repeat("[", 9900): 9900,
	} {
		assert.Equal(t, want, Depth([]byte(text)), "%.20s", text)
	}
}

func TestControlCharacter(t *testing.T) {
	for text, want := range map[string]string{
		`{"title": "Evening"}`: "", `"a\u0000b"`: "U+0000", `"\\u0000"`: "", `"\\\u0007"`: "U+0007", `"\u000a\n\t\u0009"`: "",
		`"\u001F"`: "U+001F",
		`"\u0041"`: "", `"\u00`: "", `"\`: "",
	} {
		assert.Equal(t, want, ControlCharacter([]byte(text)), text)
	}
}

func TestANestOfBracketsIsNoPlan(t *testing.T) {
	deep := func(n int) string {
		return `{"format": "vast-lantern-plan", "version": 1, "passages": [], "x": ` + strings.Repeat(
			"[",
			n,
		) + strings.Repeat("]", n) + "}"
	}
	_, _, err := ReadPlan(strings.NewReader(deep(MostDepth - 1)))
	assert.NoError(t, err)
	_, _, err = ReadPlan(strings.NewReader(deep(MostDepth)))
	assert.Equal(t, "objects and lists are nested 101 deep, at most 100 are read", language.English().Error(err))
}
