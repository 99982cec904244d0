package audience

import (
	"context"
	"errors"
	"log/slog"
	"slices"
	"strconv"
	"sync"
	"time"

	"vastlantern/core/pace"
	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// phones counts the screens in the room, which bounds how many answers are taken afterwards.
type phones struct {
	mutex sync.Mutex
	open  int
	class int64 // that was begun last
	most  int   // at once since it began, or since the program did in the middle of it
}

// Join notes that a screen shows the room, until it leaves.
func (a *Audience) Join(ctx context.Context) (leave func()) {
	running, err := a.classes.Running(ctx)
	a.phones.mutex.Lock()
	defer a.phones.mutex.Unlock()
	a.phones.open++
	if err == nil && running.ClassID != 0 { // who comes after the end is not one more who breathed
		a.phones.most = max(a.phones.most, a.phones.open)
	}
	return sync.OnceFunc(func() {
		a.phones.mutex.Lock()
		defer a.phones.mutex.Unlock()
		a.phones.open--
	})
}

// Behind notes screens that a proxy has, of which it reports how many there are: the function that is returned is told.
func (a *Audience) Behind(ctx context.Context) (are func(screens int)) {
	known := 0
	return func(screens int) {
		running, err := a.classes.Running(ctx)
		a.phones.mutex.Lock()
		defer a.phones.mutex.Unlock()
		a.phones.open += screens - known
		known = screens
		if err == nil && running.ClassID != 0 {
			a.phones.most = max(a.phones.most, a.phones.open)
		}
	}
}

// classChanged begins to count with a class, and asks when it has come to its end.
func (a *Audience) classChanged(ctx context.Context, class store.Class) {
	if class.EndedAt.IsZero() {
		a.phones.begin(class.ID)
		a.noteCheckIn(class, a.openCheckIn(ctx, class))
		return
	}
	newest, err := a.studio.Store.With(ctx).NewestClass()
	if err == nil && newest != class.ID { // something was added to an older record
		return
	}
	most := a.phones.end()
	if most == 0 {
		return
	}
	a.noteCheckIn(class, a.endCheckIn(ctx, class, most))
	chosen, chosenErr := a.library.InForce(ctx)
	if err = errors.Join(err, chosenErr); err == nil && chosen.AskAfter {
		err = a.studio.Store.With(ctx).Ask(class.ID, most)
	}
	if err != nil { // nobody is asked then
		slog.Error("nobody is asked how the class was", "class", class.ID, "error", err)
	}
}

func (p *phones) begin(class int64) {
	p.mutex.Lock()
	defer p.mutex.Unlock()
	if p.class != class {
		p.class, p.most = class, p.open
	}
}

// end returns how many there were at once.
func (p *phones) end() (most int) {
	p.mutex.Lock()
	defer p.mutex.Unlock()
	most, p.most = p.most, 0
	return most
}

// asked returns the last class, where those who breathed may say how it was; else nil.
func (a *Audience) asked(ctx context.Context) (*contract.Asked, error) {
	class, until, err := a.askedAbout(ctx)
	if err != nil || until.IsZero() {
		return nil, err
	}
	led, err := a.classes.Open(ctx, class.ID)
	if err != nil {
		return nil, err
	}
	return &contract.Asked{
		ClassID: class.ID, UntilMS: contract.Millis(until), Lanes: hadLanes(led), Counted: taught.CountedAlone(led.Plan),
	}, nil
}

// askedAbout returns the last class, and until when it is asked about: the zero time where nobody is asked.
func (a *Audience) askedAbout(ctx context.Context) (class store.Class, until time.Time, err error) {
	newest, err := a.studio.Store.With(ctx).NewestClass()
	if err != nil || newest == 0 {
		return class, until, err
	}
	class, err = a.studio.Store.With(ctx).Class(newest)
	var unreadable *store.UnreadableError
	if errors.Is(err, store.ErrNotFound) || errors.As(err, &unreadable) { // it was deleted, or cannot be read
		return class, until, nil
	}
	if err != nil {
		return class, until, err
	}
	until, _, err = a.studio.AskedUntil(ctx, class)
	return class, until, err
}

// hadLanes reports whether a gentler lane ran beside at any moment of the class.
func hadLanes(led *studio.Class) bool {
	return slices.ContainsFunc(led.Led.Timeline().Rows, func(row pace.Row) bool { return !row.Beside.None() })
}

// The lanes that an answer can tell of.
const (
	laneMain   = "main"
	laneBeside = "beside"
)

// Answer counts what one who breathed says of the last class. Sums are kept, and nothing of who sent it.
func (a *Audience) Answer(ctx context.Context, code string, in contract.RoomAnswer) (contract.RoomAnswered, error) {
	if is, err := a.IsRoom(ctx, code); err != nil || !is {
		if err == nil {
			err = noRoom(code)
		}
		return contract.RoomAnswered{}, err
	}
	one, err := sums(in)
	if err != nil {
		return contract.RoomAnswered{}, err
	}
	class, until, err := a.askedAbout(ctx)
	if err != nil {
		return contract.RoomAnswered{}, err
	}
	if until.IsZero() || class.ID != in.ClassID {
		return contract.RoomAnswered{}, studio.Fail(studio.ErrConflict, "asked.over")
	}
	counted, err := a.counted.once(strconv.FormatInt(in.ClassID, 10), in.Ballot, func() error {
		return a.studio.Store.With(ctx).AddAnswer(in.ClassID, one)
	})
	if errors.Is(err, store.ErrFull) {
		return contract.RoomAnswered{}, nil
	}
	if err != nil {
		return contract.RoomAnswered{}, studio.Missing(err, store.KindClass, in.ClassID)
	}
	if counted {
		a.studio.ClassChanged(ctx, class)
		a.studio.NoteChange() // nobody is woken up: as many would be as have answered
	}
	return contract.RoomAnswered{Counted: true}, nil
}

// sums returns what one answer adds, or what is wrong with it.
func sums(in contract.RoomAnswer) (one store.Answers, err error) {
	switch in.How {
	case contract.Easy:
		one.Easy = 1
	case contract.Right:
		one.Right = 1
	case contract.TooMuch:
		one.TooMuch = 1
	default:
		return one, studio.Fail(studio.ErrInvalid, "asked.how", "given", in.How)
	}
	switch in.Lane {
	case "":
	case laneMain:
		one.Main = 1
	case laneBeside:
		one.Beside = 1
	default:
		return one, studio.Fail(studio.ErrInvalid, "asked.lane", "given", in.Lane)
	}
	if in.Amount < 0 || in.Amount > contract.MostCounted {
		return one, studio.Fail(studio.ErrInvalid, "asked.amount", "given", in.Amount, "most", contract.MostCounted)
	}
	if in.Amount > 0 {
		one.Amounts = map[int]int{in.Amount: 1}
	}
	return one, checkBallot(in.Ballot)
}

func checkBallot(ballot string) error {
	if len(ballot) < shortestBallot || len(ballot) > longestBallot {
		return studio.Fail(studio.ErrInvalid, "asked.ballot", "least", shortestBallot, "most", longestBallot)
	}
	return nil
}

const (
	shortestBallot = 16
	longestBallot  = 64
)

// ballots is the answers to what is asked now that were counted, by what their pages made up. They are held in memory
// only: where an answer is sent again because its receipt was lost, it counts once.
type ballots struct {
	mutex sync.Mutex
	about string // what is asked
	seen  []string
}

// once counts an answer that was not counted yet, and reports whether it did.
func (b *ballots) once(about, ballot string, count func() error) (bool, error) {
	b.mutex.Lock()
	defer b.mutex.Unlock()
	if b.about != about {
		b.about, b.seen = about, nil
	}
	if slices.Contains(b.seen, ballot) {
		return false, nil
	}
	if err := count(); err != nil {
		return false, err
	}
	b.seen = append(b.seen, ballot)
	return true, nil
}
