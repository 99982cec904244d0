package audience

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"time"

	"vastlantern/core/plan"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// checkedEarly is how long before its time a class is asked about in the room.
const checkedEarly = time.Hour

// stale is for how long what was answered before a class belongs to the class that begins: one that did not take place
// leaves its answers to none.
const stale = checkedEarly + studio.Late

// checkIn returns what the room is asked now: before the class that comes or has begun, until its first practice, or
// after the one that has ended. nil if nothing.
func (a *Audience) checkIn(
	ctx context.Context, score *contract.Score, next *contract.Upcoming,
) (*contract.CheckInAsked, error) {
	if score != nil {
		return a.checkInOfRunning(ctx, score)
	}
	asked, err := a.checkInAfter(ctx)
	if asked != nil || err != nil || next == nil || next.CheckIn == "" {
		return asked, err
	}
	starts := time.UnixMilli(int64(next.StartsMS))
	if a.studio.Now().Before(starts.Add(-checkedEarly)) {
		return nil, nil
	}
	a.opening.Lock() // many screens ask at once, and one check-in is opened
	defer a.opening.Unlock()
	open, err := a.studio.Store.With(ctx).CheckInOfPlan(next.PlanID, a.studio.Now().Add(-stale))
	if errors.Is(err, store.ErrNotFound) {
		open, err = a.studio.Store.With(ctx).PutCheckIn(store.CheckIn{
			PlanID: next.PlanID, OpenedAt: a.studio.Now(), Question: string(next.CheckIn),
		})
	}
	if err != nil {
		return nil, err
	}
	return checkInAsked(open, false, starts.Add(studio.Late)), nil
}

func checkInAsked(c store.CheckIn, after bool, until time.Time) *contract.CheckInAsked {
	question := plan.CheckIn(c.Question)
	return &contract.CheckInAsked{
		ID: c.ID, After: after, Question: question, Answers: question.Answers(), UntilMS: contract.Millis(until),
	}
}

// checkInOfRunning is asked until the first practice of the class begins.
func (a *Audience) checkInOfRunning(ctx context.Context, score *contract.Score) (*contract.CheckInAsked, error) {
	until := -1.0
	for _, p := range score.Passages {
		if p.Type == plan.Practice {
			until = score.StartedMS + float64(p.StartMS)
			break
		}
	}
	if until <= contract.Millis(a.studio.Now()) {
		return nil, nil
	}
	open, err := a.studio.Store.With(ctx).CheckInOfClass(score.ClassID)
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	return checkInAsked(open, false, time.UnixMilli(int64(until))), nil
}

// checkInAfter is asked after the last class, as long as how it was.
func (a *Audience) checkInAfter(ctx context.Context) (*contract.CheckInAsked, error) {
	newest, err := a.studio.Store.With(ctx).NewestClass()
	if err != nil || newest == 0 {
		return nil, err
	}
	open, err := a.studio.Store.With(ctx).CheckInOfClass(newest)
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	class, err := a.studio.Store.With(ctx).Class(newest)
	var unreadable *store.UnreadableError
	if errors.Is(err, store.ErrNotFound) || errors.As(err, &unreadable) { // it was deleted, or cannot be read
		return nil, nil
	}
	until := class.EndedAt.Add(studio.AskedFor)
	if err != nil || class.EndedAt.IsZero() || !a.studio.Now().Before(until) || open.MostAfter == 0 {
		return nil, err
	}
	return checkInAsked(open, true, until), nil
}

// openCheckIn gives what was answered before a class to the class that begins, or opens its check-in, where its plan
// asks.
func (a *Audience) openCheckIn(ctx context.Context, class store.Class) error {
	question := plan.CheckInOf(class.Document)
	if question == "" {
		return nil
	}
	st := a.studio.Store.With(ctx)
	if _, err := st.CheckInOfClass(class.ID); !errors.Is(err, store.ErrNotFound) {
		return err
	}
	a.opening.Lock()
	defer a.opening.Unlock()
	open, err := st.CheckInOfPlan(class.PlanID, a.studio.Now().Add(-stale))
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return err
	}
	if errors.Is(err, store.ErrNotFound) || open.Question != string(question) { // it was changed since
		open = store.CheckIn{PlanID: class.PlanID, OpenedAt: a.studio.Now(), Question: string(question)}
	}
	open.ClassID = class.ID
	if _, err = st.PutCheckIn(open); errors.Is(err, store.ErrNotFound) { // a sample class is not stored
		return nil
	}
	return err
}

// endCheckIn has as many be asked after a class as there were screens in it.
func (a *Audience) endCheckIn(ctx context.Context, class store.Class, screens int) error {
	open, err := a.studio.Store.With(ctx).CheckInOfClass(class.ID)
	if errors.Is(err, store.ErrNotFound) {
		return nil
	}
	if err != nil {
		return err
	}
	open.MostAfter = max(open.MostAfter, screens)
	_, err = a.studio.Store.With(ctx).PutCheckIn(open)
	return err
}

// CheckIn counts one answer to what the room is asked now. Sums are kept, and nothing of who sent it.
func (a *Audience) CheckIn(ctx context.Context, code string, in contract.CheckInAnswer) (contract.RoomAnswered, error) {
	room, err := a.Room(ctx, code)
	if err != nil {
		return contract.RoomAnswered{}, err
	}
	asked := room.CheckIn
	switch {
	case asked == nil || asked.ID != in.ID || asked.After != in.After:
		return contract.RoomAnswered{}, studio.Fail(studio.ErrConflict, "check-in.over")
	case !asked.Question.Takes(in.Answer):
		return contract.RoomAnswered{}, studio.Fail(studio.ErrInvalid, "check-in.answer", "given", in.Answer)
	}
	if err := checkBallot(in.Ballot); err != nil {
		return contract.RoomAnswered{}, err
	}
	screens := 0 // after, it is settled when the class ends
	if !in.After {
		screens = a.phones.now()
	}
	counted, err := a.checked.once(fmt.Sprint(in.ID, in.After), in.Ballot, func() error {
		return a.studio.Store.With(ctx).AddToCheckIn(in.ID, in.After, in.Answer, screens)
	})
	if errors.Is(err, store.ErrFull) {
		return contract.RoomAnswered{}, nil
	}
	if err != nil {
		return contract.RoomAnswered{}, err
	}
	if counted {
		a.studio.NoteChange()
	}
	return contract.RoomAnswered{Counted: true}, nil
}

func (p *phones) now() int {
	p.mutex.Lock()
	defer p.mutex.Unlock()
	return p.open
}

func (a *Audience) noteCheckIn(class store.Class, err error) {
	if err != nil { // the class goes on, and is asked about by nobody
		slog.Error("the room is not asked before and after", "class", class.ID, "error", err)
	}
}
