package plan

import (
	"encoding/json"
	"fmt"
	"regexp"
	"strconv"
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/practice"
)

// Format and Version are what a plan file says of itself.
const (
	Format  = "vast-lantern-plan"
	Version = 1
)

// The bounds of a whole class: the first two are those of formats.md. The third keeps what is computed of a class
// small: its rows are the counts of its cue sheet, and twelve hours of them at the fastest tempo would take gigabytes.
const (
	MaxPassages = 200
	MaxHours    = 12
	MaxRows     = 100_000
)

// InCalendar reports whether a time is one that can be stored and read again, in any zone: forms of dates with four
// digits for the year end with 9999, in UTC too, and nobody plans a class for then.
func InCalendar(at time.Time) bool {
	year := at.UTC().Year()
	return 1970 <= year && year <= 2200
}

const (
	DefaultTempo      = 50
	DefaultTalk       = 60 // seconds
	naturalBreath     = 6  // seconds: how long one breath of a free passage is planned
	defaultLeadIn     = 4
	leastRecall       = 15 // seconds, where the plan says nothing
	defaultOwnMinutes = 2
)

var (
	tempoLimits   = limits{low: breath.SlowestTempo, high: breath.FastestTempo}
	slotLimits    = limits{high: 24 * 60, above: true}
	secondsLimits = limits{low: 1, high: 7200}
	breathsLimits = limits{low: 1, high: 200}
	roundsLimits  = limits{low: 1, high: MaxRounds}
	minutesLimits = limits{high: 180, above: true}
	rateLimits    = limits{low: breath.SlowestRate, high: breath.FastestRate}
	strokesLimits = limits{low: 1, high: MaxStrokes}
	openLimits    = limits{low: 1, high: 120}
)

// The bounds of a passage, planned or led.
const (
	MaxRounds  = 999
	MaxStrokes = 500 // a round
)

// Read takes a plan as its file has it and fills in the defaults. The error, if any, is an Errors with everything
// that is wrong; the plan that comes with it has defaults in the place of what is wrong, and must not be led.
func Read(d Document) (*Plan, error) { return ReadWith(d) }

// ReadWith is Read with practices that the document need not carry.
func ReadWith(d Document, more ...*practice.Practice) (*Plan, error) {
	var errs Errors
	doc := d.fields
	o := reader{fields: doc, errs: &errs}
	if doc["format"] != Format {
		o.fail("format", "allowed.exactly", "text", strconv.Quote(Format))
	}
	if v, ok := doc["version"].(json.Number); !ok || !sameNumber(v, Version) {
		o.fail("version", "allowed.exactly", "text", strconv.Itoa(Version))
	}
	p := &Plan{
		Title:  o.text("title"),
		Intent: o.text("intent"),
		Slot:   o.number("slot_min", slotLimits, breath.Exact{}),
		Tempo:  o.number("tempo", tempoLimits, breath.Int(DefaultTempo)),
	}
	if at := o.text("starts_at"); at != "" {
		var err error
		if p.StartsAt, err = time.Parse(time.RFC3339, at); err != nil {
			o.fail("starts_at", "allowed.date-time")
		} else if !InCalendar(p.StartsAt) {
			p.StartsAt = time.Time{}
			o.fail("starts_at", "allowed.calendar")
		}
	} else if _, isText := doc["starts_at"].(string); isText {
		o.fail("starts_at", "allowed.date-time")
	}
	p.Words = o.words()
	p.Numbers = o.screen()
	p.Fingers = o.fingers()
	if o.has("check_in") {
		p.CheckIn = choice(o, "check_in", CheckIns...)
	}
	if o.has("chin") {
		p.Chin = choice(o, "chin", ChinWays...)
	}
	book := append(o.ownPractices(), more...)
	list, ok := doc["passages"].([]any)
	if !ok {
		o.fail("passages", "allowed.passages")
	}
	if len(list) > MaxPassages {
		errs = append(
			errs,
			FieldError{
				Field:   "passages",
				Given:   fmt.Sprint(len(list)),
				Allowed: fact.New("allowed.up-to", "most", MaxPassages),
			},
		)
		return p, errs // none of them is read: so many errors help nobody
	}
	for i, entry := range list {
		fields, ok := entry.(map[string]any)
		if !ok {
			errs = append(
				errs,
				FieldError{Passage: i + 1, Field: "passage", Given: shown(entry), Allowed: fact.New("allowed.object")},
			)
			p.Passages = append(p.Passages, Passage{Type: Talk}) // the others keep their numbers
			continue
		}
		one := readPassage(fields, i+1, p.Tempo, book, &errs)
		if fields["numbers"] == nil {
			one.Numbers = p.Numbers
		}
		p.Passages = append(p.Passages, one)
	}
	if tooLong := p.tooLong(); len(tooLong) > 0 {
		errs = append(errs, tooLong...)
		p.Passages = nil // nothing is computed of them, not even a preview
	}
	if len(errs) > 0 {
		return p, errs
	}
	return p, nil
}

// tooLong returns what of the plan is beyond the bounds of a whole class, also where other things are wrong.
func (p *Plan) tooLong() (errs Errors) {
	if longest := breath.Int(MaxHours * 3600_000); longest.Less(p.Length()) {
		errs = append(errs, FieldError{
			Field: "passages", Total: fact.New("given.minutes-in-all", "minutes", p.Length().Div(breath.Int(60_000))),
			Allowed: fact.New("allowed.hours", "most", MaxHours),
		})
	}
	if rows := p.Rows(); rows > MaxRows {
		errs = append(errs, FieldError{
			Field:   "passages",
			Total:   fact.New("given.counts-in-all", "counts", rows),
			Allowed: fact.New("allowed.rows", "most", MaxRows),
		})
	}
	if shown := p.LinesShown(); shown > MaxShown {
		errs = append(errs, FieldError{
			Field:   "lines",
			Total:   fact.New("given.words-in-all", "times", shown),
			Allowed: fact.New("allowed.shown", "most", MaxShown),
		})
	}
	return errs
}

func sameNumber(given json.Number, n int64) bool {
	x, err := breath.ParseExact(given.String())
	return err == nil && x.Equal(breath.Int(n))
}

func readPassage(doc object, number int, planTempo breath.Exact, own book, errs *Errors) Passage {
	o := reader{fields: doc, passage: number, errs: errs}
	for _, field := range []string{"title", "practice", "type"} {
		if text, ok := doc[field].(string); ok && text != "" {
			o.name = text
			break
		}
	}
	p := Passage{
		Title: o.text("title"), Script: o.text("script"), Keep: o.flag("keep"), Remark: o.text("remark"),
		Check: choice(o, "check", CheckNothing, CheckWords, CheckName, CheckReading),
	}
	p.readFill(o)
	if !o.has("type") {
		o.fail("type", "allowed.type")
	} else {
		p.Type = choice(o, "type", Talk, Free, Practice)
	}
	if p.Type == Practice {
		id, _ := doc["practice"].(string)
		if p.Practice = own.find(id); p.Practice == nil {
			o.fail("practice", "allowed.one-of", "words", own.ids())
		}
		p.OwnPace = choice(o, "pace", "led", "own") == "own"
	}
	o.refuseMisplaced(&p)
	switch {
	case p.Type == Practice:
		if p.Practice == nil {
			p.Practice = unknownPractice // its other fields are checked all the same
		}
		p.readPractice(o, planTempo)
	case p.Type == Talk || p.Type == Free:
		p.readStretch(o)
	}
	p.readLines(o)
	return p
}

var clockOfDay = regexp.MustCompile(`^([01]?\d|2[0-3]):[0-5]\d$`)

// readFill reads until when the passage lasts.
func (p *Passage) readFill(o reader) {
	p.Fill = o.text("fill")
	if p.Fill != "" && p.Fill != FillToEnd && !clockOfDay.MatchString(p.Fill) {
		o.fail("fill", "allowed.fill")
		p.Fill = ""
	}
	p.FillLeast = seconds(o.number("fill_least", secondsLimits, breath.Exact{}))
}

// FillToEnd is the value of fill for a passage that lasts until the end of the slot.
const FillToEnd = "end"

// Of returns the passage of the practice with nothing given, at the tempo of a plan that gives none.
func Of(p *practice.Practice) Passage {
	passage, _ := One(NewFields(p.ID), p) // right for every practice that was read
	return passage
}

// One reads a passage by itself, at the tempo of a plan that gives none. The error is an Errors.
func One(f Fields, own ...*practice.Practice) (Passage, error) {
	return OneAt(breath.Int(DefaultTempo), f, own...)
}

// OneAt is One in a plan of that tempo, in counts a minute.
func OneAt(tempo breath.Exact, f Fields, own ...*practice.Practice) (Passage, error) {
	var errs Errors
	p := readPassage(f.values, 1, tempo, book(own), &errs)
	if len(errs) > 0 {
		return p, errs
	}
	return p, nil
}

// Course returns the passages that planning inserts for the practice.
func Course(p *practice.Practice) ([]Fields, error) {
	var course []Fields
	for _, values := range p.Course {
		f, err := FieldsOf(values)
		if err != nil {
			return nil, err
		}
		f.values["type"], f.values["practice"] = string(Practice), p.ID
		course = append(course, f)
	}
	return course, nil
}

// unknownPractice stands for one that is not in the catalogue.
var unknownPractice = &practice.Practice{
	Kind:   practice.Counted,
	Counts: "4:4",
	Rounds: 1,
	Airway: breath.ByNose,
	Figure: []practice.Step{
		{Phase: breath.Inhale, Counts: "a", Through: "airway"}, {Phase: breath.Exhale, Counts: "c", Through: "airway"},
	},
}

func seconds(x breath.Exact) breath.Exact { return x.Times(1000) }

func (p *Passage) readStretch(o reader) {
	p.Wait = o.flag("wait")
	p.Length = seconds(o.number("seconds", secondsLimits, breath.Int(DefaultTalk)))
	if p.Type != Free {
		return
	}
	breaths := o.whole("breaths", breathsLimits, 0)
	switch {
	case o.has("breaths") && o.has("seconds"):
		o.fail("breaths", "allowed.seconds-or-breaths")
	case o.has("breaths"):
		p.Length = seconds(breath.Int(naturalBreath)).Times(breaths)
	case !o.has("seconds"):
		o.fail("seconds", "allowed.free-has-length")
	}
}

func (p *Passage) readPractice(o reader, planTempo breath.Exact) {
	p.PlanTempo = planTempo
	for i := range fieldTable {
		if fieldTable[i].read != nil {
			fieldTable[i].read(p, o)
		}
	}
}

// usualLeadIn returns the counts of the lead-in where the plan says nothing.
func (p *Passage) usualLeadIn() int {
	if p.OwnPace {
		return 0
	}
	return defaultLeadIn
}

func readRestBreaths(p *Passage, o reader) {
	if breaths := o.whole("rest_breaths", limits{low: 1, high: 20}, 0); breaths > 0 {
		p.RestBetween = seconds(breath.Int(naturalBreath)).Times(breaths)
	}
	if o.has("rest_breaths") && o.has("rest_between") {
		o.fail("rest_breaths", "allowed.rest-or-breaths")
	}
}

func (p *Passage) readLength(o reader) {
	prac := p.Practice
	switch {
	case o.has("rounds") && o.has("minutes"):
		o.fail("rounds", "allowed.rounds-or-minutes")
	case p.OwnPace && o.has("rounds"):
		p.Rounds = o.whole("rounds", roundsLimits, 1)
	case p.OwnPace:
		p.Minutes = o.number("minutes", minutesLimits, breath.Int(defaultOwnMinutes))
	case o.has("minutes") || !o.has("rounds") && prac.Rounds == 0:
		p.Minutes = o.number("minutes", minutesLimits, breath.Int(int64(max(1, prac.Minutes))))
	default:
		p.Rounds = o.whole("rounds", roundsLimits, max(1, prac.Rounds))
	}
	if prac.FillsMinutes() {
		p.Rounds = 1
	}
}

// readMeasure reads what a round is breathed by, each kind its own. Opening and closing of the kinds without counts
// take 4:4.
func (p *Passage) readMeasure(o reader) {
	prac := p.Practice
	switch prac.Kind {
	case practice.Counted:
		planned, _ := breath.ParseCounts(prac.Counts) // checked when the catalogue was read
		p.Measure = Measure{Tempo: o.number("tempo", tempoLimits, p.PlanTempo), Counts: o.counts("counts", planned)}
		p.checkShares(o)
	case practice.Fixed:
		tempo := p.PlanTempo
		if prac.Tempo > 0 {
			tempo = breath.Int(int64(prac.Tempo))
		}
		p.Measure = Measure{Tempo: o.number("tempo", tempoLimits, tempo)}
	case practice.Strokes:
		rate := o.number("rate", rateLimits, breath.Int(int64(prac.Rate)))
		p.Measure = Measure{
			Tempo: rate, Strokes: o.whole("strokes", strokesLimits, prac.Strokes), Counts: o.after(prac.After),
		}
		if prac.FillsMinutes() {
			p.Measure.Strokes = max(1, StrokesWithin(p.Millis(), rate))
		}
	case practice.Open:
		p.Measure = Measure{Tempo: p.PlanTempo, Counts: breath.Counts{Inhale: 1, Hold: 1, Exhale: 1, Empty: 1}}
		p.Open = o.openSeconds(prac.Seconds)
	}
}

// after reads the counts of the breath after each round of strokes; "none" leaves it out.
func (o reader) after(usual string) (counts breath.Counts) {
	if text, there := o.fields["after"]; there {
		usual, _ = text.(string)
	}
	if usual == "none" || usual == "" && !o.has("after") {
		return counts
	}
	counts, err := breath.ParseCounts(usual)
	if err != nil {
		o.fail("after", "allowed.after")
	}
	return counts
}

// checkShares makes sure that three zones, or the steps of a phase, have counts to share.
func (p *Passage) checkShares(o reader) {
	switch least := p.LeastCounts(); {
	case min(p.Measure.Counts.Inhale, p.Measure.Counts.Exhale) >= least:
	case p.SharesZones():
		o.fail("counts", "allowed.zones", "least", least)
	default:
		o.fail("counts", "allowed.steps", "least", least)
	}
}

// LeastCounts returns the fewest counts that an inhale and an exhale of the passage need.
func (p *Passage) LeastCounts() int {
	if p.SharesZones() {
		return practice.LeastZoned
	}
	return p.Practice.MostSteps()
}

// bodySides are the sides of the body that a round is breathed on, by the value of the field sides.
var bodySides = map[string][]breath.Through{
	"right-left": {breath.Right, breath.Left},
	"left-right": {breath.Left, breath.Right},
	"right":      {breath.Right},
	"left":       {breath.Left},
	"none":       nil,
}

// readSides reads on which sides of the body a round is breathed, and how many breaths on each.
func (p *Passage) readSides(o reader) {
	if p.Practice.TakesField("sides") {
		p.Sides = bodySides[choice(o, "sides", "right-left", "left-right", "right", "left", "none")]
	}
	if p.Practice.TakesField("breaths") {
		p.Breaths = o.whole("breaths", breathsLimits, max(1, p.Practice.Breaths))
	}
}

// SharesZones reports whether the counts of the passage are shared out over the three zones.
func (p *Passage) SharesZones() bool { return p.Practice.TakesField("zone") && p.Zone == "all" }

func (p *Passage) readSteps(o reader, field string) []Step {
	var steps []Step
	for _, s := range o.objects(field) {
		step := Step{Text: s.text("text")}
		switch {
		case s.has("breaths") && s.has("seconds"):
			s.fail("breaths", "allowed.breaths-or-seconds")
		case s.has("breaths"):
			step.Breaths = s.whole("breaths", limits{low: 1, high: 20}, 1)
			step.Counts = s.counts("counts", p.stepCounts())
			step.Airway = s.airway(breath.ByNose)
		case s.has("seconds"):
			step.Length = seconds(s.number("seconds", limits{low: 1, high: 1800}, breath.Int(1)))
			for _, field := range []string{"counts", "airway"} {
				if s.has(field) {
					s.fail(field, "allowed.step-of-breaths")
				}
			}
		default:
			s.fail("breaths", "allowed.step-has-length")
		}
		steps = append(steps, step)
	}
	return steps
}

// stepCounts returns what a step of breaths has where it gives no counts: the passage's inhale and exhale, or 4:4.
func (p *Passage) stepCounts() breath.Counts {
	if p.TakesCounts() {
		return p.Measure.Counts.Flat()
	}
	return breath.Counts{Inhale: 4, Exhale: 4}
}

func (p *Passage) readVoice(o reader) {
	p.Voice = choice(o, "voice", Numbers, UpDown, Syllables, Words, HoldsOnly, HoldSyllables, Silent)
	p.UsualVoice = !o.has("voice")
	p.Fade = Fade{-1, -1}
	if value, there := o.fields["fade"]; there {
		fields, ok := value.(map[string]any)
		if !ok {
			o.fail("fade", "allowed.fade")
		}
		f := reader{fields, o.passage, o.name, "fade: ", o.errs}
		p.Fade.WordsAfter = f.whole("words_after", limits{high: MaxRounds}, -1)
		p.Fade.SilentAfter = f.whole("silent_after", limits{high: MaxRounds}, -1)
	}
	if value, there := o.fields["syllables"]; there {
		list, ok := value.([]any)
		for _, entry := range list {
			text, isText := entry.(string)
			ok = ok && isText && text != ""
			p.Syllables = append(p.Syllables, text)
		}
		if !ok || len(list) == 0 {
			o.fail("syllables", "allowed.syllables")
		}
	} else if p.Voice == Syllables || p.Voice == HoldSyllables {
		o.fail("syllables", "allowed.syllables-required")
	}
}

// usualRecall returns how long people are called back where the plan says nothing, in seconds: one round as it would be
// led, in whole seconds, and at least fifteen (pacing.md section 8).
func (p *Passage) usualRecall() breath.Exact {
	least := breath.Int(leastRecall)
	if !p.OwnPace || !p.TakesCounts() {
		return least
	}
	return breath.Max(least, breath.Int(-p.RoundSpan(p.Measure).Div(breath.Int(-1000)).Floor()))
}

// readChoices reads the counts that people choose from at own pace.
func (p *Passage) readChoices(o reader) {
	value, there := o.fields["choices"]
	if !there {
		return
	}
	list, _ := value.([]any)
	for _, one := range list {
		text, _ := one.(string)
		counts, err := breath.ParseCounts(text)
		if err != nil || min(counts.Inhale, counts.Exhale) < p.LeastCounts() {
			list = nil
			break
		}
		p.Choices = append(p.Choices, counts)
	}
	if len(list) < 2 || len(list) > 4 {
		p.Choices = nil
		o.fail("choices", "allowed.choices")
	}
}

func (p *Passage) readPrompts(o reader) {
	for _, entry := range o.objects("prompts") {
		prompt := Prompt{Round: -1, Rest: -1, Second: breath.Int(-1), Text: entry.text("text")}
		if !entry.has("text") {
			entry.fail("text", "allowed.prompt-text")
		}
		when := 0
		for _, field := range []string{"round", "rest", "second"} {
			if entry.has(field) {
				when++
			}
		}
		if when != 1 {
			entry.fail("round", "allowed.prompt-place")
			continue
		}
		prompt.Round = entry.whole("round", roundsLimits, -1)
		prompt.Rest = entry.whole("rest", roundsLimits, -1)
		prompt.Second = entry.number("second", limits{high: 10800}, breath.Int(-1))
		p.Prompts = append(p.Prompts, prompt)
	}
}
