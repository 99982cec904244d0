package plan

import (
	"slices"
	"strconv"
	"unicode/utf8"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
)

// Who is whom a line is for.
type Who string

// The three (cues.md).
const (
	ForTeacher Who = "teacher"
	ForRoom    Who = "room"
	ForAll     Who = "all"
)

// Line is something of the teacher's own to say at a place of a passage (cues.md section 3).
type Line struct {
	Text        string
	Stage       string
	First, Last int            // rounds, 0 for every one
	LastRound   bool           // only the last round by the total in force; in a rest the one before it
	Breath      int            // 0 for every one
	Phase       breath.Phase   // empty for all of the place
	Through     breath.Through // empty for all of the place
	Part        string         // a zone, a movement or a width; empty for all of the place
	Second      breath.Exact   // from the first row of the stage; less than 0 for none
	Every       breath.Exact   // seconds after which it comes again; 0 if it comes once
	Ahead       breath.Exact   // seconds before its place begins
	Who         Who
	Say         bool
}

// The bounds of lines.
const (
	mostLines   = 100
	longestLine = 500 // characters
)

// DefaultAhead returns how many seconds before its place a line begins that does not say: the teacher reads it first,
// the room is to see it when it holds (cues.md section 5).
func DefaultAhead(who Who) breath.Exact {
	if who == ForTeacher {
		return breath.Int(2)
	}
	return breath.Int(0)
}

var (
	lineStages = []string{"round", "talk", "free", "setup", "opening", "rest", "own", "recall", "closing"}
	linePhases = slices.DeleteFunc(slices.Clone(breath.Phases), func(p breath.Phase) bool { return p == breath.Talk })
	lineSides  = []breath.Through{breath.Left, breath.Right, breath.Both, breath.Mouth}
	lineParts  = []string{"belly", "ribs", "chest", "forward", "side", "up", "wide", "narrow"}
)

// UsualStage returns where a line of the passage stands that does not say.
func (p *Passage) UsualStage() string {
	switch {
	case p.Type != Practice:
		return string(p.Type)
	case p.OwnPace:
		return "own"
	}
	return "round"
}

func (p *Passage) readLines(o reader) {
	entries := o.objects("lines")
	if len(entries) > mostLines {
		*o.errs = append(
			*o.errs,
			FieldError{
				Passage: o.passage,
				Name:    o.name,
				Field:   o.prefix + "lines",
				Given:   strconv.Itoa(len(entries)),
				Allowed: fact.New("allowed.up-to", "most", mostLines),
			},
		)
		return
	}
	for _, entry := range entries {
		p.Lines = append(p.Lines, p.readLine(entry))
	}
	for _, prompt := range p.Prompts { // the older form
		line := Line{
			Text:   prompt.Text,
			Stage:  p.UsualStage(),
			Second: prompt.Second,
			Ahead:  DefaultAhead(ForTeacher),
			Who:    ForTeacher,
		}
		switch {
		case prompt.Round > 0:
			line.Stage, line.First, line.Last = "round", prompt.Round, prompt.Round
		case prompt.Rest > 0:
			line.Stage, line.First, line.Last = "rest", prompt.Rest, prompt.Rest
		}
		p.Lines = append(p.Lines, line)
	}
}

func (p *Passage) readLine(o reader) Line {
	line := Line{Stage: p.UsualStage(), Second: breath.Int(-1), Text: o.text("text")}
	if n := utf8.RuneCountInString(line.Text); n < 1 || n > longestLine {
		if _, isText := o.fields["text"].(string); isText || !o.has("text") {
			o.fail("text", "allowed.characters", "most", longestLine)
		}
	}
	if o.has("stage") {
		line.Stage = choice(o, "stage", lineStages...)
	}
	line.LastRound = o.fields["round"] == "last"
	if !line.LastRound {
		line.First, line.Last = o.rounds()
	}
	line.Breath = o.whole("breath", limits{low: 1, high: MaxRounds}, 0)
	if o.has("phase") {
		line.Phase = choice(o, "phase", linePhases...)
	}
	if o.has("through") {
		line.Through = choice(o, "through", lineSides...)
	}
	if o.has("part") {
		line.Part = choice(o, "part", lineParts...)
	}
	line.Second = o.number("second", limits{high: 7200}, breath.Int(-1))
	line.Every = o.number("every", limits{low: 10, high: 600}, breath.Exact{})
	line.Who = choice(o, "who", ForTeacher, ForRoom, ForAll)
	line.Ahead = o.number("ahead", limits{high: 10}, DefaultAhead(line.Who))
	line.Say = o.flag("say")
	allowed := func(field, message string, stages ...string) {
		if !o.has(field) {
			return
		}
		for _, stage := range stages {
			if line.Stage == stage {
				return
			}
		}
		o.fail(field, message)
	}
	allowed("round", "allowed.stage-round-rest", "round", "rest")
	allowed("breath", "allowed.stage-breaths", "round", "opening", "closing")
	allowed("through", "allowed.stage-breaths", "round", "opening", "closing")
	allowed("part", "allowed.stage-breaths", "round", "opening", "closing")
	allowed("second", "allowed.stage-second", "talk", "free", "round", "own")
	if o.has("every") && !o.has("second") {
		o.fail("every", "allowed.with-second")
	}
	if o.has("second") {
		for _, field := range []string{"round", "breath", "phase", "through", "part"} {
			if o.has(field) {
				o.fail(field, "allowed.not-with-second")
			}
		}
	}
	return line
}

const roundsOfLine = "allowed.line-rounds"

// rounds reads one round, or the first and the last of several; 0 for every one.
func (o reader) rounds() (first, last int) {
	switch value := o.fields["round"].(type) {
	case nil:
		if o.has("round") {
			o.fail("round", roundsOfLine)
		}
		return 0, 0
	case []any:
		if terms, ok := wholes(value); ok && len(terms) == 2 && 1 <= terms[0] && terms[0] <= terms[1] &&
			terms[1] <= MaxRounds {
			return terms[0], terms[1]
		}
		o.fail("round", "allowed.line-span", "most", MaxRounds)
		return 0, 0
	}
	if _, isText := o.fields["round"].(string); isText {
		o.fail("round", roundsOfLine)
		return 0, 0
	}
	n := o.whole("round", roundsLimits, 0)
	return n, n
}
