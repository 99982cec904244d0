// Command measure reports how true the screens are: it leads a class in real time on a lead screen and a room screen in
// Chromium, and compares when each count was due with when the frame that shows it began.
package main

import (
	"encoding/json"
	"flag"
	"fmt"
	"log"
	"math"
	"slices"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/proto"

	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

func main() {
	counts := flag.Int("counts", 200, "how many counts are measured, somewhat over half a second each")
	flag.Parse()
	if err := run(*counts); err != nil {
		log.Fatal(err)
	}
}

func run(counts int) error {
	program, browser, end, err := stage.OnFreshData()
	if err != nil {
		return err
	}
	defer end()

	// A tempo that is no whole number of frames, so that counts fall anywhere in one.
	var plan contract.Plan
	if err := program.Post("/api/plans", `{"document": {"format": "vast-lantern-plan", "version": 1, "title": "Measured", "tempo": 109, "passages": [
		{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 200, "lead_in": 0}]}}`, &plan); err != nil {
		return err
	}
	var score contract.Score
	if err := program.Lead(plan.ID, &score); err != nil {
		return err
	}
	var code contract.RoomCode
	if err := program.Get("/api/room", &code); err != nil {
		return err
	}
	patience := time.Duration(counts)*time.Second + time.Minute
	open := func(path string, width, height int) (*rod.Page, error) {
		page, err := browser.Page(program.URL+path, width, height, patience)
		if err != nil {
			return nil, err
		}
		_, err = page.ElementR(`[data-testid="word"]`, ".")
		return page, err
	}
	lead, room := fmt.Sprintf("/lead/%d", score.ClassID), "/room/"+code.Code
	for _, loaded := range []bool{false, true} {
		if err := two(open, lead, room, counts, loaded); err != nil {
			return err
		}
	}
	phone, err := open(room, 390, 844)
	if err != nil {
		return err
	}
	if err := (proto.EmulationSetCPUThrottlingRate{Rate: 4}).Call(phone); err != nil {
		return err
	}
	fmt.Println("the room on a phone of 390x844 at a quarter of the speed")
	if err := begin(phone); err != nil {
		return err
	}
	screen, _, err := shown(phone, counts)
	if err != nil {
		return err
	}
	tell("room: shown - due", lateness(screen))
	phone.MustClose()
	return smooth(browser, program.URL+room)
}

// two measures a lead screen with its sound, and a room screen, at the same time.
func two(
	open func(path string, width, height int) (*rod.Page, error),
	lead, room string,
	counts int,
	loaded bool,
) error {
	var pages []*rod.Page
	for _, path := range []string{lead, room} {
		page, err := open(path, 1280, 800)
		if err != nil {
			return err
		}
		defer page.MustClose()
		pages = append(pages, page)
	}
	if _, err := pages[0].Eval(sounds); err != nil {
		return err
	}
	for _, button := range []string{`button[aria-label="Sound"]`, "#sound-on"} {
		element, err := pages[0].Element(button)
		if err != nil {
			return err
		}
		if err := element.Click(proto.InputMouseButtonLeft, 1); err != nil {
			return err
		}
	}
	if err := pages[0].Wait(rod.Eval(`() => window.onsets.length > 0`)); err != nil {
		return err
	}
	fmt.Printf("%d counts at tempo 109 on each of two screens", counts)
	for _, page := range pages {
		if loaded {
			if _, err := page.Eval(busy); err != nil {
				return err
			}
		}
		if err := begin(page); err != nil {
			return err
		}
	}
	if loaded {
		fmt.Print(", each of which has something else to do for 12 ms of every 50")
	}
	fmt.Println()
	var screens [2]map[float64]float64
	var onsets []float64
	for i, page := range pages {
		screen, heard, err := shown(page, counts)
		if err != nil {
			return err
		}
		if screens[i] = screen; i == 0 {
			onsets = heard
		}
	}
	var between, light []float64
	for due, at := range screens[0] {
		if other, both := screens[1][due]; both {
			between = append(between, math.Abs(at-other))
		}
		nearest := math.Inf(1)
		for _, onset := range onsets {
			nearest = min(nearest, math.Abs(onset-at))
		}
		if nearest < longest { // a count of a hold that is held without a sound has none
			light = append(light, nearest)
		}
	}
	tell("lead: shown - due", lateness(screens[0]))
	tell("room: shown - due", lateness(screens[1]))
	tell("between the two", between)
	tell("sound and light", light)
	return nil
}

// longest is how far from its count a sound is taken for that of another, in ms: half a count at tempo 109 nearly.
const longest = 250

// begin has the page note what it shows from here on.
func begin(page *rod.Page) error {
	_, err := page.Eval(`() => { window.lanternShown = []; }`)
	return err
}

// busy takes the page's time, as another script would.
const busy = `() => { setInterval(() => { const until = performance.now() + 12; while (performance.now() < until); ` +
	`}, 50); }`

// sounds notes when everything that is played begins to be heard, in ms since 1970: by what the device tells of itself
// once it was heard, and not by what was known when it was scheduled.
const sounds = `() => {
	window.onsets = [];
	const start = AudioScheduledSourceNode.prototype.start;
	AudioScheduledSourceNode.prototype.start = function (when = 0, ...rest) {
		const { context } = this;
		const look = () => {
			const { contextTime, performanceTime } = context.getOutputTimestamp();
			if (contextTime < when) return setTimeout(look, 20);
			window.onsets.push(performance.timeOrigin + performanceTime - (contextTime - when) * 1000);
		};
		look();
		return start.call(this, when, ...rest);
	};
}`

// watched notes every task of over 50 ms, and when each frame begins, for the given milliseconds.
const watched = `(ms) => new Promise((done) => {
	const long = [], frames = [];
	const observer = new PerformanceObserver((list) => { for (const entry of list.getEntries()) long.push(Math.round(entry.duration)); });
	observer.observe({ type: "longtask" });
	const from = performance.now();
	const frame = (at) => {
		frames.push(at);
		if (at - from < ms) return requestAnimationFrame(frame);
		observer.disconnect();
		done(JSON.stringify({ long, frames: frames.slice(1).map((f, i) => f - frames[i]) }));
	};
	requestAnimationFrame(frame);
})`

// smooth reports how the room's page runs on a phone: at the speed of this machine, and four times as slow.
func smooth(browser *stage.Browser, address string) error {
	page, err := browser.Page(address, 390, 844, 2*time.Minute)
	if err != nil {
		return err
	}
	if _, err := page.ElementR(`[data-testid="word"]`, "."); err != nil {
		return err
	}
	fmt.Println("the room on a phone, 20 s each")
	for _, slower := range []float64{1, 4} {
		if err := (proto.EmulationSetCPUThrottlingRate{Rate: slower}).Call(page); err != nil {
			return err
		}
		text, err := page.Eval(watched, 20_000)
		if err != nil {
			return err
		}
		var seen struct{ Long, Frames []float64 }
		if err := json.Unmarshal([]byte(text.Value.Str()), &seen); err != nil {
			return err
		}
		var all float64
		for _, f := range seen.Frames {
			all += f
		}
		fmt.Printf(
			"  at 1/%.0f of the speed: %.1f frames a second, tasks of over 50 ms: %v\n",
			slower,
			float64(len(seen.Frames))/all*1000,
			seen.Long,
		)
	}
	return nil
}

// shown returns when each count was shown, by when it was due, and when sounds were heard; all in ms since 1970 on the
// machine's clock.
func shown(page *rod.Page, counts int) (times map[float64]float64, onsets []float64, err error) {
	if err := page.Wait(rod.Eval(fmt.Sprintf(`() => window.lanternShown.length > %d`, counts))); err != nil {
		return nil, nil, err
	}
	text, err := page.Eval(`() => JSON.stringify({ shown: window.lanternShown, onsets: window.onsets ?? [] })`)
	if err != nil {
		return nil, nil, err
	}
	var noted struct {
		Shown  []struct{ Due, Shown float64 }
		Onsets []float64
	}
	if err := json.Unmarshal([]byte(text.Value.Str()), &noted); err != nil {
		return nil, nil, err
	}
	times = map[float64]float64{}
	for _, one := range noted.Shown[1:] { // the first was drawn before the list was there
		times[one.Due] = one.Shown
	}
	return times, noted.Onsets, nil
}

func lateness(screen map[float64]float64) []float64 {
	var list []float64
	for due, at := range screen {
		list = append(list, math.Abs(at-due))
	}
	return list
}

func tell(what string, ms []float64) {
	slices.Sort(ms)
	at := func(share float64) float64 { return ms[int(share*float64(len(ms)-1))] }
	fmt.Printf("%-18s %4d counts  p50 %5.1f ms  p99 %5.1f ms  most %5.1f ms\n", what, len(ms), at(0.5), at(0.99), at(1))
}
