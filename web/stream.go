package web

import (
	"bytes"
	"encoding/json"
	"net/http"
	"sync"
	"time"

	"github.com/gin-gonic/gin"

	"vastlantern/studio"
)

// heartbeat keeps proxies and sleeping tabs from taking a quiet stream for a dead one; patience is how long a
// screen may take to accept a write.
const (
	heartbeat = 20 * time.Second
	patience  = 10 * time.Second
)

// stream sends the score of a class at once and again after each change, as server-sent events. Nothing is sent
// while nothing changes: the screen plays by itself.
func (s server) stream(c *gin.Context) {
	class := id(c)
	changed, stop := s.studio.Watch(class)
	defer stop()
	events(c, changed, func() ([]byte, error) {
		score, err := s.studio.Score(class)
		if err != nil {
			return nil, err
		}
		return event("score", score)
	})
}

// roomStream is stream for the public page of the room: whatever class is led.
func (s server) roomStream(c *gin.Context) {
	changed, stop := s.studio.WatchRoom()
	defer stop()
	code := c.Param("name")
	events(c, changed, func() ([]byte, error) { return s.shared.room(code) })
}

// shared makes the event of the room once for all the screens that wait for it.
type shared struct {
	studio *studio.Studio

	mutex   sync.Mutex
	code    string
	changes int64
	made    time.Time
	text    []byte
}

// fresh is how long an event serves those who come in: a class can end without a change.
const fresh = time.Second

func (s *shared) room(code string) ([]byte, error) {
	s.mutex.Lock()
	defer s.mutex.Unlock()
	changes := s.studio.Changes() // before it is computed: a change in between makes it anew
	if s.text != nil && s.code == code && s.changes == changes && time.Since(s.made) < fresh {
		return s.text, nil
	}
	room, err := s.studio.Room(code)
	if err != nil {
		return nil, err
	}
	text, err := event("room", room)
	if err == nil {
		s.code, s.changes, s.made, s.text = code, changes, time.Now(), text
	}
	return text, err
}

// events sends what ask tells, at once and after each change, until the screen goes away.
func events(c *gin.Context, changed <-chan struct{}, ask func() ([]byte, error)) {
	first, err := ask()
	if err != nil {
		problem(c, err)
		return
	}
	h := c.Writer.Header()
	h.Set("Content-Type", "text/event-stream")
	h.Set("Cache-Control", "no-store")
	control := http.NewResponseController(c.Writer)
	send := func(text []byte) bool {
		if err := control.SetWriteDeadline(time.Now().Add(patience)); err != nil {
			return false
		}
		if _, err := c.Writer.Write(text); err != nil {
			return false
		}
		return control.Flush() == nil
	}
	beat := time.NewTicker(heartbeat)
	defer beat.Stop()
	for open := send(first); open; {
		select {
		case <-c.Request.Context().Done():
			return
		case <-changed:
			text, err := ask()
			if err != nil {
				text = []byte(": it cannot be computed\n\n")
			}
			open = send(text)
		case <-beat.C:
			open = send([]byte(": still here\n\n"))
		}
	}
}

// event is a server-sent event of that name.
func event(name string, told any) ([]byte, error) {
	var text bytes.Buffer
	text.WriteString("event: " + name + "\ndata: ")
	err := json.NewEncoder(&text).Encode(told) // one line, as an event needs it
	text.WriteString("\n")
	return text.Bytes(), err
}
