package lead

import (
	"context"
	"sync"

	"vastlantern/core/plan"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
)

// newestScore is the score that was made last, for all who ask for it at the same moment: the one who pressed, the lead
// screens and the room.
type newestScore struct {
	mutex sync.Mutex
	of    scored
	at    int64
	score contract.Score // not to be changed
}

// scored is what a score follows from besides the moment.
type scored struct {
	class              int64
	revision, unstored int
	why                string
	over               bool
	changes            int64
}

// sameMoment is for how long a score is that of the moment, in milliseconds.
const sameMoment = 50

// score shapes the timeline from the stage in progress on. What is in its lists is not to be changed: others have it
// too.
func (c *Classes) score(ctx context.Context, l *studio.Class) (contract.Score, error) {
	of := scored{l.Stored.ID, len(l.Script), l.Unstored, l.WhyUnstored.ID, !l.Stored.EndedAt.IsZero(), c.studio.Changes()}
	at := l.At(c.studio.Now())
	c.newest.mutex.Lock()
	defer c.newest.mutex.Unlock()
	if age := at - c.newest.at; of == c.newest.of && age >= 0 && float64(age) <= sameMoment*c.studio.Rate() {
		return c.newest.score, nil
	}
	score, err := c.scoreAt(ctx, l, at)
	if err == nil {
		c.newest.of, c.newest.at, c.newest.score = of, at, score
	}
	return score, err
}

func (c *Classes) scoreAt(ctx context.Context, l *studio.Class, at int64) (contract.Score, error) {
	here, err := c.who(ctx, l.Stored, l.Plan.Words.Tag)
	if err != nil {
		return contract.Score{}, err
	}
	score := led.Score(&l.Class, l.Led.Timeline(), here.Here, at, c.mainCues.Of, c.laneCues.Of)
	if here.says != nil {
		score.Speaker = here.says(led.Texts(&score))
	}
	score.Edition = l.Edition
	score.CardUp, score.Ear = c.cards.of(l.Stored.ID), c.listening.of(l.Stored.ID)
	score.Sample = c.isSample(l.Stored.PlanID) || c.endedSample(l.Stored.ID) != nil
	return score, nil
}

// PlanScore returns the score of led.PlanScore with the recorded voice that speaks.
func (c *Classes) PlanScore(ctx context.Context, p *plan.Plan, fingers string) (contract.Score, error) {
	score := led.PlanScore(p, fingers)
	says, err := c.voices.Speaking(ctx, p.Words.Tag)
	if says != nil {
		score.Speaker = says(led.Texts(&score))
	}
	return score, err
}

// who returns there: the group of a class, what care asks of it, how its fingers lie at the nose, and whose voice
// speaks. It is read once and kept until any of it has changed. Where the data file cannot be read at the moment, it is
// what was read last of a class that is led, which goes on with it.
func (c *Classes) who(ctx context.Context, class store.Class, language string) (*people, error) {
	last := c.people.Load()
	known := last != nil && last.class == class.ID
	settled := c.studio.Store.With(ctx).Settled()
	if known && last.settled == settled && last.language == language {
		return last, nil
	}
	here := &people{class: class.ID, language: language, settled: settled}
	switch err := c.read(ctx, here, class); {
	case err == nil:
		c.people.Store(here)
		return here, nil
	case !studio.FileProblem(err).None() && known:
		return last, nil
	default:
		return nil, err
	}
}

func (c *Classes) read(ctx context.Context, here *people, class store.Class) error {
	groups, err := c.library.EveryGroupByID(ctx)
	if err != nil {
		return err
	}
	here.Group = groups[class.GroupID]
	if here.Care, err = c.library.CareFor(ctx, here.Group, class.StartedAt); err != nil {
		return err
	}
	choices, err := c.library.ChoicesFor(ctx, here.Group)
	if err != nil {
		return err
	}
	here.Fingers = choices.Way("fingers").ID
	here.says, err = c.voices.Speaking(ctx, here.language)
	return err
}

// people is what was read last of who is there in a class.
type people struct {
	class    int64
	language string
	settled  int64 // what Settled was before it was read

	led.Here
	says func(texts []string) *contract.Speaker // nil if the browser's own voice speaks
}
