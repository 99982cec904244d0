package lead_test

import (
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk"
)

func TestTimeOfAClassNeverRunsBackwards(t *testing.T) {
	for name, c := range map[string]struct {
		set    time.Duration // of the time of day, while the program is down
		reboot bool
		within time.Duration // how exactly it goes on
	}{
		"set back":                       {-time.Hour, false, 0},
		"set ahead":                      {time.Hour, false, 0},
		"set back, machine restarted":    {-time.Hour, true, 5 * time.Second},
		"not set, machine restarted":     {0, true, 0},
		"a year back, machine restarted": {-365 * 24 * time.Hour, true, 5 * time.Second},
	} {
		day, up := time.Date(2026, 3, 2, 18, 30, 0, 0, time.UTC), time.Hour
		pass := func(d time.Duration) { day, up = day.Add(d), up+d }
		path := filepath.Join(t.TempDir(), "x.db")
		boot := "first"
		start := func() (*desk.Desk, func()) {
			st, err := store.Open(path, "a test")
			require.NoError(t, err)
			clock := studio.NewClockOf(1, func() time.Time { return day }, func() time.Duration { return up }, boot)
			d := desk.New(st, clock)
			require.NoError(t, d.Classes.Resume(t.Context()))
			return d, func() { require.NoError(t, st.Close()) }
		}
		d, stop := start()
		plan, err := d.Plans.Add(
			t.Context(),
			[]byte(`{"format": "vast-lantern-plan", "version": 1, "passages": [{"type": "talk", "wait": true}]}`),
			0,
		)
		require.NoError(t, err)
		score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: plan.ID})
		require.NoError(t, err)
		pass(10 * time.Minute)
		require.NoError(t, d.Classes.NoteTime(t.Context()))
		pass(2 * time.Second)
		before, err := d.Classes.Open(t.Context(), score.ClassID)
		require.NoError(t, err)
		reached := before.At(d.Now())
		stop()

		pass(time.Minute)
		day = day.Add(c.set)
		if c.reboot {
			up, boot = time.Second, "second"
		}
		d, stop = start()
		after, err := d.Classes.Open(t.Context(), score.ClassID)
		require.NoError(t, err)
		want := reached + 60_000
		if c.reboot && c.set < 0 {
			want = reached // nothing reports how long it was down
		}
		assert.InDelta(t, want, after.At(d.Now()), float64(c.within.Milliseconds()), name)
		pass(30 * time.Second)
		assert.InDelta(
			t,
			want+30_000,
			after.At(d.Now()),
			float64(c.within.Milliseconds()),
			"%s: it does not stand still",
			name,
		)

		_, err = d.Classes.Adjust(t.Context(), score.ClassID, contract.Adjust{Key: "k", Do: "end"})
		require.NoError(t, err)
		assert.Equal(t, day, d.Now(), "%s: between classes it is the time of day", name)
		stop()
	}
}
