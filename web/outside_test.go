package web_test

import (
	"crypto/tls"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"net/netip"
	"net/url"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
	"vastlantern/web"
	"vastlantern/web/certificates"
)

// asked answers a request that comes from somewhere, without a network.
func asked(handler http.Handler, method, address, from, body string, change func(*http.Request)) *http.Response {
	request := httptest.NewRequest(method, address, strings.NewReader(body))
	request.RemoteAddr = from
	request.Header.Set("Content-Type", "application/json")
	if change != nil {
		change(request)
	}
	answer := httptest.NewRecorder()
	handler.ServeHTTP(answer, request)
	return answer.Result()
}

func text(t *testing.T, r *http.Response) string {
	t.Helper()
	all, err := io.ReadAll(r.Body)
	require.NoError(t, err)
	return string(all)
}

// Where a proxy encrypts, browsers are told to come back encrypted only; on a plain network they could not come back at
// all.
func TestBrowsersComeBackEncryptedBehindAProxyThatEncrypts(t *testing.T) {
	for address, want := range map[string]string{"https://lantern.example.org": "max-age=31536000",
		"http://lantern.example.org": ""} {
		base, err := url.Parse(address)
		require.NoError(t, err)
		server, _ := reached(t, web.Options{Reach: web.LocalNetwork, Base: base})
		answer := asked(server.Config.Handler, "GET", address+"/api/clock", "10.1.2.3:1000", "", nil)
		assert.Equal(t, want, answer.Header.Get("Strict-Transport-Security"), address)
	}
}

// Where the proxy is not named everybody comes from its address: wrong guesses of a stranger keep nobody out.
func TestAProxyThatIsNotTrustedKeepsNobodyOut(t *testing.T) {
	base, err := url.Parse("https://lantern.example.org")
	require.NoError(t, err)
	server, _ := reached(t, web.Options{Reach: web.LocalNetwork, Base: base})
	guess := func(passcode string, mark *http.Cookie) *http.Response {
		body := fmt.Sprintf(`{"passcode": %q, "device": "x"}`, passcode)
		return asked(
			server.Config.Handler,
			"POST",
			"https://lantern.example.org/api/session",
			"127.0.0.1:1000",
			body,
			func(r *http.Request) {
				if mark != nil {
					r.AddCookie(mark)
				}
			},
		)
	}
	for range 10 {
		require.Equal(t, http.StatusUnprocessableEntity, guess("no", nil).StatusCode)
	}
	in := guess(passcode, nil)
	require.Equal(t, http.StatusOK, in.StatusCode, "somebody else")
	cookies := in.Cookies()
	mark := cookies[slices.IndexFunc(cookies, func(c *http.Cookie) bool { return c.Name == "lantern-known" })]

	// A device that signed in before has a measure of its own, and does not wait for strangers.
	for range 5 {
		require.Equal(t, http.StatusUnprocessableEntity, guess("no", mark).StatusCode)
	}
	assert.Equal(t, http.StatusTooManyRequests, guess(passcode, mark).StatusCode)
	forged := *mark
	forged.Value = "MADEUP." + strings.Repeat("0", 64)
	assert.Equal(t, http.StatusUnprocessableEntity, guess("no", &forged).StatusCode, "who makes a mark up is a stranger")
}

// Behind a proxy that is trusted each person has their own measure of guesses; nobody else's word is taken for where it
// comes from.
func TestWhoAsksBehindAProxy(t *testing.T) {
	base, err := url.Parse("https://lantern.example.org")
	require.NoError(t, err)
	server, _ := reached(
		t,
		web.Options{Reach: web.LocalNetwork, Base: base, Trusted: []netip.Prefix{netip.MustParsePrefix("10.0.0.0/8")}},
	)
	guess := func(from, forwarded string) int {
		return asked(
			server.Config.Handler,
			"POST",
			"https://lantern.example.org/api/session",
			from,
			`{"passcode": "no", "device": "x"}`,
			func(r *http.Request) {
				r.Header.Set("X-Forwarded-For", forwarded)
			},
		).StatusCode
	}
	for range 5 {
		require.Equal(t, http.StatusUnprocessableEntity, guess("10.1.2.3:1000", "203.0.113.5"))
	}
	assert.Equal(t, http.StatusTooManyRequests, guess("10.1.2.3:1000", "203.0.113.5"))
	assert.Equal(
		t,
		http.StatusTooManyRequests,
		guess("10.1.2.3:1000", "198.51.100.7, 203.0.113.5"),
		"what comes before the last is made up by who asks",
	)
	assert.Equal(t, http.StatusTooManyRequests, guess("10.1.2.3:1000", "203.0.113.5, 10.9.9.9"), "two proxies")
	assert.Equal(t, http.StatusUnprocessableEntity, guess("10.1.2.3:1000", "203.0.113.6"), "somebody else does not wait")
	for range 5 {
		require.Equal(t, http.StatusUnprocessableEntity, guess("192.0.2.1:1000", "203.0.113.9"))
	}
	assert.Equal(
		t,
		http.StatusTooManyRequests,
		guess("192.0.2.1:1000", "203.0.113.10"),
		"one that is not trusted is who asks",
	)

	response := asked(
		server.Config.Handler,
		"POST",
		"https://lantern.example.org/api/session",
		"10.1.2.3:1000",
		`{"passcode": "`+passcode+`", "device": "x"}`,
		func(r *http.Request) {
			r.Header.Set("X-Forwarded-For", "203.0.113.77")
		},
	)
	require.Equal(t, http.StatusOK, response.StatusCode)
	for _, cookie := range response.Cookies() {
		assert.True(t, cookie.Secure, cookie.Name)
	}
	cookie := response.Cookies()[0]
	room := asked(
		server.Config.Handler,
		"GET",
		"https://lantern.example.org/api/room",
		"10.1.2.3:1000",
		"",
		func(r *http.Request) { r.AddCookie(cookie) },
	)
	assert.Contains(t, text(t, room), `"https://lantern.example.org/room/`)
	assert.Equal(
		t,
		http.StatusForbidden,
		asked(server.Config.Handler, "GET", "http://192.168.1.5/api/clock", "10.1.2.3:1", "", nil).StatusCode,
		"only under its own address",
	)
}

// With a certificate of its own the teacher's side is never sent in the clear; the room is as it was.
func TestTheTeachersSideIsEncrypted(t *testing.T) {
	authority, err := certificates.Own(filepath.Join(t.TempDir(), "x.db"), time.Now)
	require.NoError(t, err)
	server, _ := reached(
		t,
		web.Options{Reach: web.LocalNetwork, Authority: authority, PlainPort: "7777", SecurePort: "7778"},
	)
	handler := server.Config.Handler
	const phone = "192.168.1.20:1000"
	plain := asked(
		handler,
		"POST",
		"http://192.168.1.5:7777/api/session",
		phone,
		`{"passcode": "`+passcode+`", "device": "x"}`,
		nil,
	)
	assert.Equal(t, http.StatusForbidden, plain.StatusCode)
	assert.Contains(t, text(t, plain), "https://192.168.1.5:7778")
	for _, page := range []string{"/", "/lead/1", "/plan/3"} {
		response := asked(handler, "GET", "http://lantern.local:7777"+page, phone, "", nil)
		assert.Equal(t, http.StatusTemporaryRedirect, response.StatusCode)
		assert.Equal(t, "/certificate", response.Header.Get("Location"))
	}
	for _, page := range []string{"/certificate", "/room/ABCDE", "/api/clock", "/api/certificate/file"} {
		assert.Equal(
			t,
			http.StatusOK,
			asked(handler, "GET", "http://lantern.local:7777"+page, phone, "", nil).StatusCode,
			page,
		)
	}
	file := asked(handler, "GET", "http://lantern.local:7777/api/certificate/file", phone, "", nil)
	assert.Equal(t, "application/x-x509-ca-cert", file.Header.Get("Content-Type"))
	assert.Equal(t, string(authority.PEM()), text(t, file))

	encrypted := func(r *http.Request) { r.TLS = &tls.ConnectionState{} }
	response := asked(
		handler,
		"POST",
		"https://lantern.local:7778/api/session",
		phone,
		`{"passcode": "`+passcode+`", "device": "x"}`,
		encrypted,
	)
	require.Equal(t, http.StatusOK, response.StatusCode)
	cookie := response.Cookies()[0]
	assert.True(t, cookie.Secure)
	room := asked(
		handler,
		"GET",
		"https://lantern.local:7778/api/room",
		phone,
		"",
		func(r *http.Request) { encrypted(r); r.AddCookie(cookie) },
	)
	assert.Contains(t, text(t, room), `"http://lantern.local:7777/room/`, "people who come to a class install nothing")
	here := asked(handler, "GET", "http://127.0.0.1:7777/", "127.0.0.1:1000", "", nil)
	assert.Equal(t, http.StatusOK, here.StatusCode, "on the machine itself nothing goes over a network")

	without, _ := lan(t)
	var problem contract.Problem
	status, _ := newDevice(t, without).call("GET", "/api/certificate", "", &problem)
	assert.Equal(t, http.StatusNotFound, status)
}

// What the front end consists of has the types that browsers ask for, whatever the system takes them for.
func TestTheTypesOfTheFrontEnd(t *testing.T) {
	server, _ := lan(t)
	for path, kind := range map[string]string{"/manifest.webmanifest": "application/manifest+json",
		"/lantern.svg": "image/svg+xml", "/icon-192.png": "image/png"} {
		response := asked(server.Config.Handler, "GET", "http://127.0.0.1"+path, "127.0.0.1:1", "", nil)
		assert.Equal(t, http.StatusOK, response.StatusCode, path)
		assert.Equal(t, kind, response.Header.Get("Content-Type"), path)
	}
}
