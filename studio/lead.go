package studio

import (
	"bytes"
	"encoding/json"
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

	unstored int    // how many of the last adjustments are not in the data file yet
	why      string // why not
}

// sent is what is known of an adjustment besides what it does.
type sent struct {
	key     string // the sender's own name for it
	because string // the signal that led to it
	origin  string // the device
}

func begin(stored store.Class, p *plan.Plan) *led {
	return &led{stored: stored, plan: p, class: pace.Begin(p)}
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

// at is how far the class is at the time, in milliseconds; never before its last adjustment, since times never fall. One
// that is over is at its end.
func (l *led) at(now time.Time) int64 {
	if !l.stored.EndedAt.IsZero() { // whatever the clock says, which may have been set since
		now = l.stored.EndedAt
	}
	at := max(0, now.Sub(l.stored.StartedAt).Milliseconds())
	if n := len(l.script); n > 0 {
		at = max(at, l.script[n-1].At)
	}
	return at
}

// running tells whether the class has not come to its end.
func (l *led) running(now time.Time) bool {
	return l.stored.EndedAt.IsZero() && l.class.At(l.at(now)).Passage > 0
}

// Lead starts a class from a plan, now. Only one class runs at a time.
func (s *Studio) Lead(want contract.Lead) (contract.Score, error) {
	s.leading.Lock()
	defer s.leading.Unlock()
	stored, err := s.store.Plan(want.PlanID)
	if err != nil {
		return contract.Score{}, missing(err, "plan", want.PlanID)
	}
	document, p, err := s.toLead(stored, want.Fit, want.Gentle)
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
	class := store.Class{
		// Whole milliseconds, as adjustments count from it.
		PlanID: stored.ID, GroupID: stored.GroupID, StartedAt: s.now().Truncate(time.Millisecond), Document: document,
		Acknowledged: want.Acknowledged,
	}
	l, err := fold(class, nil) // what cannot be read again is not stored
	if err != nil {
		return contract.Score{}, fail(ErrInvalid, "This plan cannot be led: %v.", err)
	}
	if l.stored, err = s.store.BeginClass(class); err != nil {
		return contract.Score{}, err
	}
	s.setLive(&live{stored: l.stored})
	s.digestOne(l.stored) // so that it stands in the lists
	if err := s.noteTime(); err != nil {
		return contract.Score{}, err
	}
	return s.tellScore(l)
}

// toLead is the plan as it will be led: with the words and the own practices of this day, and some passages softer.
func (s *Studio) toLead(stored store.Plan, fit bool, softer []int) ([]byte, *plan.Plan, error) {
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
	for _, passage := range softer {
		if doc, _, err = gentle(doc, p, passage); err != nil {
			return nil, nil, fail(ErrInvalid, "Passage %d: %v.", passage, err)
		}
		if p, err = plan.Read(doc); err != nil {
			return nil, nil, err
		}
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
	_, err = s.adjust(running, running.at(s.now()), contract.Adjust{Key: fmt.Sprintf("end for another class, %d", s.now().UnixNano()), Do: pace.End})
	s.notify(running.stored.ID)
	if err == nil && running.unstored > 0 {
		return fail(ErrConflict, "The class before has ended, but it cannot be stored yet: %s", running.why)
	}
	return err
}

// running is the class that is being led, or nil.
func (s *Studio) running() (*led, error) {
	class, err := s.current()
	if err != nil || class == nil {
		return nil, err
	}
	l, err := class.fold()
	if err != nil || !l.running(s.now()) {
		return nil, err
	}
	return l, nil
}

// Running is the class that is being led, for the way back to it; it asks the data file for nothing.
func (s *Studio) Running() (contract.Running, error) {
	l, err := s.running()
	if err != nil || l == nil {
		return contract.Running{}, err
	}
	return contract.Running{ClassID: l.stored.ID, Title: l.plan.Title}, nil
}

// Score is the timeline of a class as it stands.
func (s *Studio) Score(id int64) (contract.Score, error) {
	l, err := s.open(id)
	if err != nil {
		return contract.Score{}, err
	}
	return s.score(l)
}

// tooLate is how long after it was meant a press still acts, in real time. Later it would surprise the room.
const tooLate = 5 * time.Second

// Adjust makes a live adjustment, now. It is stored before it is answered, refused ones too; where it cannot be stored
// just now the class goes on with it all the same, and the score says what is not stored. A press that was made too long
// ago is refused, but for a note or what was seen, which is kept with its moment.
func (s *Studio) Adjust(id int64, want contract.Adjust) (contract.Adjusted, error) {
	s.leading.Lock()
	defer s.leading.Unlock()
	l, err := s.open(id)
	if err != nil {
		return contract.Adjusted{}, err
	}
	if number := l.known(want.Key); number > 0 {
		return s.adjusted(l, number) // sent twice: the first answer holds
	}
	at, err := s.moment(l, want)
	if err != nil {
		return contract.Adjusted{}, err
	}
	number, err := s.adjust(l, at, want)
	if err != nil {
		return contract.Adjusted{}, err
	}
	return s.adjusted(l, number)
}

// known is the number of the adjustment that was sent under the key, 0 where none was.
func (l *led) known(key string) int {
	return slices.IndexFunc(l.sent, func(s sent) bool { return s.key == key }) + 1
}

// moment is the time of the class at which a press acts, or why it does not.
func (s *Studio) moment(l *led, want contract.Adjust) (int64, error) {
	now := s.now()
	at := l.at(now)
	pressed := at
	if want.PressedMS != nil {
		pressed = min(at, int64(*want.PressedMS-millis(l.stored.StartedAt)))
	}
	remark := want.Do == pace.Note || want.Do == pace.Signal
	switch age := time.Duration(float64(at-pressed)/s.rate) * time.Millisecond; {
	case remark && pressed < at:
		return max(0, pressed, l.lastPress()), nil // times never fall
	case !l.running(now):
		return 0, fail(ErrConflict, "This class is over. What is still to be said of it can be added to its record.")
	case !remark && age > tooLate:
		return 0, fail(ErrConflict, "Too late: this was pressed %d seconds ago. Nothing was changed; press again if it is still wanted.", int(age.Seconds()))
	}
	return at, nil
}

// lastPress is the time of the last adjustment, 0 where there is none.
func (l *led) lastPress() int64 {
	if n := len(l.script); n > 0 {
		return l.script[n-1].At
	}
	return 0
}

func (s *Studio) adjusted(l *led, number int) (contract.Adjusted, error) {
	score, err := s.tellScore(l)
	return contract.Adjusted{Answer: l.answer(number), Score: score}, err
}

// Bounds of what comes with an adjustment, in bytes.
const (
	longestKey   = 200
	longestNote  = 2000
	longestLabel = 100 // of a verb, a signal
)

// adjust folds one adjustment more into the class in progress, at that time of it, and returns its number. The caller
// notifies, and holds s.leading.
func (s *Studio) adjust(l *led, at int64, want contract.Adjust) (int, error) {
	switch {
	case want.Key == "":
		return 0, fail(ErrInvalid, "An adjustment needs a key of its own.")
	case len(want.Key) > longestKey || len(want.Do) > longestLabel || len(want.Because) > longestLabel || want.See != nil && len(*want.See) > longestLabel:
		return 0, fail(ErrInvalid, "The key of an adjustment has at most %d characters, its verb and what was seen %d.", longestKey, longestLabel)
	case want.Text != nil && len(*want.Text) > longestNote:
		return 0, fail(ErrInvalid, "A note has at most %d characters.", longestNote)
	}
	if number := l.known(want.Key); number > 0 {
		return number, nil
	}
	body, err := line(at, want)
	if err != nil {
		return 0, err
	}
	a, err := sheet.ReadAdjustment(body)
	if err != nil {
		return 0, fail(ErrInvalid, "This is no adjustment: %v.", err)
	}
	class, err := s.current()
	if err != nil {
		return 0, err
	}
	number := len(l.sent) + 1
	row := store.Adjustment{Number: number, Key: want.Key, Body: body, Origin: want.Origin}
	if class == nil || class.stored.ID != l.stored.ID { // a remark that comes late
		if err := s.store.AddAdjustments(l.stored.ID, row); err != nil {
			return 0, err
		}
		l.add(sent{want.Key, want.Because, want.Origin}, a)
		s.digestOne(l.stored)
		return number, nil
	}
	if class, err = s.keep(class, row); err != nil {
		return 0, err
	}
	l.add(sent{want.Key, want.Because, want.Origin}, a)
	l.unstored, l.why = class.unstored, class.why
	if !l.running(s.now()) && class.stored.EndedAt.IsZero() {
		l.stored.EndedAt = s.finish(class, l.class.Timeline().End)
	}
	return number, nil
}

// line is an adjustment as a line of a script.
func line(at int64, want contract.Adjust) ([]byte, error) {
	text := struct {
		At int64 `json:"at_ms"`
		contract.Adjust
		To any `json:"to,omitempty"` // one number, or the four of counts
	}{At: at, Adjust: want}
	text.PressedMS = nil // it has become the time
	switch {
	case want.Counts != nil:
		text.To, text.Counts = want.Counts, nil
	case want.To != nil:
		text.To = *want.To
	}
	return json.Marshal(text)
}
