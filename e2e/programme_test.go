package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// A programme takes whole plans as steps, with rests between; it is given to another group, goes out as a file and
// comes
// back from it, and is a page for people at home that knows its day.
func TestAProgrammeOfWholeClasses(t *testing.T) {
	th := open(t)
	defer th.recovered()
	groups := make([]contract.Group, 2)
	for i, name := range []string{"Monday", "Friday"} {
		require.NoError(t, th.program.Post("/api/groups", fmt.Sprintf(`{"name": %q, "weekday": -1}`, name), &groups[i]))
	}
	plan := func(title, more string) (p contract.Plan) {
		t.Helper()
		require.NoError(t, th.program.Post("/api/plans", fmt.Sprintf(`{"group_id": %d, "document": {"format": "vast-lantern-plan",
			"version": 1, "title": %q, "tempo": 120, %s "passages": [{"type": "talk", "seconds": 5}, {"type": "practice",
			"practice": "ujjayi", "counts": "1:1", "rounds": 2, "lead_in": 0}]}}`, groups[0].ID, title, more), &p))
		return p
	}
	plan("Lesson of the sea", "")
	first := plan("Begins", fmt.Sprintf(`"starts_at": %q,`, time.Now().Add(time.Hour).Format(time.RFC3339)))
	var begun contract.ProgrammeSheet
	require.NoError(t, th.program.Post(fmt.Sprintf("/api/plans/%d/programme", first.ID), `{"name": "Ten lessons", "passage": 2,
		"steps": [{"says": "x2", "classes": 1}, {"says": "x3", "classes": 1}], "by": "date", "days": 1, "missed": "wait",
		"eased": "wait"}`, &begun))

	page := th.page(fmt.Sprintf("/programmes/%d", begun.Card.ID))
	th.click(page, "button", "Change the steps")
	th.click(page, `[aria-label="Whole class for step 2"]`, "")
	th.write(page, `[aria-label="Find a plan by its title"]`, "sea")
	th.accessible(page, "choosing a plan")
	th.click(page, ".list-group-item", "Lesson of the sea")
	th.until(page, `document.querySelector('[aria-label="Name of step 2, a whole class"]')?.value === "Lesson of the sea"`)
	th.fill(page, `[aria-label="Days of rest after step 1"]`, "2")
	th.fill(page, "#programme-gap", "14")
	th.see(page, "label", "Name")
	th.accessible(page, "the steps of a programme")
	th.click(page, "button", "Save: what comes follows")
	th.see(page, ".classes", "Lesson of the sea")

	th.click(page, "button", "Give it to another group")
	th.pick(page, "#start-group", "Friday")
	th.accessible(page, "giving a programme")
	th.click(page, ".modal button", "^Begin$")
	th.see(page, ".lead", "Friday · step 1 of 2")
	var sheet contract.ProgrammeSheet
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/programmes/%d", begun.Card.ID), &sheet))
	assert.Equal(t, []int{1, 1, 2}, []int{sheet.Card.Step, sheet.Programme.Repeat, len(sheet.Programme.Steps)})

	folder := t.TempDir()
	file := filepath.Join(folder, "lessons.programme.json")
	require.NoError(t, os.WriteFile(file, th.fetch(fmt.Sprintf("/api/programmes/%d/file", begun.Card.ID)), 0o600))
	wrong := filepath.Join(folder, "wrong.json")
	require.NoError(t, os.WriteFile(wrong, []byte("{"), 0o600))
	group := th.page(fmt.Sprintf("/groups/%d", groups[0].ID))
	th.element(group, "#programme-file").MustSetFiles(wrong)
	th.see(group, ".alert", "wrong.json is no file of a programme")
	th.element(group, "#programme-file").MustSetFiles(file)
	th.see(group, ".modal-title", "Ten lessons")
	th.click(group, ".modal button", "^Begin$")
	th.see(group, "h1", "Ten lessons")
	th.see(group, ".lead", "step 1 of 2")

	th.click(page, "button", "Page for people at home")
	th.see(page, ".modal", "knows its day")
	th.accessible(page, "a page for people at home")
	path := filepath.Join(folder, "home.html")
	html := th.fetch(fmt.Sprintf("/api/programmes/%d/page?begins=2026-11-30", begun.Card.ID))
	require.NoError(t, os.WriteFile(path, html, 0o600))
	resting := th.atHome(path, "2026-12-01T10:30:00Z", "Europe/London", true)
	th.see(resting, ".days h2", "^Day 2 of 4: a day of rest$")
	home := th.atHome(path, "2026-12-03T10:30:00Z", "Europe/London", true)
	th.see(home, ".days h2", "^Day 4 of 4$")
	th.see(home, "header", `Ten lessons\s+Lesson of the sea`)
	th.accessible(home, "a programme at home")
	th.note(home, ".aside")
	th.click(home, "button", "^Start$")
	th.noted(home, "round 1 of 2") // no talk comes before
	th.see(home, "h1", "It is done")
	th.click(home, "button", "^Back$")
	th.see(home, `.strip [aria-label="Day 4, Thursday 3 December: done"]`, "✓")
}
