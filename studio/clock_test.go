package studio

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// machine is a time of day that somebody sets, and an uptime that only runs.
type machine struct {
	day time.Time
	up  time.Duration
}

func (m *machine) pass(d time.Duration) { m.day, m.up = m.day.Add(d), m.up+d }

func (m *machine) clock(rate float64) *Clock {
	return NewClockOf(rate, func() time.Time { return m.day }, func() time.Duration { return m.up }, "this start")
}

func TestASystemClockThatIsSetDoesNotMoveAClass(t *testing.T) {
	noon := time.Date(2026, 3, 2, 12, 0, 0, 0, time.UTC)
	m := &machine{day: noon, up: 90 * time.Second}
	c := m.clock(1)
	m.pass(time.Minute)
	m.day = m.day.Add(-time.Hour) // corrected
	assert.Equal(t, noon.Add(time.Minute), c.Now(), "the class goes on from where it was")
	m.pass(10 * time.Minute) // a lid that was closed counts
	assert.Equal(t, noon.Add(11*time.Minute), c.Now())
	c.Set()
	assert.Equal(t, noon.Add(-49*time.Minute), c.Now(), "before the next class the correction is taken")
	m.pass(time.Second)
	assert.Equal(t, m.day, c.Now())
}

func TestAQuickClock(t *testing.T) {
	m := &machine{day: time.Date(2026, 3, 2, 12, 0, 0, 0, time.UTC)}
	c := m.clock(20)
	m.pass(10 * time.Second)
	assert.Equal(t, 200*time.Second, c.Now().Sub(m.day.Add(-10*time.Second)))
	ahead := c.Now()
	c.Set()
	assert.Equal(t, ahead, c.Now(), "it is not set: a class could be running ahead of the day")

	moment := time.Now().Add(-10 * time.Second)
	before, after := NewQuickClock(moment, 20), NewQuickClock(moment, 20)
	assert.WithinDuration(t, before.Now(), after.Now(), 2*time.Second, "the same after a restart")
	assert.WithinDuration(t, moment.Add(200*time.Second), after.Now(), 5*time.Second)
	assert.WithinDuration(t, time.Now(), NewClock().Now(), time.Second)
}

func TestUptimeRuns(t *testing.T) {
	before := uptime()
	for uptime() == before { // stands still only if it is broken, and then the test runs out of time
		time.Sleep(time.Microsecond)
	}
	assert.Greater(t, uptime(), before)
}
