// Package e2e drives the built program in headless Chromium, as a teacher would.
package e2e

import (
	"encoding/json"
	"fmt"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

const patience = 3 * time.Minute

// theater is a program with an empty data file of its own, on a clock that runs four times as fast, and a browser.
type theater struct {
	*testing.T
	program *stage.Program
	browser *stage.Browser
	data    string
	from    string
	at      string // where pages are opened: the program's address on this machine, or on the network
}

const passcode = "warm lamp oil"

// onBothAddresses runs a test over the loopback address and over the machine's own address on the network. On the latter
// pages have much less: a browser trusts plain http only from its own machine.
func onBothAddresses(t *testing.T, run func(*testing.T, *theater)) {
	t.Run("loopback", func(t *testing.T) { run(t, open(t)) })
	t.Run("network", func(t *testing.T) {
		th := openWith(t, func(th *theater) {
			require.NoError(t, stage.SetPasscode(th.data, passcode))
			th.start("0", "--lan")
			require.NoError(t, th.program.SignIn(passcode, "laptop"))
			if th.at = th.program.Network; th.at == "" {
				t.Skip("this machine has no address on a network")
			}
		})
		secure := th.page("/room/NOBODY").MustEval("() => isSecureContext").Bool()
		require.False(t, secure, "what is tried here is plain http from another machine")
		run(t, th)
	})
}

func open(t *testing.T) *theater {
	t.Helper()
	return openWith(t, func(th *theater) { th.start("0") })
}

func openWith(t *testing.T, start func(*theater)) *theater {
	t.Helper()
	t.Parallel() // most of the time is spent waiting for a clock
	th := &theater{T: t, data: filepath.Join(t.TempDir(), "lantern.db"), from: time.Now().Format(time.RFC3339Nano)}
	start(th)
	require.NoError(t, th.program.ReadCare())
	browser, err := stage.Open()
	require.NoError(t, err)
	t.Cleanup(browser.Close)
	th.browser = browser
	return th
}

func (th *theater) start(port string, more ...string) {
	program, err := stage.Start(append([]string{"serve", "--data", th.data, "--port", port, "--clock-rate", "4", "--clock-from", th.from}, more...)...)
	require.NoError(th, err)
	th.Cleanup(program.Kill)
	if th.program != nil {
		program.Cookies = th.program.Cookies
	}
	th.program, th.at = program, program.URL
}

// restart starts the program anew on its port, as after a crash.
func (th *theater) restart() {
	th.Helper()
	network := th.at != th.program.URL
	port := th.program.URL[strings.LastIndex(th.program.URL, ":")+1:]
	if !network {
		th.start(port)
		return
	}
	th.start(port, "--lan")
	th.at = th.program.Network
}

func (th *theater) page(path string) *rod.Page {
	th.Helper()
	page, err := th.browser.Page(th.at+path, 1280, 800, patience, th.program.Cookies...)
	require.NoError(th, err)
	return page
}

// phone opens an address on a phone.
func (th *theater) phone(path string) *rod.Page {
	th.Helper()
	page, err := th.browser.Page(th.at+path, 390, 844, patience, th.program.Cookies...)
	require.NoError(th, err)
	return page
}

// see waits for the text in the element.
func (th *theater) see(page *rod.Page, selector, text string) *rod.Element {
	th.Helper()
	element, err := page.ElementR(selector, text)
	if err != nil {
		require.NoError(th, err, "waiting for %q in %s; the page shows %s", text, selector, shown(page))
	}
	return element
}

// shown is the page's text, for a test that waited in vain.
func shown(page *rod.Page) string {
	body, err := page.CancelTimeout().Timeout(5 * time.Second).Eval(`() => document.body.innerText`)
	if err != nil {
		return err.Error()
	}
	return body.Value.Str()
}

// note keeps what is shown in the element from now on, for noted: a busy machine may look too late.
func (th *theater) note(page *rod.Page, selector string) {
	th.Helper()
	_, err := page.Eval(`(selector) => {
		window.noted = [];
		const look = () => window.noted.push(document.querySelector(selector)?.innerText.replace(/\s+/g, " ") ?? "");
		new MutationObserver(look).observe(document.body, { subtree: true, childList: true, characterData: true });
		look();
	}`, selector)
	require.NoError(th, err)
}

// noted waits until the text was shown at any time since note.
func (th *theater) noted(page *rod.Page, text string) {
	th.Helper()
	th.until(page, fmt.Sprintf("window.noted.some((shown) => shown.includes(%q))", text))
}

// end ends the class with the key that is to be pressed twice; after three seconds the first press is forgotten, and
// then it begins anew.
func (th *theater) end(page *rod.Page) {
	th.Helper()
	const over = `Boolean(document.querySelector(".over"))`
	for !page.MustEval("() => " + over).Bool() {
		th.note(page, ".answer")
		th.press(page, input.KeyX)
		th.until(page, `window.noted.some((shown) => shown.includes("press again")) || `+over) // a press before may have been the first
		th.press(page, input.KeyX)
		th.until(page, over+` || !document.querySelector(".answer")?.innerText.includes("press again")`)
	}
}

func (th *theater) press(page *rod.Page, keys ...input.Key) {
	th.Helper()
	require.NoError(th, page.Keyboard.Type(keys...))
}

// plan stores a class of short rounds and a talk that waits, which is next by the clock.
func (th *theater) plan(rounds int) contract.Plan {
	th.Helper()
	starts := time.Now().Add(20 * time.Minute).Format(time.RFC3339)
	body := fmt.Sprintf(`{"document": {"format": "vast-lantern-plan", "version": 1, "title": "Short lesson", "slot_min": 2, "starts_at": %q, "passages": [
		{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2", "rounds": %d, "tempo": 60, "lead_in": 2, "closing": [{"breaths": 1}]},
		{"type": "talk", "title": "What changed", "seconds": 30, "wait": true}]}}`, starts, rounds)
	var stored contract.Plan
	require.NoError(th, th.program.Post("/api/plans", body, &stored))
	return stored
}

func TestAClassFromPlanToRecordByKeyboard(t *testing.T) {
	th := open(t)
	stored := th.plan(3)
	page := th.page("/")
	th.see(page, "h1", "Short lesson")
	th.see(page, "a", "Change the plan").MustEval("() => this.focus()")
	th.press(page, input.Enter)

	short := page.MustElement(`[aria-label^="Counts, length and tempo"]`)
	short.MustSelectAllText().MustInput("2:2:4 y3")
	th.see(page, ".wrong", "y3")
	assert.Equal(t, "2:2:4 y3", short.MustProperty("value").Str(), "what was typed is not lost")
	short.MustSelectAllText().MustInput("2:2:4 x30 @60")
	th.see(page, ".numbers", "30 rounds of 16 s")
	th.see(page, ".numbers", "longest hold 2 s")
	th.see(page, "span", "^Saved$")
	th.see(page, "button", "Lead$").MustEval("() => this.focus()")
	th.press(page, input.Enter)
	begin := th.see(page, ".modal button", "I have read this: begin")
	require.NoError(t, begin.WaitVisible())
	th.press(page, input.Enter)

	th.see(page, `[data-testid="word"]`, `inhale\s*left`)
	th.press(page, input.KeyQ)
	th.see(page, ".answer", "slower: 58 (from the next count|after this hold)")
	th.press(page, input.KeyS)
	th.see(page, ".answer", "31 rounds instead of 30")
	th.press(page, input.KeyE)
	th.see(page, ".answer", "not now, no hold in progress|hold released")
	th.see(page, ".aside", `round ([2-9]|\d\d) of 31`)
	th.note(page, ".aside") // the last round and the closing are over soon
	th.press(page, input.KeyD)
	last := regexp.MustCompile(`\d+`).FindString(th.see(page, ".answer", `last round: \d+ in all`).MustText())
	th.noted(page, fmt.Sprintf("round %s of %s", last, last))
	th.noted(page, "closing")
	th.see(page, `[data-testid="word"]`, "What changed")
	th.end(page)
	th.press(page, input.Enter)

	th.see(page, ".twobars", "planned")
	var record contract.Record
	require.NoError(t, th.program.Get("/api/classes/1/record", &record))
	core := coreSays(t, th, stored.ID, record)
	assert.Equal(t, fmt.Sprintf("%d of %d", core.Rounds, core.PlannedRounds), oneLine(th.see(page, `[data-testid="rounds"]`, "of").MustText()))
	assert.Equal(t, last, fmt.Sprint(core.Rounds))
	row := oneLine(page.MustElement("tbody tr").MustText())
	assert.Contains(t, row, fmt.Sprintf("%d / %d", core.LeftInhales, core.RightInhales))
	assert.Contains(t, row, "60 → 58")
	assert.Equal(t, len(record.Marks), len(page.MustElements(".marks li")))
}

func oneLine(text string) string { return strings.Join(strings.Fields(text), " ") }

// coreSays is the record of the first passage that the core alone makes of the stored plan and the adjustments.
func coreSays(t *testing.T, th *theater, id int64, record contract.Record) taught.Passage {
	p := storedPlan(t, th, id)
	var script []pace.Adjustment
	for _, mark := range record.Marks {
		a := pace.Adjustment{At: mark.Answer.AtMS, Do: pace.Verb(mark.Answer.Do)}
		switch a.Do {
		case pace.ToTempo:
			a.To = breath.Int(int64(mark.Answer.After.Tempo))
		case pace.Rounds:
			a.Relative, a.By = true, mark.Answer.After.Rounds-mark.Answer.Before.Rounds
		}
		script = append(script, a)
	}
	return taught.Of(p, script, record.TaughtMS+1).Passages[0]
}

func storedPlan(t *testing.T, th *theater, id int64) *plan.Plan {
	var stored contract.Plan
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/plans/%d", id), &stored))
	_, p, err := sheet.ReadPlan(strings.NewReader(string(stored.Document)))
	require.NoError(t, err)
	return p
}

// sample is what a lead screen shows, and between which times of the application's clock it was read.
type sample struct {
	Word   string  `json:"word"`
	Count  string  `json:"count"`
	Before float64 `json:"before"`
	After  float64 `json:"after"`
}

const readScreen = `async () => {
	const clock = async () => (await (await fetch("/api/clock")).json());
	const before = (await clock()).sent_ms;
	const text = (id) => document.querySelector("[data-testid=" + id + "]")?.innerText ?? "";
	const word = text("word"), count = text("count");
	return JSON.stringify({ word, count, before, after: (await clock()).received_ms });
}`

// showsTheTrueCount reads screens until a reading falls within one count, and compares it with the plan's own sheet.
// A screen may be one animation frame behind (at four times the speed, 70 ms of the class). On a busy machine a frame
// can be later than that, and then shows one of the counts before: such a reading is taken again, but not for ever.
func showsTheTrueCount(t *testing.T, tl pace.Timeline, started float64, pages ...*rod.Page) {
	t.Helper()
	const frame, lateFrames, behind = 100, 20, 4
	for _, page := range pages {
		late := 0
		for compared := false; !compared; {
			var got sample
			require.NoError(t, json.Unmarshal([]byte(page.MustEval(readScreen).Str()), &got))
			for i, row := range tl.Rows {
				from, to := int64(got.Before-started), int64(got.After-started)
				if row.Stage != pace.Round || from-frame < row.At || to >= row.End() {
					continue
				}
				if !got.shows(row) && slices.ContainsFunc(tl.Rows[max(0, i-behind):i], got.shows) && late < lateFrames {
					late++
					continue
				}
				assert.Equal(t, fmt.Sprint(row.Count), got.Count, "at %d ms", from)
				assert.Equal(t, inShort(row), oneLine(got.Word))
				compared = true
			}
		}
	}
}

func (s sample) shows(row pace.Row) bool {
	return s.Count == fmt.Sprint(row.Count) && oneLine(s.Word) == inShort(row)
}

func inShort(row pace.Row) string {
	return strings.TrimSpace(fmt.Sprintf("%s %s", row.Phase, row.Through))
}

func TestReloadSecondTabAndKilledServerContinueAtTheRightCount(t *testing.T) {
	onBothAddresses(t, reloadSecondTabAndKilledServerContinueAtTheRightCount)
}

func reloadSecondTabAndKilledServerContinueAtTheRightCount(t *testing.T, th *theater) {
	stored := th.plan(60)
	var score contract.Score
	require.NoError(t, th.program.Post("/api/classes", fmt.Sprintf(`{"plan_id": %d}`, stored.ID), &score))
	tl := pace.Sheet(storedPlan(t, th, stored.ID))
	path := fmt.Sprintf("/lead/%d", score.ClassID)
	first := th.page(path)
	th.see(first, `[data-testid="word"]`, "inhale")
	showsTheTrueCount(t, tl, score.StartedMS, first)
	require.NoError(t, first.Reload())
	th.see(first, `[data-testid="word"]`, "inhale|exhale")
	second := th.page(path)
	th.see(second, `[data-testid="word"]`, "inhale|exhale")
	showsTheTrueCount(t, tl, score.StartedMS, first, second)

	th.program.Kill()
	th.see(first, ".offline", "the count goes on")
	th.restart()
	require.NoError(t, first.WaitElementsMoreThan(".topbar", 0))
	for len(first.MustElements(".offline")) > 0 {
		require.NoError(t, first.GetContext().Err(), "the screen never came back")
		time.Sleep(20 * time.Millisecond)
	}
	showsTheTrueCount(t, tl, score.StartedMS, first)
	var after contract.Score
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/classes/%d/score", score.ClassID), &after))
	assert.Equal(t, score.StartedMS, after.StartedMS)
	third := th.page(path)
	th.see(third, `[data-testid="word"]`, "inhale|exhale")
	showsTheTrueCount(t, tl, score.StartedMS, third)
}
