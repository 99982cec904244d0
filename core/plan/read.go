package plan

import (
	"encoding/json"
	"fmt"
	"slices"
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/practice"
)

// Format and Version are what a plan file says of itself.
const (
	Format  = "vast-lantern-plan"
	Version = 1
)

// The bounds of a whole class: the first two are those of formats.md. The third keeps what is computed of a class small: its
// rows are the counts of its cue sheet, and twelve hours of them at the fastest tempo would take gigabytes.
const (
	MostPassages = 200
	MostHours    = 12
	MaxRows      = 100_000
)

// CalendarAllowed is which times a class, or anything that is stored, can have, in words.
const CalendarAllowed = "a time from 1970 to 2200"

// InCalendar tells whether a time is one that can be stored and read again, in any zone: forms of dates with four digits for
// the year end with 9999, in UTC too, and nobody plans a class for then.
func InCalendar(at time.Time) bool {
	year := at.UTC().Year()
	return 1970 <= year && year <= 2200
}

const (
	defaultTempo      = 50
	defaultTalk       = 60 // seconds
	naturalBreath     = 6  // seconds: how long one breath of a free passage is planned
	defaultLeadIn     = 4
	defaultRecall     = 15 // seconds
	defaultOwnMinutes = 2
)

var (
	tempoLimits   = limits{low: breath.SlowestTempo, high: breath.FastestTempo}
	slotLimits    = limits{high: 24 * 60, above: true}
	secondsLimits = limits{low: 1, high: 7200}
	breathsLimits = limits{low: 1, high: 200}
	roundsLimits  = limits{low: 1, high: MostRounds}
	minutesLimits = limits{high: 180, above: true}
	rateLimits    = limits{low: breath.SlowestRate, high: breath.FastestRate}
	strokesLimits = limits{low: 1, high: MostStrokes}
	openLimits    = limits{low: 1, high: 120}
)

// The bounds of a passage, planned or led.
const (
	MostRounds  = 999
	MostStrokes = 500 // a round
)

// Read takes a plan as its file has it and fills in the defaults. The error, if any, is an Errors with everything
// that is wrong; the plan that comes with it has defaults in the place of what is wrong, and must not be led.
func Read(d Document) (*Plan, error) { return readWith(d, nil) }

// readWith is Read with practices that the document need not carry.
func readWith(d Document, more book) (*Plan, error) {
	var errs Errors
	doc := d.fields
	o := reader{fields: doc, errs: &errs}
	if doc["format"] != Format {
		o.fail("format", fmt.Sprintf("%q", Format))
	}
	if v, ok := doc["version"].(json.Number); !ok || !sameNumber(v, Version) {
		o.fail("version", fmt.Sprint(Version))
	}
	p := &Plan{
		Title:  o.text("title"),
		Intent: o.text("intent"),
		Slot:   o.number("slot_min", slotLimits, breath.Exact{}),
		Tempo:  o.number("tempo", tempoLimits, breath.Int(defaultTempo)),
	}
	if at := o.text("starts_at"); at != "" {
		var err error
		if p.StartsAt, err = time.Parse(time.RFC3339, at); err != nil {
			o.fail("starts_at", "a date and time as 2026-03-02T18:30:00+01:00 (RFC 3339)")
		} else if !InCalendar(p.StartsAt) {
			p.StartsAt = time.Time{}
			o.fail("starts_at", CalendarAllowed)
		}
	} else if _, isText := doc["starts_at"].(string); isText {
		o.fail("starts_at", "a date and time as 2026-03-02T18:30:00+01:00 (RFC 3339)")
	}
	p.Words = o.words()
	book := append(o.ownPractices(), more...)
	list, ok := doc["passages"].([]any)
	if !ok {
		o.fail("passages", "a list of passages")
	}
	if len(list) > MostPassages {
		errs = append(errs, FieldError{Field: "passages", Given: fmt.Sprint(len(list)), Allowed: fmt.Sprintf("up to %d", MostPassages)})
		return p, errs // none of them is read: so many errors help nobody
	}
	for i, entry := range list {
		fields, ok := entry.(map[string]any)
		if !ok {
			errs = append(errs, FieldError{Passage: i + 1, Field: "passage", Given: shown(entry), Allowed: "an object"})
			p.Passages = append(p.Passages, Passage{Type: Talk}) // the others keep their numbers
			continue
		}
		p.Passages = append(p.Passages, readPassage(fields, i+1, p.Tempo, book, &errs))
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

// tooLong is what of the plan is beyond the bounds of a whole class, also where other things are wrong.
func (p *Plan) tooLong() (errs Errors) {
	if longest := breath.Int(MostHours * 3600_000); longest.Less(p.Length()) {
		errs = append(errs, FieldError{
			Field: "passages", Given: p.Length().Div(breath.Int(60_000)).String() + " minutes in all",
			Allowed: fmt.Sprintf("up to %d hours", MostHours),
		})
	}
	if rows := p.Rows(); rows > MaxRows {
		errs = append(errs, FieldError{
			Field: "passages", Given: fmt.Sprintf("%d counts in all", rows), Allowed: fmt.Sprintf("up to %d counts and strokes", MaxRows),
		})
	}
	if shown := p.LinesShown(); shown > MaxShown {
		errs = append(errs, FieldError{
			Field: "lines", Given: fmt.Sprintf("own words that come %d times in all", shown), Allowed: fmt.Sprintf("up to %d times", MaxShown),
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
	p := Passage{Title: o.text("title"), Script: o.text("script"), Keep: o.flag("keep")}
	if !o.has("type") {
		o.fail("type", "talk, free, practice")
	} else {
		p.Type = choice(o, "type", Talk, Free, Practice)
	}
	if p.Type == Practice {
		id, _ := doc["practice"].(string)
		if p.Practice = own.find(id); p.Practice == nil {
			o.fail("practice", own.ids())
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

// Of is the passage of the practice with nothing given, at the tempo of a plan that gives none.
func Of(p *practice.Practice) Passage {
	passage, _ := One(NewFields(p.ID), p) // right for every practice that was read
	return passage
}

// One reads a passage by itself, at the tempo of a plan that gives none. The error is an Errors.
func One(f Fields, own ...*practice.Practice) (Passage, error) {
	return OneAt(breath.Int(defaultTempo), f, own...)
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

// Course is the passages that planning inserts for the practice.
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
var unknownPractice = &practice.Practice{Kind: practice.Counted, Counts: "4:4", Rounds: 1, Airway: breath.ByNose, Figure: []practice.Step{
	{Phase: breath.Inhale, Counts: "a", Through: "airway"}, {Phase: breath.Exhale, Counts: "c", Through: "airway"},
}}

func seconds(x breath.Exact) breath.Exact { return x.Times(1000) }

func (p *Passage) readStretch(o reader) {
	p.Wait = o.flag("wait")
	p.Length = seconds(o.number("seconds", secondsLimits, breath.Int(defaultTalk)))
	if p.Type != Free {
		return
	}
	breaths := o.whole("breaths", breathsLimits, 0)
	switch {
	case o.has("breaths") && o.has("seconds"):
		o.fail("breaths", "either seconds or breaths, not both")
	case o.has("breaths"):
		p.Length = seconds(breath.Int(naturalBreath)).Times(breaths)
	case !o.has("seconds"):
		o.fail("seconds", "a free passage has seconds or breaths")
	}
}

func (p *Passage) readPractice(o reader, planTempo breath.Exact) {
	prac := p.Practice
	p.PlanTempo = planTempo
	p.Side = choice(o, "side", breath.Left, breath.Right)
	p.ExhaleFirst = choice(o, "entry", "inhale", "exhale") == "exhale"
	p.Airway = o.airway(prac.Airway)
	p.Attention = choice(o, "attention", "front", "sides", "back", "round")
	p.readLength(o)
	p.readMeasure(o)
	leadIn := defaultLeadIn
	if p.OwnPace {
		leadIn = 0
	}
	p.CountIn = o.whole("count_in", limits{high: 40}, 0)
	p.LeadIn = o.whole("lead_in", limits{high: 20}, leadIn)
	p.OpeningSteps = p.readSteps(o, "opening")
	p.ClosingSteps = p.readSteps(o, "closing")
	p.RestBetween = seconds(o.number("rest_between", limits{high: 600}, breath.Int(int64(prac.Rest))))
	p.RestWait = o.flag("rest_wait")
	p.RestLeadIn = o.whole("rest_lead_in", limits{high: 20}, 0)
	p.NaturalPause = seconds(o.number("natural_pause", limits{high: 3}, breath.Exact{}))
	p.Recall = seconds(o.number("recall", limits{high: 120}, breath.Int(defaultRecall)))
	p.WordBefore = choice(o, "word", "on", "before") == "before"
	p.Trial = o.flag("trial")
	p.readVoice(o)
	p.readPrompts(o)
	p.readBeside(o)
}

func (p *Passage) readLength(o reader) {
	prac := p.Practice
	switch {
	case p.OwnPace:
		p.Minutes = o.number("minutes", minutesLimits, breath.Int(defaultOwnMinutes))
	case o.has("rounds") && o.has("minutes"):
		o.fail("rounds", "either rounds or minutes, not both")
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
	p.Zone = choice(o, "zone", "all", "belly", "ribs", "chest")
	p.Aperture = o.aperture()
	switch prac.Kind {
	case practice.Counted:
		planned, _ := breath.ParseCounts(prac.Counts) // checked when the catalogue was read
		p.Measure = Measure{Tempo: o.number("tempo", tempoLimits, p.PlanTempo), Counts: o.counts("counts", planned)}
		p.checkZones(o)
	case practice.Fixed:
		tempo := p.PlanTempo
		if prac.Tempo > 0 {
			tempo = breath.Int(int64(prac.Tempo))
		}
		p.Measure = Measure{Tempo: o.number("tempo", tempoLimits, tempo)}
	case practice.Strokes:
		rate := o.number("rate", rateLimits, breath.Int(int64(prac.Rate)))
		p.Measure = Measure{Tempo: rate, Strokes: o.whole("strokes", strokesLimits, prac.Strokes)}
		if prac.FillsMinutes() {
			p.Measure.Strokes = max(1, StrokesWithin(p.Millis(), rate))
		}
	case practice.Open:
		p.Measure = Measure{Tempo: p.PlanTempo, Counts: breath.Counts{Inhale: 1, Hold: 1, Exhale: 1, Empty: 1}}
		p.Open = o.openSeconds(prac.Seconds)
	}
}

// checkZones sees to it that three zones have counts to share.
func (p *Passage) checkZones(o reader) {
	least := min(p.Measure.Counts.Inhale, p.Measure.Counts.Exhale)
	if p.SharesZones() && least < practice.LeastZoned {
		o.fail("counts", fmt.Sprintf("inhale and exhale %d or more, where three zones share them", practice.LeastZoned))
	}
}

// SharesZones tells whether the counts of the passage are shared out over the three zones.
func (p *Passage) SharesZones() bool { return p.Practice.TakesField("zone") && p.Zone == "all" }

func (p *Passage) readSteps(o reader, field string) []Step {
	var steps []Step
	for _, s := range o.objects(field) {
		step := Step{Text: s.text("text")}
		switch {
		case s.has("breaths") && s.has("seconds"):
			s.fail("breaths", "either breaths or seconds, not both")
		case s.has("breaths"):
			step.Breaths = s.whole("breaths", limits{low: 1, high: 20}, 1)
			step.Counts = s.counts("counts", p.stepCounts())
			step.Airway = s.airway(breath.ByNose)
		case s.has("seconds"):
			step.Length = seconds(s.number("seconds", limits{low: 1, high: 1800}, breath.Int(1)))
			for _, field := range []string{"counts", "airway"} {
				if s.has(field) {
					s.fail(field, "only on a step of breaths")
				}
			}
		default:
			s.fail("breaths", "a step has breaths or seconds")
		}
		steps = append(steps, step)
	}
	return steps
}

// stepCounts is what a step of breaths has where it gives no counts: the passage's inhale and exhale, or 4:4.
func (p *Passage) stepCounts() breath.Counts {
	if p.Is(practice.Counted) {
		return p.Measure.Counts.Flat()
	}
	return breath.Counts{Inhale: 4, Exhale: 4}
}

func (p *Passage) readVoice(o reader) {
	p.Voice = choice(o, "voice", Numbers, UpDown, Syllables, Words, HoldsOnly, Silent)
	p.Fade = Fade{-1, -1}
	if value, there := o.fields["fade"]; there {
		fields, ok := value.(map[string]any)
		if !ok {
			o.fail("fade", `an object as {"words_after": 2, "silent_after": 4}`)
		}
		f := reader{fields, o.passage, o.name, "fade: ", o.errs}
		p.Fade.WordsAfter = f.whole("words_after", limits{high: MostRounds}, -1)
		p.Fade.SilentAfter = f.whole("silent_after", limits{high: MostRounds}, -1)
	}
	if value, there := o.fields["syllables"]; there {
		list, ok := value.([]any)
		for _, entry := range list {
			text, isText := entry.(string)
			ok = ok && isText && text != ""
			p.Syllables = append(p.Syllables, text)
		}
		if !ok || len(list) == 0 {
			o.fail("syllables", `a list of texts as ["sa", "ta", "na", "ma"]`)
		}
	} else if p.Voice == Syllables {
		o.fail("syllables", `required with voice "syllables": a list of texts`)
	}
}

func (p *Passage) readPrompts(o reader) {
	for _, entry := range o.objects("prompts") {
		prompt := Prompt{Round: -1, Rest: -1, Second: breath.Int(-1), Text: entry.text("text")}
		if !entry.has("text") {
			entry.fail("text", "the text to say")
		}
		when := 0
		for _, field := range []string{"round", "rest", "second"} {
			if entry.has(field) {
				when++
			}
		}
		if when != 1 {
			entry.fail("round", "one of round, rest, second")
			continue
		}
		prompt.Round = entry.whole("round", roundsLimits, -1)
		prompt.Rest = entry.whole("rest", roundsLimits, -1)
		prompt.Second = entry.number("second", limits{high: 10800}, breath.Int(-1))
		p.Prompts = append(p.Prompts, prompt)
	}
}

// place tells to which passages a field belongs, in words and as a rule.
type place struct {
	words string
	holds func(*Passage) bool
}

var (
	onPlan     = place{"only on the plan", func(*Passage) bool { return false }}
	onStretch  = place{"only on talk and free passages", func(p *Passage) bool { return p.Type != Practice }}
	onFree     = place{"only on free passages", func(p *Passage) bool { return p.Type == Free }}
	onPractice = place{"only on practice passages", func(p *Passage) bool { return p.Type == Practice }}
	onCounted  = place{"only on counted practices", func(p *Passage) bool {
		return p.Type == Practice && (p.Practice == nil || p.Practice.Kind == practice.Counted)
	}}
	onTempo = place{"only on counted practices and those of fixed counts", func(p *Passage) bool {
		return p.Type == Practice && (p.Practice == nil || p.Practice.Kind == practice.Counted || p.Practice.Kind == practice.Fixed)
	}}
	onLed = place{"only on led practices of several rounds; others have minutes", func(p *Passage) bool {
		return p.Led() && (p.Practice == nil || !p.Practice.FillsMinutes())
	}}
	onRounds = place{"only on led practices", func(p *Passage) bool { return p.Led() }}
	onOwn    = place{`only with pace "own"`, func(p *Passage) bool { return p.Type == Practice && p.OwnPace }}
)

// places is formats.md's column "on". Fields that only some practices take are not in it: those practices name
// them in the catalogue.
var places = map[string]place{
	"slot_min": onPlan, "starts_at": onPlan, "intent": onPlan,
	"seconds": onStretch, "wait": onStretch, "breaths": onFree,
	"prompts": onPractice, "trial": onPractice, "practice": onPractice, "pace": onPractice, "minutes": onPractice,
	"count_in": onPractice, "lead_in": onPractice, "opening": onPractice, "closing": onPractice,
	"rest_between": onPractice, "rest_wait": onPractice, "rest_lead_in": onPractice, "voice": onPractice, "fade": onPractice, "syllables": onPractice,
	"tempo": onTempo, "counts": onCounted, "natural_pause": onCounted, "word": onCounted,
	"rounds": onLed, "recall": onOwn, "beside": onRounds,
}

var takenBySome = []string{"side", "entry", "zone", "attention", "strokes", "rate", "open_seconds", "aperture", "airway"}

// refuseMisplaced reports the known fields that do not belong to the passage. Where the type or the practice is
// not known, nobody can tell, and nothing is reported.
func (o reader) refuseMisplaced(p *Passage) {
	if p.Type == "" {
		return
	}
	fields := make([]string, 0, len(o.fields))
	for field := range o.fields {
		fields = append(fields, field)
	}
	slices.Sort(fields) // the order of errors is part of the answer, and a map has none
	for _, field := range fields {
		if at, known := places[field]; known && !at.holds(p) {
			o.fail(field, at.words)
		}
		if slices.Contains(takenBySome, field) && (p.Type != Practice || p.Practice != nil && !p.Practice.TakesField(field)) {
			o.fail(field, "only on practices that take it")
		}
	}
}
