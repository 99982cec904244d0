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

// marks is what was adjusted in a class, verb by verb.
func (th *theater) marks(class int64) []string {
	th.Helper()
	var record contract.Record
	require.NoError(th, th.program.Get(fmt.Sprintf("/api/classes/%d/record", class), &record))
	var verbs []string
	for _, mark := range record.Marks {
		verb := string(mark.Answer.Do)
		if mark.Answer.Refused != "" {
			verb += " refused"
		}
		verbs = append(verbs, verb)
	}
	return verbs
}

// One pedal leads a whole planned class: a short press goes on, a long one gives natural breath, and so do two.
func TestOnePedalLeadsAClass(t *testing.T) {
	th := open(t)
	page, score := th.lead(`{"type": "talk", "title": "Arriving", "seconds": 30, "wait": true},` + held + `, {"type": "talk", "title": "What changed", "seconds": 30, "wait": true}`)
	word := `[data-testid="word"]`
	pedal := func(presses int) {
		for range presses {
			th.press(page, input.PageDown)
		}
	}
	th.see(page, word, "Arriving")
	pedal(1)
	th.see(page, word, "inhale|hold")
	pedal(2)
	th.see(page, word, "natural breath")
	pedal(1)
	th.see(page, word, "inhale|hold")

	require.NoError(t, page.Keyboard.Press(input.PageDown)) // held down
	th.see(page, word, "natural breath")
	require.NoError(t, page.Keyboard.Release(input.PageDown))
	pedal(1)
	th.see(page, ".answer", "resumed")
	assert.Equal(t, []string{"advance", "pause", "resume", "pause", "resume"}, th.marks(score.ClassID))
}

// What pedals and letters mean is tried out and changed on a page of its own, and holds in the class.
func TestKeysAreRehearsedAndChanged(t *testing.T) {
	th := open(t)
	keys := th.page("/keys")
	th.see(keys, ".rehearsal", "Press what you will use")
	th.press(keys, input.PageDown, input.PageDown)
	th.see(keys, ".rehearsal", `Page Down, two presses\s*natural breath`)
	th.press(keys, input.ArrowRight)
	th.see(keys, ".rehearsal", `→, short press\s*nothing`)
	th.see(keys, `fieldset.heard legend`, "→")
	keys.MustElement(`[id="ArrowRight short"]`).MustSelect("last round")
	th.see(keys, ".rehearsal", "last round")
	letter := keys.MustElement(`[aria-label="Key for: Slower"]`)
	letter.MustSelectAllText().MustInput("y")
	th.see(keys, "button", "^Save$").MustClick()
	th.see(keys, ".alert", "Saved")

	page, score := th.lead(held)
	th.see(page, `[data-testid="word"]`, ".")
	th.see(page, "button.key", `Y\s*Slower`)
	th.press(page, input.KeyQ) // means nothing any more
	th.press(page, input.KeyY)
	th.see(page, ".answer", "slower")
	th.press(page, input.ArrowRight)
	th.see(page, ".answer", `last round: \d+ in all`)
	assert.Equal(t, []string{"tempo", "last-round"}, th.marks(score.ClassID))
}

// Before it is pressed, a key says what it would do; a change of tempo reaches later passages unless it is kept here.
func TestKeysSayWhatTheyWouldDo(t *testing.T) {
	th := open(t)
	page, score := th.lead(held + `, {"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 9}`)
	th.see(page, "button.key", `On time\s*ends \d\d:\d\d, .* to spare: nothing to do|On time\s*late by .*: takes \d+ rounds?`)
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

// A phone in the lap is a remote: its upper half goes on, its lower half gives natural breath, and a swipe changes the tempo.
func TestAPhoneInTheLapIsARemote(t *testing.T) {
	onBothAddresses(t, aPhoneInTheLapIsARemote)
}

func aPhoneInTheLapIsARemote(t *testing.T, th *theater) {
	_, score := th.lead(held)
	page, err := th.browser.Page(fmt.Sprintf("%s/remote/%d", th.at, score.ClassID), 390, 844, patience, th.program.Cookies...)
	require.NoError(t, err)
	require.NoError(t, proto.EmulationSetTouchEmulationEnabled{Enabled: true}.Call(page))
	page.MustEval(`() => { window.felt = []; navigator.vibrate = (pattern) => window.felt.push(pattern.join(" ")); }`)
	th.see(page, ".remote .word", "inhale|hold")
	touch := func(y, across float64) {
		t.Helper()
		x := 195.0
		require.NoError(t, page.Touch.Start(&proto.InputTouchPoint{X: x, Y: y}))
		if across != 0 {
			require.NoError(t, page.Touch.Move(&proto.InputTouchPoint{X: x + across, Y: y + 5}))
		}
		require.NoError(t, page.Touch.End())
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
	var code contract.RoomCode
	require.NoError(t, th.program.Get("/api/room", &code))
	page := th.page("/api/clock")
	_, err := page.EvalOnNewDocument(`delete Navigator.prototype.wakeLock`)
	require.NoError(t, err)
	require.NoError(t, page.Navigate(th.at+"/room/"+code.Code))
	th.see(page, "footer", "Touch the screen once, so that it stays on")
	playing := `() => [...document.querySelectorAll("video")].some((video) => !video.paused)`
	require.False(t, page.MustEval(playing).Bool(), "a browser plays nothing by itself")
	// The film is loaded after the page: it is touched until it plays.
	require.NoError(t, rod.Try(func() {
		for !page.MustEval(playing).Bool() {
			page.Mouse.MustMoveTo(300, 300).MustClick(proto.InputMouseButtonLeft)
		}
	}))
	th.until(page, `!document.querySelector("footer").innerText.includes("Touch")`)
	with := th.page("/room/" + code.Code)
	th.see(with, "footer", "This screen")
	require.Empty(t, with.MustElements("video"), "where there is a wake lock there is no film")
}
