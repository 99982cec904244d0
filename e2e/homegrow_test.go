package e2e

import (
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

// aDay has a page open at a moment, as its device has it, in the time zone; and keep nothing of a page where it is told
// to.
func (th *theater) aDay(page *screen, moment, zone string, keeps bool) {
	th.Helper()
	require.NoError(th, proto.EmulationSetTimezoneOverride{TimezoneID: zone}.Call(page.tab))
	js := fmt.Sprintf(`(() => {
		const Real = Date, apart = Real.parse(%q) - Real.now();
		window.Date = class extends Real {
			constructor(...of) { of.length === 0 ? super(Real.now() + apart) : super(...of); }
			static now() { return Real.now() + apart; }
		};
	})();`, moment)
	if !keeps {
		js += `Object.defineProperty(window, "localStorage", { get() { throw new DOMException("", "SecurityError"); } });`
	}
	_, err := proto.PageAddScriptToEvaluateOnNewDocument{Source: js}.Call(page.tab)
	require.NoError(th, err)
}

// atHome opens a page that plays from the disk, with the network off, at a moment on a device.
func (th *theater) atHome(path, moment, zone string, keeps bool) *screen {
	th.Helper()
	tab := th.opened("about:blank", 390, 844)
	require.NoError(th, proto.NetworkEnable{}.Call(tab.tab))
	off := proto.NetworkEmulateNetworkConditions{Offline: true, DownloadThroughput: -1, UploadThroughput: -1}
	require.NoError(th, off.Call(tab.tab))
	th.aDay(tab, moment, zone, keeps)
	th.visit(tab, "file://"+path)
	return tab
}

// A practice that grows is typed, read back, given, and goes home in one page. The page knows its day on any device,
// offers what is for today or a step back, remembers what was done, and says what to do when it was too much.
func TestAHomePracticeThatGrows(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var plan contract.Plan
	require.NoError(t, th.program.Post("/api/plans/import",
		`{"text": "# Short\ntempo 60\ncounted breath 1:1 x2 lead-in 0\n"}`, &plan))
	give := th.page(fmt.Sprintf("/plan/%d/home", plan.ID))
	th.see(give, ".give", "Each time: 1:1")
	th.pick(give, "#home-grows", "Steps of my own")
	th.write(give, `[aria-label="Step 1"]`, "x1")
	th.write(give, `[aria-label="Step 2"]`, "gladly")
	th.see(give, ".give .step", "Days 1 to 7: 1:1, one round")
	th.see(give, ".give .text-danger", "Step 2, “gladly”")
	th.tap(give, ".give button[type=submit]", "")
	th.see(give, ".alert", "Step 2, “gladly”")
	assert.Equal(t, "gladly", th.value(give, `[aria-label="Step 2"]`), "what was typed is still there")
	th.fill(give, `[aria-label="Step 2"]`, "x3")
	th.see(give, ".give", "Until you say otherwise. From day 8: 1:1, 3 rounds")
	th.fill(give, `[aria-label="Step 1 lasts"]`, "3")
	th.choose(give, "Unit of step 1", "days")
	th.write(give, "#home-ask", "Nora, 555 0100")
	th.eval(give, `() => {
		const day = document.querySelector("#home-begins");
		Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(day, "2026-11-30");
		day.dispatchEvent(new Event("input", { bubbles: true }));
	}`)
	th.see(give, ".give", "From day 4: 1:1, 3 rounds")
	th.accessible(give, "give")
	th.tap(give, ".give button[type=submit]", "")
	th.see(give, ".given", "days 1 to 3 1:1, one round")
	th.see(give, ".given", "from day 4 1:1, 3 rounds")
	th.click(give, ".given a", "Paper")
	th.see(give, ".paper .steps", "Days 1 to 3, 30 Nov to 2 Dec:")
	th.see(give, ".paper footer", "ask Nora, 555 0100")

	var offer contract.HomeOffer
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/plans/%d/home", plan.ID), &offer))
	path := filepath.Join(t.TempDir(), "home.html")
	page := th.fetch(fmt.Sprintf("/api/homes/%d/page", offer.Given[0].ID))
	require.NoError(t, os.WriteFile(path, page, 0o600))

	const moment = "2026-12-03T10:30:00Z" // day 4 in London, day 5 already on Kiritimati
	home := th.atHome(path, moment, "Europe/London", true)
	th.see(home, ".days h2", "^Day 4$")
	th.see(home, `.days .steps [aria-pressed="true"]`, `Today\s+1:1, 3 rounds`)
	th.accessible(home, "days")
	th.click(home, ".days .steps button", "A step back")
	th.click(home, "button", "^Start$")
	th.see(home, ".aside", "round 1 of 1")
	th.see(home, "h1", "It is done")
	th.click(home, "button", "^Back$")
	th.see(home, `.days .steps [aria-pressed="true"]`, "Today")
	th.see(home, `.strip [aria-pressed="true"]`, "✓")
	th.reload(home)
	th.see(home, `.strip [aria-label="Day 4, Thursday 3 December: done"]`, "✓")
	th.click(home, "button", "^Too much$")
	th.see(home, ".toomuch", `ask Nora, 555 0100[\s\S]*licensed professional`)
	th.accessible(home, "too much")
	th.click(home, "button", "^Back$")
	th.see(home, ".days", "It was too much today: leave it until tomorrow, and ask Nora")
	th.see(home, `.days .steps [aria-pressed="true"]`, "A step back")

	th.aDay(home, "2026-12-04T10:30:00Z", "Europe/London", true) // the day after, on the same device
	th.reload(home)
	th.see(home, ".days h2", "^Day 5$")
	th.see(home, ".days", "Last time was too much: a step back is offered")
	th.click(home, "button", "Forget all ticks")
	th.see(home, `.days .steps [aria-pressed="true"]`, "Today")

	other := th.atHome(path, moment, "Pacific/Kiritimati", true)
	th.see(other, ".days h2", "^Day 5$")
	assert.Zero(t, th.count(other, `.strip [aria-pressed="true"]`), "another device knows nothing of the first")
	early := th.atHome(path, "2026-11-29T23:30:00Z", "America/New_York", true)
	th.see(early, ".days h2", "Begins on Monday 30 November")
	without := th.atHome(path, moment, "Europe/London", false)
	th.see(without, ".days", "This browser remembers nothing of a page")
	th.flip(without, ".days .tick input")
	th.see(without, `.strip [aria-pressed="true"]`, "✓")
	th.click(without, "button", "^Start$")
	th.see(without, ".aside", "round 1 of 3")
}

// What waits for the teacher in class waits at home for a touch, anywhere or by a key, or goes on by the beat.
func TestByHandAtHome(t *testing.T) {
	t.Parallel()
	th := &theater{T: t, browser: sharedBrowser(t)}
	defer th.recovered()
	binary, err := stage.Binary()
	require.NoError(t, err)
	folder := t.TempDir()
	write := func(passage string) string {
		t.Helper()
		plan := filepath.Join(folder, "one.plan.json")
		text := `{"format": "vast-lantern-plan", "version": 1, "tempo": 120, "passages": [` + passage + `]}`
		require.True(t, json.Valid([]byte(text)))
		require.NoError(t, os.WriteFile(plan, []byte(text), 0o600))
		page, err := exec.Command(binary, "home", plan).Output()
		require.NoError(t, err)
		path := filepath.Join(folder, "home.html")
		require.NoError(t, os.WriteFile(path, page, 0o600))
		return path
	}
	byHand := write(`{"type": "practice", "practice": "ujjayi", "counts": "2:2:4", "rounds": 2, "lead_in": 0,
		"by_hand": "all"}`)
	const moment, zone = "2026-12-03T10:30:00Z", "Europe/London"
	tab := th.atHome(byHand, moment, zone, true)
	assert.Zero(t, th.count(tab, ".days"), "a page that was given on no day counts none")
	th.see(tab, ".before", "Space ends the phase")
	th.click(tab, "button", "^Start$")
	for round := 1; round <= 2; round++ {
		for _, phase := range []struct {
			word, usual string
			goOn        func()
		}{
			{"inhale", "usually after 1 s", func() { th.press(tab, input.Space) }},
			{"hold", "usually after 1 s", func() { th.tap(tab, ".anywhere", "") }},
			{"exhale", "usually after 2 s", func() { th.click(tab, "button.touch", "Next") }},
		} {
			th.see(tab, `[data-testid="word"]`, phase.word)
			th.see(tab, ".aside", fmt.Sprintf("round %d of 2", round))
			th.see(tab, "button.touch", phase.usual)
			if round == 1 && phase.word == "inhale" {
				th.accessible(tab, "by touch")
				th.until(tab, `Number(document.querySelector('[data-testid="count"]').innerText) >= 2`) // it waits
				th.see(tab, `[data-testid="word"]`, "inhale")
			}
			phase.goOn()
		}
	}
	th.see(tab, "h1", "It is done")
	th.click(tab, "button", "^Back$")
	th.click(tab, "button", "^Start$")
	th.see(tab, "button.touch", "usually after 1 s")
	th.focus(tab, "button", "^Too much$")
	th.press(tab, input.Enter)
	th.see(tab, ".toomuch", "Stop now") // a key on a button is that button's
	th.click(tab, "button", "^Back$")
	th.pick(tab, ".choices label:nth-child(2) select", "the beat, at the usual length")
	th.watch(tab)
	th.click(tab, "button", "^Start$")
	th.see(tab, "h1", "It is done")
	assert.Greater(t, th.eval(tab, "() => watched.shown.length").Int(), 12, "it is counted")

	open := write(`{"type": "practice", "practice": "open-holds", "open_seconds": [1, 2, 1, 1], "rounds": 1}`)
	tab = th.atHome(open, moment, zone, true)
	th.pick(tab, ".choices label:nth-child(2) select", "my own: a touch ends each phase")
	th.click(tab, "button", "^Start$")
	for range 4 {
		th.click(tab, "button.touch:not(:disabled)", "Next")
	}
	th.see(tab, "h1", "It is done")
	th.press(tab, input.Escape)
	th.see(tab, ".before", "When to stop")
}
