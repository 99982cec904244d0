package studio

import (
	"context"
	"encoding/json"
	"errors"
	"log/slog"
	"sync"
	"time"

	"vastlantern/store"
)

const (
	// everySecond is how often is looked after what nobody asks for.
	everySecond = time.Second
	// noteTimeEvery is how far a class can seem to go back after a power cut with a clock that was set back.
	noteTimeEvery = 5 * time.Second
)

// Keep looks after what nobody asks for, until the context ends: lists are prepared, what could not be stored is stored, a class that came to
// its end is noted as over, and how far the clock is stands in the data file. Nothing of what is taught depends on it.
func (s *Studio) Keep(ctx context.Context) {
	var preparing sync.WaitGroup
	defer preparing.Wait()
	preparing.Go(func() { s.prepareUntilDone(ctx) })
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
		err := s.Settle()
		if err == nil && time.Since(noted) >= noteTimeEvery {
			noted, err = time.Now(), s.noteTime()
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

// prepareAgainAfter is how long is waited where the data file is held by another program, or the disk is full.
const prepareAgainAfter = 10 * time.Second

func (s *Studio) prepareUntilDone(ctx context.Context) {
	for {
		err := s.Prepare(ctx)
		if err == nil {
			return
		}
		slog.Error("the lists of what was taught are not ready", "error", err)
		select {
		case <-ctx.Done():
			return
		case <-time.After(prepareAgainAfter):
		}
	}
}

const clockName = "clock"

// noteTime notes how far the clock is while a class is in progress.
func (s *Studio) noteTime() error {
	class, err := s.current()
	if err != nil || class == nil || s.clock == nil {
		return err
	}
	value, err := json.Marshal(s.clock.Mark())
	if err != nil {
		return err
	}
	if err := s.store.SaveSetting(clockName, value); Trouble(err) == "" {
		return err
	}
	return nil // the class goes on without
}

// Resume goes on at the time at which the class in progress is: a system clock that was set back meanwhile does not take
// it back. To be called before anything is served.
func (s *Studio) Resume() error {
	class, err := s.current()
	if err != nil || class == nil || s.clock == nil {
		return err
	}
	value, err := s.store.Setting(clockName)
	if errors.Is(err, store.ErrNotFound) {
		return nil
	}
	if err != nil {
		return err
	}
	var mark Mark
	if json.Unmarshal(value, &mark) == nil { // without one the clock shows the time of day
		s.clock.Resume(mark)
	}
	l, err := class.fold()
	if err != nil {
		return err
	}
	if n := len(l.script); n > 0 { // what was pressed last is younger than the note of the time
		s.clock.Resume(Mark{At: class.stored.StartedAt.Add(time.Duration(l.script[n-1].At) * time.Millisecond)})
	}
	return nil
}
