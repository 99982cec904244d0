package led

import (
	"cmp"
	"slices"
	"strings"

	"vastlantern/core/breath"
	"vastlantern/core/care"
	"vastlantern/core/cue"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/room"
	"vastlantern/core/words"
	"vastlantern/studio/contract"
)

// PlanScore returns the whole of a plan as it is played without this program: from 0, with nobody there that is known,
// and what waits for a teacher at its planned length. fingers is the way of the fingers at the nose.
func PlanScore(p *plan.Plan, fingers string) contract.Score {
	cues := func(l *Class, lane cue.Lane) *cue.Class { return cue.AsPlanned(l.Plan, lane) }
	score := Score(Begin(p), pace.Sheet(p), Here{Fingers: fingers}, 0, cues, cues)
	score.StartedMS = 0
	return score
}

// Texts returns all that is said in a score.
func Texts(score *contract.Score) []string {
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

// Here is what a score has besides the class itself: the group, what care asks of it, and how the fingers lie at the
// nose where the plan does not say.
type Here struct {
	Group   *contract.Group
	Care    care.Room
	Fingers string
}

// Score shapes the timeline of a class from the stage in progress on, at that time of it.
func Score(l *Class, tl pace.Timeline, here Here, at int64, mainCues, laneCues CuesOf) contract.Score {
	score := contract.Score{
		ClassID: l.ID, Revision: len(l.Script), Title: l.Plan.Title, Group: here.Group,
		FingersBy: cmp.Or(strings.Join(l.Plan.Fingers, " "), here.Fingers), // a plan can differ from the school
		StartedMS: contract.Millis(l.StartedAt), SlotMS: l.Plan.Slot.Times(60_000).Round(), Unstored: l.notStored(),
		Over: !l.EndedAt.IsZero(), EndMS: tl.End, Phases: contract.PhasesOf(fromStage(tl.Rows, at), l.Plan),
		Language: l.Plan.Words.Tag, Left: ways(l.Plan.Words, breath.Left), Right: ways(l.Plan.Words, breath.Right),
	}
	score.Lane = laneOf(tl, at, l.Plan)
	if tl.Open || tl.Then != nil {
		score.EndMS = l.Led.EndAt(at)
	}
	after := tl.Then
	if tl.Open {
		ahead := l.Led.Ahead()
		after = ahead.Then.Then
		score.Wait = &contract.Wait{
			PlannedEndMS: ahead.PlannedEnd,
			Phases:       contract.PhasesOf(ahead.Then.Rows, l.Plan),
			LengthMS:     ahead.Then.End,
		}
	}
	score.Passages = passages(l, tl, score.Wait, after, here.Care)
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

// CuesOf returns the cues of a class on a lane.
type CuesOf func(l *Class, lane cue.Lane) *cue.Class

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
// planned. after is how passages go on after the rows of the timeline and of what follows the wait.
func passages(
	l *Class, tl pace.Timeline, wait *contract.Wait, after []pace.Stretch, who care.Room,
) []contract.ScorePassage {
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
		list[i].Hears, list[i].HearsBreath, list[i].HearsBothWays = p.Hears(), p.HearsBreath(), p.HearsBothWays()
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
	began := int64(0)
	if wait != nil {
		began = wait.PlannedEndMS
	}
	for _, stretch := range after {
		reach(stretch.Passage, began+stretch.From, began+stretch.To)
	}
	return list
}
