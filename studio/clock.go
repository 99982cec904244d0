package studio

import (
	"sync"
	"time"
)

// Clock is the application's clock. It takes the time of day once and counts on by itself, so that a system clock
// that is set while a class runs does not move the class; and it counts while the machine sleeps, so that a class
// whose lid was closed is where the time of day says. For try-outs and tests it can run quicker.
type Clock struct {
	rate   float64
	wall   func() time.Time     // the time of day, which may be set at any moment
	uptime func() time.Duration // runs evenly, in sleep too

	mutex sync.Mutex
	from  time.Time     // what it showed
	at    time.Duration // at this uptime
}

// NewClock is the clock of real classes.
func NewClock() *Clock { return newClock(1, time.Now, uptime) }

// NewQuickClock showed real time at the moment, which is past, and has run at the rate since, in seconds a second. Two
// of the same moment and rate show the same time, as before and after a restart.
func NewQuickClock(moment time.Time, rate float64) *Clock {
	c := newClock(rate, time.Now, uptime)
	if now := time.Now(); now.After(moment) {
		c.from = moment.Add(time.Duration(float64(now.Sub(moment)) * rate)).Round(0)
	}
	return c
}

func newClock(rate float64, wall func() time.Time, uptime func() time.Duration) *Clock {
	return &Clock{rate: rate, wall: wall, uptime: uptime, from: wall().Round(0), at: uptime()}
}

// Now is the time on the clock.
func (c *Clock) Now() time.Time {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	return c.from.Add(time.Duration(float64(c.uptime()-c.at) * c.rate))
}

// Rate is how many of its seconds pass in one.
func (c *Clock) Rate() float64 { return c.rate }

// Set takes the time of day anew, which may have been corrected. For moments in which no class runs. A clock that
// runs quicker is not set.
func (c *Clock) Set() {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	if c.rate == 1 {
		c.from, c.at = c.wall().Round(0), c.uptime()
	}
}

// started is from where Go's own monotonic clock is read.
var started = time.Now()

func millis(t time.Time) float64 { return float64(t.UnixMicro()) / 1000 }
