package web_test

import (
	"context"
	"fmt"
	"io"
	"net"
	"net/http"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk"
	"vastlantern/studio/desk/desktest"
	"vastlantern/web"
)

// importing returns an application that reads a file which stops in the middle, and what becomes of the request.
func importing(t *testing.T) (s *store.Store, server *web.Server, end func(), rest func(), answered chan string) {
	t.Helper()
	full := desktest.New(t)
	for range 20 {
		full.AddPlan(desktest.Rounds)
	}
	file := full.Export()

	s, err := store.Open(filepath.Join(t.TempDir(), "x.db"), "a test")
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	working, giveUp := context.WithCancel(context.Background())
	handler, err := web.Handler(working, desk.New(s, studio.NewClock()), web.Options{Reach: web.ThisMachine})
	require.NoError(t, err)
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	server = web.NewServer(handler, web.Options{})
	go server.Serve(listener)

	reads, writes := io.Pipe()
	request, err := http.NewRequest(http.MethodPost, "http://"+listener.Addr().String()+"/api/import?apply=true", reads)
	require.NoError(t, err)
	request.Header.Set("Content-Type", "application/json")
	answered = make(chan string, 1)
	go func() {
		response, err := http.DefaultClient.Do(request)
		if err != nil {
			answered <- "cut off"
			return
		}
		defer response.Body.Close()
		text, _ := io.ReadAll(response.Body)
		answered <- response.Status + " " + string(text)
	}()
	_, err = io.WriteString(writes, file[:len(file)/2])
	require.NoError(t, err)
	require.Eventually(t, func() bool {
		var at contract.ImportProgress
		return call(t, "GET", "http://"+listener.Addr().String()+"/api/import", "", &at) == 200 && at.Done > 0
	}, time.Minute, time.Millisecond, "it is being read")
	rest = func() {
		_, _ = io.WriteString(writes, file[len(file)/2:])
		writes.Close()
	}
	end = func() { giveUp(); handler.Wait() }
	return s, server, end, rest, answered
}

// An import that has begun when the server is told to end is stored whole, and answered.
func TestAnImportIsFinishedBeforeTheServerEnds(t *testing.T) {
	s, server, end, rest, answered := importing(t)
	ended := make(chan error)
	go func() { ended <- server.Shutdown(context.Background()) }()
	rest()
	assert.Contains(t, <-answered, "200 OK")
	require.NoError(t, <-ended)
	end()
	plans, err := s.Plans()
	require.NoError(t, err)
	assert.Len(t, plans, 20)
}

// One that takes too long is cut off, and nothing of it is stored.
func TestAnImportThatTakesTooLongChangesNothing(t *testing.T) {
	s, server, end, rest, answered := importing(t)
	within, done := context.WithTimeout(context.Background(), 10*time.Millisecond)
	defer done()
	require.ErrorIs(t, server.Shutdown(within), context.DeadlineExceeded)
	rest()
	assert.Equal(t, "cut off", <-answered)
	end()
	plans, err := s.Plans()
	require.NoError(t, err)
	assert.Empty(t, plans)
	path := s.Path()
	require.NoError(t, s.Close())
	s, err = store.Open(path, "a test")
	require.NoError(t, err, "the data file is whole")
	require.NoError(t, s.Close())
}

// Pages that are open do not keep the server from ending: the room's, a lead screen's, and connections that ask
// nothing.
func TestStreamsEndWithTheServer(t *testing.T) {
	address, server := realServer(t)
	at := "http://" + address + "/api"
	idle, err := net.Dial("tcp", address)
	require.NoError(t, err)
	defer idle.Close()
	var plan contract.Plan
	require.Equal(t, 200, call(t, "POST", at+"/plans", `{"document": `+document+`}`, &plan))
	var score contract.Score
	require.Equal(t, 200, call(t, "POST", at+"/classes", fmt.Sprintf(`{"plan_id": %d}`, plan.ID), &score))
	var code contract.RoomCode
	require.Equal(t, 200, call(t, "GET", at+"/room", "", &code))
	var streams []io.Reader
	for _, path := range []string{fmt.Sprintf("/classes/%d/stream", score.ClassID), "/rooms/" + code.Code + "/stream"} {
		stream, err := http.Get(at + path)
		require.NoError(t, err)
		defer stream.Body.Close()
		streams = append(streams, stream.Body)
	}
	within, done := context.WithTimeout(context.Background(), time.Minute)
	defer done()
	require.NoError(t, server.Shutdown(within))
	for _, stream := range streams {
		_, err := io.ReadAll(stream)
		assert.NoError(t, err, "it has ended, and was not cut")
	}
}
