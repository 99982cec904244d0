package plan

import (
	"maps"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/language"
)

// passages is one passage of each sort, as far as fields tell them apart.
var passages = map[string]object{
	"talk":     {"type": "talk"},
	"free":     {"type": "free", "seconds": n("10")},
	"counted":  {"type": "practice", "practice": "counted-breath"},
	"nadi":     {"type": "practice", "practice": "nadi-shodhana"},
	"single":   {"type": "practice", "practice": "single-nostril"},
	"sun":      {"type": "practice", "practice": "surya-bhedana"},
	"three":    {"type": "practice", "practice": "three-part-breath"},
	"belly":    {"type": "practice", "practice": "belly-breath"},
	"fingers":  {"type": "practice", "practice": "digital-control"},
	"strokes":  {"type": "practice", "practice": "kapalabhati"},
	"panting":  {"type": "practice", "practice": "panting-breath"},
	"joy":      {"type": "practice", "practice": "breath-of-joy"},
	"open":     {"type": "practice", "practice": "open-holds"},
	"own pace": {"type": "practice", "practice": "ujjayi", "pace": "own"},
}

const (
	everyPractice = "counted nadi single sun three belly fingers strokes panting joy open own-pace"
	everyCounted  = "counted nadi single sun three belly fingers own-pace"
)

// Where each field of a plan file belongs: the column "on" of its documentation, field by field, with a value that is
// allowed there.
func TestWhereEachFieldBelongs(t *testing.T) {
	steps := []any{map[string]any{"breaths": n("1")}}
	for _, c := range []struct {
		field string
		value any
		on    string
	}{
		{"title", "x", "talk free " + everyPractice},
		{"script", "x", "talk free " + everyPractice},
		{"keep", true, "talk free " + everyPractice},
		{"seconds", n("60"), "talk free"},
		{"wait", true, "talk free"},
		{"prompts", []any{map[string]any{"round": n("1"), "text": "x"}}, everyPractice},
		{"trial", true, everyPractice},
		{"counts", "4:6", everyCounted},
		{"tempo", n("50"), everyCounted + " joy"},
		{"rounds", n("3"), "counted nadi single sun three belly fingers strokes joy open own-pace"},
		{"by_hand", "all", "counted nadi single sun three belly fingers"},
		{"choices", []any{"4:4", "4:4:8"}, "own-pace"},
		{"numbers", "lamps", everyPractice},
		{"seal", true, "nadi single sun"},
		{"rest_breaths", n("3"), everyPractice},
		{"count_in_by", n("4"), everyPractice},
		{"minutes", n("3"), everyPractice},
		{"side", "right", "nadi single"},
		{"entry", "exhale", "nadi"},
		{"count_in", n("4"), everyPractice},
		{"lead_in", n("4"), everyPractice},
		{"opening", steps, everyPractice},
		{"closing", steps, everyPractice},
		{"rest_between", n("5"), everyPractice},
		{"rest_wait", true, everyPractice},
		{"rest_lead_in", n("4"), everyPractice},
		{"beside", "breathe", strings.TrimSuffix(everyPractice, " own-pace")},
		{"lines", []any{map[string]any{"text": "x"}}, "talk free " + everyPractice},
		{"natural_pause", n("1"), everyCounted},
		{"recall", n("5"), "own-pace"},
		{"word", "before", everyCounted},
		{"voice", "words", everyPractice},
		{"fade", map[string]any{"words_after": n("2")}, everyPractice},
		{"zone", "ribs", "three"},
		{"attention", "sides", "belly"},
		{"strokes", n("30"), "strokes"},
		{"rate", n("70"), "strokes panting"},
		{"open_seconds", []any{n("1"), n("2"), n("3"), n("4.5")}, "open"},
		{"aperture", map[string]any{"inhale": "narrow"}, "fingers"},
		{"airway", "mouth", "counted three belly fingers strokes open own-pace"},
		{"slot_min", n("20"), ""},
		{"starts_at", "2026-03-02T18:30:00+01:00", ""},
		{"intent", "settle", ""},
		{"colour", "blue", "talk free " + everyPractice}, // nobody knows it, so it is kept
	} {
		for name, doc := range passages {
			with := maps.Clone(doc)
			with[c.field] = c.value
			_, err := One(Fields{with})
			if slices.Contains(strings.Fields(c.on), strings.ReplaceAll(name, " ", "-")) {
				assert.NoError(t, err, "%s on %s", c.field, name)
				continue
			}
			var errs Errors
			require.ErrorAs(t, err, &errs, "%s on %s", c.field, name)
			assert.Equal(t, c.field, errs[0].Field, "%s on %s", c.field, name)
		}
	}
}

// The range of each number: the last value that is allowed on either side, and the first that is not.
func TestTheRangeOfEachField(t *testing.T) {
	for _, c := range []struct {
		on, field      string
		lowest, below  string
		highest, above string
		also           []string // not whole, where that is allowed
		notWhole       bool
	}{
		{on: "talk", field: "seconds", lowest: "1", below: "0.99", highest: "7200", above: "7200.01", also: []string{"1.5"}},
		{on: "counted", field: "tempo", lowest: "20", below: "19.9", highest: "120", above: "120.1", also: []string{"47.35"}},
		{on: "counted", field: "rounds", lowest: "1", below: "0", highest: "999", above: "1000", notWhole: true},
		{on: "counted", field: "minutes", lowest: "0.01", below: "0", highest: "180", above: "180.1", also: []string{"2.5"}},
		{on: "counted", field: "count_in", lowest: "0", below: "-1", highest: "40", above: "41", notWhole: true},
		{on: "counted", field: "lead_in", lowest: "0", below: "-1", highest: "20", above: "21", notWhole: true},
		{on: "counted", field: "rest_between", lowest: "0", below: "-0.1", highest: "600", above: "601",
			also: []string{"2.5"}},
		{on: "counted", field: "natural_pause", lowest: "0", below: "-0.1", highest: "3", above: "3.1",
			also: []string{"0.35"}},
		{on: "counted", field: "rest_lead_in", lowest: "0", below: "-1", highest: "20", above: "21", notWhole: true},
		{on: "own pace", field: "recall", lowest: "0", below: "-1", highest: "120", above: "121", also: []string{"7.5"}},
		{on: "strokes", field: "strokes", lowest: "1", below: "0", highest: "500", above: "501", notWhole: true},
		{on: "strokes", field: "rate", lowest: "30", below: "29.9", highest: "140", above: "140.1", also: []string{"61.5"}},
		{on: "panting", field: "rate", lowest: "30", below: "29", highest: "140", above: "141"},
	} {
		try := func(value string) error {
			doc := maps.Clone(passages[c.on])
			doc[c.field] = n(value)
			_, err := One(Fields{doc})
			return err
		}
		for _, good := range append([]string{c.lowest, c.highest}, c.also...) {
			assert.NoError(t, try(good), "%s %s", c.field, good)
		}
		for _, bad := range []string{c.below, c.above} {
			assert.Error(t, try(bad), "%s %s", c.field, bad)
		}
		if c.notWhole {
			assert.Error(t, try("2.5"), "%s is whole", c.field)
		}
	}
}

func TestWhatIsFilledIn(t *testing.T) {
	for name, want := range map[string]struct {
		tempo, minutes  string
		rounds, strokes int
		counts          breath.Counts
		restMS          int64
	}{
		"counted": {"50", "0", 5, 0, breath.Counts{Inhale: 4, Exhale: 4}, 0},
		"three":   {"50", "0", 6, 0, breath.Counts{Inhale: 6, Exhale: 6}, 0},
		"sun":     {"50", "0", 8, 0, breath.Counts{Inhale: 4, Exhale: 6}, 0},
		"strokes": {"60", "0", 3, 20, breath.Counts{}, 30_000},
		"panting": {"90", "1", 1, 90, breath.Counts{}, 0},
		"joy":     {"88", "0", 20, 0, breath.Counts{}, 0},
		"open":    {"50", "3", 0, 0, breath.Counts{Inhale: 1, Hold: 1, Exhale: 1, Empty: 1}, 0},
	} {
		p, err := One(Fields{passages[name]})
		require.NoError(t, err)
		assert.Equal(t, want.tempo, p.Measure.Tempo.String(), name)
		assert.Equal(t, want.minutes, p.Minutes.String(), name)
		assert.Equal(t, []int{want.rounds, want.strokes}, []int{p.Rounds, p.Measure.Strokes}, name)
		assert.Equal(t, want.counts, p.Measure.Counts, name)
		assert.Equal(t, want.restMS, p.RestBetween.Round(), name)
		assert.Equal(t, 4, p.LeadIn, name)
	}
	own, err := One(Fields{passages["own pace"]})
	require.NoError(t, err)
	assert.Equal(t, []string{"2", "15000"}, []string{own.Minutes.String(), own.Recall.String()})
	assert.Zero(t, own.LeadIn)
}

// Values of the wrong sort are errors that say what is allowed; the first of several is not the only one.
func TestWrongSorts(t *testing.T) {
	for name, doc := range map[string]object{
		"counts":       {"type": "practice", "practice": "counted-breath", "counts": []any{n("4"), n("4")}},
		"zone":         {"type": "practice", "practice": "three-part-breath", "zone": "knees"},
		"aperture":     {"type": "practice", "practice": "digital-control", "aperture": "narrow"},
		"open_seconds": {"type": "practice", "practice": "open-holds", "open_seconds": []any{n("1"), n("2"), n("3")}},
		"rest_wait":    {"type": "practice", "practice": "ujjayi", "rest_wait": "yes"},
		"fade":         {"type": "practice", "practice": "ujjayi", "fade": n("3")},
		"prompts":      {"type": "practice", "practice": "ujjayi", "prompts": "breathe"},
		"title":        {"type": "talk", "title": nil},
		"beside":       {"type": "practice", "practice": "ujjayi", "beside": "none"},
	} {
		_, err := One(Fields{doc})
		var errs Errors
		require.ErrorAs(t, err, &errs, name)
		assert.Equal(t, name, errs[0].Field)
		assert.NotEmpty(t, errs[0].Allowed)
	}
	_, err := One(Fields{object{"type": "practice", "practice": "three-part-breath", "counts": "2:4"}})
	assert.Contains(t, language.English().Error(err), "3 or more", "three zones share the counts")
	_, err = One(Fields{object{"type": "practice", "practice": "three-part-breath", "counts": "2:4", "zone": "belly"}})
	assert.NoError(t, err)
}

// A shorter breath beside has to go with the passage and to fit into its rounds (pacing.md section 6).
func TestWhatMayStandBeside(t *testing.T) {
	for text, says := range map[string]string{
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4", "beside": "4:4"}`: "",
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4", "beside": "4:5"}`: "needs 9 counts",
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4", ` +
			`"word": "before", "beside": "4:6"}`: "",
		`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4", "beside": "4:4"}`:         "",
		`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4", "beside": "4:5"}`:         "needs 18 counts",
		`{"type": "practice", "practice": "counted-breath", "natural_pause": 1, "beside": "2:2"}`:     "natural pause",
		`{"type": "practice", "practice": "counted-breath", "natural_pause": 1, "beside": "breathe"}`: "",
		`{"type": "practice", "practice": "open-holds", "beside": "1:1"}`:                             "open phases",
		`{"type": "practice", "practice": "breath-of-joy", "rounds": 3, "beside": "6:6"}`:             "",
		`{"type": "practice", "practice": "breath-of-joy", "rounds": 3, "beside": "6:7"}`:             "there are 12",
		`{"type": "practice", "practice": "breath-of-joy", "rounds": 3, ` +
			`"rest_between": 5, "beside": "2:3"}`: "there are 4",
		`{"type": "practice", "practice": "kapalabhati", "strokes": 20, "beside": "10:10"}`:      "",
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4", "beside": "4:0:4"}`: "shorter breath such as",
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4", "beside": 4}`:       "shorter breath such as",
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4", ` +
			`"pace": "own", "beside": "breathe"}`: "only on led practices",
	} {
		var f Fields
		require.NoError(t, f.UnmarshalJSON([]byte(text)))
		_, err := One(f)
		if says == "" {
			assert.NoError(t, err, text)
			continue
		}
		assert.Contains(t, language.English().Error(err), says, text)
	}
}

// Lines: each field with its range, and where it belongs (cues.md section 3).
func TestLines(t *testing.T) {
	for line, says := range map[string]string{
		`{"text": "soft jaw"}`: "",
		`{"text": "x", "stage": "rest", "round": [2, 4], "ahead": 0, "who": "all", "say": true}`: "",
		`{"text": "x", "breath": 2, "phase": "exhale"}`:                                          "",
		`{"text": "x", "second": 90.5}`:                                                          "",
		`{"text": ""}`:                                                                           "lines 1: text",
		`{"stage": "round"}`:                                                                     "lines 1: text",
		`{"text": 7}`:                                                                            "lines 1: text",
		`{"text": "x", "stage": "pause"}`:                                                        "lines 1: stage",
		`{"text": "x", "stage": "opening", "round": 2}`: "only in stage round or " +
			"rest",
		`{"text": "x", "round": [4, 2]}`: "first and the last",
		`{"text": "x", "round": 0}`:      "lines 1: round",
		`{"text": "x", "stage": "rest", "breath": 1}`: "only in stage round, " +
			"opening or closing",
		`{"text": "x", "stage": "setup", "second": 5}`: "only in stage talk, " +
			"free, round or own",
		`{"text": "x", "second": 5, "phase": "inhale"}`:                        "not together with second",
		`{"text": "x", "second": 7201}`:                                        "0 to 7200",
		`{"text": "x", "ahead": 11}`:                                           "0 to 10",
		`{"text": "x", "who": "me"}`:                                           "teacher, room, all",
		`{"text": "x", "phase": "talk"}`:                                       "lines 1: phase",
		`{"text": "x", "round": "last", "stage": "rest"}`:                      "",
		`{"text": "x", "through": "left", "part": "belly", "phase": "inhale"}`: "",
		`{"text": "x", "second": 0, "every": 10}`:                              "",
		`{"text": "x", "round": "first"}`:                                      `or "last"`,
		`{"text": "x", "round": "last", "stage": "closing"}`: "only in stage round or " +
			"rest",
		`{"text": "x", "through": "nose"}`: "left, right, both, mouth",
		`{"text": "x", "part": "head"}`:    "belly, ribs, chest",
		`{"text": "x", "part": "belly", "stage": "rest"}`: "only in stage round, " +
			"opening or closing",
		`{"text": "x", "through": "left", "second": 4}`: "not together with second",
		`{"text": "x", "every": 30}`:                    "only together with second",
		`{"text": "x", "second": 0, "every": 9}`:        "10 to 600",
	} {
		var f Fields
		require.NoError(t, f.UnmarshalJSON([]byte(`{"type": "practice", "practice": "ujjayi", "lines": [`+line+`]}`)))
		p, err := One(f)
		if says == "" {
			require.NoError(t, err, line)
			assert.Len(t, p.Lines, 1)
			continue
		}
		assert.Contains(t, language.English().Error(err), says, line)
	}
	usual := func(passage string) string {
		var f Fields
		require.NoError(t, f.UnmarshalJSON([]byte(`{`+passage+`, "lines": [{"text": "x"}]}`)))
		p, err := One(f)
		require.NoError(t, err)
		return p.Lines[0].Stage
	}
	assert.Equal(t, "round", usual(`"type": "practice", "practice": "ujjayi"`))
	assert.Equal(t, "own", usual(`"type": "practice", "practice": "ujjayi", "pace": "own"`))
	assert.Equal(t, "talk", usual(`"type": "talk"`))
	assert.Equal(t, "free", usual(`"type": "free", "seconds": 9`))
}
