package web

import (
	"errors"
	"net"
	"net/http"
	"net/url"
	"os"
	"strings"
	"sync"
	"time"

	"github.com/gin-gonic/gin"

	"vastlantern/studio"
	"vastlantern/studio/access"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk"
	"vastlantern/web/certificates"
)

// Reach is from where the application may be reached.
type Reach int

const (
	// ThisMachine is the loopback address only, and nobody has to sign in.
	ThisMachine Reach = iota
	// LocalNetwork is every address of the machine; the teacher's side asks for the passcode.
	LocalNetwork
)

// guard decides which requests are allowed.
type guard struct {
	desk *desk.Desk
	*Options
	signIn *guesses
	codes  *guesses
	// Where a proxy is not trusted everybody has its address: a few wrong guesses must not keep all of them out.
	signInOfAll, codesOfAll *guesses
	pass                    pass
	// A passcode is made to take long to check: strangers do it one after the other.
	signing sync.Mutex
	cross   *http.CrossOriginProtection
}

func newGuard(s *desk.Desk, options *Options) *guard {
	return &guard{
		desk: s, Options: options, pass: newPass(), cross: http.NewCrossOriginProtection(),
		signIn: newGuesses(20, 5), // one every 20 seconds, after five
		codes:  newGuesses(2, 20), // a mistyped code of a room is forgiven sooner
		// A passcode has eight characters at least: at 43,200 guesses a day eight digits last for three years on average.
		signInOfAll: newGuesses(2, 60), codesOfAll: newGuesses(1, 200),
	}
}

// checkRequest keeps other sites out: what changes something must come from our own pages, and our pages load nothing
// from elsewhere and may not be framed.
func (g *guard) checkRequest(c *gin.Context) {
	control := http.NewResponseController(c.Writer)
	if c.Request.ContentLength != 0 {
		// Before any check and whatever the method: what refuses a request does not read its body, and the server waits for
		// the rest of it before the next one.
		_ = control.SetReadDeadline(time.Now().Add(bodyTime)) // a test's writer may have none
	}
	h := c.Writer.Header()
	h.Set("X-Content-Type-Options", "nosniff")
	if g.Base != nil &&
		g.Base.Scheme == "https" { // RFC 6797: a browser that was here once never asks without encryption again
		h.Set("Strict-Transport-Security", "max-age=31536000")
	}
	if !strings.HasPrefix(c.Request.URL.Path, "/assets/") { // these are for what is a page, or may be taken for one
		h.Set(
			"Content-Security-Policy",
			"default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; img-src 'self' data:; media-src 'self' data:; "+
				"style-src 'self' 'unsafe-inline'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'",
		)
		h.Set("X-Frame-Options", "DENY")
		h.Set("Referrer-Policy", "no-referrer")
	}
	if !g.ours(c.Request.Host) {
		c.AbortWithStatusJSON(http.StatusForbidden, tell("web.address"))
		return
	}
	if !g.kept(c) {
		return
	}
	if err := g.cross.Check(c.Request); err != nil || elsewhere(c.Request) {
		c.AbortWithStatusJSON(http.StatusForbidden, tell("web.own-pages"))
		return
	}
	_ = control.SetWriteDeadline(time.Now().Add(answerTime))
	if one := connectionOf(c.Request); one != nil {
		one.owner.asks(one)
	}
	if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
		if !strings.HasPrefix(c.ContentType(), "application/json") {
			c.AbortWithStatusJSON(http.StatusUnsupportedMediaType, tell("web.send-json"))
			return
		}
		c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, mostOf(c.Request.URL.Path))
	}
	c.Next()
}

// elsewhere detects cross-site requests, which are refused before they cost anything. Browsers mark what comes from a
// page with Sec-Fetch-Site (W3C Fetch Metadata), but not on a plain local network; there the Referer tells, which our
// own pages never send.
func elsewhere(r *http.Request) bool {
	if !strings.HasPrefix(r.URL.Path, "/api/") {
		return false
	}
	switch r.Header.Get("Sec-Fetch-Site") {
	case "same-origin", "none":
		return false
	case "":
		from, err := url.Parse(r.Referer())
		return err != nil || r.Referer() != "" && from.Host != r.Host
	}
	return true
}

// ours reports whether a request is meant for this machine. A foreign name that points here is an attack on the
// browser's rule of same origin; a number cannot be such a name.
func (g *guard) ours(host string) bool {
	name := hostname(host)
	ip := net.ParseIP(name)
	if name == "localhost" || ip != nil && ip.IsLoopback() {
		return true
	}
	if g.Base != nil {
		return strings.EqualFold(name, g.Base.Hostname())
	}
	if g.Reach == ThisMachine {
		return false
	}
	own, err := os.Hostname()
	return strings.EqualFold(name, certificates.Name) || ip != nil ||
		err == nil && (strings.EqualFold(name, own) || strings.EqualFold(name, own+".local"))
}

// hostname returns a host without its port.
func hostname(host string) string {
	if name, _, err := net.SplitHostPort(host); err == nil {
		host = name
	}
	return strings.Trim(host, "[]")
}

const (
	cookieName = "lantern"
	markName   = "lantern-known"
	markTime   = 365 * 24 * 3600 // seconds
	deviceKey  = "device"
)

// teacher admits only the teacher's devices, and notes which one it is.
func (g *guard) teacher(c *gin.Context) {
	if g.Reach == ThisMachine {
		return
	}
	device, err := g.device(c)
	switch {
	case errors.Is(err, studio.ErrNotFound):
		c.AbortWithStatusJSON(http.StatusUnauthorized, tell("web.sign-in"))
	case err != nil:
		problem(c, err)
		c.Abort()
	default:
		c.Set(deviceKey, device)
		if one := connectionOf(c.Request); one != nil {
			one.owner.isTeachers(one.of)
		}
	}
}

// device returns the name of the requesting device. A device in use stays signed in.
func (g *guard) device(c *gin.Context) (string, error) {
	token, err := c.Cookie(cookieName)
	if err != nil {
		return "", studio.ErrNotFound
	}
	device, renewed, err := g.desk.Access.SignedIn(contextOf(c), token)
	if renewed {
		g.giveCookie(c, token, int(access.SessionTime.Seconds()))
	}
	return device, err
}

// giveCookie lets the browser keep the token, out of reach of scripts and of other sites. It goes back encrypted only,
// where it came so: on a local network there may be no certificate.
func (g *guard) giveCookie(c *gin.Context, token string, seconds int) {
	http.SetCookie(c.Writer, &http.Cookie{
		Name:     cookieName,
		Value:    token,
		Path:     "/",
		MaxAge:   seconds,
		HttpOnly: true,
		Secure:   g.secure(c.Request),
		SameSite: http.SameSiteStrictMode,
	})
}

// stillIn reports whether a device may keep its stream open.
func (g *guard) stillIn(c *gin.Context) bool {
	if g.Reach == ThisMachine {
		return true
	}
	token, err := c.Cookie(cookieName)
	if err != nil {
		return false
	}
	_, err = g.desk.Access.Device(contextOf(c), token)
	return !errors.Is(err, studio.ErrNotFound) // where the data file cannot be read, nobody is cut off
}

func (g *guard) session(c *gin.Context) (contract.Session, error) {
	if g.Reach == ThisMachine {
		return contract.Session{SignedIn: true}, nil
	}
	device, err := g.device(c)
	if errors.Is(err, studio.ErrNotFound) {
		return contract.Session{Needed: true}, nil
	}
	return contract.Session{Needed: true, SignedIn: err == nil, Device: device}, err
}

func (g *guard) enter(c *gin.Context, in contract.SignIn) (contract.Session, error) {
	if g.Reach == ThisMachine {
		return g.session(c)
	}
	of, guesses := g.guesser(c)
	if err := guesses.try(of); err != nil {
		return contract.Session{}, err
	}
	if !isLoopback(of) || g.oneForAll() { // the machine itself does not wait for others
		g.signing.Lock()
		defer g.signing.Unlock()
	}
	token, err := g.desk.Access.SignIn(contextOf(c), in.Passcode, in.Device)
	if errors.Is(err, access.ErrPasscode) {
		return contract.Session{}, invalid("web.passcode")
	}
	if err != nil {
		return contract.Session{}, err
	}
	g.giveCookie(c, token, int(access.SessionTime.Seconds()))
	mark, err := g.desk.Access.Mark(contextOf(c))
	if err != nil {
		return contract.Session{}, err
	}
	http.SetCookie(c.Writer, &http.Cookie{
		Name:     markName,
		Value:    mark,
		Path:     "/api/session",
		MaxAge:   markTime,
		HttpOnly: true,
		Secure:   g.secure(c.Request),
		SameSite: http.SameSiteStrictMode,
	})
	device, _, err := g.desk.Access.SignedIn(contextOf(c), token)
	return contract.Session{Needed: true, SignedIn: true, Device: device}, err
}

// guesser returns whose wrong guesses count together, and how many are forgiven. A device that gave the passcode before
// is known.
func (g *guard) guesser(c *gin.Context) (string, *guesses) {
	if mark, err := c.Cookie(markName); err == nil {
		if device, is := g.desk.Access.IsMarked(contextOf(c), mark); is {
			return "device " + device, g.signIn
		}
	}
	if g.oneForAll() {
		return g.askedFrom(c.Request), g.signInOfAll
	}
	return g.askedFrom(c.Request), g.signIn
}

func (g *guard) leave(c *gin.Context) (contract.Session, error) {
	if token, err := c.Cookie(cookieName); err == nil {
		if err := g.desk.Access.SignOut(contextOf(c), token); err != nil {
			return contract.Session{}, err
		}
	}
	g.giveCookie(c, "", -1)
	return contract.Session{Needed: g.Reach == LocalNetwork}, nil
}

// room lets on only with the room's code, and counts wrong ones, so that nobody finds it by trying.
func (g *guard) room(c *gin.Context) {
	code := c.Param("name")
	if g.pass.has(c, code) {
		return
	}
	guesses := g.codes
	if g.oneForAll() {
		guesses = g.codesOfAll
	}
	right, err := guesses.guess(g.askedFrom(c.Request), func() (bool, error) {
		return g.desk.Audience.IsRoom(contextOf(c),
			code)
	})
	switch {
	case err != nil:
		problem(c, err)
		c.Abort()
	case right:
		g.pass.give(c, code)
	} // a wrong one is told by what follows
}
