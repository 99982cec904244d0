package lead

import (
	"context"
	"sync"

	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// listening is which lead screen listens to the room of a class. It belongs to the screens and not to the class: it is
// kept in memory only.
type listening struct {
	mutex sync.Mutex
	class int64
	ear   string
}

// of returns the screen that listens in a class; empty if none does.
func (l *listening) of(class int64) string {
	l.mutex.Lock()
	defer l.mutex.Unlock()
	if l.class != class {
		return ""
	}
	return l.ear
}

// longestEar bounds the name that a screen gives itself, in bytes.
const longestEar = 64

// Listen has a lead screen be the one that listens to the room of a class, or ends that. The screen that listened
// before sees it in the score, and stops.
func (c *Classes) Listen(ctx context.Context, id int64, is contract.Listens) (contract.Score, error) {
	l, err := c.Open(ctx, id)
	if err != nil {
		return contract.Score{}, err
	}
	if is.Ear == "" || len(is.Ear) > longestEar {
		return contract.Score{}, studio.Fail(studio.ErrInvalid, "heard.ear", "most", longestEar)
	}
	if !l.Stored.EndedAt.IsZero() {
		return contract.Score{}, studio.Fail(studio.ErrConflict, "lead.over")
	}
	c.listening.mutex.Lock()
	switch {
	case is.On:
		c.listening.class, c.listening.ear = id, is.Ear
	case c.listening.class == id && c.listening.ear == is.Ear:
		c.listening.ear = ""
	}
	c.listening.mutex.Unlock()
	c.studio.Notify(id)
	return c.score(ctx, l)
}

// HeardStrokes returns what to do about how the room of a class was heard to stroke.
func (c *Classes) HeardStrokes(ctx context.Context, id int64, heard contract.HeardStrokes) (contract.FromHeard, error) {
	l, err := c.Open(ctx, id)
	if err != nil {
		return contract.FromHeard{}, err
	}
	proposed, err := l.ProposeHeard(l.At(c.studio.Now()), heard)
	return proposed, invalid(err)
}
