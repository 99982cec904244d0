package sheet

import (
	"bytes"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/plan"
	"vastlantern/language"
)

func readText(text string) (plan.Document, *plan.Plan, error) {
	return ReadPlan(strings.NewReader(text))
}

const head = `{"format": "vast-lantern-plan", "version": 1, `

func TestAPlanSurvivesTheRoundTrip(t *testing.T) {
	text := head + `"title": "Lunch & <quiet>", "room": {"mats": 12, "big": 12345678901234567890}, "tempo": 54.30,
		"passages": [{"type": "free", "breaths": 10, "colour": "blue"}, {"type": "practice", "practice": "nadi-shodhana",
		"closing": [{"breaths": 1, "mark": [1, null, true]}]}]}`
	doc, p, err := readText(text)
	require.NoError(t, err)
	assert.Equal(t, "54.3", p.Tempo.String())
	var out bytes.Buffer
	require.NoError(t, WritePlan(&out, doc))
	again, _, err := ReadPlan(&out)
	require.NoError(t, err)
	assert.Equal(t, doc, again, "known and unknown fields, numbers to the last digit")
}

func TestFilesThatAreNoPlans(t *testing.T) {
	for name, c := range map[string]struct{ text, says string }{
		"empty":         {"", "empty"},
		"no JSON":       {"{\n\n  'title': 1}", "line 3"},
		"cut off":       {`{"title": "x`, "not JSON"},
		"a list":        {"[]", "not a JSON object"},
		"null":          {"null", "not a JSON object"},
		"two objects":   {"{}\n{}", "line 2"},
		"no UTF-8":      {"{\"title\": \"\xff\"}", "UTF-8"},
		"over 1 MiB":    {`{"title": "` + strings.Repeat("x", 1<<20) + `"}`, "1 MiB"},
		"another thing": {`{"format": "else", "version": 1, "passages": []}`, `plan, format: given "else"`},
	} {
		_, _, err := readText(c.text)
		require.Error(t, err, name)
		assert.Contains(t, language.English().Error(err), c.says, name)
	}
}

func TestEveryErrorIsReportedWithPassageFieldGivenAndAllowed(t *testing.T) {
	_, _, err := readText(head + `"tempo": 19.99, "slot_min": "25", "starts_at": "tomorrow", "passages": [
		{"type": "talk", "seconds": 0.5, "rounds": 3, "wait": "yes"},
		{"type": "practice", "practice": "juggling", "count_in": 41},
		{"type": "practice", "title": "Sides", "practice": "nadi-shodhana", "counts": "4:x", "rounds": 0, "minutes": 2, "airway": "nose",
		 "side": "up", "closing": [{"breaths": 21}, {"seconds": 5, "counts": "4:4"}, {}, 7]},
		{"type": "practice", "practice": "counted-breath", "pace": "own", "rounds": 2, "side": "left", "voice": "syllables", "lead_in": 1.5},
		{"type": "dance"},
		{"type": "free"}, 4]}`)
	var errs plan.Errors
	require.ErrorAs(t, err, &errs)
	got := map[string]bool{}
	for _, e := range errs {
		got[language.English().Error(e)] = true
	}
	for _, want := range []string{
		`plan, tempo: given 19.99, allowed: a number, 20 to 120`,
		`plan, slot_min: given "25", allowed: a number, over 0, up to 1440`,
		`plan, starts_at: given "tomorrow", allowed: a date and time such as 2026-03-02T18:30:00+01:00 (RFC 3339)`,
		`passage 1 (talk), seconds: given 0.5, allowed: a number, 1 to 7200`,
		`passage 1 (talk), rounds: given 3, allowed: only on led practices of several rounds and on counted practices at ` +
			`own pace; others have minutes`,
		`passage 1 (talk), wait: given "yes", allowed: true or false`,
		`passage 3 (Sides), rounds: given 0, allowed: either rounds or minutes, not both`,
		`passage 3 (Sides), airway: given "nose", allowed: only on practices that take it`,
		`passage 3 (Sides), side: given "up", allowed: left, right`,
		`passage 3 (Sides), closing 1: breaths: given 21, allowed: a whole number, 1 to 20`,
		`passage 3 (Sides), closing 2: counts: given "4:4", allowed: only on a step of breaths`,
		`passage 3 (Sides), closing 3: breaths: missing, allowed: a step has breaths or seconds`,
		`passage 3 (Sides), closing: given 7, allowed: an object as entry 4`,
		`passage 4 (counted-breath), side: given "left", allowed: only on practices that take it`,
		`passage 4 (counted-breath), syllables: missing, allowed: a list of texts, required with this voice`,
		`passage 4 (counted-breath), lead_in: given 1.5, allowed: a whole number, 0 to 20`,
		`passage 5 (dance), type: given "dance", allowed: talk, free, practice`,
		`passage 6 (free), seconds: missing, allowed: a free passage has seconds or breaths`,
		`passage 7, passage: given 4, allowed: an object`,
	} {
		assert.True(t, got[want], "missing: %s\namong:\n%s", want, language.English().Error(errs))
	}
	assert.Contains(t, language.English().Error(err), `passage 2 (juggling), practice: given "juggling"`)
	assert.Contains(t, language.English().Error(err), `passage 3 (Sides), counts: given "4:x"`)
	assert.Contains(
		t,
		language.English().Error(err),
		`passage 2 (juggling), count_in: given 41`,
		"fields are checked though the practice is unknown",
	)
}

func TestTheBoundsOfAClass(t *testing.T) {
	long := strings.Repeat(`{"type": "talk", "seconds": 7200},`, 6)
	_, _, err := readText(head + `"passages": [` + strings.TrimSuffix(long, ",") + `]}`)
	require.NoError(t, err, "12 hours")
	_, _, err = readText(head + `"passages": [` + long + `{"type": "talk", "seconds": 1}]}`)
	require.Contains(t, language.English().Error(err), "12 hours")
	many := strings.TrimSuffix(strings.Repeat(`{"type": "talk", "seconds": 1},`, 201), ",")
	_, _, err = readText(head + `"passages": [` + many + `]}`)
	require.Contains(t, language.English().Error(err), "up to 200")
}

// What is beyond the bounds is told beside other errors too, and none of it is computed: 400 such passages are
// gigabytes of rows.
func TestNothingIsComputedBeyondTheBounds(t *testing.T) {
	const passage = `{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 999},`
	for many, want := range map[int]string{400: "up to 200", 50: "12 hours"} {
		_, p, err := readText(
			head + `"slot_min": "soon", "passages": [` + strings.Repeat(
				passage,
				many-1,
			) + strings.TrimSuffix(passage, ",") + `]}`,
		)
		require.Contains(t, language.English().Error(err), "slot_min")
		require.Contains(t, language.English().Error(err), want)
		require.NotNil(t, p)
		assert.Empty(t, p.Passages)
	}
	strokes := strings.Repeat(
		`{"type": "practice", "practice": "kapalabhati", "strokes": 500, "rate": 140, "rounds": 40, "rest_between": 1, `+
			`"lead_in": 0},`,
		5,
	)
	_, p, err := readText(head + `"passages": [` + strings.TrimSuffix(strokes, ",") + `]}`)
	require.Contains(t, language.English().Error(err), "up to 100000 counts and strokes")
	assert.NotContains(t, language.English().Error(err), "12 hours")
	assert.Empty(t, p.Passages)
}

func TestReadScript(t *testing.T) {
	script, err := ReadScript(strings.NewReader(`{"at_ms": 0, "do": "tempo", "to": 52.5, "carry": true, "why": "unknown"}

		{"at_ms": 7, "do": "rounds", "by": -1}
		{"at_ms": 7, "do": "rounds", "to": 4}
		{"at_ms": 9, "do": "note", "text": "quiet"}`))
	require.NoError(t, err)
	require.Len(t, script, 4)
	assert.Equal(t, "52.5", script[0].To.String())
	assert.True(t, script[0].Carry)
	assert.Equal(t, -1, script[1].By)
	assert.False(t, script[2].Relative)
	assert.Equal(t, "quiet", script[3].Text)
}

func TestEveryWrongLineOfAScriptIsNamed(t *testing.T) {
	lines := []string{
		`not json`, `{"do": "pause"}`, `{"at_ms": -1, "do": "pause"}`, `{"at_ms": 1.5, "do": "pause"}`,
		`{"at_ms": 5, "do": "fly"}`,
		`{"at_ms": 5}`, `{"at_ms": 5, "do": "tempo"}`, `{"at_ms": 5, "do": "tempo", "to": "50"}`,
		`{"at_ms": 5, "do": "rounds"}`,
		`{"at_ms": 5, "do": "rounds", "to": 2.5}`, `{"at_ms": 5, "do": "note"}`, `{"at_ms": 50, "do": "pause"}`,
		`{"at_ms": 49, "do": "resume"}`,
	}
	_, err := ReadScript(strings.NewReader(strings.Join(lines, "\n")))
	var errs ScriptErrors
	require.ErrorAs(t, err, &errs)
	var wrong []int
	for _, e := range errs {
		wrong = append(wrong, e.Line)
	}
	assert.Equal(t, []int{1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 13}, wrong)
	assert.Contains(t, language.English().Error(err), "line 13: at_ms: given 49, allowed: 50 or later")
}
