package rehearse

import (
	"bytes"
	"context"
	"encoding/json"
	"math/rand/v2"
	"slices"
	"time"

	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/rehearsal"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
)

// Leading is what is asked of the room that leads classes: a rehearsal is led as a class is, by the same rules.
type Leading interface {
	ScoreOf(ctx context.Context, l *studio.Class, at int64) (contract.Score, error)
	Adjustment(at int64, want contract.Adjust) (pace.Adjustment, error)
	WouldIn(l *studio.Class, at int64, wants []contract.Adjust) ([]contract.Preview, error)
	ProposedIn(l *studio.Class, at int64, see string) (contract.Proposed, error)
	TappedIn(l *studio.Class, at int64, taps contract.Taps) (contract.Tapped, error)
}

// setting is what a rehearsal was begun with.
type setting struct {
	Scenario string `json:"scenario,omitempty"`
	Level    int    `json:"level,omitempty"`
	Room     string `json:"room"`
	Seed     int64  `json:"seed"`
}

// inProgress is a rehearsal with everything that was pressed.
type inProgress struct {
	stored store.Rehearsal
	setting
	script []contract.Tried
	class  *studio.Class
	room   rehearsal.Room
	task   *rehearsal.Scenario // nil if a plan is rehearsed freely
	level  *rehearsal.Level
}

const (
	mostPresses = 2000
	chances     = 1 << 31 // seeds of rooms by chance
)

// Begin begins a rehearsal, which is in its own list and in no record of classes.
func (r *Rehearse) Begin(ctx context.Context, want contract.Rehearse) (contract.Rehearsing, error) {
	set := setting{want.Scenario, want.Level, want.Room, want.Seed}
	var document []byte
	var err error
	switch {
	case want.Scenario != "":
		document, err = r.beginTask(ctx, &set)
	case want.PlanID > 0:
		document, err = r.beginPlan(ctx, want.PlanID, want.Passage)
	default:
		err = studio.Fail(studio.ErrInvalid, "rehearsal.choose")
	}
	if err != nil {
		return contract.Rehearsing{}, err
	}
	if _, err := rehearsal.Find(set.Room); err != nil {
		return contract.Rehearsing{}, studio.Fail(studio.ErrInvalid, "rehearsal.wrong", "why", err)
	}
	if set.Seed <= 0 {
		set.Seed = 1 + rand.Int64N(chances)
	}
	settings, err := json.Marshal(set)
	if err != nil {
		return contract.Rehearsing{}, err
	}
	now := r.studio.Now()
	stored, err := r.studio.Store.With(ctx).AddRehearsal(
		store.Rehearsal{StartedAt: now, UpdatedAt: now, Document: document, Setting: settings, Script: []byte("[]")},
	)
	if err != nil {
		return contract.Rehearsing{}, err
	}
	return r.At(ctx, stored.ID, 0)
}

// beginTask returns the plan of a task. The task chooses the room, and its people unless they are asked to be others.
func (r *Rehearse) beginTask(ctx context.Context, set *setting) ([]byte, error) {
	scenario, level, err := rehearsal.FindScenario(set.Scenario, set.Level)
	if err != nil {
		return nil, studio.Fail(studio.ErrInvalid, "rehearsal.wrong", "why", err)
	}
	set.Room = level.Room
	if set.Seed <= 0 {
		set.Seed = level.Seed
	}
	file, err := level.Document(studio.Told(ctx, scenario.Title()))
	if err != nil {
		return nil, err
	}
	doc, err := sheet.ReadDocument(bytes.NewReader(file))
	if err != nil {
		return nil, err
	}
	if err := r.library.AttachTeacherSettings(ctx, doc, nil); err != nil {
		return nil, err
	}
	return written(doc)
}

// beginPlan returns a stored plan as it is led, from a passage on.
func (r *Rehearse) beginPlan(ctx context.Context, id int64, from int) ([]byte, error) {
	doc, p, err := r.plan(ctx, id, nil)
	if err != nil {
		return nil, err
	}
	switch {
	case len(p.Passages) == 0:
		return nil, studio.Fail(studio.ErrInvalid, "rehearsal.plan-empty")
	case from > len(p.Passages):
		return nil, studio.Fail(studio.ErrInvalid, "rehearsal.no-passage", "passages", len(p.Passages), "from", from)
	case from > 1:
		if slot := time.Duration(p.Slot.Times(60_000).Round()) * time.Millisecond; slot > 0 {
			doc.SetSlot(max(time.Minute, slot-time.Duration(startOf(p, from))*time.Millisecond).Truncate(time.Second))
		}
		doc.KeepOnly(func(number int) bool { return number >= from })
	}
	doc.SetMark(plan.Mark{}) // it is no class of a programme
	return written(doc)
}

// startOf returns when a passage begins as planned, in milliseconds; what waits for the teacher takes its planned
// length.
func startOf(p *plan.Plan, passage int) (at int64) {
	for i := range p.Passages[:passage-1] {
		at += p.Passages[i].PlannedLength().Round()
	}
	return at
}

func written(doc plan.Document) ([]byte, error) {
	var text bytes.Buffer
	err := sheet.WritePlan(&text, doc)
	return text.Bytes(), err
}

// open reads a rehearsal.
func (r *Rehearse) open(ctx context.Context, id int64) (*inProgress, error) {
	stored, err := r.studio.Store.With(ctx).Rehearsal(id)
	if err != nil {
		return nil, studio.Missing(err, store.KindRehearsal, id)
	}
	l, err := r.read(stored)
	if err != nil {
		r.studio.NoteDamage(store.KindRehearsal, id, err)
		return nil, studio.Fail(studio.ErrDamaged, "rehearsal.unreadable", "why", err)
	}
	return l, nil
}

func (r *Rehearse) read(stored store.Rehearsal) (*inProgress, error) {
	l := &inProgress{stored: stored}
	if err := json.Unmarshal(stored.Setting, &l.setting); err != nil {
		return nil, err
	}
	if err := json.Unmarshal(stored.Script, &l.script); err != nil {
		return nil, err
	}
	_, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	if err != nil {
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
	l.class = studio.BeginClass(store.Class{StartedAt: stored.StartedAt, Document: stored.Document}, p)
	for _, tried := range l.script {
		if err := r.add(l, tried); err != nil {
			return nil, err
		}
	}
	return l, nil
}

func (r *Rehearse) add(l *inProgress, tried contract.Tried) error {
	a, err := r.leading.Adjustment(tried.AtMS, tried.Adjust)
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
func (r *Rehearse) At(ctx context.Context, id, at int64) (contract.Rehearsing, error) {
	l, err := r.open(ctx, id)
	if err != nil {
		return contract.Rehearsing{}, err
	}
	return r.now(ctx, l, l.moment(max(at, l.stored.AtMS)))
}

// ahead is for how long it is told what people do, in milliseconds; a screen asks again before.
const ahead = 150_000

func (r *Rehearse) now(ctx context.Context, l *inProgress, at int64) (contract.Rehearsing, error) {
	score, err := r.leading.ScoreOf(ctx, l.class, at)
	if err != nil {
		return contract.Rehearsing{}, err
	}
	score.ClassID = -l.stored.ID // of no class
	score.Over = !l.stored.EndedAt.IsZero()
	now := contract.Rehearsing{
		ID:      l.stored.ID,
		Score:   score,
		Level:   l.Level,
		Room:    studio.Told(ctx, l.room.Title()),
		AtMS:    at,
		UntilMS: at + ahead,
		People:  []contract.Watched{},
		Looks:   l.stored.Looks,
		Limits:  limits,
	}
	if l.task != nil {
		task := scenario(ctx, l.task)
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
func (r *Rehearse) press(ctx context.Context, l *inProgress, want contract.Adjust) (number int, err error) {
	if want.Key == "" {
		return 0, studio.Fail(studio.ErrInvalid, "lead.needs-key")
	}
	if number := l.class.Known(want.Key); number > 0 {
		return number, nil
	}
	if !l.stored.EndedAt.IsZero() {
		return 0, studio.Fail(studio.ErrConflict, "rehearsal.over")
	}
	if len(l.script) >= mostPresses {
		return 0, studio.Fail(studio.ErrInvalid, "rehearsal.too-many", "given", len(l.script))
	}
	at := l.stored.AtMS
	if want.PressedMS != nil {
		at = int64(*want.PressedMS)
	}
	want.PressedMS = nil // it has become the time
	tried := contract.Tried{AtMS: l.moment(at), Adjust: want}
	if err := r.add(l, tried); err != nil {
		return 0, err
	}
	l.script = append(l.script, tried)
	l.stored.AtMS = max(l.stored.AtMS, tried.AtMS)
	return len(l.script), r.save(ctx, l)
}

func (r *Rehearse) save(ctx context.Context, l *inProgress) error {
	script, err := json.Marshal(l.script)
	if err != nil {
		return err
	}
	l.stored.Script, l.stored.UpdatedAt = script, r.studio.Now()
	return studio.Missing(r.studio.Store.With(ctx).SaveRehearsal(l.stored), store.KindRehearsal, l.stored.ID)
}

// Adjust makes an adjustment in a rehearsal.
func (r *Rehearse) Adjust(ctx context.Context, id int64, want contract.Adjust) (contract.RehearsalAdjusted, error) {
	r.pressing.Lock()
	defer r.pressing.Unlock()
	l, err := r.open(ctx, id)
	if err != nil {
		return contract.RehearsalAdjusted{}, err
	}
	number, err := r.press(ctx, l, want)
	if err != nil {
		return contract.RehearsalAdjusted{}, err
	}
	now, err := r.now(ctx, l, l.stored.AtMS)
	return contract.RehearsalAdjusted{Answer: l.class.Answer(number), Now: now}, err
}

// Saw says what was seen in a rehearsal, and proposes what to do about it.
func (r *Rehearse) Saw(ctx context.Context, id int64, saw contract.Saw) (contract.RehearsalProposed, error) {
	r.pressing.Lock()
	defer r.pressing.Unlock()
	l, err := r.open(ctx, id)
	if err != nil {
		return contract.RehearsalProposed{}, err
	}
	at := l.stored.AtMS
	if saw.PressedMS != nil {
		at = int64(*saw.PressedMS)
	}
	proposed, err := r.leading.ProposedIn(l.class, l.moment(at), saw.See)
	if err != nil {
		return contract.RehearsalProposed{}, err
	}
	if _, err := r.press(ctx, l, contract.Adjust{Key: saw.Key, Do: pace.Signal, See: &saw.See,
		PressedMS: saw.PressedMS}); err != nil {
		return contract.RehearsalProposed{}, err
	}
	now, err := r.now(ctx, l, l.stored.AtMS)
	proposed.Score = now.Score
	return contract.RehearsalProposed{Proposed: proposed, Now: now}, err
}

// Would reports what each of the adjustments would do if it were made at a moment of a rehearsal.
func (r *Rehearse) Would(ctx context.Context, id int64, want contract.RehearsalWould) ([]contract.Preview, error) {
	l, err := r.open(ctx, id)
	if err != nil {
		return nil, err
	}
	return r.leading.WouldIn(l.class, l.moment(want.AtMS), want.Do)
}

// Tapped tells the pace of taps in a rehearsal, and the tempo at which it would be as quick.
func (r *Rehearse) Tapped(ctx context.Context, id int64, taps contract.Taps) (contract.Tapped, error) {
	l, err := r.open(ctx, id)
	if err != nil {
		return contract.Tapped{}, err
	}
	at := int64(0)
	if n := len(taps.AtMS); n > 0 {
		at = taps.AtMS[n-1]
	}
	return r.leading.TappedIn(l.class, l.moment(at), taps)
}

// Came notes how far a rehearsal is, so that it can be taken up there again, and whether the covered count was looked
// at.
func (r *Rehearse) Came(ctx context.Context, id int64, to contract.RehearsalMoment) (contract.Rehearsing, error) {
	r.pressing.Lock()
	defer r.pressing.Unlock()
	l, err := r.open(ctx, id)
	if err != nil {
		return contract.Rehearsing{}, err
	}
	at := l.moment(max(to.AtMS, l.stored.AtMS))
	if l.stored.EndedAt.IsZero() {
		l.stored.AtMS = at
		if to.Looked {
			l.stored.Looks++
		}
		if err := r.save(ctx, l); err != nil {
			return contract.Rehearsing{}, err
		}
	}
	return r.now(ctx, l, at)
}
