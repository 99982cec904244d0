package e2e

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/studio/contract"
)

// watch notes from now on what a screen shows, by its own clock, and when frames are drawn, for showedTheRows.
func (th *theater) watch(page *screen) {
	th.Helper()
	th.eval(page, `() => {
		window.watched = { shown: [], frames: [] };
		const note = () => {
			const now = `+shownOn+`;
			if (now && now.at !== watched.shown.at(-1)?.at) watched.shown.push(now);
		};
		new MutationObserver(note).observe(document.body, { subtree: true, childList: true, characterData: true, attributes: true, attributeFilter: ["data-at"] });
		const frame = () => {
			note();
			watched.frames.push(lanternClock.now());
			requestAnimationFrame(frame);
		};
		frame();
	}`)
}

// showedTheRows holds what was watched against the counted rows. What was shown was due by the screen's own clock in
// the same render, and no count is left out while the page draws. On a busy machine a page may draw nothing for the
// length of a count.
func (th *theater) showedTheRows(page *screen, rows []pace.Row, started float64) {
	th.Helper()
	var watched struct {
		Shown  []shownNow
		Frames []float64 // on the page's clock
	}
	require.NoError(th, th.eval(page, "() => watched").Unmarshal(&watched))
	require.NotEmpty(th, watched.Shown)
	first, last := watched.Shown[0].At, watched.Shown[len(watched.Shown)-1].At
	const enough = 12 // frames in which a count is shown: a fifth of a second if nothing else is to be done
	counted := 0
	for _, row := range rows {
		if row.Stage != pace.Round || row.Count == 0 || row.Phase == breath.Free || float64(row.At) < first ||
			float64(row.End()) > last {
			continue
		}
		counted++
		from, to := float64(row.At), float64(row.End())
		seen := slices.ContainsFunc(watched.Shown, func(one shownNow) bool { return one.At >= from && one.At < to })
		if frames := within(watched.Frames, started+from, started+to); !seen && frames >= enough {
			th.Errorf("%s %d at %d ms was left out in spite of %d frames", inShort(row), row.Count, row.At, frames)
		}
		for _, one := range watched.Shown {
			if one.At >= from && one.At < to {
				assert.Equal(th, fmt.Sprintf("%s %d", inShort(row), row.Count), one.Word+" "+one.Count, "at %.0f ms", one.At)
			}
		}
	}
	assert.Greater(th, counted, 12)
}

// within returns how many of the moments lie from one to another.
func within(moments []float64, from, to float64) (n int) {
	for _, at := range moments {
		if at >= from && at < to {
			n++
		}
	}
	return n
}

// Every count of the sheet is shown while it is due.
func TestEveryCountIsShown(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page, score := th.lead(
		`{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2:2", "rounds": 60, "tempo": 24, "lead_in": 0}`,
	)
	th.watch(page)
	th.until(page, "watched.shown.length > 16")
	var record contract.Record
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/classes/%d/record", score.ClassID), &record))
	th.showedTheRows(page, pace.Sheet(storedPlan(t, th, record.PlanID)).Rows, score.StartedMS)
}

// A better reading of the application's clock is followed little by little, so that no count is skipped; a system clock
// that is set, or a sleep, is seen and asked about at once.
func TestAScreensClockIsSlewedAndNotStepped(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page := th.page("/")
	th.see(page, "a", "Practices")
	th.eval(page, `() => window.lanternClock.synchronize()`)

	var ahead float64 // ms by which the answers are wrong from here on
	asked := make(chan struct{}, 100)
	router := page.tab.HijackRequests()
	require.NoError(t, router.Add("*/api/clock", "", func(ctx *rod.Hijack) {
		var clock contract.Clock
		err := ctx.LoadResponse(http.DefaultClient, true)
		if errors.Is(err, context.Canceled) {
			return // the page has gone
		}
		if !assert.NoError(t, err) || !assert.NoError(t, json.Unmarshal([]byte(ctx.Response.Body()), &clock)) {
			return
		}
		clock.ReceivedMS, clock.SentMS = clock.ReceivedMS+ahead, clock.SentMS+ahead
		body, err := json.Marshal(clock)
		assert.NoError(t, err)
		ctx.Response.SetBody(body)
		asked <- struct{}{}
	}))
	go router.Run()
	defer func() { assert.NoError(t, router.Stop()) }()

	// The clock shows the same before and after an exchange that says it is 400 ms behind, and then catches up with a
	// fiftieth of the time that passes, on a clock that runs four times as fast. The longer delay of a request that a test
	// holds up would be set aside, so the page is first made to take any newer reading.
	ahead = 400
	const slewed = `async () => {
		Object.defineProperty(document, "visibilityState", { value: "visible", configurable: true });
		const before = performance.now(), shown = window.lanternClock.now();
		document.dispatchEvent(new Event("visibilitychange"));
		const gained = () => {
			const passed = (performance.now() - before) * 4;
			return (window.lanternClock.now() - shown - passed) / passed;
		};
		await new Promise((wait) => { const look = () => gained() > 0.002 ? wait() : setTimeout(look, 20); look(); }); // it follows
		return gained();
	}`
	gained := th.eval(page, slewed).Num()
	assert.Less(t, gained, 0.021, "not at once")

	ahead = 3_600_000
	th.eval(page, `() => { const real = Date.now; Date.now = () => real() + 3600000; }`)
	for len(asked) > 0 {
		<-asked
	}
	select {
	case <-asked:
	case <-time.After(patience):
		t.Fatal("a jump of the system clock was not noticed")
	}
	th.until(
		page,
		fmt.Sprintf(`window.lanternClock.now() > %f`, float64(time.Now().UnixMilli())+3_000_000),
	) // so much is not slewed
}
