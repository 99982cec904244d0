// Package record serves what was taught: the record of each class and what was added to it, lists and searches, a group
// over the weeks, a year, and their files.
package record

import (
	"context"
	"math"
	"sync"

	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Records is the room.
type Records struct {
	studio  *studio.Studio
	library Library
	classes Classes
	homes   Homes

	programmes Programmes

	digesting   sync.Mutex
	remembering sync.Mutex
	pasts       pasts
}

// Library is what the record asks of the practice book and the groups.
type Library interface {
	Group(ctx context.Context, id int64) (*contract.Group, error)
	EveryGroupByID(context.Context) (map[int64]*contract.Group, error)
	PracticeNames(context.Context) (map[string]string, error)
}

// Classes is what the record asks of the room where classes are led.
type Classes interface {
	Open(ctx context.Context, id int64) (*studio.Class, error)
	InProgress(context.Context) (*studio.Class, error)
}

// Homes is what the record asks of what was given to do at home.
type Homes interface {
	OfClass(ctx context.Context, class store.Class) ([]contract.Home, error)
}

// Programmes is what the record asks of what groups follow.
type Programmes interface {
	// Guides is what the programmes of a group ask for next time.
	Guides(ctx context.Context, group int64) ([]taught.Guide, error)
}

// SetProgrammes gives the room what groups follow, which follows from what was taught.
func (r *Records) SetProgrammes(p Programmes) { r.programmes = p }

// New returns the room of a studio. What is kept of a class for the lists follows the class from then on.
func New(s *studio.Studio, l Library, c Classes, h Homes) *Records {
	r := &Records{studio: s, library: l, classes: c, homes: h}
	s.OnClass(r.digestOne)
	return r
}

// Class returns a class with everything that was pressed.
func (r *Records) Class(ctx context.Context, id int64) (*studio.Class, error) {
	return r.classes.Open(ctx, id)
}

func (r *Records) classCard(ctx context.Context, l *studio.Class, groups map[int64]*contract.Group) contract.ClassCard {
	now := r.studio.Now()
	card := contract.ClassCard{
		ID: l.Stored.ID, Title: l.Plan.Title, Group: groups[l.Stored.GroupID], StartedMS: contract.Millis(l.Stored.StartedAt),
		Running: l.Running(now), Passages: []string{},
	}
	if card.LengthMS = l.Led.Timeline().End; card.Running {
		card.LengthMS = l.At(now)
	}
	for i := range l.Plan.Passages {
		if l.Plan.Passages[i].Type == plan.Practice {
			card.Passages = append(card.Passages, studio.Summed(ctx, l.Plan.Passages[i]))
		}
	}
	return card
}

// Record returns what was taught in a class; of one that is running, as far as it is.
func (r *Records) Record(ctx context.Context, id int64) (contract.Record, error) {
	l, err := r.classes.Open(ctx, id)
	if err != nil {
		return contract.Record{}, err
	}
	groups, err := r.library.EveryGroupByID(ctx)
	if err != nil {
		return contract.Record{}, err
	}
	record := contract.Record{
		Class:        r.classCard(ctx, l, groups),
		PlanID:       l.Stored.PlanID,
		Passages:     []contract.RecordPassage{},
		Marks:        []contract.Mark{},
		Acknowledged: append([]string{}, l.Stored.Acknowledged...),
	}
	if _, err := r.studio.Store.With(ctx).Plan(record.PlanID); err != nil {
		record.PlanID = 0
	}
	if record.Remarks, err = r.remarks(ctx, id); err != nil {
		return contract.Record{}, err
	}
	record.Moods = moods
	if record.Told, err = r.toldOf(ctx, l.Stored, l.Plan); err != nil {
		return contract.Record{}, err
	}
	if record.CheckIn, err = r.checkIn(ctx, id); err != nil {
		return contract.Record{}, err
	}
	if record.Homes, err = r.homes.OfClass(ctx, l.Stored); err != nil {
		return contract.Record{}, err
	}
	record.Curve = curve(taught.Until(l.Led.Timeline(), l.At(r.studio.Now())).Rows)
	of := taught.Of(l.Plan, l.Script, l.At(r.studio.Now()))
	record.PlannedMS, record.TaughtMS = of.Planned, of.Taught
	for i, p := range of.Passages {
		p.Name = studio.Called(ctx, l.Plan.Passages[i])
		record.Passages = append(record.Passages, recordPassage(p))
	}
	record.SeenAfter = []contract.SeenAfter{}
	for _, s := range of.SeenAfter {
		record.SeenAfter = append(record.SeenAfter, contract.SeenAfter{
			Passage: s.Passage, Phase: s.Phase, Sign: fact.New("signal." + s.Sign), Seen: s.Seen, Holds: s.Holds, OverMS: s.Over,
		})
	}
	if record.Heard, err = r.heard(ctx, l); err != nil {
		return contract.Record{}, err
	}
	t := of.Totals()
	record.Totals = contract.RecordTotals{
		PlannedRounds: t.PlannedRounds,
		Rounds:        t.Rounds,
		LongestHoldMS: t.LongestHold,
		HeldFullMS:    t.HeldFull,
		HeldEmptyMS:   t.HeldEmpty,
		LeftInhales:   t.LeftInhales, RightInhales: t.RightInhales,
	}
	record.Unsaid = []contract.Unsaid{}
	if !record.Class.Running {
		record.Unsaid = unsaid(ctx, l, record.Remarks)
	}
	stands := pace.Stands(of.Answers)
	for i, answer := range of.Answers {
		record.Marks = append(record.Marks, contract.Mark{
			Answer:  l.Answer(i + 1),
			Kind:    markKind(&answer, stands[i]),
			Passage: answer.Passage,
			Stage:   string(answer.Stage),
			Round:   answer.Round,
			Breath:  answer.Breath,
		})
	}
	return record, nil
}

// markKind reports what a press was in the record.
func markKind(a *pace.Answer, stands bool) contract.MarkKind {
	switch {
	case !a.Refused.None():
		return contract.MarkRefused
	case stands && a.Changes():
		return contract.MarkChange
	case a.Do.Remarks():
		return contract.MarkRemark
	case a.Do.GoesOn():
		return contract.MarkGoingOn
	}
	return contract.MarkTakenBack
}

// curve returns the rounds as they were led: how quick and how long each was.
func curve(rows []pace.Row) []contract.CurvePoint {
	list := []contract.CurvePoint{}
	for _, row := range rows {
		if row.Stage != pace.Round {
			continue
		}
		if row.Starts {
			list = append(
				list,
				contract.CurvePoint{AtMS: row.At, Passage: row.Passage, Tempo: shown(row.Tempo.Float()), Kept: row.Kept},
			)
		}
		if n := len(list); n > 0 {
			list[n-1].EndMS = row.End()
			if row.Breath <= 1 && row.Count > 0 {
				list[n-1].Counts++
			}
		}
	}
	return list
}

func recordPassage(p taught.Passage) contract.RecordPassage {
	done := []contract.LedRound{}
	for _, d := range p.Done {
		done = append(
			done,
			contract.LedRound{
				Strokes: d.Strokes, InhaleMS: d.Lasted[0], HoldMS: d.Lasted[1], ExhaleMS: d.Lasted[2], EmptyMS: d.Lasted[3],
			},
		)
	}
	breaths := []contract.LedBreath{}
	for _, b := range p.Breaths {
		breaths = append(breaths, contract.LedBreath{
			AtMS: b.At, Round: b.Round,
			InhaleMS: b.Lasted[0], HoldMS: b.Lasted[1], ExhaleMS: b.Lasted[2], EmptyMS: b.Lasted[3],
		})
	}
	lanes := []contract.LedLane{}
	for _, l := range p.Lanes {
		lanes = append(
			lanes,
			contract.LedLane{
				Beside:       l.Beside.String(),
				AtMS:         l.At,
				LengthMS:     l.Length,
				Breaths:      l.Breaths,
				PerMinute:    shown(l.PerMinute.Float()),
				LeftInhales:  l.LeftInhales,
				RightInhales: l.RightInhales,
			},
		)
	}
	return contract.RecordPassage{
		Name: p.Name, Practice: p.Practice, Counts: p.Pattern, OwnPace: p.OwnPace, Trial: p.Trial,
		PlannedAtMS: p.PlannedAt, PlannedLengthMS: p.PlannedLength, AtMS: p.At, LengthMS: p.Length,
		PlannedRounds: p.PlannedRounds, Rounds: p.Rounds, Abandoned: p.Abandoned,
		PlannedTempo: shown(p.PlannedTempo.Float()),
		TempoStart:   shown(p.TempoStart.Float()),
		TempoEnd:     shown(p.TempoEnd.Float()),
		TempoMean:    shown(p.TempoMean.Float()), PerMinute: shown(p.PerMinute.Float()),
		LongestHoldMS: p.LongestHold,
		HeldFullMS:    p.HeldFull,
		HeldEmptyMS:   p.HeldEmpty,
		LeftInhales:   p.LeftInhales,
		RightInhales:  p.RightInhales,
		Eased:         p.Eased, CountsEnd: countsEnd(p), Beside: p.Beside.String(), Lanes: lanes, Done: done,
		Breaths: breaths, MeanBreathMS: p.MeanBreath(), HandTempo: p.HandTempo(),
		Airway:      string(p.Airway),
		Zone:        p.Zone,
		Attention:   p.Attention,
		InhaleWidth: p.Aperture.Inhale,
		ExhaleWidth: p.Aperture.Exhale,
		Voice:       string(p.Voice),
	}
}

// countsEnd returns the counts that were in force at the end, where they are not those that were planned.
func countsEnd(p taught.Passage) string {
	if p.Counts == p.PlannedCounts {
		return ""
	}
	return p.Counts.String()
}

// shown rounds to hundredths: more digits of a tempo say nothing to anybody.
func shown(x float64) float64 { return math.Round(x*100) / 100 }

// TaughtSheet returns the cue sheet of what was taught, so far where the class is running.
func (r *Records) TaughtSheet(ctx context.Context, class int64, form string) (studio.File, error) {
	l, err := r.classes.Open(ctx, class)
	if err != nil {
		return studio.File{}, err
	}
	return studio.SheetFile(l.FileName(), form, taught.Until(l.Led.Timeline(), l.At(r.studio.Now())))
}
