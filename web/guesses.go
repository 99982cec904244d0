package web

import (
	"crypto/hmac"
	"crypto/rand"
	"crypto/sha256"
	"encoding/hex"
	"math"
	"net/http"
	"strings"
	"sync"

	"vastlantern/core/fact"

	"github.com/gin-gonic/gin"
	lru "github.com/hashicorp/golang-lru/v2"
	"golang.org/x/time/rate"
)

type tooManyGuesses struct{ seconds int }

// Tell says how long to wait.
func (t *tooManyGuesses) Tell() fact.Fact { return fact.New("web.wait", "seconds", t.seconds) }

func (t *tooManyGuesses) Error() string { return t.Tell().Error() }

// guesses limits how often one address may guess wrong. No address is kept waiting because of another one.
type guesses struct {
	every float64 // seconds
	burst int

	mutex sync.Mutex
	from  *lru.Cache[string, *rate.Limiter]
}

// mostAddresses is how many addresses are remembered; of more, those that guessed longest ago are forgotten.
const mostAddresses = 10_000

func newGuesses(every float64, burst int) *guesses {
	from, err := lru.New[string, *rate.Limiter](mostAddresses)
	if err != nil {
		panic(err) // only of a size under 1
	}
	return &guesses{every: every, burst: burst, from: from}
}

// try counts a try before it is known whether it is right, for what takes long to find out.
func (g *guesses) try(of string) error {
	g.mutex.Lock()
	defer g.mutex.Unlock()
	if !g.limiter(of).Allow() {
		return g.tooMany()
	}
	return nil
}

func (g *guesses) limiter(of string) *rate.Limiter {
	limit, known := g.from.Get(of)
	if !known {
		limit = rate.NewLimiter(rate.Limit(1/g.every), g.burst)
		g.from.Add(of, limit)
	}
	return limit
}

func (g *guesses) tooMany() error { return &tooManyGuesses{int(math.Ceil(g.every))} }

// guess asks whether a guess is right and counts it where it is not. Nothing is asked of an address that has none left:
// the error says how long to wait. One after the other, so that many at once are not one.
func (g *guesses) guess(of string, right func() (bool, error)) (bool, error) {
	g.mutex.Lock()
	defer g.mutex.Unlock()
	limit, known := g.from.Get(of)
	if known && limit.Tokens() < 1 {
		return false, g.tooMany()
	}
	is, err := right()
	if err != nil || is {
		return is, err
	}
	g.limiter(of).Allow()
	return false, nil
}

// pass is what a phone keeps that has come in with the room's code, so that wrong guesses from behind the same address
// do not keep it out. It holds until the program ends.
type pass struct{ secret []byte }

const passName = "room"

func newPass() pass {
	secret := make([]byte, 32)
	rand.Read(secret) // never fails
	return pass{secret}
}

func (p pass) of(code string) string {
	mac := hmac.New(sha256.New, p.secret)
	mac.Write([]byte(strings.ToUpper(code)))
	return hex.EncodeToString(mac.Sum(nil))
}

func (p pass) has(c *gin.Context, code string) bool {
	shown, err := c.Cookie(passName)
	return err == nil && hmac.Equal([]byte(shown), []byte(p.of(code)))
}

func (p pass) give(c *gin.Context, code string) {
	http.SetCookie(
		c.Writer,
		&http.Cookie{
			Name:     passName,
			Value:    p.of(code),
			Path:     "/api/rooms/",
			HttpOnly: true,
			SameSite: http.SameSiteStrictMode,
		},
	)
}
