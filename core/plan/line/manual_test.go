package line

import (
	"os"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/practice"
)

// manuals is the page of the manual on typed lines, by language.
var manuals = map[string]string{
	"en": "typing.md", "de": "de/typing.md", "es": "es/typing.md", "fr": "fr/typing.md",
}

// subjects returns what the words of the manual can be said of, between them.
func subjects() []string {
	list := []string{"natural breath", "talk"}
	for _, p := range practice.Catalogue() {
		list = append(list, p.ID)
	}
	return list
}

var example = regexp.MustCompile("\\*([^*]+)\\*|`([^`]+)`")

// What the manual says that one can type is understood, in the language of the manual.
func TestTheManualIsUnderstood(t *testing.T) {
	for tag, file := range manuals {
		text, err := os.ReadFile("../../../docs/manual/" + file)
		require.NoError(t, err)
		sections := strings.Split(string(text), "\n## ")
		require.Len(t, sections, 7, file)
		names := NewNames([]string{tag}, nil)
		for _, section := range sections[2:5] {
			for row := range strings.Lines(section) {
				if strings.HasPrefix(row, "| ---") {
					continue
				}
				for _, m := range example.FindAllStringSubmatch(row, -1) {
					phrase := m[1] + m[2]
					assert.True(t, understood(names, phrase), "%s: %q", file, phrase)
				}
			}
		}
	}
}

// understood reports whether the words can be said of one of the subjects, without a doubt.
func understood(names *Names, phrase string) bool {
	lines := []string{phrase}
	for _, subject := range subjects() {
		lines = append(lines, subject+" "+phrase, subject+", "+phrase)
	}
	for _, line := range lines {
		readings, err := names.Understand(line)
		sure := err == nil
		for _, r := range readings {
			f := r.Fields.Values()
			words := f["remark"] != nil || f["script"] != nil || f["practice"] == "posture" && f["title"] != nil
			words = words || f["practice"] == nil && f["title"] != nil && !strings.ContainsAny(phrase, "\"«„")
			sure = sure && len(r.Doubts) == 0 && !words
		}
		if sure {
			return true
		}
	}
	return false
}

// The whole class in each manual is read as it stands there.
func TestTheClassOfEachManual(t *testing.T) {
	for tag, file := range manuals {
		text, err := os.ReadFile("../../../docs/manual/" + file)
		require.NoError(t, err)
		blocks := strings.Split(string(text), "```")
		require.Len(t, blocks, 3, file)
		d, err := NewNames([]string{tag}, nil).FromText(blocks[1], time.UTC)
		require.NoError(t, err, file)
		var list []string
		for _, f := range d.Passages() {
			list = append(list, f.Practice())
			assert.Nil(t, f.Values()["check"], "%s: %v", file, f.Values())
		}
		assert.Equal(t, []string{"", "counted-breath", "nadi-shodhana", ""}, list, file)
	}
}
