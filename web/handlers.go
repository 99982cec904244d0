package web

import (
	"context"
	"encoding/json"
	"errors"
	"io"
	"mime"
	"net"
	"net/http"
	"os"
	"reflect"
	"strconv"
	"strings"
	"time"
	"unicode"

	"github.com/gin-gonic/gin"

	"vastlantern/core/fact"
	"vastlantern/core/sheet"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// contextOf returns the context of what a request asks. What only asks stops with the request; what changes something
// is finished, though the phone that pressed goes away.
func contextOf(c *gin.Context) context.Context {
	if c.Request.Method == http.MethodGet || c.Request.Method == http.MethodHead {
		return c.Request.Context()
	}
	return context.WithoutCancel(c.Request.Context())
}

// answer encodes what the studio says.
func answer[Out any](ask func(*gin.Context) (Out, error)) gin.HandlerFunc {
	return telling(nil, func(c *gin.Context) {
		out, err := ask(c)
		if err != nil {
			problem(c, err)
			return
		}
		c.Header("Cache-Control", "no-store")
		c.JSON(http.StatusOK, sent(out))
	})
}

// sent returns what is written of an answer, which may know better than json does.
func sent(out any) any {
	if special, is := out.(interface{ Sent() any }); is {
		return special.Sent()
	}
	return out
}

// download sends a file to be saved.
func download(ask func(*gin.Context) (studio.File, error)) gin.HandlerFunc {
	return func(c *gin.Context) {
		file, err := ask(c)
		if err != nil {
			problem(c, err)
			return
		}
		if c.Writer.Header().Get("Cache-Control") == "" {
			c.Header("Cache-Control", "no-store")
		}
		c.Header("Content-Disposition", mime.FormatMediaType("attachment", map[string]string{"filename": file.Name}))
		c.Data(http.StatusOK, file.Type, file.Data)
	}
}

// body decodes the request for ask.
func body[In, Out any](ask func(*gin.Context, In) (Out, error)) gin.HandlerFunc {
	return telling(reflect.TypeFor[In](), answer(func(c *gin.Context) (Out, error) {
		var in In
		if err := decode(c, &in); err != nil {
			var none Out
			return none, err
		}
		return ask(c, in)
	}))
}

// decode reads the request as JSON of a sane form.
func decode(c *gin.Context, in any) error {
	text, err := io.ReadAll(c.Request.Body)
	if err != nil {
		return unreadable(err)
	}
	_ = http.NewResponseController(c.Writer).SetReadDeadline(time.Time{}) // it has arrived; the answer may take longer
	if depth := sheet.Depth(text); depth > sheet.MostDepth {
		return invalid("web.too-deep", "depth", depth, "most", sheet.MostDepth)
	}
	if control := sheet.ControlCharacter(text); control != "" {
		return invalid("web.control-character", "character", control)
	}
	if err := json.Unmarshal(text, in); err != nil {
		return unreadable(err)
	}
	return nil
}

func invalid(id string, args ...any) error { return studio.Fail(studio.ErrInvalid, id, args...) }

// tell returns a problem that is only a message.
func tell(id string, args ...any) contract.Problem {
	return contract.Problem{Say: fact.New(id, args...)}
}

// searched decodes a search of taught classes for ask.
func searched[Out any](ask func(context.Context, contract.Search) (Out, error)) func(*gin.Context) (Out, error) {
	return func(c *gin.Context) (Out, error) {
		var search contract.Search
		for _, values := range c.Request.URL.Query() {
			for _, value := range values {
				if strings.ContainsFunc(value, unicode.IsControl) {
					var none Out
					return none, invalid("web.control-in-search")
				}
			}
		}
		if err := c.ShouldBindQuery(&search); err != nil {
			var none Out
			return none, unreadable(err)
		}
		return ask(contextOf(c), search)
	}
}

func unreadable(err error) error {
	if _, tooLarge := err.(*http.MaxBytesError); tooLarge || errors.Is(err, os.ErrDeadlineExceeded) {
		return err
	}
	return invalid("web.not-json", "why", err)
}

func withID[Out any](ask func(context.Context, int64) (Out, error)) gin.HandlerFunc {
	return answer(func(c *gin.Context) (Out, error) { return ask(contextOf(c), id(c)) })
}

func bodyWithID[In, Out any](ask func(context.Context, int64, In) (Out, error)) gin.HandlerFunc {
	return body(func(c *gin.Context, in In) (Out, error) { return ask(contextOf(c), id(c), in) })
}

func named[Out any](ask func(context.Context, string) (Out, error)) gin.HandlerFunc {
	return answer(func(c *gin.Context) (Out, error) { return ask(contextOf(c), c.Param("name")) })
}

// id returns the number in the address.
func id(c *gin.Context) int64 { return number(c.Param("id")) }

// number returns the text as an id; what is no number is nobody's.
func number(text string) int64 {
	n, err := strconv.ParseInt(text, 10, 64)
	if err != nil {
		return 0
	}
	return n
}

func (s server) clock(c *gin.Context) {
	received := s.desk.Now()
	c.Header("Cache-Control", "no-store")
	c.JSON(http.StatusOK, s.desk.ClockAnswer(received))
}

// roomCode reports how the room's screen is opened from where the application is reached.
func (s server) roomCode(c *gin.Context) (contract.RoomCode, error) {
	code, err := s.desk.Audience.RoomCode(contextOf(c))
	return contract.RoomCode{
		Code:     code,
		Address:  s.roomAddress(c.Request, "/room/"+code),
		OnlyHere: s.options.Reach == ThisMachine,
	}, err
}

// seenFromOutside returns the address that another device would open: not the loopback address, if there is one that
// others reach.
func (s server) seenFromOutside(host string) string {
	name, port, err := net.SplitHostPort(host)
	ip := net.ParseIP(hostname(host))
	if s.options.Reach == ThisMachine || err != nil || name != "localhost" && !ip.IsLoopback() {
		return host
	}
	for _, address := range Addresses() {
		return net.JoinHostPort(address, port)
	}
	return host
}

// Addresses returns the machine's own addresses on its networks, in the version of numbers that people can read out.
func Addresses() []string {
	all, err := net.InterfaceAddrs()
	if err != nil {
		return nil
	}
	var list []string
	for _, address := range all {
		if network, ok := address.(*net.IPNet); ok && network.IP.To4() != nil && !network.IP.IsLoopback() &&
			!network.IP.IsLinkLocalUnicast() {
			list = append(list, network.IP.String())
		}
	}
	return list
}

// qr is a QR code of the room's address.
func (s server) qr(c *gin.Context) {
	room, err := s.roomCode(c)
	if err != nil {
		problem(c, err)
		return
	}
	picture, err := qrPicture(room.Address)
	if err != nil {
		problem(c, err)
		return
	}
	c.Header("Cache-Control", "no-store")
	c.Data(http.StatusOK, "image/png", picture)
}
