package e2e

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

// readAgain is what a browser does when somebody comes back to the page.
func (th *theater) readAgain(page *screen) {
	th.Helper()
	th.eval(page, `() => document.dispatchEvent(new Event("visibilitychange", { bubbles: true }))`)
}

// What is typed under School stays while the page is read again. Where another screen saved meanwhile, both versions
// are shown, and what only one of the two changed is kept.
func TestWhatIsTypedUnderSchoolStays(t *testing.T) {
	th := open(t)
	defer th.recovered()
	save := func(change func(*contract.Settings)) {
		t.Helper()
		require.NoError(t, th.program.ChangeSettings(change))
	}
	page := th.page("/school")
	bring := func(is string) { th.until(page, `document.querySelector("#bring").value === "`+is+`"`) }

	th.see(page, "h1", "Your school")
	save(func(s *contract.Settings) { s.Bring = "a mat" }) // nothing was typed here: what another screen saved is shown
	th.readAgain(page)
	bring("a mat")
	th.fill(page, "#bring", "two blankets")
	save(func(s *contract.Settings) { s.Bring, s.AskAfter = "a chair", true })
	th.readAgain(page)
	th.see(page, ".compare", "Another screen changed these answers")
	th.see(page, ".compare tbody", "two blankets")
	th.see(page, ".compare tbody", "a chair")
	th.until(page, `document.querySelector("#ask-after").checked`) // nobody typed anything else there
	bring("two blankets")
	th.accessible(page, "two versions")
	th.click(page, "button", "^Save$")
	th.see(page, ".alert", "^Saved")
	assert.Contains(t, string(th.fetch("/api/settings")), "two blankets")

	th.fill(page, "#bring", "a cushion")
	save(func(s *contract.Settings) { s.Bring = "a strap" })
	th.readAgain(page)
	th.click(page, ".compare label", "^a strap$")
	bring("a strap")
	th.click(page, ".compare label", "^a cushion$")
	bring("a cushion")
	th.click(page, "button", "^Discard everything I typed$")
	bring("a strap")
	th.until(page, `!document.querySelector(".alert")`)
}

// Two screens have the same thing open. The second one that saves is shown what the first one saved beside what was
// typed on it, keeps what only one of them changed, and overwrites nothing before somebody has chosen.
func TestTwoScreensChangeTheSameThing(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var group contract.Group
	require.NoError(t, th.program.Post("/api/groups", `{"name": "Monday", "level": "beginners", "weekday": -1}`, &group))
	require.NoError(
		t,
		th.program.Post("/api/practices/copy", `{"id": "counted-breath", "name": "Mine"}`, &contract.PracticeFile{}),
	)
	tick := func(selector string) func(*screen) {
		return func(page *screen) { th.click(page, selector, "") }
	}
	for kind, on := range map[string]struct {
		path, field   string // where it is, and what both type into
		first, second string
		also          func(*screen) // what only the first changes besides
		kept          string        // that it is there on the second, too
		save          string
	}{
		"a group": {
			fmt.Sprintf("/groups/%d", group.ID), "#group-notes", "bring water", "bring a mat",
			tick("#has-asthma"), `document.querySelector("#has-asthma").checked`, "^Save$",
		},
		"settings": {"/school", "#bring", "a chair", "two blankets", tick("#ask-after"),
			`document.querySelector("#ask-after").checked`, "^Save$"},
		"keys": {
			"/keys", `[aria-label="Key for: Slower"]`, "y", "z", tick("#no-letters"),
			`document.querySelector("#no-letters").checked`, "^Save$",
		},
		"an own practice": {
			"/practices/own-mine/edit", "#hands", "on the belly", "in the lap",
			func(page *screen) { th.fill(page, "#seat", "on a bench") },
			`document.querySelector("#seat").value === "on a bench"`, "^Save practice$",
		},
	} {
		t.Run(kind, func(t *testing.T) {
			one, two := th.page(on.path), th.page(on.path)
			for _, page := range []*screen{one, two} {
				th.see(page, on.field, "")
			}
			th.fill(one, on.field, on.first)
			th.fill(two, on.field, on.second)
			on.also(one)
			saved := func(page *screen) {
				th.click(page, "button", on.save)
				th.until(page, `document.querySelector(".alert-success") || location.pathname === "/practices/own-mine"`)
			}
			saved(one)
			th.click(two, "button", on.save)
			th.see(two, ".compare", "Not saved yet. Another screen changed")
			th.see(two, ".compare td:nth-child(2)", "^"+on.second)
			th.see(two, ".compare td:nth-child(3)", "^"+on.first)
			th.accessible(two, "two versions of "+kind)
			th.until(two, on.kept)
			th.click(two, ".compare td:nth-child(3) label", "^"+on.first)
			th.until(two, fmt.Sprintf(`document.querySelector(%q).value.toLowerCase() === %q`, on.field, on.first))
			th.click(two, ".compare td:nth-child(2) label", "^"+on.second)
			saved(two)
			th.visit(one, th.program.URL+on.path)
			th.until(one, fmt.Sprintf(`document.querySelector(%q)?.value.toLowerCase() === %q`, on.field, on.second))
			th.until(one, on.kept)
		})
	}
}

// On a small phone that comes by plain http two versions are compared, the program is killed, and a save says that it
// is away. Once it is back the same press saves.
func TestTwoVersionsOutliveTheProgram(t *testing.T) {
	th := openWith(t, clockRate, func(th *theater) {
		require.NoError(t, stage.SetPasscode(th.data, passcode))
		th.start("", "--lan", "--no-name")
		require.NoError(t, th.program.SignIn(passcode, "laptop"))
		th.at = th.program.Named()
	})
	defer th.recovered()
	var group contract.Group
	require.NoError(t, th.program.Post("/api/groups", `{"name": "Monday", "level": "beginners", "weekday": -1}`, &group))
	phone := th.opened(fmt.Sprintf("%s/groups/%d", th.at, group.ID), 360, 640, th.program.Cookies...)
	th.fill(phone, "#group-notes", "bring a mat")
	group.Notes, group.Conditions = "bring water", map[string]int{"asthma": 1}
	sent, err := json.Marshal(group)
	require.NoError(t, err)
	require.NoError(t, th.program.Post("/api/groups", string(sent), &group))
	th.click(phone, "button", "^Save$")
	th.see(phone, ".compare", "Not saved yet")
	th.program.Kill()
	th.click(phone, "button", "^Save$")
	th.see(phone, ".savebar .alert-danger", "does not answer")
	th.see(phone, ".compare", "bring water")
	th.restart()
	th.click(phone, "button", "^Save$")
	th.see(phone, ".alert-success", "Saved")
	var groups contract.Groups
	require.NoError(t, th.program.Get("/api/groups", &groups))
	assert.Equal(t, "bring a mat", groups.Groups[0].Notes)
	assert.Equal(t, map[string]int{"asthma": 1}, groups.Groups[0].Conditions)
}

// A practice that another screen removed is added again from what is typed; one from a file replaces none that is there
// unseen.
func TestAPracticeIsRemovedOrThereAlready(t *testing.T) {
	th := open(t)
	defer th.recovered()
	require.NoError(
		t,
		th.program.Post("/api/practices/copy", `{"id": "counted-breath", "name": "Mine"}`, &contract.PracticeFile{}),
	)
	one, two := th.page("/practices/own-mine/edit"), th.page("/practices/own-mine/edit")
	th.fill(two, "#hands", "in the lap")
	th.click(one, "button", "^Remove$")
	th.click(one, "button", "^Remove it for good$")
	th.until(one, `location.pathname.startsWith("/practices") && !location.pathname.endsWith("/edit")`)
	th.click(two, "button", "^Save practice$")
	th.see(two, ".alert", "another screen removed the practice")
	th.click(two, "button", "^Save it as a new practice$")
	th.until(two, `location.pathname === "/practices/own-mine"`)

	th.visit(one, th.at+"/practices")
	th.click(one, "button", "^Your own$")
	th.click(one, ".dropdown-menu *", "From a file")
	var file contract.PracticeFile
	require.NoError(t, th.program.Get("/api/practices/own-mine/file", &file))
	th.fill(one, ".modal textarea", strings.Replace(file.Text, "name: Mine", "name: Other", 1))
	th.click(one, ".modal button", "^Save practice$")
	th.see(one, ".modal .alert", "you already have a practice .own-mine.")
	th.see(one, ".modal pre", "in the lap")
	th.click(one, ".modal button", "^Replace it$")
	th.until(one, `document.querySelector("#name")?.value === "Other"`)
}

// How many came is counted on two screens: the second is told what the first noted, and can put its own in the place of
// that.
func TestTwoScreensCountAttendance(t *testing.T) {
	th := open(t)
	defer th.recovered()
	_, score := th.lead(`{"type": "talk", "seconds": 60}`)
	require.NoError(
		t,
		th.program.Post(
			fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
			`{"key": "end", "do": "end"}`,
			&contract.Adjusted{},
		),
	)
	path := fmt.Sprintf("/taught/%d", score.ClassID)
	one, two := th.page(path), th.page(path)
	for _, page := range []*screen{one, two} {
		th.see(page, "h2", "How it was")
	}
	count := func(page *screen, people string) {
		th.fill(page, `[aria-label="Attendance"]`, people)
		th.click(page, "button", "^Save attendance$")
	}
	count(one, "11")
	th.see(one, ".remarklist", "people: 11")
	count(two, "12")
	th.see(two, ".alert", `another screen noted “11” in the meantime, and you “12”`)
	th.see(two, ".remarklist", "people: 11")
	assert.Equal(t, "12", th.value(two, `[aria-label="Attendance"]`))
	th.click(two, "button", "^Save attendance$")
	th.see(two, ".remarklist", "people: 12")
	th.see(two, ".remarklist", "people: 11")
}

// Two screens are asked how it was at home: the second one is told the first answer, and can keep or change it.
func TestTwoScreensAnswerHowItWasAtHome(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var group contract.Group
	require.NoError(t, th.program.Post("/api/groups", `{"name": "Monday", "weekday": -1}`, &group))
	var plan contract.Plan
	require.NoError(
		t,
		th.program.Post(
			"/api/plans/import",
			fmt.Sprintf(`{"text": "# Waves\ncounted breath 4:4 x9\n", "group_id": %d}`, group.ID),
			&plan,
		),
	)
	require.NoError(
		t,
		th.program.Post(
			fmt.Sprintf("/api/plans/%d/home", plan.ID),
			`{"passage": 1, "minutes": 5, "pieces": 1}`,
			&contract.HomeOffer{},
		),
	)
	th.daysLater()
	path := fmt.Sprintf("/plan/%d", plan.ID)
	one, two := th.page(path), th.page(path)
	for _, page := range []*screen{one, two} {
		th.see(page, ".askhome", "How was it")
	}
	th.click(one, ".askhome button", "^hardly$")
	th.see(one, ".askhome [role=status]", "at home: hardly")
	th.click(two, ".askhome button", "^every day$")
	th.see(two, ".askhome [role=alert]", "another screen answered hardly meanwhile. You answered every day")
	th.click(two, ".askhome button", "^Change it to “every day”$")
	th.see(two, ".askhome [role=status]", "at home: every day")
}

// An address names one group: none is shown in the place of another, and what is typed outlives that the group is
// deleted elsewhere.
func TestAGroupIsDeletedOnAnotherScreen(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var group contract.Group
	for _, name := range []string{"Monday", "Thursday"} {
		require.NoError(
			t,
			th.program.Post(
				"/api/groups",
				fmt.Sprintf(
					`{"name": %q, "level": "beginners", "weekday": -1, "weektime": "", "conditions": {}, "schools": {}, "notes": ""}`,
					name,
				),
				&group,
			),
		)
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
	th.click(other, "[role=status] + button", "Restore")
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

// Who goes elsewhere in the middle, or loads the page again, finds what was typed, is told that it is not saved, and
// can discard it.
func TestWhatIsTypedOutlivesThePage(t *testing.T) {
	th := open(t)
	defer th.recovered()
	require.NoError(
		t,
		th.program.Post("/api/practices/copy", `{"id": "counted-breath", "name": "Mine"}`, &contract.PracticeFile{}),
	)
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
	require.NoError(
		t,
		th.program.Post(
			fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
			`{"key": "end", "do": "end"}`,
			&contract.Adjusted{},
		),
	)
	for _, typed := range [][2]string{{"/plan/1", "#add"}, {fmt.Sprintf("/taught/%d", score.ClassID),
		`[aria-label="Note or correction"]`}} {
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
