package e2e

import (
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// listens notes the pitch of every tone that is heard, and gives the page a voice and a hand to feel with: this browser
// has neither. A tone that is taken back before it begins, because a newer score has it too, is not heard.
const listens = `() => {
	window.tones = []; window.said = []; window.felt = [];
	Object.defineProperty(window, "pitches", { get: () => window.tones.map((tone) => tone.pitch) });
	const Real = window.OscillatorNode;
	window.OscillatorNode = class extends Real {
		constructor(context, options) {
			super(context, options);
			this.pitch = options.frequency;
			if (options.type === "sine") window.tones.push(this);
		}
		start(when) {
			this.begins = when ?? 0;
			super.start(when);
		}
		stop(when) {
			if (when === undefined && this.context.currentTime < this.begins)
				window.tones = window.tones.filter((tone) => tone !== this);
			super.stop(when);
		}
	};
	Object.defineProperty(window, "speechSynthesis", { value: { getVoices: () => [{}], speak: (u) => window.said.push(u.text), cancel() {}, addEventListener() {}, removeEventListener() {} } });
	navigator.vibrate = (pattern) => window.felt.push(pattern.join(" "));
}`

// With closed eyes the teacher hears what became of a press, and that the last round has begun.
func TestSignsForClosedEyes(t *testing.T) {
	th := open(t)
	defer th.recovered()
	// Slow: the last round has signs of its own, half way and towards its end, which may not come before it is asked for.
	page, _ := th.lead(strings.Replace(held, `"rounds"`, `"tempo": 20, "rounds"`, 1))
	th.eval(page, listens)
	th.tap(page, `button[aria-label="Sound"]`, "^")
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
	defer th.recovered()
	lead, _ := th.lead(`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4", "rounds": 60, "lead_in": 0}`)
	var code contract.RoomCode
	require.NoError(t, th.program.Get("/api/room", &code))
	room := th.page("/room/" + code.Code)
	th.see(room, `[data-testid="word"]`, `(inhale|exhale)\s*(left|right)`)
	th.tap(room, "button", "This screen")
	th.open(room, "This screen")
	th.pick(room, "#sides", "by what the hand does")
	th.pick(room, "#count", "numbers only")
	th.until(room, `!document.querySelector(".lampsheet")`)
	th.see(room, `[data-testid="count"]`, "[0-9]")
	th.pick(room, "#count", "lamps only")
	th.see(room, ".lampsheet", ".")
	th.until(room, `!document.querySelector('[data-testid="count"]')`)
	th.pick(room, "#count", "neither")
	th.until(room, `!document.querySelector('[data-testid="count"]') && !document.querySelector(".lampsheet")`)
	th.press(room, input.Escape)
	th.closed(room)
	th.see(room, `[data-testid="word"]`, "close the (left|right)")
	th.see(lead, `[data-testid="word"]`, `(inhale|exhale)\s*(left|right)`)
	th.reload(room)
	th.see(room, `[data-testid="word"]`, "close the (left|right)")

	th.eval(room, listens)
	th.tap(room, "button", "Sound")
	th.open(room, "Sound")
	th.flip(room, "#sound-on")
	th.pick(room, "#voice", "words and counts")
	th.flip(room, "#vibrate")
	th.until(room, `["inhale left", "exhale right", "two", "four"].every((text) => window.said.includes(text))`)
	th.until(room, `window.felt.includes("180") && window.felt.includes("90 70 90")`)
	require.Zero(t, th.count(room, "#signs"), "signs are the teacher's")
}
