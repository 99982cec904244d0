package e2e

import (
	"fmt"
	"io"
	"regexp"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// A class is found by what was done and by what was noted; what is added to its record is beside it.
func TestWhatWasTaughtIsFoundAgain(t *testing.T) {
	th := open(t)
	defer th.recovered()
	lead := func(title, practice string, presses ...string) int64 {
		t.Helper()
		var plan contract.Plan
		require.NoError(
			t,
			th.program.Post(
				"/api/plans",
				fmt.Sprintf(
					`{"document": {"format": "vast-lantern-plan", "version": 1, "title": %q, "passages": [{"type": "practice", `+
						`"practice": %q, "rounds": 40}]}}`,
					title,
					practice,
				),
				&plan,
			),
		)
		var score contract.Score
		require.NoError(t, th.program.Lead(plan.ID, &score))
		for i, press := range append(presses, `"do": "end"`) {
			var done contract.Adjusted
			require.NoError(
				t,
				th.program.Post(
					fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
					fmt.Sprintf(`{"key": "%d", %s}`, i, press),
					&done,
				),
			)
		}
		return score.ClassID
	}
	lead("Monday", "nadi-shodhana", `"do": "note", "text": "hands tire"`)
	second := lead("Tuesday", "segmented-breath", `"do": "drop-holds"`)

	page := th.page("/taught")
	th.see(page, "td", "Monday")
	th.see(page, "td", "Tuesday.*eased")
	th.write(page, `[type="search"]`, "tire")
	th.until(page, `!document.body.innerText.includes("Tuesday") && document.body.innerText.includes("Monday")`)
	th.reload(page)
	th.until(
		page,
		`document.querySelector('[type="search"]')?.value === "tire" && !document.body.innerText.includes("Tuesday")`,
	)
	th.click(page, "button", "all classes")
	th.see(page, "td", "Tuesday")
	th.click(page, "#eased", "")
	th.until(page, `!document.body.innerText.includes("Monday")`)
	th.pick(page, `[aria-label="Practice"]`, "Alternate nostril breath")
	th.see(page, "p", "No classes match")

	th.visit(page, fmt.Sprintf("%s/taught/%d", th.program.URL, second))
	th.click(page, "button", "^settled$")
	th.see(page, `[aria-pressed="true"]`, "settled")
	th.write(page, `[aria-label="Attendance"]`, "many")
	th.press(page, input.Enter)
	th.see(page, ".alert", "a number from 0")
	assert.Equal(t, "many", th.value(page, `[aria-label="Attendance"]`))
	th.fill(page, `[aria-label="Attendance"]`, "11")
	th.press(page, input.Enter)
	th.see(page, ".remarklist", "people: 11")
	th.write(page, `[aria-label="Note or correction"]`, "it was the blue room")
	th.click(page, "button", "Correction")
	th.see(page, ".remarklist", "correction: it was the blue room")
	th.reload(page)
	th.see(page, ".remarklist", "correction: it was the blue room")
	th.accessible(page, "record with remarks")

	th.visit(page, fmt.Sprintf("%s/taught/year/%d", th.program.URL, time.Now().Year()))
	th.see(page, ".paper .total", "2")
	th.write(page, `[aria-label^="Your name"]`, "Ines Halvorsen")
	th.see(page, ".paper header", "Ines Halvorsen · 2 classes")
	th.accessible(page, "summary of a year")
	pdf, err := page.tab.PDF(&proto.PagePrintToPDF{PreferCSSPageSize: true})
	require.NoError(t, err)
	printed, err := io.ReadAll(pdf)
	require.NoError(t, err)
	assert.Len(t, regexp.MustCompile(`/Type\s*/Page\b`).FindAll(printed, -1), 1)
	th.click(page, "a", "‹")
	th.see(page, ".paper", "Nothing was taught in this year")

	th.visit(page, fmt.Sprintf("%s/taught/%d", th.program.URL, second))
	th.tap(page, `[aria-label="Delete this class"]`, "")
	th.open(page, "Delete Tuesday")
	th.see(page, ".modal", `Also deletes \d+ adjustments and \d+ remarks`)
	th.accessible(page, "asking before a deletion")
	th.click(page, ".modal button", "^Delete$")
	th.closed(page)
	th.see(page, "[role=alert]", "Tuesday of .* was deleted")
	th.until(page, `document.querySelectorAll("tbody tr").length === 1`)
	th.reload(page)
	th.click(page, "summary", "Recently deleted: 1")
	th.click(page, "details button", "Restore")
	th.until(page, `document.querySelectorAll("tbody tr").length === 2 && !document.querySelector("details")`)
}
