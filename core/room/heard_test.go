package room_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/room"
	"vastlantern/language"
)

// A rate is proposed only where the room strokes, apart from the beat by more than the ear may be wrong, and only if
// all of it was heard since the class was changed.
func TestWhatIsProposedOfStrokes(t *testing.T) {
	const strokes = `{"type": "practice", "practice": "kapalabhati", "rate": 60, "strokes": 30, "rounds": 2, ` +
		`"rest_between": 20, "lead_in": 0}`
	const resting = 40 // s: in the rest between the rounds
	for _, c := range []struct {
		name, passage string
		at            int64 // s
		heard         float64
		from, changed int64
		do, say       string
	}{
		{"quicker", strokes, 12, 66.4, 2000, 0, "tempo 66", "The room strokes at 66, the beat is 60: take 66."},
		{"slower", strokes, 12, 55, 2000, 0, "tempo 55", "at 55"},
		{"with the beat, as far as it can be told", strokes, 12, 62.9, 2000, 0, "", ""},
		{"heard before the last change", strokes, 12, 66, 2000, 2001, "", ""},
		{"no slower than a stroke can be led", strokes, 12, 12, 2000, 0, "tempo 30", "take 30"},
		{"in the rest", strokes, resting, 66, 2000, 0, "", ""},
		{"where nothing strokes", `{"type": "practice", "practice": "counted-breath", "counts": "4:4", "lead_in": 0}`,
			12, 66, 2000, 0, "", ""},
		{"at own pace", `{"type": "practice", "practice": "kapalabhati", "pace": "own", "minutes": 2, "lead_in": 0}`,
			12, 66, 2000, 0, "", ""},
	} {
		s, class := scene(t, c.passage, c.at*1000, 0)
		rate := breath.Ratio(int64(c.heard*10), 10)
		p, ok := room.ProposeHeard(room.Heard{PerMinute: rate, From: c.from}, s, c.changed)
		assert.Equal(t, c.do != "", ok, c.name)
		assert.Equal(t, c.do, done(p), c.name)
		if ok {
			assert.Contains(t, language.English().Text(p.Say), c.say, c.name)
			a := p.Do[0]
			a.At = c.at * 1000
			assert.Empty(t, class.Adjust(a).Refused, c.name)
		}
	}
	_, ok := room.ProposeHeard(room.Heard{PerMinute: breath.Int(66)}, room.Scene{Now: pace.Moment{}}, 0)
	assert.False(t, ok, "the class is over")
}
