package e2e

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// readAgain is what a browser does when somebody comes back to the page.
func (th *theater) readAgain(page *screen) {
	th.Helper()
	th.eval(page, `() => document.dispatchEvent(new Event("visibilitychange", { bubbles: true }))`)
}

// What is typed under School stays while the page is read again, also where another screen has saved meanwhile.
func TestWhatIsTypedUnderSchoolStays(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var settings contract.Settings
	save := func(bring string) {
		require.NoError(t, th.program.Put("/api/settings", `{"schools": {}, "language": "en", "own_words": {}, "care_read": true, "bring": "`+bring+`"}`, &settings))
	}
	page := th.page("/school")
	bring := func(is string) { th.until(page, `document.querySelector("#bring").value === "`+is+`"`) }

	th.see(page, "h1", "Your school")
	save("a mat") // nothing was typed here: what another screen saved is shown
	th.readAgain(page)
	bring("a mat")
	th.fill(page, "#bring", "two blankets")
	save("a chair")
	th.readAgain(page)
	th.see(page, ".alert", "changed on another screen")
	bring("two blankets")
	th.accessible(page, "changed on another screen")
	th.click(page, "button", "^Save$")
	th.see(page, ".alert", "^Saved")
	assert.Contains(t, string(th.fetch("/api/settings")), "two blankets")

	th.fill(page, "#bring", "a cushion")
	save("a strap")
	th.readAgain(page)
	th.click(page, "button", "^Show theirs$")
	bring("a strap")
	th.until(page, `!document.querySelector(".alert")`)
}

// What one screen notes of a group is not taken back by another that was open before.
func TestWhatAGroupNeedsIsNotTakenBack(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var group contract.Group
	save := func(conditions, notes string) {
		require.NoError(t, th.program.Post("/api/groups", fmt.Sprintf(`{"id": %d, "name": "Monday", "level": "beginners", "weekday": -1, "weektime": "", "conditions": %s, "schools": {}, "notes": %q}`, group.ID, conditions, notes), &group))
	}
	save(`{}`, "")
	page := th.page(fmt.Sprintf("/groups/%d", group.ID))
	th.see(page, `[for="has-pregnancy"]`, ".")
	save(`{"pregnancy": 1}`, "")
	th.readAgain(page)
	th.until(page, `document.querySelector("#has-pregnancy").checked`)
	th.write(page, "#group-notes", "bring water")
	th.click(page, "button", "^Save$")
	th.see(page, ".alert", "^Saved")
	var groups contract.Groups
	require.NoError(t, th.program.Get("/api/groups", &groups))
	assert.Equal(t, map[string]int{"pregnancy": 1}, groups.Groups[0].Conditions)
	assert.Equal(t, "bring water", groups.Groups[0].Notes)

	th.write(page, "#group-notes", ", and a mat")
	save(`{"pregnancy": 1, "asthma": 2}`, "")
	th.readAgain(page)
	th.see(page, ".alert", "This group was changed on another screen")
	assert.Equal(t, "bring water, and a mat", th.value(page, "#group-notes"))
	th.click(page, "button", "^Show theirs$")
	th.until(page, `document.querySelector("#has-asthma").checked && document.querySelector("#group-notes").value === ""`)
}

// A practice of one's own and the steps of a programme are no different.
func TestAnOwnPracticeIsChangedOnTwoScreens(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var file contract.PracticeFile
	require.NoError(t, th.program.Post("/api/practices/copy", `{"id": "counted-breath", "name": "Mine"}`, &file))
	save := func(field string, is any) {
		var document map[string]any
		require.NoError(t, json.Unmarshal(file.Document, &document))
		document[field] = is
		sent, err := json.Marshal(document)
		require.NoError(t, err)
		body, err := json.Marshal(map[string]string{"text": string(sent)})
		require.NoError(t, err)
		require.NoError(t, th.program.Post("/api/practices", string(body), &file))
	}
	page := th.page("/practices/own-mine/edit")
	th.see(page, "h1", "^Mine$")
	save("seat", "on a chair")
	th.readAgain(page)
	th.until(page, `document.querySelector("#seat").value === "on a chair"`)
	th.fill(page, "#hands", "in the lap")
	save("seat", "on a bench")
	th.readAgain(page)
	th.see(page, ".alert", "This practice was changed on another screen")
	assert.Equal(t, "in the lap", th.value(page, "#hands"))
	th.click(page, "button", "^Show theirs$")
	th.until(page, `document.querySelector("#seat").value === "on a bench" && document.querySelector("#hands").value !== "in the lap"`)
	th.until(page, `!document.querySelector(".alert")`)
}

// An address names one group: none is shown in the place of another, and what is typed outlives that the group is deleted elsewhere.
func TestAGroupIsDeletedOnAnotherScreen(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var group contract.Group
	for _, name := range []string{"Monday", "Thursday"} {
		require.NoError(t, th.program.Post("/api/groups", fmt.Sprintf(`{"name": %q, "level": "beginners", "weekday": -1, "weektime": "", "conditions": {}, "schools": {}, "notes": ""}`, name), &group))
	}
	page := th.page(fmt.Sprintf("/groups/%d", group.ID))
	th.see(page, `[for="has-pregnancy"]`, ".")
	th.write(page, "#group-notes", "bring water")

	other := th.page(fmt.Sprintf("/groups/%d", group.ID))
	th.click(other, "button", "^Delete the group$")
	th.click(other, ".modal button", "^Delete$")
	th.until(other, `location.pathname === "/groups/1" && document.querySelector("#group-name").value === "Monday"`)
	assert.Zero(t, th.count(other, ".alert-warning"))

	th.readAgain(page)
	th.see(page, ".alert", "deleted on another screen")
	assert.Equal(t, "bring water", th.value(page, "#group-notes"))
	th.click(other, "[role=status] + button", "Bring it back")
	th.until(other, `!document.querySelector("[role=status] + button")`)
	th.readAgain(page)
	th.until(page, `!document.querySelector(".alert")`)
	th.click(page, "button", "^Save$")
	th.see(page, ".alert", "^Saved")
	var groups contract.Groups
	require.NoError(t, th.program.Get("/api/groups", &groups))
	assert.Equal(t, "bring water", groups.Groups[1].Notes)

	th.see(th.page("/groups/99"), ".alert", "There is no such group")
	th.see(th.page("/practices/no-such"), ".alert", "There is no practice “no-such”")
}

// Who goes elsewhere in the middle, or loads the page again, finds what was typed, is told that it is not saved, and can discard it.
func TestWhatIsTypedOutlivesThePage(t *testing.T) {
	th := open(t)
	defer th.recovered()
	require.NoError(t, th.program.Post("/api/practices/copy", `{"id": "counted-breath", "name": "Mine"}`, &contract.PracticeFile{}))
	page := th.page("/school")
	value := func(field, is string) {
		t.Helper()
		th.until(page, fmt.Sprintf("document.querySelector(%q)?.value === %q", field, is))
	}
	today := func() {
		t.Helper()
		th.click(page, ".shell a", "^Today$")
		th.until(page, `location.pathname === "/"`) // or the way back would be that of the page before
	}
	th.write(page, "#bring", "a strap")
	th.click(page, "main a", "Keys, pedals and remotes")
	th.fill(page, `[aria-label="Key for: Slower"]`, "y")
	th.click(page, ".shell a", "^School$")
	value("#bring", "a strap")
	th.see(page, ".alert", "typed here before is not saved yet")
	th.accessible(page, "what was typed before")
	th.click(page, "button", "^Save$")
	th.see(page, ".alert", "^Saved")
	th.click(page, "main a", "Keys, pedals and remotes")
	value(`[aria-label="Key for: Slower"]`, "Y")
	th.click(page, "button", "^Discard it$")
	value(`[aria-label="Key for: Slower"]`, "Q")
	th.until(page, `!document.querySelector(".alert")`)

	th.click(page, ".shell a", "^Groups$")
	th.click(page, "main a", "^New group$")
	th.write(page, "#group-name", "Saturday")
	th.reload(page)
	value("#group-name", "Saturday")
	th.click(page, "button", "^Add the group$")
	th.until(page, `location.pathname === "/groups/1"`)
	th.click(page, "main a", "^New group$")
	value("#group-name", "")

	_, score := th.lead(`{"type": "talk", "seconds": 60}`)
	require.NoError(t, th.program.Post(fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID), `{"key": "end", "do": "end"}`, &contract.Adjusted{}))
	for _, typed := range [][2]string{{"/plan/1", "#add"}, {fmt.Sprintf("/taught/%d", score.ClassID), `[aria-label="Note or correction"]`}} {
		path, field := typed[0], typed[1]
		th.visit(page, th.at+path)
		th.write(page, field, "talk about")
		today()
		th.back(page)
		value(field, "talk about")
	}

	th.visit(page, th.at+"/practices/own-mine/edit")
	th.fill(page, "#seat", "on a bench")
	today()
	th.back(page)
	value("#seat", "on a bench")
	th.click(page, "main a", "^Discard changes$")
	th.see(page, "h2", "^Mine$")
	th.back(page)
	th.until(page, `document.querySelector("#seat") && document.querySelector("#seat").value !== "on a bench"`)
}
