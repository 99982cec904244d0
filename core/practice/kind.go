package practice

// Kind reports how a practice is timed (pacing.md section 1). The rest of the program asks a kind what it has, not
// which it is.
type Kind string

// The kinds.
const (
	Counted Kind = "counted" // phases of counts, at a tempo
	Strokes Kind = "strokes" // strokes, at a rate
	Fixed   Kind = "fixed"   // phases of counts that no plan changes
	Open    Kind = "open"    // phases that last until somebody goes on
)

// nature is what a kind of practice has.
type nature struct {
	roles   []string // what the counts of its phases may be called, besides plain numbers
	numbers bool     // its phases may have plain numbers of counts
	counts  bool     // a passage gives it counts a:b:c:d, at a tempo that goes on from practice to practice
	strokes bool     // its rounds are strokes, at a rate
	open    bool     // its phases wait; their lengths are only planned, and there is no tempo
}

// fourRoles are the roles of a:b:c:d.
var fourRoles = []string{"a", "b", "c", "d"}

var natures = map[Kind]nature{
	Counted: {roles: fourRoles, numbers: true, counts: true},
	Strokes: {roles: append([]string{"strokes"}, fourRoles...), strokes: true},
	Fixed:   {numbers: true},
	Open:    {roles: fourRoles, open: true},
}

// TakesCounts reports whether a passage gives the practice its counts.
func (k Kind) TakesCounts() bool { return natures[k].counts }

// CountsStrokes reports whether the rounds of the practice are strokes, at a rate.
func (k Kind) CountsStrokes() bool { return natures[k].strokes }

// HasOpenPhases reports whether the phases of the practice wait until somebody goes on, so that it has no tempo.
func (k Kind) HasOpenPhases() bool { return natures[k].open }

// HasFixedCounts reports whether the practice has counts, at a tempo, that no passage changes.
func (k Kind) HasFixedCounts() bool { return k.HasTempo() && !k.TakesCounts() }

// HasTempo reports whether the practice runs at a tempo of counts a minute.
func (k Kind) HasTempo() bool { return natures[k].numbers }

// HasBeat reports whether the practice runs at a tempo or at a rate of strokes.
func (k Kind) HasBeat() bool { return !k.HasOpenPhases() }
