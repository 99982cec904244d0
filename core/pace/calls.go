package pace

import (
	"cmp"
	"slices"

	"vastlantern/core/plan"
	"vastlantern/core/words"
)

// CallKind is what is called out besides the counts.
type CallKind string

// The announcements that belong to every practice, and the teacher's own prompts.
const (
	CallLast       CallKind = "last"
	CallHalf       CallKind = "half"
	CallMinute     CallKind = "minute"
	CallHalfMinute CallKind = "half-minute"
	CallPrompt     CallKind = "prompt"
)

// Call is something to call out at a moment, in milliseconds from the start of the class. It costs no time.
type Call struct {
	At      int64
	Passage int // from 1
	Kind    CallKind
	Text    string
}

// manyRounds is from how many rounds on half way is announced (common practice, with no source).
const manyRounds = 8

// roundCall is what is announced at the row in progress: the last of several rounds, or that half of many are done.
func (m *machine) roundCall() CallKind {
	if !m.row.Starts {
		return ""
	}
	return roundKind(m.round, m.inForce().total)
}

const (
	minute     = 60_000
	halfMinute = 30_000
)

// Calls is everything to call out in the timeline, in the order of time: the last round, half way, a minute and half
// a minute before the end of what is timed, and the passage's own prompts.
func (t Timeline) Calls(p *plan.Plan) []Call {
	var calls []Call
	for start := 0; start < len(t.Rows); {
		end := start + 1
		for end < len(t.Rows) && t.Rows[end].Passage == t.Rows[start].Passage {
			end++
		}
		calls = append(calls, passageCalls(t.Rows[start:end], &p.Passages[t.Rows[start].Passage-1], p.Words)...)
		start = end
	}
	slices.SortStableFunc(calls, func(a, b Call) int { return cmp.Compare(a.At, b.At) })
	return calls
}

func passageCalls(rows []Row, p *plan.Passage, w *words.Words) []Call {
	if p.Type != plan.Practice {
		return nil
	}
	var calls []Call
	add := func(at int64, kind CallKind, text string) {
		calls = append(calls, Call{at, rows[0].Passage, kind, text})
	}
	rest := 0
	last := lastRound(rows, p)
	for i, row := range rows {
		switch {
		case row.Starts:
			if kind := roundKind(row.Round, last); kind != "" {
				add(row.At, kind, w.Text(string(kind)))
			}
			for _, prompt := range p.Prompts {
				if prompt.Round == row.Round {
					add(row.At, CallPrompt, prompt.Text)
				}
			}
		case row.Stage == Rest:
			rest++
			for _, prompt := range p.Prompts {
				if prompt.Rest == rest {
					add(row.At, CallPrompt, prompt.Text)
				}
			}
		case row.Stage == Own:
			for _, prompt := range p.Prompts {
				if at := row.At + prompt.Second.Times(1000).Round(); prompt.Second.Sign() >= 0 && at < row.End() {
					add(at, CallPrompt, prompt.Text)
				}
			}
		}
		if p.Minutes.Sign() > 0 && endsTimed(rows, i) {
			from := rows[timedFrom(rows, i)].At
			for _, c := range []struct {
				kind   CallKind
				before int64
			}{{CallMinute, minute}, {CallHalfMinute, halfMinute}} {
				// Not in the first half: then it would be no news.
				if at := row.End() - c.before; at-from >= c.before {
					add(at, c.kind, w.Text(string(c.kind)))
				}
			}
		}
	}
	return calls
}

// lastRound is the number of the last round that the rows will come to; 0 where they do not get so far.
func lastRound(rows []Row, p *plan.Passage) int {
	last := 0
	for _, row := range rows {
		if row.Stage == Round {
			last = max(last, row.Round)
		}
	}
	if rows[len(rows)-1].Stage == Round && rows[len(rows)-1].Dur < 0 {
		return 0
	}
	return last
}

func roundKind(round, last int) CallKind {
	switch {
	case last > 1 && round == last:
		return CallLast
	case last >= manyRounds && round == last/2+1:
		return CallHalf
	}
	return ""
}

// endsTimed tells whether the row is the last of the rounds or of an own-pace stretch, and its end is known.
func endsTimed(rows []Row, i int) bool {
	timed := func(s Stage) bool { return s == Round || s == Own }
	return timed(rows[i].Stage) && rows[i].Dur >= 0 && (i+1 == len(rows) || rows[i+1].Stage == Closing || rows[i+1].Stage == Recall)
}

// timedFrom is the first row of the rounds, or of the stretch, that row i ends.
func timedFrom(rows []Row, i int) int {
	return slices.IndexFunc(rows, func(r Row) bool { return r.Stage == rows[i].Stage })
}
