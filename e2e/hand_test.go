package e2e

import (
	"fmt"
	"testing"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// marks returns what was adjusted in a class, verb by verb.
func (th *theater) marks(class int64) []string {
	th.Helper()
	var record contract.Record
	require.NoError(th, th.program.Get(fmt.Sprintf("/api/classes/%d/record", class), &record))
	var verbs []string
	for _, mark := range record.Marks {
		verb := string(mark.Answer.Do)
		if mark.Answer.Refused != nil {
			verb += " refused"
		}
		verbs = append(verbs, verb)
	}
	return verbs
}

// pedal presses a pedal so often in a row, at once: between presses of the keyboard a busy machine may take longer than
// two presses of a person do.
func (th *theater) pedal(page *screen, presses int) {
	th.Helper()
	th.eval(page, `(presses) => {
		for (let i = 0; i < 2 * presses; i++) {
			window.dispatchEvent(new KeyboardEvent(i % 2 ? "keyup" : "keydown", { key: "PageDown", code: "PageDown", cancelable: true }));
		}
	}`, presses)
}

// One pedal leads a whole planned class: a short press goes on, a long one gives natural breath, and so do two.
func TestOnePedalLeadsAClass(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page, score := th.lead(
		`{"type": "talk", "title": "Arriving", "seconds": 30, "wait": true},` + held +
			`, {"type": "talk", "title": "What changed", "seconds": 30, "wait": true}`,
	)
	word := `[data-testid="word"]`
	pedal := func(presses int) {
		th.pedal(page, presses)
	}
	th.see(page, word, "Arriving")
	pedal(1)
	th.see(page, word, "inhale|hold")
	pedal(2)
	th.see(page, word, "natural breath")
	pedal(1)
	th.see(page, word, "inhale|hold")

	require.NoError(t, page.tab.Keyboard.Press(input.PageDown)) // held down
	th.see(page, word, "natural breath")
	require.NoError(t, page.tab.Keyboard.Release(input.PageDown))
	pedal(1)
	th.see(page, ".answer", "resumed")
	th.sent(page)
	assert.Equal(t, []string{"advance", "pause", "resume", "pause", "resume"}, th.marks(score.ClassID))
}

// What pedals and letters mean is tried out and changed on a page of its own, and holds in the class.
func TestKeysAreRehearsedAndChanged(t *testing.T) {
	th := open(t)
	defer th.recovered()
	keys := th.page("/keys")
	th.see(keys, ".rehearsal", "Press what you will use")
	th.pedal(keys, 2)
	th.see(keys, ".rehearsal", `Page Down, two presses\s*Natural breath`)
	th.press(keys, input.ArrowRight)
	th.see(keys, ".rehearsal", `→, short press\s*Nothing`)
	th.see(keys, `fieldset.heard legend`, "→")
	th.pick(keys, `[id="ArrowRight short"]`, "Last round; at own pace, call back")
	th.see(keys, ".rehearsal", "Last round")
	th.fill(keys, `[aria-label="Key for: Slower"]`, "y")
	th.click(keys, "button", "^Save$")
	th.see(keys, ".alert", "Saved")

	page, score := th.lead(held)
	th.see(page, `[data-testid="word"]`, ".")
	th.see(page, "button.key", `Y\s*Slower`)
	th.press(page, input.KeyQ) // means nothing any more
	th.press(page, input.KeyY)
	th.see(page, ".answer", "slower")
	th.press(page, input.ArrowRight)
	th.see(page, ".answer", `last round: \d+ in all`)
	th.sent(page)
	assert.Equal(t, []string{"tempo", "last-round"}, th.marks(score.ClassID))
}

// Before it is pressed, a key says what it would do; a change of tempo reaches later passages unless it is kept here.
func TestKeysSayWhatTheyWouldDo(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page, score := th.lead(held + `, {"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 9}`)
	th.see(
		page,
		"button.key",
		`On time\s*ends \d\d:\d\d, .* to spare: nothing to do|On time\s*late by .*: takes \d+ rounds?`,
	)
	undo := func(text string) { t.Helper(); th.see(page, "button.key", `Undo\s*`+text) }
	undo("nothing to take back")
	th.press(page, input.KeyQ)
	th.see(page, ".answer", "slower: 58 .*, and in 1 later passage")
	th.press(page, input.Digit5)
	th.see(page, "button.key", "Only here")
	th.press(page, input.KeyW)
	th.see(page, ".answer", "faster: 60 (from the next count|after this hold)$")
	th.press(page, input.KeyS)
	undo("takes back: rounds")
	th.see(page, "button.key", `Close\s*drops this round`)
	var now contract.Score
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/classes/%d/score", score.ClassID), &now))
	assert.Equal(t, []float64{60, 58}, []float64{now.Passages[0].Tempo, now.Passages[1].Tempo})
}

// A phone in the lap is a remote: its upper half goes on, its lower half gives natural breath, and a swipe changes the
// tempo.
func TestAPhoneInTheLapIsARemote(t *testing.T) {
	onBothAddresses(t, aPhoneInTheLapIsARemote)
}

func aPhoneInTheLapIsARemote(t *testing.T, th *theater) {
	score := th.begin(held)
	page := th.phone(fmt.Sprintf("/remote/%d", score.ClassID))
	require.NoError(t, proto.EmulationSetTouchEmulationEnabled{Enabled: true}.Call(page.tab))
	th.eval(page, `() => { window.felt = []; navigator.vibrate = (pattern) => window.felt.push(pattern.join(" ")); }`)
	th.see(page, ".remote .word", "inhale|hold")
	touch := func(y, across float64) {
		t.Helper()
		x := 195.0
		require.NoError(t, page.tab.Touch.Start(&proto.InputTouchPoint{X: x, Y: y}))
		if across != 0 {
			require.NoError(t, page.tab.Touch.Move(&proto.InputTouchPoint{X: x + across, Y: y + 5}))
		}
		require.NoError(t, page.tab.Touch.End())
	}
	touch(650, 0)
	th.see(page, ".remote [role=status]", "natural breath for all")
	touch(200, 0)
	th.see(page, ".remote [role=status]", "resumed")
	th.see(page, ".remote .word", "inhale")
	touch(200, -120)
	th.see(page, ".remote [role=status]", "slower: 58")
	touch(650, 120)
	th.see(page, ".remote [role=status]", "faster: 60")
	th.until(page, `window.felt.length === 4 && window.felt.every((pattern) => pattern === "40")`)
	assert.Equal(t, []string{"pause", "resume", "tempo", "tempo"}, th.marks(score.ClassID))
}

// Without a wake lock, as on plain http from another machine, one touch starts a film that keeps the screen on.
func TestTheScreenStaysOnWithoutAWakeLock(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var code contract.RoomCode
	require.NoError(t, th.program.Get("/api/room", &code))
	page := th.page("/api/clock")
	_, err := page.tab.EvalOnNewDocument(`delete Navigator.prototype.wakeLock`)
	require.NoError(t, err)
	th.visit(page, th.at+"/room/"+code.Code)
	th.see(page, "footer", "Touch the screen once, so that it stays on")
	playing := `() => [...document.querySelectorAll("video")].some((video) => !video.paused)`
	require.False(t, th.eval(page, playing).Bool(), "a browser plays nothing by itself")
	// The film is loaded after the page: it is touched until it plays.
	require.NoError(t, rod.Try(func() {
		for !th.eval(page, playing).Bool() {
			page.tab.Mouse.MustMoveTo(300, 300).MustClick(proto.InputMouseButtonLeft)
		}
	}))
	th.until(page, `!document.querySelector("footer").innerText.includes("Touch")`)
	with := th.page("/room/" + code.Code)
	th.see(with, "footer", "This screen")
	require.Zero(t, th.count(with, "video"), "where there is a wake lock there is no film")
}

// A class by the teacher's own breath: one key leads from phase to phase, a pedal too, and one key goes back to the
// beat and tells at what tempo was breathed. What was led is in the record.
func TestAClassByHand(t *testing.T) {
	th := openAt(t, 8)
	defer th.recovered()
	page, score := th.lead(
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4:6", "rounds": 40, "lead_in": 0, "by_hand": ` +
			`["inhale", "exhale"]}`,
	)
	word := func(is string) { t.Helper(); th.see(page, `[data-testid="word"]`, is) }
	word("inhale")
	th.press(page, input.KeyF)
	word("hold") // which is counted, and goes on by itself
	word("exhale")
	th.pedal(page, 1)
	word("inhale")
	// The lamp fills in the planned time, four seconds, and stays lit.
	th.until(page, `Number(document.querySelector("[data-testid=count]").textContent) >= 5`)
	th.until(page, `/^(none|matrix\(1, 0, 0, 1, 0, 0\))$/.test(getComputedStyle(document.querySelector(".lamp.now `+
		`.light")).transform)`)
	th.see(page, "button.key", `To the beat`)
	th.press(page, input.KeyH)
	th.see(page, ".answer", `counted again from the next phase; you breathed at \d+`)
	// A second press within 300 ms would not count: three seconds of the class are more.
	th.until(page, `Number(document.querySelector("[data-testid=count]").textContent) >= 3`)
	th.press(page, input.KeyF)
	word("hold")
	word("exhale")
	word("inhale") // by the beat
	th.see(page, "button.key", `My breath`)
	th.press(page, input.KeyH)
	th.see(page, ".answer", "by hand from the next phase")
	th.sent(page)
	assert.Equal(t, []string{"advance", "advance", "by-hand", "advance", "by-hand"}, th.marks(score.ClassID))

	// The record reports what was breathed, and one press plans it so.
	th.end(page)
	th.visit(page, fmt.Sprintf("%s/taught/%d", th.at, score.ClassID))
	// On a slow machine the class has come to the exhale of the third breath, which is by hand, after a longer hold.
	th.see(page, ".byhands", `you breathed [\d.]+ : [\d.]+ : [\d.]+ s in [23] breaths, as counts 4:4:6 at \d+`)
	th.click(page, "button", "Plan it at the tempo you breathed")
	th.see(page, ".passage", `by hand`)
}

// By hand the word changes with the press also on a page without the core, before the application has answered, and
// goes back where it refuses. A touch on the stage goes on too, and of presses that come close together the first
// counts.
func TestTheWordChangesWithThePress(t *testing.T) {
	onBothAddressesAt(t, 1, theWordChangesWithThePress)
}

func theWordChangesWithThePress(t *testing.T, th *theater) {
	score := th.begin(
		`{"type": "practice", "practice": "counted-breath", "counts": "4:6", "rounds": 40, "lead_in": 0, "by_hand": "all"}`,
	)
	page := th.page("/help")
	th.onNewDocument(page, `delete window.Worker`) // as a browser that cannot load the core
	th.visit(page, fmt.Sprintf("%s/lead/%d", th.at, score.ClassID))
	word := func(is string) { t.Helper(); th.see(page, `[data-testid="word"]`, is) }
	begun := func() { t.Helper(); th.until(page, `document.querySelector("[data-testid=count]").textContent >= "1"`) }
	word("inhale")
	begun()
	th.eval(page, `() => {
		const asked = window.fetch;
		window.fetch = (url, init) => !url.endsWith("/adjustments") ? asked(url, init) : new Promise((answer) => {
			window.release = () => answer(asked(url, init));
			window.refuse = () => answer(Response.json({ say: { id: "web.nothing-here" } }, { status: 422 }));
		});
	}`)
	th.press(page, input.KeyF)
	word("exhale")
	assert.Empty(t, th.marks(score.ClassID), "nothing has arrived")
	th.eval(page, `() => window.release()`)
	th.see(page, ".answer", "going on")
	word("exhale")

	begun()
	th.press(page, input.KeyF)
	word("inhale")
	th.eval(page, `() => window.refuse()`)
	word("exhale")
	assert.Equal(t, []string{"advance"}, th.marks(score.ClassID))

	th.reload(page)
	word("exhale")
	begun()
	th.eval(page, `() => {
		const stage = document.querySelector(".stagebox");
		stage.click();
		stage.click();
	}`)
	word("inhale")
	th.until(page, `document.querySelector(".stage").dataset.revision === "2"`)
	assert.Equal(t, []string{"advance", "advance"}, th.marks(score.ClassID))

	// The server dies, and comes back: what was pressed meanwhile is shown at once and carried out once.
	begun()
	th.program.Kill()
	th.press(page, input.KeyF)
	word("exhale")
	th.restart()
	th.until(page, `document.querySelector(".stage").dataset.revision === "3"`)
	word("exhale")
	assert.Equal(t, []string{"advance", "advance", "advance"}, th.marks(score.ClassID))
}
