package web

import (
	"io"
	"net"
	"testing"

	"github.com/stretchr/testify/assert"
)

// A screen that does not read what it is sent is let go, and those beside it are told.
func TestAScreenThatIsStuckHoldsUpNobody(t *testing.T) {
	var room screens
	pipe := func() net.Conn { // without any buffer: a write ends when it is read
		ours, theirs := net.Pipe()
		t.Cleanup(func() { theirs.Close() })
		room.add(&screen{Conn: ours})
		return theirs
	}
	stuck := pipe()
	heard := make(chan string)
	for range 3 {
		reads := pipe()
		go func() {
			text := make([]byte, 5)
			_, _ = io.ReadFull(reads, text)
			heard <- string(text)
		}()
	}
	told := make(chan bool)
	go func() { room.tell([]byte("count")); close(told) }()
	for range 3 {
		assert.Equal(t, "count", <-heard)
	}
	<-told
	_, err := stuck.Read(make([]byte, 5))
	assert.ErrorIs(t, err, io.EOF, "it was closed")
}
