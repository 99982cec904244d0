package web

import (
	"bytes"
	"encoding/json"
	"net/http"
	"strconv"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/skip2/go-qrcode"

	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// answer encodes what the studio says.
func answer[Out any](ask func(*gin.Context) (Out, error)) gin.HandlerFunc {
	return func(c *gin.Context) {
		out, err := ask(c)
		if err != nil {
			problem(c, err)
			return
		}
		c.Header("Cache-Control", "no-store")
		c.JSON(http.StatusOK, out)
	}
}

// body decodes the request for ask.
func body[In, Out any](ask func(*gin.Context, In) (Out, error)) gin.HandlerFunc {
	return answer(func(c *gin.Context) (Out, error) {
		var in In
		if err := json.NewDecoder(c.Request.Body).Decode(&in); err != nil {
			var none Out
			return none, unreadable(err)
		}
		return ask(c, in)
	})
}

func unreadable(err error) error {
	if _, tooLarge := err.(*http.MaxBytesError); tooLarge {
		return err
	}
	return &studio.Failure{Kind: studio.ErrInvalid, Problem: contract.Problem{Say: "The request is not the JSON that was expected: " + err.Error() + "."}}
}

func withID[Out any](ask func(int64) (Out, error)) gin.HandlerFunc {
	return answer(func(c *gin.Context) (Out, error) { return ask(id(c)) })
}

func bodyWithID[In, Out any](ask func(int64, In) (Out, error)) gin.HandlerFunc {
	return body(func(c *gin.Context, in In) (Out, error) { return ask(id(c), in) })
}

func named[Out any](ask func(string) (Out, error)) gin.HandlerFunc {
	return answer(func(c *gin.Context) (Out, error) { return ask(c.Param("name")) })
}

// id is the number in the address.
func id(c *gin.Context) int64 { return number(c.Param("id")) }

// number is the text as an id; what is no number is nobody's.
func number(text string) int64 {
	n, err := strconv.ParseInt(text, 10, 64)
	if err != nil {
		return 0
	}
	return n
}

func (s server) clock(c *gin.Context) {
	received := s.studio.Now()
	c.Header("Cache-Control", "no-store")
	c.JSON(http.StatusOK, s.studio.Clock(received))
}

// heartbeat keeps proxies and sleeping tabs from taking a quiet stream for a dead one; patience is how long a
// screen may take to accept a write.
const (
	heartbeat = 20 * time.Second
	patience  = 10 * time.Second
)

// stream sends the score of a class at once and again after each change, as server-sent events. Nothing is sent
// while nothing changes: the screen plays by itself.
func (s server) stream(c *gin.Context) {
	class := id(c)
	changed, stop := s.studio.Watch(class)
	defer stop()
	events(c, changed, "score", func() (any, error) { return s.studio.Score(class) })
}

// roomStream is stream for the public page of the room: whatever class is led.
func (s server) roomStream(c *gin.Context) {
	changed, stop := s.studio.WatchRoom()
	defer stop()
	code := c.Param("name")
	events(c, changed, "room", func() (any, error) { return s.studio.Room(code) })
}

// events sends what ask tells, at once and after each change, until the screen goes away.
func events(c *gin.Context, changed <-chan struct{}, name string, ask func() (any, error)) {
	if _, err := ask(); err != nil {
		problem(c, err)
		return
	}
	h := c.Writer.Header()
	h.Set("Content-Type", "text/event-stream")
	h.Set("Cache-Control", "no-store")
	control := http.NewResponseController(c.Writer)
	send := func(text []byte) bool {
		if err := control.SetWriteDeadline(time.Now().Add(patience)); err != nil {
			return false
		}
		if _, err := c.Writer.Write(text); err != nil {
			return false
		}
		return control.Flush() == nil
	}
	beat := time.NewTicker(heartbeat)
	defer beat.Stop()
	for open := send(event(name, ask)); open; {
		select {
		case <-c.Request.Context().Done():
			return
		case <-changed:
			open = send(event(name, ask))
		case <-beat.C:
			open = send([]byte(": still here\n\n"))
		}
	}
}

func event(name string, ask func() (any, error)) []byte {
	var text bytes.Buffer
	told, err := ask()
	if err != nil {
		return []byte(": it cannot be computed\n\n")
	}
	text.WriteString("event: " + name + "\ndata: ")
	if err := json.NewEncoder(&text).Encode(told); err != nil { // one line, as an event needs it
		return []byte(": it cannot be written\n\n")
	}
	text.WriteString("\n")
	return text.Bytes()
}

// qr is a QR code of the room's address, as the screen that asks would open it.
func (s server) qr(c *gin.Context) {
	code, err := s.studio.RoomCode()
	if err != nil {
		problem(c, err)
		return
	}
	const pixels = 320
	picture, err := qrcode.Encode("http://"+c.Request.Host+"/room/"+code.Code, qrcode.Medium, pixels)
	if err != nil {
		problem(c, err)
		return
	}
	c.Header("Cache-Control", "no-store")
	c.Data(http.StatusOK, "image/png", picture)
}
