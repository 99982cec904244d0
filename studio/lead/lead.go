// Package lead leads a class: beginning, adjusting and ending it, signs and taps, and the score from which every screen
// plays it.
package lead

import (
	"context"
	"fmt"
	"slices"
	"time"

	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
)

// Begin starts a class from a plan now. Only one class runs at a time.
func (c *Classes) Begin(ctx context.Context, want contract.Lead) (contract.Score, error) {
	c.leading.Lock()
	defer c.leading.Unlock()
	return c.begin(ctx, want)
}

// begin is Begin for whoever holds c.leading.
func (c *Classes) begin(ctx context.Context, want contract.Lead) (contract.Score, error) {
	if want.UID != "" {
		known, err := c.named(ctx, want.UID)
		if err != nil || known != 0 {
			return c.scoreOf(ctx, known, err)
		}
	}
	planned, document, p, err := c.plans.ToLead(ctx, want.PlanID, want.Fit, want.Gentle)
	if err != nil {
		return contract.Score{}, err
	}
	if unread := unacknowledged(p, want.Acknowledged); len(unread) > 0 {
		return contract.Score{}, studio.Fail(studio.ErrInvalid, "lead.read-first", "cautions", unread)
	}
	if err := c.endRunning(ctx, want.EndRunning); err != nil {
		return contract.Score{}, err
	}
	c.studio.SetClock() // nothing runs that a corrected clock could move
	class := store.Class{
		// Whole milliseconds, as adjustments count from it.
		PlanID:       planned.ID,
		GroupID:      planned.GroupID,
		StartedAt:    c.studio.Now().Truncate(time.Millisecond),
		Document:     document,
		Acknowledged: want.Acknowledged,
		UID:          want.UID,
	}
	l, err := studio.ReadClass(class, nil) // what cannot be read again is not stored
	if err != nil {
		return contract.Score{}, studio.Fail(studio.ErrInvalid, "lead.plan-wrong", "why", err)
	}
	stored, err := c.studio.Store.With(ctx).BeginClass(class)
	if err != nil {
		return contract.Score{}, err
	}
	l.SetStored(stored)
	c.setLive(&live{stored: l.Stored, led: l.Copy()})
	c.studio.ClassChanged(ctx, l.Stored)
	if err := c.NoteTime(ctx); err != nil {
		return contract.Score{}, err
	}
	return c.notifyWithScore(ctx, l)
}

// unacknowledged returns the strong cautions of the plan that nobody said were read.
func unacknowledged(p *plan.Plan, read []string) []fact.Fact {
	var missing []fact.Fact
	for _, c := range contract.StrongOf(p) {
		if !slices.Contains(read, c.ID) {
			missing = append(missing, c.Say)
		}
	}
	return missing
}

// endRunning makes sure that no class is running, by ending it if that is wanted.
func (c *Classes) endRunning(ctx context.Context, end bool) error {
	running, err := c.InProgress(ctx)
	if err != nil || running == nil {
		return err
	}
	if !end {
		return studio.FailRunning(running, "class.running-go-back")
	}
	return c.endAt(ctx, running, running.At(c.studio.Now()))
}

// endAt ends the class in progress at that time of it, so that another one can begin.
func (c *Classes) endAt(ctx context.Context, running *studio.Class, at int64) error {
	key := fmt.Sprintf("end-for-another-%d", c.studio.Now().UnixNano())
	_, err := c.adjust(ctx, running, at, contract.Adjust{Key: key, Do: pace.End})
	c.studio.Notify(running.Stored.ID)
	if err == nil && running.Unstored > 0 {
		return studio.Fail(studio.ErrConflict, "lead.earlier-not-stored", "why", running.WhyUnstored)
	}
	return err
}

// InProgress returns the class in progress, or nil.
func (c *Classes) InProgress(ctx context.Context) (*studio.Class, error) {
	edition := c.studio.Changes()
	class, err := c.current(ctx)
	if err != nil || class == nil {
		return nil, err
	}
	l := class.read()
	if !l.Running(c.studio.Now()) {
		return nil, nil
	}
	l.Edition = edition
	return l, nil
}

// Running returns a link to the class in progress. It does not read the data file.
func (c *Classes) Running(ctx context.Context) (contract.Running, error) {
	l, err := c.InProgress(ctx)
	if err != nil || l == nil {
		return contract.Running{}, err
	}
	return contract.Running{ClassID: l.Stored.ID, Title: l.Plan.Title}, nil
}

// Score returns the timeline of a class at this point.
func (c *Classes) Score(ctx context.Context, id int64) (contract.Score, error) {
	l, err := c.Open(ctx, id)
	if err != nil {
		return contract.Score{}, err
	}
	return c.score(ctx, l)
}

// tooLate is how long after it was meant a press still acts, in real time. Later it would surprise the room.
const tooLate = 5 * time.Second

// Adjust makes a live adjustment, now. It is stored before it is answered, refused ones too; where it cannot be stored
// at the moment the class goes on with it all the same, and the score says what is not stored. A press that was made
// too long ago is refused, except for a note or what was seen, which is kept with its moment.
func (c *Classes) Adjust(ctx context.Context, id int64, want contract.Adjust) (contract.Adjusted, error) {
	c.leading.Lock()
	defer c.leading.Unlock()
	l, err := c.Open(ctx, id)
	if err != nil {
		return contract.Adjusted{}, err
	}
	if number := l.Known(want.Key); number > 0 {
		return c.adjusted(ctx, l, number) // sent twice: the first answer holds
	}
	at, err := c.moment(l, want)
	if err != nil {
		return contract.Adjusted{}, err
	}
	number, err := c.adjust(ctx, l, at, want)
	if err != nil {
		return contract.Adjusted{}, err
	}
	return c.adjusted(ctx, l, number)
}

// moment returns the time of the class at which a press acts, or why it does not.
func (c *Classes) moment(l *studio.Class, want contract.Adjust) (int64, error) {
	now := c.studio.Now()
	at := l.At(now)
	pressed := at
	if want.PressedMS != nil {
		pressed = min(at, int64(*want.PressedMS-contract.Millis(l.Stored.StartedAt)))
	}
	remark := want.Do.Remarks()
	switch age := time.Duration(float64(at-pressed)/c.studio.Rate()) * time.Millisecond; {
	case remark && pressed < at:
		return max(0, pressed, l.LastPress()), nil // times never fall
	case !l.Running(now):
		return 0, studio.Fail(studio.ErrConflict, "lead.over")
	case !remark && age > tooLate:
		return 0, studio.Fail(studio.ErrConflict, "lead.too-late", "seconds", int(age.Seconds()))
	}
	return at, nil
}

func (c *Classes) adjusted(ctx context.Context, l *studio.Class, number int) (contract.Adjusted, error) {
	score, err := c.notifyWithScore(ctx, l)
	return contract.Adjusted{Answer: l.Answer(number), Score: score}, err
}

// invalid returns what is wrong with something that was sent; nil for nil.
func invalid(err error) error {
	if err == nil {
		return nil
	}
	return studio.FailWith(studio.ErrInvalid, fact.Of(err))
}

// adjust folds one adjustment more into the class in progress, at that time of it, and returns its number. The caller
// notifies, and holds c.leading.
func (c *Classes) adjust(ctx context.Context, l *studio.Class, at int64, want contract.Adjust) (int, error) {
	if want.Key == "" {
		return 0, studio.Fail(studio.ErrInvalid, "lead.needs-key")
	}
	a, body, err := led.Adjustment(at, want)
	if err != nil {
		return 0, invalid(err)
	}
	if number := l.Known(want.Key); number > 0 {
		return number, nil
	}
	class, err := c.current(ctx)
	if err != nil {
		return 0, err
	}
	number := len(l.Sent) + 1
	row := store.Adjustment{Number: number, Key: want.Key, Body: body, Origin: want.Origin}
	if class == nil || class.stored.ID != l.Stored.ID { // a remark that comes late
		if err := c.studio.Store.With(ctx).AddAdjustments(l.Stored.ID, row); err != nil {
			return 0, err
		}
		l.Add(led.Sent{Key: want.Key, Because: want.Because, Origin: want.Origin}, a)
		c.studio.ClassChanged(ctx, l.Stored)
		return number, nil
	}
	if class, err = c.keep(ctx, class, row); err != nil {
		return 0, err
	}
	edition := l.Edition
	*l = *class.read()
	l.Edition = edition
	if !l.Running(c.studio.Now()) && class.stored.EndedAt.IsZero() {
		l.End(c.finish(ctx, class, l.Led.Timeline().End))
	}
	return number, nil
}

// notifyWithScore tells every screen of a change, and returns the score after it.
func (c *Classes) notifyWithScore(ctx context.Context, l *studio.Class) (contract.Score, error) {
	c.studio.NoteChange()
	score, err := c.score(ctx, l) // for all of them, who find it ready
	c.studio.Wake(l.Stored.ID)
	return score, err
}
