package studio

import (
	"bytes"
	"encoding/json"
	"slices"
	"time"

	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// Class is a class with its adjustments made: everything that can be known of it. After a crash, in a second window and
// in the record the same comes out of its plan, its start and its adjustments.
type Class struct {
	Stored  store.Class
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
}

// BeginClass returns a class of the plan without adjustments. Its practices have their names and texts in its language.
func BeginClass(stored store.Class, p *plan.Plan) *Class {
	p.Translate()
	return &Class{Stored: stored, Plan: p, Led: pace.Begin(p)}
}

// ReadClass returns a class as it is stored. An error is one that OrDamaged takes for a damaged entry.
func ReadClass(stored store.Class, rows []store.Adjustment) (*Class, error) {
	_, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	if err != nil {
		return nil, Unreadable(fact.Wrap(err, "class.plan-unreadable", "why", err))
	}
	c := BeginClass(stored, p)
	for _, a := range rows {
		if err := c.AddStored(a); err != nil {
			return nil, err
		}
	}
	return c, nil
}

// AddStored makes one adjustment more, as it is stored. An error is one of ReadClass.
func (c *Class) AddStored(a store.Adjustment) error {
	adjustment, err := sheet.ReadAdjustment(a.Body)
	if err != nil {
		return Unreadable(fact.Wrap(err, "class.adjustment-unreadable", "number", a.Number, "why", err))
	}
	c.Add(Sent{a.Key, because(a.Body), a.Origin}, adjustment)
	return nil
}

// because returns what was seen and led to the adjustment, as its line has it.
func because(body []byte) string {
	var line struct {
		Because string `json:"because"`
	}
	if json.Unmarshal(body, &line) != nil {
		return ""
	}
	return line.Because
}

// Copy returns the same class, to which adjustments can be added without changing this one.
func (c *Class) Copy() *Class {
	copied := *c
	copied.Script, copied.Sent, copied.Answers, copied.Led = slices.Clip(c.Script), slices.Clip(
		c.Sent,
	), slices.Clip(c.Answers), c.Led.Copy()
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
	if !c.Stored.EndedAt.IsZero() { // whatever the clock says, which may have been set since
		now = c.Stored.EndedAt
	}
	return max(0, now.Sub(c.Stored.StartedAt).Milliseconds(), c.LastPress())
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
	return c.Stored.EndedAt.IsZero() && c.Led.At(c.At(now)).Passage > 0
}

// Known returns the number of the adjustment that was sent under the key, 0 if none was.
func (c *Class) Known(key string) int {
	return slices.IndexFunc(c.Sent, func(s Sent) bool { return s.Key == key }) + 1
}

// Answer returns the answer to the adjustment of the number, from 1, with what is known of it besides.
func (c *Class) Answer(number int) contract.Answer {
	answer := contract.AnswerOf(c.Answers[number-1])
	answer.Number, answer.Because, answer.Origin = number, c.Sent[number-1].Because, c.Sent[number-1].Origin
	return answer
}

// FileName returns the day and the title of the class.
func (c *Class) FileName() string {
	return c.Stored.StartedAt.Local().Format(time.DateOnly) + "-" + FileName(c.Plan.Title)
}
