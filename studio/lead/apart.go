package lead

import (
	"context"
	"time"

	"vastlantern/core/pace"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
)

// Kit returns what the lead screen on a device needs to go on with a class by itself (docs/rules/apart.md section 1).
func (c *Classes) Kit(ctx context.Context, id int64, origin string) (contract.Kit, error) {
	l, err := c.Open(ctx, id)
	if err != nil {
		return contract.Kit{}, err
	}
	kit := contract.Kit{
		ClassID: id, UID: l.Stored.UID, PlanID: l.Stored.PlanID, StartedMS: l.StartedAt.UnixMilli(),
		Document: string(l.Document), CardUp: c.cards.of(id), Origin: origin,
		Sample: c.isSample(l.Stored.PlanID) || c.endedSample(id) != nil,
	}
	if !l.EndedAt.IsZero() {
		ended := l.EndedAt.UnixMilli()
		kit.EndedMS = &ended
	}
	if err := c.complete(ctx, &kit, l.Stored, l.Plan.Words.Tag); err != nil {
		return contract.Kit{}, err
	}
	kit.Pressed, err = c.pressed(ctx, id)
	return kit, err
}

// pressed returns the adjustments of a class as they are kept, also those that are not in the data file yet.
func (c *Classes) pressed(ctx context.Context, id int64) ([]contract.Pressed, error) {
	rows, err := c.rows(ctx, id)
	list := make([]contract.Pressed, len(rows))
	for i, row := range rows {
		list[i] = contract.Pressed{Key: row.Key, Origin: row.Origin, Line: row.Body}
	}
	return list, err
}

func (c *Classes) rows(ctx context.Context, id int64) ([]store.Adjustment, error) {
	class, err := c.current(ctx)
	if err != nil {
		return nil, err
	}
	if class != nil && class.stored.ID == id {
		return class.rows, nil
	}
	if ended := c.endedSample(id); ended != nil {
		return ended.rows, nil
	}
	return c.studio.Store.With(ctx).Adjustments(id)
}

// Take adds what a lead screen did to a class, each press at its moment, and returns the class after it
// (docs/rules/apart.md section 3). A press that is known already is not added again. Where the screen was apart and
// others adjusted the class meanwhile, the teacher is asked first.
func (c *Classes) Take(ctx context.Context, id int64, sent contract.Presses) (contract.Taken, error) {
	c.leading.Lock()
	defer c.leading.Unlock()
	l, err := c.Open(ctx, id)
	if err != nil {
		return contract.Taken{}, err
	}
	before, err := c.pressed(ctx, id)
	if err != nil {
		return contract.Taken{}, err
	}
	now := max(0, c.studio.Now().Sub(l.StartedAt).Milliseconds(), l.LastPress())
	meeting, err := led.Meet(before, sent, now)
	if err != nil {
		return contract.Taken{}, invalid(err)
	}
	taken := contract.Taken{From: meeting.From, Pressed: []contract.Pressed{}}
	for _, row := range meeting.Others {
		taken.Asked = append(taken.Asked, l.Answer(l.Known(row.Key)))
	}
	if meeting.Added != 0 {
		edition := l.Edition
		if l, err = c.replace(ctx, l, meeting, now); err != nil {
			return contract.Taken{}, err
		}
		l.Edition = edition
	}
	rows, err := c.pressed(ctx, id)
	if err != nil {
		return contract.Taken{}, err
	}
	if taken.From < len(rows) {
		taken.Pressed = rows[taken.From:]
	}
	if meeting.Added != 0 {
		taken.Score, err = c.notifyWithScore(ctx, l)
	} else {
		taken.Score, err = c.score(ctx, l)
	}
	return taken, err
}

// replace has the class go on with the rows of a meeting. Whoever calls it holds c.leading.
func (c *Classes) replace(
	ctx context.Context, l *studio.Class, meeting led.Meeting, now int64,
) (*studio.Class, error) {
	class, err := c.current(ctx)
	if err != nil {
		return nil, err
	}
	isLive := class != nil && class.stored.ID == l.ID
	newest, err := c.studio.Store.With(ctx).NewestClass()
	if err != nil {
		return nil, err
	}
	if !isLive {
		if class, err = c.unended(ctx, l); err != nil {
			return nil, err
		}
	}
	if class, err = c.withRows(ctx, class, meeting); err != nil {
		return nil, err
	}
	switch {
	case !isLive && newest == l.ID: // it may have come to its end by the clock, while the screen went on
		if err := c.studio.Store.With(ctx).EndClass(l.ID, time.Time{}); err != nil {
			return nil, err
		}
		fallthrough
	case isLive:
		c.setLive(class)
		read := class.read()
		if !read.Running(l.StartedAt.Add(time.Duration(now) * time.Millisecond)) {
			read.End(c.finish(ctx, class, read.Led.Timeline().End))
		}
		return read, nil
	default:
		return c.endApart(ctx, class, now)
	}
}

// unended returns a class that is over as if it were not.
func (c *Classes) unended(ctx context.Context, l *studio.Class) (*live, error) {
	rows, err := c.studio.Store.With(ctx).Adjustments(l.ID)
	if err != nil {
		return nil, err
	}
	stored := l.Stored
	stored.EndedAt = time.Time{}
	return liveOf(stored, rows)
}

// endApart notes the end of a class that a screen led apart while another class was begun: where it came to by itself,
// or now.
func (c *Classes) endApart(ctx context.Context, class *live, now int64) (*studio.Class, error) {
	l := class.read()
	if l.Running(l.StartedAt.Add(time.Duration(now) * time.Millisecond)) {
		_, body, err := led.Adjustment(now, contract.Adjust{Do: pace.End})
		if err != nil {
			return nil, err
		}
		row := store.Adjustment{Number: len(class.rows) + 1, Key: class.rows[len(class.rows)-1].Key + "-end", Body: body}
		if err := c.studio.Store.With(ctx).AddAdjustments(l.ID, row); err != nil {
			return nil, err
		}
		if class, err = class.with(row); err != nil {
			return nil, err
		}
		l = class.read()
	}
	l.End(l.StartedAt.Add(time.Duration(l.Led.Timeline().End) * time.Millisecond))
	if err := c.studio.Store.With(ctx).EndClass(l.ID, l.EndedAt); err != nil {
		return nil, err
	}
	c.studio.ClassChanged(ctx, l.Stored)
	return l, nil
}

// withRows returns the class with the rows of a meeting, stored, or kept where they cannot be stored at the moment.
func (c *Classes) withRows(ctx context.Context, class *live, meeting led.Meeting) (*live, error) {
	first := len(class.rows)
	if meeting.Added < 0 {
		first = meeting.From
	}
	rows := make([]store.Adjustment, 0, len(meeting.Rows)-first)
	for i, row := range meeting.Rows[first:] {
		rows = append(rows, store.Adjustment{Number: first + i + 1, Key: row.Key, Origin: row.Origin, Body: row.Line})
	}
	if meeting.Added >= 0 {
		return c.kept(ctx, class, rows...)
	}
	if class.unstored > 0 { // what is not stored yet would be stored twice
		return nil, studio.FailWith(studio.ErrConflict, class.why)
	}
	next, err := liveOf(class.stored, append(class.rows[:first:first], rows...))
	if err != nil { // what cannot be read again is not stored
		return nil, err
	}
	if err := c.studio.Store.With(ctx).ReplaceAdjustments(class.stored.ID, first+1, rows...); err != nil {
		return nil, err
	}
	c.forgetFollowed()
	return next, nil
}

// forgetFollowed has what follows the class press by press begin anew.
func (c *Classes) forgetFollowed() {
	c.mainCues.Forget()
	c.laneCues.Forget()
	c.others.mutex.Lock()
	c.others.class = 0
	c.others.mutex.Unlock()
	c.studio.NoteChange()
}
