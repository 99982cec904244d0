package e2e

import (
	"fmt"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// long is a practice that no test comes to the end of.
const long = `{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:4", "rounds": 60, "tempo": 60}`

// leadsAlone waits until a lead screen could go on without the program.
func (th *theater) leadsAlone(page *screen) {
	th.Helper()
	th.element(page, `.leading[data-alone="true"]`)
}

// sent waits until the program has what was pressed on a lead screen: a press acts there first.
func (th *theater) sent(page *screen) {
	th.Helper()
	th.until(page, `(document.querySelector(".leading")?.dataset.unsent ?? "0") === "0"`)
}

// The program is stopped in the middle of a class. The teacher goes on pressing keys, which act; the record has each
// press at its moment when the program is back.
func TestTheClassGoesOnWithoutTheProgram(t *testing.T) {
	onBothAddresses(t, func(t *testing.T, th *theater) {
		page, score := th.lead(long)
		th.leadsAlone(page)
		th.see(page, `[data-testid="word"]`, "hold")
		th.program.Kill()
		th.see(page, ".offline", "Leading from this device; nothing to send")

		th.press(page, 'q')
		th.see(page, ".answer", "slower: 58")
		th.see(page, ".offline", "Leading from this device; 1 change to send")
		th.press(page, input.Space)
		th.see(page, `[data-testid="word"]`, "breathe as you like|natural")
		th.see(page, ".offline", "2 changes to send")
		th.press(page, 'b')
		th.write(page, `input[aria-label="Note"]`, "the lamp went out")
		th.press(page, input.Enter)
		th.see(page, ".offline", "3 changes to send")

		th.restart()
		th.until(page, `document.querySelector(".topbar") && !document.querySelector(".offline")`)
		th.sent(page)
		var record contract.Record
		require.NoError(t, th.program.Get(fmt.Sprintf("/api/classes/%d/record", score.ClassID), &record))
		var did []string
		for _, mark := range record.Marks {
			did = append(did, string(mark.Answer.Do))
			assert.Nil(t, mark.Answer.Refused)
		}
		assert.Equal(t, []string{"tempo", "pause", "note"}, did)
		assert.Equal(t, "the lamp went out", record.Marks[2].Answer.Text)
	})
}

// unreachable has the page's presses not arrive, while all else does: as a network that fails for one device.
const unreachable = `() => {
	const real = window.fetch;
	window.fetch = (path, init) => String(path).endsWith("/presses") && window.down
		? Promise.reject(new TypeError("down")) : real(path, init);
	window.down = true;
}`

func (th *theater) pressesOf(class int64) []contract.Mark {
	th.Helper()
	var record contract.Record
	require.NoError(th, th.program.Get(fmt.Sprintf("/api/classes/%d/record", class), &record))
	return record.Marks
}

// Two devices adjust the class while they do not meet: the teacher sees both and chooses, and the rest is in the
// record.
func TestTwoDevicesAndTheTeacherChooses(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page, score := th.lead(long)
	other := th.page(fmt.Sprintf("/lead/%d", score.ClassID))
	th.leadsAlone(page)
	th.leadsAlone(other)
	th.eval(page, unreachable)
	th.press(page, 'q')
	th.see(page, ".offline", "1 change to send")
	th.press(other, input.Space)
	th.see(other, `[data-testid="word"]`, "breathe as you like|natural")

	th.eval(page, "() => { window.down = false; }")
	th.see(page, `[role="dialog"]`, "Adjusted on two devices")
	th.see(page, `[role="dialog"]`, `On this screen: \d+:\d\d slower: 58.*Meanwhile elsewhere: \d+:\d\d natural breath`)
	th.press(page, '1')
	th.until(page, `!document.querySelector(".offline") && !document.querySelector('[role="dialog"]')`)
	th.see(other, `[data-testid="word"]`, "inhale|exhale|hold|empty")
	marks := th.pressesOf(score.ClassID)
	require.Len(t, marks, 2)
	assert.EqualValues(t, "tempo", marks[0].Answer.Do)
	assert.Equal(t, "did.aside", marks[1].Answer.Did.ID)
	th.press(other, 'q')
	th.see(page, ".answer", "slower: 56")
}

// The page is closed while the program does not answer. When the class is opened again on the device, what was pressed
// is sent.
func TestWhatWasPressedApartIsSentLater(t *testing.T) {
	th := open(t)
	defer th.recovered()
	score := th.begin(long)
	context := th.context()
	url := fmt.Sprintf("%s/lead/%d", th.at, score.ClassID)
	page := th.tabOf(context, url, 1280, 800)
	th.leadsAlone(page)
	th.eval(page, unreachable)
	th.press(page, 'q')
	th.see(page, ".offline", "1 change to send")
	school := th.tabOf(context, "about:blank", 1280, 800)
	th.onNewDocument(school, "("+unreachable+")()")
	th.visit(school, th.at+"/school")
	th.see(school, "section li", "1 change not sent yet")
	th.click(school, "button", "Remove from this device")
	th.see(school, ".alert", "1 change was not sent yet and would be lost")
	require.Empty(t, th.pressesOf(score.ClassID))
	require.NoError(t, page.tab.Close())

	again := th.tabOf(context, th.at+"/", 1280, 800) // any view of the teacher's sends it
	th.see(again, "h2", ".")
	th.asked("what was pressed apart is sent", func() bool { return len(th.pressesOf(score.ClassID)) > 0 })
	marks := th.pressesOf(score.ClassID)
	require.Len(t, marks, 1)
	assert.EqualValues(t, "tempo", marks[0].Answer.Do)

	th.reload(school)
	th.click(school, "button", "Remove from this device")
	th.see(school, "section p", "Nothing is kept here now")
}

// Where the device has no room, the class goes on, and the screen says that the page must stay open.
func TestADeviceWithoutRoom(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page, _ := th.lead(long)
	th.leadsAlone(page)
	th.eval(page, `() => {
		IDBObjectStore.prototype.add = () => { throw new DOMException("full", "QuotaExceededError"); };
	}`)
	th.eval(page, unreachable)
	th.press(page, 'q')
	th.see(page, ".offline", "1 change to send.*This device has no room to keep them: do not close this page")
	th.eval(page, "() => { window.down = false; }")
	th.until(page, `!document.querySelector(".offline")`)
}

// A lead screen shows what another device did as soon as it hears of it. A key that is pressed then acts on that class,
// although the screen's own copy of it learns of it later.
func TestAPressActsOnWhatIsShown(t *testing.T) {
	th := open(t)
	page, score := th.lead(long)
	th.leadsAlone(page)
	th.eval(page, `() => {
		const real = window.fetch;
		window.fetch = async (path, init) => {
			if (String(path).endsWith("/presses")) await new Promise((later) => setTimeout(later, 700));
			return real(path, init);
		};
	}`)
	require.NoError(t, th.program.Post(fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
		`{"key": "elsewhere", "do": "pause"}`, &contract.Adjusted{}))
	th.see(page, `[data-testid="word"]`, "natural")
	th.note(page, `[data-testid="word"]`)
	th.press(page, 's')
	th.see(page, ".answer", "61 rounds instead of 60")
	th.sent(page)
	assert.False(t, th.eval(page, `() => window.noted.some((word) => !word.includes("natural"))`).Bool())
	marks := th.pressesOf(score.ClassID)
	require.Len(t, marks, 2)
	assert.EqualValues(t, "pause", marks[0].Answer.Do)
	assert.EqualValues(t, "rounds", marks[1].Answer.Do)
}
