package e2e

import (
	"errors"
	"testing"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/cdp"
	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// listens notes the pitch of every tone, and gives the page a voice and a hand to feel with: this browser has neither.
const listens = `() => {
	window.pitches = []; window.said = []; window.felt = [];
	const Real = window.OscillatorNode;
	window.OscillatorNode = class extends Real { constructor(context, options) { super(context, options); if (options.type === "sine") window.pitches.push(options.frequency); } };
	Object.defineProperty(window, "speechSynthesis", { value: { getVoices: () => [{}], speak: (u) => window.said.push(u.text), cancel() {}, addEventListener() {}, removeEventListener() {} } });
	navigator.vibrate = (pattern) => window.felt.push(pattern.join(" "));
}`

func (th *theater) until(page *rod.Page, js string) {
	th.Helper()
	for {
		err := page.Wait(rod.Eval("() => " + js))
		var moved *cdp.Error
		if errors.As(err, &moved) && page.GetContext().Err() == nil {
			continue // the page is being loaded anew: it is asked again then
		}
		if err != nil {
			require.NoError(th, err, "%s; the page shows %s", js, shown(page))
		}
		return
	}
}

// With closed eyes the teacher hears what became of a press, and that the last round has begun.
func TestSignsForClosedEyes(t *testing.T) {
	th := open(t)
	page, _ := th.lead(held)
	page.MustEval(listens)
	th.see(page, `button[aria-label="Sound"]`, "^").MustEval("() => this.click()")
	th.open(page, "Sound")
	th.flip(page, "#sound-on")
	th.press(page, input.Escape)
	th.closed(page)
	th.press(page, input.KeyS)
	th.until(page, `window.pitches.join() === "660,880"`)
	th.press(page, input.KeyF) // nothing to go on from
	th.until(page, `window.pitches.join() === "660,880,155"`)
	th.press(page, input.KeyD)
	th.until(page, `window.pitches.slice(3).sort().join() === "1320,1320,1320,660,880"`)
}

// What a participant chooses stays on the own screen: how sides are said, words only, a voice, a hand that feels.
func TestAParticipantsOwnChoices(t *testing.T) {
	th := open(t)
	lead, _ := th.lead(`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4", "rounds": 60, "lead_in": 0}`)
	var code contract.RoomCode
	require.NoError(t, th.program.Get("/api/room", &code))
	room := th.page("/room/" + code.Code)
	th.see(room, `[data-testid="word"]`, `(inhale|exhale)\s*(left|right)`)
	th.see(room, "button", "This screen").MustEval("() => this.click()")
	th.open(room, "This screen")
	room.MustElement("#sides").MustSelect("by what the hand does")
	th.flip(room, "#lamps")
	th.until(room, `!document.querySelector(".lampsheet")`)
	th.press(room, input.Escape)
	th.closed(room)
	th.see(room, `[data-testid="word"]`, "close the (left|right)")
	th.see(lead, `[data-testid="word"]`, `(inhale|exhale)\s*(left|right)`)
	require.NoError(t, room.Reload())
	th.see(room, `[data-testid="word"]`, "close the (left|right)")

	room.MustEval(listens)
	th.see(room, "button", "Sound").MustEval("() => this.click()")
	th.open(room, "Sound")
	th.flip(room, "#sound-on")
	room.MustElement("#voice").MustSelect("words and counts")
	th.flip(room, "#vibrate")
	th.until(room, `["inhale left", "exhale right", "two", "four"].every((text) => window.said.includes(text))`)
	th.until(room, `window.felt.includes("180") && window.felt.includes("90 70 90")`)
	require.Empty(t, room.MustElements("#signs"), "signs are the teacher's")
}
