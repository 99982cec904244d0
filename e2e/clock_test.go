package e2e

import (
	"encoding/json"
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/studio/contract"
)

// The list that measurements use has every count of the sheet, in order and when it was due.
func TestEveryCountIsShown(t *testing.T) {
	th := open(t)
	page, score := th.lead(`{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2:2", "rounds": 60, "tempo": 24, "lead_in": 0}`)
	page.MustEval(`() => { window.lanternShown = []; }`) // at a slow tempo: no frame of a busy machine is late by a count
	th.until(page, "window.lanternShown.length > 12")
	var shown []struct{ Due, Shown float64 }
	require.NoError(t, json.Unmarshal([]byte(page.MustEval(`() => JSON.stringify(window.lanternShown.slice(1))`).Str()), &shown))
	var record contract.Record
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/classes/%d/record", score.ClassID), &record))
	rows := pace.Sheet(storedPlan(t, th, record.PlanID)).Rows
	from := slices.IndexFunc(rows, func(row pace.Row) bool { return score.StartedMS+float64(row.At) == shown[0].Due })
	require.GreaterOrEqual(t, from, 0)
	for i, one := range shown {
		assert.Equal(t, score.StartedMS+float64(rows[from+i].At), one.Due, "count %d", i)
		assert.Greater(t, one.Shown, 0.0)
	}
}

// A better reading of the application's clock is followed little by little, so that no count is skipped; a system clock
// that is set, or a sleep, is seen and asked about at once.
func TestAScreensClockIsSlewedAndNotStepped(t *testing.T) {
	th := open(t)
	page := th.page("/")
	th.see(page, "a", "Practices")
	page.MustEval(`() => window.lanternClock.synchronize()`)

	var ahead float64 // ms by which the answers are wrong from here on
	asked := make(chan struct{}, 100)
	router := page.HijackRequests()
	router.MustAdd("*/api/clock", func(ctx *rod.Hijack) {
		ctx.MustLoadResponse()
		var clock contract.Clock
		require.NoError(t, json.Unmarshal([]byte(ctx.Response.Body()), &clock))
		clock.ReceivedMS, clock.SentMS = clock.ReceivedMS+ahead, clock.SentMS+ahead
		body, err := json.Marshal(clock)
		require.NoError(t, err)
		ctx.Response.SetBody(body)
		asked <- struct{}{}
	})
	go router.Run()
	defer router.MustStop()

	// The clock shows the same before and after an exchange that says it is 400 ms behind, and seconds later it has caught
	// up with a fiftieth of the time that passed, on a clock that runs four times as fast. The longer delay of a
	// request that a test holds up would be set aside, so the page is first made to take any newer reading.
	ahead = 400
	const slewed = `async () => {
		Object.defineProperty(document, "visibilityState", { value: "visible", configurable: true });
		const before = performance.now(), shown = window.lanternClock.now();
		document.dispatchEvent(new Event("visibilitychange"));
		await new Promise((wait) => { const look = () => performance.now() - before > 2000 ? wait() : requestAnimationFrame(look); look(); });
		const passed = (performance.now() - before) * 4;
		return (window.lanternClock.now() - shown - passed) / passed;
	}`
	gained := page.MustEval(slewed).Num()
	assert.Greater(t, gained, 0.002, "it follows")
	assert.Less(t, gained, 0.021, "and not at once")

	ahead = 3_600_000
	page.MustEval(`() => { const real = Date.now; Date.now = () => real() + 3600000; }`)
	for len(asked) > 0 {
		<-asked
	}
	select {
	case <-asked:
	case <-time.After(patience):
		t.Fatal("a jump of the system clock was not noticed")
	}
	require.NoError(t, page.Wait(rod.Eval(fmt.Sprintf(`() => window.lanternClock.now() > %f`, float64(time.Now().UnixMilli())+3_000_000))), "so much is not slewed")
}
