package web

import (
	"bytes"
	"net"
	"net/http"
	"runtime"
	"slices"
	"sync"
	"time"

	"github.com/gin-gonic/gin"
)

// stuck is how long a screen may hold up those after it: what it is sent goes into a buffer of the system that takes
// dozens of events, so that one which waits has not read for long. It comes back by itself, and gets everything then.
const stuck = 20 * time.Millisecond

// screens is the room's screens of a line, which are written to directly. Thousands of them would otherwise each hold a
// goroutine that is woken up for every event, with buffers that it never needs (docs/decisions/21).
type screens struct {
	mutex sync.Mutex
	open  map[*screen]bool
}

// screen is one that shows the room.
type screen struct {
	mutex sync.Mutex // of what is written
	net.Conn
}

// serve has the line tell the screen of the request until it goes away, or sends anything: it has nothing to say. left
// is called then. It returns at once, and false if the connection cannot be taken over and nothing was done.
func (l *line) serve(c *gin.Context, left func()) bool {
	if c.Request.ProtoMajor != 1 { // one connection of several streams
		return false
	}
	var head bytes.Buffer
	head.WriteString("HTTP/1.1 200 OK\r\n")
	h := c.Writer.Header().Clone()
	h.Set("Content-Type", eventStream)
	h.Set("Cache-Control", "no-store")
	h.Set("Connection", "close") // its end is that of the answer
	if h.Write(&head) != nil {
		return false
	}
	head.WriteString("\r\n")
	conn, _, err := http.NewResponseController(c.Writer).Hijack()
	if err != nil {
		return false
	}
	if one := connectionOf(c.Request); one != nil {
		one.owner.takeOver(one)
	}
	one := &screen{Conn: conn}
	one.mutex.Lock() // what is told meanwhile comes after what it begins with
	l.screens.add(one)
	news, err := l.now() // after it was added: a change before that was told to the others only
	began := err == nil && conn.SetDeadline(time.Time{}) == nil && one.send(append(head.Bytes(), news.event...), patience)
	one.mutex.Unlock()
	l.feed.following.Go(func() {
		defer left()
		defer l.screens.remove(one)
		if began {
			_, _ = conn.Read(make([]byte, 1)) // its end, or something that does not belong here
		}
	})
	return true
}

// send writes to the screen, or closes it where it does not take it.
func (s *screen) send(text []byte, within time.Duration) bool {
	if s.SetWriteDeadline(time.Now().Add(within)) == nil {
		if _, err := s.Write(text); err == nil {
			return true
		}
	}
	s.Close() // its reader sees it
	return false
}

func (all *screens) add(one *screen) {
	all.mutex.Lock()
	defer all.mutex.Unlock()
	if all.open == nil {
		all.open = map[*screen]bool{}
	}
	all.open[one] = true
}

func (all *screens) remove(one *screen) {
	one.Close()
	all.mutex.Lock()
	defer all.mutex.Unlock()
	delete(all.open, one)
}

// tell sends the text to every screen.
func (all *screens) tell(text []byte) {
	all.mutex.Lock()
	list := make([]*screen, 0, len(all.open))
	for one := range all.open {
		list = append(list, one)
	}
	all.mutex.Unlock()
	var writing sync.WaitGroup
	for part := range slices.Chunk(list, len(list)/runtime.GOMAXPROCS(0)+1) {
		writing.Go(func() {
			for _, one := range part {
				one.mutex.Lock()
				one.send(text, stuck)
				one.mutex.Unlock()
			}
		})
	}
	writing.Wait()
}
