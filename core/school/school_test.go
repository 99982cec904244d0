package school

import (
	"encoding/json"
	"maps"
	"testing"

	"vastlantern/core/plan/line"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/language"
)

func TestEveryQuestionHasWaysThatDiffer(t *testing.T) {
	require.Len(t, Questions(), 20)
	for _, q := range Questions() {
		assert.GreaterOrEqual(t, len(q.Ways), 2, q.ID)
		seen := map[string]bool{}
		for _, w := range q.Ways {
			assert.NotContains(t, language.English().Text(q.Says(w)), "way.", "it has a text")
			if w.Shows {
				assert.NotContains(t, language.English().Text(Line(q.ID, w.ID)), "shown.", "it has a text")
			}
			assert.False(t, seen[w.ID], "%s %s", q.ID, w.ID)
			seen[w.ID] = true
		}
		assert.Equal(t, q.Ways[0].ID, Choices{}.Way(q.ID).ID, "the first way is the default")
	}
}

func TestCheck(t *testing.T) {
	assert.NoError(t, Choices{"eyes": "tenth"}.Check())
	assert.Contains(t, language.English().Error(Choices{"eyes": "crossed"}.Check()), `given “crossed”, allowed: closed`)
	assert.Contains(t, language.English().Error(Choices{"shoes": "on"}.Check()), "no question")
}

func TestAGroupMayDiffer(t *testing.T) {
	teacher := Choices{"eyes": "tenth", "palms": "down"}
	both := teacher.With(Choices{"eyes": "closed"})
	assert.Equal(t, Choices{"eyes": "closed", "palms": "down"}, both)
	assert.Equal(t, "tenth", teacher["eyes"], "the teacher's own stay")
	assert.Equal(t, Choices{"eyes": "down"}, Choices(nil).With(Choices{"eyes": "down"}))
}

func TestWhatIsPlanned(t *testing.T) {
	practiceDoc := func(id string, more map[string]any) map[string]any {
		doc := map[string]any{"type": "practice", "practice": id}
		for k, v := range more {
			doc[k] = v
		}
		return doc
	}
	for _, c := range []struct {
		name    string
		choices Choices
		doc     map[string]any
		sets    map[string]any
	}{
		{"nothing chosen, nothing set", nil, practiceDoc("nadi-shodhana", nil), map[string]any{}},
		{"the starting side, with how it starts", Choices{"start": "right"}, practiceDoc("nadi-shodhana", nil),
			map[string]any{"side": "right", "entry": "inhale"}},
		{"the side also of one-sided breath", Choices{"start": "right"}, practiceDoc("single-nostril", nil),
			map[string]any{"side": "right"}},
		{"not where there are no sides", Choices{"start": "right"}, practiceDoc("ujjayi", nil), map[string]any{}},
		{"what the passage says itself stays", Choices{"start": "right"},
			practiceDoc("single-nostril", map[string]any{"side": "left"}), map[string]any{}},
		{"exhale first", Choices{"start": "exhale"}, practiceDoc("nadi-shodhana", nil), map[string]any{"entry": "exhale"}},
		{"the word before", Choices{"word": "before"}, practiceDoc("ujjayi", nil), map[string]any{"word": "before"}},
		{"not with strokes", Choices{"word": "before"}, practiceDoc("kapalabhati", nil), map[string]any{}},
		{"counting", Choices{"counting": "fading"}, practiceDoc("kapalabhati", nil),
			map[string]any{"fade": map[string]any{"words_after": json.Number("3"), "silent_after": json.Number("6")}}},
		{"a natural pause", Choices{"pauses": "natural"}, practiceDoc("ujjayi", nil),
			map[string]any{"natural_pause": json.Number("1")}},
		{"a double exhale in alternate nostril breath", Choices{"exhale": "double"}, practiceDoc("nadi-shodhana", nil),
			map[string]any{"counts": "4:8"}},
		{"and only there", Choices{"exhale": "double"}, practiceDoc("ujjayi", nil), map[string]any{}},
		{"by minutes: ten breaths of 12 s", Choices{"length": "minutes"}, practiceDoc("ujjayi", nil),
			map[string]any{"minutes": json.Number("2")}},
		{"not where rounds are given", Choices{"length": "minutes"},
			practiceDoc("ujjayi", map[string]any{"rounds": json.Number("3")}), map[string]any{}},
		{"not at own pace", Choices{"length": "minutes"}, practiceDoc("ujjayi", map[string]any{"pace": "own"}),
			map[string]any{}},
		{"talks stay as they are", Choices{"counting": "words"}, map[string]any{"type": "talk"}, map[string]any{}},
	} {
		passage, err := plan.FieldsOf(c.doc)
		require.NoError(t, err)
		c.choices.Fill(passage)
		_, err = plan.One(passage)
		assert.NoError(t, err, c.name)
		want := maps.Clone(c.doc)
		maps.Copy(want, c.sets)
		wanted, err := plan.FieldsOf(want)
		require.NoError(t, err)
		assert.Equal(t, wanted, passage, c.name)
	}
}

func TestWhatIsShown(t *testing.T) {
	choices := Choices{"fingers": "little", "mirrored": "yes", "palms": "down", "when": "set"}
	shown := func(of Choices, id string) []string {
		var lines []string
		for _, line := range of.Shown(practice.Find(id)) {
			lines = append(lines, language.English().Text(line))
		}
		return lines
	}
	nadi := shown(choices, "nadi-shodhana")
	assert.Contains(t, nadi, "Thumb for the right, the little finger for the left.")
	assert.Contains(t, nadi, "Show with your left hand; the words left and right stay everyone's own.")
	assert.NotContains(t, nadi, "Palms down.", "the hand is at the nose")
	ujjayi := shown(choices, "ujjayi")
	assert.Equal(t, []string{"Palms down.", "Eyes closed.", "Chin level.", "Practised at a set time and place."}, ujjayi)
	assert.Contains(
		t,
		shown(Choices{"holding": "alone"}, "segmented-breath"),
		"Holds are taught one to one, not in class.",
	)
}

// Beside a new passage with holds others breathe through them, where the school wants it; beside one without, nothing.
func TestALaneBesideHolds(t *testing.T) {
	always := Choices{"lane": "always"}
	names := line.NewNames([]string{"en"}, nil)
	for line, want := range map[string]string{"square x3": "breathe", "nadi 4:4:8 x6 beside 4:4": "4:4", "even x3": "none",
		"open holds x2": "breathe", "nadi 4:4:4 own 2 min": "none", "rest 2 min": "none"} {
		f, err := names.Read(line)
		require.NoError(t, err)
		always.Fill(f[0])
		p, err := plan.One(f[0])
		require.NoError(t, err, line)
		assert.Equal(t, want, p.Beside.String(), line)
	}
}

// What a plan can have otherwise than the school are the ways of the school's own questions.
func TestThePlansWaysAreTheSchools(t *testing.T) {
	for question, ways := range map[string][]string{"fingers": plan.FingerWays, "chin": plan.ChinWays} {
		var ids []string
		for _, q := range Questions() {
			if q.ID == question {
				for _, way := range q.Ways {
					ids = append(ids, way.ID)
				}
			}
		}
		assert.Equal(t, ids, ways, question)
	}
}
