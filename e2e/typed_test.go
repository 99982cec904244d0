package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/sheet"
	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

// Every kind of class that practitioners lead is planned on the screen as it is said, and becomes what the command
// makes of the same text: row by row, and with all that is shown and said.
func TestEveryKindIsTypedIntoAPlan(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page := th.page("/api/clock")
	for _, kind := range stage.Kinds {
		var plan contract.Plan
		require.NoError(
			t,
			th.program.Post(
				"/api/plans",
				`{"document": {"format": "vast-lantern-plan", "version": 1, "title": "New class", "tempo": 60, "slot_min": 30, `+
					`"passages": []}}`,
				&plan,
			),
		)
		th.visit(page, fmt.Sprintf("%s/plan/%d", th.at, plan.ID))
		th.until(page, `document.activeElement?.id === "add"`)
		require.NoError(t, page.tab.InsertText(kind.Text)) // several lines at once
		lines := strings.Count("\n"+kind.Text, "\n") - strings.Count("\n"+kind.Text, "\n ")
		th.until(
			page,
			fmt.Sprintf(
				`document.querySelectorAll(".add .would").length === %d && !document.querySelector(".add .wrong")`,
				lines,
			),
		)
		th.press(page, input.Enter)
		th.until(page, fmt.Sprintf(`document.querySelectorAll(".passage").length === %d`, lines))
		th.see(page, "span", "^Saved$")
		wanted := []byte(lantern(t, []byte(kind.File()), "plan", "-"))
		there := withoutAgain(t, th.fetch(fmt.Sprintf("/api/plans/%d/file", plan.ID)))
		for _, command := range []string{"sheet", "cues"} {
			assert.Equal(t, lantern(t, wanted, command, "-"), lantern(t, there, command, "-"), kind.Name)
		}
		assert.Zero(t, th.eval(page, `() => document.querySelectorAll(".passage .wrong").length`).Int(), kind.Name)
	}
}

// withoutAgain returns a plan without the lines of the practice book that come round again at own pace: the page adds
// them, the commands do not.
func withoutAgain(t *testing.T, document []byte) []byte {
	doc, p, err := sheet.ReadPlan(bytes.NewReader(document))
	require.NoError(t, err)
	for i, fields := range doc.Passages() {
		if _, there := p.Passages[i].Again(); there {
			fields.SetAgain(&p.Passages[i], false)
		}
	}
	text, err := json.Marshal(doc)
	require.NoError(t, err)
	return text
}

// What is typed is completed, what is wrong is told at its word with what could be meant, and nothing is lost.
func TestTheFieldThatAdds(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var plan contract.Plan
	require.NoError(
		t,
		th.program.Post(
			"/api/plans",
			`{"document": {"format": "vast-lantern-plan", "version": 1, "title": "New class", "passages": []}}`,
			&plan,
		),
	)
	page := th.page(fmt.Sprintf("/plan/%d", plan.ID))
	th.until(page, `document.activeElement?.id === "add"`)
	type_ := func(text string) {
		for _, r := range text {
			require.NoError(t, page.tab.Keyboard.Type(input.Key(r)))
		}
	}
	type_("three rounds of squ")
	th.see(page, `[role="option"]`, "square breath")
	th.press(page, input.Tab)
	th.until(page, `document.querySelector("#add").value === "three rounds of square breath"`)
	th.see(page, ".would", "Square breath, 4:4:4:4, 3 rounds")
	th.press(page, input.Enter)
	th.see(page, ".passage .numbers", "3 rounds of")
	th.until(page, `document.querySelector("#add").value === ""`)

	type_("nadi hodl 4 x6")
	th.see(page, ".add .doubt", `“hodl” is kept as a remark`)
	th.press(page, input.F8)
	th.until(page, `getSelection().toString() === "hodl"`)
	th.click(page, ".add .doubt button", "^hold$")
	th.see(page, ".would", "Alternate nostril breath, 4:4:4, 6 rounds")
	th.press(page, input.Enter)
	th.until(page, `document.querySelectorAll(".passage").length === 2`)
	type_("rest 1 minn")
	th.see(page, ".would, .add .wrong", ".")
	require.NoError(t, th.element(page, "#add").SelectAllText())
	type_("rest 1 min")
	th.press(page, input.Enter)
	th.until(page, `document.querySelectorAll(".passage").length === 3`)
}

// A passage is changed on the drawing of its round, and its own words stand at their place, by the keyboard alone.
func TestAPassageIsChangedByTheKeyboard(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var plan contract.Plan
	require.NoError(
		t,
		th.program.Post(
			"/api/plans",
			`{"document": {"format": "vast-lantern-plan", "version": 1, "title": "Evening", "passages": [
		{"type": "practice", "practice": "counted-breath", "title": "Square breath", "counts": "4:4:4:4", "rounds": 3}]}}`,
			&plan,
		),
	)
	page := th.page(fmt.Sprintf("/plan/%d", plan.ID))
	th.focus(page, `[aria-label="More of Square breath"]`, "more")
	th.press(page, input.Enter)
	th.see(page, ".roundeditor", "inhale 4[^]*hold 4[^]*exhale 4[^]*empty 4")
	th.focus(page, `.planned [aria-label="Change empty, 4"]`, "empty")
	th.press(page, input.Enter) // goes to its number
	th.until(page, `document.activeElement.type === "number" && document.activeElement.value === "4"`)
	th.press(page, input.ArrowDown, input.ArrowDown, input.ArrowDown, input.ArrowDown)
	th.see(page, ".roundeditor", "inhale 4[^]*hold 4[^]*exhale 4")
	th.until(page, `document.querySelectorAll(".planned .string").length === 3`)
	th.until(
		page,
		`document.querySelector(".passage .name").value === "Even breath with a hold"`,
	) // it is no square any more
	th.focus(page, ".ownwords", "")
	require.NoError(t, page.tab.InsertText("r2 hold: soft jaw"))
	th.see(page, "span", "^Saved$")
	th.until(page, `document.querySelector(".ownwords").value === "r2 hold: soft jaw"`)
	require.NoError(t, page.tab.InsertText("\nr2 hodl: soft jaw"))
	th.see(page, ".details .invalid-feedback", `line 2: “hodl” is not understood`)
	for _, lines := range []int{0, 1} { // closed and opened again: what was not understood is there to be mended
		th.tap(page, `[aria-label$=" of Even breath with a hold"][aria-expanded]`, ".")
		th.until(page, fmt.Sprintf(`document.querySelectorAll(".ownwords").length === %d`, lines))
	}
	th.see(page, ".details .invalid-feedback", `line 2: “hodl” is not understood`)
	th.until(page, `document.querySelector(".ownwords").value === "r2 hold: soft jaw\nr2 hodl: soft jaw"`)
	cues := lantern(t, th.fetch(fmt.Sprintf("/api/plans/%d/file", plan.ID)), "cues", "-")
	assert.Contains(t, cues, "soft jaw")
	card := th.page(fmt.Sprintf("/plan/%d/card", plan.ID))
	th.see(card, ".line", "round 2, hold: soft jaw")
}

// From an empty start to leading a first class, with the keys that it takes: well within a minute.
func TestTheFirstTenMinutes(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page := th.page("/")
	th.see(page, "h1", "Welcome")
	th.until(page, `document.activeElement?.innerText.includes("sample class")`)
	th.press(page, input.Enter) // one key
	th.see(page, `[data-testid="word"]`, ".")
	th.see(page, ".topbar .title", "A sample class")
	var code contract.RoomCode
	require.NoError(t, th.program.Get("/api/room", &code))
	room := th.page("/room/" + code.Code)
	th.see(room, `[data-testid="word"]`, ".")
	th.press(page, input.KeyV) // past the talk
	th.see(page, ".stage", "Even breath")
	th.end(page)
	th.see(page, ".over", "Not saved")
	th.press(page, input.Enter)
	th.see(page, "h1", "Welcome")
	th.until(page, `!document.body.innerText.includes("A sample class")`)

	th.click(page, "a", "Begin with a group")
	th.see(page, "h1", "Groups")
	school := th.page("/school")
	th.click(school, "button", "Add the demo data")
	th.see(school, "button", "Remove the demo data: 4 groups")
	today := th.page("/")
	th.see(today, "button", "Lead this class")
	th.click(school, "button", "Remove the demo data")
	th.see(school, "button", "Add the demo data")
	again := th.page("/")
	th.see(again, "h1", "Welcome")
}
