package web

import (
	"context"
	"fmt"
	"log/slog"
	"maps"
	"net/http"
	"runtime/debug"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"github.com/gin-gonic/gin"

	"vastlantern/studio/desk"
)

// feed makes what screens are told once for all of them.
type feed struct {
	ctx  context.Context // of the application: what is made is for all screens, and no one request
	desk *desk.Desk

	// writes counts the requests that may have changed anything, as a plan or what to bring: the room's page tells of the
	// next class too, and what was made before such a request is not told after it.
	writes atomic.Int64

	following sync.WaitGroup // what follows a line, or reads from a screen

	mutex sync.Mutex
	lines map[any]*line // by class, or the room's code
}

func newFeed(ctx context.Context, d *desk.Desk) *feed {
	return &feed{ctx: ctx, desk: d, lines: map[any]*line{}}
}

// notesWrites counts a request that may change something once it has.
func (f *feed) notesWrites(c *gin.Context) {
	c.Next()
	if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
		f.writes.Add(1)
	}
}

// line is what the screens of one address are told.
type line struct {
	desk  *desk.Desk
	feed  *feed
	make  func() (packed, error)
	watch func() (changed <-chan struct{}, stop func())

	told atomic.Pointer[edition]

	mutex   sync.Mutex // of what was made last, for those who come in
	made    packed
	version version
	at      time.Time

	joining   sync.Mutex
	listeners int
	done      chan struct{} // while there are any

	screens screens
}

// version is what may have changed when it is another one.
type version struct{ changes, writes int64 }

// edition is what was told last.
type edition struct {
	packed
	replaced chan struct{} // is closed when there is another
}

// fresh is how long what was made serves those who come in: a class goes on, and can end, without a change.
const fresh = time.Second

const roomEvent = "room"

// mostLines is how many lines are kept of those that nobody listens to; one class is led at a time.
const mostLines = 8

// class is the line of a class.
func (f *feed) class(id int64) *line {
	return f.of(id, func() (packed, error) {
		score, err := f.desk.Classes.Score(f.ctx, id)
		if err != nil {
			return packed{}, err
		}
		return pack("score", score, score.Over)
	}, func() (<-chan struct{}, func()) { return f.desk.Watch(id) })
}

// room is the line of the room: of whatever class is led.
func (f *feed) room(code string) *line {
	return f.of(strings.ToUpper(code), func() (packed, error) {
		room, err := f.desk.Audience.Room(f.ctx, code)
		if err != nil {
			return packed{}, err
		}
		return pack(roomEvent, room, false)
	}, f.desk.WatchRoom)
}

func (f *feed) of(key any, make func() (packed, error), watch func() (<-chan struct{}, func())) *line {
	f.mutex.Lock()
	defer f.mutex.Unlock()
	one := f.lines[key]
	if one == nil {
		if len(f.lines) >= mostLines {
			maps.DeleteFunc(f.lines, func(_ any, l *line) bool { return l.idle() })
		}
		one = &line{desk: f.desk, feed: f, make: make, watch: watch}
		one.tell(packed{})
		f.lines[key] = one
	}
	return one
}

// now is what there is to be told to who comes in. What goes wrong in it is an error and no end of the program: nobody
// who answers a request stands around it where all screens are told.
func (l *line) now() (news packed, err error) {
	l.mutex.Lock()
	defer l.mutex.Unlock()
	defer func() {
		if wrong := recover(); wrong != nil {
			slog.Error("what screens are told failed", "error", wrong, "stack", string(debug.Stack()))
			err = fmt.Errorf("what screens are told failed: %v", wrong)
		}
	}()
	at := version{l.desk.Changes(), l.feed.writes.Load()} // before it is computed: a change in between makes it anew
	if l.made.event != nil && l.version == at && time.Since(l.at) < fresh {
		return l.made, nil
	}
	if news, err = l.make(); err != nil {
		return packed{}, err
	}
	l.made, l.version, l.at = news, at, time.Now()
	return news, nil
}

// newest is what was told last.
func (l *line) newest() *edition { return l.told.Load() }

// tell tells all who listen, at once.
func (l *line) tell(news packed) {
	before := l.told.Swap(&edition{news, make(chan struct{})})
	if before != nil {
		close(before.replaced)
	}
	l.screens.tell(news.event)
}

// join listens to the line, until the function that is returned is called.
func (l *line) join() (joined *line, leave func()) {
	l.joining.Lock()
	defer l.joining.Unlock()
	if l.listeners++; l.listeners == 1 {
		l.done = make(chan struct{})
		changed, stop := l.watch() // from here on nothing is missed
		done := l.done
		l.feed.following.Go(func() { l.follow(changed, stop, done) })
	}
	return l, func() {
		l.joining.Lock()
		defer l.joining.Unlock()
		if l.listeners--; l.listeners == 0 {
			close(l.done)
		}
	}
}

// idle tells whether nobody listens.
func (l *line) idle() bool {
	l.joining.Lock()
	defer l.joining.Unlock()
	return l.listeners == 0
}

// follow tells of every change, once for all who listen.
func (l *line) follow(changed <-chan struct{}, stop func(), done <-chan struct{}) {
	defer stop()
	beat := time.NewTicker(heartbeat)
	defer beat.Stop()
	for {
		select {
		case <-done:
			return
		case <-beat.C:
			l.screens.tell([]byte(stillHere))
			continue
		case <-changed:
		}
		news, err := l.now()
		if err != nil {
			slog.Error("screens cannot be told what has changed", "error", err)
			news = packed{event: []byte(": it cannot be computed\n\n")}
		}
		l.tell(news)
	}
}
