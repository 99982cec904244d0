package lead

import (
	"context"
	"sync"
	"sync/atomic"
	"time"

	"vastlantern/core/care"
	"vastlantern/core/plan"
	"vastlantern/core/school"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
)

// Classes leads classes.
type Classes struct {
	studio  *studio.Studio
	library Library
	plans   Plans
	voices  Voices

	live    liveClass
	leading sync.Mutex // one adjustment after the other, so that each is answered on the class it meets
	storing sync.Mutex // of what could not be stored before
	people  atomic.Pointer[people]
	sample  atomic.Pointer[sample]

	mainCues, laneCues *led.Cues
	newest             newestScore
	others             translated
	cards              turned
	listening          listening
}

// Library is what leading needs from the groups.
type Library interface {
	EveryGroupByID(context.Context) (map[int64]*contract.Group, error)
	// ChoicesFor is the ways of the school, with those of the group in place.
	ChoicesFor(ctx context.Context, group *contract.Group) (school.Choices, error)
	CareFor(context.Context, *contract.Group, time.Time) (care.Room, error)
}

// Plans is what leading needs from planning.
type Plans interface {
	ToLead(ctx context.Context, id int64, fitted bool, softer []int) (stored store.Plan, document []byte, p *plan.Plan,
		err error)
	Add(ctx context.Context, document []byte, group int64) (contract.Plan, error)
}

// Voices is what leading needs from the recorded voices.
type Voices interface {
	// Speaking is what the voice that speaks in a language makes of texts: nil if the browser's own does.
	Speaking(ctx context.Context, language string) (func(texts []string) *contract.Speaker, error)
	// Recorded is the recordings of that voice: nil if the browser's own speaks.
	Recorded(ctx context.Context, language string) (*contract.KitVoice, error)
}

// New returns the room of a studio.
func New(s *studio.Studio, l Library, p Plans, v Voices) *Classes {
	return &Classes{studio: s, library: l, plans: p, voices: v, mainCues: led.NewCues(), laneCues: led.NewCues()}
}

// WhileNothingBegins runs work that must not overlap with a class beginning or being adjusted. running is the class in
// progress, or nil.
func (c *Classes) WhileNothingBegins(ctx context.Context, work func(running *studio.Class) error) error {
	c.leading.Lock()
	defer c.leading.Unlock()
	running, err := c.InProgress(ctx)
	if err != nil {
		return err
	}
	return work(running)
}
