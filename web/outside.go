package web

import (
	"net"
	"net/http"
	"net/netip"
	"net/url"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/web/certificates"
)

// Options is from where and how the application is reached.
type Options struct {
	Reach Reach
	// Base is the address under which a proxy hands it on; nil if none does.
	Base *url.URL
	// Trusted is the proxies whose word is taken for who asks, by the header X-Forwarded-For.
	Trusted []netip.Prefix
	// Publish is where proxies take what they tell the room's screens.
	Publish []*url.URL
	// Authority is what devices can trust it by; with it the teacher's side is at the port SecurePort by TLS, and the
	// room's pages stay at PlainPort without: people who come to a class install nothing. nil if there is none.
	Authority             *certificates.Authority
	PlainPort, SecurePort string
}

// askedFrom returns from where a request comes: the address that a trusted proxy names, else that of the connection.
func (o *Options) askedFrom(r *http.Request) string {
	of := addressOf(r.RemoteAddr)
	hops := strings.Split(strings.Join(r.Header.Values("X-Forwarded-For"), ","), ",")
	for _, hop := range slices.Backward(hops) { // each proxy adds at the end who asked it
		if !o.trusts(of) {
			break
		}
		if hop = strings.TrimSpace(hop); net.ParseIP(hop) == nil {
			break
		}
		of = addressOf(hop)
	}
	return of
}

// oneForAll tells that everybody seems to come from the same address, that of a proxy whose word is not taken for who
// asks.
func (o *Options) oneForAll() bool { return o.Base != nil && len(o.Trusted) == 0 }

func (o *Options) trusts(of string) bool {
	ip, err := netip.ParseAddr(of)
	return err == nil && slices.ContainsFunc(o.Trusted, func(p netip.Prefix) bool { return p.Contains(ip.Unmap()) })
}

// secure reports whether what is sent for a request is encrypted on its way.
func (o *Options) secure(r *http.Request) bool {
	return r.TLS != nil || o.Base != nil && o.Base.Scheme == "https"
}

// forEverybody is what is served without encryption where the teacher's side has it: the room, and the way to the rest.
var forEverybody = []string{
	"/room/",
	"/room.html",
	"/assets/",
	"/api/rooms/",
	"/api/sounds/",
	"/api/clock",
	"/api/certificate",
	"/certificate",
	"/lantern.svg",
	"/icon-",
	"/favicon.ico",
	"/manifest.webmanifest",
}

// kept reports whether a request may be answered without encryption. Where it may not, it is led to the page that says
// how it goes on.
func (o *Options) kept(c *gin.Context) bool {
	path := c.Request.URL.Path
	if o.SecurePort == "" || o.secure(c.Request) || isLoopback(addressOf(c.Request.RemoteAddr)) {
		return true
	}
	if slices.ContainsFunc(forEverybody, func(prefix string) bool { return strings.HasPrefix(path, prefix) }) {
		return true
	}
	if strings.HasPrefix(path, "/api/") {
		c.AbortWithStatusJSON(http.StatusForbidden, tell("web.encrypted", "address", o.secureAddress(c.Request)))
		return false
	}
	c.Redirect(http.StatusTemporaryRedirect, "/certificate")
	c.Abort()
	return false
}

// secureAddress returns where the teacher's side is, by the name under which it is asked, or by one that can be
// trusted.
func (o *Options) secureAddress(r *http.Request) string {
	host := hostname(r.Host)
	if ip := net.ParseIP(host); ip != nil && !o.Authority.VouchesFor(ip) {
		host = certificates.Name
	}
	return "https://" + net.JoinHostPort(host, o.SecurePort)
}

// roomAddress returns how another device opens a page of the room.
func (s server) roomAddress(r *http.Request, page string) string {
	o := &s.options
	switch {
	case o.Base != nil:
		return strings.TrimSuffix(o.Base.String(), "/") + page
	case o.SecurePort != "" && r.TLS != nil:
		return "http://" + s.seenFromOutside(net.JoinHostPort(hostname(r.Host), o.PlainPort)) + page
	case r.TLS != nil:
		return "https://" + s.seenFromOutside(r.Host) + page
	}
	return "http://" + s.seenFromOutside(r.Host) + page
}

// certificate reports how a device comes to trust this machine.
func (s server) certificate(c *gin.Context) (contract.Certificate, error) {
	o := &s.options
	if o.Authority == nil {
		return contract.Certificate{}, studio.Fail(
			studio.ErrNotFound,
			"This machine was started without a certificate of its own.",
		)
	}
	return contract.Certificate{
		Fingerprint: o.Authority.Fingerprint(),
		Address:     o.secureAddress(c.Request),
		Secure:      c.Request.TLS != nil,
	}, nil
}

// certificateFile is the authority as devices install it.
func (s server) certificateFile(c *gin.Context) {
	if s.options.Authority == nil {
		problem(c, studio.Fail(studio.ErrNotFound, "This machine was started without a certificate of its own."))
		return
	}
	c.Header("Content-Disposition", `inline; filename="vast-lantern.crt"`) // a phone asks what to do with it
	c.Data(http.StatusOK, "application/x-x509-ca-cert", s.options.Authority.PEM())
}
