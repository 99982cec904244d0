package web

import (
	"errors"
	"math"
	"net"
	"net/http"
	"net/url"
	"os"
	"strconv"
	"strings"
	"sync"

	"github.com/gin-gonic/gin"
	"golang.org/x/time/rate"

	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Reach is from where the application may be reached.
type Reach int

const (
	// ThisMachine is the loopback address only, and nobody has to sign in.
	ThisMachine Reach = iota
	// LocalNetwork is every address of the machine; the teacher's side asks for the passcode.
	LocalNetwork
)

// door decides who comes in, and to what.
type door struct {
	studio *studio.Studio
	reach  Reach
	signIn *tries
	codes  *tries
}

func newDoor(s *studio.Studio, reach Reach) *door {
	return &door{
		studio: s, reach: reach,
		signIn: newTries(20, 5), // one every 20 seconds, after five
		codes:  newTries(2, 20), // a mistyped code of a room is forgiven sooner
	}
}

// guard keeps other sites out: what changes something must come from our own pages, and our pages load nothing from
// elsewhere and stand in nobody's frame.
func (d *door) guard(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("Content-Security-Policy", "default-src 'self'; img-src 'self' data:; style-src 'self' 'unsafe-inline'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("X-Frame-Options", "DENY")
	h.Set("Referrer-Policy", "no-referrer")
	if !d.ours(c.Request.Host) {
		c.AbortWithStatusJSON(http.StatusForbidden, contract.Problem{Say: "This address is not served. Open the one that was printed at the start."})
		return
	}
	if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
		origin := c.GetHeader("Origin")
		from, err := url.Parse(origin)
		if origin != "" && (err != nil || from.Host != c.Request.Host) {
			c.AbortWithStatusJSON(http.StatusForbidden, contract.Problem{Say: "Changes are taken from the application's own pages only."})
			return
		}
		if !strings.HasPrefix(c.ContentType(), "application/json") {
			c.AbortWithStatusJSON(http.StatusUnsupportedMediaType, contract.Problem{Say: "Send JSON."})
			return
		}
		c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, mostBody)
	}
	c.Next()
}

// ours tells whether a request was meant for this machine. A foreign name that points here is an attack on the
// browser's rule of same origin; a number cannot be such a name.
func (d *door) ours(host string) bool {
	name := hostname(host)
	ip := net.ParseIP(name)
	if name == "localhost" || ip != nil && ip.IsLoopback() {
		return true
	}
	if d.reach == ThisMachine {
		return false
	}
	own, err := os.Hostname()
	return ip != nil || err == nil && (strings.EqualFold(name, own) || strings.EqualFold(name, own+".local"))
}

// hostname is a host without its port.
func hostname(host string) string {
	if name, _, err := net.SplitHostPort(host); err == nil {
		host = name
	}
	return strings.Trim(host, "[]")
}

const (
	cookieName = "lantern"
	deviceKey  = "device"
)

// teacher lets only the teacher's devices on, and notes which one it is.
func (d *door) teacher(c *gin.Context) {
	if d.reach == ThisMachine {
		return
	}
	device, err := d.device(c)
	switch {
	case errors.Is(err, studio.ErrNotFound):
		c.AbortWithStatusJSON(http.StatusUnauthorized, contract.Problem{Say: "Sign in with the passcode first. Nothing on this screen is lost."})
	case err != nil:
		problem(c, err)
		c.Abort()
	default:
		c.Set(deviceKey, device)
	}
}

// device is the name of the device that asks. What is used stays signed in.
func (d *door) device(c *gin.Context) (string, error) {
	token, err := c.Cookie(cookieName)
	if err != nil {
		return "", studio.ErrNotFound
	}
	device, renewed, err := d.studio.SignedIn(token)
	if renewed {
		giveCookie(c, token, int(studio.SessionTime.Seconds()))
	}
	return device, err
}

// giveCookie lets the browser keep the token, out of reach of scripts and of other sites. It is not marked Secure,
// since on a local network there is no certificate.
func giveCookie(c *gin.Context, token string, seconds int) {
	http.SetCookie(c.Writer, &http.Cookie{Name: cookieName, Value: token, Path: "/", MaxAge: seconds, HttpOnly: true, SameSite: http.SameSiteStrictMode})
}

func (d *door) session(c *gin.Context) (contract.Session, error) {
	if d.reach == ThisMachine {
		return contract.Session{SignedIn: true}, nil
	}
	device, err := d.device(c)
	if errors.Is(err, studio.ErrNotFound) {
		return contract.Session{Needed: true}, nil
	}
	return contract.Session{Needed: true, SignedIn: err == nil, Device: device}, err
}

func (d *door) enter(c *gin.Context, in contract.SignIn) (contract.Session, error) {
	if d.reach == ThisMachine {
		return d.session(c)
	}
	if wait := d.signIn.try(c.RemoteIP()); wait > 0 {
		return contract.Session{}, tooMany(wait)
	}
	token, err := d.studio.SignIn(in.Passcode, in.Device)
	if errors.Is(err, studio.ErrPasscode) {
		return contract.Session{}, &studio.Failure{Kind: studio.ErrInvalid, Problem: contract.Problem{Say: "This is not the passcode. Where it is forgotten, set another one on the machine that serves: lantern passcode."}}
	}
	if err != nil {
		return contract.Session{}, err
	}
	giveCookie(c, token, int(studio.SessionTime.Seconds()))
	device, _, err := d.studio.SignedIn(token)
	return contract.Session{Needed: true, SignedIn: true, Device: device}, err
}

func (d *door) leave(c *gin.Context) (contract.Session, error) {
	if token, err := c.Cookie(cookieName); err == nil {
		if err := d.studio.SignOut(token); err != nil {
			return contract.Session{}, err
		}
	}
	giveCookie(c, "", -1)
	return contract.Session{Needed: d.reach == LocalNetwork}, nil
}

// room counts codes that are no room's, so that nobody finds one by trying.
func (d *door) room(c *gin.Context) {
	if wait := d.codes.wait(c.RemoteIP()); wait > 0 {
		problem(c, tooMany(wait))
		c.Abort()
		return
	}
	c.Next()
	if c.Writer.Status() == http.StatusNotFound {
		d.codes.try(c.RemoteIP())
	}
}

type tooManyTries struct{ seconds int }

func tooMany(seconds int) error { return &tooManyTries{seconds} }

func (t *tooManyTries) Error() string {
	return "These were too many tries. Wait " + strconv.Itoa(t.seconds) + " seconds."
}

// tries limits how often something is tried: from one address, and ten times as often from all of them together.
type tries struct {
	every float64 // seconds
	burst int

	mutex sync.Mutex
	all   *rate.Limiter
	from  map[string]*rate.Limiter
}

const manyAddresses = 1000 // more are forgotten: what all of them together may try stays limited

func newTries(every float64, burst int) *tries {
	return &tries{every: every, burst: burst, all: rate.NewLimiter(rate.Limit(10/every), 10*burst), from: map[string]*rate.Limiter{}}
}

func (t *tries) of(address string) *rate.Limiter {
	l := t.from[address]
	if l == nil {
		if len(t.from) >= manyAddresses {
			clear(t.from)
		}
		l = rate.NewLimiter(rate.Limit(1/t.every), t.burst)
		t.from[address] = l
	}
	return l
}

// try counts a try, and returns for how many seconds there must be none; 0 where this one may be.
func (t *tries) try(address string) int {
	t.mutex.Lock()
	defer t.mutex.Unlock()
	if t.of(address).Allow() && t.all.Allow() {
		return 0
	}
	return int(math.Ceil(t.every))
}

// wait is try without counting.
func (t *tries) wait(address string) int {
	t.mutex.Lock()
	defer t.mutex.Unlock()
	if t.of(address).Tokens() >= 1 && t.all.Tokens() >= 1 {
		return 0
	}
	return int(math.Ceil(t.every))
}
