package plan

import (
	"strings"
	"testing"

	"vastlantern/language"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestAdvice(t *testing.T) {
	const settle, even, held, nadi, strokes, rest = `{"type": "talk"}`,
		`{"type": "practice", "practice": "counted-breath"}`,
		`{"type": "practice", "practice": "counted-breath", "title": "Square", "counts": "4:4:4:4"}`,
		`{"type": "practice", "practice": "nadi-shodhana"}`,
		`{"type": "practice", "practice": "kapalabhati"}`, `{"type": "free", "seconds": 120}`
	for _, c := range []struct {
		name, head string
		passages   []string
		says       []string
		level      string
	}{
		{"in order: nothing to say", "", []string{settle, strokes, even, held, nadi, rest}, nil, ""},
		{"an empty plan", "", nil, nil, ""},
		{"settle first", "", []string{even, rest}, []string{"1 Let the room settle"}, ""},
		{"a closing rest", "", []string{settle, `{"type": "talk", "seconds": 540}`, even}, []string{"3 Close with a minute"},
			""},
		{"a short one is none", "", []string{settle, `{"type": "talk", "seconds": 540}`, even,
			`{"type": "free", "seconds": 59}`}, []string{"4 Close with a minute"}, ""},
		{"half a minute in a class of five", "", []string{settle, `{"type": "talk", "seconds": 162}`, even,
			`{"type": "free", "seconds": 30}`}, nil, ""},
		{"less is too short", "", []string{settle, `{"type": "talk", "seconds": 171}`, even,
			`{"type": "free", "seconds": 29}`}, []string{"4 Close with 30 s or more"}, ""},
		{"holds after a breath without", "", []string{settle, held, even, rest},
			[]string{"2 Put a breath without holds before Square"}, ""},
		{"warming before calming", "", []string{settle, nadi, strokes, rest},
			[]string{"3 Move Skull-shining breath before Alternate nostril breath"}, ""},
		{"one hint for several", "", []string{settle, nadi, strokes, strokes,
			`{"type": "practice", "practice": "panting-breath"}`, rest},
			[]string{"3 Move Skull-shining breath and Panting breath before Alternate"}, ""},
		{"holds once", "", []string{settle, held, held, rest}, []string{"2 Put a breath without holds before Square."}, ""},
		{"late in the evening", `"starts_at": "2026-03-02T20:00:00+01:00", `, []string{settle, strokes, rest},
			[]string{"2 Leave Skull-shining breath"}, ""},
		{"not yet late", `"starts_at": "2026-03-02T19:59:00+01:00", `, []string{settle, strokes, rest}, nil, ""},
		{"nothing to breathe through", "",
			[]string{settle, `{"type": "practice", "practice": "counted-breath", "beside": "breathe"}`, rest},
			[]string{"2 Remove the gentler lane of"}, ""},
		{"a hasty lane", `"tempo": 60, `,
			[]string{settle, even, `{"type": "practice", "practice": "counted-breath", "title": "Square", "counts": ` +
				`"4:4:4:4", "beside": "1:2"}`, rest}, []string{"3 Give the gentler lane of Square more"}, ""},
		{"a lane of four seconds", `"tempo": 60, `,
			[]string{settle, even, `{"type": "practice", "practice": "counted-breath", "counts": "4:4:4:4", "beside": "2:2"}`,
				rest}, nil, ""},
		{"a goodbye after the rest", "", []string{settle, even, rest, settle}, nil, ""},
		{"a long talk is none", "", []string{settle, even, rest, `{"type": "talk", "seconds": 121}`},
			[]string{"4 Close with 30 s"}, ""},
		{"stillness in a closing", "",
			[]string{settle, `{"type": "practice", "practice": "counted-breath", "closing": [{"breaths": 1}, {"seconds": 40}]}`,
				`{"type": "free", "seconds": 20}`}, nil, ""},
		{"breaths are none", "", []string{settle,
			`{"type": "practice", "practice": "counted-breath", "closing": [{"seconds": 60}, {"breaths": 1}]}`},
			[]string{"2 Close with 20 s"}, ""},
		{"more than is advised", `"tempo": 60, `,
			[]string{settle, `{"type": "practice", "practice": "counted-breath", "counts": "5:5", "rounds": 61}`, rest},
			[]string{"2 Take less of Counted breath: 10 min in one class at most, not 10 min 10 s."}, ""},
		{"in all passages", `"tempo": 60, `,
			[]string{settle, `{"type": "practice", "practice": "counted-breath", "counts": "5:5", "rounds": 31}`,
				`{"type": "practice", "practice": "counted-breath", "counts": "5:5", "minutes": 5}`, rest},
			[]string{"3 Take less of Counted breath"}, "experienced"},
		{"with beginners", `"tempo": 60, `,
			[]string{settle, `{"type": "practice", "practice": "counted-breath", "counts": "5:5", "rounds": 19}`, rest},
			[]string{"2 Take less of Counted breath: 3 min"}, "beginners"},
		{"at own pace too", "", []string{settle, `{"type": "practice", "practice": "ujjayi", "pace": "own", "minutes": 11}`,
			rest}, []string{"2 Take less of"}, ""},
		{"rounds", "", []string{settle, `{"type": "practice", "practice": "sigh", "rounds": 7}`, rest},
			[]string{"2 Take fewer rounds of Sighing out: 6 at most, not 7."}, ""},
		{"too long", `"slot_min": 2, `, []string{settle, rest}, []string{"0 The plan is 1 min longer"}, ""},
	} {
		doc := parse(
			t,
			`{"format": "vast-lantern-plan", "version": 1, `+c.head+`"passages": [`+strings.Join(c.passages, ",")+`]}`,
		)
		p, err := Read(doc)
		require.NoError(t, err, c.name)
		advice := p.Advise(c.level)
		require.Len(t, advice, len(c.says), c.name)
		for i, a := range advice {
			assert.Contains(t, string(rune('0'+a.Passage))+" "+language.English().Text(a.Say), c.says[i], c.name)
			assert.NotEmpty(t, language.English().Text(a.Why))
		}
	}
}
