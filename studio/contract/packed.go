package contract

import (
	"encoding/json"
	"slices"

	"vastlantern/core/fact"
)

// Packing is the lists of a Score as they cross the wire: what is there many times is once. An hour of rounds is 230 kB
// when each phase and each cue is written out, and 30 kB so, of which 2 kB are left by gzip: as little as only what an
// adjustment has changed would be, and no screen has to have anything to read it (docs/decisions/21).
type Packing struct {
	// Moments is the times of the lists, in milliseconds, in the order in which they are needed first: each as the step
	// from the one before.
	Moments Column `json:"moments"`
	// Times is where in Moments each time is, as the step from the time before: of phases, lane, wait, cues, lane_cues,
	// spoken, lane_spoken, in this order. Of a phase it is the time of its first count; those of the others, and its end,
	// follow in Moments. Of a cue it is its beginning, then its end.
	Times Column `json:"times"`

	Looks []ScorePhase `json:"looks"` // the phases that differ, without round, breath and times
	Cues  []Cue        `json:"cues"`  // the cues that differ, without times
	Says  []Spoken     `json:"says"`

	Phases     PackedPhases `json:"phases"`
	Lane       PackedPhases `json:"lane"`
	Wait       PackedPhases `json:"wait"`
	MainCues   Column       `json:"main_cues"` // each by its place in Cues
	LaneCues   Column       `json:"lane_cues"`
	Spoken     Column       `json:"spoken"` // each by its place in Says
	LaneSpoken Column       `json:"lane_spoken"`
}

// PackedPhases is a list of phases: of each its place in Looks, and the steps of round and breath from those of the
// phase before, from 0 on.
type PackedPhases struct {
	Looks   Column `json:"looks"`
	Rounds  Column `json:"rounds"`
	Breaths Column `json:"breaths"`
}

// Column is whole numbers, one for each of many things.
type Column []int64

// bare is a Score that is written as it is.
type bare Score

// packedScore is a Score on the wire: its lists are empty, and stand in packed_lists.
type packedScore struct {
	bare
	Packed Packing `json:"packed_lists"`
}

// MarshalJSON packs the lists.
func (s Score) MarshalJSON() ([]byte, error) { return json.Marshal(s.packed()) }

// Sent returns what is written of a score, for json.Marshal: the same that it writes of the score itself, without
// reading it over.
func (s Score) Sent() any { return s.packed() }

// Sent returns the same for a room.
func (r Room) Sent() any {
	sent := struct {
		Room
		Score *packedScore `json:"score"`
	}{Room: r}
	if r.Score != nil {
		sent.Score = r.Score.packed()
	}
	return sent
}

// Sent returns the same for the answer to an adjustment.
func (a Adjusted) Sent() any {
	return struct {
		Adjusted
		Score *packedScore `json:"score"`
	}{a, a.Score.packed()}
}

func (s Score) packed() *packedScore {
	packed := packedScore{bare(s), s.pack()}
	packed.Phases, packed.Lane = []ScorePhase{}, []ScorePhase{}
	packed.Cues, packed.LaneCues = []Cue{}, []Cue{}
	packed.Spoken, packed.LaneSpoken = []Spoken{}, []Spoken{}
	if s.Wait != nil {
		packed.Wait = &Wait{PlannedEndMS: s.Wait.PlannedEndMS, LengthMS: s.Wait.LengthMS, Phases: []ScorePhase{}}
	}
	return &packed
}

// UnmarshalJSON unpacks them.
func (s *Score) UnmarshalJSON(text []byte) error {
	var packed packedScore
	if err := json.Unmarshal(text, &packed); err != nil {
		return err
	}
	*s = Score(packed.bare)
	u := unpacking{packing: &packed.Packed}
	u.unpack(s)
	return u.err
}

func (s *Score) pack() Packing {
	waiting := []ScorePhase{}
	if s.Wait != nil {
		waiting = s.Wait.Phases
	}
	p := packing{like: map[look][]int64{}, known: map[int64]int{}}
	p.Looks, p.Cues, p.Says = []ScorePhase{}, []Cue{}, []Spoken{}
	p.Phases, p.Lane, p.Wait = p.phases(s.Phases), p.phases(s.Lane), p.phases(waiting)
	cues, said := map[Cue]int64{}, map[Spoken]int64{}
	p.MainCues, p.LaneCues = p.cues(s.Cues, cues), p.cues(s.LaneCues, cues)
	p.Spoken, p.LaneSpoken = p.spoken(s.Spoken, said), p.spoken(s.LaneSpoken, said)
	before := int64(0)
	for i, t := range p.Moments {
		p.Moments[i], before = t-before, t
	}
	return p.Packing
}

// packing is a Packing while it is made: its moments are times still.
type packing struct {
	Packing
	known map[int64]int    // where in Moments a time is that begins a phase, or stands alone
	like  map[look][]int64 // candidates in Looks
	at    int              // in Moments, of the time that was written last
}

// time writes a time that is at that place in Moments.
func (p *packing) time(at int) {
	p.Times = append(p.Times, int64(at-p.at))
	p.at = at
}

// moment returns where a time is.
func (p *packing) moment(t int64) int {
	at, found := p.known[t]
	if !found {
		at = len(p.Moments)
		p.known[t] = at
		p.Moments = append(p.Moments, t)
	}
	return at
}

func (p *packing) phases(list []ScorePhase) PackedPhases {
	packed := PackedPhases{make(Column, len(list)), make(Column, len(list)), make(Column, len(list))}
	round, breath := 0, 0
	for i := range list {
		ph := &list[i]
		packed.Looks[i], packed.Rounds[i], packed.Breaths[i] = p.look(ph), int64(ph.Round-round), int64(ph.Breath-breath)
		round, breath = ph.Round, ph.Breath
		p.time(p.row(ph))
	}
	return packed
}

// row returns where the counts of a phase and its end stand in Moments, one after the other.
func (p *packing) row(ph *ScorePhase) int {
	first := ph.EndMS
	if len(ph.AtMS) > 0 {
		first = ph.AtMS[0]
	}
	at, found := p.known[first]
	if last := len(p.Moments) - 1; last >= 0 && p.Moments[last] == first { // most follow the one before
		at, found = last, true
	}
	if end := at + len(ph.AtMS); found && end < len(p.Moments) && slices.Equal(p.Moments[at:end], ph.AtMS) &&
		p.Moments[end] == ph.EndMS {
		return at
	}
	if !found || at != len(p.Moments)-1 || len(ph.AtMS) == 0 {
		at = len(p.Moments)
	}
	p.Moments = append(append(p.Moments[:at], ph.AtMS...), ph.EndMS)
	p.known[first], p.known[ph.EndMS] = at, len(p.Moments)-1
	return at
}

// look is what phases that look the same have the same, for a quick comparison.
type look struct {
	passage, first, of int
	kind, word, side   string
	verbs              int
	said               string // at the first count
}

// look returns where the look of a phase stands.
func (p *packing) look(ph *ScorePhase) int64 {
	key := look{ph.Passage, ph.First, ph.Of, string(ph.Kind), ph.Word, ph.Side, len(ph.Verbs), ""}
	if len(ph.Says) > 0 {
		key.said = ph.Says[0]
	}
	for _, i := range p.like[key] {
		if looksLike(&p.Looks[i], ph) {
			return i
		}
	}
	i := int64(len(p.Looks))
	p.like[key] = append(p.like[key], i)
	same := *ph
	same.Round, same.Breath, same.AtMS, same.EndMS = 0, 0, []int64{}, 0
	p.Looks = append(p.Looks, same)
	return i
}

// looksLike reports whether two phases differ in round, breath and times only.
func looksLike(a, b *ScorePhase) bool {
	return a.Passage == b.Passage && a.Practice == b.Practice && a.Stage == b.Stage && a.Kind == b.Kind &&
		a.Through == b.Through &&
		a.First == b.First && a.Of == b.Of && a.Starts == b.Starts && a.Kept == b.Kept && a.Word == b.Word &&
		a.Side == b.Side &&
		a.Fingers == b.Fingers && a.Open == b.Open && slices.Equal(a.Says, b.Says) && slices.Equal(a.Shows, b.Shows) &&
		slices.Equal(a.Parts, b.Parts) &&
		slices.Equal(a.Verbs, b.Verbs)
}

func (p *packing) cues(list []Cue, known map[Cue]int64) Column {
	packed := make(Column, len(list))
	for i, c := range list {
		p.time(p.moment(c.AtMS))
		p.time(p.moment(c.UntilMS))
		c.AtMS, c.UntilMS = 0, 0
		packed[i] = once(c, &p.Cues, known)
	}
	return packed
}

func (p *packing) spoken(list []Spoken, known map[Spoken]int64) Column {
	packed := make(Column, len(list))
	for i, s := range list {
		p.time(p.moment(s.AtMS))
		s.AtMS = 0
		packed[i] = once(s, &p.Says, known)
	}
	return packed
}

// once returns where the value is in the list of all, which gets each once.
func once[V comparable](v V, all *[]V, known map[V]int64) int64 {
	i, found := known[v]
	if !found {
		i = int64(len(*all))
		known[v] = i
		*all = append(*all, v)
	}
	return i
}

// unpacking reads the lists of a score, in the order of Packing.Times.
type unpacking struct {
	packing *Packing
	moments []int64
	read    int // of the times
	at      int // in moments
	err     error
}

var errPacked = fact.New("score.broken")

func (u *unpacking) unpack(s *Score) {
	at := int64(0)
	for _, step := range u.packing.Moments {
		at += step
		u.moments = append(u.moments, at)
	}
	p := u.packing
	s.Phases, s.Lane = u.phases(p.Phases), u.phases(p.Lane)
	if waiting := u.phases(p.Wait); s.Wait != nil {
		s.Wait.Phases = waiting
	}
	s.Cues, s.LaneCues = u.cues(p.MainCues), u.cues(p.LaneCues)
	s.Spoken, s.LaneSpoken = u.spoken(p.Spoken), u.spoken(p.LaneSpoken)
}

// time returns the next time, with so many moments that follow it.
func (u *unpacking) time(more int) []int64 {
	if u.read < len(u.packing.Times) {
		u.at += int(u.packing.Times[u.read])
		u.read++
		if end := u.at + more; u.at >= 0 && end < len(u.moments) {
			return u.moments[u.at : end+1]
		}
	}
	u.err = errPacked
	return make([]int64, more+1)
}

func (u *unpacking) phases(packed PackedPhases) []ScorePhase {
	list := make([]ScorePhase, 0, len(packed.Looks))
	round, breath := 0, 0
	for i := range packed.Looks {
		if i >= len(packed.Rounds) || i >= len(packed.Breaths) {
			u.err = errPacked
			break
		}
		round, breath = round+int(packed.Rounds[i]), breath+int(packed.Breaths[i])
		ph := pick(u, u.packing.Looks, packed.Looks[i])
		counts := len(ph.Says)
		times := u.time(counts)
		ph.Round, ph.Breath, ph.AtMS, ph.EndMS = round, breath, times[:counts:counts], times[counts]
		list = append(list, ph)
	}
	return list
}

func (u *unpacking) cues(packed Column) []Cue {
	list := make([]Cue, 0, len(packed))
	for _, i := range packed {
		c := pick(u, u.packing.Cues, i)
		c.AtMS, c.UntilMS = u.time(0)[0], u.time(0)[0]
		list = append(list, c)
	}
	return list
}

func (u *unpacking) spoken(packed Column) []Spoken {
	list := make([]Spoken, 0, len(packed))
	for _, i := range packed {
		s := pick(u, u.packing.Says, i)
		s.AtMS = u.time(0)[0]
		list = append(list, s)
	}
	return list
}

func pick[V any](u *unpacking, all []V, i int64) (v V) {
	if i < 0 || i >= int64(len(all)) {
		u.err = errPacked
		return v
	}
	return all[i]
}
