package web_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/gin-gonic/gin"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk"
	"vastlantern/web"
)

const passcode = "warm lamp oil"

// lan returns the application as the local network sees it, and its routes.
func lan(t *testing.T) (*httptest.Server, gin.RoutesInfo) {
	t.Helper()
	return reached(t, web.Options{Reach: web.LocalNetwork})
}

func reached(t *testing.T, options web.Options) (*httptest.Server, gin.RoutesInfo) {
	t.Helper()
	s, err := store.Open(filepath.Join(t.TempDir(), "x.db"), "a test")
	require.NoError(t, err)
	application := desk.New(s, studio.NewClock())
	require.NoError(t, application.Access.SetPasscode(t.Context(), passcode))
	handler, err := web.Handler(t.Context(), application, options)
	require.NoError(t, err)
	server := httptest.NewServer(handler)
	t.Cleanup(func() { server.CloseClientConnections(); server.Close(); s.Close() })
	return server, handler.Routes()
}

// device is a browser of its own.
type device struct {
	*http.Client
	t   *testing.T
	url string
}

func newDevice(t *testing.T, server *httptest.Server) device {
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	return device{&http.Client{Jar: jar}, t, server.URL}
}

// call sends JSON, reads JSON, and returns the status and the headers.
func (d device) call(method, path, in string, out any) (int, http.Header) {
	d.t.Helper()
	request, err := http.NewRequest(method, d.url+path, strings.NewReader(in))
	require.NoError(d.t, err)
	request.Header.Set("Content-Type", "application/json")
	response, err := d.Do(request)
	require.NoError(d.t, err)
	defer response.Body.Close()
	if out != nil {
		require.NoError(d.t, json.NewDecoder(response.Body).Decode(out))
	}
	return response.StatusCode, response.Header
}

func (d device) signIn(name string) contract.Session {
	d.t.Helper()
	var session contract.Session
	status, _ := d.call("POST", "/api/session", fmt.Sprintf(`{"passcode": %q, "device": %q}`, passcode, name), &session)
	require.Equal(d.t, 200, status)
	return session
}

func TestOnTheLocalNetworkOnlyTheRoomIsOpen(t *testing.T) {
	server, routes := lan(t)
	open := []string{
		"/api/clock",
		"/api/sounds/:sum",
		"/api/session",
		"/api/certificate",
		"/api/certificate/file",
		"/api/rooms/:name",
		"/api/rooms/:name/stream",
		"/api/rooms/:name/in/:language",
		"/api/rooms/:name/in/:language/stream",
		"/api/rooms/:name/answers",
		"/api/rooms/:name/check-in",
	}
	stranger := newDevice(t, server)
	closed := 0
	for _, route := range routes {
		var problem contract.Problem
		status, _ := stranger.call(
			route.Method,
			strings.NewReplacer(":id", "1", ":name", "x").Replace(route.Path),
			"{}",
			&problem,
		)
		if slices.Contains(open, route.Path) {
			assert.NotEqual(t, 401, status, route.Path)
			continue
		}
		assert.Equal(t, 401, status, "%s %s", route.Method, route.Path)
		assert.Contains(t, language.English().Text(problem.Say), "Sign in")
		closed++
	}
	assert.Greater(t, closed, 20)
	for _, page := range []string{"/", "/room/ABCDE", "/lead/1"} { // the page itself holds nothing of anybody's
		response, err := stranger.Get(server.URL + page)
		require.NoError(t, err)
		response.Body.Close()
		assert.Equal(t, 200, response.StatusCode, page)
	}
}

func TestASecondDeviceLeadsTheSameClass(t *testing.T) {
	server, _ := lan(t)
	laptop, phone := newDevice(t, server), newDevice(t, server)
	assert.Equal(t, contract.Session{Needed: true, SignedIn: true, Device: "laptop"}, laptop.signIn("laptop"))
	phone.signIn("phone")
	var session contract.Session
	phone.call("GET", "/api/session", "", &session)
	assert.Equal(t, "phone", session.Device)

	var plan contract.Plan
	laptop.call("POST", "/api/plans", `{"document": `+document+`}`, &plan)
	var score contract.Score
	laptop.call("POST", "/api/classes", fmt.Sprintf(`{"plan_id": %d}`, plan.ID), &score)
	class := fmt.Sprintf("/api/classes/%d", score.ClassID)
	var adjusted contract.Adjusted
	status, _ := phone.call("POST", class+"/adjustments", `{"key": "a", "do": "pause"}`, &adjusted)
	require.Equal(t, 200, status)
	assert.Equal(t, "phone", adjusted.Answer.Origin)
	laptop.call("GET", class+"/score", "", &score)
	assert.Equal(t, "phone", score.Answer.Origin, "the other device sees whose it was")
	laptop.call("POST", class+"/again", `{"key": "b", "from_ms": 0}`, nil)

	phone.call("DELETE", "/api/session", "{}", &session)
	assert.False(t, session.SignedIn)
	status, _ = phone.call("POST", class+"/adjustments", `{"key": "c", "do": "resume"}`, nil)
	assert.Equal(t, 401, status)
}

func TestTheCookieIsOutOfReach(t *testing.T) {
	server, _ := lan(t)
	_, header := newDevice(t, server).call("POST", "/api/session", fmt.Sprintf(`{"passcode": %q}`, passcode), nil)
	cookie := header.Get("Set-Cookie")
	for _, part := range []string{"HttpOnly", "SameSite=Strict", "Path=/", "Max-Age=604800"} {
		assert.Contains(t, cookie, part)
	}
	forged := newDevice(t, server)
	request, err := http.NewRequest("GET", server.URL+"/api/today", nil)
	require.NoError(t, err)
	request.AddCookie(&http.Cookie{Name: "lantern", Value: "made up"})
	response, err := forged.Do(request)
	require.NoError(t, err)
	response.Body.Close()
	assert.Equal(t, 401, response.StatusCode)
}

func TestPasscodesAreNotFoundByTrying(t *testing.T) {
	server, _ := lan(t)
	stranger := newDevice(t, server)
	var problem contract.Problem
	for i := range 5 {
		status, _ := stranger.call("POST", "/api/session", fmt.Sprintf(`{"passcode": "guess %d"}`, i), &problem)
		assert.Equal(t, 422, status)
		assert.Contains(t, language.English().Text(problem.Say), "not the passcode")
	}
	status, header := stranger.call("POST", "/api/session", fmt.Sprintf(`{"passcode": %q}`, passcode), &problem)
	assert.Equal(t, 429, status, "the right one too, until the time is over")
	assert.Equal(t, "20", header.Get("Retry-After"))

	for i := range 20 {
		status, _ = stranger.call("GET", fmt.Sprintf("/api/rooms/AAA%02d", i), "", &problem)
		assert.Equal(t, 404, status)
	}
	status, _ = stranger.call("GET", "/api/rooms/AAAAA", "", &problem)
	assert.Equal(t, 429, status)
	assert.Contains(t, language.English().Text(problem.Say), "Wait 2 seconds")
}

func TestOnTheNetworkTheMachineIsCalledByNumberOrByItsOwnName(t *testing.T) {
	server, _ := lan(t)
	port := server.URL[strings.LastIndex(server.URL, ":"):]
	for host, served := range map[string]bool{"192.168.7.20" + port: true, "[fe80::1]" + port: true, "localhost": true,
		"elsewhere.example" + port: false} {
		request, err := http.NewRequest("GET", server.URL+"/api/session", nil)
		require.NoError(t, err)
		request.Host = host
		response, err := http.DefaultClient.Do(request)
		require.NoError(t, err)
		response.Body.Close()
		assert.Equal(t, served, response.StatusCode == 200, host)
	}
}

func TestTheRoomsAddressIsOneThatOthersReach(t *testing.T) {
	server, _ := lan(t)
	teacher := newDevice(t, server)
	teacher.signIn("laptop")
	var room contract.RoomCode
	teacher.call("GET", "/api/room", "", &room)
	assert.False(t, room.OnlyHere)
	assert.True(t, strings.HasSuffix(room.Address, "/room/"+room.Code))
	if addresses := web.Addresses(); len(addresses) > 0 {
		assert.Contains(t, room.Address, addresses[0])
	}
	newDevice(t, serve(t)).call("GET", "/api/room", "", &room)
	assert.True(t, room.OnlyHere)
	assert.Contains(t, room.Address, "127.0.0.1")
}
