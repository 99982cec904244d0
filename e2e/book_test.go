package e2e

import (
	"fmt"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// A new figure, built out of phases in the browser, is played as it is built, kept, planned and led.
func TestAFigureOfOnesOwn(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page := th.page("/practices/sigh")
	th.see(page, "h2", "Sighing out")
	th.click(page, "button", "Your own")
	th.click(page, ".dropdown-item", "Copy")
	th.see(page, "h1", "Sighing out, my way")
	th.fill(page, "#name", "Two sips and a sigh")

	// A second sip: in by the left, always two counts, then the sigh.
	th.click(page, ".figure button", `\+ phase`)
	th.choose(page, "Phase 5", "inhale")
	th.choose(page, "Counts of phase 5", "always")
	th.fill(page, `[aria-label="Counts of phase 5, number"]`, "0")
	th.see(page, ".alert", `phase 5: counts: given “0”`)
	assert.True(t, th.act(page, "button", "Save practice", "(e) => e.disabled").Bool(), "what is not right is not kept")
	th.fill(page, `[aria-label="Counts of phase 5, number"]`, "2")
	th.choose(page, "Airway of phase 5", "left")
	th.see(page, ".sample .label", "inhale left")
	th.click(page, "button", "Save practice")
	th.see(page, "h2", "Two sips and a sigh")
	th.see(page, ".sample .label", "inhale left")

	body := `{"document": {"format": "vast-lantern-plan", "version": 1, "tempo": 120, "passages": [
		{"type": "practice", "practice": "own-sighing-out-my-way", "rounds": 30, "lead_in": 0}]}}`
	var plan contract.Plan
	require.NoError(t, th.program.Post("/api/plans", body, &plan))
	require.Empty(t, plan.Summary.Errors)
	var score contract.Score
	require.NoError(t, th.program.Lead(plan.ID, &score))
	lead := th.page(fmt.Sprintf("/lead/%d", score.ClassID))
	th.see(lead, ".string.left .label", "inhale left")
	th.see(lead, `[data-testid="word"]`, `inhale\s*left`)
}

// A group in which somebody is pregnant is warned of holds at each of the four places, and offered the gentle variant.
func TestAGroupIsWarnedAtFourPlaces(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page := th.page("/groups/new")
	th.write(page, "#group-name", "Ground floor")
	th.click(page, "label", "^pregnancy$")
	th.click(page, "button", "Add the group")
	th.see(page, ".list-group-item", "Ground floor")
	var groups contract.Groups
	require.NoError(t, th.program.Get("/api/groups", &groups))
	group := groups.Groups[0]
	assert.Equal(t, map[string]int{"pregnancy": 1}, group.Conditions)

	book := th.page("/practices/segmented-breath")
	th.see(book, ".caution.strong", "Holding the breath")
	th.choose(book, "Read it for a group", "for Ground floor")
	th.see(book, ".findings", "Holding the breath: pregnancy")

	var plan contract.Plan
	require.NoError(
		t,
		th.program.Post(
			"/api/plans",
			`{"document": {"format": "vast-lantern-plan", "version": 1, "title": "Held", "tempo": 60, "passages": [
		{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 40}]}}`,
			&plan,
		),
	)
	view := th.page(fmt.Sprintf("/plan/%d", plan.ID))
	th.see(view, ".numbers", "40 rounds")
	th.pick(view, "#group", "Ground floor")
	th.fill(view, `[aria-label^="Counts, length and tempo"]`, "4:4:4 x40")
	th.see(view, ".findings", "Holding the breath: pregnancy")
	th.click(view, "button", "Use the gentle variant")
	th.see(view, ".numbers", "60 rounds of 8 s")
	th.tap(view, `button[aria-label="Undo"]`, "^") // an icon stands over its middle
	th.see(view, ".findings", "Holding the breath: pregnancy")
	th.see(view, "span", "^Saved$")

	th.click(view, "button", "Lead$")
	th.see(view, ".modal .forgroup", "Holding the breath: pregnancy")
	th.click(view, ".modal button", "I have read this: begin")
	th.see(view, `[data-testid="word"]`, "inhale")
	th.press(view, input.KeyT)
	th.see(view, ".pad .findings", "Holding the breath: pregnancy")
	th.press(view, input.KeyG)
	th.see(view, ".answer", "no holds from here on")
	th.see(view, "button", "Holds back")
}

// The book says who can set the pace of a practice, and plans it so.
func TestAPracticeIsPlannedByMyBreath(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page := th.page("/practices/three-part-breath")
	th.see(page, ".facts", "pace: the beat, my breath, each person")
	th.tap(page, `[aria-label="Who sets the pace"]`, "")
	th.see(page, ".dropdown-menu.show", "Pace: my breath")
	th.click(page, ".dropdown-item", "Pace: my breath")
	th.see(page, "span", "^Saved$")
	th.until(page, `document.querySelectorAll(".passage").length === [...document.querySelectorAll(".passage .says")].filter(
		(says) => says.textContent === "by hand").length`)
}
