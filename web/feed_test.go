package web

import (
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/desk"
)

// What goes wrong in what screens are told ends neither the line nor the program: the next change is told.
func TestWhatGoesWrongInALineIsAnError(t *testing.T) {
	s, err := store.Open(t.TempDir()+"/x.db", "a test")
	require.NoError(t, err)
	defer s.Close()
	d := desk.New(s, studio.NewClock())
	var wrong atomic.Bool
	wrong.Store(true)
	f := newFeed(t.Context(), d)
	line, leave := f.of("a line", func() (packed, error) {
		if wrong.Load() {
			panic("a row too far")
		}
		return packed{event: []byte("told")}, nil
	}, d.WatchRoom).join()
	defer leave()
	_, err = line.now()
	assert.Contains(t, language.English().Error(err), "a row too far")
	until := func(event string) { // a change can be told twice: once for its class and once for all
		assert.Eventually(t, func() bool { return string(line.newest().event) == event }, time.Minute, time.Millisecond)
	}
	d.NotifyAll()
	until(": it cannot be computed\n\n")
	wrong.Store(false)
	d.NotifyAll()
	until("told")
}
