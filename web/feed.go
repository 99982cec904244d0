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

	"vastlantern/studio/contract"
	"vastlantern/studio/desk"
)

// feed encodes each change once for all screens.
type feed struct {
	ctx  context.Context // of the application: what is made is for all screens, and no one request
	desk *desk.Desk

	// writes counts the requests that may have changed anything, as a plan or what to bring: the room's page tells of the
	// next class too, and what was made before such a request is not told after it.
	writes atomic.Int64

	following sync.WaitGroup // what follows a line, or reads from a screen

	mutex sync.Mutex
	lines map[any]*line // by class, or by roomLine
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

// line is the stream for the screens of one address.
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

// version identifies the state that an edition shows.
type version struct{ changes, writes int64 }

// edition is the newest message of a line.
type edition struct {
	packed
	replaced chan struct{} // is closed when there is another
}

// fresh is how long an edition is served to new screens: a class moves on, and can end, without a change.
const fresh = time.Second

const roomEvent = "room"

// mostLines is how many lines are kept of those that nobody listens to; one class is led at a time.
const mostLines = 8

// class returns the line of a class.
func (f *feed) class(id int64) *line {
	return f.of(id, func() (packed, error) {
		score, err := f.desk.Classes.Score(f.ctx, id)
		if err != nil {
			return packed{}, err
		}
		return pack("score", score, score.Over)
	}, func() (<-chan struct{}, func()) { return f.desk.Watch(id) })
}

// roomLine names the line of a room in a language; empty for that of the class.
type roomLine struct{ code, language string }

// room returns the line of the room in a language: of whatever class is led.
func (f *feed) room(code, language string) *line {
	if !contract.InLanguage(language) {
		language = ""
	}
	return f.of(roomLine{strings.ToUpper(code), language}, func() (packed, error) {
		room, err := f.desk.Audience.RoomIn(f.ctx, code, language)
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

// now returns the edition for a new screen. It recovers from panics: no HTTP handler would catch them here.
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

// newest returns the latest edition.
func (l *line) newest() *edition { return l.told.Load() }

// tell sends an edition to all listeners.
func (l *line) tell(news packed) {
	before := l.told.Swap(&edition{news, make(chan struct{})})
	if before != nil {
		close(before.replaced)
	}
	l.screens.tell(news.event)
}

// join adds a listener. The returned function removes it.
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

// idle reports whether there are no listeners.
func (l *line) idle() bool {
	l.joining.Lock()
	defer l.joining.Unlock()
	return l.listeners == 0
}

// follow sends every change, encoded once for all listeners.
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
