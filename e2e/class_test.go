// Package e2e drives the built program in headless Chromium, as a teacher would.
package e2e

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
	"vastlantern/studio/contract"
)

func TestAClassFromPlanToRecordByKeyboard(t *testing.T) {
	th := open(t)
	defer th.recovered()
	stored := th.plan(3)
	page := th.page("/")
	th.see(page, "h1", "Short lesson")
	th.focus(page, "a", "Change the plan")
	th.press(page, input.Enter)

	const short = `[aria-label^="Counts, length and tempo"]`
	th.fill(page, short, "2:2:4 y3")
	th.see(page, ".wrong", "y3")
	assert.Equal(t, "2:2:4 y3", th.value(page, short), "what was typed is not lost")
	th.fill(page, short, "2:2:4 x30 @60")
	th.see(page, ".numbers", "30 rounds of 16 s")
	th.see(page, ".numbers", "longest hold 2 s")
	th.see(page, "span", "^Saved$")
	th.focus(page, "button", "Lead$")
	th.press(page, input.Enter)
	begin := th.see(page, ".modal button", "I have read this: begin")
	require.NoError(t, begin.WaitVisible())
	th.press(page, input.Enter)

	th.see(page, `[data-testid="word"]`, `inhale\s*left`)
	th.press(page, input.KeyQ)
	th.see(page, ".answer", "slower: 58 (from the next count|after this hold)")
	th.press(page, input.KeyS)
	th.see(page, ".answer", "31 rounds instead of 30")
	th.press(page, input.KeyE)
	th.see(page, ".answer", "not now, no hold in progress|hold released")
	th.see(page, ".aside", `round ([2-9]|\d\d) of 31`)
	th.note(page, ".aside") // the last round and the closing are over soon
	th.press(page, input.KeyD)
	last := regexp.MustCompile(`\d+`).FindString(th.read(page, ".answer", `last round: \d+ in all`))
	th.noted(
		page,
		"closing",
	) // a press at the end of a round may be answered after it: the record reports which was the last
	th.see(page, `[data-testid="word"]`, "What changed")
	th.end(page)
	th.press(page, input.Enter)

	th.see(page, ".twobars", "planned")
	var record contract.Record
	require.NoError(t, th.program.Get("/api/classes/1/record", &record))
	core := coreSays(t, th, stored.ID, record)
	assert.Equal(
		t,
		fmt.Sprintf("%d of %d", core.Rounds, core.PlannedRounds),
		oneLine(th.read(page, `[data-testid="rounds"]`, "of")),
	)
	assert.Equal(t, last, fmt.Sprint(core.Rounds))
	row := oneLine(th.read(page, "tbody tr", ""))
	assert.Contains(t, row, fmt.Sprintf("%d / %d", core.LeftInhales, core.RightInhales))
	assert.Contains(t, row, "60 → 58")
	assert.Equal(t, len(record.Marks), th.count(page, ".marks li"))
}

func oneLine(text string) string { return strings.Join(strings.Fields(text), " ") }

// coreSays returns the record of the first passage that the core alone makes of the stored plan and the adjustments.
func coreSays(t *testing.T, th *theater, id int64, record contract.Record) taught.Passage {
	p := storedPlan(t, th, id)
	var script []pace.Adjustment
	for _, mark := range record.Marks {
		a := pace.Adjustment{At: mark.Answer.AtMS, Do: pace.Verb(mark.Answer.Do)}
		switch a.Do {
		case pace.ToTempo:
			a.To = breath.Int(int64(mark.Answer.After.Tempo))
		case pace.Rounds:
			a.Relative, a.By = true, mark.Answer.After.Rounds-mark.Answer.Before.Rounds
		}
		script = append(script, a)
	}
	return taught.Of(p, script, record.TaughtMS+1).Passages[0]
}

func storedPlan(t *testing.T, th *theater, id int64) *plan.Plan {
	var stored contract.Plan
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/plans/%d", id), &stored))
	_, p, err := sheet.ReadPlan(strings.NewReader(string(stored.Document)))
	require.NoError(t, err)
	return p
}

// shownNow is what a screen shows, and by which reading of its own clock, in the same render: see Stage.tsx.
type shownNow struct {
	Word     string
	Count    string
	At       float64 // ms from the start of the class
	Revision int     // of the score that it plays: how many adjustments it knows
}

// shownOn is the page's side of shownNow; null while it shows nothing of a class.
const shownOn = `(() => {
	const stage = document.querySelector(".stage");
	const text = (id) => document.querySelector("[data-testid=" + id + "]")?.innerText.replace(/\s+/g, " ").trim() ?? "";
	return stage && { word: text("word"), count: text("count"), at: Number(stage.dataset.at), revision: Number(stage.dataset.revision) };
})()`

// showsTheTrueCount compares what each screen shows with the timeline, at what its own clock showed in the same render.
// It takes the first reading of a counted phase that is drawn from now on, by a screen that has the adjustments of the
// timeline. How late a screen draws depends on the machine and is measured by make measure.
func (th *theater) showsTheTrueCount(tl pace.Timeline, started float64, revision int, pages ...*screen) {
	th.Helper()
	for _, page := range pages {
		from := th.keepsTheTime(page) - started
		for compared := false; !compared; {
			th.until(page, fmt.Sprintf("%s?.revision >= %d && %s.at >= %f", shownOn, revision, shownOn, from))
			var got shownNow
			require.NoError(th, th.eval(page, "() => "+shownOn).Unmarshal(&got))
			require.Equal(th, revision, got.Revision)
			i := slices.IndexFunc(
				tl.Rows,
				func(row pace.Row) bool { return got.At >= float64(row.At) && got.At < float64(row.End()) },
			)
			require.GreaterOrEqual(th, i, 0, "at %.0f ms nothing is in progress", got.At)
			from = got.At + 1 // of what is not counted, and of the pauses, the next
			if row := tl.Rows[i]; row.Stage == pace.Round {
				assert.Equal(th, fmt.Sprintf("%s %d", inShort(row), row.Count), got.Word+" "+got.Count, "at %.0f ms", got.At)
				compared = true
			}
		}
	}
}

// keepsTheTime compares the page's clock with the program's before and after, and returns what it shows. The clock
// itself says by how much it may be off: half of the delay with which it was read (RFC 5905).
func (th *theater) keepsTheTime(page *screen) float64 {
	th.Helper()
	var read struct{ Before, Now, After, Error float64 }
	require.NoError(th, th.eval(page, `async () => {
		const clock = async () => (await fetch("/api/clock")).json();
		const before = (await clock()).sent_ms;
		const now = lanternClock.now(), error = lanternClock.error();
		return { before, now, after: (await clock()).received_ms, error };
	}`).Unmarshal(&read))
	const rounding = 2 // ms
	assert.GreaterOrEqual(th, read.Now, read.Before-read.Error-rounding, "the clock of the page is behind")
	assert.LessOrEqual(th, read.Now, read.After+read.Error+rounding, "the clock of the page is ahead")
	return read.Now
}

func inShort(row pace.Row) string {
	return strings.TrimSpace(fmt.Sprintf("%s %s", row.Phase, row.Through))
}

func TestReloadSecondTabAndKilledServerContinueAtTheRightCount(t *testing.T) {
	onBothAddresses(t, reloadSecondTabAndKilledServerContinueAtTheRightCount)
}

func reloadSecondTabAndKilledServerContinueAtTheRightCount(t *testing.T, th *theater) {
	stored := th.plan(60)
	var score contract.Score
	require.NoError(t, th.program.Post("/api/classes", fmt.Sprintf(`{"plan_id": %d}`, stored.ID), &score))
	tl := pace.Sheet(storedPlan(t, th, stored.ID))
	path := fmt.Sprintf("/lead/%d", score.ClassID)
	first := th.page(path)
	th.see(first, `[data-testid="word"]`, "inhale")
	th.showsTheTrueCount(tl, score.StartedMS, 0, first)
	th.reload(first)
	th.see(first, `[data-testid="word"]`, "inhale|exhale")
	second := th.page(path)
	th.see(second, `[data-testid="word"]`, "inhale|exhale")
	th.showsTheTrueCount(tl, score.StartedMS, 0, first, second)

	th.program.Kill()
	th.see(first, ".offline", "Leading from this device|the count goes on")
	th.restart()
	th.until(first, `document.querySelector(".topbar") && !document.querySelector(".offline")`)
	th.showsTheTrueCount(tl, score.StartedMS, 0, first)
	var after contract.Score
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/classes/%d/score", score.ClassID), &after))
	assert.Equal(t, score.StartedMS, after.StartedMS)
	third := th.page(path)
	th.see(third, `[data-testid="word"]`, "inhale|exhale")
	th.showsTheTrueCount(tl, score.StartedMS, 0, third)
}
