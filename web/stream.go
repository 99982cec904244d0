package web

import (
	"bytes"
	"compress/gzip"
	"encoding/base64"
	"encoding/json"
	"net/http"
	"strings"
	"sync"
	"time"

	"github.com/gin-gonic/gin"
)

// heartbeat keeps proxies and sleeping tabs from taking a quiet stream for a dead one; patience is how long a
// screen may take at least to accept a write.
const (
	heartbeat = 20 * time.Second
	patience  = 10 * time.Second
)

const (
	eventStream = "text/event-stream"
	stillHere   = ": still here\n\n" // a comment, of which no page is told
)

// stream sends the score of a class at once and again after each change, as server-sent events. Nothing is sent
// while nothing changes: the screen plays by itself. When the class is over the screen is told so and the stream ends.
func (s server) stream(c *gin.Context) {
	signedOut, stopWatching := s.desk.WatchSessions()
	defer stopWatching()
	line, leave := s.feed.class(id(c)).join()
	defer leave()
	events(c, line, signedOut, func() bool { return s.guard.stillIn(c) })
}

// roomStream is stream for the public page of the room: whatever class is led.
func (s server) roomStream(c *gin.Context) {
	line, leave := s.feed.room(c.Param("name"), c.Param("language")).join()
	if _, err := line.now(); err != nil {
		leave()
		problem(c, err)
		return
	}
	leaveRoom := s.desk.Audience.Join(contextOf(c))
	left := func() { leaveRoom(); leave() }
	if !line.serve(c, left) {
		defer left()
		events(c, line, nil, nil)
	}
}

// room is what the room's page begins with.
func (s server) room(c *gin.Context) {
	news, err := s.feed.room(c.Param("name"), c.Param("language")).now()
	if err != nil {
		problem(c, err)
		return
	}
	c.Header("Cache-Control", "no-store")
	if strings.Contains(c.GetHeader("Accept-Encoding"), "gzip") {
		c.Header("Content-Encoding", "gzip")
		c.Data(http.StatusOK, "application/json; charset=utf-8", news.gzip)
		return
	}
	c.Data(http.StatusOK, "application/json; charset=utf-8", news.json)
}

// packed is what screens get, in the forms in which it is sent. An hour of rounds is 30 kB of JSON as a score writes
// its lists, and packed 2 kB, for phones that share a room's network. An event is a line of text: so there it is gzip
// in base64.
type packed struct {
	json, gzip, event []byte
	over              bool // nothing more will come
}

// writers keeps what gzip needs to work in, which is nearly a megabyte.
var writers = sync.Pool{New: func() any { return gzip.NewWriter(nil) }}

func pack(name string, shape any, over bool) (packed, error) {
	plain, err := json.Marshal(sent(shape))
	if err != nil {
		return packed{}, err
	}
	var small bytes.Buffer
	writer := writers.Get().(*gzip.Writer)
	defer writers.Put(writer)
	writer.Reset(&small)
	if _, err := writer.Write(plain); err != nil {
		return packed{}, err
	}
	if err := writer.Close(); err != nil {
		return packed{}, err
	}
	event := append([]byte("event: "+name+"\ndata: "), base64.StdEncoding.AppendEncode(nil, small.Bytes())...)
	event = append(event, "\n\n"...)
	if over {
		event = append(event, "event: over\ndata: -\n\n"...)
	}
	return packed{plain, small.Bytes(), event, over}, nil
}

// events sends what a line tells, at once and after each change, until the screen goes away, nothing more will come, or
// who watches has no right to any more.
func events(c *gin.Context, line *line, signedOut <-chan struct{}, may func() bool) {
	told := line.newest()
	news, err := line.now()
	if err != nil {
		problem(c, err)
		return
	}
	h := c.Writer.Header()
	h.Set("Content-Type", eventStream)
	h.Set("Cache-Control", "no-store")
	control := http.NewResponseController(c.Writer)
	send := func(text []byte) bool {
		if _, err := c.Writer.Write(text); err != nil {
			return false
		}
		return control.Flush() == nil
	}
	// A write that is begun until the next heartbeat has patience at least.
	wait := func() bool { return control.SetWriteDeadline(time.Now().Add(heartbeat+patience)) == nil }
	beat := time.NewTicker(heartbeat)
	defer beat.Stop()
	for open := wait() && send(news.event) && !news.over; open; {
		select {
		case <-c.Request.Context().Done():
			return
		case <-closing(c.Request):
			return
		case <-signedOut:
			open = may()
		case <-told.replaced:
			told = line.newest()
			open = send(told.event) && !told.over
		case <-beat.C:
			open = wait() && send([]byte(stillHere))
		}
	}
}
