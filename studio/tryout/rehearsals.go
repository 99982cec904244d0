package tryout

import (
	"bytes"
	"maps"
	"slices"
	"strconv"
	"time"

	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
	"vastlantern/studio/rehearsed"
)

// shelf keeps rehearsals in memory, by their numbers.
type shelf map[int64]rehearsed.Kept

func (s shelf) Rehearsal(id int64) (rehearsed.Kept, error) {
	kept, there := s[id]
	if !there {
		return kept, errMissing
	}
	return kept, nil
}

func (s shelf) Save(kept rehearsed.Kept) error {
	s[kept.ID] = kept
	return nil
}

func (shelf) Damaged(_ int64, err error) error { return err }

func (t *Tryout) desk(r request) *rehearsed.Desk {
	cues := led.NewCues()
	return &rehearsed.Desk{
		Shelf: t.rehearsals,
		Score: func(class *led.Class, at int64) (contract.Score, error) {
			score := led.Score(class, class.Led.Timeline(), led.Here{}, at, cues.Of, led.NewCues().Of)
			score.StartedMS = 0
			return score, nil
		},
		Propose: func(class *led.Class, at int64, see string) (contract.Proposed, error) {
			return class.Propose(at, see, 0)
		},
		Tell: r.tell,
		Now:  func() time.Time { return r.now },
	}
}

// samplePlan is the number of the one plan that there is.
const samplePlan = 1

func (t *Tryout) allRehearsals(r request) (any, error) {
	desk := t.desk(r)
	all := contract.Rehearsals{Done: []contract.Rehearsal{}, Limits: rehearsed.Limits}
	var err error
	if all.Rooms, err = desk.Rooms(); err != nil {
		return nil, err
	}
	if all.Scenarios, err = desk.Scenarios(); err != nil {
		return nil, err
	}
	class, err := sampleClass()
	if err != nil {
		return nil, err
	}
	one := contract.RehearsalPlan{ID: samplePlan, Title: class.Plan.Title, Passages: []string{}}
	for i := range class.Plan.Passages {
		passage := class.Plan.Passages[i]
		passage.CallIn(r.tag)
		one.Passages = append(one.Passages, passage.Name())
	}
	all.Plans = []contract.RehearsalPlan{one}
	for _, id := range slices.Backward(slices.Sorted(maps.Keys(t.rehearsals))) {
		entry, err := desk.Entry(t.rehearsals[id])
		if err != nil {
			return nil, err
		}
		all.Done = append(all.Done, entry)
		rehearsed.Count(all.Scenarios, entry)
	}
	return all, nil
}

func sampleClass() (*led.Class, error) {
	document, err := led.SamplePlan()
	if err != nil {
		return nil, err
	}
	return led.Read(document)
}

func (t *Tryout) beginRehearsal(r request, want contract.Rehearse) (any, error) {
	desk := t.desk(r)
	set := rehearsed.Setting{Scenario: want.Scenario, Level: want.Level, Room: want.Room, Seed: want.Seed}
	var document []byte
	var err error
	if want.Scenario != "" {
		document, err = desk.Task(&set)
	} else {
		document, err = fromPassage(want.Passage)
	}
	if err != nil {
		return nil, err
	}
	kept, err := desk.Begin(document, set)
	if err != nil {
		return nil, err
	}
	kept.ID = int64(len(t.rehearsals) + 1)
	t.rehearsals[kept.ID] = kept
	return desk.At(kept.ID, 0)
}

// fromPassage returns the sample plan from a passage on.
func fromPassage(from int) ([]byte, error) {
	class, err := sampleClass()
	if err != nil || from <= 1 {
		return class.Document, err
	}
	doc, err := sheet.ReadDocument(bytes.NewReader(class.Document))
	if err != nil {
		return nil, err
	}
	doc.KeepOnly(func(number int) bool { return number >= from })
	doc.SetMark(plan.Mark{})
	var text bytes.Buffer
	err = sheet.WritePlan(&text, doc)
	return text.Bytes(), err
}

func (t *Tryout) rehearsal(r request) (any, error) {
	return t.desk(r).At(r.id, number64(r, "at_ms"))
}

func (t *Tryout) adjustRehearsal(r request, want contract.Adjust) (any, error) {
	return t.desk(r).Adjust(r.id, want)
}

func (t *Tryout) wouldRehearsal(r request, want contract.RehearsalWould) (any, error) {
	return t.desk(r).Would(r.id, want)
}

func (t *Tryout) sawRehearsal(r request, saw contract.Saw) (any, error) {
	return t.desk(r).Saw(r.id, saw)
}

func (t *Tryout) tappedRehearsal(r request, taps contract.Taps) (any, error) {
	return t.desk(r).Tapped(r.id, taps)
}

func (t *Tryout) heardRehearsal(r request, heard contract.HeardStrokes) (any, error) {
	return t.desk(r).HeardStrokes(r.id, heard)
}

func (t *Tryout) cameRehearsal(r request, to contract.RehearsalMoment) (any, error) {
	return t.desk(r).Came(r.id, to)
}

func (t *Tryout) endRehearsal(r request, to contract.RehearsalMoment) (any, error) {
	return t.desk(r).End(r.id, to)
}

func (t *Tryout) reviewRehearsal(r request) (any, error) { return t.desk(r).Review(r.id) }

// number64 returns a number of the query, 0 where there is none.
func number64(r request, name string) int64 {
	given, err := strconv.ParseInt(r.query.Get(name), 10, 64)
	if err != nil {
		return 0
	}
	return given
}
