package plan

import (
	"slices"
	"strconv"

	"vastlantern/core/breath"
)

// field is what is known of one field of a passage (formats.md, plan file): to which passages it belongs, how it is
// read and checked, how a screen asks for it, and how a typed line says it. The message "label.<name>" is what it is
// called. How a line is understood is the grammar (forms.go); its place in Passage is plan.go.
type field struct {
	name string
	on   place
	// read reads it, and what it excludes; nil for what is read with another field, or before all of them.
	read func(*Passage, reader)
	// offers is how a screen asks for it, one for each part of an object; none for what screens ask in their own way.
	offers []Offer
	// offered changes an offer for the passage, or tells that it is none for it; nil for one that is always as it is.
	offered func(*Passage, *Offer) bool
	// say is the field in a line; empty if it is not there, or what is usual. nil for what a line cannot say.
	say func(Fields, *Passage) string
	// once tells that a line can say it only once; twin is the field that says the same in another way.
	once bool
	twin string
}

// fieldTable is all fields of a passage but those that it always has (type, title, script), in the order in which they
// are read and errors are told: later ones depend on those before.
var fieldTable []field

var (
	fieldNamed = map[string]*field{}
	// SaidOnce is the fields that a line can say only once, sorted. The message "field.<name>" is what each is called
	// in an error.
	SaidOnce []string
)

// TwinOf returns the field that says the same as this one in another way; empty for none.
func TwinOf(name string) string {
	if f := fieldNamed[name]; f != nil {
		return f.twin
	}
	return ""
}

func init() { // not a literal: reading a passage refers to the table
	fieldTable = []field{
		// Not of a passage at all.
		{name: "slot_min", on: onPlan}, {name: "starts_at", on: onPlan}, {name: "intent", on: onPlan},
		{name: "check_in", on: onPlan}, {name: "language", on: onPlan},

		// Talks and free breathing.
		{name: "wait", on: onStretch, say: sayFlag("wait", "wait"),
			offers: []Offer{{About: AboutClass, Flag: true}}},
		{name: "keep", on: onAll, say: sayFlag("keep", "keep"), offers: []Offer{{About: AboutClass, Flag: true}}},
		{name: "remark", on: onAll, read: nil},
		{name: "check", on: onAll},
		{name: "fill", on: onAll, say: sayFill, once: true},
		{name: "fill_least", on: onAll, say: sayOf("fill_least", func(p *Passage) string {
			return "at least " + p.FillLeast.Div(breath.Int(1000)).String() + " s"
		}), once: true},
		{name: "seconds", on: onStretch, say: saySeconds, once: true, twin: "breaths"},
		{name: "breaths", on: onBreaths, say: sayValue("breaths", "%v breaths"), once: true, twin: "seconds",
			offers:  []Offer{{About: AboutBreath, Unit: "breaths"}},
			offered: breathsOfASide},

		// What a practice is: read before the others.
		{name: "practice", on: onPractice},
		{name: "pace", on: onPractice, say: sayChoice("pace", map[string]string{"own": "own pace"})},

		// What is breathed.
		{name: "side", on: onSome, once: true, say: sayValue("side", "%v"),
			read:   func(p *Passage, o reader) { p.Side = choice(o, "side", breath.Left, breath.Right) },
			offers: oneOf(AboutBreath, "left", "right")},
		{
			name:   "entry",
			on:     onSome,
			once:   true,
			say:    sayChoice("entry", map[string]string{"exhale": "exhale first", "inhale": "inhale first"}),
			read:   func(p *Passage, o reader) { p.ExhaleFirst = choice(o, "entry", "inhale", "exhale") == "exhale" },
			offers: oneOf(AboutBreath, "inhale", "exhale"),
		},
		{name: "airway", on: onSome, once: true, say: sayChoice("airway", map[string]string{
			"mouth": "through the mouth", "out-mouth": "out through the mouth", "in-mouth": "in through the mouth",
			"nose": "through the nose",
		}),
			read:    func(p *Passage, o reader) { p.Airway = o.airway(p.Practice.Airway) },
			offers:  oneOf(AboutBreath, "nose", "out-mouth", "in-mouth", "mouth"),
			offered: usualAirwayFirst},
		{name: "attention", on: onSome, once: true, say: sayChoice("attention", map[string]string{
			"front": "the front", "sides": "the sides", "back": "the back", "round": "all round",
		}),
			read:   func(p *Passage, o reader) { p.Attention = choice(o, "attention", "front", "sides", "back", "round") },
			offers: oneOf(AboutBreath, "front", "sides", "back", "round")},
		{name: "sides", on: onSome, once: true, read: (*Passage).readSides, say: sayChoice("sides", map[string]string{
			"right-left": "right then left", "left-right": "left then right", "right": "right side", "left": "left side",
			"none": "no sides",
		}),
			offers: oneOf(AboutBreath, "right-left", "left-right", "right", "left", "none")},
		{name: "rounds", on: onSeveral, read: (*Passage).readLength, say: sayRounds, once: true, twin: "minutes"},
		{name: "minutes", on: onPractice, say: sayMinutes, once: true, twin: "rounds"},
		{name: "zone", on: onSome, once: true, say: sayChoice("zone", map[string]string{
			"all": "all zones", "belly": "belly", "ribs": "ribs", "chest": "chest",
		}),
			read:   func(p *Passage, o reader) { p.Zone = choice(o, "zone", "all", "belly", "ribs", "chest") },
			offers: oneOf(AboutBreath, "all", "belly", "ribs", "chest")},
		{name: "aperture", on: onSome, once: true, say: sayWidths,
			read: func(p *Passage, o reader) { p.Aperture = o.aperture() },
			offers: []Offer{
				{Field: "aperture.inhale", About: AboutBreath, Choices: []string{"wide", "narrow"}},
				{Field: "aperture.exhale", About: AboutBreath, Choices: []string{"wide", "narrow"}},
			}},
		{name: "counts", on: onCounted, read: (*Passage).readMeasure, say: sayCounts},
		{name: "tempo", on: onTempo, say: sayValue("tempo", "@%v"), once: true},
		{name: "strokes", on: onSome, say: sayValue("strokes", "%v strokes"), once: true},
		{name: "rate", on: onSome, say: sayValue("rate", "@%v"), once: true},
		{name: "after", on: onSome, say: sayValue("after", "after %v"), once: true,
			offers: []Offer{{About: AboutBreath, Text: true}}},
		{name: "open_seconds", on: onSome, say: sayOf("open_seconds", (*Passage).OpenShort), once: true},

		// What is around it.
		{name: "count_in", on: onPractice, once: true, say: sayValue("count_in", "count-in %v"),
			read:   func(p *Passage, o reader) { p.CountIn = o.whole("count_in", limits{high: 40}, 0) },
			offers: []Offer{{About: AboutAround, Unit: "counts", Default: "0"}}},
		{name: "count_in_by", on: onPractice, once: true, say: sayValue("count_in_by", "count-in by %v"),
			read:    func(p *Passage, o reader) { p.CountInBy = o.whole("count_in_by", limits{low: 2, high: 20}, 0) },
			offers:  []Offer{{About: AboutAround, Unit: "counts", Default: "none"}},
			offered: func(p *Passage, _ *Offer) bool { return p.CountIn > 0 }},
		{name: "lead_in", on: onPractice, once: true, say: sayValue("lead_in", "lead-in %v"),
			read:   func(p *Passage, o reader) { p.LeadIn = o.whole("lead_in", limits{high: 20}, p.usualLeadIn()) },
			offers: []Offer{{About: AboutAround, Unit: "counts"}},
			offered: func(p *Passage, offer *Offer) bool {
				offer.Default = strconv.Itoa(p.usualLeadIn())
				return true
			}},
		{name: "opening", on: onPractice, read: func(p *Passage, o reader) { p.OpeningSteps = p.readSteps(o, "opening") }},
		{name: "closing", on: onPractice, read: func(p *Passage, o reader) { p.ClosingSteps = p.readSteps(o, "closing") }},
		{name: "rest_between", on: onPractice, once: true, twin: "rest_breaths", say: sayValue("rest_between", "rest %v"),
			read: func(p *Passage, o reader) {
				p.RestBetween = seconds(o.number("rest_between", limits{high: 600}, breath.Int(int64(p.Practice.Rest))))
			},
			offers: []Offer{{About: AboutAround, Unit: "s"}},
			offered: func(p *Passage, offer *Offer) bool {
				offer.Default = strconv.Itoa(p.Practice.Rest)
				return !p.OwnPace // there are no rounds to rest between
			}},
		{
			name:    "rest_breaths",
			on:      onPractice,
			once:    true,
			twin:    "rest_between",
			say:     sayValue("rest_breaths", "rest %v breaths"),
			read:    readRestBreaths,
			offers:  []Offer{{About: AboutAround, Unit: "breaths", Default: "none"}},
			offered: notAtOwnPace,
		},
		{name: "rest_wait", on: onPractice, say: sayFlag("rest_wait", "rests wait"),
			read:   func(p *Passage, o reader) { p.RestWait = o.flag("rest_wait") },
			offers: []Offer{{About: AboutAround, Flag: true}}, offered: notAtOwnPace},
		{name: "rest_lead_in", on: onPractice, once: true, say: sayValue("rest_lead_in", "rest lead-in %v"),
			read:   func(p *Passage, o reader) { p.RestLeadIn = o.whole("rest_lead_in", limits{high: 20}, 0) },
			offers: []Offer{{About: AboutAround, Unit: "counts", Default: "0"}}, offered: notAtOwnPace},
		{name: "natural_pause", on: onCounted, once: true, say: sayValue("natural_pause", "pause %v"),
			read: func(p *Passage, o reader) {
				p.NaturalPause = seconds(o.number("natural_pause", limits{high: 3}, breath.Exact{}))
			},
			offers: []Offer{{About: AboutBreath, Unit: "s", Default: "0"}}},
		{
			name:   "word",
			on:     onCounted,
			once:   true,
			say:    sayChoice("word", map[string]string{"before": "word before", "on": "word on"}),
			read:   func(p *Passage, o reader) { p.WordBefore = choice(o, "word", "on", "before") == "before" },
			offers: oneOf(AboutVoice, "on", "before"),
		},
		{name: "recall", on: onOwn, once: true, say: sayValue("recall", "recall %v"),
			read:   func(p *Passage, o reader) { p.Recall = seconds(o.number("recall", limits{high: 120}, p.usualRecall())) },
			offers: []Offer{{About: AboutAround, Unit: "s"}},
			offered: func(p *Passage, offer *Offer) bool {
				offer.Default = p.usualRecall().String()
				return true
			}},
		{name: "choices", on: onOwnCounted, read: (*Passage).readChoices, say: sayOf("choices", sayChoices),
			offers: []Offer{{About: AboutBreath, Text: true}}},
		{name: "point", on: onPractice, say: sayFlag("point", "the point"),
			read:   func(p *Passage, o reader) { p.Point = o.flag("point") },
			offers: []Offer{{About: AboutClass, Flag: true}}},
		{name: "trial", on: onPractice, say: sayFlag("trial", "try-out"),
			read:   func(p *Passage, o reader) { p.Trial = o.flag("trial") },
			offers: []Offer{{About: AboutClass, Flag: true}}},

		// How it is said.
		{name: "voice", on: onPractice, once: true, read: (*Passage).readVoice, say: sayChoice("voice", map[string]string{
			"numbers": "numbers up", "updown": "up and down", "words": "words only", "holds": "numbers in holds",
			"silent": "silent",
		}),
			offers: oneOf(AboutVoice, Numbers, UpDown, Syllables, Words, HoldsOnly, HoldSyllables, Silent)},
		{name: "syllables", on: onPractice, say: saySyllables,
			offers:  []Offer{{About: AboutVoice, Text: true}},
			offered: func(p *Passage, _ *Offer) bool { return p.Voice == Syllables || p.Voice == HoldSyllables }},
		{name: "numbers", on: onPractice, once: true, read: func(p *Passage, o reader) { p.Numbers = o.screen() },
			say: sayChoice("numbers", map[string]string{
				"shown": "numbers shown", "lamps": "lamps only", "hidden": "numbers hidden",
			}),
			offers: []Offer{{About: AboutVoice, Choices: []string{"as planned", "shown", "lamps", "hidden"}}}},
		{name: "fade", on: onPractice, say: sayOf("fade", sayFade),
			offers: []Offer{
				{Field: "fade.words_after", About: AboutVoice, Unit: "rounds", Default: "never"},
				{Field: "fade.silent_after", About: AboutVoice, Unit: "rounds", Default: "never"},
			},
			offered: notAtOwnPace}, // if nothing is counted aloud
		{name: "prompts", on: onPractice, read: (*Passage).readPrompts},

		// Beside it, and by hand.
		{name: "beside", on: onRounds, once: true, read: (*Passage).readBeside,
			say:    sayOf("beside", func(p *Passage) string { return "beside " + p.Beside.String() }),
			offers: oneOf(AboutLane, "none", "breathe"), offered: notAtOwnPace},
		{name: "seal", on: onSided, say: sayFlag("seal", "seal"),
			read:    func(p *Passage, o reader) { p.Seal = o.flag("seal") },
			offers:  []Offer{{About: AboutBreath, Flag: true}},
			offered: func(p *Passage, _ *Offer) bool { return p.Measure.Counts.Hold > 0 }},
		{name: "by_hand", on: onLedCounted, once: true, read: (*Passage).readByHand, say: sayOf("by_hand", sayByHand)},
	}
	for i := range fieldTable {
		f := &fieldTable[i]
		fieldNamed[f.name] = f
		for j := range f.offers {
			if f.offers[j].Field == "" {
				f.offers[j].Field = f.name
			}
		}
	}
	for _, f := range fieldTable {
		if f.once {
			SaidOnce = append(SaidOnce, f.name)
		}
	}
	slices.Sort(SaidOnce)
	for _, name := range lineOrder {
		if fieldNamed[name] == nil || fieldNamed[name].say == nil {
			panic("core/plan: " + name + " cannot be said in a line") // a slip in this table
		}
	}
}

// offerOrder is the order in which a screen asks, among the fields that are about the same.
var offerOrder = []string{
	"sides", "breaths", "side", "entry", "seal", "airway", "zone", "attention", "aperture", "after", "natural_pause",
	"choices", "voice",
	"syllables", "word", "fade", "numbers", "count_in", "count_in_by",
	"lead_in", "rest_between", "rest_breaths", "rest_wait", "rest_lead_in", "recall", "beside", "wait", "keep",
	"point", "trial",
}

// lineOrder is the order in which a line says fields.
var lineOrder = []string{
	"counts", "open_seconds", "pace", "fill", "fill_least", "rounds", "minutes", "strokes", "tempo", "rate", "after",
	"breaths", "sides",
	"seconds",
	"by_hand",
	"choices", "wait", "side", "entry", "seal",
	"airway", "zone", "attention", "aperture", "voice", "syllables", "fade", "word", "numbers",
	"count_in", "count_in_by", "lead_in",
	"rest_between", "rest_breaths",
	"rest_wait", "rest_lead_in", "natural_pause", "recall", "beside", "point", "trial", "keep",
}

// oneOf returns the offer of a choice, the usual word first.
func oneOf[T ~string](about About, all ...T) []Offer {
	list := make([]string, len(all))
	for i, word := range all {
		list[i] = string(word)
	}
	return []Offer{{About: about, Choices: list}}
}

func breathsOfASide(p *Passage, offer *Offer) bool {
	if p.Type != Practice { // the row of a stretch has it in its short way
		return false
	}
	offer.Default = strconv.Itoa(max(1, p.Practice.Breaths))
	return true
}

func notAtOwnPace(p *Passage, _ *Offer) bool { return !p.OwnPace }

func usualAirwayFirst(p *Passage, offer *Offer) bool {
	usual := string(p.Practice.Airway)
	others := slices.DeleteFunc(slices.Clone(offer.Choices), func(word string) bool { return word == usual })
	offer.Choices = append([]string{usual}, others...)
	return true
}

// Saying is a field as a line says it.
type Saying struct{ Field, Text string }

// Sayings returns the fields of a passage in the order in which a line says them; the text is empty if a field is not
// there, or what is usual.
func Sayings(f Fields, p *Passage) []Saying {
	list := make([]Saying, len(lineOrder))
	for i, name := range lineOrder {
		list[i] = Saying{name, fieldNamed[name].say(f, p)}
	}
	return list
}

// InShort are the fields that the short way of writing a passage stands for. The text is the whole of them: a
// field that it does not name goes back to its default.
var InShort = []string{
	"counts",
	"rounds",
	"minutes",
	"tempo",
	"side",
	"pace",
	"seconds",
	"breaths",
	"strokes",
	"rate",
	"open_seconds",
}
