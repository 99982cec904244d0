package e2e

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"
	"github.com/ysmood/gson"

	"vastlantern/e2e/stage"
)

// patience bounds each wait for a condition. It is far more than anything takes, so that a busy machine fails no test.
const patience = 2 * time.Minute

// clockRate is how fast the application's clock runs in most tests.
const clockRate = 4

// theater is a program with an empty data file of its own, on a fast clock, and screens in contexts of their own of the
// browser that all tests share. What it started ends with the test.
type theater struct {
	*testing.T
	program *stage.Program
	browser *stage.Browser
	data    string
	from    string
	rate    int
	keeping bool   // whether pages keep what opens them without the program: 250 files, which few tests need
	at      string // where pages are opened: the program's address on this machine, or its name on the network
}

const passcode = "warm lamp oil"

// screen is a page of a test. A test looks at it through the theater's methods, which wait, look again when the page is
// replaced meanwhile, and end the test with what the page shows.
type screen struct {
	tab *rod.Page
}

// onBothAddresses runs a test over the loopback address and over a name on the network. On the latter pages have much
// less: a browser trusts plain http only from its own machine.
func onBothAddresses(t *testing.T, run func(*testing.T, *theater)) {
	onBothAddressesAt(t, clockRate, run)
}

func onBothAddressesAt(t *testing.T, rate int, run func(*testing.T, *theater)) {
	t.Run("loopback", func(t *testing.T) {
		th := openWith(t, rate, func(th *theater) { th.start("") })
		defer th.recovered()
		run(t, th)
	})
	t.Run("network", func(t *testing.T) {
		th := openWith(t, rate, func(th *theater) {
			require.NoError(t, stage.SetPasscode(th.data, passcode))
			th.start("", "--lan", "--no-name")
			require.NoError(t, th.program.SignIn(passcode, "laptop"))
			th.at = th.program.Named()
		})
		defer th.recovered()
		page := th.page("/room/NOBODY")
		require.False(
			t,
			th.eval(page, "() => isSecureContext").Bool(),
			"what is tried here is plain http from another machine",
		)
		run(t, th)
	})
}

func open(t *testing.T) *theater {
	t.Helper()
	return openAt(t, clockRate)
}

func openAt(t *testing.T, rate int) *theater {
	t.Helper()
	return openWith(t, rate, func(th *theater) { th.start("") })
}

func openWith(t *testing.T, rate int, start func(*theater)) *theater {
	t.Helper()
	t.Parallel() // most of the time is spent waiting for a clock
	th := &theater{
		T:    t,
		data: filepath.Join(t.TempDir(), "lantern.db"),
		from: time.Now().Format(time.RFC3339Nano),
		rate: rate,
	}
	th.browser = sharedBrowser(t)
	start(th)
	require.NoError(t, th.program.ReadCare())
	return th
}

// recovered ends the test, and none but it, where its own code panics. Each test defers it.
func (th *theater) recovered() {
	if r := recover(); r != nil {
		th.Helper()
		th.Errorf("panic: %v\n%s", r, stack())
	}
}

// One browser serves all tests: to start one takes longer than many a test. A new one is started where it has ended.
var shared struct {
	sync.Mutex
	browser *stage.Browser
}

func sharedBrowser(t *testing.T) *stage.Browser {
	t.Helper()
	shared.Lock()
	defer shared.Unlock()
	if shared.browser != nil {
		if _, err := shared.browser.Version(); err == nil {
			return shared.browser
		}
		shared.browser.Close()
	}
	browser, err := stage.Open("js-flags=--liftoff-only") // to optimise the core costs more than a test gets back
	require.NoError(t, err)
	shared.browser = browser
	return browser
}

func closeSharedBrowser() {
	shared.Lock()
	defer shared.Unlock()
	if shared.browser != nil {
		shared.browser.Close()
	}
}

// start starts the program on the port, or on a free one where it is empty.
func (th *theater) start(port string, more ...string) {
	th.Helper()
	if port == "" {
		address, err := stage.FreeAddress()
		require.NoError(th, err)
		port = portOf(address)
	}
	program, err := stage.Start(append([]string{
		"serve", "--data", th.data, "--port", port, "--clock-rate", fmt.Sprint(th.rate), "--clock-from", th.from,
	}, more...)...)
	require.NoError(th, err)
	th.Cleanup(program.Kill)
	if th.program != nil {
		program.Cookies = th.program.Cookies
	}
	th.program, th.at = program, program.URL
}

func portOf(address string) string { return address[strings.LastIndex(address, ":")+1:] }

// restart starts the program anew on its port, as after a crash.
func (th *theater) restart() {
	th.Helper()
	network := th.at != th.program.URL
	port := portOf(th.program.URL)
	if !network {
		th.start(port)
		return
	}
	th.start(port, "--lan", "--no-name")
	th.at = th.program.Named()
}

func (th *theater) page(path string) *screen {
	th.Helper()
	return th.opened(th.at+path, 1280, 800, th.program.Cookies...)
}

// phone opens an address on a phone.
func (th *theater) phone(path string) *screen {
	th.Helper()
	return th.opened(th.at+path, 390, 844, th.program.Cookies...)
}

// opened opens an address in a context of its own, which ends with the test.
func (th *theater) opened(url string, width, height int, cookies ...*http.Cookie) *screen {
	th.Helper()
	return th.tabOf(th.context(), url, width, height, cookies...)
}

// context returns one of the browser's, with storage and a session of its own.
func (th *theater) context() *rod.Browser {
	th.Helper()
	context, err := th.browser.Incognito()
	require.NoError(th, err)
	th.Cleanup(func() {
		_ = proto.TargetDisposeBrowserContext{BrowserContextID: context.BrowserContextID}.Call(context)
	})
	return context
}

// tabOf opens an address in a tab of a context that there is.
func (th *theater) tabOf(context *rod.Browser, url string, width, height int, cookies ...*http.Cookie) *screen {
	th.Helper()
	tab, err := stage.Blank(context, url, width, height, 0, cookies...)
	require.NoError(th, err)
	page := &screen{}
	if !th.keeping {
		_, err := tab.EvalOnNewDocument(`delete Navigator.prototype.serviceWorker`)
		require.NoError(th, err)
	}
	require.NoError(th, tab.Navigate(url))
	page.tab = tab.WithPanic(func(err any) { th.fail(page, "%v", err) })
	return page
}

// fail ends the test, with what the page shows, and a picture of it in a folder that is named.
func (th *theater) fail(page *screen, format string, args ...any) {
	th.Helper()
	th.Fatalf("%s\nthe page %s", fmt.Sprintf(format, args...), th.shown(page))
}

// shown returns the page's address and text, and where its picture is.
func (th *theater) shown(page *screen) string {
	tab := page.tab.Timeout(20 * time.Second)
	text := "cannot be read"
	body, err := tab.Eval(`() => location.href + " shows:\n" + document.body.innerText`)
	if err == nil {
		text = body.Value.Str()
	} else {
		text += ": " + err.Error()
	}
	picture, err := tab.Screenshot(false, nil)
	if err != nil {
		return text + "\nno picture: " + err.Error()
	}
	folder, err := os.MkdirTemp("", "lantern-failed-")
	if err != nil {
		return text + "\nno picture: " + err.Error()
	}
	file := filepath.Join(folder, strings.ReplaceAll(th.Name(), "/", "-")+".png")
	if err := os.WriteFile(file, picture, 0o600); err != nil {
		return text + "\nno picture: " + err.Error()
	}
	return text + "\nits picture is " + file
}

// steadily does something with a page until it succeeds, anew where the page is replaced meanwhile. What waits in the
// page waits there, so that what is visible for a moment only is not missed by somebody who asks now and then.
func (th *theater) steadily(page *screen, what string, do func(*rod.Page) error) {
	th.Helper()
	tab := page.tab.Timeout(patience)
	for {
		err := do(tab)
		switch {
		case err == nil:
			return
		case errors.Is(err, context.DeadlineExceeded) || tab.GetContext().Err() != nil:
			th.fail(page, "waited %v in vain: %s", patience, what)
		case !stage.Replaced(err):
			th.fail(page, "%s: %v", what, err)
		}
		time.Sleep(20 * time.Millisecond) // it is being replaced at the moment
	}
}

// find is the page's side of see, read and act: it waits for the first element of the selector whose text matches.
const find = `const find = (selector, pattern) => new Promise((found) => {
	const expression = new RegExp(pattern);
	const text = (e) => e instanceof HTMLSelectElement ? [...e.selectedOptions].map((o) => o.innerText).join()
		: e instanceof HTMLInputElement || e instanceof HTMLTextAreaElement ? e.value || e.placeholder : e.innerText ?? e.textContent;
	const look = () => {
		const element = [...document.querySelectorAll(selector)].find((e) => pattern === "" || expression.test(text(e)));
		element ? found(element) : setTimeout(look, 60);
	};
	look();
});`

// see waits for an element with a text that matches; an empty pattern matches any.
func (th *theater) see(page *screen, selector, pattern string) *rod.Element {
	th.Helper()
	var element *rod.Element
	th.steadily(page, fmt.Sprintf("%q in %s", pattern, selector), func(tab *rod.Page) (err error) {
		element, err = tab.ElementByJS(
			rod.Eval(`async (selector, pattern) => { `+find+` return find(selector, pattern); }`, selector, pattern).ByPromise(),
		)
		return err
	})
	return element
}

// element waits for the first element of the selector.
func (th *theater) element(page *screen, selector string) *rod.Element {
	th.Helper()
	return th.see(page, selector, "")
}

// act waits for the element and gives it to a function of the page at once, so that it cannot be replaced in between.
func (th *theater) act(page *screen, selector, pattern, js string) gson.JSON {
	th.Helper()
	var value gson.JSON
	th.steadily(page, fmt.Sprintf("%q in %s", pattern, selector), func(tab *rod.Page) error {
		got, err := tab.Eval(
			`async (selector, pattern) => { `+find+` return (`+js+`)(await find(selector, pattern)); }`,
			selector,
			pattern,
		)
		if err == nil {
			value = got.Value
		}
		return err
	})
	return value
}

// read returns the text of the element in the moment when it matches.
func (th *theater) read(page *screen, selector, pattern string) string {
	th.Helper()
	return th.act(page, selector, pattern, "(e) => e.innerText").Str()
}

// value returns what is in a field.
func (th *theater) value(page *screen, selector string) string {
	th.Helper()
	return th.act(page, selector, "", "(e) => e.value").Str()
}

// focus goes to an element as the Tab key does.
func (th *theater) focus(page *screen, selector, pattern string) {
	th.Helper()
	th.act(page, selector, pattern, "(e) => e.focus()")
}

// tap presses an element without the mouse, as a screen reader does: also one that has something lying over its middle.
func (th *theater) tap(page *screen, selector, pattern string) {
	th.Helper()
	th.act(page, selector, pattern, "(e) => e.click()")
}

// count returns how many elements there are now.
func (th *theater) count(page *screen, selector string) int {
	th.Helper()
	return th.eval(page, "(selector) => document.querySelectorAll(selector).length", selector).Int()
}

// eval returns what a function of the page returns.
func (th *theater) eval(page *screen, js string, args ...any) gson.JSON {
	th.Helper()
	var value gson.JSON
	th.steadily(page, js, func(tab *rod.Page) error {
		got, err := tab.Eval(js, args...)
		if err == nil {
			value = got.Value
		}
		return err
	})
	return value
}

// until waits in the page until the expression is true. What throws is not true yet.
func (th *theater) until(page *screen, js string) {
	th.Helper()
	if !th.holds(page, patience, js) {
		th.fail(page, "waited %v in vain: %s", patience, js)
	}
}

// holds reports whether the expression becomes true within the time.
func (th *theater) holds(page *screen, within time.Duration, js string) bool {
	th.Helper()
	ends := time.Now().Add(within)
	for {
		_, err := page.tab.Timeout(time.Until(ends)).Eval(`() => new Promise((held) => {
			const holds = () => { try { return ` + js + `; } catch { return false; } };
			const look = () => holds() ? held(true) : setTimeout(look, 60);
			look();
		})`)
		switch {
		case err == nil:
			return true
		case time.Now().After(ends):
			return false
		case !stage.Replaced(err):
			th.fail(page, "%s: %v", js, err)
		}
		time.Sleep(20 * time.Millisecond) // it is being replaced at the moment
	}
}

// on waits for the element, and does something with it by the means of somebody at the screen.
func (th *theater) on(page *screen, selector, pattern string, do func(*rod.Element) error) {
	th.Helper()
	th.steadily(page, fmt.Sprintf("%q in %s", pattern, selector), func(tab *rod.Page) error {
		element, err := tab.ElementByJS(
			rod.Eval(`async (selector, pattern) => { `+find+` return find(selector, pattern); }`, selector, pattern).ByPromise(),
		)
		if err != nil {
			return err
		}
		return do(element)
	})
}

// click waits for the element with the text, and for it to be ready, and clicks it. A page that is still being drawn
// can move it from under the mouse: then it is clicked once more.
func (th *theater) click(page *screen, selector, pattern string) {
	th.Helper()
	for range flips {
		th.on(page, selector, pattern, func(e *rod.Element) error {
			if err := e.WaitEnabled(); err != nil {
				return err
			}
			_, err := e.Eval(`() => {
				window.missed = true;
				const hit = () => { window.missed = false; };
				this.addEventListener("click", hit, { capture: true, once: true });
			}`)
			if err != nil {
				return err
			}
			return e.Click(proto.InputMouseButtonLeft, 1)
		})
		if !th.eval(page, "() => window.missed === true").Bool() { // what opens another page was hit
			return
		}
	}
}

// fill puts the text into a field in the place of what is there.
func (th *theater) fill(page *screen, selector, text string) {
	th.Helper()
	th.on(page, selector, "", func(e *rod.Element) error {
		if err := e.SelectAllText(); err != nil {
			return err
		}
		return e.Input(text)
	})
}

// write adds the text to what is in a field.
func (th *theater) write(page *screen, selector, text string) {
	th.Helper()
	th.on(page, selector, "", func(e *rod.Element) error { return e.Input(text) })
}

// pick chooses the option of a list, once there is one with the text.
func (th *theater) pick(page *screen, selector, option string) {
	th.Helper()
	th.until(
		page,
		fmt.Sprintf(`[...document.querySelector(%q).options].some((o) => o.innerText.includes(%q))`, selector, option),
	)
	th.on(page, selector, "", func(e *rod.Element) error { return e.Select([]string{option}, true, rod.SelectorTypeText) })
}

// choose chooses the option of the list that is called so.
func (th *theater) choose(page *screen, label, option string) {
	th.Helper()
	th.pick(page, fmt.Sprintf(`select[aria-label=%q]`, label), option)
}

// flips is how often a press is tried that did not reach its switch.
const flips = 5

// flip presses a switch by the mouse, once it has come to its place, and sees it pressed. A press that reaches it
// counts.
func (th *theater) flip(page *screen, selector string) {
	th.Helper()
	before := th.act(page, selector, "", "(e) => e.checked").Bool()
	th.act(page, selector, "", `(e) => e.addEventListener("click", () => { e.dataset.pressed = "yes"; }, { once: true })`)
	pressed := fmt.Sprintf(`document.querySelector(%q).dataset.pressed === "yes"`, selector)
	for range flips { // a card that grows moves the switch from under the mouse
		th.on(page, selector, "", func(e *rod.Element) error {
			if err := e.WaitStable(50 * time.Millisecond); err != nil {
				return err
			}
			return e.Click(proto.InputMouseButtonLeft, 1)
		})
		if th.holds(page, settles, pressed) {
			break
		}
	}
	th.until(page, fmt.Sprintf("document.querySelector(%q).checked === %t", selector, !before))
}

func (th *theater) press(page *screen, keys ...input.Key) {
	th.Helper()
	require.NoError(th, page.tab.Keyboard.Type(keys...))
}

// visit opens an address in the page.
func (th *theater) visit(page *screen, url string) {
	th.Helper()
	th.steadily(page, "opening "+url, func(tab *rod.Page) error { return tab.Navigate(url) })
}

func (th *theater) reload(page *screen) {
	th.Helper()
	th.steadily(page, "loading it again", func(tab *rod.Page) error { return tab.Reload() })
}

func (th *theater) back(page *screen) {
	th.Helper()
	th.steadily(page, "going back", func(tab *rod.Page) error { return tab.NavigateBack() })
}

// address returns where the page is.
func (th *theater) address(page *screen) string {
	th.Helper()
	return th.eval(page, "() => location.href").Str()
}

// onNewDocument runs a script in each document that the page opens from now on, before the document's own.
func (th *theater) onNewDocument(page *screen, js string) {
	th.Helper()
	_, err := page.tab.EvalOnNewDocument(js)
	require.NoError(th, err)
}

// box returns where an element is, in px.
func (th *theater) box(page *screen, selector string) *proto.DOMRect {
	th.Helper()
	var box *proto.DOMRect
	th.on(page, selector, "", func(e *rod.Element) error {
		shape, err := e.Shape()
		if err == nil {
			box = shape.Box()
		}
		return err
	})
	return box
}

// resize gives the page a window of the size.
func (th *theater) resize(page *screen, width, height int) {
	th.Helper()
	require.NoError(
		th,
		proto.EmulationSetDeviceMetricsOverride{Width: width, Height: height, DeviceScaleFactor: 1}.Call(page.tab),
	)
	th.until(page, fmt.Sprintf("innerWidth >= %d && innerHeight === %d", width, height))
}
