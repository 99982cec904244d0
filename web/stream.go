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

	"vastlantern/studio"
	"vastlantern/studio/contract"
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
		return event(score)
	})
}

// roomStream is stream for the public page of the room: whatever class is led.
func (s server) roomStream(c *gin.Context) {
	changed, stop := s.studio.WatchRoom()
	defer stop()
	code := c.Param("name")
	events(c, changed, func() ([]byte, error) {
		packed, err := s.shared.room(code)
		return packed.event, err
	})
}

// room is what the room's page begins with.
func (s server) room(c *gin.Context) {
	packed, err := s.shared.room(c.Param("name"))
	if err != nil {
		problem(c, err)
		return
	}
	c.Header("Cache-Control", "no-store")
	if strings.Contains(c.GetHeader("Accept-Encoding"), "gzip") {
		c.Header("Content-Encoding", "gzip")
		c.Data(http.StatusOK, "application/json; charset=utf-8", packed.gzip)
		return
	}
	c.Data(http.StatusOK, "application/json; charset=utf-8", packed.json)
}

// packed is the room in the forms in which it is sent. An hour of rounds is 230 kB of JSON, which is too much for
// phones that share a room's network, and 33 kB packed. An event is a line of text: so there it is gzip in base64.
type packed struct{ json, gzip, event []byte }

func pack(told any) (packed, error) {
	plain, err := json.Marshal(told)
	if err != nil {
		return packed{}, err
	}
	var small bytes.Buffer
	writer, err := gzip.NewWriterLevel(&small, gzip.BestSpeed)
	if err != nil {
		return packed{}, err
	}
	if _, err := writer.Write(plain); err != nil {
		return packed{}, err
	}
	if err := writer.Close(); err != nil {
		return packed{}, err
	}
	event := append([]byte("event: room\ndata: "), base64.StdEncoding.AppendEncode(nil, small.Bytes())...)
	return packed{plain, small.Bytes(), append(event, "\n\n"...)}, nil
}

// shared packs the room once for all the screens that wait for it.
type shared struct {
	studio *studio.Studio

	mutex   sync.Mutex
	code    string
	changes int64
	made    time.Time
	packed  packed
}

// fresh is how long an event serves those who come in: a class can end without a change.
const fresh = time.Second

func (s *shared) room(code string) (packed, error) {
	s.mutex.Lock()
	defer s.mutex.Unlock()
	changes := s.studio.Changes() // before it is computed: a change in between makes it anew
	if s.code == code && s.changes == changes && time.Since(s.made) < fresh {
		return s.packed, nil
	}
	room, err := s.studio.Room(code)
	if err != nil {
		return packed{}, err
	}
	all, err := pack(room)
	if err == nil {
		s.code, s.changes, s.made, s.packed = code, changes, time.Now(), all
	}
	return all, err
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

// event is the server-sent event of a score.
func event(score contract.Score) ([]byte, error) {
	text := bytes.NewBufferString("event: score\ndata: ")
	err := json.NewEncoder(text).Encode(score) // one line, as an event needs it
	text.WriteString("\n")
	return text.Bytes(), err
}
