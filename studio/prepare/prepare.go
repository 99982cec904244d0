// Package prepare plans classes: plans and their courses, the effect of a change, what the record advises, and plan
// files.
package prepare

import (
	"context"
	"time"

	"vastlantern/core/care"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/school"
	"vastlantern/core/taught"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Plans is the room.
type Plans struct {
	studio  *studio.Studio
	library Library
	past    Past
}

// Library is what planning needs from the practice book, the groups and the school.
type Library interface {
	GroupsByID(context.Context) (map[int64]*contract.Group, error)
	Group(ctx context.Context, id int64) (*contract.Group, error)
	ChoicesFor(context.Context, *contract.Group) (school.Choices, error)
	CareFor(context.Context, *contract.Group, time.Time) (care.Room, error)
	OwnPractices(context.Context) ([]*practice.Practice, error)
	AttachTeacherSettings(context.Context, plan.Document, *contract.Group) error
	Language(context.Context) string
}

// Past is what planning needs from the record.
type Past interface {
	Class(ctx context.Context, id int64) (*studio.Class, error)
	// History is what a group was taught; of all groups together where it is 0.
	History(ctx context.Context, group int64) (*taught.History, error)
	// Last is the class that a group was taught last, 0 if there was none.
	Last(ctx context.Context, group int64) (int64, error)
}

// New returns the room of a studio. Before anything is planned it is given the past.
func New(s *studio.Studio, l Library) *Plans { return &Plans{studio: s, library: l} }

// SetPast gives the room the record, which is made of classes that were planned here.
func (ps *Plans) SetPast(past Past) { ps.past = past }
