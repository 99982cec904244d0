package web_test

import (
	"bufio"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk"
	"vastlantern/web"
)

func serve(t *testing.T) *httptest.Server {
	t.Helper()
	s, err := store.Open(filepath.Join(t.TempDir(), "x.db"), "a test")
	require.NoError(t, err)
	handler, err := web.Handler(t.Context(), desk.New(s, studio.NewClock()), web.Options{Reach: web.ThisMachine})
	require.NoError(t, err)
	server := httptest.NewServer(handler)
	t.Cleanup(func() { server.CloseClientConnections(); server.Close(); s.Close() })
	return server
}

// call sends JSON and reads JSON, and returns the status.
func call(t *testing.T, method, url, in string, out any) int {
	t.Helper()
	request, err := http.NewRequest(method, url, strings.NewReader(in))
	require.NoError(t, err)
	request.Header.Set("Content-Type", "application/json")
	response, err := http.DefaultClient.Do(request)
	require.NoError(t, err)
	defer response.Body.Close()
	if out != nil {
		require.NoError(t, json.NewDecoder(response.Body).Decode(out))
	}
	return response.StatusCode
}

const document = `{"format": "vast-lantern-plan", "version": 1, "title": "Lunch", "passages": [
	{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4", "rounds": 3}]}`

func TestFromPlanToRecord(t *testing.T) {
	at := serve(t).URL + "/api"
	var plan contract.Plan
	require.Equal(t, 200, call(t, "POST", at+"/plans", `{"document": `+document+`}`, &plan))
	var drafted contract.Drafted
	require.Equal(
		t,
		200,
		call(
			t,
			"POST",
			at+"/draft",
			`{"document": `+document+`, "change": {"do": "short", "passage": 1, "text": "4:8 x2"}}`,
			&drafted,
		),
	)
	assert.Equal(t, "4:8", drafted.Summary.Passages[0].Counts)
	save, err := json.Marshal(contract.PlanSave{Revision: 1, Document: drafted.Document})
	require.NoError(t, err)
	require.Equal(t, 200, call(t, "PUT", fmt.Sprintf("%s/plans/%d", at, plan.ID), string(save), &plan))
	assert.EqualValues(t, 2, plan.Revision)

	var score contract.Score
	require.Equal(t, 200, call(t, "POST", at+"/classes", fmt.Sprintf(`{"plan_id": %d}`, plan.ID), &score))
	class := fmt.Sprintf("%s/classes/%d", at, score.ClassID)
	var adjusted contract.Adjusted
	require.Equal(t, 200, call(t, "POST", class+"/adjustments", `{"key": "a", "do": "rounds", "by": 1}`, &adjusted))
	assert.Equal(t, 3, adjusted.Score.Passages[0].Rounds)
	require.Equal(t, 200, call(t, "POST", class+"/adjustments", `{"key": "b", "do": "end"}`, &adjusted))
	var record contract.Record
	require.Equal(t, 200, call(t, "GET", class+"/record", "", &record))
	assert.Equal(t, 2, record.Passages[0].PlannedRounds)
	assert.Len(t, record.Marks, 2)
	var today contract.Today
	require.Equal(t, 200, call(t, "GET", at+"/today", "", &today))
	assert.Empty(t, today.Failed)
	assert.Len(t, today.Taught, 1)
	var running contract.Running
	require.Equal(t, 200, call(t, "GET", at+"/running", "", &running))
	assert.Zero(t, running)
}

func TestErrorsSayWhatIsWrong(t *testing.T) {
	at := serve(t).URL + "/api"
	wrong := strings.Replace(document, "4:4", "4:x", 1)
	var plan contract.Plan
	require.Equal(
		t,
		200,
		call(t, "POST", at+"/plans", `{"document": `+wrong+`}`, &plan),
		"kept, since it is being written",
	)
	for _, c := range []struct {
		method, path, in string
		status           int
		says             string
	}{
		{"POST", "/classes", fmt.Sprintf(`{"plan_id": %d}`, plan.ID), 422, "Correct what is marked"},
		{"POST", "/classes", `{"plan_id": 99}`, 404, "no plan 99"},
		{"GET", "/plans/99", "", 404, "no plan 99"},
		{"GET", "/plans/abc", "", 404, "no plan"},
		{"GET", "/classes/5/score", "", 404, "no class 5"},
		{"GET", "/classes/5/stream", "", 404, "no class 5"},
		{"POST", "/plans", `{"document": []}`, 422, "not a plan file"},
		{"POST", "/plans", `{`, 422, "not the JSON"},
		{"POST", "/plans", `{"document": "` + strings.Repeat("x", 3<<20) + `"}`, 413, "too large"},
		{"GET", "/nothing", "", 404, "nothing at this address"},
	} {
		var problem contract.Problem
		assert.Equal(t, c.status, call(t, c.method, at+c.path, c.in, &problem), "%s %s", c.method, c.path)
		assert.Contains(t, language.English().Text(problem.Say), c.says)
	}
}

func TestOtherSitesAreKeptOut(t *testing.T) {
	server := serve(t)
	try := func(change func(*http.Request)) *http.Response {
		request, err := http.NewRequest("POST", server.URL+"/api/plans", strings.NewReader(`{"document": `+document+`}`))
		require.NoError(t, err)
		request.Header.Set("Content-Type", "application/json")
		change(request)
		response, err := http.DefaultClient.Do(request)
		require.NoError(t, err)
		response.Body.Close()
		return response
	}
	assert.Equal(t, 200, try(func(r *http.Request) { r.Header.Set("Origin", server.URL) }).StatusCode)
	assert.Equal(t, 403, try(func(r *http.Request) { r.Header.Set("Origin", "http://elsewhere.example") }).StatusCode)
	assert.Equal(t, 403, try(func(r *http.Request) { r.Host = "elsewhere.example" }).StatusCode)
	assert.Equal(t, 415, try(func(r *http.Request) { r.Header.Set("Content-Type", "text/plain") }).StatusCode)
	fetched := func(header, value string) int {
		request, err := http.NewRequest("GET", server.URL+"/api/practices", nil)
		require.NoError(t, err)
		request.Header.Set(header, value)
		response, err := http.DefaultClient.Do(request)
		require.NoError(t, err)
		response.Body.Close()
		return response.StatusCode
	}
	assert.Equal(t, 403, fetched("Sec-Fetch-Site", "cross-site"), "a question of another site costs nothing")
	assert.Equal(t, 403, fetched("Sec-Fetch-Site", "same-site"))
	assert.Equal(t, 403, fetched("Referer", "http://elsewhere.example/page"))
	assert.Equal(t, 200, fetched("Sec-Fetch-Site", "same-origin"))
	assert.Equal(t, 200, fetched("Sec-Fetch-Site", "none"), "an address that was typed")
	policy := try(func(*http.Request) {}).Header.Get("Content-Security-Policy")
	assert.Contains(t, policy, "default-src 'self'")
	assert.Contains(t, policy, "frame-ancestors 'none'")
}

func TestTheStreamSendsTheScoreWhenSomethingChanges(t *testing.T) {
	at := serve(t).URL + "/api"
	var plan contract.Plan
	require.Equal(t, 200, call(t, "POST", at+"/plans", `{"document": `+document+`}`, &plan))
	var score contract.Score
	require.Equal(t, 200, call(t, "POST", at+"/classes", fmt.Sprintf(`{"plan_id": %d}`, plan.ID), &score))
	class := fmt.Sprintf("%s/classes/%d", at, score.ClassID)
	response, err := http.Get(class + "/stream")
	require.NoError(t, err)
	defer response.Body.Close()
	lines := bufio.NewReader(response.Body)
	assert.Equal(t, 0, unpack[contract.Score](t, lines).Revision)
	call(t, "POST", class+"/adjustments", `{"key": "a", "do": "pause"}`, nil)
	paused := unpack[contract.Score](t, lines)
	assert.Equal(t, 1, paused.Revision)
	assert.NotNil(t, paused.Wait)
	call(t, "POST", class+"/adjustments", `{"key": "b", "do": "end"}`, nil)
	assert.True(t, unpack[contract.Score](t, lines).Over)
	rest, err := io.ReadAll(lines)
	require.NoError(t, err, "a class that is over has no stream")
	assert.Contains(t, string(rest), "event: over")
	assert.Equal(t, 409, call(t, "POST", class+"/adjustments", `{"key": "c", "do": "pause"}`, nil), "and takes no presses")
}

// Offset and delay of a network clock as RFC 5905 section 8 has them: with the four times, the offset is
// ((T2-T1)+(T3-T4))/2. Both clocks are this machine's here, so it is near nothing.
func TestTheClockExchange(t *testing.T) {
	at := serve(t).URL + "/api"
	var first, second contract.Clock
	require.Equal(t, 200, call(t, "GET", at+"/clock", "", &first))
	require.Equal(t, 200, call(t, "GET", at+"/clock", "", &second))
	assert.LessOrEqual(t, first.ReceivedMS, first.SentMS)
	assert.LessOrEqual(t, first.SentMS, second.ReceivedMS)
	assert.EqualValues(t, 1, first.Rate)
}

// Two screens press at once, and the network makes each send everything twice: nothing is lost, nothing is doubled.
func TestPressesOfTwoScreensAtOnce(t *testing.T) {
	at := serve(t).URL + "/api"
	var plan contract.Plan
	require.Equal(
		t,
		200,
		call(t, "POST", at+"/plans", `{"document": `+strings.Replace(document, `"rounds": 3`, `"rounds": 100`, 1)+`}`, &plan),
	)
	var score contract.Score
	require.Equal(t, 200, call(t, "POST", at+"/classes", fmt.Sprintf(`{"plan_id": %d}`, plan.ID), &score))
	class := fmt.Sprintf("%s/classes/%d", at, score.ClassID)
	const each = 20
	var screens sync.WaitGroup
	for screen := range 4 {
		screens.Go(func() {
			for i := range each {
				// Of four screens, two send the same as the other two.
				body := fmt.Sprintf(`{"key": "%d of screen %d", "do": "rounds", "by": 1}`, i, screen/2)
				request, err := http.Post(class+"/adjustments", "application/json", strings.NewReader(body))
				if assert.NoError(t, err) {
					request.Body.Close()
					assert.Equal(t, 200, request.StatusCode)
				}
			}
		})
	}
	screens.Wait()
	require.Equal(t, 200, call(t, "GET", class+"/score", "", &score))
	assert.Equal(t, 2*each, score.Revision)
	assert.Equal(t, 100+2*each, score.Passages[0].Rounds)
	var record contract.Record
	require.Equal(t, 200, call(t, "GET", class+"/record", "", &record))
	for i, mark := range record.Marks {
		assert.Equal(t, i+1, mark.Answer.Number)
		assert.Equal(t, 101+i, mark.Answer.After.Rounds)
	}
}

// The room's page, asked just before and just after, reports what was changed meanwhile: what was made a moment ago is
// kept for many screens that come in at once, and for nobody else.
func TestTheRoomTellsWhatWasJustSaved(t *testing.T) {
	server := serve(t)
	d := newDevice(t, server)
	var code contract.RoomCode
	d.call("GET", "/api/room", "", &code)
	var room contract.Room
	for saved, bring := range []string{"a blanket", "two blankets"} {
		d.call("GET", "/api/rooms/"+code.Code, "", &room)
		require.NotEqual(t, bring, room.Bring)
		status, _ := d.call(
			"PUT",
			"/api/settings",
			fmt.Sprintf(`{"schools": {}, "language": "en", "own_words": {}, "bring": %q, "revision": %d}`, bring, saved),
			nil,
		)
		require.Equal(t, 200, status)
		d.call("GET", "/api/rooms/"+code.Code, "", &room)
		assert.Equal(t, bring, room.Bring)
	}
}

// Each route that changes something reports what it reads, so that a new one is tried without anybody listing it.
func TestRoutesTellWhatTheyRead(t *testing.T) {
	routes, err := web.Routes()
	require.NoError(t, err)
	bodies := map[string]string{}
	for _, route := range routes {
		if route.Body != nil {
			bodies[route.Method+" "+route.Path] = route.Body.String()
		} else if route.Method == "POST" {
			bodies[route.Method+" "+route.Path] = ""
		}
	}
	for route, body := range map[string]string{
		"PUT /api/plans/:id": "contract.PlanSave", "POST /api/groups": "contract.Group",
		"POST /api/classes/:id/would": "[]contract.Adjust",
		"POST /api/import":            "contract.Export", "POST /api/sample": "",
	} {
		told, there := bodies[route]
		assert.True(t, there, route)
		assert.Equal(t, body, told, route)
	}
}
