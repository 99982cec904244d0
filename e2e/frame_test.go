package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// Seven tabs of one browser show the class and the room: a press is still answered at once. A browser has six
// connections to a host, and each stream keeps one.
func TestManyTabsOfOneBrowser(t *testing.T) {
	onBothAddresses(t, manyTabsOfOneBrowser)
}

func manyTabsOfOneBrowser(t *testing.T, th *theater) {
	score := th.begin(held)
	var code contract.RoomCode
	require.NoError(t, th.program.Get("/api/room", &code))
	browser := th.context()
	path := fmt.Sprintf("%s/lead/%d", th.at, score.ClassID)
	for i := range 7 {
		address := path
		if i%2 == 1 {
			address = th.at + "/room/" + code.Code
		}
		tab := th.tabOf(browser, address, 1280, 800, th.program.Cookies...)
		th.see(tab, `[data-testid="word"]`, ".")
	}
	last := th.tabOf(browser, path, 1280, 800, th.program.Cookies...)
	th.see(last, `[data-testid="word"]`, ".")
	th.press(last, input.KeyS)
	th.see(last, ".answer", "41 rounds instead of 40")
}

// The way back to the class is on every page, also where something else of the page fails.
func TestTheWayBackIsOnEveryPage(t *testing.T) {
	th := open(t)
	defer th.recovered()
	starts := time.Now().Add(20 * time.Minute).Format(time.RFC3339)
	var half contract.Plan
	require.NoError(
		t,
		th.program.Post(
			"/api/plans",
			fmt.Sprintf(
				`{"document": {"format": "vast-lantern-plan", "version": 1, "title": "Half written", "slot_min": "60 min", `+
					`"starts_at": %q, "passages": [{"type": "talk"}]}}`,
				starts,
			),
			&half,
		),
	)
	score := th.begin(held)
	page := th.page("/api/clock")
	for _, path := range []string{"/", fmt.Sprintf("/plan/%d", half.ID), "/plan/1/card", "/plan/1/home", "/try/2",
		"/practices", "/groups", "/school", "/taught", "/taught/99", "/taught/year/2026", "/nowhere"} {
		th.visit(page, th.at+path)
		th.see(page, ".running", "By keys is being led")
	}
	th.visit(page, th.at+"/")
	th.see(page, "h1", "Half written")
	th.click(page, ".running a", "Return to class")
	th.see(page, ".aside", "of 40")
	require.Contains(t, th.address(page), fmt.Sprintf("/lead/%d", score.ClassID))
}
