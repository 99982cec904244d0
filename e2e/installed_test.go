package e2e

import (
	"fmt"
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

// installed is a browser that keeps the pages and what can be led today.
type installed struct {
	*theater
	browser *rod.Browser
	plan    contract.Plan
	wrong   time.Duration // by how much the device's time of day is ahead
}

// planned has a class planned that begins soon, and opens Today in a browser until it keeps what is needed for it.
func planned(t *testing.T, passages string) *installed {
	t.Helper()
	return plannedAt(t, passages, 0)
}

// plannedAt is planned on a device whose time of day is wrong.
func plannedAt(t *testing.T, passages string, wrong time.Duration) *installed {
	t.Helper()
	th := open(t)
	th.keeping = true
	return plannedIn(&installed{theater: th, browser: th.context(), wrong: wrong}, passages)
}

// plannedIn is planned in the browser that there is.
func plannedIn(in *installed, passages string) *installed {
	in.Helper()
	require.NoError(in, in.program.Post("/api/plans", fmt.Sprintf(
		`{"document": {"format": "vast-lantern-plan", "version": 1, "title": "By keys", "tempo": 60, "slot_min": 60, `+
			`"starts_at": %q, "passages": [%s]}}`,
		time.Now().Add(time.Hour).Format(time.RFC3339), passages), &in.plan))
	page := in.open("/")
	in.holds(page, fmt.Sprintf("/api/plans/%d/kit", in.plan.ID))
	require.NoError(in, page.tab.Close())
	return in
}

func (in *installed) open(path string) *screen {
	in.Helper()
	page := in.tabOf(in.browser, "about:blank", 1280, 800)
	in.onNewDocument(page, fmt.Sprintf("const now = Date.now; Date.now = () => now() + %d;", in.wrong.Milliseconds()))
	in.visit(page, in.at+path)
	return page
}

// holds waits until the browser has kept its pages, and an answer of the program.
func (in *installed) holds(page *screen, path string) {
	in.Helper()
	in.asked("it is kept: "+path, func() bool {
		return in.eval(page, `async (path) =>
			Boolean(navigator.serviceWorker.controller) && Boolean(await caches.match(path))`, path).Bool()
	})
}

// begins begins the class without the program, and returns its lead screen.
func (in *installed) begins() *screen {
	in.Helper()
	page := in.open("/")
	in.see(page, ".held", "The server does not answer")
	in.click(page, ".next button", "Lead this class")
	in.see(page, ".modal button", "[Bb]egin")
	in.press(page, input.Enter)
	in.see(page, `[data-testid="word"]`, ".")
	in.see(page, ".offline", "1 change to send")
	return page
}

func (in *installed) classes() []contract.ClassCard {
	in.Helper()
	var found contract.Found
	require.NoError(in, in.program.Get("/api/classes", &found))
	return found.Classes
}

// A class that was planned for today is begun, led and ended although the program is not there at any time. The record
// has it once.
func TestAClassIsLedWithoutTheProgram(t *testing.T) {
	in := planned(t, long)
	defer in.recovered()
	in.program.Kill()
	page := in.begins()
	in.press(page, 'q')
	in.see(page, ".answer", "slower: 58")
	in.press(page, 'b')
	in.write(page, `input[aria-label="Note"]`, "nobody minded")
	in.press(page, input.Enter)
	in.see(page, ".offline", "3 changes to send")

	require.NoError(t, page.tab.Close())
	page = in.open("/practices") // which is kept too
	in.see(page, "h1, h2", ".")
	in.click(page, ".running a", "Return to class")
	in.see(page, `[data-testid="word"]`, ".")
	in.see(page, ".offline", "3 changes to send")
	in.twice(page, input.KeyX, `document.querySelector(".over")`)
	in.see(page, ".over", "Its record appears when the server answers")
	in.click(page, ".over a", "Today")
	in.see(page, ".next h1", "By keys")

	in.restart()
	in.until(page, `!document.querySelector(".held")`)
	in.asked("the class is in the record", func() bool {
		classes := in.classes()
		return len(classes) == 1 && !classes[0].Running && len(in.pressesOf(classes[0].ID)) == 3
	})
	marks := in.pressesOf(in.classes()[0].ID)
	assert.EqualValues(t, "tempo", marks[0].Answer.Do)
	assert.Equal(t, "nobody minded", marks[1].Answer.Text)
	assert.EqualValues(t, "end", marks[2].Answer.Do)
	in.visit(page, in.at+"/school")
	in.see(page, "section", "Nothing is kept here now|Kept here")
	in.until(page, `![...document.querySelectorAll("section li")].some((e) => e.innerText.includes("By keys"))`)
	assert.Len(t, in.classes(), 1)
}

// A second class is begun on the device while the first goes on: the teacher is asked, and the first one ends.
func TestASecondClassWithoutTheProgram(t *testing.T) {
	in := planned(t, long)
	defer in.recovered()
	in.program.Kill()
	page := in.begins()
	require.NoError(t, page.tab.Close())
	page = in.open("/")
	in.see(page, ".running a", "Return to class")
	in.click(page, ".next button", "Lead this class")
	in.see(page, ".modal button", "[Bb]egin")
	in.press(page, input.Enter)
	in.see(page, ".modal .alert", "“By keys” is being led")
	in.click(page, ".modal button", "End it and begin this one")
	in.see(page, `[data-testid="word"]`, ".")
	in.restart()
	in.until(page, `/^\/lead\/\d+$/.test(location.pathname) && !document.querySelector(".offline")`)
	in.visit(page, in.at+"/") // which sends what is left
	in.asked("both are in the record", func() bool { return len(in.classes()) == 2 })
	running := 0
	for _, class := range in.classes() {
		if class.Running {
			running++
		}
	}
	assert.Equal(t, 1, running)
}

// The program comes back in the middle of a class that was begun without it: the count goes on, the class gets its
// number, and the room can follow.
func TestTheProgramComesBackInTheMiddle(t *testing.T) {
	in := planned(t, long)
	defer in.recovered()
	in.program.Kill()
	page := in.begins()
	in.press(page, 'q')
	in.see(page, ".offline", "2 changes to send")
	in.eval(page, `() => { document.querySelector(".leading").dataset.same = "yes"; }`)

	in.restart()
	in.until(page, `/^\/lead\/\d+$/.test(location.pathname) && !document.querySelector(".offline")`)
	assert.Equal(t, 1, in.count(page, `.leading[data-same="yes"]`), "the screen is not drawn anew")
	classes := in.classes()
	require.Len(t, classes, 1)
	in.press(page, input.Space)
	in.see(page, `[data-testid="word"]`, "breathe as you like|natural")
	in.sent(page)
	assert.Len(t, in.pressesOf(classes[0].ID), 2)

	var score contract.Score
	require.NoError(t, in.program.Get(fmt.Sprintf("/api/classes/%d/score", classes[0].ID), &score))
	shown := in.eval(page, `() => window.lanternClock.now()`).Num()
	assert.InDelta(t, in.clock(), shown, 2000*clockRate, "the page goes by the clock of the program")
	var code contract.RoomCode
	require.NoError(t, in.program.Get("/api/room", &code))
	in.see(in.page("/room/"+code.Code), `[data-testid="word"]`, ".")
}

// The answer to the begin of a class is lost: the class begins on the device, under the same name, and is there once.
func TestTheAnswerToTheBeginIsLost(t *testing.T) {
	in := planned(t, long)
	defer in.recovered()
	page := in.open("/")
	in.eval(page, `() => {
		const real = window.fetch;
		window.fetch = async (path, init) => {
			const answer = await real(path, init);
			if (String(path).endsWith("/api/classes") && init?.method === "POST") throw new TypeError("lost");
			return answer;
		};
	}`)
	in.click(page, ".next button", "Lead this class")
	in.see(page, ".modal button", "[Bb]egin")
	in.press(page, input.Enter)
	in.see(page, `[data-testid="word"]`, ".")
	in.until(page, `/^\/lead\/\d+$/.test(location.pathname) && !document.querySelector(".offline")`)
	assert.Len(t, in.classes(), 1)
}

// keptPresses counts the presses that the browser keeps.
const keptPresses = `() => new Promise((counted, failed) => {
	const opening = indexedDB.open("lantern");
	opening.onerror = failed;
	opening.onsuccess = () => {
		const counting = opening.result.transaction("presses").objectStore("presses").count();
		counting.onerror = failed;
		counting.onsuccess = () => { opening.result.close(); counted(counting.result); };
	};
})`

// The browser is killed in the middle of a class while the program does not answer. When it is started again, the class
// goes on, and what was pressed is still to be sent.
func TestTheBrowserIsKilledWhileApart(t *testing.T) {
	th := open(t)
	defer th.recovered()
	th.keeping = true
	profile := "user-data-dir=" + t.TempDir()
	start := func() *stage.Browser {
		browser, err := stage.Open(profile)
		require.NoError(t, err)
		t.Cleanup(browser.Kill)
		return browser
	}
	browser := start()
	in := plannedIn(&installed{theater: th, browser: browser.Browser}, long)
	var score contract.Score
	require.NoError(t, in.program.Lead(in.plan.ID, &score))
	path := fmt.Sprintf("/lead/%d", score.ClassID)
	page := in.open(path)
	in.leadsAlone(page)
	in.program.Kill()
	in.press(page, 'q')
	in.see(page, ".offline", "1 change to send")
	in.asked("the press is written", func() bool { return in.eval(page, keptPresses).Int() == 1 })
	browser.Kill()

	in.browser = start().Browser
	page = in.open(path)
	in.see(page, `[data-testid="word"], #pad-title`, ".")
	in.see(page, ".offline", "1 change to send")
	for in.count(page, ".pad") > 0 { // it was away for longer than 8 s
		in.press(page, input.KeyF)
		in.closed(page)
	}
	in.press(page, 'e')
	in.see(page, ".offline", "2 changes to send")
	in.restart()
	in.until(page, `!document.querySelector(".offline")`)
	in.sent(page)
	assert.Len(t, in.pressesOf(score.ClassID), 2)
}

// The device's time of day is wrong by minutes, and is set while the program does not answer: the class has the start
// that the program's clock showed all the same, and no press is in the future.
func TestTheTimeOfDayIsWrongByMinutes(t *testing.T) {
	in := plannedAt(t, long, 7*time.Minute)
	defer in.recovered()
	in.program.Kill()
	in.wrong = -11 * time.Minute
	page := in.begins()
	in.press(page, 'q')
	in.see(page, ".offline", "2 changes to send")
	began := in.eval(page, `() => window.lanternClock.now()`).Num()
	in.restart()
	in.until(page, `/^\/lead\/\d+$/.test(location.pathname) && !document.querySelector(".offline")`)
	classes := in.classes()
	require.Len(t, classes, 1)
	behind := (18 * time.Minute).Milliseconds() * clockRate // what the page took the time for, while it could not ask
	assert.InDelta(t, began+float64(behind), classes[0].StartedMS, float64(time.Minute.Milliseconds()*clockRate))
	marks := in.pressesOf(classes[0].ID)
	require.Len(t, marks, 1)
	assert.Less(t, float64(marks[0].Answer.AtMS), in.clock()-classes[0].StartedMS)
}

// The browser offers to install the application, and keeps nothing once that is switched off.
func TestItIsInstalledAndRemoved(t *testing.T) {
	in := planned(t, long)
	defer in.recovered()
	page := in.open("/school")
	in.see(
		page,
		"section",
		"Kept here .*: the plan By keys, the practice book, and the last record of no group, with its notes",
	)
	manifest, err := proto.PageGetAppManifest{}.Call(page.tab)
	require.NoError(t, err)
	assert.Empty(t, manifest.Errors)
	errors, err := proto.PageGetInstallabilityErrors{}.Call(page.tab)
	require.NoError(t, err)
	for _, e := range errors.InstallabilityErrors {
		assert.Equal(t, "in-incognito", e.ErrorID, "all tests have contexts of their own")
	}
	in.see(in.open("/lead/-5"), ".alert", "begun on another device")
	in.click(page, "#holds", "")
	in.see(page, "section", "To begin one, the server must answer")
	assert.Zero(t, in.eval(page, `async () => (await (await caches.open("lantern-held")).keys()).length`).Int())
	in.program.Kill()
	in.tap(page, `a[href="/"]`, "Today")
	in.see(page, ".alert", "does not answer|cannot be reached")
}
