package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os/exec"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

// add types a passage into the field below the running order, and waits until it is there.
func (th *theater) add(page *screen, text, name string) {
	th.Helper()
	th.write(page, "#add", text)
	th.press(page, input.Enter)
	th.until(
		page,
		fmt.Sprintf(`[...document.querySelectorAll(".passage .name")].some((f) => (f.value || f.placeholder) === %q)`, name),
	)
}

// A class of 25 minutes for beginners from nothing, by keyboard; then every number is that of the commands on the
// exported file.
func TestAClassFromNothing(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var group contract.Group
	require.NoError(
		t,
		th.program.Post("/api/groups", `{"name": "First steps", "level": "beginners", "size": 9, "weekday": -1}`, &group),
	)
	page := th.page("/")
	th.focus(page, "button", "New plan")
	th.press(page, input.Enter)
	th.see(page, "span", "^Saved$")
	th.pick(page, "#group", "First steps")
	th.write(page, "#Slot", "25")
	th.add(page, `talk 2m "Seat and spine" who is new?`, "Seat and spine")
	th.see(page, ".passage .script", "who is new") // for the teacher alone
	th.add(page, "free 10b", "Natural breath")
	th.add(page, "counted 4:4 x10", "Counted breath")
	th.add(page, "nadi 4:4 x6", "Alternate nostril breath")
	th.add(page, "rest 4m", "Rest")
	th.write(page, "#add", "nadi 4:4:8")
	th.see(page, ".add .would", "Alternate nostril breath, 4:4:8, 6 rounds assumed, left side assumed")
	th.write(page, "#add", " x3 x4")
	th.see(page, ".add .doubt", "x4")
	th.click(page, "button", "Fit to 25 min")
	th.see(
		page,
		".fitbar .message",
		"fitted to the slot, with 11 min to spare: more of a practice is not advised",
	) // with beginners
	th.see(page, ".timebar", "to spare")
	th.see(page, "span", "^Saved$")

	var today contract.Today
	require.NoError(t, th.program.Get("/api/today", &today))
	id := today.Plans[0].ID
	var stored contract.Plan
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/plans/%d", id), &stored))
	assert.Equal(t, group.ID, stored.Group.ID)
	assert.EqualValues(t, 11, stored.Summary.SpareMS/60_000)
	file := th.fetch(fmt.Sprintf("/api/plans/%d/file", id))
	check := lantern(t, file, "check", "-")
	assert.Contains(t, check, th.read(page, ".timebar figcaption strong", ":"), "the length")
	for _, p := range stored.Summary.Passages {
		if p.Rounds > 0 {
			assert.Regexp(t, fmt.Sprintf(`\b%d\b`, p.Rounds), check, p.Name)
			th.see(page, ".numbers", fmt.Sprintf("%d rounds", p.Rounds))
		}
	}
	assert.Equal(t, lantern(t, file, "sheet", "-"), string(th.fetch(fmt.Sprintf("/api/plans/%d/sheet/csv", id))))
}

func (th *theater) fetch(path string) []byte {
	th.Helper()
	response, err := http.Get(th.program.URL + path)
	require.NoError(th, err)
	defer response.Body.Close()
	require.Equal(th, 200, response.StatusCode)
	text, err := io.ReadAll(response.Body)
	require.NoError(th, err)
	return text
}

// lantern runs a command of the program on a file.
func lantern(t *testing.T, file []byte, args ...string) string {
	t.Helper()
	path, err := stage.Binary()
	require.NoError(t, err)
	cmd := exec.Command(path, args...)
	cmd.Stdin = bytes.NewReader(file)
	out, err := cmd.Output()
	require.NoError(t, err)
	return string(out)
}

const order = `{"document": {"format": "vast-lantern-plan", "version": 1, "title": "Order", "tempo": 60, "slot_min": 20, "passages": [
	{"type": "talk", "title": "First", "seconds": 60}, {"type": "practice", "practice": "counted-breath", "title": "Second", "counts": "4:4", "rounds": 10}, {"type": "free", "title": "Third", "seconds": 60}]}}`

// names waits until the running order has these titles.
func (th *theater) names(page *screen, titles ...string) {
	th.Helper()
	th.until(
		page,
		fmt.Sprintf(
			`[...document.querySelectorAll(".passage .name")].map((f) => f.value).join() === %q`,
			strings.Join(titles, ","),
		),
	)
}

func TestTheRunningOrderIsMovedSplitAndTakenBack(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var plan contract.Plan
	require.NoError(t, th.program.Post("/api/plans", order, &plan))
	page := th.page(fmt.Sprintf("/plan/%d", plan.ID))
	th.names(page, "First", "Second", "Third")
	th.focus(page, `[aria-label="Title of passage 3"]`, "")
	require.NoError(t, page.tab.KeyActions().Press(input.AltLeft).Type(input.ArrowUp).Release(input.AltLeft).Do())
	th.names(page, "First", "Third", "Second")

	// Dragged by its number, from the first place to the last.
	from, to := th.box(page, ".passage:nth-child(1) button.nr"), th.box(page, ".passage:nth-child(3) button.nr")
	mouse := page.tab.Mouse
	require.NoError(t, mouse.MoveTo(proto.NewPoint(from.X+5, from.Y+5)))
	require.NoError(t, mouse.Down(proto.InputMouseButtonLeft, 1))
	require.NoError(t, mouse.MoveLinear(proto.NewPoint(to.X+5, to.Y+12), 20))
	th.until(page, `document.querySelector(".passage:nth-child(3)").style.transform !== ""`) // it makes room
	require.NoError(t, mouse.Up(proto.InputMouseButtonLeft, 1))
	th.names(page, "Third", "Second", "First")
	th.see(page, "span", "^Saved$") // just after a drag no click counts, so that the drop is none

	th.tap(page, `[aria-label="Split Second in two"]`, "")
	th.names(page, "Third", "Second", "Second", "First")
	th.see(page, ".numbers", "^5 rounds")
	th.tap(page, `[aria-label="Undo"]`, "")
	th.names(page, "Third", "Second", "First")
	th.see(page, "span", "^Saved$")
	th.reload(page)
	th.names(page, "Third", "Second", "First")
}

// Two windows edit the same plan: neither overwrites the other, and both versions are offered.
func TestTwoWindowsOnOnePlan(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var plan contract.Plan
	require.NoError(t, th.program.Post("/api/plans", order, &plan))
	path := fmt.Sprintf("/plan/%d", plan.ID)
	one, two := th.page(path), th.page(path)
	title := `[aria-label="Title of the plan"]`
	th.fill(one, title, "Mine")
	th.see(one, "span", "^Saved$")
	var stored contract.Plan
	th.asked("the title is stored", func() bool {
		require.NoError(t, th.program.Get("/api"+strings.Replace(path, "plan", "plans", 1), &stored))
		return stored.Summary.Title == "Mine"
	})
	th.fill(two, title, "Theirs")
	compare := func(page *screen, mine, theirs string) {
		t.Helper()
		th.see(page, "[role=alert]", "another screen changed this plan")
		th.click(page, "button", "^Compare$")
		th.see(page, ".modal tbody td:first-child", mine)
		th.see(page, ".modal tbody td:last-child", theirs)
	}
	compare(two, "^Theirs$", "^Mine$")
	th.accessible(two, "two versions of a plan")
	assert.Equal(t, "Theirs", th.value(two, title), "what was typed is not lost")
	th.click(two, ".modal button", "^Use mine$")
	th.see(two, "span", "^Saved$")
	th.fill(one, title, "Mine again")
	compare(one, "^Mine again$", "^Theirs$")
	th.click(one, ".modal button", "^Keep both")
	th.see(one, ".modal [role=status]", "saved as a plan of its own")
	th.click(one, ".modal button", "Show the other version here")
	th.until(one, fmt.Sprintf(`document.querySelector('%s')?.value === "Theirs"`, title))
	var copied contract.Plan
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/plans/%d", plan.ID+1), &copied))
	assert.Equal(t, "Mine again", copied.Summary.Title)
	th.fill(two, title, "Once more")
	th.see(two, "span", "^Saved$")
	th.fill(one, title, "And again")
	compare(one, "^And again$", "^Once more$")
	th.click(one, ".modal button", "^Use the other version$")
	th.until(one, fmt.Sprintf(`document.querySelector('%s')?.value === "Once more"`, title))
}

// What was typed while the program was away is not lost, not even when the browser ends before it is back.
func TestWhatWasNotSavedIsFoundAgain(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var plan contract.Plan
	require.NoError(t, th.program.Post("/api/plans", order, &plan))
	page := th.page(fmt.Sprintf("/plan/%d", plan.ID))
	th.names(page, "First", "Second", "Third")
	port := portOf(th.program.URL)
	th.program.Kill()
	th.fill(page, `[aria-label="Title of passage 1"]`, "Sit")
	th.see(page, "[role=alert]", "Not saved")
	th.start(port)
	th.see(page, "span", "^Saved$") // by itself, once the program is back

	th.program.Kill()
	th.fill(page, `[aria-label="Title of passage 1"]`, "Arrive")
	th.see(page, "[role=alert]", "Not saved")
	address := th.address(page)
	th.visit(page, "about:blank")
	th.start(port)
	th.visit(page, address)
	th.names(page, "Arrive", "Second", "Third")
	th.see(page, "span", "^Saved$")
	var stored contract.Plan
	th.asked("what was typed is stored", func() bool {
		require.NoError(t, th.program.Get(fmt.Sprintf("/api/plans/%d", plan.ID), &stored))
		return len(stored.Summary.Passages) > 0 && stored.Summary.Passages[0].Name == "Arrive"
	})
}

// Each card is one page of either paper, also of a long class.
func TestCardsAreOnePage(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var passages []string
	for i := range 14 {
		passages = append(
			passages,
			fmt.Sprintf(
				`{"type": "talk", "title": "Part %d", "seconds": 60, "script": %q}`,
				i,
				strings.Repeat("Both sit bones on the cushion. ", 6),
			),
			`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 3, "prompts": [{"round": 2, `+
				`"text": "softer"}], "closing": [{"breaths": 2, "counts": "4:4"}]}`,
		)
	}
	var plan contract.Plan
	require.NoError(
		t,
		th.program.Post(
			"/api/plans",
			`{"document": {"format": "vast-lantern-plan", "version": 1, "title": "Long", "passages": [`+strings.Join(
				passages,
				",",
			)+`]}}`,
			&plan,
		),
	)
	var offer contract.HomeOffer
	sentence := strings.Repeat("Both sit bones on the cushion. ", 9)
	require.NoError(
		t,
		th.program.Post(
			fmt.Sprintf("/api/plans/%d/home", plan.ID),
			fmt.Sprintf(
				`{"passage": 28, "minutes": 10, "pieces": 2, "days": 90, "when": "in the morning", "sentence": %q}`,
				sentence,
			),
			&offer,
		),
	)
	for _, card := range []struct{ path, ready string }{{fmt.Sprintf("/plan/%d/card", plan.ID), "Part 13"},
		{fmt.Sprintf("/home/%d", offer.Given[0].ID), "When to stop"}} {
		page := th.page(card.path)
		for _, paper := range []string{"A4", "Letter"} {
			th.see(page, ".paper", card.ready)
			th.click(page, ".papertools button", "^"+paper+"$")
			th.see(page, `.papertools [aria-pressed="true"]`, paper)
			pdf, err := page.tab.PDF(&proto.PagePrintToPDF{PreferCSSPageSize: true})
			require.NoError(t, err)
			text, err := io.ReadAll(pdf)
			require.NoError(t, err)
			assert.Len(t, regexp.MustCompile(`/Type\s*/Page\b`).FindAll(text, -1), 1, "%s on %s", card.path, paper)
			box := regexp.MustCompile(`/MediaBox\s*\[\s*0\s+0\s+([\d.]+)\s+([\d.]+)`).FindStringSubmatch(string(text))
			require.NotNil(t, box)
			assert.True(
				t,
				strings.HasPrefix(box[1], map[string]string{"A4": "59", "Letter": "612"}[paper]),
				"%s is %s points wide",
				paper,
				box[1],
			)
			cut := th.eval(page, `() => { const p = document.querySelector(".paper"); return p.scrollHeight - p.clientHeight }`)
			assert.LessOrEqual(t, cut.Int(), 1, "nothing is cut off")
		}
	}
}

// A plan is led silently on a clock of its own, with every key, and leaves no record.
func TestTryingAPlanOut(t *testing.T) {
	th := open(t)
	defer th.recovered()
	stored := th.plan(25)
	page := th.page(fmt.Sprintf("/plan/%d", stored.ID))
	th.click(page, "button", "Try it")
	th.see(page, `[data-testid="word"]`, `inhale\s*left`)
	th.press(page, input.KeyS)
	th.see(page, ".answer", "26 rounds instead of 25")
	th.click(page, ".trying button", "×16")
	th.see(page, `[data-testid="word"]`, "What changed")
	th.press(page, input.KeyF)
	th.see(page, "h2", "The plan ends here")
	th.click(page, ".trying button", "From the start")
	th.see(page, ".aside", "round [0-9]+ of 25")
	th.click(page, ".trying a", "Back to the plan")
	th.see(page, ".passages", "rounds")
	var today contract.Today
	require.NoError(t, th.program.Get("/api/today", &today))
	assert.Empty(t, today.Taught)
	var running contract.Running
	require.NoError(t, th.program.Get("/api/running", &running))
	assert.Zero(t, running)
}

// A programme is begun with a plan, from a template; its classes come, move on when nobody comes, and its steps are
// changed; and a template is a plan at once.
func TestAProgrammeAndATemplate(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page := th.page("/")
	th.click(page, "button", "From a template")
	th.click(page, ".templates button", "A first alternate-nostril lesson")
	th.see(page, "span", "^Saved$")
	th.see(page, ".passages", "3 rounds of 20 s")
	th.click(page, "button", "Paper and files")
	th.click(page, ".dropdown-item", "Begin a programme with it")
	th.open(page, "A programme")
	th.see(page, ".modal", "Give this class a time first")
	th.press(page, input.Escape)
	th.closed(page)
	th.act(page, "#starts", "", `(e) => {
		Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(e, "2031-03-03T18:30");
		e.dispatchEvent(new Event("input", { bubbles: true }));
	}`)
	th.see(page, ".passages", "18:32")
	th.click(page, "button", "Paper and files")
	th.click(page, ".dropdown-item", "Begin a programme with it")
	th.open(page, "A programme")
	th.pick(page, "#programme-template", "The ladder of ratios")
	th.see(page, ".modal", "From 1:1 to 1:4:2")
	th.accessible(page, "a programme")
	const step = `input[aria-label="Step 2"]`
	th.fill(page, step, "4:8 purple")
	th.click(page, ".modal button", "Begin with this class")
	th.see(page, ".modal .alert", `Step 2, “4:8 purple”`)
	th.fill(page, step, "4:8 x5")
	th.click(page, ".modal button", "Begin with this class")
	th.see(page, ".course", "step 1 of 7, planned as 4:4 x8 · It begins.")
	th.see(page, ".passages", "8 rounds of")
	th.click(page, ".course li:nth-child(3) a", "")
	th.see(page, ".course", "step 1 of 7")
	th.until(page, `document.querySelector("#starts")?.value === "2031-03-10T18:30"`)

	th.click(page, ".course a", "The ladder of ratios")
	th.see(page, "h1", "The ladder of ratios")
	th.see(page, ".classes", "to come")
	th.accessible(page, "a programme over time")
	th.click(page, "button", "Skip this week")
	th.see(page, ".classes", "10 March 2031")
	th.until(page, `!document.querySelector(".classes").innerText.includes("3 March")`)
	th.click(page, "button", "Change the steps")
	th.write(page, "#programme-name", ", slowly")
	var sheet contract.ProgrammeSheet
	require.NoError(t, th.program.Get("/api/programmes/1", &sheet))
	sheet.Programme.Days = 14
	another, err := json.Marshal(contract.ProgrammeSave{Revision: sheet.Revision, Programme: sheet.Programme})
	require.NoError(t, err)
	require.NoError(t, th.program.Put("/api/programmes/1", string(another), &sheet))
	th.readAgain(page)
	th.see(page, ".edit .alert", "Another screen changed this programme")
	th.see(page, ".edit .alert tbody", "Days between two classes")
	th.until(page, `document.querySelector("#programme-name").value.endsWith(", slowly")`)
	th.click(page, ".edit button", "^Discard everything I typed$")
	th.until(page, `document.querySelector("#programme-days").value === "14" && !document.querySelector(".edit .alert")`)
	th.pick(page, "#programme-by", "after so many classes of a step")
	th.click(page, ".edit button", "Save: what comes follows")
	th.see(page, ".classes", "4:8 x5")
	th.see(page, ".classes", "4:4:4 x8")
	th.click(page, "button", "^Delete$")
	th.click(page, ".modal button", "^Delete$")
	th.click(page, "[role=status] + button", "Restore")
	th.until(page, `!document.querySelector("[role=status] + button")`)
	var card contract.ProgrammeSheet
	require.NoError(t, th.program.Get("/api/programmes/1", &card))
}

func TestALateClassIsFittedFromToday(t *testing.T) {
	th := open(t)
	defer th.recovered()
	starts := time.Now().Add(-5 * time.Minute).Format(time.RFC3339)
	body := fmt.Sprintf(
		`{"document": {"format": "vast-lantern-plan", "version": 1, "title": "Late", "slot_min": 30, "starts_at": %q, "tempo": 60, "passages": [
		{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 200, "lead_in": 4}]}}`,
		starts,
	)
	require.NoError(t, th.program.Post("/api/plans", body, &contract.Plan{}))
	page := th.page("/")
	th.click(page, "button", `\d+ min late: fit to`)
	th.click(page, ".modal button", "egin")
	th.see(
		page,
		".spare",
		`to spare|late 0:[0-5][0-9]$`,
	) // what passes from the press to the first count, at four times the speed, is not fitted
	rounds := th.read(page, ".aside", `round \d+ of`)
	assert.NotContains(t, rounds, "of 200")
}

// What is half typed in a passage's row moves with the passage, and nothing that is typed is lost where the application
// does not answer.
func TestWhatIsHalfTypedIsKept(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var plan contract.Plan
	require.NoError(
		t,
		th.program.Post(
			"/api/plans",
			`{"document": {"format": "vast-lantern-plan", "version": 1, "title": "Half typed", "passages": [
		{"type": "talk", "title": "Seat"}, {"type": "practice", "practice": "sigh"}, {"type": "free", "title": "Rest", "seconds": 60}]}}`,
			&plan,
		),
	)
	page := th.page(fmt.Sprintf("/plan/%d", plan.ID))
	th.names(page, "Seat", "", "Rest")
	const half = `[...document.querySelectorAll(".passage .short")].map((field) => field.value).findIndex((text) => ` +
		`text === "4:6 y3")`
	th.see(page, ".passage", "3 rounds")
	th.fill(page, ".passage:nth-child(2) .short", "4:6 y3")
	th.see(page, ".wrong", "y3")
	require.Equal(t, 1, th.eval(page, "() => "+half).Int())
	th.tap(page, `[aria-label^="Move Sighing"][aria-label$="up"]`, "")
	th.until(page, half+" === 0")

	offline := func(now bool) {
		require.NoError(t, proto.NetworkEnable{}.Call(page.tab))
		require.NoError(
			t,
			proto.NetworkEmulateNetworkConditions{Offline: now, DownloadThroughput: -1, UploadThroughput: -1}.Call(page.tab),
		)
	}
	offline(true)
	th.write(page, "#add", "talk 2m about the hand")
	th.press(page, input.Enter)
	th.see(page, ".invalid-feedback", "does not answer")
	assert.Equal(t, "talk 2m about the hand", th.value(page, "#add"))
	offline(false)
	th.focus(page, "#add", "")
	th.press(page, input.Enter)
	th.until(page, `document.querySelectorAll(".passage").length === 4 && document.querySelector("#add").value === ""`)
}

// A plan is held against a simulated room: a hold that is too long for newcomers is called so, and what would make it
// easier; with another room, and after a change, the numbers are others.
func TestAPlanAgainstASimulatedRoom(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var plan contract.Plan
	require.NoError(
		t,
		th.program.Post("/api/plans", `{"document": {"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [
		{"type": "practice", "practice": "counted-breath", "counts": "4:16:8", "rounds": 6}]}}`, &plan),
	)
	page := th.page(fmt.Sprintf("/plan/%d", plan.ID))
	th.click(page, ".strain summary", "Try with a simulated group")
	th.see(page, ".strain li", "Counted breath: from round 1, 14 of 14 beyond what is easy; with a gentler lane")
	th.see(page, ".strain", "not a measurement")
	th.accessible(page, "a plan against a simulated room")
	th.pick(page, "#simulated", "Experienced, 9")
	th.see(page, ".strain li", "of 9 beyond|Easy for all 9")
	th.pick(page, "#simulated", "Newcomers, 14")
	th.see(page, ".strain li", "14 of 14")
	th.fill(page, ".passage .short", "4:4 x6")
	th.press(page, input.Enter)
	th.see(page, ".strain li", "Easy for all 14")
}

// Of more plans than Today lists any is found by its title.
func TestAPlanIsFoundAmongMany(t *testing.T) {
	th := open(t)
	defer th.recovered()
	for i := range 60 {
		title := fmt.Sprintf("Morning %d", i+1)
		if i == 0 {
			title = "Waves before sleep"
		}
		body := fmt.Sprintf(`{"document": {"format": "vast-lantern-plan", "version": 1, "title": %q, "passages": []}}`, title)
		require.NoError(t, th.program.Post("/api/plans", body, &contract.Plan{}))
	}
	page := th.page("/")
	find := `[aria-label="Find a plan by its title"]`
	th.until(
		page,
		fmt.Sprintf(`document.querySelector(%q)?.placeholder === "10 more plans: type a word of the title"`, find),
	)
	th.until(page, `!document.body.innerText.includes("Waves before sleep")`)
	th.fill(page, find, "nothing like it")
	th.see(page, "p", "No plan has “nothing like it” in its title")
	th.fill(page, find, "morning")
	th.click(page, "button", "^Show more$")
	th.until(page, `document.querySelectorAll("[aria-label='Find a plan'] .list-group-item").length === 59`)
	th.fill(page, find, "waves")
	th.accessible(page, "finding a plan")
	th.click(page, "[aria-label='Find a plan'] a", "Waves before sleep")
	th.until(page, `location.pathname === "/plan/1"`)
}

// Who sets the pace of a passage is one row: the beat, the teacher's breath with the phases that wait, or each person.
func TestWhoSetsThePace(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page := th.page("/")
	th.click(page, "button", "New plan")
	th.see(page, "span", "^Saved$")
	th.add(page, "alternate nostril 4:4:8 x6", "Alternate nostril breath")
	th.click(page, `[aria-label="More of Alternate nostril breath"]`, ".")
	th.see(page, ".pacer input:checked + label", "the beat")
	th.click(page, ".pacer label", "my breath")
	th.see(page, ".roundeditor", "inhale left waits[^]*hold waits[^]*exhale right waits")
	th.click(page, `[aria-label="Hold waits for me"]`, "")
	th.see(page, ".roundeditor", "inhale left waits[^]*hold 4[^]*exhale right waits")
	th.see(page, ".passage .numbers", "by hand: inhale and exhale")
	th.click(page, ".pacer label", "each person")
	th.see(page, ".passage .numbers", "own pace")
	th.until(page, `document.querySelector(".passage .short").value === "4:4:8 own x6"`)
	assert.Zero(t, th.count(page, ".roundeditor .beside"), "at own pace nothing waits for the teacher")
	th.see(page, ".details", "Again and again, for everybody: “Go on at your own pace")
	th.until(page, `document.querySelector(".details [id^=again]").checked`)
	th.until(page, `document.querySelector(".ownwords").value.includes("Go on at your own pace")`)
	th.tap(page, ".details [id^=again]", "")
	th.until(page, `!document.querySelector(".ownwords").value.includes("Go on at your own pace")`)
	th.click(page, ".pacer label", "the beat")
	th.see(page, ".roundeditor", "inhale left 4[^]*hold 4[^]*exhale right 8")
	th.until(page, `document.querySelector(".passage .short").value.includes("x6")`)
	th.accessible(page, "who sets the pace")
}
