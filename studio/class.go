package studio

import (
	"time"

	"vastlantern/core/plan"
	"vastlantern/store"
	"vastlantern/studio/led"
)

// Class is a class as it is led, and what the data file has of it.
type Class struct {
	led.Class
	Stored  store.Class
	Edition int64 // what Changes was before it was read (contract.Score)
}

// BeginClass returns a class of the plan without adjustments. Its practices have their names and texts in its language.
func BeginClass(stored store.Class, p *plan.Plan) *Class {
	c := &Class{Class: *led.Begin(p)}
	c.SetStored(stored)
	return c
}

// ReadClass returns a class as it is stored. An error is one that OrDamaged takes for a damaged entry.
func ReadClass(stored store.Class, rows []store.Adjustment) (*Class, error) {
	read, err := led.Read(stored.Document)
	if err != nil {
		return nil, Unreadable(err)
	}
	c := &Class{Class: *read}
	c.SetStored(stored)
	for _, a := range rows {
		if err := c.AddStored(a); err != nil {
			return nil, err
		}
	}
	return c, nil
}

// SetStored takes what the data file has of the class.
func (c *Class) SetStored(stored store.Class) {
	c.Stored = stored
	c.ID, c.StartedAt, c.EndedAt, c.Document = stored.ID, stored.StartedAt, stored.EndedAt, stored.Document
}

// End notes when the class ended; the zero time if it goes on.
func (c *Class) End(at time.Time) { c.Stored.EndedAt, c.EndedAt = at, at }

// AddStored makes one adjustment more, as it is stored. An error is one of ReadClass.
func (c *Class) AddStored(a store.Adjustment) error {
	return Unreadable(c.AddLine(a.Key, a.Origin, a.Body))
}

// Copy returns the same class, to which adjustments can be added without changing this one.
func (c *Class) Copy() *Class { return &Class{Class: *c.Class.Copy(), Stored: c.Stored} }

// Next is Next of the class as it is led.
func (c *Class) Next() *Class { return &Class{Class: *c.Class.Next(), Stored: c.Stored} }

// FileName returns the day and the title of the class.
func (c *Class) FileName() string {
	return c.Stored.StartedAt.Local().Format(time.DateOnly) + "-" + FileName(c.Plan.Title)
}
