package cue

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/words"
)

// run is rows that are one thing to do: a phase, a zone of it, a lead-in, a rest.
type run struct {
	*pace.Row // the first of them
	end       int64
	rows      int    // without a word's own beat
	text      string // what is done, in words
}

// runsOf gathers rows into runs (cues.md section 2, now).
func (f *fold) runsOf(rows []pace.Row) []run {
	runs := make([]run, 0, len(rows)/3)
	for i := range rows {
		row := &rows[i]
		if i == 0 || begins(&rows[i-1], row) {
			runs = append(runs, run{Row: row, text: f.words(row)})
		}
		last := &runs[len(runs)-1]
		last.end = row.At + max(row.Dur, 0)
		if row.Count > 0 {
			last.rows++
		}
	}
	return runs
}

// begins reports whether a row is the first of a run.
func begins(before, row *pace.Row) bool {
	alone := row.Phase == breath.Free && row.Breath == 0 &&
		row.Stage != pace.Round // each free step, pause, piece of own pace
	return alone || row.Starts || row.Passage != before.Passage || row.Stage != before.Stage ||
		row.Round != before.Round || row.Breath != before.Breath ||
		row.Phase != before.Phase || row.Through != before.Through || row.Part != before.Part ||
		row.Kept != before.Kept ||
		row.Count <= before.Count && row.Phase != breath.Free
}

// nowAndNext returns what is done from now on, and over the same time what follows it.
func (f *fold) nowAndNext(runs []run) []Cue {
	first := slices.IndexFunc(runs, func(r run) bool { return r.end > f.from })
	if first < 0 {
		return nil
	}
	ahead := len(runs) - first
	list := make([]Cue, 0, 2*ahead+ahead/4) // the others are few
	for i := first; i < len(runs); i++ {
		r := &runs[i]
		now := Cue{
			At:      r.At,
			Until:   r.end,
			Passage: r.Passage,
			Stage:   r.Stage,
			Round:   r.Round,
			Who:     plan.ForAll,
			Kind:    Now,
			Text:    r.text,
			key:     r.At,
		}
		next := now
		next.Kind = Next
		next.Text, next.Bare = f.following(runs, i)
		list = append(list, now, next)
	}
	return list
}

// following returns what comes after the run, in words, and the same without its counts or its length.
func (f *fold) following(runs []run, i int) (text, bare string) {
	here := runs[i].Passage
	i++
	for i < len(runs) && runs[i].Phase == breath.Still {
		i++
	}
	if i == len(runs) {
		text = f.plan.Words.Text(words.EndOfClass)
		return text, text
	}
	if runs[i].Passage == here {
		return f.measured(runs[i]), runs[i].text
	}
	passage := runs[i].Passage
	name := f.plan.Passages[passage-1].Name()
	for i < len(runs) && runs[i].Passage == passage && passedOver(runs[i]) {
		i++
	}
	switch {
	case i == len(runs) || runs[i].Passage != passage:
		return name, name
	case runs[i].Stage == pace.Talk || runs[i].Stage == pace.Free:
		return withTime(name, runs[i]), name
	}
	return name + ": " + f.measured(runs[i]), name + ": " + runs[i].text
}

// passedOver reports what is not named of another passage: beat, lead-in and free steps.
func passedOver(r run) bool {
	return r.Stage == pace.Setup ||
		(r.Stage == pace.Opening || r.Stage == pace.Closing) && r.Phase == breath.Free && r.Breath == 0
}

// measured returns what is done in a run, with its counts or its length.
func (f *fold) measured(r run) string {
	if !r.Phase.Counted() {
		return withTime(r.text, r)
	}
	if r.Open { // it lasts as long as it takes
		return r.text
	}
	return r.text + ", " + strconv.Itoa(r.rows)
}

// withTime returns a text and the planned length of a run, where it has one.
func withTime(text string, r run) string {
	if length := clock(r); length != "" {
		return text + ", " + length
	}
	return text
}

// clock returns the planned length of a run in minutes and seconds; nothing where it has none.
func clock(r run) string {
	seconds := (r.end - r.At + 500) / 1000
	if seconds <= 0 || r.end >= far && r.At < far {
		return ""
	}
	return fmt.Sprintf("%d:%02d", seconds/60, seconds%60)
}

// words returns what is done in a row, with all that it needs: the side, the width, the zone, through the mouth.
func (f *fold) words(r *pace.Row) string {
	word, side, part := Words(r, f.plan)
	if side != "" {
		word += " " + side
	}
	if part != "" {
		word += ", " + part
	}
	return word
}

// Words returns what is done in a row: the word, the side as it is said or through the mouth, and the zone, the
// movement, the width or where attention goes. What there is not is empty.
func Words(r *pace.Row, of *plan.Plan) (word, side, part string) {
	w, p := of.Words, &of.Passages[r.Passage-1]
	switch r.Stage {
	case pace.Talk:
		return p.Name(), "", ""
	case pace.Rest:
		return w.Text(words.Resting), "", ""
	case pace.Own:
		return w.Text(words.OwnPace), "", ""
	case pace.Recall:
		return w.Text(words.Finish), "", ""
	}
	if r.Phase == breath.Free {
		return cmp.Or(r.Text, w.Text(words.Natural)), "", ""
	}
	word, side = w.Text(string(r.Phase)), w.Side(r.Through)
	if own := p.Practice.Words[string(r.Phase)]; own != "" && r.Stage == pace.Round {
		word = w.Own(own)
		if r.Through == breath.Mouth { // its own word says how
			side = ""
		}
	}
	switch {
	case r.Part != "":
		part = w.Own(r.Part)
	case r.Stage == pace.Round && r.Phase == breath.Inhale && p.Practice.TakesField("attention"):
		part = w.Text(words.Attention + p.Attention)
	}
	return word, side, part
}

// Large returns what is large for the count of a row: what is said, so that counting down is shown counting down and
// syllables as syllables; and the number where the voice is silent. Nothing for a word's own beat, and for what is not
// counted.
func Large(r *pace.Row, p *plan.Plan) string {
	passage := &p.Passages[r.Passage-1]
	switch {
	case r.Count == 0 || r.Open || !r.Phase.Counted():
		return ""
	case r.Phase == breath.Beat || r.Phase == breath.Lead || r.Phase == breath.Stroke:
	case passage.Voice == plan.Syllables:
		return passage.Syllables[(r.Count-1)%len(passage.Syllables)]
	case passage.Voice == plan.UpDown && r.Phase == breath.Exhale:
		return strconv.Itoa(r.Of + 1 - r.Count)
	}
	return strconv.Itoa(r.Count)
}
