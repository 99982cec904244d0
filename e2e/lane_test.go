package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/sheet"
	"vastlantern/studio/contract"
)

// Three screens beside each other, the lead screen, a phone on the main lane and one on the gentle lane, each show what
// the sheets of the two lanes say at the same moment, through what is adjusted.
func TestTwoLanesInTheSameTime(t *testing.T) {
	th := openAt(t, 8)
	defer th.recovered()
	require.NoError(t, th.program.ChangeSettings(func(s *contract.Settings) { s.AskAfter = true }))
	var plan contract.Plan
	require.NoError(
		t,
		th.program.Post(
			"/api/plans/import",
			`{"text": "# Mixed\ntempo 60\nalternate nostril 4:4:8 x160 no lead-in\n"}`,
			&plan,
		),
	)
	var score contract.Score
	require.NoError(t, th.program.Lead(plan.ID, &score))
	lead := th.page(fmt.Sprintf("/lead/%d", score.ClassID))
	th.see(lead, `[data-testid="word"]`, ".")
	var code contract.RoomCode
	require.NoError(t, th.program.Get("/api/room", &code))
	main, gentle := th.phone("/room/"+code.Code), th.phone("/room/"+code.Code)
	th.see(main, `[data-testid="word"]`, ".")
	th.see(gentle, `[data-testid="word"]`, ".")
	assert.Zero(t, th.eval(lead, `() => document.querySelectorAll(".laneline").length`).Int())

	p := storedPlan(t, th, plan.ID)
	var script []string
	tried, revision := 0, 0
	adjust := func(press string) {
		t.Helper()
		var done contract.Adjusted
		require.NoError(
			t,
			th.program.Post(
				fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
				fmt.Sprintf(`{"key": "%d", %s}`, len(script), press),
				&done,
			),
		)
		require.Empty(t, done.Answer.Refused, press)
		script, revision = append(script, fmt.Sprintf(`{"at_ms": %d, %s}`, done.Answer.AtMS, press)), done.Score.Revision
	}
	agree := func() {
		t.Helper()
		adjustments, err := sheet.ReadScript(strings.NewReader(strings.Join(script, "\n")))
		require.NoError(t, err)
		tl, _ := pace.Replay(p, adjustments)
		th.until(lead, `document.querySelectorAll(".laneline").length === 1`)
		th.showsTheTrueCount(tl, score.StartedMS, revision, lead, main)
		lane := tl.Lane(p)
		for i := range lane.Rows {
			if lane.Rows[i].Phase == breath.Free { // what is left over of a round has no count
				lane.Rows[i].Stage = pace.Pause
			}
		}
		th.showsTheTrueCount(lane, score.StartedMS, revision, gentle)
	}
	// What a screen plays stays the same piece of the page as lanes come and go: with it the sound would go.
	th.eval(main, `() => { document.querySelector(".sounding").dataset.kept = "yes" }`)
	adjust(`"do": "beside", "to": "4:4"`)
	th.click(gentle, ".lanes button", "shorter breath 4:4")
	th.see(main, ".lanes button", "4:4:8")
	assert.Equal(t, "yes", th.eval(main, `() => document.querySelector(".sounding").dataset.kept ?? "no"`).Str())
	agree()
	// Through everything that a room can need; a hold is let go while there is one.
	adjust(`"do": "tempo", "to": 50`)
	agree()
	for held := false; !held; {
		var done contract.Adjusted
		require.NoError(
			t,
			th.program.Post(
				fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
				fmt.Sprintf(`{"key": "release %d", "do": "release"}`, tried),
				&done,
			),
		)
		tried++
		revision = done.Score.Revision
		if held = done.Answer.Refused == nil; held {
			script = append(script, fmt.Sprintf(`{"at_ms": %d, "do": "release"}`, done.Answer.AtMS))
		}
	}
	agree()
	for _, press := range []string{`"do": "again"`, `"do": "rounds", "by": -1`, `"do": "drop-holds"`} {
		adjust(press)
		agree()
	}
	adjust(`"do": "pause"`)
	for _, page := range []*screen{lead, main, gentle} {
		th.see(page, `[data-testid="word"]`, "natural breath")
	}
	adjust(`"do": "resume"`)
	agree()
	th.note(lead, ".answer") // an answer is there for six seconds
	th.press(lead, input.Digit6)
	th.noted(lead, "no gentler lane from here on")
	th.until(lead, `document.querySelectorAll(".laneline").length === 0`)
	th.until(gentle, `document.querySelectorAll(".lanes").length === 0`)
	th.press(lead, input.Digit6)
	th.until(lead, `document.querySelectorAll(".laneline").length === 1`)

	// A large screen shows both, each under its name.
	wall := th.page("/room/" + code.Code)
	th.until(wall, `document.querySelectorAll("main.both .stagebox + .stagebox").length === 1`)

	// It ends after the round; the record tells both lanes, and what those on the phones say, as they say it.
	adjust(`"do": "last-round"`)
	th.see(lead, ".over h2", "The class has ended")
	for phone, how := range map[*screen]string{main: "^right$", gentle: "too much"} {
		th.click(phone, ".asking .ways button", how)
		th.see(phone, "[role=status]", "your answer was received")
	}
	th.see(wall, ".asking h2", "How was it for you")
	record := th.page(fmt.Sprintf("/taught/%d", score.ClassID))
	th.see(record, ".told", "2 of at most 3 answered; of 2 who told it, 1 took the gentler lane; more can come until")
	th.see(record, ".told", "for 1 of the 2 who answered it was too much")
	th.see(record, "table.record", `gentler lane from .*: a breath of 4:4, \d+ breaths? at`)
	th.click(wall, ".asking .ways button", "^easy$")
	th.see(record, ".told", "3 of at most 3 answered")
	th.reload(gentle)
	th.see(gentle, ".quietly h1", ".")
	assert.Zero(t, th.eval(gentle, `() => document.querySelectorAll(".asking").length`).Int(), "once from each phone")
}
