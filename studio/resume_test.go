package studio

import (
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/store"
	"vastlantern/studio/contract"
)

// A clock that is set back in the middle of a class, with a restart of the program or of the whole machine, takes the class
// nowhere: its time goes on and never back.
func TestTimeOfAClassNeverRunsBackwards(t *testing.T) {
	for name, c := range map[string]struct {
		set    time.Duration // of the time of day, while the program is down
		reboot bool
		within time.Duration // how exactly it goes on
	}{
		"set back":                       {-time.Hour, false, 0},
		"set ahead":                      {time.Hour, false, 0},
		"set back, machine restarted":    {-time.Hour, true, noteTimeEvery},
		"not set, machine restarted":     {0, true, 0},
		"a year back, machine restarted": {-365 * 24 * time.Hour, true, noteTimeEvery},
	} {
		m := &machine{day: time.Date(2026, 3, 2, 18, 30, 0, 0, time.UTC), up: time.Hour}
		path := filepath.Join(t.TempDir(), "x.db")
		boot := "first"
		start := func() (*Studio, func()) {
			st, err := store.Open(path, "a test")
			require.NoError(t, err)
			clock := newClock(1, func() time.Time { return m.day }, func() time.Duration { return m.up }, boot)
			s := New(st, clock)
			require.NoError(t, s.Resume())
			return s, func() { require.NoError(t, st.Close()) }
		}
		s, stop := start()
		plan, err := s.AddPlan([]byte(`{"format": "vast-lantern-plan", "version": 1, "passages": [{"type": "talk", "wait": true}]}`), 0)
		require.NoError(t, err)
		score, err := s.Lead(contract.Lead{PlanID: plan.ID})
		require.NoError(t, err)
		m.pass(10 * time.Minute)
		require.NoError(t, s.noteTime())
		m.pass(2 * time.Second)
		before, err := s.open(score.ClassID)
		require.NoError(t, err)
		reached := before.at(s.now())
		stop()

		m.pass(time.Minute)
		m.day = m.day.Add(c.set)
		if c.reboot {
			m.up, boot = time.Second, "second"
		}
		s, stop = start()
		after, err := s.open(score.ClassID)
		require.NoError(t, err)
		want := reached + 60_000
		if c.reboot && c.set < 0 {
			want = reached // nothing tells how long it was down
		}
		assert.InDelta(t, want, after.at(s.now()), float64(c.within.Milliseconds()), name)
		m.pass(30 * time.Second)
		assert.InDelta(t, want+30_000, after.at(s.now()), float64(c.within.Milliseconds()), "%s: it does not stand still", name)

		_, err = s.Adjust(score.ClassID, contract.Adjust{Key: "k", Do: "end"})
		require.NoError(t, err)
		assert.Equal(t, m.day, s.now(), "%s: between classes it is the time of day", name)
		stop()
	}
}
