package e2e

import (
	"fmt"
	"testing"

	"github.com/go-rod/rod"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// fits tells that nothing is wider than the screen, and that every key is on it and large enough for a thumb.
const fits = `() => {
	const wide = document.documentElement.scrollWidth - 390; // the window itself is made wider where something is
	if (wide > 0) return "wider by " + wide;
	for (const key of document.querySelectorAll(".leading .key, .room footer button, .sounding")) {
		const box = key.getBoundingClientRect();
		if (box.left < 0 || box.right > innerWidth || box.top < 0 || box.bottom > innerHeight) return key.innerText + " is not on the screen";
		if (key.classList.contains("key") && (box.width < 44 || box.height < 44)) return key.innerText + " is small";
	}
	return "";
}`

// The views of the day fit a phone too: nothing is wider than its screen.
func TestEveryViewFitsAPhone(t *testing.T) {
	th := open(t)
	var group contract.Group
	require.NoError(t, th.program.Post("/api/groups", `{"name": "Lunch", "weekday": 1, "weektime": "12:30"}`, &group))
	var plan contract.Plan
	require.NoError(t, th.program.Post("/api/plans", fmt.Sprintf(`{"group_id": %d, "document": {"format": "vast-lantern-plan", "version": 1, "title": "A class with quite a long title", "slot_min": 30, "passages": [
		{"type": "talk", "title": "Something with a long name", "seconds": 90}, {"type": "practice", "practice": "nadi-shodhana", "counts": "4:16:8", "rounds": 12}]}}`, group.ID), &plan))
	var score contract.Score
	require.NoError(t, th.program.Lead(plan.ID, &score))
	require.NoError(t, th.program.Post(fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID), `{"key": "end", "do": "end"}`, &contract.Adjusted{}))
	for path, ready := range map[string]string{
		"/": "Taught recently", fmt.Sprintf("/plan/%d", plan.ID): "^Saved$", "/practices": "Alternate nostril", "/practices/ujjayi": "Watch for",
		fmt.Sprintf("/groups/%d", group.ID): "1 class", "/taught": "A class with", fmt.Sprintf("/taught/%d", score.ClassID): "1 adjustment", "/school": "Your own words",
	} {
		page, err := th.browser.Page(th.program.URL+path, 390, 844, patience)
		require.NoError(t, err)
		th.see(page, "main *", ready)
		require.NoError(t, page.Wait(rod.Eval(`() => document.fonts.status === "loaded"`)))
		// The window itself is made wider where something is: so its width is not what to compare with.
		require.Equal(t, 390, page.MustEval("() => document.documentElement.scrollWidth").Int(), path)
		require.NoError(t, page.Close())
	}
}

// On a phone the lead screen and the room have all that they have elsewhere, for every kind of practice.
func TestPhoneWidth(t *testing.T) {
	th := open(t)
	var code contract.RoomCode
	require.NoError(t, th.program.Get("/api/room", &code))
	for _, practice := range []string{
		`"practice": "nadi-shodhana", "counts": "4:16:8", "rounds": 60`, `"practice": "segmented-breath", "rounds": 60`,
		`"practice": "kapalabhati", "strokes": 60, "rounds": 30`, `"practice": "breath-of-joy", "rounds": 200`,
		`"practice": "digital-control", "counts": "12:12", "rounds": 60`, `"practice": "counted-breath", "pace": "own", "minutes": 30`,
	} {
		var plan contract.Plan
		require.NoError(t, th.program.Post("/api/plans", fmt.Sprintf(`{"document": {"format": "vast-lantern-plan", "version": 1, "title": "A class with quite a long title", "slot_min": 30, "passages": [{"type": "practice", "lead_in": 0, %s}]}}`, practice), &plan))
		require.Empty(t, plan.Summary.Errors, practice)
		var score contract.Score
		require.NoError(t, th.program.Lead(plan.ID, &score))
		for _, path := range []string{fmt.Sprintf("/lead/%d", score.ClassID), "/room/" + code.Code} {
			page, err := th.browser.Page(th.program.URL+path, 390, 844, patience)
			require.NoError(t, err)
			th.see(page, `[data-testid="word"]`, ".")
			require.NoError(t, page.Wait(rod.Eval(`() => document.fonts.status === "loaded"`)))
			require.Empty(t, page.MustEval(fits).Str(), "%s: %s", path, practice)
			require.NoError(t, page.Close())
		}
	}
}
