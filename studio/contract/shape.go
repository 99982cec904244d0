package contract

import (
	"cmp"
	"encoding/json"
	"errors"
	"math"
	"slices"
	"strings"
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/care"
	"vastlantern/core/cue"
	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/words"
)

// Millis returns a time as screens have it.
func Millis(t time.Time) float64 { return float64(t.UnixMicro()) / 1000 }

// Moment returns a time that may not be set: nil if it is not.
func Moment(t time.Time) *float64 {
	if t.IsZero() {
		return nil
	}
	ms := Millis(t)
	return &ms
}

// OrEmpty returns the map, which no screen gets as null.
func OrEmpty[K comparable, V any](m map[K]V) map[K]V {
	if m == nil {
		return map[K]V{}
	}
	return m
}

// GroupsByName returns the groups by their names, in the order of a language.
func GroupsByName(groups map[int64]*Group, order func(a, b string) int) []Group {
	list := []Group{}
	for _, g := range groups {
		list = append(list, *g)
	}
	slices.SortFunc(list, func(a, b Group) int { return cmp.Or(order(a.Name, b.Name), cmp.Compare(a.ID, b.ID)) })
	return list
}

// FieldErrorsOf returns what is wrong in a plan.
func FieldErrorsOf(err error) []FieldError {
	var errs plan.Errors
	fields := []FieldError{}
	if errors.As(err, &errs) {
		for _, e := range errs {
			fields = append(
				fields,
				FieldError{Passage: e.Passage, Field: e.Field, Given: e.Given, Allowed: e.Allowed, Say: e.Tell()},
			)
		}
	}
	return fields
}

// CautionsOf returns the cautions of a passage.
func CautionsOf(p *plan.Passage) []Caution {
	list := []Caution{}
	for _, c := range care.Of(p) {
		list = append(list, Caution{c.ID, c.Say, c.Strong})
	}
	return list
}

// FindingsOf returns what care asks of a passage for these people.
func FindingsOf(p *plan.Passage, who care.Room) []Finding {
	list := []Finding{}
	for _, f := range care.For(p, who) {
		list = append(list, Finding{Do: f.Do, Say: f.Say, Instead: f.Instead.Pointer()})
	}
	return list
}

// StepsOf returns the steps of an opening or a closing.
func StepsOf(steps []plan.Step) []fact.Fact {
	list := []fact.Fact{}
	for _, step := range steps {
		list = append(list, stepOf(step))
	}
	return list
}

func stepOf(step plan.Step) fact.Fact {
	if step.Breaths > 0 {
		return fact.New("step.breaths", "breaths", step.Breaths, "counts", step.Counts)
	}
	seconds := step.Length.Div(breath.Int(1000))
	if step.Text != "" {
		return fact.New("step.text", "seconds", seconds, "text", step.Text)
	}
	return fact.New("step.natural", "seconds", seconds)
}

// AdjustOf returns an adjustment as a screen sends it, without its key.
func AdjustOf(a pace.Adjustment) (Adjust, error) {
	of := Adjust{Do: a.Do}
	text, err := json.Marshal(a.Values())
	if err != nil {
		return of, err
	}
	return of, json.Unmarshal(text, &of)
}

// AnswerOf returns the answer to an adjustment.
func AnswerOf(a pace.Answer) Answer {
	return Answer{
		AtMS:    a.At,
		Do:      a.Do,
		Refused: a.Refused.Pointer(),
		Did:     a.Did(),
		When:    a.When,
		Before:  InForceOf(a.Before),
		After:   InForceOf(a.After),
		Undone:  a.Undone, LateMS: a.Late, Text: a.Text, See: a.See,
	}
}

// InForceOf returns what is in force in a passage.
func InForceOf(p pace.Passage) InForce {
	return InForce{
		Tempo: p.Tempo.Float(), Rounds: p.Total, Counts: p.Counts.String(),
		Four:    [4]int{p.Counts.Inhale, p.Counts.Hold, p.Counts.Exhale, p.Counts.Empty},
		Strokes: p.Strokes, Beside: p.Beside.String(), ByHand: append([]breath.Phase{}, p.ByHand.Phases()...),
	}
}

// PhasesOf gathers the rows of a plan's class into phases.
func PhasesOf(rows []pace.Row, p *plan.Plan) []ScorePhase {
	phases := 0
	for i := range rows {
		if i == 0 || !rows[i].Follows(&rows[i-1]) {
			phases++
		}
	}
	list := make([]ScorePhase, 0, phases)
	met := map[pace.VerbSet][]pace.Verb{} // most rows are met by the same
	at, says, shows := make([]int64, len(rows)), make([]string, len(rows)), make([]string, len(rows))
	var fingers cue.Fingers
	for first := 0; first < len(rows); {
		end := first + 1
		for end < len(rows) && rows[end].Follows(&rows[end-1]) {
			end++
		}
		for i := first; i < end; i++ {
			at[i], says[i], shows[i] = rows[i].At, rows[i].Say, cue.Large(&rows[i], p)
		}
		row, last := &rows[first], &rows[end-1] // what was adjusted within the phase: the newest holds
		fingers = cue.FingersIn(row, fingers, p)
		word, side, _ := cue.Words(row, p)
		list = append(list, ScorePhase{
			Passage: row.Passage, Practice: row.Practice, Stage: row.Stage, Round: row.Round, Breath: row.Breath,
			Kind:    row.Phase,
			Through: row.Through,
			First:   row.Count,
			Starts:  row.Starts,
			Open:    row.Open,
			Word:    word,
			Side:    side,
			Fingers: fingers,
			AtMS:    at[first:end:end],
			Says:    says[first:end:end],
			Shows:   shows[first:end:end],
			Parts:   partsOf(rows[first:end], p),
			Of:      last.Of, Kept: last.Kept, EndMS: last.End(), Verbs: verbs(last.Verbs, met),
		})
		first = end
	}
	return list
}

// partsOf returns the parts of a phase's counts, as they are said.
func partsOf(rows []pace.Row, p *plan.Plan) (parts []string) {
	part := ""
	for i := range rows {
		if i == 0 || rows[i].Part != rows[i-1].Part {
			_, _, part = cue.Words(&rows[i], p)
		}
		if part != "" {
			parts = append(parts, part)
		}
	}
	return parts
}

// LaneSpokenOf returns what one voice for the whole room can say to those on the gentler lane: when a breath of theirs
// starts while the others do something else.
func LaneSpokenOf(main, lane []ScorePhase, w *words.Words) []Spoken {
	list := []Spoken{}
	k := 0
	for _, ph := range lane {
		for k+1 < len(main) && main[k+1].AtMS[0] <= ph.AtMS[0] {
			k++
		}
		breathes := ph.Kind.Moves()
		if ph.Stage != pace.Round || !breathes || main[k].Kind == ph.Kind && main[k].AtMS[0] == ph.AtMS[0] {
			continue
		}
		list = append(list, Spoken{AtMS: ph.AtMS[0], Who: plan.ForAll, Text: w.Text(words.Others) + ", " + ph.Word})
	}
	return list
}

// CuesOf returns those cues of a class that are there at some time from at on.
func CuesOf(class *cue.Class, at int64, kinds ...cue.Kind) []Cue {
	list := make([]Cue, 0, class.Len())
	for c := range class.All() {
		if (c.Until == cue.Open || c.Until > at) && (len(kinds) == 0 || slices.Contains(kinds, c.Kind)) {
			list = append(
				list,
				Cue{
					AtMS: c.At, UntilMS: c.Until, Passage: c.Passage, Kind: c.Kind, Who: c.Who, Text: c.Text,
					Bare: unless(c.Bare, c.Text), Fingers: c.Fingers,
				},
			)
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

// OffersOf returns the fields that a passage can be given.
func OffersOf(p *plan.Passage) []Offer {
	list := []Offer{}
	for _, o := range p.Offers() {
		list = append(list, Offer{o.Field, o.About, append([]string{}, o.Choices...), o.Flag, o.Text, o.Unit, o.Default})
	}
	return list
}

// RolesOf returns the counts of a passage that can be chosen.
func RolesOf(p *plan.Passage) []Role {
	list := []Role{}
	for _, r := range p.Roles() {
		list = append(list, Role{r.Phase, r.Counts})
	}
	return list
}

// LanesOf returns what could run beside a passage at a measure, at most at so many breaths a minute.
func LanesOf(p *plan.Passage, m plan.Measure, limit int) []LaneOffer {
	list := []LaneOffer{}
	for _, o := range p.LaneOffers(m, limit) {
		says := o.Beside.Name()
		if o.Beside.Shorter() {
			says = fact.New("lane-offer", "lane", says, "tempo", math.Round(o.PerMinute.Float()*10)/10, "left", o.Left)
		}
		list = append(list, LaneOffer{o.Beside.String(), says})
	}
	return list
}

// BesideOf returns what those do who take the gentler lane; null if there is none.
func BesideOf(b plan.Beside) *fact.Fact {
	if b.None() {
		return nil
	}
	name := b.Name()
	return &name
}

// LaneNamesOf returns what the lanes of a passage are called where b is beside it.
func LaneNamesOf(w *words.Words, p *plan.Passage, b plan.Beside) LaneNames {
	switch {
	case b.Breathe:
		return LaneNames{Main: strings.TrimSpace(w.Text(words.WithHolds) + " " + p.Pattern()), Beside: w.Text(words.Through)}
	case b.Shorter():
		return LaneNames{Main: cmp.Or(p.Pattern(), p.Name()), Beside: w.Text(words.Shorter) + " " + b.String()}
	}
	return LaneNames{}
}

// StrongOf returns the strong cautions of a plan, each once.
func StrongOf(p *plan.Plan) []StrongCaution {
	list := []StrongCaution{}
	for i := range p.Passages {
		name := p.Passages[i].Name()
		for _, c := range care.Of(&p.Passages[i]) {
			if !c.Strong {
				continue
			}
			at := slices.IndexFunc(list, func(s StrongCaution) bool { return s.ID == c.ID })
			if at < 0 {
				list, at = append(list, StrongCaution{ID: c.ID, Say: c.Say, Passages: []string{}}), len(list)
			}
			if !slices.Contains(list[at].Passages, name) {
				list[at].Passages = append(list[at].Passages, name)
			}
		}
	}
	return list
}

// StrongCautions returns the texts that must be acknowledged before the plan is led.
func StrongCautions(p Plan) []string {
	texts := []string{}
	for _, c := range p.Summary.Strong {
		texts = append(texts, c.ID)
	}
	return texts
}

// unless returns the text; empty if it is the other.
func unless(text, other string) string {
	if text == other {
		return ""
	}
	return text
}
