// Package desk puts the studio together: every room on one data file and one clock. The web, the commands and the tests
// work with it.
package desk

import (
	"context"
	"log/slog"
	"sync"
	"time"

	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/access"
	"vastlantern/studio/audience"
	"vastlantern/studio/home"
	"vastlantern/studio/lead"
	"vastlantern/studio/library"
	"vastlantern/studio/prepare"
	"vastlantern/studio/programmes"
	"vastlantern/studio/record"
	"vastlantern/studio/rehearse"
	"vastlantern/studio/today"
	"vastlantern/studio/transfer"
	"vastlantern/studio/voices"
)

// Desk is all rooms. They know of each other only what they say that they need.
type Desk struct {
	*studio.Studio
	Today   *today.Today
	Plans   *prepare.Plans
	Classes *lead.Classes
	Records *record.Records
	Homes   *home.Homes
	Voices  *voices.Voices

	Programmes *programmes.Programmes
	Rehearse   *rehearse.Rehearse
	Library    *library.Library
	Audience   *audience.Audience
	Transfer   *transfer.Transfer
	Access     *access.Access
}

// New returns a desk on the store and the clock.
func New(s *store.Store, c *studio.Clock) *Desk { return of(studio.New(s, c)) }

// WithTime returns a desk whose clock is the function, as for demo data that was taught weeks ago.
func WithTime(s *store.Store, now func() time.Time, rate float64) *Desk {
	return of(studio.WithTime(s, now, rate))
}

func of(s *studio.Studio) *Desk {
	d := &Desk{Studio: s, Library: library.New(s), Access: access.New(s)}
	d.Plans = prepare.New(s, d.Library)
	d.Voices = voices.New(s, d.Library)
	d.Classes = lead.New(s, d.Library, d.Plans, d.Voices)
	d.Homes = home.New(s, d.Library, d.Classes)
	d.Records = record.New(s, d.Library, d.Classes, d.Homes)
	d.Plans.SetPast(d.Records)
	d.Rehearse = rehearse.New(s, d.Library, d.Classes)
	d.Programmes = programmes.New(s, d.Library, d.Plans, d.Records, d.Homes)
	d.Records.SetProgrammes(d.Programmes)
	d.Today = today.New(s, d.Library, d.Plans, d.Records)
	d.Audience = audience.New(s, d.Classes, d.Plans, d.Library)
	d.Transfer = transfer.New(s, d.Library, d.Classes)
	return d
}

// Keep does what nobody asks for, until the context ends: it looks after the class in progress, removes what was
// deleted long ago, and has the lists and the programmes follow what has changed.
func (d *Desk) Keep(ctx context.Context) {
	var working sync.WaitGroup
	working.Go(func() { d.keepLists(ctx) })
	working.Go(func() { d.keepProgrammes(ctx) })
	d.Classes.Keep(ctx)
	working.Wait()
}

// followInterval is how often programmes look for classes that were missed.
const followInterval = 10 * time.Minute

func (d *Desk) keepProgrammes(ctx context.Context) {
	for {
		select {
		case <-ctx.Done():
			return
		case <-time.After(followInterval):
			d.Programmes.FollowAll(ctx)
		}
	}
}

// retryDelay is how long to wait where the data file is held by another program, or the disk is full.
const retryDelay = 10 * time.Second

func (d *Desk) keepLists(ctx context.Context) {
	for {
		err := d.Prepare(ctx)
		if err == nil {
			return
		}
		slog.Error("the lists of what was taught are not ready", "error", err)
		select {
		case <-ctx.Done():
			return
		case <-time.After(retryDelay):
		}
	}
}

// Prepare does at the start what nobody waits for: it removes for good what was deleted long ago, and works out what
// lists need of the classes that have changed.
func (d *Desk) Prepare(ctx context.Context) error {
	if err := d.Transfer.Purge(ctx); err != nil {
		return err
	}
	if err := d.Records.KeepLists(ctx); err != nil {
		return err
	}
	if err := d.Programmes.Adopt(ctx); err != nil { // a course that cannot be read stays a course
		slog.Error("courses are not programmes yet", "error", err)
	}
	d.Programmes.FollowAll(ctx)
	return nil
}
