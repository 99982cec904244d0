// Package plan holds a class plan: its passages, what is allowed in them, how long they are, and the short way to
// write them.
package plan

import (
	"cmp"
	"slices"
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/practice"
	"vastlantern/core/words"
)

// Plan is a class as planned: passages in order.
type Plan struct {
	Title    string
	Intent   string
	Slot     breath.Exact // minutes the class has; 0 if none is set
	StartsAt time.Time    // zero if none is set
	Tempo    breath.Exact // counts a minute
	Words    *words.Words // what is said while it is led
	Numbers  Screen       // what carries the count on the room's screens
	Fingers  []string     // the ways of the fingers at the nose, one or two side by side; none for that of the school
	CheckIn  CheckIn      // what the room is asked before and after; empty for nothing
	Chin     string       // level or bowed; empty for that of the school
	Passages []Passage
}

// Screen is what carries the count on the room's screens.
type Screen string

// What can carry the count.
const (
	WithNumbers Screen = "shown"  // numbers and lamps
	WithLamps   Screen = "lamps"  // lamps only
	WithNothing Screen = "hidden" // neither: word, side, hand and lines
)

// Type is what a passage is.
type Type string

// The types of a passage.
const (
	Talk     Type = "talk"
	Free     Type = "free"
	Practice Type = "practice"
)

// Voice is how the counts are spoken.
type Voice string

// The voices (formats.md).
const (
	Numbers       Voice = "numbers"
	UpDown        Voice = "updown"
	Syllables     Voice = "syllables"
	Words         Voice = "words"
	HoldsOnly     Voice = "holds"
	HoldSyllables Voice = "hold-syllables" // syllables in holds, the phase's word elsewhere
	Silent        Voice = "silent"
)

// Check is why somebody should look at a passage that was typed.
type Check string

// Why: nothing; words were kept as a remark; the name is not in the practice book; it can be read in another way.
const (
	CheckNothing Check = "none"
	CheckWords   Check = "words"
	CheckName    Check = "name"
	CheckReading Check = "reading"
)

// Fade tells after how many rounds the spoken counts become words, and the words silence; -1 is never.
type Fade struct{ WordsAfter, SilentAfter int }

// Prompt is something to say when a round, a rest or a second of an own-pace stretch is reached. The others of
// the three are -1.
type Prompt struct {
	Round, Rest int
	Second      breath.Exact
	Text        string
}

// Passage is one part of a class, defaults filled in.
type Passage struct {
	tag string // of the reader's language, see CallIn; empty for English

	Type    Type
	Title   string
	Script  string
	Prompts []Prompt
	Lines   []Line
	Keep    bool   // fitting to the clock leaves it alone
	Remark  string // what was typed of it and is nothing else
	Check   Check  // what of it somebody should look at
	// It lasts until the end of the slot ("end") or a time of day ("19:15"), and FillLeast milliseconds at least; empty
	// for a length of its own (docs/rules/formats.md).
	Fill      string
	FillLeast breath.Exact
	Trial     bool // a try-out, set apart in the record
	Point     bool // what the class is about: next time, programmes and home practice follow it

	// Talk and free passages.
	Length breath.Exact // planned, milliseconds
	Wait   bool         // lasts until somebody goes on

	// Practice passages.
	Practice     *practice.Practice
	OwnPace      bool
	Measure      Measure      // of its rounds, as planned
	PlanTempo    breath.Exact // counts a minute of what is around the rounds, where these are no counted ones
	Rounds       int          // 0 if the rounds are worked out from the minutes
	Minutes      breath.Exact // 0 if it is planned in rounds
	Side         breath.Through
	ExhaleFirst  bool // entry "exhale": one breath more before round 1
	Airway       breath.Airway
	Open         [4]breath.Exact  // planned lengths of open phases, milliseconds
	Breaths      int              // on each side of the body, or of the body as a whole; 0 where the figure says it
	Sides        []breath.Through // of the body, in the order in which a round breathes them; none for no sides
	Zone         string           // of three-part breath
	Attention    string           // of belly breath
	Aperture     practice.Aperture
	CountIn      int
	LeadIn       int
	OpeningSteps []Step
	ClosingSteps []Step
	RestBetween  breath.Exact // milliseconds
	RestWait     bool
	RestLeadIn   int             // counts after each rest
	Beside       Beside          // the gentler lane
	ByHand       Hand            // the phases that wait for the teacher
	Seal         bool            // a hold after the inhale has a cue that closes both nostrils
	Choices      []breath.Counts // at own pace: those that people choose from
	CountInBy    int             // the beat is said in groups of so many; 0 for one after the other
	NaturalPause breath.Exact    // milliseconds
	Recall       breath.Exact    // milliseconds; own pace only
	UsualVoice   bool            // the plan says nothing of the voice
	WordBefore   bool
	Voice        Voice
	Numbers      Screen // that of the plan where the passage says nothing
	Fade         Fade
	Syllables    []string
}

// Measure is what a round is breathed by, and what can be changed while it is led.
type Measure struct {
	Tempo   breath.Exact  // counts a minute, or strokes a minute
	Counts  breath.Counts // of counted practices; of open ones 1 for each phase that is there; of strokes the breath after
	Strokes int           // a round
}

// Step is a part of an opening or a closing: counted breaths, or a free stretch.
type Step struct {
	Breaths int // 0 for a free stretch
	Counts  breath.Counts
	Airway  breath.Airway
	Length  breath.Exact // milliseconds, of a free stretch
	Text    string
}

// Translate gives the practices of the plan their names and texts in the language that the class is led in (Words). In
// everything else it is the same plan.
func (p *Plan) Translate() {
	if p.Words == nil || p.Words.Tag == "en" {
		return
	}
	for i := range p.Passages {
		p.Passages[i].Translate(p.Words.Tag)
	}
}

// Translate is that of Plan, for one passage.
func (p *Passage) Translate(tag string) {
	if p.Practice == nil {
		return
	}
	said := p.Practice.In[tag].Steps
	for _, steps := range []*[]Step{&p.OpeningSteps, &p.ClosingSteps} {
		*steps = slices.Clone(*steps)
		for i := range *steps {
			(*steps)[i].Text = cmp.Or(said[(*steps)[i].Text], (*steps)[i].Text)
		}
	}
	p.Practice, _ = p.Practice.Translated(tag)
}

// ForTeacher returns what only the teacher reads while the passage runs: the script, and what was typed beside it.
func (p *Passage) ForTeacher() string {
	if p.Script != "" && p.Remark != "" {
		return p.Script + "\n" + p.Remark
	}
	return p.Script + p.Remark
}

// Led reports whether the passage is a practice with rounds, and not one at own pace.
func (p *Passage) Led() bool { return p.Type == Practice && !p.OwnPace }

// ByMinutes reports whether the rounds of the passage are worked out from its minutes.
func (p *Passage) ByMinutes() bool { return p.Led() && p.Rounds == 0 }

// KeepsMinutes reports whether the passage is led for its minutes: in as many rounds, or in one round of as many
// strokes, as they hold.
func (p *Passage) KeepsMinutes() bool {
	return p.ByMinutes() || p.Led() && p.Practice.FillsMinutes()
}

// OwnSpan returns how long a stretch at own pace lasts, in milliseconds: its minutes, or its rounds as they would be
// led, as planned.
func (p *Passage) OwnSpan() breath.Exact {
	if p.Rounds > 0 && p.TakesCounts() {
		return p.RoundSpan(p.Measure).Times(p.Rounds)
	}
	return p.Millis()
}

// HasRounds reports whether the passage has rounds that can be chosen: not at own pace, nor where one round fills its
// minutes.
func (p *Passage) HasRounds() bool { return p.Led() && !p.Practice.FillsMinutes() }

// TempoLimits returns the slowest and the fastest tempo that the passage can be planned at, in counts or strokes a
// minute.
func (p *Passage) TempoLimits() (slowest, fastest int64) {
	if p.Practice.TakesField("rate") {
		return rateLimits.low, rateLimits.high
	}
	return tempoLimits.low, tempoLimits.high
}

// TakesCounts reports whether the passage is a practice that it gives counts.
func (p *Passage) TakesCounts() bool { return p.Type == Practice && p.Practice.Kind.TakesCounts() }

// CountsStrokes reports whether the passage is a practice of strokes.
func (p *Passage) CountsStrokes() bool { return p.Type == Practice && p.Practice.Kind.CountsStrokes() }

// Hears returns the phase that can be told by ear in a room that is led: the stroke where strokes are counted, the
// phase that is chanted or hummed, or the one whose breath itself is loud. It is empty where nothing can be told: at
// own pace everybody sounds in their own time.
func (p *Passage) Hears() breath.Phase {
	switch {
	case !p.Led():
		return ""
	case p.CountsStrokes():
		return breath.Stroke
	case p.Practice.Sounds != "":
		return p.Practice.Sounds
	}
	return p.audible()
}

// HearsBreath reports whether what can be told by ear is breath and not a voice: a sigh, another open exhale, a hissed
// inhale or ocean breath.
func (p *Passage) HearsBreath() bool {
	return p.Led() && !p.CountsStrokes() && p.Practice.Sounds == "" && p.audible() != ""
}

// HearsBothWays reports whether each stroke is heard twice: its inhale is as strong as its exhale.
func (p *Passage) HearsBothWays() bool { return p.Led() && p.CountsStrokes() && p.Practice.BothWays }

// audible returns the phase whose breath is loud. Through the mouth that is the exhale, if both are.
func (p *Passage) audible() breath.Phase {
	switch breath.Mouth {
	case p.Airway.Out():
		return breath.Exhale
	case p.Airway.In():
		return breath.Inhale
	}
	return p.Practice.Audible
}

// HasOpenPhases reports whether the passage is a practice whose every phase waits.
func (p *Passage) HasOpenPhases() bool { return p.Type == Practice && p.Practice.Kind.HasOpenPhases() }

// HasFixedCounts reports whether the passage is a practice whose counts it does not change.
func (p *Passage) HasFixedCounts() bool {
	return p.Type == Practice && p.Practice.Kind.HasFixedCounts()
}
