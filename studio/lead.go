package studio

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"vastlantern/core/care"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// led is a class with its adjustments folded in: everything that can be known of it.
type led struct {
	stored  store.Class
	plan    *plan.Plan
	script  []pace.Adjustment
	sent    []sent
	answers []pace.Answer
	class   *pace.Class
}

// sent is what is known of an adjustment besides what it does.
type sent struct {
	key     string // the sender's own name for it
	because string // the signal that led to it
	origin  string // the device
}

// open folds a stored class. A class is its plan, its start and its adjustments: after a crash, in a second window
// and in the record this gives the same.
func (s *Studio) open(id int64) (*led, error) {
	stored, err := s.store.Class(id)
	if err != nil {
		return nil, missing(err, "class", id)
	}
	return s.fold(stored)
}

func (s *Studio) fold(stored store.Class) (*led, error) {
	_, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	if err != nil {
		return nil, fmt.Errorf("the plan of class %d cannot be read: %w", stored.ID, err)
	}
	adjustments, err := s.store.Adjustments(stored.ID)
	if err != nil {
		return nil, err
	}
	l := &led{stored: stored, plan: p, class: pace.Begin(p)}
	for _, a := range adjustments {
		adjustment, err := sheet.ReadAdjustment(a.Body)
		if err != nil {
			return nil, fmt.Errorf("adjustment %d of class %d cannot be read: %w", a.Number, stored.ID, err)
		}
		l.add(sent{a.Key, because(a.Body), a.Origin}, adjustment)
	}
	return l, nil
}

// because is what was seen and led to the adjustment, as its line has it.
func because(body []byte) string {
	var line struct {
		Because string `json:"because"`
	}
	if json.Unmarshal(body, &line) != nil {
		return ""
	}
	return line.Because
}

func (l *led) add(from sent, a pace.Adjustment) {
	l.answers = append(l.answers, l.class.Adjust(a))
	l.sent = append(l.sent, from)
	l.script = append(l.script, a)
}

// at is how far the class is at the time, in milliseconds; never before its last adjustment, since times never fall.
func (l *led) at(now time.Time) int64 {
	at := max(0, now.Sub(l.stored.StartedAt).Milliseconds())
	if n := len(l.script); n > 0 {
		at = max(at, l.script[n-1].At)
	}
	return at
}

// running tells whether the class has not come to its end.
func (l *led) running(now time.Time) bool {
	return l.class.At(l.at(now)).Passage > 0
}

// Lead starts a class from a plan, now. Only one class runs at a time.
func (s *Studio) Lead(want contract.Lead) (contract.Score, error) {
	s.leading.Lock()
	defer s.leading.Unlock()
	stored, err := s.store.Plan(want.PlanID)
	if err != nil {
		return contract.Score{}, missing(err, "plan", want.PlanID)
	}
	document, p, err := s.toLead(stored, want.Fit)
	if err != nil {
		return contract.Score{}, err
	}
	if unread := unacknowledged(p, want.Acknowledged); len(unread) > 0 {
		return contract.Score{}, fail(ErrInvalid, "Read this before the class is led, and say so: %s", strings.Join(unread, " "))
	}
	if err := s.makeRoom(want.EndRunning); err != nil {
		return contract.Score{}, err
	}
	s.set() // nothing runs that a corrected clock could move
	class, err := s.store.AddClass(store.Class{
		// Whole milliseconds, as adjustments count from it.
		PlanID: stored.ID, GroupID: stored.GroupID, StartedAt: s.now().Truncate(time.Millisecond), Document: document,
		Acknowledged: want.Acknowledged,
	})
	if err != nil {
		return contract.Score{}, err
	}
	l, err := s.fold(class)
	if err != nil {
		return contract.Score{}, err
	}
	return s.tellScore(l)
}

// toLead is the plan as it will be led: with the words and the own practices of this day.
func (s *Studio) toLead(stored store.Plan, fit bool) ([]byte, *plan.Plan, error) {
	doc, err := sheet.ReadDoc(bytes.NewReader(stored.Document))
	if err != nil {
		return nil, nil, err
	}
	group, err := s.group(stored.GroupID)
	if err != nil {
		return nil, nil, err
	}
	p, err := s.read(doc, group)
	switch {
	case p == nil:
		return nil, nil, err
	case err != nil:
		return nil, nil, &Failure{ErrInvalid, contract.Problem{Say: "This plan cannot be led yet. Mend what is marked in it first.", Fields: fieldErrors(err)}}
	case len(p.Passages) == 0:
		return nil, nil, fail(ErrInvalid, "This plan has no passages yet. Add one, then lead it.")
	}
	if fit {
		if err := s.late(doc, p); err != nil {
			return nil, nil, err
		}
	}
	var text bytes.Buffer
	err = sheet.WritePlan(&text, doc)
	return text.Bytes(), p, err
}

// unacknowledged is the strong cautions of the plan that nobody said were read.
func unacknowledged(p *plan.Plan, read []string) []string {
	var missing []string
	for i := range p.Passages {
		for _, c := range care.Of(&p.Passages[i]) {
			if c.Strong && !slices.Contains(read, c.Text) && !slices.Contains(missing, c.Text) {
				missing = append(missing, c.Text)
			}
		}
	}
	return missing
}

// makeRoom sees to it that no class is running, by ending it if that is wanted.
func (s *Studio) makeRoom(end bool) error {
	running, err := s.running()
	if err != nil || running == nil {
		return err
	}
	if !end {
		return &Failure{ErrConflict, contract.Problem{
			Say: fmt.Sprintf("%q is being led. Go back to it, or end it first.", running.plan.Title), ClassID: running.stored.ID,
		}}
	}
	_, err = s.adjust(running, running.at(s.now()), contract.Adjust{Key: fmt.Sprintf("end for another class, %d", s.now().UnixNano()), Do: string(pace.End)})
	s.tell(running.stored.ID)
	return err
}

// newest bounds how far back a class that is still running is looked for: only one is at a time.
const newest = 1

// running is the class that is being led, or nil.
func (s *Studio) running() (*led, error) {
	classes, err := s.store.Classes(newest)
	if err != nil || len(classes) == 0 {
		return nil, err
	}
	l, err := s.fold(classes[0])
	if err != nil || !l.running(s.now()) {
		return nil, err
	}
	return l, nil
}

// Score is the timeline of a class as it stands.
func (s *Studio) Score(id int64) (contract.Score, error) {
	l, err := s.open(id)
	if err != nil {
		return contract.Score{}, err
	}
	return s.score(l)
}

// Adjust makes a live adjustment, now. It is stored before it is answered, refused ones too.
func (s *Studio) Adjust(id int64, want contract.Adjust) (contract.Adjusted, error) {
	s.leading.Lock()
	defer s.leading.Unlock()
	l, err := s.open(id)
	if err != nil {
		return contract.Adjusted{}, err
	}
	number, err := s.adjust(l, l.at(s.now()), want)
	if err != nil {
		return contract.Adjusted{}, err
	}
	return s.adjusted(l, number)
}

func (s *Studio) adjusted(l *led, number int) (contract.Adjusted, error) {
	score, err := s.tellScore(l)
	return contract.Adjusted{Answer: l.answer(number), Score: score}, err
}

// adjust folds one adjustment more into the class, at that time of it, and returns its number. The caller tells.
func (s *Studio) adjust(l *led, at int64, want contract.Adjust) (int, error) {
	if want.Key == "" {
		return 0, fail(ErrInvalid, "An adjustment needs a key of its own.")
	}
	if i := slices.IndexFunc(l.sent, func(s sent) bool { return s.key == want.Key }); i >= 0 {
		return i + 1, nil // sent twice: the first answer holds
	}
	body, err := line(at, want)
	if err != nil {
		return 0, err
	}
	a, err := sheet.ReadAdjustment(body)
	if err != nil {
		return 0, fail(ErrInvalid, "This is no adjustment: %v.", err)
	}
	number := len(l.sent) + 1
	if err := s.store.AddAdjustment(l.stored.ID, store.Adjustment{Number: number, Key: want.Key, Body: body, Origin: want.Origin}); err != nil {
		if errors.Is(err, store.ErrTaken) {
			return 0, fail(ErrConflict, "Another adjustment came first. Press again.")
		}
		return 0, err
	}
	l.add(sent{want.Key, want.Because, want.Origin}, a)
	return number, nil
}

// line is an adjustment as a line of a script.
func line(at int64, want contract.Adjust) ([]byte, error) {
	text := struct {
		At int64 `json:"at_ms"`
		contract.Adjust
		To any `json:"to,omitempty"` // one number, or the four of counts
	}{At: at, Adjust: want}
	switch {
	case want.Counts != nil:
		text.To, text.Counts = want.Counts, nil
	case want.To != nil:
		text.To = *want.To
	}
	return json.Marshal(text)
}
