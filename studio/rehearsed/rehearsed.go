// Package rehearsed holds rehearsals as they are led: the room, what was pressed, what people do, and what came of it.
// It knows no data file and no clock, so that a page can rehearse by itself with the same code.
package rehearsed

import (
	"encoding/json"
	"math/rand/v2"
	"slices"
	"time"

	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/core/rehearsal"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
)

// Desk is where rehearsals are led.
type Desk struct {
	Shelf Shelf
	// Score returns the score of a rehearsal's class at a time of it.
	Score func(class *led.Class, at int64) (contract.Score, error)
	// Propose returns what to do about what is seen at a time of it.
	Propose func(class *led.Class, at int64, see string) (contract.Proposed, error)
	Tell    func(fact.Fact) string // in the language of the person
	Now     func() time.Time
}

// Shelf keeps rehearsals.
type Shelf interface {
	Rehearsal(id int64) (Kept, error)
	Save(Kept) error
	// Damaged returns what to say of a rehearsal that cannot be read.
	Damaged(id int64, err error) error
}

// Kept is a rehearsal as it is kept.
type Kept struct {
	ID        int64
	StartedAt time.Time
	UpdatedAt time.Time
	EndedAt   time.Time // zero while it goes on
	Document  []byte    // the plan file that is led
	Setting   []byte    // JSON: the room, the seed, the task and its level
	Script    []byte    // JSON: what was pressed, and when
	AtMS      int64     // how far it came, milliseconds from its start
	Looks     int       // how often the covered count was looked at
	Digest    []byte    // JSON: what came of it; empty while it goes on
}

// What does not fit a rehearsal as it is.
var (
	ErrOver     = fact.New("rehearsal.over")
	ErrNotEnded = fact.New("rehearsal.not-ended")
)

// Limits is what the model is not.
var Limits = fact.New("rehearsal.limits")

// Setting is what a rehearsal was begun with.
type Setting struct {
	Scenario string `json:"scenario,omitempty"`
	Level    int    `json:"level,omitempty"`
	Room     string `json:"room"`
	Seed     int64  `json:"seed"`
}

// inProgress is a rehearsal with everything that was pressed.
type inProgress struct {
	stored Kept
	Setting
	script []contract.Tried
	class  *led.Class
	room   rehearsal.Room
	task   *rehearsal.Scenario // nil if a plan is rehearsed freely
	level  *rehearsal.Level
}

const (
	mostPresses = 2000
	chances     = 1 << 31 // seeds of rooms by chance
)

// Task returns the plan of a task. The task chooses the room, and its people unless they are asked to be others.
func (d *Desk) Task(set *Setting) ([]byte, error) {
	scenario, level, err := rehearsal.FindScenario(set.Scenario, set.Level)
	if err != nil {
		return nil, fact.New("rehearsal.wrong", "why", err)
	}
	set.Room = level.Room
	if set.Seed <= 0 {
		set.Seed = level.Seed
	}
	return level.Document(d.Tell(scenario.Title()))
}

// Begin returns a rehearsal of a plan at its start, with people by chance where the setting does not choose them.
func (d *Desk) Begin(document []byte, set Setting) (Kept, error) {
	if _, err := rehearsal.Find(set.Room); err != nil {
		return Kept{}, fact.New("rehearsal.wrong", "why", err)
	}
	if set.Seed <= 0 {
		set.Seed = 1 + rand.Int64N(chances)
	}
	settings, err := json.Marshal(set)
	now := d.Now()
	return Kept{
		StartedAt: now, UpdatedAt: now, Document: document, Setting: settings, Script: []byte("[]"),
	}, err
}

// open reads a rehearsal.
func (d *Desk) open(id int64) (*inProgress, error) {
	stored, err := d.Shelf.Rehearsal(id)
	if err != nil {
		return nil, err
	}
	l, err := read(stored)
	if err != nil {
		return nil, d.Shelf.Damaged(id, err)
	}
	return l, nil
}

func read(stored Kept) (*inProgress, error) {
	l := &inProgress{stored: stored}
	if err := json.Unmarshal(stored.Setting, &l.Setting); err != nil {
		return nil, err
	}
	if err := json.Unmarshal(stored.Script, &l.script); err != nil {
		return nil, err
	}
	var err error
	if l.class, err = led.Read(stored.Document); err != nil {
		return nil, err
	}
	if l.room, err = rehearsal.Find(l.Room); err != nil {
		return nil, err
	}
	if l.Scenario != "" {
		task, level, err := rehearsal.FindScenario(l.Scenario, l.Level)
		if err != nil {
			return nil, err
		}
		l.task, l.level = &task, &level
	}
	l.class.StartedAt = stored.StartedAt
	for _, tried := range l.script {
		if err := l.add(tried); err != nil {
			return nil, err
		}
	}
	return l, nil
}

func (l *inProgress) add(tried contract.Tried) error {
	a, _, err := led.Adjustment(tried.AtMS, tried.Adjust)
	if err != nil {
		return err
	}
	l.class.Add(led.Sent{Key: tried.Adjust.Key, Because: tried.Adjust.Because}, a)
	return nil
}

// model returns the rehearsal as the model has it, at a moment.
func (l *inProgress) model(at int64) (*rehearsal.Led, error) {
	m := &rehearsal.Led{Plan: l.class.Plan, Script: l.class.Script, Seed: l.Seed, Now: at}
	if l.level == nil {
		m.People = l.room.Seat(l.Seed)
		return m, nil
	}
	people, err := l.level.Seat(l.Seed)
	m.People, m.Latecomer = people, l.level.Latecomer*1000
	return m, err
}

// moment returns the time of a rehearsal that a screen names: never before what was pressed last.
func (l *inProgress) moment(at int64) int64 { return max(0, at, l.class.LastPress()) }

// At returns a rehearsal as it is at a moment of it.
func (d *Desk) At(id, at int64) (contract.Rehearsing, error) {
	l, err := d.open(id)
	if err != nil {
		return contract.Rehearsing{}, err
	}
	return d.now(l, l.moment(max(at, l.stored.AtMS)))
}

// ahead is for how long it is told what people do, in milliseconds; a screen asks again before.
const ahead = 150_000

func (d *Desk) now(l *inProgress, at int64) (contract.Rehearsing, error) {
	score, err := d.Score(l.class, at)
	if err != nil {
		return contract.Rehearsing{}, err
	}
	score.ClassID = -l.stored.ID // of no class
	score.Over = !l.stored.EndedAt.IsZero()
	now := contract.Rehearsing{
		ID:      l.stored.ID,
		Score:   score,
		Level:   l.Level,
		Room:    d.Tell(l.room.Title()),
		AtMS:    at,
		UntilMS: at + ahead,
		People:  []contract.Watched{},
		Looks:   l.stored.Looks,
		Limits:  Limits,
	}
	if l.task != nil {
		task := d.scenario(l.task)
		now.Task = &task
	}
	m, err := l.model(at)
	if err != nil {
		return now, err
	}
	for who, course := range m.Courses() {
		now.People = append(now.People, watched(&course, &m.People[who], at))
	}
	return now, nil
}

const behind = 30_000 // ms of what was, for signs that are still to be seen

// watched returns what is to be seen of somebody from a moment on.
func watched(c *rehearsal.Course, p *rehearsal.Person, at int64) contract.Watched {
	const ofComfort = 0.45 // of a breath that is attended to is one that is not: a guess
	w := contract.Watched{
		BreathMS: int64(ofComfort * 1000 * p.Comfort),
		Acts:     []contract.WatchedAct{},
		Signs:    []contract.WatchedSign{},
	}
	for i, act := range c.Acts {
		over := i+1 < len(c.Acts) && c.Acts[i+1].At <= at
		if over || act.At > at+ahead {
			continue
		}
		w.Acts = append(
			w.Acts,
			contract.WatchedAct{AtMS: act.At, UntilMS: act.Until, Do: act.Do, Through: act.Through, Counts: act.Counts},
		)
	}
	for _, sign := range c.Signs {
		if sign.Until > at-behind && sign.At < at+ahead {
			w.Signs = append(w.Signs, contract.WatchedSign{ID: sign.ID, AtMS: sign.At, UntilMS: sign.Until})
		}
	}
	slices.SortFunc(w.Signs, func(a, b contract.WatchedSign) int { return int(a.AtMS - b.AtMS) })
	return w
}

// press adds what was pressed, unless it was added already, and stores it.
func (d *Desk) press(l *inProgress, want contract.Adjust) (number int, err error) {
	if want.Key == "" {
		return 0, fact.New("lead.needs-key")
	}
	if number := l.class.Known(want.Key); number > 0 {
		return number, nil
	}
	if !l.stored.EndedAt.IsZero() {
		return 0, ErrOver
	}
	if len(l.script) >= mostPresses {
		return 0, fact.New("rehearsal.too-many", "given", len(l.script))
	}
	at := l.stored.AtMS
	if want.PressedMS != nil {
		at = int64(*want.PressedMS)
	}
	want.PressedMS = nil // it has become the time
	tried := contract.Tried{AtMS: l.moment(at), Adjust: want}
	if err := l.add(tried); err != nil {
		return 0, err
	}
	l.script = append(l.script, tried)
	l.stored.AtMS = max(l.stored.AtMS, tried.AtMS)
	return len(l.script), d.save(l)
}

func (d *Desk) save(l *inProgress) error {
	script, err := json.Marshal(l.script)
	if err != nil {
		return err
	}
	l.stored.Script, l.stored.UpdatedAt = script, d.Now()
	return d.Shelf.Save(l.stored)
}

// Adjust makes an adjustment in a rehearsal.
func (d *Desk) Adjust(id int64, want contract.Adjust) (contract.RehearsalAdjusted, error) {
	l, err := d.open(id)
	if err != nil {
		return contract.RehearsalAdjusted{}, err
	}
	number, err := d.press(l, want)
	if err != nil {
		return contract.RehearsalAdjusted{}, err
	}
	now, err := d.now(l, l.stored.AtMS)
	return contract.RehearsalAdjusted{Answer: l.class.Answer(number), Now: now}, err
}

// Saw says what was seen in a rehearsal, and proposes what to do about it.
func (d *Desk) Saw(id int64, saw contract.Saw) (contract.RehearsalProposed, error) {
	l, err := d.open(id)
	if err != nil {
		return contract.RehearsalProposed{}, err
	}
	at := l.stored.AtMS
	if saw.PressedMS != nil {
		at = int64(*saw.PressedMS)
	}
	proposed, err := d.Propose(l.class, l.moment(at), saw.See)
	if err != nil {
		return contract.RehearsalProposed{}, err
	}
	if _, err := d.press(l, contract.Adjust{Key: saw.Key, Do: pace.Signal, See: &saw.See,
		PressedMS: saw.PressedMS}); err != nil {
		return contract.RehearsalProposed{}, err
	}
	now, err := d.now(l, l.stored.AtMS)
	proposed.Score = now.Score
	return contract.RehearsalProposed{Proposed: proposed, Now: now}, err
}

// Would reports what each of the adjustments would do if it were made at a moment of a rehearsal.
func (d *Desk) Would(id int64, want contract.RehearsalWould) ([]contract.Preview, error) {
	l, err := d.open(id)
	if err != nil {
		return nil, err
	}
	return l.class.Would(l.moment(want.AtMS), want.Do)
}

// Tapped tells the pace of taps in a rehearsal, and the tempo at which it would be as quick.
func (d *Desk) Tapped(id int64, taps contract.Taps) (contract.Tapped, error) {
	l, err := d.open(id)
	if err != nil {
		return contract.Tapped{}, err
	}
	at := int64(0)
	if n := len(taps.AtMS); n > 0 {
		at = taps.AtMS[n-1]
	}
	return l.class.Tapped(l.moment(at), taps)
}

// HeardStrokes returns what to do about how the room of a rehearsal was heard to stroke.
func (d *Desk) HeardStrokes(id int64, heard contract.HeardStrokes) (contract.FromHeard, error) {
	l, err := d.open(id)
	if err != nil {
		return contract.FromHeard{}, err
	}
	return l.class.ProposeHeard(l.moment(heard.AtMS), heard)
}

// Came notes how far a rehearsal is, so that it can be taken up there again, and whether the covered count was looked
// at.
func (d *Desk) Came(id int64, to contract.RehearsalMoment) (contract.Rehearsing, error) {
	l, err := d.open(id)
	if err != nil {
		return contract.Rehearsing{}, err
	}
	at := l.moment(max(to.AtMS, l.stored.AtMS))
	if l.stored.EndedAt.IsZero() {
		l.stored.AtMS = at
		if to.Looked {
			l.stored.Looks++
		}
		if err := d.save(l); err != nil {
			return contract.Rehearsing{}, err
		}
	}
	return d.now(l, at)
}
