package web_test

import (
	"bufio"
	"errors"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk"
	"vastlantern/web"
)

// real returns the application behind its real server, on an address of this machine.
func real(t *testing.T) string {
	address, _ := realServer(t)
	return address
}

func realServer(t *testing.T) (address string, server *web.Server) {
	s, err := store.Open(filepath.Join(t.TempDir(), "x.db"), "a test")
	require.NoError(t, err)
	handler, err := web.Handler(t.Context(), desk.New(s, studio.NewClock()), web.Options{Reach: web.ThisMachine})
	require.NoError(t, err)
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	server = web.NewServer(handler, web.Options{})
	go server.Serve(listener)
	t.Cleanup(func() { server.Close(); s.Close() })
	return listener.Addr().String(), server
}

// from opens a connection from an address of the loopback network.
func from(address, to string) (net.Conn, error) {
	dialer := net.Dialer{LocalAddr: &net.TCPAddr{IP: net.ParseIP(address)}, Timeout: 5 * time.Second}
	return dialer.Dial("tcp", to)
}

// Thousands of connections that ask nothing, or send a question that never ends, keep nobody out.
func TestIdleConnectionsShutNobodyOut(t *testing.T) {
	to := real(t)
	var held []net.Conn
	defer func() {
		for _, c := range held {
			c.Close()
		}
	}()
	for i := range 6500 {
		c, err := from("127.0.0.2", to)
		require.NoError(t, err)
		held = append(held, c)
		if i%2 == 0 {
			fmt.Fprint(c, "GET /api/clock HTTP/1.1\r\nHost: ")
		}
	}
	client := &http.Client{Timeout: 5 * time.Second}
	for range 20 {
		response, err := client.Get("http://" + to + "/api/clock")
		require.NoError(t, err)
		response.Body.Close()
		assert.Equal(t, 200, response.StatusCode)
		client.CloseIdleConnections()
	}
}

// A stream stays, although others come in by the thousand.
func TestAStreamIsNotClosedToMakeRoom(t *testing.T) {
	to := real(t)
	at := "http://" + to + "/api"
	var plan contract.Plan
	require.Equal(t, 200, call(t, "POST", at+"/plans", `{"document": `+document+`}`, &plan))
	var score contract.Score
	require.Equal(t, 200, call(t, "POST", at+"/classes", fmt.Sprintf(`{"plan_id": %d}`, plan.ID), &score))
	class := fmt.Sprintf("%s/classes/%d", at, score.ClassID)
	response, err := http.Get(class + "/stream")
	require.NoError(t, err)
	defer response.Body.Close()
	lines := bufio.NewReader(response.Body)
	unpack[contract.Score](t, lines)
	for range 6500 {
		c, err := from("127.0.0.3", to)
		require.NoError(t, err)
		defer c.Close()
	}
	require.Equal(t, 200, call(t, "POST", class+"/adjustments", `{"key": "a", "do": "pause"}`, nil))
	assert.Equal(t, 1, unpack[contract.Score](t, lines).Revision)
}

// What an address guesses is its own matter: others come in, the machine itself too, and many guesses at once are many.
func TestGuessesOfOneKeepNobodyElseOut(t *testing.T) {
	server, _ := lan(t)
	teacher := newDevice(t, server)
	teacher.signIn("laptop")
	var room contract.RoomCode
	status, _ := teacher.call("GET", "/api/room", "", &room)
	require.Equal(t, 200, status)
	phone := newDevice(t, server)
	status, _ = phone.call("GET", "/api/rooms/"+room.Code, "", nil)
	require.Equal(t, 200, status)

	to := strings.TrimPrefix(server.URL, "http://")
	guess := func(address, code string) int {
		c, err := from(address, to)
		if err != nil {
			return 0
		}
		defer c.Close()
		fmt.Fprintf(c, "GET /api/rooms/%s HTTP/1.1\r\nHost: %s\r\nConnection: close\r\n\r\n", code, to)
		response, err := http.ReadResponse(bufio.NewReader(c), nil)
		if err != nil {
			return 0
		}
		response.Body.Close()
		return response.StatusCode
	}
	answers := map[int]int{}
	var mutex sync.Mutex
	var all sync.WaitGroup
	for i := range 60 {
		all.Go(func() {
			status := guess("127.0.0.1", fmt.Sprintf("WR%03d", i))
			mutex.Lock()
			defer mutex.Unlock()
			answers[status]++
		})
	}
	all.Wait()
	assert.InDelta(t, 20, answers[404], 3, "with one more every two seconds: %v", answers)
	assert.Equal(t, 60, answers[404]+answers[429], "%v", answers)
	assert.Equal(t, 429, guess("127.0.0.1", room.Code), "this address has to wait")
	assert.Equal(t, 200, guess("127.0.0.2", room.Code), "another has not")
	status, _ = phone.call("GET", "/api/rooms/"+room.Code, "", nil)
	assert.Equal(t, 200, status, "nor has a phone that has come in before, from the same address")
}

// Signing out cuts the streams of the device, and of no other.
func TestSigningOutCutsTheStream(t *testing.T) {
	server, _ := lan(t)
	laptop, tablet := newDevice(t, server), newDevice(t, server)
	laptop.signIn("laptop")
	tablet.signIn("tablet")
	var plan contract.Plan
	status, _ := laptop.call("POST", "/api/plans", `{"document": `+document+`}`, &plan)
	require.Equal(t, 200, status)
	var score contract.Score
	status, _ = laptop.call("POST", "/api/classes", fmt.Sprintf(`{"plan_id": %d}`, plan.ID), &score)
	require.Equal(t, 200, status)
	stream := func(d device) *bufio.Reader {
		response, err := d.Get(fmt.Sprintf("%s/api/classes/%d/stream", server.URL, score.ClassID))
		require.NoError(t, err)
		t.Cleanup(func() { response.Body.Close() })
		lines := bufio.NewReader(response.Body)
		unpack[contract.Score](t, lines)
		return lines
	}
	kept, cut := stream(laptop), stream(tablet)
	status, _ = tablet.call("DELETE", "/api/session", "{}", nil)
	require.Equal(t, 200, status)
	rest, err := io.ReadAll(cut)
	require.NoError(t, err, "it ends")
	assert.Empty(t, strings.TrimSpace(string(rest)))
	status, _ = laptop.call(
		"POST",
		fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
		`{"key": "a", "do": "pause"}`,
		nil,
	)
	require.Equal(t, 200, status)
	assert.Equal(t, 1, unpack[contract.Score](t, kept).Revision)
}

func TestRequestsOfAnInsaneForm(t *testing.T) {
	at := "http://" + real(t) + "/api"
	deep := strings.Repeat("[", 9900) + strings.Repeat("]", 9900)
	long := strings.Repeat("x ", 40_000)
	for name, c := range map[string]struct {
		method, path, in, says string
	}{
		"brackets": {"POST", "/plans",
			`{"document": {"format": "vast-lantern-plan", "version": 1, "passages": [], "x": ` + deep + `}}`,
			"nested 9902 deep"},
		"a character": {"POST", "/groups", `{"name": "Lunch\u0000hour", "weekday": -1}`, "U+0000"},
		"one in a plan text": {"POST", "/plans/import",
			`{"text": "{\"format\": \"vast-lantern-plan\", \"version\": 1, \"title\": \"\\u0007\", \"passages\": []}"}`,
			"U+0007"},
		"a long title": {"POST", "/plans",
			`{"document": {"format": "vast-lantern-plan", "version": 1, "passages": [], "title": "` + long + `"}}`,
			"at most 300 characters"},
		"many words":        {"GET", "/classes?words=" + strings.ReplaceAll(long[:2000], " ", "+"), "", "at most 20 words"},
		"a character in it": {"GET", "/classes?words=%00", "", "cannot be shown"},
	} {
		var problem contract.Problem
		assert.Equal(t, 422, call(t, c.method, at+c.path, c.in, &problem), name)
		assert.Contains(t, language.English().Text(problem.Say), c.says, name)
	}
}

// A room's screen is notified of what changes, and its stream ends with the program.
func TestARoomsStreamEndsWithTheProgram(t *testing.T) {
	address, server := realServer(t)
	at := "http://" + address + "/api"
	var code contract.RoomCode
	require.Equal(t, 200, call(t, "GET", at+"/room", "", &code))
	response, err := http.Get(at + "/rooms/" + code.Code + "/stream")
	require.NoError(t, err)
	defer response.Body.Close()
	assert.Equal(t, "text/event-stream", response.Header.Get("Content-Type"))
	assert.Equal(t, "nosniff", response.Header.Get("X-Content-Type-Options"), "what every answer has")
	lines := bufio.NewReader(response.Body)
	assert.Nil(t, unpack[contract.Room](t, lines).Score)
	var plan contract.Plan
	require.Equal(t, 200, call(t, "POST", at+"/plans", `{"document": `+document+`}`, &plan))
	require.Equal(t, 200, call(t, "POST", at+"/classes", fmt.Sprintf(`{"plan_id": %d}`, plan.ID), nil))
	assert.NotNil(t, unpack[contract.Room](t, lines).Score)
	require.NoError(t, server.Close())
	_, err = io.ReadAll(lines)
	assert.NoError(t, err)
}

// Who announces a body and never sends it is let go in seconds, whatever is asked and whether or not it is allowed.
// Only a file of everything, from a device that was let in, has minutes.
func TestABodyThatNeverComes(t *testing.T) {
	t.Parallel()
	to := real(t)
	var open []net.Conn
	for _, request := range []string{
		"GET /api/clock", "GET /room/NOBODY", "HEAD /", "OPTIONS /api/plans", "DELETE /api/session", "PUT /nowhere",
		"POST /api/plans", "PATCH /api/plans/1",
	} {
		for _, more := range []string{"Host: localhost", "Host: elsewhere.example",
			"Host: localhost\r\nContent-Type: application/json", "Host: localhost\r\nSec-Fetch-Site: cross-site"} {
			for _, length := range []string{"Content-Length: 100000", "Transfer-Encoding: chunked"} {
				c, err := from("127.0.0.1", to)
				require.NoError(t, err)
				defer c.Close()
				_, err = fmt.Fprintf(c, "%s HTTP/1.1\r\n%s\r\n%s\r\n\r\n", request, more, length)
				require.NoError(t, err)
				open = append(open, c)
			}
		}
	}
	for _, c := range open {
		require.NoError(t, c.SetReadDeadline(time.Now().Add(time.Minute)))
		if _, err := io.ReadAll(c); err != nil {
			assert.False(t, errors.Is(err, os.ErrDeadlineExceeded), "it is held open")
		}
	}
}
