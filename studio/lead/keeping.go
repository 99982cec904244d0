package lead

import (
	"context"
	"encoding/json"
	"errors"
	"log/slog"
	"time"

	"vastlantern/store"
	"vastlantern/studio"
)

const (
	// everySecond is how often is looked after what nobody asks for.
	everySecond = time.Second
	// noteTimeEvery is how far a class can seem to go back after a power cut with a clock that was set back.
	noteTimeEvery = 5 * time.Second
)

// Keep does background work until the context ends: it stores what could not be stored before, marks a class that has
// ended, and saves the clock's time. The timeline does not depend on it.
func (c *Classes) Keep(ctx context.Context) {
	tick := time.NewTicker(everySecond)
	defer tick.Stop()
	var noted time.Time
	var before string
	for {
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
		err := c.Settle(ctx)
		if err == nil && time.Since(noted) >= noteTimeEvery {
			noted, err = time.Now(), c.NoteTime(ctx)
		}
		now := ""
		if err != nil {
			now = err.Error()
		}
		if now != "" && now != before { // once, not every second
			slog.Error("a class that is led cannot be looked after", "error", err)
		}
		before = now
	}
}

const clockName = "clock"

// NoteTime saves the clock's time while a class is in progress.
func (c *Classes) NoteTime(ctx context.Context) error {
	class, err := c.current(ctx)
	if err != nil || class == nil {
		return err
	}
	mark, there := c.studio.MarkClock()
	if !there {
		return nil
	}
	value, err := json.Marshal(mark)
	if err != nil {
		return err
	}
	if err := c.studio.Store.With(ctx).SavePassing(clockName, value); studio.FileProblem(err).None() {
		return err
	}
	return nil // the class goes on without
}

// Resume goes on at the time at which the class in progress is: a system clock that was set back meanwhile does not
// take it back. To be called before anything is served.
func (c *Classes) Resume(ctx context.Context) error {
	if _, err := c.samplePlan(ctx); err != nil {
		return err
	}
	class, err := c.current(ctx)
	if err != nil || class == nil {
		return err
	}
	value, err := c.studio.Store.With(ctx).Setting(clockName)
	if errors.Is(err, store.ErrNotFound) {
		return nil
	}
	if err != nil {
		return err
	}
	var mark studio.Mark
	if json.Unmarshal(value, &mark) == nil { // without one the clock shows the time of day
		c.studio.ResumeClock(mark)
	}
	if l := class.read(); len(l.Script) > 0 { // what was pressed last is younger than the note of the time
		c.studio.ResumeClock(studio.Mark{At: class.stored.StartedAt.Add(time.Duration(l.LastPress()) * time.Millisecond)})
	}
	return nil
}
