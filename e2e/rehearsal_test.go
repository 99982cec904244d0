package e2e

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// aim checks that an aim was reached if the moment says that it took no longer, in whole seconds, and not reached where
// the moment tells no time. How long it took is not asserted: the class goes on while a busy machine presses keys.
func (th *theater) aim(page *screen, says string, within int, moment, took string) (reached bool) {
	th.Helper()
	match := regexp.MustCompile(took).FindStringSubmatch(moment)
	if match == nil {
		th.see(page, ".aims li", says+".*not reached")
		return false
	}
	seconds, err := strconv.Atoi(match[1])
	require.NoError(th, err)
	told := th.read(page, ".aims li", says)
	reached = !strings.HasSuffix(told, "not reached")
	if seconds != within { // else what was rounded decides
		assert.Equal(th, seconds < within, reached, "%s, %s", told, moment)
	}
	return reached
}

// A teacher takes the first task from the screen alone: looks at the room, says what is seen by the keys of a class,
// takes what is proposed, looks back, and finds it in the list.
func TestATaskIsRehearsed(t *testing.T) {
	th := openAt(t, 1) // the pace of the rehearsal is enough
	defer th.recovered()
	page := th.page("/rehearse")
	th.see(page, "h3", "See the gasp")
	th.see(page, "p", "Nothing yet. Begin with the first task")
	th.accessible(page, "rehearsals")
	th.click(page, ".tasks li:first-child button", "Level 1")
	th.see(page, "li", "See the gasp on the inhale within 40 s")
	th.accessible(page, "before a rehearsal")
	th.press(page, input.Enter) // Begin has the focus
	th.see(page, `[data-testid="word"]`, "inhale")
	th.accessible(page, "leading a rehearsal")
	th.click(page, `[aria-label="Pace"] button`, "×4")
	th.see(page, ".people li", "mouth open, shoulders lifted")
	th.press(page, input.Digit1)
	th.see(page, ".pad .signals button", "a gasp on the inhale")
	th.press(page, input.KeyQ)
	th.see(page, ".pad .proposal", "empty hold|exhale|Empty")
	th.press(page, input.KeyF)
	th.see(page, ".answer", "4:0:5")
	th.note(page, `[data-testid="word"]`)
	th.noted(page, "exhale")

	// It goes on where it was when the page is loaded again.
	th.reload(page)
	th.click(page, "button", `^Go on from [0-9]+:[0-9]+$`)
	th.see(page, `[data-testid="word"]`, "inhale|exhale|empty")
	th.click(page, ".trying button", "End and look back")
	th.see(page, "h2", "To practise next")
	moment := th.read(
		page,
		".moments tr",
		`a gasp on the inhale\s+[0-9]+\s+said [0-9]+ s later, (counts [0-9]+ s later|and its cause stayed)`,
	)
	reached := th.aim(page, "See the gasp on the inhale within 40 s", 40, moment, `said ([0-9]+) s later`) &&
		th.aim(page, "Act on its cause within 60 s", 60, moment, `counts ([0-9]+) s later`)
	th.accessible(page, "the review of a rehearsal")
	th.click(page, "details summary", "")
	th.see(page, "details td", `^[0-9]+ of [0-9]+$`)

	th.click(page, "a", "All rehearsals")
	th.see(
		page,
		".tasks li:first-child button",
		map[bool]string{true: "Level 1, reached", false: "Level 1, tried"}[reached],
	)
	th.see(
		page,
		".rehearsed li",
		`See the gasp, level 1\s*today.*`+map[bool]string{true: "2", false: "[01]"}[reached]+" of 2 aims",
	)
	var found contract.Found
	require.NoError(t, th.program.Get("/api/classes", &found))
	assert.Empty(t, found.Classes, "nothing of it is in the record of classes")

	th.click(page, ".rehearsed a", "See the gasp")
	th.click(page, "button", "^Delete$")
	th.click(page, ".modal button", "^Delete$")
	th.see(page, "p", "Nothing yet")
	th.click(page, "[role=status] + button", "Restore")
	th.see(page, ".rehearsed li", "See the gasp")
}

// Somebody comes late; natural breath for all meets it, and the class goes on by the key of a class. What is missed is
// told.
func TestARehearsalTellsWhatWasMissed(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var room contract.Rehearsing
	require.NoError(t, th.program.Post("/api/rehearsals", `{"scenario": "latecomer", "level": 1}`, &room))
	page := th.page(fmt.Sprintf("/rehearse/%d/lead", room.ID))
	th.click(page, "button", "^Begin$")
	th.click(page, `[aria-label="Pace"] button`, "×4")
	th.see(page, ".people li", "an empty place")
	th.see(page, ".people li", "comes in")
	th.press(page, input.Space)
	th.see(page, ".answer", "[Nn]atural breath")
	th.press(page, input.KeyF)
	th.see(page, `[data-testid="word"]`, "inhale|exhale")
	th.click(page, ".trying button", "End and look back")
	moment := th.read(page, ".moments tr", `an interruption\s+[0-9]+\s+natural breath [0-9]+ s later`)
	th.aim(page, "Natural breath for everyone within 25 s", 25, moment, `natural breath ([0-9]+) s later`)

	// The count is covered, and a look at it is counted. A passage of a plan can be led with any room.
	require.NoError(t, th.program.Post("/api/rehearsals", `{"scenario": "by-ear", "level": 3}`, &room))
	page = th.page(fmt.Sprintf("/rehearse/%d/lead", room.ID))
	th.click(page, "button", "^Begin$")
	th.see(page, ".coveredcount", "The count is in your ear")
	require.Zero(t, th.count(page, `[data-testid="word"]`))
	th.click(page, "button", "Look at the count")
	th.see(page, `[data-testid="word"]`, "inhale")
	th.click(page, "button", "Cover the count")
	th.click(page, `[aria-label="Pace"] button`, "×4")
	th.see(page, ".people li", "shoulders lifted")
	th.see(page, ".topbar", "4:1[0-9]|3:[0-9]+|2:[0-9]+")
	th.click(page, ".trying button", "End and look back")
	th.see(page, ".moments .missed", "missed")
	th.see(page, ".numbers", `looks at the count\s*1`)

	p := th.plan(5)
	page = th.page(fmt.Sprintf("/plan/%d", p.ID))
	th.click(page, ".strain summary", "")
	th.click(page, "a", "Rehearse it")
	th.see(page, "h2", "A plan of yours")
	assert.Equal(t, fmt.Sprint(p.ID), th.value(page, "#rehearse-plan"))
	th.pick(page, "#rehearse-room", "Teenagers")
	th.click(page, "button", "^Rehearse it$")
	th.see(page, ".lead", "people: teenagers")
}
