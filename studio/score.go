package studio

import (
	"fmt"

	"vastlantern/core/breath"
	"vastlantern/core/care"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/room"
	"vastlantern/core/words"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// answer is the answer to an adjustment, with what is known of it besides.
func (l *led) answer(number int) contract.Answer {
	answer := answerOf(l.answers[number-1])
	answer.Number, answer.Because, answer.Origin = number, signalName(l.sent[number-1].because), l.sent[number-1].origin
	return answer
}

func answerOf(a pace.Answer) contract.Answer {
	return contract.Answer{
		AtMS: a.At, Do: a.Do, Refused: a.Refused, When: a.When, Before: inForce(a.Before), After: inForce(a.After),
		Undone: string(a.Undone), LateMS: a.Late, Text: a.Text, See: signalName(a.See),
	}
}

// signalName is a signal in words; what is none of ours is shown as it is.
func signalName(id string) string {
	for _, seen := range room.Signals {
		if seen.ID == id {
			return seen.Name
		}
	}
	return id
}

func inForce(p pace.Passage) contract.InForce {
	return contract.InForce{Tempo: p.Tempo.Float(), Rounds: p.Total, Counts: p.Counts.String(), Four: [4]int{p.Counts.Inhale, p.Counts.Hold, p.Counts.Exhale, p.Counts.Empty}, Strokes: p.Strokes}
}

// score shapes the timeline from the stage in progress on.
func (s *Studio) score(l *led) (contract.Score, error) { return s.scoreAt(l, l.at(s.now())) }

func (s *Studio) scoreAt(l *led, at int64) (contract.Score, error) {
	group, who, err := s.present(l.stored)
	if err != nil {
		return contract.Score{}, err
	}
	tl := l.class.Timeline()
	score := contract.Score{
		ClassID: l.stored.ID, Revision: len(l.script), Title: l.plan.Title, Group: group,
		StartedMS: millis(l.stored.StartedAt), SlotMS: l.plan.Slot.Times(60_000).Round(), Unstored: l.notStored(),
		Over: !l.stored.EndedAt.IsZero(), EndMS: tl.End, Strands: strands(fromStage(tl.Rows, at), l.plan.Words),
		Language: l.plan.Words.Tag, Left: ways(l.plan.Words, breath.Left), Right: ways(l.plan.Words, breath.Right),
	}
	if tl.Open {
		ahead := l.class.Ahead()
		score.EndMS = l.class.EndAt(at)
		score.Wait = &contract.Wait{PlannedEndMS: ahead.PlannedEnd, Strands: strands(ahead.Then.Rows, l.plan.Words), LengthMS: ahead.Then.End}
	}
	score.Passages = l.passages(tl, score.Wait, who)
	score.Calls = calls(tl.Calls(l.plan), at)
	if n := len(l.answers); n > 0 {
		answer := l.answer(n)
		score.Answer = &answer
	}
	return score, nil
}

// present is who is there: the group of a class, and what care asks of it. Where the data file cannot be read just now,
// it is what was read last: a class that is led goes on with it.
func (s *Studio) present(class store.Class) (*contract.Group, care.Room, error) {
	group, err := s.groupEver(class.GroupID)
	if err == nil {
		var who care.Room
		if who, err = s.room(group, class.StartedAt); err == nil {
			s.seen.Store(&present{class.ID, group, who})
			return group, who, nil
		}
	}
	if last := s.seen.Load(); Trouble(err) != "" && last != nil && last.class == class.ID {
		return last.group, last.who, nil
	}
	return nil, care.Room{}, err
}

// present is what was read last of who is there in a class.
type present struct {
	class int64
	group *contract.Group
	who   care.Room
}

func ways(w *words.Words, side breath.Through) contract.Ways {
	return contract.Ways{Named: w.Named(side), Hand: w.Hand(side)}
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

// strands gathers rows into phases.
func strands(rows []pace.Row, w *words.Words) []contract.Strand {
	list := make([]contract.Strand, 0, len(rows)/3)
	met := map[pace.VerbSet][]pace.Verb{} // most rows are met by the same
	for i, row := range rows {
		if i == 0 || !row.Follows(rows[i-1]) {
			list = append(list, contract.Strand{
				Passage: row.Passage, Practice: row.Practice, Stage: row.Stage, Round: row.Round, Breath: row.Breath,
				Phase: row.Phase, Through: row.Through, First: row.Count, Starts: row.Starts, Open: row.Open,
				Word: spoken(row, w), Side: w.Side(row.Through),
			})
		}
		last := &list[len(list)-1]
		last.AtMS = append(last.AtMS, row.At)
		last.Says = append(last.Says, row.Say)
		if row.Part != "" {
			last.Parts = append(last.Parts, w.Text(row.Part))
		}
		if i+1 == len(rows) || !rows[i+1].Follows(row) { // what was adjusted within the phase: the newest holds
			last.Of, last.Kept, last.EndMS, last.Verbs = row.Of, row.Kept, row.End(), verbs(row.Verbs, met)
		}
	}
	return list
}

// spoken is the word for what is done now, in the words of the class.
func spoken(row pace.Row, w *words.Words) string {
	switch row.Stage {
	case pace.Rest:
		return w.Text(words.Resting)
	case pace.Own:
		return w.Text(words.OwnPace)
	case pace.Recall:
		return w.Text(words.Finish)
	}
	if row.Phase == breath.Free {
		return w.Text(words.Natural)
	}
	return w.Text(string(row.Phase))
}

// calls is what is still to be called out, and what was a moment ago.
func calls(all []pace.Call, at int64) []contract.Call {
	const moment = 10_000
	list := []contract.Call{}
	for _, c := range all {
		if c.At > at-moment {
			list = append(list, contract.Call{AtMS: c.At, Passage: c.Passage, Kind: c.Kind, Text: c.Text})
		}
	}
	return list
}

func verbs(set pace.VerbSet, known map[pace.VerbSet][]pace.Verb) []pace.Verb {
	list, found := known[set]
	if !found {
		list = set.List()
		known[set] = list
	}
	return list
}

// passages is the running order as it stands: when each passage began or will, what waits taken as planned.
func (l *led) passages(tl pace.Timeline, wait *contract.Wait, who care.Room) []contract.ScorePassage {
	now := l.class.Passages()
	list := make([]contract.ScorePassage, len(l.plan.Passages))
	for i := range l.plan.Passages {
		p, force := &l.plan.Passages[i], now[i]
		list[i] = contract.ScorePassage{
			Name: p.Name(), Type: p.Type, Script: p.Script, StartMS: -1, EndMS: -1, Rounds: force.Total,
			Tempo: force.Tempo.Float(), Slower: room.Slower(p, force.Tempo).Float(), Faster: room.Faster(p, force.Tempo).Float(),
			Cautions: cautions(p), Findings: findings(p, who), Steps: stepsInWords(p.ClosingSteps),
			InForce: inForce(force),
		}
		if p.Is(practice.Open) { // has no tempo to change
			list[i].Tempo = 0
		}
		if p.Practice != nil {
			list[i].Practice, list[i].Term, list[i].Counts = p.Practice.ID, p.Practice.Term, p.Pattern()
		}
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
		for _, strand := range wait.Strands {
			reach(strand.Passage, wait.PlannedEndMS+strand.AtMS[0], wait.PlannedEndMS+strand.EndMS)
		}
	}
	return list
}

func stepsInWords(steps []plan.Step) []string {
	list := []string{}
	for _, step := range steps {
		list = append(list, stepInWords(step))
	}
	return list
}

func stepInWords(step plan.Step) string {
	switch {
	case step.Breaths == 1:
		return "1 breath " + step.Counts.String()
	case step.Breaths > 1:
		return fmt.Sprintf("%d breaths %s", step.Breaths, step.Counts)
	}
	seconds := step.Length.Div(breath.Int(1000))
	if step.Text != "" {
		return fmt.Sprintf("%s s %s", seconds, step.Text)
	}
	return fmt.Sprintf("%s s natural breath", seconds)
}
