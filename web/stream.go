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

	"vastlantern/studio/desk"
)

// heartbeat keeps proxies and sleeping tabs from taking a quiet stream for a dead one; patience is how long a
// screen may take to accept a write.
const (
	heartbeat = 20 * time.Second
	patience  = 10 * time.Second
)

// stream sends the score of a class at once and again after each change, as server-sent events. Nothing is sent
// while nothing changes: the screen plays by itself. When the class is over the screen is told so and the stream ends.
func (s server) stream(c *gin.Context) {
	class := id(c)
	changed, stop := s.desk.Watch(class)
	defer stop()
	signedOut, stopWatching := s.desk.WatchSessions()
	defer stopWatching()
	events(c, changed, signedOut, func() bool { return s.guard.stillIn(c) }, func() (packed, error) { return s.feed.class(class) })
}

// roomStream is stream for the public page of the room: whatever class is led.
func (s server) roomStream(c *gin.Context) {
	changed, stop := s.desk.WatchRoom()
	defer stop()
	defer s.desk.Audience.Join()()
	code := c.Param("name")
	events(c, changed, nil, nil, func() (packed, error) { return s.feed.room(code) })
}

// room is what the room's page begins with.
func (s server) room(c *gin.Context) {
	news, err := s.feed.room(c.Param("name"))
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

// packed is what screens get, in the forms in which it is sent. An hour of rounds is 230 kB of JSON, which is too
// much for phones that share a room's network, and 33 kB packed. An event is a line of text: so there it is gzip in
// base64.
type packed struct {
	json, gzip, event []byte
	over              bool // nothing more will come
}

func pack(name string, shape any, over bool) (packed, error) {
	plain, err := json.Marshal(shape)
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
	event := append([]byte("event: "+name+"\ndata: "), base64.StdEncoding.AppendEncode(nil, small.Bytes())...)
	event = append(event, "\n\n"...)
	if over {
		event = append(event, "event: over\ndata: -\n\n"...)
	}
	return packed{plain, small.Bytes(), event, over}, nil
}

// feed makes what screens are told once for all of them.
type feed struct {
	desk *desk.Desk

	mutex sync.Mutex
	made  map[any]*made // by class, or the room's code
}

// made is the newest that was made for some screens.
type made struct {
	mutex   sync.Mutex
	changes int64
	at      time.Time
	packed  packed
}

func newFeed(s *desk.Desk) *feed { return &feed{desk: s, made: map[any]*made{}} }

// fresh is how long it serves those who come in: a class goes on, and can end, without a change.
const fresh = time.Second

// mostMade is how much is kept; one class is led at a time.
const mostMade = 8

func (f *feed) class(id int64) (packed, error) {
	return f.of(id, func() (packed, error) {
		score, err := f.desk.Classes.Score(id)
		if err != nil {
			return packed{}, err
		}
		return pack("score", score, score.Over)
	})
}

func (f *feed) room(code string) (packed, error) {
	return f.of(strings.ToUpper(code), func() (packed, error) {
		room, err := f.desk.Audience.Room(code)
		if err != nil {
			return packed{}, err
		}
		return pack("room", room, false)
	})
}

func (f *feed) of(key any, make func() (packed, error)) (packed, error) {
	f.mutex.Lock()
	one := f.made[key]
	if one == nil {
		if len(f.made) >= mostMade {
			clear(f.made)
		}
		one = &made{}
		f.made[key] = one
	}
	f.mutex.Unlock()
	one.mutex.Lock()
	defer one.mutex.Unlock()
	changes := f.desk.Changes() // before it is computed: a change in between makes it anew
	if one.packed.event != nil && one.changes == changes && time.Since(one.at) < fresh {
		return one.packed, nil
	}
	news, err := make()
	if err != nil {
		return packed{}, err
	}
	one.changes, one.at, one.packed = changes, time.Now(), news
	return news, nil
}

// events sends what ask tells, at once and after each change, until the screen goes away, nothing more will come, or who
// watches has no right to any more.
func events(c *gin.Context, changed, signedOut <-chan struct{}, may func() bool, ask func() (packed, error)) {
	news, err := ask()
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
	for open := send(news.event) && !news.over; open; {
		select {
		case <-c.Request.Context().Done():
			return
		case <-signedOut:
			open = may()
		case <-changed:
			if news, err = ask(); err != nil {
				logFailure(c, err)
				news = packed{event: []byte(": it cannot be computed\n\n")}
			}
			open = send(news.event) && !news.over
		case <-beat.C:
			open = send([]byte(": still here\n\n"))
		}
	}
}
