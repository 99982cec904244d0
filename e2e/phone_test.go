package e2e

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// The views of the day fit a phone and an upright tablet too: nothing is wider than its screen.
func TestEveryViewFitsAPhoneAndATablet(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var group contract.Group
	require.NoError(t, th.program.Post("/api/groups", `{"name": "Lunch", "weekday": 1, "weektime": "12:30"}`, &group))
	var plan contract.Plan
	require.NoError(
		t,
		th.program.Post(
			"/api/plans",
			fmt.Sprintf(
				`{"group_id": %d, "document": {"format": "vast-lantern-plan", "version": 1, "title": "A class with quite a long title", "slot_min": 30, "passages": [
		{"type": "talk", "title": "Something with a long name", "seconds": 90}, {"type": "practice", "practice": "nadi-shodhana", "counts": "4:16:8", "rounds": 12}]}}`,
				group.ID,
			),
			&plan,
		),
	)
	var score contract.Score
	require.NoError(t, th.program.Lead(plan.ID, &score))
	require.NoError(
		t,
		th.program.Post(
			fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
			`{"key": "end", "do": "end"}`,
			&contract.Adjusted{},
		),
	)
	require.NoError(
		t,
		th.program.Post("/api/practices/copy", `{"id": "counted-breath", "name": "Mine"}`, &contract.PracticeFile{}),
	)
	page := th.phone("/api/clock")
	for path, ready := range map[string]string{
		"/": "Taught recently", fmt.Sprintf("/plan/%d", plan.ID): "^Saved$", "/practices": "Alternate nostril",
		"/practices/ujjayi":                 "Watch for",
		fmt.Sprintf("/groups/%d", group.ID): "1 class", "/taught": "A class with",
		fmt.Sprintf("/taught/%d", score.ClassID): "1 adjustment", "/school": "Your own words",
		fmt.Sprintf("/plan/%d/home", plan.ID): ".", "/practices/own-mine/edit": "Cautions to add",
		"/rehearse": "See the gasp", "/keys": "Slower", "/voices": "Whose voice", "/help": ".",
		"/no/such/page": "Go to today",
	} {
		th.resize(page, 390, 844)
		th.visit(page, th.at+path)
		th.see(page, "main *", ready)
		th.until(page, `document.fonts.status === "loaded"`)
		// As on a touch screen, where a bar to scroll with takes no room.
		th.eval(page, `() => { document.documentElement.style.scrollbarWidth = "none" }`)
		for _, size := range [][2]int{{390, 844}, {360, 640}, {768, 1024}, {801, 1180}} {
			th.resize(page, size[0], size[1])
			// The window itself is made wider where something is: so its width is not what to compare with.
			if !th.holds(page, settles, fmt.Sprintf("document.documentElement.scrollWidth === %d", size[0])) {
				assert.Empty(
					t,
					th.eval(page, `(width) => [...document.querySelectorAll("body *")].filter((e) => `+
						`e.getBoundingClientRect().right > width).map((e) => e.tagName + "." + e.className).join("; ")`, size[0]).
						Str(),
					"%s at %v",
					path,
					size,
				)
			}
		}
	}
}
