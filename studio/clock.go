package studio

import "time"

// Clock is the application's clock: the wall clock, or one that runs quicker from a moment on, for try-outs and
// tests.
type Clock struct {
	From time.Time // until then it is the wall clock
	Rate float64   // application seconds a second; 1 for the wall clock
}

// WallClock is the clock of real classes.
var WallClock = Clock{Rate: 1}

// Now is the time on the clock.
func (c Clock) Now() time.Time {
	now := time.Now()
	if c.Rate == 1 || now.Before(c.From) {
		return now
	}
	return c.From.Add(time.Duration(float64(now.Sub(c.From)) * c.Rate))
}

func millis(t time.Time) float64 { return float64(t.UnixMicro()) / 1000 }
