package lead

import (
	"context"
	"errors"
	"log/slog"
	"slices"
	"sync"
	"time"

	"vastlantern/core/fact"
	"vastlantern/store"
	"vastlantern/studio"
)

// live is the class in progress as it is held in memory: its plan, its start and everything that was pressed, also what
// could not be stored yet. It is replaced whole, never changed, so that whoever reads it needs no lock. Only this
// program writes to the data file, so that it holds.
type live struct {
	stored   store.Class
	rows     []store.Adjustment
	led      *studio.Class // the rows folded, one after the other as they came; never changed
	unstored int           // how many of the last rows are not in the data file
	why      fact.Fact     // why they are not
	end      bool          // whether its end is still to be stored
}

// liveClass is the class in progress, loaded from the data file the first time it is asked for.
type liveClass struct {
	mutex  sync.Mutex
	loaded bool
	class  *live
}

// current returns the class in progress, or nil. One that cannot be read is none: it is reported as damaged.
func (c *Classes) current(ctx context.Context) (*live, error) {
	c.live.mutex.Lock()
	defer c.live.mutex.Unlock()
	if c.live.loaded {
		return c.live.class, nil
	}
	class, err := c.loadLive(ctx)
	if err != nil {
		return nil, err
	}
	c.live.class, c.live.loaded = class, true
	return class, nil
}

func (c *Classes) loadLive(ctx context.Context) (*live, error) {
	stored, err := c.studio.Store.With(ctx).InProgress()
	var unreadable *store.UnreadableError
	switch {
	case errors.Is(err, store.ErrNotFound), errors.As(err, &unreadable):
		return nil, nil
	case err != nil:
		return nil, err
	case !stored.DeletedAt.IsZero():
		return nil, nil
	}
	rows, err := c.studio.Store.With(ctx).Adjustments(stored.ID)
	if err != nil {
		return nil, err
	}
	class, err := liveOf(stored, rows)
	if err != nil {
		c.studio.NoteDamage(store.KindClass, stored.ID, err)
		return nil, nil
	}
	return class, nil
}

// liveOf returns the class as it is stored.
func liveOf(stored store.Class, rows []store.Adjustment) (*live, error) {
	led, err := studio.ReadClass(stored, rows)
	return &live{stored: stored, rows: rows, led: led}, err
}

// setLive replaces the class in progress. Whoever calls it holds c.leading.
func (c *Classes) setLive(class *live) {
	c.live.mutex.Lock()
	defer c.live.mutex.Unlock()
	c.live.class, c.live.loaded = class, true
}

// Open returns a class with everything that was pressed, also what is not in the data file yet.
func (c *Classes) Open(ctx context.Context, id int64) (*studio.Class, error) {
	edition := c.studio.Changes()
	class, err := c.open(ctx, id)
	if class != nil {
		class.Edition = edition
	}
	return class, err
}

func (c *Classes) open(ctx context.Context, id int64) (*studio.Class, error) {
	current, err := c.current(ctx)
	if err == nil && current != nil && current.stored.ID == id {
		return current.read(), nil
	}
	if ended := c.endedSample(id); ended != nil {
		return ended.read(), nil
	}
	stored, err := c.studio.Store.With(ctx).Class(id)
	if err != nil {
		return nil, c.studio.OrDamaged(studio.Missing(err, store.KindClass, id), store.KindClass, id)
	}
	rows, err := c.studio.Store.With(ctx).Adjustments(stored.ID)
	if err != nil {
		return nil, err
	}
	class, err := studio.ReadClass(stored, rows)
	return class, c.studio.OrDamaged(err, store.KindClass, stored.ID)
}

// read returns the class with everything that was pressed.
func (l *live) read() *studio.Class {
	class := l.led.Copy()
	class.SetStored(l.stored)
	class.Unstored, class.WhyUnstored = l.unstored, l.why
	return class
}

// with returns the class with the row made too.
func (l *live) with(row store.Adjustment) (*live, error) {
	next := *l
	next.rows, next.led = append(slices.Clip(l.rows), row), l.led.Next()
	if err := next.led.AddStored(row); err != nil {
		return l, err
	}
	return &next, nil
}

// keep adds a row to the class in progress and stores it, or keeps it in memory where that is not possible at the
// moment. Whoever calls it holds c.leading.
func (c *Classes) keep(ctx context.Context, class *live, row store.Adjustment) (*live, error) {
	next, err := c.kept(ctx, class, row)
	if err == nil {
		c.setLive(next)
	}
	return next, err
}

// kept is keep of several rows, all of them in one write, without making it the class in progress.
func (c *Classes) kept(ctx context.Context, class *live, rows ...store.Adjustment) (*live, error) {
	next := class
	for _, row := range rows {
		with, err := next.with(row)
		if err != nil { // what cannot be read again is not stored
			return class, err
		}
		next = with
	}
	next.led.Led.Timeline() // here, so that it is compiled once for all who read the class
	switch {
	case class.unstored > 0: // in their order
		next.unstored += len(rows)
	default:
		err := c.studio.Store.With(ctx).AddAdjustments(class.stored.ID, rows...)
		switch {
		case !studio.FileProblem(err).None():
			next.unstored, next.why = len(rows), studio.FileProblem(err)
		case errors.Is(err, store.ErrTaken):
			return class, studio.Fail(studio.ErrConflict, "lead.other-first")
		case err != nil:
			return class, err
		}
	}
	return next, nil
}

// storeHeld stores what could not be stored before: adjustments, and the end of a class. What cannot be stored yet
// stays in memory, without an error.
func (c *Classes) storeHeld(ctx context.Context) error {
	c.storing.Lock()
	defer c.storing.Unlock()
	class, err := c.current(ctx)
	if err != nil || class == nil || class.unstored == 0 && !class.end {
		return err
	}
	held := class.rows[len(class.rows)-class.unstored:]
	err = c.studio.Store.With(ctx).AddAdjustments(class.stored.ID, held...) // presses need not wait for it
	if errors.Is(err, store.ErrTaken) {
		held, err = c.alreadyStored(ctx, class)
	}
	if err == nil && class.end {
		err = c.studio.Store.With(ctx).EndClass(class.stored.ID, class.stored.EndedAt)
	}
	c.leading.Lock()
	defer c.leading.Unlock()
	now, currentErr := c.current(ctx)
	if currentErr != nil || now == nil || now.stored.ID != class.stored.ID {
		return currentErr
	}
	next := *now
	switch {
	case !studio.FileProblem(err).None():
		if next.why.ID == studio.FileProblem(err).ID {
			return nil
		}
		next.why = studio.FileProblem(err)
		c.setLive(&next)
		c.studio.Notify(next.stored.ID)
		return nil
	case err != nil:
		return err
	}
	if next.unstored -= len(held); next.unstored == 0 {
		next.why = fact.Fact{}
		next.end = next.end && !class.end
	}
	c.setLive(&next)
	if next.unstored == 0 && !next.stored.EndedAt.IsZero() && !next.end {
		c.setLive(nil)
		c.studio.ClassChanged(ctx, next.stored)
	}
	c.studio.Notify(next.stored.ID)
	return nil
}

// alreadyStored returns the held rows that are in the data file after all: a write can reach the disk although its
// answer was an error.
func (c *Classes) alreadyStored(ctx context.Context, class *live) ([]store.Adjustment, error) {
	there, err := c.studio.Store.With(ctx).Adjustments(class.stored.ID)
	if err != nil {
		return nil, err
	}
	first := len(class.rows) - class.unstored
	if len(there) < first || len(there) > len(class.rows) {
		return nil, fact.New("lead.rows-differ", "class", class.stored.ID, "stored", len(there), "here", len(class.rows))
	}
	return class.rows[first:len(there)], nil
}

// finish ends the class in progress at that time of it, and returns the moment. Whoever calls it holds c.leading.
func (c *Classes) finish(ctx context.Context, class *live, at int64) time.Time {
	next := *class
	next.stored.EndedAt = next.stored.StartedAt.Add(time.Duration(at) * time.Millisecond)
	next.end = true
	isSample := c.isSample(next.stored.PlanID)
	if isSample {
		c.sample.Store(&sample{next.stored.PlanID, &next})
	}
	if next.unstored == 0 && c.studio.Store.With(ctx).EndClass(next.stored.ID, next.stored.EndedAt) == nil {
		c.setLive(nil)
		if !isSample {
			c.studio.ClassChanged(ctx, next.stored)
		} else if err := c.removeSample(ctx); err != nil { // else Settle does it
			slog.Error("the sample class is not removed yet", "error", err)
		}
	} else {
		c.setLive(&next) // until it can be stored
	}
	c.studio.SetClock() // nothing runs that a corrected clock could move
	return next.stored.EndedAt
}

// reopen takes back that a class was noted as over. Whoever calls it holds c.leading.
func (c *Classes) reopen(ctx context.Context, stored store.Class) error {
	if err := c.studio.Store.With(ctx).EndClass(stored.ID, time.Time{}); err != nil {
		return err
	}
	rows, err := c.studio.Store.With(ctx).Adjustments(stored.ID)
	if err != nil {
		return err
	}
	class, err := liveOf(stored, rows)
	if err == nil {
		c.setLive(class)
	}
	return err
}

// Settle does what is due when a class has come to its end by itself: it is noted as over and worked out for the lists;
// a sample that is over is removed.
func (c *Classes) Settle(ctx context.Context) error {
	if err := c.storeHeld(ctx); err != nil {
		return err
	}
	c.leading.Lock()
	defer c.leading.Unlock()
	class, err := c.current(ctx)
	if err == nil && class == nil {
		return c.removeSample(ctx)
	}
	if err != nil || !class.stored.EndedAt.IsZero() {
		return err
	}
	l := class.read()
	if l.Running(c.studio.Now()) {
		return nil
	}
	c.finish(ctx, class, l.Led.Timeline().End)
	c.studio.Notify(class.stored.ID)
	return nil
}
