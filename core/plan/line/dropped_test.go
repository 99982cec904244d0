package line

import (
	"encoding/json"
	"fmt"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"vastlantern/language"
)

// pieces are what a line can say, %d a number; each number, and each word to the right, is somewhere in what was
// understood.
var pieces = [][2]string{
	{
		"x%d",
		"",
	}, {"%d rounds", ""}, {"%d times", ""}, {"%d:%d", ""}, {"%d:%d:%d", ""}, {"inhale %d hold %d exhale %d", ""},
	{"in %d out %d", ""},
	{
		"hold %d",
		"",
	}, {"@%d", ""}, {"tempo %d", ""}, {"%d min", ""}, {"for %d minutes", ""}, {"%d strokes", ""}, {"left", "left"},
	{"right", "right"},
	{
		"own pace",
		"own",
	}, {"own", "own"}, {"rest %d", ""}, {"lead in %d", ""}, {"count in %d", ""}, {"silent", "silent"},
	{"words only", "words"},
	{
		"exhale first",
		"exhale",
	}, {"beside breathe", "breathe"}, {"try out", "(trial|try out)"}, {"keep", "keep"}, {"wait", "(rest_)?wait"},
	{"%d breaths", ""}, {"recall %d", ""},
}

var saidNames = []string{
	"",
	"nadi",
	"counted breath",
	"square",
	"belly breath",
	"left nostril",
	"kapalabhati",
	"sit",
	"rest",
	"ujjayi",
	"open holds",
	"talk",
}

// Nothing that was typed disappears: it is somewhere in what was understood, or the line is refused.
func TestNothingThatIsTypedIsDropped(t *testing.T) {
	names := NewNames([]string{"en"}, nil)
	rapid.Check(t, func(t *rapid.T) {
		number := 2 // each another one, so that none is taken for another
		var line, wanted []string
		if name := rapid.SampledFrom(saidNames).Draw(t, "name"); name != "" {
			line = append(line, name)
		}
		for _, piece := range rapid.SliceOfN(rapid.SampledFrom(pieces), 1, 4).Draw(t, "pieces") {
			text := piece[0]
			for strings.Contains(text, "%d") {
				number++
				text = strings.Replace(text, "%d", fmt.Sprint(number), 1)
				wanted = append(wanted, fmt.Sprintf(`\b[x@]?(%d|%d)\b`, number, 60*number)) // minutes can be seconds
			}
			line = append(line, text)
			if piece[1] != "" {
				wanted = append(wanted, `(?i)\b`+piece[1]+`\b`)
			}
		}
		typed := strings.Join(line, rapid.SampledFrom([]string{" ", ", "}).Draw(t, "between"))
		passages, err := names.Read(typed)
		if err != nil {
			return
		}
		read, err := json.Marshal(passages)
		if err != nil {
			t.Fatal(err)
		}
		for _, want := range wanted {
			if !regexp.MustCompile("(?i)" + want).Match(read) { // a title begins with a capital letter
				t.Fatalf("%q is understood as %s: %s is missing", typed, read, want)
			}
		}
	})
}

func TestWhyAWordIsRefused(t *testing.T) {
	names := NewNames([]string{"en"}, nil)
	for line, says := range map[string]string{
		"kapalabhati own 7 rounds": "7: own pace has no rounds: write how long it lasts, for example 3 min",
		"nadi 4:4 x6 x8":           "x8: the number of rounds was given before: leave one of the two out",
		"nadi x6 3 min":            "3: the number of rounds was given before: leave one of the two out",
		"nadi 4:4 5:5":             "5:5: counts were given before: leave one of the two out",
		"left right":               "Left nostril is on the left: leave one of the two sides out",
	} {
		read, err := names.Understand(line)
		if err == nil {
			require.NotEmpty(t, read[0].Doubts, line)
			err = &read[0].Doubts[0].LineError // what was said first stays, and the rest is a remark
		}
		assert.Equal(t, says, language.English().Error(err), line)
	}
}

// A short word of a name, as "on" of "hum on the exhale", is no other word with a slip of the finger: "own" would be
// lost.
func TestAShortWordIsNoSlip(t *testing.T) {
	read, err := NewNames([]string{"en"}, nil).Understand("own exhale first")
	require.NoError(t, err)
	text, err := json.Marshal(read[0].Fields)
	require.NoError(t, err)
	assert.Contains(t, string(text), "Own exhale first")
}
