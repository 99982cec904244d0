// Command engines leads a class, joins the room, plans and reads a record in WebKit and in Firefox, at the size of a
// tablet and of a phone: most tablets have the one, some laptops the other, and the browser tests drive Chromium only.
package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"log"
	"net/http"
	"os"
	"path/filepath"
	"regexp"
	"time"

	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

// engine is a browser with one page.
type engine interface {
	Name() string
	// Open opens an address in a window of the size in pixels.
	Open(address string, width, height int) error
	// Eval is the value of an expression as text.
	Eval(script string) (string, error)
	// Touch touches the page at the place.
	Touch(x, y int) error
	// Type types a text, and Enter.
	Type(text string) error
	Close()
}

// touch returns the actions of one touch (WebDriver, section 17).
func touch(x, y int, by string) []any {
	return []any{map[string]any{
		"type": "pointer", "id": "finger", "parameters": map[string]string{"pointerType": by},
		"actions": []any{
			map[string]any{"type": "pointerMove", "x": x, "y": y, "duration": 0},
			map[string]any{"type": "pointerDown", "button": 0},
			map[string]any{"type": "pause", "duration": 60},
			map[string]any{"type": "pointerUp", "button": 0},
		},
	}}
}

// typed returns the actions of typing a text, and Enter.
func typed(text string) []any {
	var keys []any
	for _, key := range append([]rune(text), '\uE007') {
		for _, what := range []string{"keyDown", "keyUp"} {
			keys = append(keys, map[string]string{"type": what, "value": string(key)})
		}
	}
	return []any{map[string]any{"type": "key", "id": "keys", "actions": keys}}
}

func main() {
	var all []error
	for _, start := range []func() (engine, error){startWebkit, startFirefox} {
		if err := try(start); err != nil {
			all = append(all, err)
		}
	}
	if err := errors.Join(all...); err != nil {
		log.Fatal(err)
	}
}

func try(start func() (engine, error)) error {
	browser, err := start()
	if err != nil {
		return err
	}
	defer browser.Close()
	data, err := os.MkdirTemp("", "engines")
	if err != nil {
		return err
	}
	defer os.RemoveAll(data)
	program, err := stage.Start("serve", "--data", filepath.Join(data, "lantern.db"), "--port", "0")
	if err != nil {
		return err
	}
	defer program.Kill()
	if err := program.ReadCare(); err != nil {
		return err
	}
	t := &trial{browser, program}
	for _, part := range []struct {
		what string
		do   func() error
	}{
		{"plan on a tablet", t.plan}, {"lead on a tablet, with sound", t.lead}, {"the room on a phone, with sound", t.room},
		{"read the record on a tablet", t.record}, {"practise at home from a file, with no program there", t.home},
		{"try a sample class and a rehearsal from a file", t.tryout},
	} {
		if err := part.do(); err != nil {
			shown, _ := browser.Eval("document.body.innerText")
			return fmt.Errorf("%s: %s: %w; the page shows\n%s", browser.Name(), part.what, err, shown)
		}
		fmt.Printf("%-8s %s\n", browser.Name(), part.what)
	}
	return nil
}

// home gives a practice of two steps, stops the program, and opens the page from the disk on the second step's day: it
// plays by touch, asks nothing of any server, and knows what was done when it is opened again.
func (t *trial) home() error {
	var plan contract.Plan
	if err := t.program.Post("/api/plans", `{"document": {"format": "vast-lantern-plan", "version": 1, "title": "Home", "tempo": 120, "passages": [
		{"type": "practice", "practice": "ujjayi", "counts": "2:2", "rounds": 1, "lead_in": 0, "by_hand": "all"}]}}`, &plan); err != nil {
		return err
	}
	var offer contract.HomeOffer
	give := fmt.Sprintf(`{"passage": 1, "minutes": 5, "pieces": 1, "begins": %q, "steps": [{"says": "x3", "for": 1, "unit": "day"},
		{"says": "x1", "for": 0, "unit": "day"}]}`, time.Now().AddDate(0, 0, -1).Format(time.DateOnly))
	if err := t.program.Post(fmt.Sprintf("/api/plans/%d/home", plan.ID), give, &offer); err != nil {
		return err
	}
	answer, err := http.Get(fmt.Sprintf("%s/api/homes/%d/page", t.program.URL, offer.Given[0].ID))
	if err != nil {
		return err
	}
	defer answer.Body.Close()
	page, err := io.ReadAll(answer.Body)
	if err != nil {
		return err
	}
	folder, err := os.MkdirTemp("", "engines")
	if err != nil {
		return err
	}
	defer os.RemoveAll(folder)
	path := filepath.Join(folder, "home.html")
	if err := os.WriteFile(path, page, 0o600); err != nil {
		return err
	}
	t.program.Kill()
	opened := func() error { return t.Open("file://"+path, phoneWide, phoneHigh) }
	return first(
		opened,
		t.sees(".days h2", "^Day 2$"),
		t.sees(".days", "Only this device remembers|remembers nothing of a page"),
		t.presses("button", "^start$"),
		t.sees(`[data-testid="word"]`, "inhale"),
		t.presses("button.touch:not(:disabled)", "next"),
		t.sees(`[data-testid="word"]`, "exhale"),
		t.presses("button.touch:not(:disabled)", "next"),
		t.sees("h1", "It is done"),
		t.presses("button", "^back$"),
		t.sees(`.strip [aria-pressed="true"]`, "✓"),
		t.alone,
		opened,
		t.remembers,
	)
}

// alone sees that the page asked nothing of any server.
func (t *trial) alone() error {
	text, err := t.Eval(`performance.getEntriesByType("resource").map((e) => e.name).filter((n) => ` +
		`!/^(data|blob):/.test(n)).join(" ")`)
	if err == nil && text != "" {
		err = fmt.Errorf("the page asked for %s", text)
	}
	return err
}

// remembers sees what was done when the page is opened again, unless the browser keeps nothing of files and says so.
func (t *trial) remembers() error {
	text, err := t.Eval(`document.querySelector(".days").innerText`)
	if err != nil || regexp.MustCompile("remembers nothing of a page").MatchString(text) {
		return err
	}
	return t.see(`.strip [aria-pressed="true"]`, "✓")
}

// trial is what is tried in an engine.
type trial struct {
	engine
	program *stage.Program
}

const patience = 30 * time.Second

// see waits until the first element of the selector has text that matches.
func (t *trial) see(selector, pattern string) error {
	want := regexp.MustCompile(pattern)
	last := ""
	for until := time.Now().Add(patience); time.Now().Before(until); time.Sleep(50 * time.Millisecond) {
		text, err := t.Eval(
			fmt.Sprintf(`[...document.querySelectorAll(%q)].map((e) => e.innerText || e.value || "").join("\n")`, selector),
		)
		if err != nil {
			return err
		}
		if last = text; want.MatchString(text) {
			return nil
		}
	}
	return fmt.Errorf("%q did not come in %s, which has %q", pattern, selector, last)
}

// press touches the element of the selector whose text or name matches.
func (t *trial) press(selector, pattern string) error {
	find := fmt.Sprintf(`(() => {
		const one = [...document.querySelectorAll(%q)].find((e) => new RegExp(%q, "i").test(e.getAttribute("aria-label") ?? e.innerText));
		if (!one || one.disabled) return "";
		one.scrollIntoView({ block: "center" });
		const { left, top, width, height } = one.getBoundingClientRect();
		return width === 0 ? "" : JSON.stringify([Math.round(left + width / 2), Math.round(top + height / 2)]);
	})()`, selector, pattern)
	before := ""
	for until := time.Now().Add(patience); time.Now().Before(until); time.Sleep(100 * time.Millisecond) {
		text, err := t.Eval(find)
		if err != nil {
			return err
		}
		var at [2]int
		if text == "" || text != before || json.Unmarshal([]byte(text), &at) != nil { // it still moves
			before = text
			continue
		}
		return t.Touch(at[0], at[1])
	}
	return fmt.Errorf("there is no %q in %s", pattern, selector)
}

// first is the steps one after the other, until one fails.
func first(steps ...func() error) error {
	for _, step := range steps {
		if err := step(); err != nil {
			return err
		}
	}
	return nil
}

func (t *trial) open(path string, width, height int) func() error {
	return func() error { return t.Open(t.program.URL+path, width, height) }
}

func (t *trial) sees(selector, pattern string) func() error {
	return func() error { return t.see(selector, pattern) }
}

func (t *trial) presses(selector, pattern string) func() error {
	return func() error { return t.press(selector, pattern) }
}

// tryout opens the page that needs no server from the disk, leads the sample class and begins a rehearsal.
func (t *trial) tryout() error {
	const word = `[data-testid="word"]`
	path, err := filepath.Abs("bin/tryout/index.html")
	if err != nil {
		return err
	}
	return first(
		func() error { return t.Open("file://"+path, tabletWide, tabletHigh) },
		t.sees(".modal", "."),
		t.presses(".modal button", "."),
		t.presses("main button", "Lead the sample class"),
		t.sees(".leading main", "Say a sentence"),
		t.presses(".controls button", "go on"),
		t.sees(word, "inhale|exhale"),
		func() error { return t.Open("file://"+path+"#/rehearse", tabletWide, tabletHigh) },
		t.presses(".levels button", "level 1"),
		t.presses("main button", "begin"),
		t.sees(word, "."),
		t.presses(".controls button", "natural breath"),
		t.sees(word, "natural breath|breathe as you like"),
	)
}

// sounds waits until what is played runs on the page's audio clock, which an engine lets only after a touch.
func (t *trial) sounds() error {
	return first(
		func() error {
			_, err := t.Eval(
				`(window.contexts = [], window.AudioContext = class extends AudioContext { constructor(...a) { super(...a); ` +
					`window.contexts.push(this); } }, 1)`,
			)
			return err
		},
		t.presses("button", "^ ?sound$"),
		t.presses("#sound-on", ""),
		func() error {
			for until := time.Now().Add(patience); time.Now().Before(until); time.Sleep(100 * time.Millisecond) {
				if text, err := t.Eval(`window.contexts.some((c) => c.state === "running" && c.currentTime > 0.2)`); err != nil ||
					text == "true" {
					return err
				}
			}
			states, _ := t.Eval(
				`document.querySelector("#sound-on").checked + " " + window.contexts.map((c) => c.state + " " + c.currentTime)`,
			)
			return fmt.Errorf("nothing sounds: %s", states)
		},
	)
}

const tabletWide, tabletHigh, phoneWide, phoneHigh = 1024, 768, 390, 844

func (t *trial) plan() error {
	return first(
		t.open("/", tabletWide, tabletHigh),
		t.presses("button", "^new plan$"),
		t.sees("h1, body", "Nothing is planned yet"),
		t.presses("#add", ""),
		func() error { return t.Type("alternate nostril 4:4:8 x5") },
		t.sees("body", "Alternate nostril"),
		t.sees("body", "Saved"),
	)
}

func (t *trial) begin() (score contract.Score, err error) {
	var plan contract.Plan
	if err := t.program.Post("/api/plans", `{"document": {"format": "vast-lantern-plan", "version": 1, "title": "Engines", "tempo": 60, "passages": [
		{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2", "rounds": 200, "lead_in": 0}]}}`, &plan); err != nil {
		return score, err
	}
	err = t.program.Lead(plan.ID, &score)
	return score, err
}

func (t *trial) lead() error {
	score, err := t.begin()
	if err != nil {
		return err
	}
	const word = `[data-testid="word"]`
	return first(
		t.open(fmt.Sprintf("/lead/%d", score.ClassID), tabletWide, tabletHigh),
		t.sees(word, "inhale|exhale"),
		t.presses(".controls button", "natural breath"),
		t.sees(word, "natural breath"),
		t.presses(".controls button", "^ ?go on|resume|on with"),
		t.sees(word, "inhale|exhale"),
		t.apart,
		t.sounds,
	)
}

// apart leads on the screen's own copy of the class while no press arrives, and sends what was pressed afterwards.
func (t *trial) apart() error {
	if err := t.see(`.leading[data-alone="true"]`, "."); err != nil {
		return err
	}
	if _, err := t.Eval(`(() => {
		const real = window.fetch;
		window.fetch = (path, init) => String(path).endsWith("/presses") && window.down !== false
			? Promise.reject(new TypeError("down")) : real(path, init);
		return "";
	})()`); err != nil {
		return err
	}
	if err := first(t.presses(".controls button", "slower"), t.sees(".offline", "1 change to send")); err != nil {
		return err
	}
	_, err := t.Eval(`(window.down = false, "")`)
	return errors.Join(err, t.see(`body:not(:has(.offline))`, "."))
}

func (t *trial) room() error {
	var code contract.RoomCode
	if err := t.program.Get("/api/room", &code); err != nil {
		return err
	}
	var running contract.Running
	if err := t.program.Get("/api/running", &running); err != nil {
		return err
	}
	do := func(key, verb string) func() error {
		return func() error {
			var done contract.Adjusted
			return t.program.Post(
				fmt.Sprintf("/api/classes/%d/adjustments", running.ClassID),
				fmt.Sprintf(`{"key": %q, "do": %q}`, key, verb),
				&done,
			)
		}
	}
	const word = `[data-testid="word"]`
	return first(
		t.open("/room/"+code.Code, phoneWide, phoneHigh),
		t.sees(word, "inhale"),
		t.sees(word, "exhale"),
		do("p", "pause"),
		t.sees(word, "natural breath"),
		do("r", "resume"),
		t.sees(word, "inhale|exhale"),
		t.sounds,
		do("e", "end"),
		t.sees("body", "(?i)ended|thank|rest|over"),
	)
}

func (t *trial) record() error {
	var found contract.Found
	if err := t.program.Get("/api/classes", &found); err != nil {
		return err
	}
	if len(found.Classes) == 0 {
		return errors.New("no class is recorded")
	}
	return first(
		t.open(fmt.Sprintf("/taught/%d", found.Classes[0].ID), tabletWide, tabletHigh),
		t.sees("h1", "Engines"),
		t.sees("table", "Alternate nostril"),
		t.open("/taught", phoneWide, phoneHigh),
		t.sees("body", "Engines"),
	)
}
