package lead

import (
	"sync"

	"vastlantern/core/cue"
	"vastlantern/studio"
)

// liveCues is the cues of the class in progress, on one lane. They follow adjustment by adjustment: from the start of a class
// with hundreds of them they would take a second.
type liveCues struct {
	mutex    sync.Mutex
	class    int64
	adjusted int
	cues     *cue.Class
}

// of is the cues of a class as it stands.
func (live *liveCues) of(l *studio.Class, lane cue.Lane) *cue.Class {
	if l.Stored.ID == 0 || !l.Stored.EndedAt.IsZero() { // a try-out, or one that is over
		return follow(cue.Begin(l.Plan, lane), l, 0)
	}
	live.mutex.Lock()
	defer live.mutex.Unlock()
	if live.class != l.Stored.ID || live.adjusted > len(l.Script) {
		live.class, live.adjusted, live.cues = l.Stored.ID, 0, cue.Begin(l.Plan, lane)
	}
	follow(live.cues, l, live.adjusted)
	live.adjusted = len(l.Script)
	return live.cues.Copy()
}

// follow makes the adjustments that are new. The last of them brings the class to where it stands, which is known.
func follow(cues *cue.Class, l *studio.Class, adjusted int) *cue.Class {
	for i := adjusted; i < len(l.Script); i++ {
		if i+1 < len(l.Script) {
			cues.Adjust(l.Script[i])
		} else {
			cues.Follow(l.Led.Copy(), l.Answers[i])
		}
	}
	return cues
}
