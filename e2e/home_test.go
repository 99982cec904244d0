package e2e

import (
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/core/sheet"
	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

// A class ends and what was the point of it goes home with one key: it is in the record, on paper, and as a page; and
// when the group comes again it is asked about.
func TestSomethingForHome(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var group contract.Group
	require.NoError(t, th.program.Post("/api/groups", `{"name": "Monday", "weekday": -1}`, &group))
	var plan contract.Plan
	require.NoError(
		t,
		th.program.Post(
			"/api/plans/import",
			`{"text": "# On four two seven\ntempo 60\ncounted breath 4:4 x40 try-out\ncounted breath 4:4 x40\ncounted breath `+
				`4:2:7 x9\n"}`,
			&plan,
		),
	)
	document, err := json.Marshal(plan.Document)
	require.NoError(t, err)
	require.NoError(
		t,
		th.program.Put(
			fmt.Sprintf("/api/plans/%d", plan.ID),
			fmt.Sprintf(`{"revision": %d, "document": %s, "group_id": %d}`, plan.Revision, document, group.ID),
			&plan,
		),
	)
	var score contract.Score
	require.NoError(t, th.program.Lead(plan.ID, &score))
	lead := th.page(fmt.Sprintf("/lead/%d", score.ClassID))
	th.see(lead, `[data-testid="word"]`, ".")
	var done contract.Adjusted
	for range 2 {
		require.NoError(
			t,
			th.program.Post(
				fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
				fmt.Sprintf(`{"key": "next %d", "do": "next"}`, time.Now().UnixNano()),
				&done,
			),
		)
	}
	th.see(lead, ".aside", "round 2 of 9")
	th.end(lead)
	th.click(lead, ".over a", "Give home practice")
	th.see(lead, ".give legend", "What goes home")
	assert.Equal(t, "Counted breath 4:2:7 ×9 · the point of the class", th.read(lead, ".give label", ""))
	th.fill(lead, "#home-minutes", "40")
	th.write(lead, "#home-sentence", "As lightly as here.")
	th.tap(lead, ".give button[type=submit]", "")
	assert.Equal(t, "40", th.value(lead, "#home-minutes"), "a browser says itself that it is too much")
	th.fill(lead, "#home-minutes", "10")
	th.press(lead, input.Enter)
	th.see(lead, ".given", "10 minutes a day, for 7 days")
	th.see(lead, ".given", "As lightly as here.")
	th.click(lead, ".given a", "Paper")
	th.see(lead, ".paper", "When to stop")
	th.see(lead, ".paper", "Holding the breath: leave it out with")

	record := th.page(fmt.Sprintf("/taught/%d", score.ClassID))
	th.see(record, ".given", "10 minutes a day")
	th.click(record, "a", "take it back")
	th.click(record, ".given button", "Take it back")
	th.click(record, ".given button", "Keep it")
	var offer contract.HomeOffer
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/classes/%d/home", score.ClassID), &offer))
	require.Len(t, offer.Given, 1)

	response, err := http.Get(fmt.Sprintf("%s/api/homes/%d/page", th.program.URL, offer.Given[0].ID))
	require.NoError(t, err)
	defer response.Body.Close()
	assert.Contains(t, response.Header.Get("Content-Disposition"), `attachment; filename=counted-breath.html`)

	th.daysLater() // the group comes again
	again := th.page(fmt.Sprintf("/plan/%d", plan.ID))
	th.see(again, ".askhome", "Counted breath.*10 minutes a day.*How was it")
	th.click(again, ".askhome button", "now and then")
	th.see(again, ".askhome", "at home: now and then")
	th.click(again, ".askhome button", "Undo")
	th.click(again, ".askhome button", "every day")
	th.see(again, ".askhome", "at home: every day")
	th.visit(again, th.at+fmt.Sprintf("/plan/%d/home", plan.ID))
	th.see(again, ".given", "at home: every day")
	var next contract.Plan
	require.NoError(
		t,
		th.program.Post(
			"/api/plans",
			fmt.Sprintf(`{"group_id": %d, "document": {"format": "vast-lantern-plan", "version": 1, "passages": []}}`, group.ID),
			&next,
		),
	)
	th.visit(again, th.at+fmt.Sprintf("/plan/%d/home", next.ID))
	th.see(again, ".give", "once more: Counted breath 4:2:7.*every day")
	th.press(again, input.Enter)
	th.see(again, ".given", "10 minutes a day")
}

// daysLater starts the program anew some days later: its clock has run faster for a day.
func (th *theater) daysLater() {
	th.Helper()
	th.program.Kill()
	th.from = time.Now().AddDate(0, 0, -1).Format(time.RFC3339Nano)
	th.start("0")
}

// The page that plays is opened from the disk, with the network off, on a phone: it asks nothing of anybody, and has
// the counts of the sheet at their milliseconds, on both lanes; it rests at any moment, and ends.
func TestThePageThatPlaysAtHome(t *testing.T) {
	t.Parallel()
	const plan = `{"format": "vast-lantern-plan", "version": 1, "title": "Mixed", "tempo": 120, "passages": [
		{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2:4", "rounds": 3, "lead_in": 2, "beside": "breathe", "closing": [{"breaths": 1}]}]}`
	folder := t.TempDir()
	file := filepath.Join(folder, "mixed.plan.json")
	require.NoError(t, os.WriteFile(file, []byte(plan), 0o600))
	binary, err := stage.Binary()
	require.NoError(t, err)
	page, err := exec.Command(binary, "home", file, "--passage", "1").Output()
	require.NoError(t, err)
	assert.Less(t, len(page), 250_000)
	path := filepath.Join(folder, "home.html")
	require.NoError(t, os.WriteFile(path, page, 0o600))
	_, p, err := sheet.ReadPlan(strings.NewReader(plan))
	require.NoError(t, err)
	tl := pace.Sheet(p)

	th := &theater{T: t, browser: sharedBrowser(t)}
	defer th.recovered()
	var mutex sync.Mutex
	var asked []string
	alone := func() *screen {
		t.Helper()
		tab := th.opened("about:blank", 390, 844)
		require.NoError(t, proto.NetworkEnable{}.Call(tab.tab))
		require.NoError(
			t,
			proto.NetworkEmulateNetworkConditions{Offline: true, DownloadThroughput: -1, UploadThroughput: -1}.Call(tab.tab),
		)
		wait := tab.tab.EachEvent(func(e *proto.NetworkRequestWillBeSent) {
			if !strings.HasPrefix(e.Request.URL, "data:") {
				mutex.Lock()
				defer mutex.Unlock()
				asked = append(asked, e.Request.URL)
			}
		})
		go wait()
		th.visit(tab, "file://"+path)
		return tab
	}
	tab, other := alone(), alone() // side by side, since the page plays in real time
	th.see(tab, ".before .stop", "Stop and breathe naturally when dizzy")
	th.see(tab, ".before .stop", "Holding the breath: leave it out with")
	th.accessible(tab, "before")
	lanes := []struct {
		name string
		page *screen
		rows []pace.Row
	}{{"main", tab, tl.Rows}, {"beside", other, tl.Lane(p).Rows}}
	for _, lane := range lanes {
		th.see(lane.page, ".choices select", "with the holds")
		th.eval(lane.page, `(lane) => {
			const select = document.querySelectorAll(".choices select")[1];
			select.value = lane;
			select.dispatchEvent(new Event("change", { bubbles: true }));
		}`, lane.name)
		th.watch(lane.page)
		th.click(lane.page, "button", "^Start$")
	}
	for _, lane := range lanes {
		th.see(lane.page, "h1", "It is done")
		th.showedTheRows(lane.page, lane.rows, 0)
		th.click(lane.page, "button", "^Back$")
	}
	second := tl.Rows[slices.IndexFunc(tl.Rows, func(row pace.Row) bool { return row.Round == 2 })]
	const along = 5000 // ms: the round that is left is well begun
	th.click(tab, "button", "^Start$")
	th.until(
		tab,
		fmt.Sprintf(
			`document.querySelector(".aside").innerText.includes("round 2 of 3") && %s.at > %d`,
			shownOn,
			second.At+along,
		),
	)
	th.press(tab, input.Space)
	th.see(tab, "h1", "natural breath")
	th.accessible(tab, "resting")
	th.watch(tab)
	th.press(tab, input.Space)
	th.see(tab, ".aside", "round 2 of 3")
	at := th.eval(tab, "() => watched.shown[0].at").Num()
	assert.GreaterOrEqual(t, at, float64(second.At), "the round that was left begins again")
	assert.Less(t, at, float64(second.At+along))
	th.accessible(tab, "playing") // it holds the page up, so not where counts are compared
	th.press(tab, input.Escape)
	th.see(tab, ".before", "When to stop")
	mutex.Lock()
	defer mutex.Unlock()
	assert.Equal(t, []string{"file://" + path, "file://" + path}, asked, "nothing is asked of any server")
}
