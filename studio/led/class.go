// Package led holds a class as it is led: its plan, its start and what was pressed, with everything that follows from
// them: the score that screens play, what a press would do, and what to do about what is seen. It knows no data file
// and no clock, so that the program and a lead screen that is on its own run the same code.
package led

import (
	"bytes"
	"encoding/json"
	"slices"
	"time"

	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/studio/contract"
)

// Class is a class with its adjustments made: everything that can be known of it. After a crash, in a second window and
// in the record the same comes out of its plan, its start and its adjustments.
type Class struct {
	ID        int64 // 0 of one that is not stored
	StartedAt time.Time
	EndedAt   time.Time // zero while it is in progress
	Document  []byte    // the plan as it is led

	Plan    *plan.Plan
	Script  []pace.Adjustment
	Sent    []Sent
	Answers []pace.Answer
	Led     *pace.Class

	Unstored    int // how many of the last adjustments are not in the data file yet
	WhyUnstored fact.Fact
}

// Sent is what is known of an adjustment besides what it does.
type Sent struct {
	Key     string // the sender's own name for it
	Because string // the signal that led to it
	Origin  string // the device
	// Aside is the adjustment that was set aside, of which this remark tells; nil if it is none of those.
	Aside *pace.Adjustment
}

// Begin returns a class of the plan without adjustments. Its practices have their names and texts in its language.
func Begin(p *plan.Plan) *Class {
	p.Translate()
	return &Class{Plan: p, Led: pace.Begin(p)}
}

// Read returns the class of a plan's document without adjustments.
func Read(document []byte) (*Class, error) {
	_, p, err := sheet.ReadPlan(bytes.NewReader(document))
	if err != nil {
		return nil, fact.Wrap(err, "class.plan-unreadable", "why", err)
	}
	c := Begin(p)
	c.Document = document
	return c, nil
}

// AddLine makes one adjustment more, as a line of a script has it.
func (c *Class) AddLine(key, origin string, line []byte) error {
	adjustment, err := sheet.ReadAdjustment(line)
	if err != nil {
		return fact.Wrap(err, "class.adjustment-unreadable", "number", len(c.Script)+1, "why", err)
	}
	var more struct {
		Because string          `json:"because"`
		Aside   json.RawMessage `json:"aside"`
	}
	if json.Unmarshal(line, &more) != nil {
		more.Because, more.Aside = "", nil // what is not understood has no effect
	}
	sent := Sent{Key: key, Because: more.Because, Origin: origin}
	if aside, err := sheet.ReadAdjustment(more.Aside); err == nil && adjustment.Do == pace.Note {
		sent.Aside = &aside
	}
	c.Add(sent, adjustment)
	return nil
}

// Copy returns the same class, to which adjustments can be added without changing this one.
func (c *Class) Copy() *Class {
	copied := *c
	copied.Script, copied.Sent, copied.Answers = slices.Clip(c.Script), slices.Clip(c.Sent), slices.Clip(c.Answers)
	copied.Led = c.Led.Copy()
	return &copied
}

// Next returns the same class for the one who goes on leading it, which shares what is done. This one must not be added
// to any more.
func (c *Class) Next() *Class {
	next := *c
	next.Led = c.Led.Next()
	return &next
}

// Add makes one adjustment more.
func (c *Class) Add(from Sent, a pace.Adjustment) {
	c.Answers = append(c.Answers, c.Led.Adjust(a))
	c.Sent = append(c.Sent, from)
	c.Script = append(c.Script, a)
}

// At returns how far the class is at the time, in milliseconds; never before its last adjustment, since times never
// fall. One that is over is at its end.
func (c *Class) At(now time.Time) int64 {
	if !c.EndedAt.IsZero() { // whatever the clock says, which may have been set since
		now = c.EndedAt
	}
	return max(0, now.Sub(c.StartedAt).Milliseconds(), c.LastPress())
}

// LastPress returns the time of the last adjustment, 0 if there is none.
func (c *Class) LastPress() int64 {
	if n := len(c.Script); n > 0 {
		return c.Script[n-1].At
	}
	return 0
}

// Running reports whether the class has not come to its end.
func (c *Class) Running(now time.Time) bool {
	return c.EndedAt.IsZero() && c.Led.At(c.At(now)).Passage > 0
}

// Known returns the number of the adjustment that was sent under the key, 0 if none was.
func (c *Class) Known(key string) int {
	return slices.IndexFunc(c.Sent, func(s Sent) bool { return s.Key == key }) + 1
}

// Answer returns the answer to the adjustment of the number, from 1, with what is known of it besides.
func (c *Class) Answer(number int) contract.Answer {
	answer := contract.AnswerOf(c.Answers[number-1])
	answer.Number, answer.Because, answer.Origin = number, c.Sent[number-1].Because, c.Sent[number-1].Origin
	if aside := c.Sent[number-1].Aside; aside != nil {
		answer.Did = fact.New("did.aside", "verb", aside.Do.Name(), "clock", fact.Clock(aside.At))
	}
	return answer
}
