package e2e

import (
	"fmt"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// open waits until a dialog is there without moving any more, and nothing in the pad is squeezed so that lines lie over
// each other; closed, until there is none.
func (th *theater) open(page *screen, title string) {
	th.Helper()
	th.see(page, "#pad-title, .modal-title", title)
	th.until(
		page,
		`document.querySelector(".pad, .modal.show") && document.getAnimations().every((a) => `+
			`!a.effect?.target?.closest?.(".modal, .modal-backdrop"))`,
	)
	squeezed := th.eval(page, `() => [...document.querySelectorAll(".pad > *")].filter((e) => e.scrollHeight > `+
		`e.clientHeight + 1 && getComputedStyle(e).overflowY === "visible").map((e) => e.innerText).join("; ")`).
		Str()
	if squeezed != "" {
		th.fail(page, "%s: squeezed: %s", title, squeezed)
	}
}

func (th *theater) closed(page *screen) {
	th.Helper()
	th.until(page, `!document.querySelector(".pad, .modal")`)
}

// note keeps what is shown in the element from now on, for noted: a busy machine may look too late.
func (th *theater) note(page *screen, selector string) {
	th.Helper()
	th.eval(page, `(selector) => {
		window.noted = [];
		const look = () => window.noted.push(document.querySelector(selector)?.innerText.replace(/\s+/g, " ") ?? "");
		new MutationObserver(look).observe(document.body, { subtree: true, childList: true, characterData: true });
		look();
	}`, selector)
}

// noted waits until the text was shown at any time since note.
func (th *theater) noted(page *screen, text string) {
	th.Helper()
	th.until(page, fmt.Sprintf("window.noted.some((shown) => shown.includes(%q))", text))
}

// end ends the class with the key that is to be pressed twice; after three seconds the first press is forgotten, and
// then it begins anew.
func (th *theater) end(page *screen) {
	th.Helper()
	th.twice(page, input.KeyX, `document.querySelector(".over")`)
	th.sent(page)
}

// twice presses a key that must be pressed again within three seconds, until what it does is done: a busy machine may
// be later. What is done must stay to be seen; an answer goes after a moment.
func (th *theater) twice(page *screen, key input.Key, done string) {
	th.Helper()
	done = "Boolean(" + done + ")"
	for !th.eval(page, "() => "+done).Bool() {
		th.note(page, ".answer")
		th.press(page, key)
		th.until(
			page,
			`window.noted.some((shown) => shown.includes("press again")) || `+done,
		) // a press before may have been the first
		th.press(page, key)
		// While an answer stands it may be of this press, and another one would do it once more.
		th.until(page, done+` || !document.querySelector(".answer")?.innerText`)
	}
}

// plan stores a class of short rounds and a talk that waits, which is next by the clock.
func (th *theater) plan(rounds int) contract.Plan {
	th.Helper()
	starts := time.Now().Add(20 * time.Minute).Format(time.RFC3339)
	body := fmt.Sprintf(
		`{"document": {"format": "vast-lantern-plan", "version": 1, "title": "Short lesson", "slot_min": 2, "starts_at": %q, "passages": [
		{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2", "rounds": %d, "tempo": 60, "lead_in": 2, "closing": [{"breaths": 1}]},
		{"type": "talk", "title": "What changed", "seconds": 30, "wait": true}]}}`,
		starts,
		rounds,
	)
	var stored contract.Plan
	require.NoError(th, th.program.Post("/api/plans", body, &stored))
	return stored
}

// asked repeats a question to the program until the answer is as wanted.
func (th *theater) asked(what string, is func() bool) {
	th.Helper()
	for ends := time.Now().Add(patience); !is(); time.Sleep(20 * time.Millisecond) {
		if time.Now().After(ends) {
			th.Fatalf("waited %v in vain: %s", patience, what)
		}
	}
}
