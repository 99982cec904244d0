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
	boot   string               // what uptime counts from

	mutex sync.Mutex
	from  time.Time     // what it showed
	at    time.Duration // at this uptime
}

// NewClock returns the clock of real classes.
func NewClock() *Clock { return NewClockOf(1, time.Now, uptime, bootID()) }

// NewQuickClock showed real time at the moment, which is past, and has run at the rate since, in seconds a second. Two
// of the same moment and rate show the same time, as before and after a restart.
func NewQuickClock(moment time.Time, rate float64) *Clock {
	c := NewClockOf(rate, time.Now, uptime, bootID())
	if now := time.Now(); now.After(moment) {
		c.from = moment.Add(time.Duration(float64(now.Sub(moment)) * rate)).Round(0)
	}
	return c
}

// NewClockOf returns a clock on these sources: the time of day, which may be set at any moment, and an uptime that runs
// evenly; boot names what the uptime counts from, empty if that is not known.
func NewClockOf(rate float64, wall func() time.Time, uptime func() time.Duration, boot string) *Clock {
	return &Clock{rate: rate, wall: wall, uptime: uptime, boot: boot, from: wall().Round(0), at: uptime()}
}

// Now returns the time on the clock.
func (c *Clock) Now() time.Time {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	return c.from.Add(time.Duration(float64(c.uptime()-c.at) * c.rate))
}

// Rate returns how many of its seconds pass in one.
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

// Mark is what a clock showed at a moment, for a clock of the next start.
type Mark struct {
	At     time.Time     `json:"at"`
	Boot   string        `json:"boot"`   // the start of the machine that Uptime belongs to; empty if that is not known
	Uptime time.Duration `json:"uptime"` // when it showed At
}

// Mark returns what the clock shows now.
func (c *Clock) Mark() Mark {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	up := c.uptime()
	return Mark{c.from.Add(time.Duration(float64(up-c.at) * c.rate)), c.boot, up}
}

// Resume goes on from the mark: exactly where the machine has not been started anew since, else so that the clock shows
// nothing that is before it.
func (c *Clock) Resume(m Mark) {
	now := c.Now()
	c.mutex.Lock()
	defer c.mutex.Unlock()
	up := c.uptime()
	switch {
	case m.Boot != "" && m.Boot == c.boot && m.Uptime <= up:
		c.from, c.at = m.At.Add(time.Duration(float64(up-m.Uptime)*c.rate)), up
	case m.At.After(now):
		c.from, c.at = m.At, up
	}
}

// started is from where Go's own monotonic clock is read.
var started = time.Now()
