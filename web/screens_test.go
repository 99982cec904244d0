package web

import (
	"bufio"
	"io"
	"net"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/desk/desktest"
)

// served returns a screen of a line on a connection of its own, as it reads from it, and when it has left.
func served(t *testing.T, l *line, before func()) (conn net.Conn, reads *bufio.Reader, left chan bool) {
	t.Helper()
	left = make(chan bool, 1)
	engine := gin.New()
	engine.GET("/stream", func(c *gin.Context) {
		before()
		assert.True(t, l.serve(c, func() { left <- true }))
	})
	server := httptest.NewServer(engine)
	t.Cleanup(server.Close)
	conn, err := net.Dial("tcp", strings.TrimPrefix(server.URL, "http://"))
	require.NoError(t, err)
	t.Cleanup(func() { conn.Close() })
	require.NoError(t, conn.SetDeadline(time.Now().Add(time.Minute)))
	_, err = io.WriteString(conn, "GET /stream HTTP/1.1\r\nHost: localhost\r\n\r\n")
	require.NoError(t, err)
	reads = bufio.NewReader(conn)
	response, err := http.ReadResponse(reads, nil)
	require.NoError(t, err)
	require.Equal(t, http.StatusOK, response.StatusCode)
	return conn, bufio.NewReader(response.Body), left
}

func lineOf(t *testing.T, says func() string) *line {
	t.Helper()
	return newFeed(t.Context(), desktest.New(t).Desk).of("x",
		func() (packed, error) { return packed{event: []byte(says())}, nil }, nil)
}

// What changes while a screen comes in reaches it: it is told after it was added, and not what was true before.
func TestAChangeWhileAScreenComesIn(t *testing.T) {
	says := "event: room\ndata: waits\n\n"
	l := lineOf(t, func() string { return says })
	_, reads, _ := served(t, l, func() {
		_, err := l.now()
		assert.NoError(t, err)
		says = "event: room\ndata: led\n\n" // a class begins, and all who listen are told: nobody yet
		l.tell(packed{event: []byte(says)})
		l.feed.writes.Add(1)
	})
	_, err := reads.ReadString('\n')
	require.NoError(t, err)
	data, err := reads.ReadString('\n')
	require.NoError(t, err)
	assert.Equal(t, "data: led\n", data)
}

// A screen that sends anything on its stream is let go: reading it byte by byte took a processor core.
func TestAScreenThatSendsIsLetGo(t *testing.T) {
	l := lineOf(t, func() string { return "data: x\n\n" })
	conn, reads, left := served(t, l, func() {})
	_, err := conn.Write([]byte("more and more"))
	require.NoError(t, err)
	<-left
	_, err = io.ReadAll(reads)
	assert.True(t, err == nil || !strings.Contains(err.Error(), "timeout"), "it was closed: %v", err)
	l.tell(packed{event: []byte("data: y\n\n")}) // to nobody
}

// A screen that does not read what it is sent is let go, and those beside it are told.
func TestAScreenThatIsStuckHoldsUpNobody(t *testing.T) {
	var room screens
	pipe := func() net.Conn { // without any buffer: a write ends when it is read
		ours, theirs := net.Pipe()
		t.Cleanup(func() { theirs.Close() })
		room.add(&screen{Conn: ours})
		return theirs
	}
	stuck := pipe()
	heard := make(chan string)
	for range 3 {
		reads := pipe()
		go func() {
			text := make([]byte, 5)
			_, _ = io.ReadFull(reads, text)
			heard <- string(text)
		}()
	}
	told := make(chan bool)
	go func() { room.tell([]byte("count")); close(told) }()
	for range 3 {
		assert.Equal(t, "count", <-heard)
	}
	<-told
	_, err := stuck.Read(make([]byte, 5))
	assert.ErrorIs(t, err, io.EOF, "it was closed")
}
