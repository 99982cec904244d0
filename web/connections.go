package web

import (
	"container/list"
	"context"
	"crypto/tls"
	"errors"
	"log/slog"
	"maps"
	"net"
	"net/http"
	"slices"
	"sync"
	"time"
)

// How long a connection may keep the server waiting. Streams have no end, but each write to them has one.
const (
	headerTime = 5 * time.Second
	bodyTime   = 10 * time.Second
	idleTime   = time.Minute
	answerTime = time.Minute
	mostHeader = 32 << 10 // bytes
)

// Bounds of open connections. A room phone has one or two, and a class of a hundred behind one wireless address still
// fits.
const (
	mostOpen     = 6000
	mostFrom     = 300
	keptForOwn   = 256 // beyond mostOpen, for this machine and for the teacher's devices
	mostTeachers = 64  // addresses that are remembered as the teacher's
)

// NewServer returns a server for the handler that slow clients and many connections cannot block. Proxies that are
// trusted bring many people each: their connections are bounded only together.
func NewServer(handler http.Handler, options Options) *Server {
	c := &connections{
		trusts:   options.trusts,
		from:     map[string]*address{},
		teachers: map[string]bool{},
		taken:    map[*connection]bool{},
		most:     mostOpen,
		mostFrom: mostFrom,
	}
	s := &Server{connections: c, closing: make(chan struct{})}
	s.http = &http.Server{
		Handler: handler, ReadHeaderTimeout: headerTime, IdleTimeout: idleTime, MaxHeaderBytes: mostHeader,
		// Browsers that do not trust a certificate end connections by the dozen.
		ErrorLog: slog.NewLogLogger(slog.Default().Handler(), slog.LevelDebug),
		ConnContext: func(ctx context.Context, open net.Conn) context.Context {
			return context.WithValue(context.WithValue(ctx, connectionKey{}, underneath(open)), closingKey{}, s.closing)
		},
		ConnState: func(open net.Conn, state http.ConnState) {
			if one := underneath(open); one != nil && state == http.StateIdle {
				c.waits(one)
			}
		},
	}
	s.http.RegisterOnShutdown(func() { // nobody new comes in from here on
		close(s.closing)
		c.closeWaiting()
		c.closeTaken()
	})
	return s
}

// underneath returns the connection that is counted, below its encryption; nil in tests that have none.
func underneath(open net.Conn) *connection {
	if encrypted, ok := open.(*tls.Conn); ok {
		open = encrypted.NetConn()
	}
	one, _ := open.(*connection)
	return one
}

// Server serves a handler on a listener.
type Server struct {
	http        *http.Server
	connections *connections
	closing     chan struct{} // is closed when the server is to end
}

// Serve serves until Close.
func (s *Server) Serve(listener net.Listener) error {
	return s.http.Serve(&bounded{listener, s.connections})
}

// ServeTLS serves encrypted until Close.
func (s *Server) ServeTLS(listener net.Listener, config *tls.Config) error {
	return s.http.Serve(tls.NewListener(&bounded{listener, s.connections}, config))
}

// Shutdown accepts no more connections, ends the streams, and waits until open requests are answered or the context
// ends. It cuts off the rest.
func (s *Server) Shutdown(ctx context.Context) error {
	err := s.http.Shutdown(ctx)
	if err != nil {
		err = errors.Join(err, s.Close())
	}
	return err
}

// Close stops the server. Streams stay open as long as their screens, so it cuts them.
func (s *Server) Close() error {
	err := s.http.Close()
	s.connections.closeTaken()
	return err
}

type (
	connectionKey struct{}
	closingKey    struct{}
)

// closing returns the channel that is closed when the server stops; nil in tests without one.
func closing(r *http.Request) <-chan struct{} {
	to, _ := r.Context().Value(closingKey{}).(chan struct{})
	return to
}

// connections counts the open connections. If there are too many it closes idle ones, the oldest of the busiest address
// first; a connection that sends its request at once is never closed.
type connections struct {
	mutex          sync.Mutex
	open           int
	from           map[string]*address
	teachers       map[string]bool
	taken          map[*connection]bool // over, from the server
	most, mostFrom int
	trusts         func(of string) bool // proxies
}

// address is the connections of one address.
type address struct {
	open    int
	waiting list.List // of *connection, those that have not asked anything yet or wait for the next question
}

// connection is one open connection.
type connection struct {
	net.Conn
	owner   *connections
	of      string
	waiting *list.Element // in its address's list; nil while it is answered
	closed  sync.Once
}

// bounded is a listener that accepts no more connections than there is room for.
type bounded struct {
	net.Listener
	connections *connections
}

func (b *bounded) Accept() (net.Conn, error) {
	for {
		open, err := b.Listener.Accept()
		if err != nil {
			return nil, err
		}
		if one := b.connections.admit(open); one != nil {
			return one, nil
		}
		open.Close()
	}
}

// admit makes room for a connection, or returns nil if there is none.
func (c *connections) admit(open net.Conn) *connection {
	of := addressOf(open.RemoteAddr().String())
	own := isLoopback(of)
	for {
		c.mutex.Lock()
		from := c.from[of]
		if from == nil {
			from = &address{}
			c.from[of] = from
		}
		own = own || c.teachers[of]
		room := c.most
		if own {
			room += keptForOwn
		}
		full := from.open >= c.mostFrom && !isLoopback(of) && !c.trusts(of)
		if !full && c.open < room {
			one := &connection{Conn: open, owner: c, of: of}
			one.waiting = from.waiting.PushBack(one)
			from.open++
			c.open++
			c.mutex.Unlock()
			return one
		}
		crowd := from
		if !full {
			crowd = c.busiest()
		}
		var oldest *connection
		if crowd != nil {
			if first := crowd.waiting.Front(); first != nil {
				oldest = first.Value.(*connection)
			}
		}
		c.mutex.Unlock()
		if oldest == nil {
			return nil
		}
		oldest.Close()
	}
}

// busiest returns the address with the most idle connections.
func (c *connections) busiest() *address {
	var most *address
	for _, one := range c.from {
		if one.waiting.Len() > 0 && (most == nil || one.waiting.Len() > most.waiting.Len()) {
			most = one
		}
	}
	return most
}

// waits notes that a connection is idle.
func (c *connections) waits(one *connection) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	if from := c.from[one.of]; from != nil && one.waiting == nil {
		one.waiting = from.waiting.PushBack(one)
	}
}

// asks notes that a request has arrived. It is answered before its connection may be closed.
func (c *connections) asks(one *connection) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	if from := c.from[one.of]; from != nil && one.waiting != nil {
		from.waiting.Remove(one.waiting)
		one.waiting = nil
	}
}

// takeOver notes that a connection is now written to directly.
func (c *connections) takeOver(one *connection) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	c.taken[one] = true
}

// closeWaiting closes the idle connections.
func (c *connections) closeWaiting() {
	c.mutex.Lock()
	var waiting []*connection
	for _, from := range c.from {
		for at := from.waiting.Front(); at != nil; at = at.Next() {
			waiting = append(waiting, at.Value.(*connection))
		}
	}
	c.mutex.Unlock()
	for _, one := range waiting {
		one.Close()
	}
}

// closeTaken closes the connections that were taken over, which the server no longer tracks.
func (c *connections) closeTaken() {
	c.mutex.Lock()
	taken := slices.Collect(maps.Keys(c.taken))
	c.mutex.Unlock()
	for _, one := range taken {
		one.Close()
	}
}

// isTeachers notes an address from which a teacher's device comes.
func (c *connections) isTeachers(of string) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	if len(c.teachers) >= mostTeachers {
		clear(c.teachers)
	}
	c.teachers[of] = true
}

// Close closes the connection and makes room for another.
func (one *connection) Close() error {
	one.closed.Do(func() {
		c := one.owner
		c.mutex.Lock()
		defer c.mutex.Unlock()
		from := c.from[one.of]
		if one.waiting != nil {
			from.waiting.Remove(one.waiting)
			one.waiting = nil
		}
		delete(c.taken, one)
		c.open--
		if from.open--; from.open == 0 {
			delete(c.from, one.of)
		}
	})
	return one.Conn.Close()
}

// connectionOf returns the connection of a request, nil in tests that have none.
func connectionOf(r *http.Request) *connection {
	one, _ := r.Context().Value(connectionKey{}).(*connection)
	return one
}

// addressOf returns from where something comes, without its port: a number, or of IPv6 the network, since one machine
// has as many numbers there as it likes.
func addressOf(remote string) string {
	ip := net.ParseIP(hostname(remote))
	if ip == nil {
		return remote
	}
	if ip.To4() == nil && !ip.IsLoopback() {
		return ip.Mask(net.CIDRMask(64, 128)).String()
	}
	return ip.String()
}

func isLoopback(of string) bool {
	ip := net.ParseIP(of)
	return ip != nil && ip.IsLoopback()
}
