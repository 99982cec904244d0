package led

import (
	"crypto/sha256"
	"slices"
	"sync"

	lru "github.com/hashicorp/golang-lru/v2"

	"vastlantern/core/cue"
	"vastlantern/core/pace"
)

// Cues is the cues of the class in progress on one lane, and of the last try-outs. They follow adjustment by
// adjustment: from the start of a class with hundreds of them they would take a second.
type Cues struct {
	mutex    sync.Mutex
	class    int64
	adjusted int
	cues     *cue.Class

	tried *lru.Cache[[sha256.Size]byte, triedCues] // of classes that are not stored, by their plans
}

// triedCues is the cues of a try-out or a rehearsal as far as it was asked for. The next press asks for the same and
// one more.
type triedCues struct {
	script []pace.Adjustment
	cues   *cue.Class
}

// mostTries is the number of try-outs and rehearsals followed at once.
const mostTries = 8

// NewCues returns cues of no class yet.
func NewCues() *Cues {
	tried, err := lru.New[[sha256.Size]byte, triedCues](mostTries)
	if err != nil {
		panic(err) // only of a size under 1
	}
	return &Cues{tried: tried}
}

// Of returns the cues of a class at this point.
func (live *Cues) Of(l *Class, lane cue.Lane) *cue.Class {
	switch {
	case !l.EndedAt.IsZero():
		return follow(cue.Begin(l.Plan, lane), l, 0)
	case l.ID == 0:
		return live.ofTried(l, lane)
	}
	live.mutex.Lock()
	defer live.mutex.Unlock()
	if live.class != l.ID || live.adjusted > len(l.Script) {
		live.class, live.adjusted, live.cues = l.ID, 0, cue.Begin(l.Plan, lane)
	}
	follow(live.cues, l, live.adjusted)
	live.adjusted = len(l.Script)
	return live.cues.Copy()
}

// mostBehind is the number of adjustments that Soon follows at once. More cost as much as the whole class.
const mostBehind = 8

// Soon returns the cues of a class whose timeline stops early (pace.Class.Until). It does not follow its adjustments
// for whoever asks next, and reports false where too many are new.
func (live *Cues) Soon(l *Class) (*cue.Class, bool) {
	live.mutex.Lock()
	defer live.mutex.Unlock()
	if live.class != l.ID || live.adjusted > len(l.Script) || live.adjusted < len(l.Script)-mostBehind {
		return nil, false
	}
	return follow(live.cues.Until(l.Led), l, live.adjusted), true
}

// Forget has the class in progress followed from its start: its adjustments were replaced.
func (live *Cues) Forget() {
	live.mutex.Lock()
	defer live.mutex.Unlock()
	live.class = 0
}

func (live *Cues) ofTried(l *Class, lane cue.Lane) *cue.Class {
	known := live.known(l.Document, l.Script)
	cues := known.cues
	if cues == nil {
		cues = cue.Begin(l.Plan, lane)
	}
	follow(cues, l, len(known.script))
	live.tried.Add(sha256.Sum256(l.Document), triedCues{slices.Clone(l.Script), cues.Copy()})
	return cues
}

// Known returns how many adjustments of a class that is not stored were followed: none where it was adjusted
// differently.
func (live *Cues) Known(document []byte, script []pace.Adjustment) int {
	return len(live.known(document, script).script)
}

// known returns how far the cues of a class that is not stored are known: nothing where it was adjusted differently.
func (live *Cues) known(document []byte, script []pace.Adjustment) triedCues {
	known, there := live.tried.Get(sha256.Sum256(document))
	if !there || len(known.script) > len(script) ||
		!slices.EqualFunc(known.script, script[:len(known.script)], pace.Adjustment.Same) {
		return triedCues{}
	}
	return triedCues{known.script, known.cues.Copy()}
}

// follow makes the adjustments that are new. The last of them brings the class to where it is, which is known.
func follow(cues *cue.Class, l *Class, adjusted int) *cue.Class {
	for i := adjusted; i < len(l.Script); i++ {
		if i+1 < len(l.Script) {
			cues.Adjust(l.Script[i])
		} else {
			cues.Follow(l.Led.Copy(), l.Answers[i])
		}
	}
	return cues
}
