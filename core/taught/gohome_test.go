package taught_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/taught"
)

func square(counts string, rounds int, more string) string {
	return `{"type": "practice", "practice": "counted-breath", "counts": "` + counts + `", "rounds": ` + string(
		rune('0'+rounds),
	) + more + `}`
}

// What goes home is what was the point of the class: never its try-out, nor the first of a course.
func TestWhatGoesHome(t *testing.T) {
	const sigh = `{"type": "practice", "practice": "sigh", "rounds": 6}`
	for _, c := range []struct {
		name     string
		passages []string
		order    []int
	}{
		{"a class on 4:2:7", []string{square("4:4", 3, `, "trial": true`), square("4:4", 9, ""), square("4:2:6", 9, ""),
			square("4:2:7", 9, "")}, []int{4, 3, 2}},
		{"counts that go back at the end", []string{square("4:4", 9, ""), square("4:2:7", 9, ""), square("4:4", 9, "")},
			[]int{2, 3, 1}},
		{"the main figure, not the last", []string{square("4:4:4:4", 2, ""), square("4:4:4:4", 1, ""),
			square("4:2:8", 3, "")}, []int{1, 2, 3}},
		{"the practice that took longest", []string{square("4:4", 4, ""), nadi("4:4:8", 6, ""),
			`{"type": "free", "seconds": 600}`}, []int{2, 1}},
		{"what settles comes last", []string{sigh, sigh, square("4:4", 1, "")}, []int{3, 2, 1}},
		{"at own pace too", []string{nadi("4:4", 1, ""),
			`{"type": "practice", "practice": "nadi-shodhana", "pace": "own", "minutes": 5}`}, []int{2, 1}},
		{"no practice", []string{`{"type": "talk", "seconds": 60}`}, []int{}},
	} {
		p := read(t, c.passages...)
		lengths := make([]int64, len(p.Passages))
		for i := range lengths {
			lengths[i] = p.Passages[i].PlannedLength().Round()
		}
		assert.Equal(t, c.order, taught.CanGoHome(p, lengths), c.name)
	}
	p := read(t, nadi("4:4:8", 6, ""), square("4:4", 3, ""))
	assert.Equal(t, []int{2}, taught.CanGoHome(p, []int64{0, 24_000}), "what was not reached does not go home")
}

// What the plan says is the point goes home first, and climbs next time, though another practice took longer.
func TestThePointOfAClassThatIsChosen(t *testing.T) {
	p := read(t, nadi("4:4", 9, `, "lead_in": 0`)+
		`, {"type": "practice", "practice": "ujjayi", "rounds": 4, "lead_in": 0, "point": true}`)
	lengths := []int64{p.Passages[0].PlannedLength().Round(), p.Passages[1].PlannedLength().Round()}
	assert.Equal(t, []int{2, 1}, taught.CanGoHome(p, lengths))
	p.Passages[1].Point = false
	assert.Equal(t, []int{1, 2}, taught.CanGoHome(p, lengths))
	p.Passages[1].Point = true
	var h taught.History
	for range 3 {
		h.Add(taught.Of(p, nil, 3_600_000))
	}
	next, _ := h.Next("ujjayi")
	assert.True(t, next.Climbs)
	next, _ = h.Next("nadi-shodhana")
	assert.False(t, next.Climbs, "the rest is kept as it was")
}
