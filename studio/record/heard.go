package record

import (
	"context"
	"errors"
	"fmt"
	"math"
	"strconv"
	"strings"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// AddHeard keeps what a lead screen heard of the room in a class. What is there already stays as it is; of a sample
// class nothing is kept.
func (r *Records) AddHeard(ctx context.Context, class int64, more contract.HeardMore) (contract.HeardKept, error) {
	if _, err := r.classes.Open(ctx, class); err != nil {
		return contract.HeardKept{}, err
	}
	if err := studio.CheckHeard(more.Heard); err != nil {
		return contract.HeardKept{}, studio.FailWith(studio.ErrInvalid, fact.Of(err))
	}
	st := r.studio.Store.With(ctx)
	if _, err := st.Class(class); errors.Is(err, store.ErrNotFound) {
		return contract.HeardKept{}, nil // a sample class is not in the data file
	}
	added, err := st.AddHeard(class, studio.MostHeard, studio.StoredHeard(more.Heard)...)
	if errors.Is(err, store.ErrFull) {
		return contract.HeardKept{}, studio.Fail(studio.ErrConflict, "heard.full", "most", studio.MostHeard)
	}
	if added > 0 {
		r.studio.NoteChange()
	}
	return contract.HeardKept{Kept: added}, err
}

// heardIn returns what was heard in a class beside what was planned and led; nothing where nothing was.
func (r *Records) heardIn(ctx context.Context, class int64) ([]contract.HeardPhase, error) {
	stored, err := r.studio.Store.With(ctx).Heard(class)
	if err != nil || len(stored) == 0 {
		return []contract.HeardPhase{}, err
	}
	l, err := r.classes.Open(ctx, class)
	if errors.Is(err, studio.ErrDamaged) {
		return []contract.HeardPhase{}, nil // its row stays empty, as the rest of it does
	}
	if err != nil {
		return nil, err
	}
	return r.heard(ctx, l)
}

func (r *Records) heard(ctx context.Context, l *studio.Class) ([]contract.HeardPhase, error) {
	list := []contract.HeardPhase{}
	stored, err := r.studio.Store.With(ctx).Heard(l.Stored.ID)
	if err != nil || len(stored) == 0 {
		return list, err
	}
	heard := make([]taught.Heard, len(stored))
	for i, h := range stored {
		heard[i] = taught.Heard{
			Phase: breath.Phase(h.Phase), From: h.FromMS, To: h.ToMS,
			PerMinute: breath.Ratio(int64(math.Round(h.PerMinute*100)), 100),
		}
	}
	rows := taught.Until(l.Led.Timeline(), l.At(r.studio.Now())).Rows
	for _, p := range taught.HeardOf(l.Plan, rows, heard) {
		list = append(list, contract.HeardPhase{
			Passage: p.Passage, Round: p.Round, Breath: p.Breath, AtMS: p.At, Phase: p.Phase,
			PlannedRate: shown(p.Strokes.Planned.Float()), LedRate: shown(p.Strokes.Led.Float()),
			HeardRate: shown(p.Strokes.Heard.Float()),
			PlannedMS: p.Lasted.Planned, LedMS: p.Lasted.Led, HeardMS: p.Lasted.Heard,
		})
	}
	return list, nil
}

// heardInCell writes what was heard in a passage round by round, beside the beat or the length that was led: "2:66/60"
// strokes a minute, or "1:7.2/8" seconds.
func heardInCell(heard []contract.HeardPhase, passage int) string {
	var list []string
	for _, h := range heard {
		switch {
		case h.Passage != passage:
		case h.Phase == breath.Stroke:
			rate := func(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }
			list = append(list, fmt.Sprintf("%d:%s/%s", h.Round, rate(h.HeardRate), rate(h.LedRate)))
		default:
			list = append(list, fmt.Sprintf("%d:%s", h.Round, inSeconds(h.HeardMS, h.LedMS)))
		}
	}
	return strings.Join(list, " ")
}
