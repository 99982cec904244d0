package rehearse

import (
	"bytes"
	"context"
	"errors"
	"time"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
	"vastlantern/studio/rehearsed"
)

// Leading is what is asked of the room that leads classes: a rehearsal is led as a class is, by the same rules.
type Leading interface {
	ScoreOf(ctx context.Context, l *studio.Class, at int64) (contract.Score, error)
	ProposedIn(l *studio.Class, at int64, see string) (contract.Proposed, error)
}

// desk returns where rehearsals are led, for a request.
func (r *Rehearse) desk(ctx context.Context) *rehearsed.Desk {
	return &rehearsed.Desk{
		Shelf: shelf{r.studio, ctx},
		Score: func(class *led.Class, at int64) (contract.Score, error) {
			return r.leading.ScoreOf(ctx, &studio.Class{Class: *class}, at)
		},
		Propose: func(class *led.Class, at int64, see string) (contract.Proposed, error) {
			return r.leading.ProposedIn(&studio.Class{Class: *class}, at, see)
		},
		Tell: func(f fact.Fact) string { return studio.Told(ctx, f) },
		Now:  r.studio.Now,
	}
}

// shelf is the rehearsals of the data file.
type shelf struct {
	studio *studio.Studio
	ctx    context.Context
}

func (s shelf) Rehearsal(id int64) (rehearsed.Kept, error) {
	row, err := s.studio.Store.With(s.ctx).Rehearsal(id)
	return kept(row), studio.Missing(err, store.KindRehearsal, id)
}

func (s shelf) Save(k rehearsed.Kept) error {
	return studio.Missing(s.studio.Store.With(s.ctx).SaveRehearsal(stored(k)), store.KindRehearsal, k.ID)
}

func (s shelf) Damaged(id int64, err error) error {
	s.studio.NoteDamage(store.KindRehearsal, id, err)
	return studio.Fail(studio.ErrDamaged, "rehearsal.unreadable", "why", err)
}

func kept(row store.Rehearsal) rehearsed.Kept {
	return rehearsed.Kept{
		ID: row.ID, StartedAt: row.StartedAt, UpdatedAt: row.UpdatedAt, EndedAt: row.EndedAt, Document: row.Document,
		Setting: row.Setting, Script: row.Script, AtMS: row.AtMS, Looks: row.Looks, Digest: row.Digest,
	}
}

func stored(k rehearsed.Kept) store.Rehearsal {
	return store.Rehearsal{
		ID: k.ID, StartedAt: k.StartedAt, UpdatedAt: k.UpdatedAt, EndedAt: k.EndedAt, Document: k.Document,
		Setting: k.Setting, Script: k.Script, AtMS: k.AtMS, Looks: k.Looks, Digest: k.Digest,
	}
}

// failed returns what went wrong in a rehearsal as a failure that says it.
func failed(err error) error {
	var say fact.Fact
	switch {
	case errors.Is(err, rehearsed.ErrOver), errors.Is(err, rehearsed.ErrNotEnded):
		return studio.FailWith(studio.ErrConflict, fact.Of(err))
	case errors.As(err, &say):
		return studio.FailWith(studio.ErrInvalid, say)
	}
	return err
}

// Begin begins a rehearsal, which is in its own list and in no record of classes.
func (r *Rehearse) Begin(ctx context.Context, want contract.Rehearse) (contract.Rehearsing, error) {
	set := rehearsed.Setting{Scenario: want.Scenario, Level: want.Level, Room: want.Room, Seed: want.Seed}
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
	begun, err := r.desk(ctx).Begin(document, set)
	if err != nil {
		return contract.Rehearsing{}, failed(err)
	}
	row, err := r.studio.Store.With(ctx).AddRehearsal(stored(begun))
	if err != nil {
		return contract.Rehearsing{}, err
	}
	return r.At(ctx, row.ID, 0)
}

// beginTask returns the plan of a task, with what the teacher chose for the school.
func (r *Rehearse) beginTask(ctx context.Context, set *rehearsed.Setting) ([]byte, error) {
	file, err := r.desk(ctx).Task(set)
	if err != nil {
		return nil, failed(err)
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

// At returns a rehearsal as it is at a moment of it.
func (r *Rehearse) At(ctx context.Context, id, at int64) (contract.Rehearsing, error) {
	now, err := r.desk(ctx).At(id, at)
	return now, failed(err)
}

// Adjust makes an adjustment in a rehearsal.
func (r *Rehearse) Adjust(ctx context.Context, id int64, want contract.Adjust) (contract.RehearsalAdjusted, error) {
	r.pressing.Lock()
	defer r.pressing.Unlock()
	adjusted, err := r.desk(ctx).Adjust(id, want)
	return adjusted, failed(err)
}

// Saw says what was seen in a rehearsal, and proposes what to do about it.
func (r *Rehearse) Saw(ctx context.Context, id int64, saw contract.Saw) (contract.RehearsalProposed, error) {
	r.pressing.Lock()
	defer r.pressing.Unlock()
	proposed, err := r.desk(ctx).Saw(id, saw)
	return proposed, failed(err)
}

// Would reports what each of the adjustments would do if it were made at a moment of a rehearsal.
func (r *Rehearse) Would(ctx context.Context, id int64, want contract.RehearsalWould) ([]contract.Preview, error) {
	previews, err := r.desk(ctx).Would(id, want)
	return previews, failed(err)
}

// Tapped tells the pace of taps in a rehearsal, and the tempo at which it would be as quick.
func (r *Rehearse) Tapped(ctx context.Context, id int64, taps contract.Taps) (contract.Tapped, error) {
	tapped, err := r.desk(ctx).Tapped(id, taps)
	return tapped, failed(err)
}

// HeardStrokes returns what to do about how the room of a rehearsal was heard to stroke.
func (r *Rehearse) HeardStrokes(
	ctx context.Context, id int64, heard contract.HeardStrokes,
) (contract.FromHeard, error) {
	proposed, err := r.desk(ctx).HeardStrokes(id, heard)
	return proposed, failed(err)
}

// Came notes how far a rehearsal is, so that it can be taken up there again, and whether the covered count was looked
// at.
func (r *Rehearse) Came(ctx context.Context, id int64, to contract.RehearsalMoment) (contract.Rehearsing, error) {
	r.pressing.Lock()
	defer r.pressing.Unlock()
	now, err := r.desk(ctx).Came(id, to)
	return now, failed(err)
}

// End ends a rehearsal where it is, and looks back on it. One that has ended stays as it is.
func (r *Rehearse) End(ctx context.Context, id int64, to contract.RehearsalMoment) (contract.RehearsalReview, error) {
	r.pressing.Lock()
	defer r.pressing.Unlock()
	review, err := r.desk(ctx).End(id, to)
	return review, failed(err)
}

// Review looks back on a rehearsal that has ended.
func (r *Rehearse) Review(ctx context.Context, id int64) (contract.RehearsalReview, error) {
	review, err := r.desk(ctx).Review(id)
	return review, failed(err)
}
