package e2e

import (
	"fmt"
	"net/http"
	"regexp"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

// begin begins a class of the passages, with a slot of 40 minutes.
func (th *theater) begin(passages string) (score contract.Score) {
	th.Helper()
	var plan contract.Plan
	require.NoError(
		th,
		th.program.Post(
			"/api/plans",
			fmt.Sprintf(
				`{"document": {"format": "vast-lantern-plan", "version": 1, "title": "By keys", "tempo": 60, "slot_min": 40, `+
					`"passages": [%s]}}`,
				passages,
			),
			&plan,
		),
	)
	require.NoError(th, th.program.Lead(plan.ID, &score))
	return score
}

// lead begins such a class and opens its lead screen.
func (th *theater) lead(passages string) (*screen, contract.Score) {
	th.Helper()
	score := th.begin(passages)
	page := th.page(fmt.Sprintf("/lead/%d", score.ClassID))
	th.see(page, `[data-testid="word"]`, ".")
	return page, score
}

// more than a slow machine gets through in a test
const held = `{"type": "practice", "practice": "counted-breath", "counts": "4:48:8", "rounds": 40, "lead_in": 0}`

// Each adjustment by its key, told in words, in a class that is led with the keyboard alone.
func TestEachAdjustmentByItsKey(t *testing.T) {
	onBothAddresses(t, eachAdjustmentByItsKey)
}

func eachAdjustmentByItsKey(t *testing.T, th *theater) {
	page, score := th.lead(held + `,
		{"type": "practice", "practice": "kapalabhati", "strokes": 200, "rounds": 3, "lead_in": 0},
		{"type": "talk", "title": "What changed", "seconds": 30, "wait": true}`)
	presses := 0
	press := func(says string, keys ...input.Key) {
		t.Helper()
		th.press(page, keys...)
		th.see(page, ".answer", says)
		presses++
	}
	th.see(page, "button.key", `One more\s*40 → 41 \+1:00`) // before it is pressed
	press("slower: 58 (from the next count|after this hold)", input.KeyQ)
	press("faster: 60 (from the next count|after this hold)", input.KeyW)
	press("41 rounds instead of 40", input.KeyS)
	press("40 rounds instead of 41", input.KeyA)
	press("undone: rounds", input.KeyZ)
	th.see(page, `[data-testid="word"]`, "hold")
	refused := 0
	for released := false; !released; { // a hold of 48 counts lasts twelve seconds
		th.see(page, `[data-testid="word"]`, "hold")
		th.note(page, ".answer")
		th.press(page, input.KeyE)
		th.until(page, `window.noted.some((shown) => /hold released|not now/.test(shown))`)
		if released = th.eval(page, `() => window.noted.some((shown) => shown.includes("hold released"))`).Bool(); !released {
			refused++
		}
		presses++
	}
	press("the round starts over", input.KeyR)
	press("no holds from here on", input.KeyG)
	th.see(page, "button.key", "Holds back")
	press("holds are back from the next round", input.KeyG)
	press("natural breath for all", input.Space)
	th.see(page, `[data-testid="word"]`, "natural breath")
	press("resumed", input.KeyF)
	press("on time", input.Digit3)
	th.press(page, input.Digit4)
	th.open(page, "Counts")
	th.press(page, input.Digit3, input.Tab, input.Digit0, input.Enter)
	th.see(page, ".answer", "counts 4:48:8 to 3")
	th.closed(page)
	presses++
	press(`last round: \d+ in all`, input.KeyD)
	press("undone: last round", input.KeyZ) // else the passage can end by itself on a slow machine
	th.twice(page, input.KeyV, `document.querySelector(".orderlist .past")`)
	presses++
	th.see(page, `[data-testid="word"]`, "out")
	th.press(page, input.Digit4)
	th.open(page, "Strokes")
	th.press(page, input.Digit1, input.Digit9, input.Digit0, input.Enter)
	th.see(page, ".answer", "190 strokes instead of 200")
	th.closed(page)
	presses++
	press("enough: the round ends with this stroke", input.KeyE)
	press("to the closing", input.KeyC)
	th.press(page, input.KeyB)
	th.open(page, "Note")
	th.press(page, input.Digit3)
	th.see(page, ".answer", "noted: hands tire")
	th.closed(page)
	presses++
	th.press(page, input.KeyB)
	th.open(page, "Note")
	th.until(page, `document.activeElement.tagName === "INPUT"`)
	th.press(
		page,
		input.KeyS,
		input.KeyA,
		input.KeyI,
		input.KeyD,
		input.Space,
		input.KeyR,
		input.KeyX,
		input.KeyX,
		input.Digit3,
	) // no live key fires here
	th.press(page, input.Enter)
	th.see(page, ".answer", "noted: said rxx3")
	th.closed(page)
	presses++
	th.see(page, `[data-testid="word"]`, "What changed")
	th.press(page, input.KeyF) // and with it the class comes to its end
	th.see(page, "h2", "The class has ended")
	th.until(page, `(() => {
		const [inner, outer] = [".over", "main"].map((one) => document.querySelector(one).getBoundingClientRect());
		return inner.left >= outer.left && inner.right <= outer.right && inner.top > outer.top + 50;
	})()`)

	var record contract.Record
	th.asked("the last press is recorded: it was shown before it was answered", func() bool {
		require.NoError(t, th.program.Get(fmt.Sprintf("/api/classes/%d/record", score.ClassID), &record))
		return len(record.Marks) > presses
	})
	assert.Len(t, record.Marks, presses+1)
	for _, mark := range record.Marks {
		if mark.Answer.Refused != nil {
			assert.EqualValues(t, "release", mark.Answer.Do)
			refused--
		}
	}
	assert.Zero(t, refused)
}

// After a gap the teacher is asked, once, and either answer holds.
func TestAfterAGapTheTeacherIsAsked(t *testing.T) {
	onBothAddressesAt(t, 5, afterAGapTheTeacherIsAsked) // what is away for 8 s, in real time, is asked
}

func afterAGapTheTeacherIsAsked(t *testing.T, th *theater) {
	page, score := th.lead(
		`{"type": "practice", "practice": "counted-breath", "counts": "20:20:20:20", "rounds": 100, "lead_in": 3}`,
	)
	th.see(page, ".aside", `round ([2-9]|\d\d) of`)
	address := th.address(page)
	away := func(seconds float64) {
		t.Helper()
		began := th.clock()
		th.asked("the clock goes on", func() bool { return th.clock() >= began+seconds*1000 })
	}

	th.visit(page, "about:blank") // as if the browser had ended
	away(50)
	th.visit(page, address)
	th.see(page, "#pad-title", `This screen was away for (0:5|[1-9]\d*:)`)
	lost := regexp.MustCompile(`round \d+`).FindString(th.read(page, ".gap", `was at\s*Counted breath, round`))
	th.see(page, ".pad button", "Repeat what was missed")
	th.note(page, ".leading") // the round is over soon on a fast clock
	th.press(page, input.KeyR)
	th.noted(page, lost+" of")
	th.noted(page, "resumed")

	require.NoError(
		t,
		proto.PageSetWebLifecycleState{State: proto.PageSetWebLifecycleStateStateFrozen}.Call(page.tab),
	) // a lid that is closed
	away(50)
	require.NoError(t, proto.PageSetWebLifecycleState{State: proto.PageSetWebLifecycleStateStateActive}.Call(page.tab))
	th.see(page, "#pad-title", "This screen was away")
	th.press(page, input.KeyF)
	th.closed(page)
	th.sent(page)
	var record contract.Record
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/classes/%d/record", score.ClassID), &record))
	require.Len(t, record.Marks, 2, "going on at the clock adjusts nothing")
	assert.EqualValues(t, "pause", record.Marks[0].Answer.Do)

	for quick := false; !quick; {
		began := time.Now()
		th.reload(page)
		th.see(page, `[data-testid="word"]`, ".")
		if quick = time.Since(began) < 7*time.Second; quick {
			assert.Zero(t, th.count(page, ".pad"), "a page that is loaded again is back at once")
		} else if th.count(page, ".pad") > 0 { // on a machine that is so busy it was away
			th.press(page, input.KeyF)
			th.closed(page)
		}
	}
}

// clock returns the time on the application's clock.
func (th *theater) clock() float64 {
	th.Helper()
	var clock contract.Clock
	require.NoError(th, th.program.Get("/api/clock", &clock))
	return clock.SentMS
}

// On the local network a second device signs in, follows and leads; where a session ends in the middle of a class,
// the count goes on behind the door.
func TestASecondDeviceSignsInAndLeads(t *testing.T) {
	th := open(t)
	defer th.recovered()
	_, score := th.lead(held)
	th.program.Kill()
	require.NoError(t, stage.SetPasscode(th.data, "warm lamp oil"))
	th.start("0", "--lan")
	path := fmt.Sprintf("/lead/%d", score.ClassID)
	come := func(page *screen, passcode, device string) {
		t.Helper()
		th.fill(page, "#passcode", passcode)
		th.fill(page, "#device", device)
		th.press(page, input.Enter)
	}
	laptop, phone := th.page(path), th.page(path)
	come(laptop, "warm lamp", "laptop")
	th.see(laptop, ".alert", "not the passcode")
	assert.Zero(t, th.count(laptop, ".leading"), "nothing of the class is seen outside")
	come(laptop, "warm lamp oil", "laptop")
	come(phone, "warm lamp oil", "phone")
	th.see(laptop, `[data-testid="word"]`, ".")
	th.see(phone, `[data-testid="word"]`, ".")
	th.closed(phone)
	th.press(phone, input.KeyS)
	th.see(phone, ".answer", "41 rounds instead of 40 · phone")
	th.see(laptop, ".answer", "41 rounds instead of 40 · phone")
	th.see(laptop, ".aside", "of 41")

	th.eval(
		phone,
		`() => fetch("/api/session", { method: "DELETE", headers: { "Content-Type": "application/json" }, body: "{}" `+
			`}).then(() => true)`,
	)
	th.press(phone, input.KeyS)
	th.open(phone, "Vast Lantern")
	assert.NotZero(t, th.count(phone, `.leading [data-testid="word"]`), "the count goes on behind the door")
	come(phone, "warm lamp oil", "phone")
	th.closed(phone)
	th.press(phone, input.KeyS)
	th.see(phone, ".answer", "42 rounds instead of 41")
	th.see(laptop, ".aside", "of 42")
	th.press(laptop, input.KeyS)
	th.see(phone, ".aside", "of 43") // its stream is there again, too
	th.until(phone, `document.querySelectorAll(".offline").length === 0`)
}

// An answer that was asked for before the sign-in and comes after it does not shut the door again.
func TestALateAnswerKeepsNobodyOut(t *testing.T) {
	th := open(t)
	defer th.recovered()
	th.program.Kill()
	require.NoError(t, stage.SetPasscode(th.data, "warm lamp oil"))
	th.start("0", "--lan")
	page := th.page("/")
	th.open(page, "Vast Lantern")
	asked, answer := make(chan bool), make(chan bool)
	router := page.tab.HijackRequests()
	require.NoError(t, router.Add("*/api/session", "", func(h *rod.Hijack) {
		if h.Request.Method() != http.MethodGet {
			h.ContinueRequest(&proto.FetchContinueRequest{})
			return
		}
		assert.NoError(t, h.LoadResponse(http.DefaultClient, true)) // of nobody who is signed in
		asked <- true
		<-answer
	}))
	go router.Run()
	defer func() { assert.NoError(t, router.Stop()) }()
	th.eval(page, `() => { window.dispatchEvent(new Event("lantern:signed-out")) }`)
	<-asked
	th.write(page, "#passcode", "warm lamp oil")
	th.press(page, input.Enter)
	th.closed(page)
	const came = `performance.getEntriesByType("resource").filter((one) => one.name.endsWith("/api/session")).length`
	before := th.eval(page, "() => "+came).Int()
	close(answer)
	th.until(page, fmt.Sprintf("%s > %d", came, before))
	th.eval(page, `async () => { for (let i = 0; i < 10; i++) await new Promise(requestAnimationFrame) }`)
	th.closed(page)
	th.see(page, "h1", ".")
}

// Own words of a talk in several parts are cards. The key that goes on turns them, on the lead screen and on the phone
// remote, and the last one goes on.
func TestOwnWordsAreCards(t *testing.T) {
	onBothAddresses(t, ownWordsAreCards)
}

func ownWordsAreCards(t *testing.T, th *theater) {
	page, score := th.lead(`{"type": "talk", "title": "Welcome", "seconds": 600, "wait": true, "script": ` +
		`"Who is new today?\n---\nSit on the edge of the cushion.\nLet the knees be low.\n---\nClose the eyes."},` +
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 60}`)
	apart := func() { // a second press within 300 ms is a pedal that bounces
		t.Helper()
		th.eval(page, `() => { window.from = performance.now(); }`)
		th.until(page, `performance.now() - window.from > 300`)
	}
	remote := th.page(fmt.Sprintf("/remote/%d", score.ClassID))
	th.see(page, ".script", "^Who is new today")
	th.see(page, ".cardturner", "card 1 of 3")
	th.see(page, ".key", "Next card[^]*card 2 of 3")
	th.press(page, input.KeyF)
	th.see(page, ".script", "^Sit on the edge[^]*knees be low")
	th.see(remote, ".area", "Next card[^]*card 3 of 3")
	th.tap(page, `[aria-label="Previous card"]`, ".")
	th.see(page, ".script", "^Who is new today")
	th.see(remote, ".area", "Next card[^]*card 2 of 3")
	apart()
	th.pedal(page, 2) // it bounces
	th.see(page, ".script", "^Sit on the edge")
	th.see(remote, ".area", "Next card[^]*card 3 of 3")
	th.focus(remote, ".area", "Next card")
	th.press(remote, input.Enter)
	th.see(page, ".script", "^Close the eyes")
	th.see(page, ".key", "Go on")
	apart()
	th.press(page, input.KeyF)
	th.see(page, `[data-testid="word"]`, "inhale|lead|count|[0-9]")
	th.until(page, `!document.querySelector(".cardturner")`)
}
