package lead

import (
	"cmp"
	"context"
	"slices"
	"strings"
	"sync"

	"vastlantern/core/breath"
	"vastlantern/core/care"
	"vastlantern/core/cue"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/room"
	"vastlantern/core/words"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
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
	score := shape(l, l.Led.Timeline(), here, at, c.mainCues.of, c.laneCues.of)
	if here.says != nil {
		score.Speaker = here.says(texts(&score))
	}
	score.CardUp = c.cards.of(l.Stored.ID)
	score.Sample = c.isSample(l.Stored.PlanID) || c.endedSample(l.Stored.ID) != nil
	return score, nil
}

// PlanScore returns the whole of a plan as it is played without this program: from 0, with nobody there that is known,
// and what waits for a teacher at its planned length. fingers is the way of the fingers at the nose.
func PlanScore(p *plan.Plan, fingers string) contract.Score {
	cues := func(l *studio.Class, lane cue.Lane) *cue.Class { return cue.AsPlanned(l.Plan, lane) }
	score := shape(studio.BeginClass(store.Class{}, p), pace.Sheet(p), &people{fingers: fingers}, 0, cues, cues)
	score.StartedMS = 0
	return score
}

// PlanScore returns the function of the same name with the recorded voice that speaks, for the rooms of the studio.
func (c *Classes) PlanScore(ctx context.Context, p *plan.Plan, fingers string) (contract.Score, error) {
	score := PlanScore(p, fingers)
	says, err := c.voices.Speaking(ctx, p.Words.Tag)
	if says != nil {
		score.Speaker = says(texts(&score))
	}
	return score, err
}

// texts returns all that is said in a score.
func texts(score *contract.Score) []string {
	var list []string
	phases := slices.Concat(score.Phases, score.Lane)
	if score.Wait != nil {
		phases = append(phases, score.Wait.Phases...)
	}
	for i := range phases {
		list = append(list, phases[i].Says...)
	}
	for _, s := range slices.Concat(score.Spoken, score.LaneSpoken) {
		list = append(list, s.Text)
	}
	return list
}

func shape(
	l *studio.Class, tl pace.Timeline, here *people, at int64, mainCues, laneCues cuesOf,
) contract.Score {
	score := contract.Score{
		ClassID: l.Stored.ID, Revision: len(l.Script), Title: l.Plan.Title, Group: here.group,
		FingersBy: cmp.Or(strings.Join(l.Plan.Fingers, " "), here.fingers), // a plan can differ from the school
		StartedMS: contract.Millis(l.Stored.StartedAt), SlotMS: l.Plan.Slot.Times(60_000).Round(), Unstored: notStored(l),
		Over: !l.Stored.EndedAt.IsZero(), EndMS: tl.End, Phases: contract.PhasesOf(fromStage(tl.Rows, at), l.Plan),
		Language: l.Plan.Words.Tag, Left: ways(l.Plan.Words, breath.Left), Right: ways(l.Plan.Words, breath.Right),
	}
	score.Lane = laneOf(tl, at, l.Plan)
	if tl.Open {
		ahead := l.Led.Ahead()
		score.EndMS = l.Led.EndAt(at)
		score.Wait = &contract.Wait{
			PlannedEndMS: ahead.PlannedEnd,
			Phases:       contract.PhasesOf(ahead.Then.Rows, l.Plan),
			LengthMS:     ahead.Then.End,
		}
	}
	score.Passages = passages(l, tl, score.Wait, here.asks)
	cues := mainCues(l, cue.Main)
	score.Cues, score.Spoken = contract.CuesOf(cues, at), spoken(cues.Spoken(), at)
	score.LaneCues, score.LaneSpoken = []contract.Cue{}, contract.LaneSpokenOf(score.Phases, score.Lane, l.Plan.Words)
	if len(score.Lane) > 0 {
		score.LaneCues = contract.CuesOf(laneCues(l, cue.Beside), at, cue.Now, cue.Next, cue.Hand)
	}
	if n := len(l.Answers); n > 0 {
		answer := l.Answer(n)
		score.Answer = &answer
	}
	return score
}

// cuesOf is the cues of a class on a lane.
type cuesOf func(l *studio.Class, lane cue.Lane) *cue.Class

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
	here.group = groups[class.GroupID]
	if here.asks, err = c.library.CareFor(ctx, here.group, class.StartedAt); err != nil {
		return err
	}
	choices, err := c.library.ChoicesFor(ctx, here.group)
	if err != nil {
		return err
	}
	here.fingers = choices.Way("fingers").ID
	here.says, err = c.voices.Speaking(ctx, here.language)
	return err
}

// people is what was read last of who is there in a class.
type people struct {
	class    int64
	language string
	settled  int64 // what Settled was before it was read

	group   *contract.Group
	asks    care.Room
	fingers string
	says    func(texts []string) *contract.Speaker // nil if the browser's own voice speaks
}

func ways(w *words.Words, side breath.Through) contract.Ways {
	return contract.Ways{Named: w.Named(side), Hand: w.Hand(side)}
}

// laneOf returns the gentler lane from the stage in progress on, if there is one from there on.
func laneOf(tl pace.Timeline, at int64, p *plan.Plan) []contract.ScorePhase {
	for i := range fromStage(tl.Rows, at) {
		if row := &tl.Rows[len(tl.Rows)-1-i]; !row.Beside.None() {
			return contract.PhasesOf(fromStage(tl.Lane(p).Rows, at), p)
		}
	}
	return []contract.ScorePhase{}
}

// fromStage leaves out the rows before the stage in progress: a round is shown whole, what is over is not shown.
func fromStage(rows []pace.Row, at int64) []pace.Row {
	now := len(rows) - 1
	for i, row := range rows {
		if end := row.End(); end < 0 || at < end {
			now = i
			break
		}
	}
	first := max(now, 0)
	for first > 0 && sameStage(rows[first-1], rows[now]) && !rows[first].Starts {
		first--
	}
	return rows[first:]
}

func sameStage(a, b pace.Row) bool {
	return a.Passage == b.Passage && a.Stage == b.Stage && a.Round == b.Round && a.Kept == b.Kept
}

// spoken returns what the voice still has to say.
func spoken(all []cue.Spoken, at int64) []contract.Spoken {
	list := []contract.Spoken{}
	for _, s := range all {
		if s.At >= at {
			list = append(list, contract.Spoken{AtMS: s.At, Who: s.Who, Text: s.Text})
		}
	}
	return list
}

// linesFor is for whom a passage has lines of the teacher's own.
func linesFor(p *plan.Passage) []plan.Who {
	list := []plan.Who{}
	for _, line := range p.Lines {
		if !slices.Contains(list, line.Who) {
			list = append(list, line.Who)
		}
	}
	return list
}

// signsOf returns the signals that can be seen in a passage, with the measure in force.
func signsOf(p *plan.Passage, m plan.Measure) []string {
	list := []string{}
	for _, seen := range room.Signals {
		if seen.Fits(p, m) {
			list = append(list, seen.ID)
		}
	}
	return list
}

// ownRound returns a round of what a passage breathes at own pace, as it is in force, and its pattern in one line.
func ownRound(p *plan.Plan, passage int, m plan.Measure) ([]contract.ScorePhase, string) {
	if own := &p.Passages[passage]; own.OwnPace {
		rows := pace.OneRound(p, passage, m)
		return contract.PhasesOf(rows, p), cue.Pattern(own, rows, p)
	}
	return []contract.ScorePhase{}, ""
}

// passages returns the running order at this point: when each passage began or will begin. What waits counts as
// planned.
func passages(l *studio.Class, tl pace.Timeline, wait *contract.Wait, who care.Room) []contract.ScorePassage {
	now := l.Led.Passages()
	list := make([]contract.ScorePassage, len(l.Plan.Passages))
	for i := range l.Plan.Passages {
		p, inForce := &l.Plan.Passages[i], now[i]
		list[i] = contract.ScorePassage{
			Name: p.Name(), Type: p.Type, Script: p.ForTeacher(), StartMS: -1, EndMS: -1, Rounds: inForce.Total,
			Lanes:    contract.LanesOf(p, inForce.Measure, who.Rules.LaneLimit),
			Tempo:    inForce.Tempo.Float(),
			Slower:   room.Slower(p, inForce.Tempo).Float(),
			Faster:   room.Faster(p, inForce.Tempo).Float(),
			Cautions: contract.CautionsOf(p), Findings: contract.FindingsOf(p, who), Steps: contract.StepsOf(p.ClosingSteps),
			InForce: contract.InForceOf(inForce), LaneNames: contract.LaneNamesOf(l.Plan.Words, p, inForce.Beside),
		}
		if p.HasOpenPhases() { // has no tempo to change
			list[i].Tempo = 0
		}
		if p.Practice != nil {
			list[i].Practice, list[i].Term, list[i].Counts = p.Practice.ID, p.Practice.Term, p.Pattern()
			list[i].Timed = p.Led() && p.Practice.FillsMinutes()
		}
		list[i].Distinct, list[i].HandAtNose, list[i].LinesFor = l.Plan.Distinctions(i), cue.HandAtNose(p), linesFor(p)
		list[i].HandPlace, list[i].Syllables = cue.HandPlace(p), append([]string{}, p.Syllables...)
		list[i].Sides, list[i].SideBreaths = contract.SidesOf(p), p.SideBreaths()
		list[i].Numbers, list[i].Cards = p.Numbers, append([]string{}, p.Cards()...)
		list[i].Signs = signsOf(p, inForce.Measure)
		list[i].OwnRound, list[i].Pattern = ownRound(l.Plan, i, inForce.Measure)
		list[i].Choices = []string{}
		for _, counts := range p.Choices {
			list[i].Choices = append(list[i].Choices, counts.String())
		}
	}
	for i, counted := len(list)-1, 0; i >= 0; i-- {
		if l.Plan.Passages[i].TakesCounts() {
			list[i].Carries = counted
			counted++
		}
	}
	if n := len(tl.Rows); n > 0 {
		list[tl.Rows[n-1].Passage-1].HandTempo = l.Led.HandTempo()
	}
	reach := func(passage int, from, to int64) {
		if list[passage-1].StartMS < 0 {
			list[passage-1].StartMS = from
		}
		list[passage-1].EndMS = to
	}
	for _, row := range tl.Rows {
		end := row.End()
		if end < 0 {
			end = wait.PlannedEndMS
		}
		reach(row.Passage, row.At, end)
	}
	if wait != nil {
		for _, phase := range wait.Phases {
			reach(phase.Passage, wait.PlannedEndMS+phase.AtMS[0], wait.PlannedEndMS+phase.EndMS)
		}
	}
	return list
}
