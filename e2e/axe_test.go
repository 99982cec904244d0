package e2e

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

// violation is what axe-core finds of a rule of WCAG 2.2, or of what it takes for good practice.
type violation struct {
	ID    string
	Help  string
	Nodes []struct{ HTML, FailureSummary string }
}

// accessible looks a page over as it is at rest: a button that the pointer has just come to is on its way between two
// colours, and what contrast it has there depends on when one looks.
func (th *theater) accessible(page *screen, name string) {
	th.Helper()
	axe, err := os.ReadFile(filepath.Join("..", "ui", "node_modules", "axe-core", "axe.min.js"))
	require.NoError(th, err, "npm ci in ui/ brings it")
	th.eval(page, fmt.Sprintf("() => { %s }", axe))
	result := th.eval(page, `async () => {
		const rest = document.createElement("style");
		rest.textContent = "*, *::before, *::after { transition: none !important; }";
		document.head.append(rest);
		try {
			return JSON.stringify((await axe.run({ resultTypes: ["violations"] })).violations);
		} finally {
			rest.remove();
		}
	}`)
	var found []violation
	require.NoError(th, json.Unmarshal([]byte(result.Str()), &found))
	for _, v := range found {
		for _, node := range v.Nodes {
			th.Errorf("%s: %s (%s)\n%s\n%s", name, v.ID, v.Help, node.HTML, node.FailureSummary)
		}
	}
}

// openDemo starts a program of its own with the demo data and a practice of the teacher's own.
func openDemo(t *testing.T) (*theater, contract.Today) {
	program, err := stage.Start("demo", "--data", filepath.Join(t.TempDir(), "demo.db"), "--port", "0")
	require.NoError(t, err)
	t.Cleanup(program.Kill)
	require.NoError(t, program.ReadCare())
	var file contract.PracticeFile
	require.NoError(t, program.Post("/api/practices/copy", `{"id": "counted-breath", "name": "Mine"}`, &file))
	var today contract.Today
	require.NoError(t, program.Get("/api/today", &today))
	return &theater{T: t, program: program, browser: sharedBrowser(t), at: program.URL}, today
}

// Every view, and everything that is before the lead screen, by the rules of axe-core.
func TestEveryViewIsAccessible(t *testing.T) {
	t.Parallel()
	th, today := openDemo(t)
	defer th.recovered()
	program := th.program

	var offer contract.HomeOffer
	require.NoError(t, program.Get(fmt.Sprintf("/api/plans/%d/home", today.Next.ID), &offer))
	require.NoError(
		t,
		program.Post(
			fmt.Sprintf("/api/plans/%d/home", today.Next.ID),
			fmt.Sprintf(`{"passage": %d, "minutes": 5, "pieces": 1, "days": 7}`, offer.Passages[0].Passage),
			&offer,
		),
	)
	lights := 0
	page := th.page("/api/clock") // one for all views: to load a view in a new one takes longer than to look at it
	for _, v := range []struct{ path, ready string }{
		{"/", "Lead this class"},
		{fmt.Sprintf("/plan/%d", today.Next.ID), "Saved"},
		{fmt.Sprintf("/plan/%d/card", today.Next.ID), "end"},
		{fmt.Sprintf("/plan/%d/home", today.Next.ID), "Page that plays"},
		{fmt.Sprintf("/home/%d", offer.Given[0].ID), "When to stop"},
		{fmt.Sprintf("/try/%d", today.Next.ID), "nothing is recorded"},
		{"/practices", "Alternate nostril breath"},
		{"/practices/kapalabhati", "Watch for"},
		{"/practices/own-mine/edit", "inhale"},
		{"/groups", today.Next.Group.Name},
		{fmt.Sprintf("/groups/%d", today.Next.Group.ID), "In the room"},
		{"/school", "Your own words"},
		{"/programmes/1", "Change the steps"},
		{"/rehearse", "See the gasp"},
		{"/rehearse/1", "To practise next"},
		{"/keys", "Letters"},
		{"/voices", "Whose voice"},
		{"/voices/1", "Record"},
		{"/help", "."},
		{"/taught/year/2026", "Hours by practice"},
		{"/taught", "of"},
		{fmt.Sprintf("/taught/%d", today.Taught[0].ID), "adjust"},
		{"/room/NOBODY", "There is no room"},
		{"/nothing/here", "Go to today"},
	} {
		th.visit(page, th.at+v.path)
		th.see(page, "main, .room", v.ready)
		th.element(page, "h1") // as each page has one once it is loaded
		th.accessible(page, v.path)
		const light = `[...document.querySelectorAll("button")].find((b) => /^ ?(Night|Day)$/.test(b.innerText))`
		if th.eval(page, "() => Boolean("+light+")").Bool() {
			th.eval(page, "() => "+light+".click()")
			lights++
			th.accessible(page, v.path+" in the other light")
		}
	}

	assert.Greater(t, lights, 9, "views that have two lights")

	var score contract.Score
	require.NoError(t, program.Lead(today.Next.ID, &score))
	var code contract.RoomCode
	require.NoError(t, program.Get("/api/room", &code))
	room := th.page("/room/" + code.Code)
	th.see(room, `[data-testid="word"]`, ".")
	th.accessible(room, "room")
	lead := th.page(fmt.Sprintf("/lead/%d", score.ClassID))
	th.see(lead, `[data-testid="word"]`, ".")
	th.accessible(lead, "lead")
	for _, panel := range []struct {
		key   input.Key
		title string
	}{{input.Digit1, "What do you see"}, {input.Digit2, "Tap the room"}, {input.Digit7, "Listen to the room"},
		{input.KeyB, "Note"}, {input.KeyT, "Cautions"},
		{input.ShiftLeft, ""}} {
		if panel.title == "" {
			th.tap(lead, `button[aria-label="Keys"]`, ".")
			panel.title = "Keys"
		} else {
			th.press(lead, panel.key)
		}
		th.open(lead, panel.title)
		th.accessible(lead, "lead: "+panel.title)
		th.press(lead, input.Escape)
		th.closed(lead)
	}
	for _, button := range []struct{ label, title string }{{"Sound", "Sound of this screen"},
		{"The room's screen", "The room"}} {
		th.tap(lead, fmt.Sprintf("button[aria-label=%q]", button.label), "")
		th.open(lead, button.title)
		th.accessible(lead, "lead: "+button.title)
		th.press(lead, input.Escape)
		th.closed(lead)
	}
	assert.NotContains(t, th.eval(lead, "() => document.documentElement.outerHTML").Str(), "has stopped")
}
