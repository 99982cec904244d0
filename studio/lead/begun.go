package lead

import (
	"context"
	"errors"
	"regexp"
	"time"

	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// oldest is how long ago a class was begun apart at most when the program is told of it.
const oldest = 366 * 24 * time.Hour

var uid = regexp.MustCompile(`^[0-9a-f]{32}$`)

// named returns the class that was begun under the uid, 0 if there is none yet. One that was deleted since is there.
func (c *Classes) named(ctx context.Context, name string) (int64, error) {
	if !uid.MatchString(name) {
		return 0, studio.Fail(studio.ErrInvalid, "apart.uid", "given", name)
	}
	class, err := c.studio.Store.With(ctx).ClassNamed(name)
	if errors.Is(err, store.ErrNotFound) {
		return 0, nil
	}
	return class.ID, err
}

func (c *Classes) scoreOf(ctx context.Context, id int64, err error) (contract.Score, error) {
	if err != nil {
		return contract.Score{}, err
	}
	return c.Score(ctx, id)
}

// PlanKit returns what a lead screen on a device needs to begin a class of a plan by itself (docs/rules/apart.md
// section 6). It is of the plan as it is now.
func (c *Classes) PlanKit(ctx context.Context, plan int64, origin string) (contract.Kit, error) {
	planned, document, p, err := c.plans.ToLead(ctx, plan, false, nil)
	if err != nil {
		return contract.Kit{}, err
	}
	class := store.Class{PlanID: plan, GroupID: planned.GroupID, StartedAt: c.studio.Now(), Document: document}
	kit := contract.Kit{PlanID: plan, Document: string(document), Origin: origin, Pressed: []contract.Pressed{}}
	return kit, c.complete(ctx, &kit, class, p.Words.Tag)
}

// complete adds to a kit what it has of the group and the school.
func (c *Classes) complete(ctx context.Context, kit *contract.Kit, class store.Class, language string) error {
	here := &people{language: language}
	if class.ID == 0 {
		if err := c.read(ctx, here, class); err != nil {
			return err
		}
	} else {
		var err error
		if here, err = c.who(ctx, class, language); err != nil {
			return err
		}
	}
	kit.Care, kit.Fingers = here.Care, here.Fingers
	if here.Group != nil {
		group := *here.Group
		group.Notes = ""
		kit.Group = &group
	}
	var err error
	kit.Voice, err = c.voices.Recorded(ctx, language)
	return err
}

// BeginApart adds a class that a lead screen began by itself, and returns it. One that is there already stays as it is.
// Of this class and another one that is in progress, the one that was begun last goes on (docs/rules/apart.md
// section 6).
func (c *Classes) BeginApart(ctx context.Context, want contract.BegunApart, origin string) (contract.Kit, error) {
	c.leading.Lock()
	defer c.leading.Unlock()
	id, err := c.named(ctx, want.UID)
	if err != nil {
		return contract.Kit{}, err
	}
	if id == 0 {
		if id, err = c.addApart(ctx, want); err != nil {
			return contract.Kit{}, err
		}
	}
	return c.Kit(ctx, id, origin)
}

// addApart stores a class that was begun apart. Whoever calls it holds c.leading.
func (c *Classes) addApart(ctx context.Context, want contract.BegunApart) (int64, error) {
	now := c.studio.Now()
	if age := now.UnixMilli() - want.StartedMS; want.StartedMS <= 0 || age > oldest.Milliseconds() {
		return 0, studio.Fail(studio.ErrInvalid, "apart.start", "given", want.StartedMS, "days", int(oldest.Hours()/24))
	}
	if want.AtMS < 0 || want.AtMS > oldest.Milliseconds() {
		return 0, studio.Fail(studio.ErrInvalid, "apart.at", "given", want.AtMS)
	}
	latest := now.Add(-time.Duration(want.AtMS) * time.Millisecond) // nothing is pressed in the future
	class := store.Class{
		UID: want.UID, StartedAt: time.UnixMilli(want.StartedMS), Document: []byte(want.Document),
		Acknowledged: want.Acknowledged,
	}
	if class.StartedAt.After(latest) {
		class.StartedAt = latest.Truncate(time.Millisecond)
	}
	l, err := studio.ReadClass(class, nil)
	if err != nil {
		return 0, studio.Fail(studio.ErrInvalid, "lead.plan-wrong", "why", err)
	}
	if unread := unacknowledged(l.Plan, want.Acknowledged); len(unread) > 0 {
		return 0, studio.Fail(studio.ErrInvalid, "lead.read-first", "cautions", unread)
	}
	if err := c.ofWhat(ctx, &class, want); err != nil {
		return 0, err
	}
	later, err := c.studio.Store.With(ctx).BegunAfter(class.StartedAt)
	if err != nil {
		return 0, err
	}
	if later {
		class.EndedAt = class.StartedAt.Add(time.Duration(l.Led.Timeline().End) * time.Millisecond)
		stored, err := c.studio.Store.With(ctx).AddClass(class)
		if err == nil {
			c.studio.ClassChanged(ctx, stored)
		}
		return stored.ID, err
	}
	if err := c.endBefore(ctx, class.StartedAt); err != nil {
		return 0, err
	}
	stored, err := c.studio.Store.With(ctx).BeginClass(class)
	if err != nil {
		return 0, err
	}
	l.SetStored(stored)
	c.setLive(&live{stored: l.Stored, led: l.Copy()})
	c.studio.ClassChanged(ctx, l.Stored)
	if err := c.NoteTime(ctx); err != nil {
		return 0, err
	}
	_, err = c.notifyWithScore(ctx, l)
	return stored.ID, err
}

// ofWhat notes the plan and the group of a class that was begun apart, where they are still there.
func (c *Classes) ofWhat(ctx context.Context, class *store.Class, want contract.BegunApart) error {
	switch _, err := c.studio.Store.With(ctx).Plan(want.PlanID); {
	case err == nil:
		class.PlanID = want.PlanID
	case !errors.Is(err, store.ErrNotFound):
		return err
	}
	groups, err := c.library.EveryGroupByID(ctx)
	if groups[want.GroupID] != nil {
		class.GroupID = want.GroupID
	}
	return err
}

// endBefore ends the class in progress at a moment at which another one was begun, or after what was last pressed in
// it.
func (c *Classes) endBefore(ctx context.Context, moment time.Time) error {
	running, err := c.InProgress(ctx)
	if err != nil || running == nil {
		return err
	}
	return c.endAt(ctx, running, max(0, moment.Sub(running.StartedAt).Milliseconds(), running.LastPress()))
}
