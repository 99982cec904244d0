package pace_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// What always holds, whatever is pressed (pacing.md section 5), on random plans and scripts. More of them:
// go test ./core/pace -run Promises -rapid.checks=100000

func maybe(t *rapid.T, field string) string {
	if rapid.Bool().Draw(t, "has") {
		return ", " + field
	}
	return ""
}

func drawCounts(t *rapid.T, least int) string {
	draw := func(low, high int) int { return rapid.IntRange(low, high).Draw(t, "n") }
	return fmt.Sprintf("%d:%d:%d:%d", draw(least, 5), draw(0, 5), draw(least, 5), draw(0, 3))
}

func drawPassage(t *rapid.T) string {
	switch rapid.IntRange(0, 9).Draw(t, "type") {
	case 0:
		return fmt.Sprintf(`{"type": "talk", "seconds": %d%s}`, rapid.IntRange(1, 60).Draw(t, "s"), maybe(t, `"wait": true`))
	case 1:
		return fmt.Sprintf(`{"type": "free", "breaths": %d%s}`, rapid.IntRange(1, 5).Draw(t, "b"), maybe(t, `"wait": true`))
	}
	p := rapid.SampledFrom(practice.Catalogue()).Draw(t, "practice")
	text := fmt.Sprintf(`{"type": "practice", "practice": %q, "lead_in": %d`, p.ID, rapid.IntRange(0, 3).Draw(t, "lead"))
	text += maybe(t, `"count_in": 3`)
	text += maybe(t, fmt.Sprintf(`"opening": [{"breaths": 2, "counts": %q}, {"seconds": 7}]`, drawCounts(t, 1)))
	text += maybe(t, fmt.Sprintf(`"closing": [{"seconds": 5}, {"breaths": 1, "counts": %q}]`, drawCounts(t, 1)))
	return text + drawKind(t, p) + drawLength(t, p) + `}`
}

func drawKind(t *rapid.T, p *practice.Practice) string {
	text := ""
	for field, value := range map[string]string{
		"side": `"right"`, "entry": `"exhale"`, "zone": `"ribs"`, "aperture": `{"inhale": "narrow"}`, "airway": `"in-mouth"`,
		"strokes": "7", "rate": "61", "open_seconds": "[2, 3.5, 2, 1]", "sides": `"left-right"`, "breaths": "2",
		"after": `"2:3:1"`,
	} {
		if p.TakesField(field) {
			text += maybe(t, fmt.Sprintf(`%q: %s`, field, value))
		}
	}
	if p.Kind == practice.Counted {
		least := p.MostSteps()
		if p.TakesField("zone") {
			least = practice.LeastZoned
		}
		text += fmt.Sprintf(
			`, "counts": %q`,
			drawCounts(t, least),
		) + maybe(
			t,
			`"word": "before"`,
		) + maybe(
			t,
			`"natural_pause": 0.35`,
		)
	}
	if p.Kind == practice.Counted || p.Kind == practice.Fixed {
		text += maybe(
			t,
			fmt.Sprintf(
				`"tempo": %d.%02d`,
				rapid.IntRange(20, 119).Draw(t, "tempo"),
				rapid.IntRange(0, 99).Draw(t, "hundredths"),
			),
		)
	}
	return text
}

func drawLength(t *rapid.T, p *practice.Practice) string {
	minutes := fmt.Sprintf(
		`, "minutes": %d.%d`,
		rapid.IntRange(0, 2).Draw(t, "minutes"),
		rapid.IntRange(1, 9).Draw(t, "tenths"),
	)
	if rapid.Bool().Draw(t, "beside") {
		minutes += `, "beside": "breathe"`
	}
	byHand := ""
	if p.Kind == practice.Counted && rapid.Bool().Draw(t, "by hand") {
		byHand = `, "by_hand": ` + rapid.SampledFrom(hands[:5:5]).
			Filter(func(hand string) bool { return hand != `"none"` }).
			Draw(t, "hand")
	}
	rests := maybe(
		t,
		`"rest_lead_in": 2`,
	) + maybe(
		t,
		fmt.Sprintf(`"rest_between": %d`, rapid.IntRange(0, 9).Draw(t, "rest")),
	) + maybe(
		t,
		`"rest_wait": true`,
	)
	switch length := rapid.IntRange(0, 4).Draw(t, "length"); {
	case length == 0:
		own := `, "pace": "own"` + maybe(t, `"recall": 0`)
		if p.Kind == practice.Counted && rapid.Bool().Draw(t, "in rounds") {
			return own + fmt.Sprintf(`, "rounds": %d`, rapid.IntRange(1, 4).Draw(t, "own rounds"))
		}
		return own + `, "minutes": 0.5`
	case length <= 2 || p.FillsMinutes():
		return minutes + rests + byHand
	}
	return fmt.Sprintf(`, "rounds": %d`, rapid.IntRange(1, 4).Draw(t, "rounds")) + rests + byHand
}

// likely are the verbs that scripts draw from: those that come often more than once, the end of it all not.
var likely = append(
	pace.Verbs(),
	pace.ToTempo,
	pace.ToTempo,
	pace.ToCounts,
	pace.DropHolds,
	pace.RestoreHolds,
	pace.Release,
	pace.Rounds,
	pace.ToPause,
	pace.ToHand,
	pace.ToHand,
	pace.ToRecall,
	pace.ToBeside,
	pace.ToBeside,
	pace.Resume,
	pace.Resume,
	pace.Advance,
	pace.Advance,
	pace.ToStrokes,
	pace.Enough,
	pace.Undo,
	pace.Undo,
)

// hands is what can be led by hand.
var hands = []string{`"all"`, `"none"`, `["inhale", "exhale"]`, `["hold"]`, `["exhale", "empty", "exhale"]`, `[]`}

func drawScript(t *rapid.T) []pace.Adjustment {
	var lines []string
	at := 0
	draw := func(low, high int) int { return rapid.IntRange(low, high).Draw(t, "n") }
	for range rapid.IntRange(0, 25).Draw(t, "adjustments") {
		at += rapid.SampledFrom([]int{0, 1, 500, 1000, 3000, 12_345, 40_000}).Draw(t, "gap")
		verb := rapid.SampledFrom(likely).Draw(t, "verb")
		takes := ""
		switch verb {
		case pace.ToTempo:
			takes = fmt.Sprintf(`"to": %d.%d, "carry": %t`, draw(18, 145), draw(0, 9), rapid.Bool().Draw(t, "carry"))
		case pace.Rounds:
			takes = fmt.Sprintf(`"by": %d`, draw(-2, 2))
		case pace.ToCounts:
			takes = fmt.Sprintf(`"to": [%d, %d, %d, %d]`, draw(0, 5), draw(0, 6), draw(1, 5), draw(0, 3))
		case pace.ToStrokes:
			takes = fmt.Sprintf(`"to": %d`, draw(0, 30))
		case pace.FinishBy:
			takes = fmt.Sprintf(`"to_ms": %d`, at+draw(0, 120_000))
		case pace.ToBeside:
			takes = fmt.Sprintf(`"to": %q`, rapid.SampledFrom([]string{"breathe", "1:1", "2:3", "none"}).Draw(t, "beside"))
		case pace.ToHand:
			takes = `"to": ` + rapid.SampledFrom(hands).Draw(t, "hand")
		case pace.ToRecall:
			takes = fmt.Sprintf(`"rounds": %d`, draw(0, 4))
		case pace.DropHolds, pace.RestoreHolds:
			takes = fmt.Sprintf(`"carry": %t`, rapid.Bool().Draw(t, "carry"))
		case pace.Note:
			takes = `"text": "x"`
		case pace.Signal:
			takes = `"see": "x"`
		}
		lines = append(lines, strings.TrimSpace(fmt.Sprintf("%d %s %s", at, verb, takes)))
	}
	return script(t, lines...)
}

func TestPromises(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var passages []string
		for range rapid.IntRange(1, 4).Draw(t, "passages") {
			passages = append(passages, drawPassage(t))
		}
		p := read(t, passages...)
		planned := pace.Sheet(p)
		assert.Equal(t, p.Length().Round(), planned.End, "the plan's length is the length of its sheet")
		promises(t, p, planned)

		class, all := pace.Begin(p), drawScript(t)
		var accepted []pace.Adjustment
		for _, a := range all {
			before := class.Timeline()
			would := class.Previews(a.At, []pace.Adjustment{{Do: pace.End}, a})[1]
			answer := class.Adjust(a)
			assert.Equal(t, would.Answer, answer, "what it would do is what it does")
			after := class.Timeline()
			assert.Equal(t, would.EndWith, class.EndAt(a.At))
			if end, known := endOf(class, a.At); known {
				assert.InDelta(t, end, would.EndWith, 1, "the end is where the rows end")
			}
			pastStays(t, before, after, a.At)
			pastStays(t, before.Lane(p), after.Lane(p), a.At)
			if !answer.Refused.None() {
				assert.Equal(t, before, after, "a refused adjustment changes nothing")
				continue
			}
			accepted = append(accepted, a)
			if a.Do != pace.Undo { // which gives a hold back the length that it had, while nobody has felt the other
				holdGrowsNot(t, before, after, a.At)
			}
		}
		taught := class.Timeline()
		promises(t, p, taught)
		again, _ := pace.Replay(p, all)
		assert.Equal(t, taught, again, "replaying gives the same")
		again, _ = pace.Replay(p, accepted)
		assert.Equal(t, taught, again, "without the refused ones too")
	})
}

// endOf returns where the class ends by its rows, to a millisecond: a wait is rounded by itself. A wait that is past
// its planned end at that time may leave fewer rounds than are shown to follow it.
func endOf(class *pace.Class, at int64) (end int64, known bool) {
	tl := class.Timeline()
	if !tl.Open {
		return tl.End, true
	}
	wait := class.Ahead()
	return wait.PlannedEnd + wait.Then.End, wait.PlannedEnd >= at
}

func promises(t *rapid.T, p *plan.Plan, tl pace.Timeline) {
	at := int64(0)
	for i, row := range tl.Rows {
		assert.Equal(t, at, row.At, "rows tile")
		if row.Dur < 0 {
			assert.True(t, tl.Open && i == len(tl.Rows)-1, "only the last row has no end")
			break
		}
		at = row.End()
	}
	if !tl.Open {
		assert.Equal(t, at, tl.End, "to the end")
	}
	beside(t, p, tl)
	for number := range p.Passages {
		passage := &p.Passages[number]
		for i, rows := range keptRounds(tl, number+1) {
			assert.Equal(t, i+1, rows[0].Round, "rounds are numbered 1, 2, 3 with none missing")
			if rows[len(rows)-1].Dur < 0 {
				continue // the sheet breaks off in it
			}
			whole(t, passage, rows)
			sidesAlike(t, passage, rows)
			if passage.Practice.ID == "nadi-shodhana" {
				balanced(t, passage, rows)
			}
		}
	}
}

// beside reports what holds of the lane: the same times, never a hold, and where the sides alternate left and right in
// whole pairs.
func beside(t *rapid.T, p *plan.Plan, tl pace.Timeline) {
	lane := tl.Lane(p)
	assert.Len(t, lane.Rows, len(tl.Rows))
	for i, row := range lane.Rows {
		main := tl.Rows[i]
		assert.Equal(
			t,
			[]any{main.At, main.Dur, main.Stage, main.Round, main.Kept},
			[]any{row.At, row.Dur, row.Stage, row.Round, row.Kept},
		)
		assert.Empty(t, row.Say)
		if !row.Beside.None() && row.Stage != pace.Pause {
			assert.False(t, row.Phase.Held(), "never a hold")
		}
	}
	for number := range p.Passages {
		if passage := &p.Passages[number]; passage.Type != plan.Practice || !passage.Practice.Alternates() {
			continue
		}
		for _, rows := range keptRounds(lane, number+1) {
			if rows[len(rows)-1].Dur < 0 || !shorterThroughout(rows) || cutShort(rows) {
				continue
			}
			ways := map[breath.Through]int{}
			for _, row := range rows {
				if row.Phase == breath.Inhale {
					ways[row.Through]++
				}
			}
			assert.Equal(t, ways[breath.Left], ways[breath.Right])
		}
	}
}

func shorterThroughout(rows []pace.Row) bool {
	return !slices.ContainsFunc(rows, func(r pace.Row) bool { return r.Beside != rows[0].Beside || !r.Beside.Shorter() })
}

// cutShort reports whether a breath of the lane fell away: then what was pressed has made the round shorter.
func cutShort(rows []pace.Row) bool {
	for i, row := range rows[1:] {
		if before := rows[i]; before.Phase != breath.Free && row.Phase == breath.Free &&
			!(before.Phase == breath.Exhale && before.Count == before.Of) {
			return true
		}
	}
	last := rows[len(rows)-1]
	return last.Phase == breath.Inhale || last.Phase == breath.Exhale && last.Count < last.Of
}

// keptRounds returns the rows of each kept round of a passage, without one in which an open sheet breaks off.
func keptRounds(tl pace.Timeline, passage int) [][]pace.Row {
	var rounds [][]pace.Row
	for _, row := range tl.Rows {
		if row.Passage != passage || row.Stage != pace.Round || !row.Kept {
			continue
		}
		if row.Starts {
			rounds = append(rounds, nil)
		}
		rounds[len(rounds)-1] = append(rounds[len(rounds)-1], row)
	}
	return rounds
}

// whole tells that in a kept round nothing but holds is shorter than was printed, strokes aside, and the breath after
// them that a pause cut: it began anew, or was left out.
func whole(t *rapid.T, p *plan.Passage, rows []pace.Row) {
	for i, row := range rows {
		if p.CountsStrokes() && (i+1 == len(rows) || rows[i+1].At != row.End()) {
			continue
		}
		last := i+1 == len(rows) || !rows[i+1].Follows(&row)
		if last && !row.Phase.Held() && row.Phase != breath.Stroke {
			assert.Equal(t, row.Of, row.Count, "a kept round is whole")
		}
	}
}

// sidesAlike tells that both sides of the body are breathed alike in a kept round, but for the words and what holds
// were cut short (docs/rules/figures.md section 3).
func sidesAlike(t *rapid.T, p *plan.Passage, rows []pace.Row) {
	if len(p.Sides) < 2 || p.Practice.Change == 0 {
		return
	}
	var sides [2][]string
	side := 0
	for _, row := range rows {
		switch {
		case row.Phase == breath.Free:
			side++
		case !row.Phase.Held():
			sides[side] = append(sides[side], fmt.Sprint(row.Phase, row.Count, row.Of > 0))
		}
	}
	assert.Equal(t, 1, side, "one change of sides")
	assert.Equal(t, len(sides[0]) > 0, len(sides[1]) > 0)
	if !slices.ContainsFunc(rows, func(r pace.Row) bool { return r.Open }) {
		assert.Equal(t, sides[0], sides[1])
	}
}

func balanced(t *rapid.T, p *plan.Passage, rows []pace.Row) {
	ways := map[string]int{}
	for i, row := range rows {
		starts := i == 0 || rows[i-1].Phase != row.Phase
		if starts {
			ways[string(row.Phase)+" "+string(row.Through)]++
		}
	}
	assert.Equal(t, 1, ways["inhale left"])
	assert.Equal(t, 1, ways["inhale right"])
	assert.Equal(t, 1, ways["exhale left"])
	assert.Equal(t, 1, ways["exhale right"])
	exhale := slices.IndexFunc(rows, func(r pace.Row) bool { return r.Breath == 2 && r.Phase == breath.Exhale })
	assert.Equal(t, p.Side, rows[exhale].Through, "it ends on the side that it started on")
}

func pastStays(t *rapid.T, before, after pace.Timeline, at int64) {
	for i, row := range before.Rows {
		if row.Dur < 0 || row.End() > at {
			break
		}
		assert.Equal(t, inPast(row), inPast(after.Rows[i]), "the past never changes")
	}
}

// inPast returns what stays of a row: a round is known to be abandoned only when it is, and what could be pressed is
// over.
func inPast(r pace.Row) string {
	return fmt.Sprint(
		r.At,
		r.Dur,
		r.Passage,
		r.Practice,
		r.Stage,
		r.Round,
		r.Breath,
		r.Phase,
		r.Through,
		r.Count,
		r.Of,
		r.Part,
		r.Say,
		r.Starts,
		r.Open,
	)
}

func holdGrowsNot(t *rapid.T, before, after pace.Timeline, at int64) {
	if was, is := holdEnd(before, at), holdEnd(after, at); was >= 0 && is >= 0 {
		assert.LessOrEqual(t, is, was, "no hold in progress is made longer")
	}
}

// holdEnd returns where the hold in progress at t ends, -1 if there is none.
func holdEnd(tl pace.Timeline, t int64) int64 {
	for i, row := range tl.Rows {
		if !row.Phase.Held() || row.At > t || row.End() <= t {
			continue
		}
		end := row.End()
		for _, next := range tl.Rows[i+1:] {
			if next.Phase != row.Phase || next.Breath != row.Breath || next.Round != row.Round {
				break
			}
			end = next.End()
		}
		return end
	}
	return -1
}
