package plan

import (
	"slices"
	"strconv"
	"strings"
)

// About is what a field of a passage is about, as a teacher asks for it.
type About string

// What fields are about, in the order in which a teacher thinks.
const (
	AboutBreath About = "breath" // what is breathed
	AboutVoice  About = "voice"  // how it is said
	AboutAround About = "around" // what stands before, between and after
	AboutLane   About = "lane"   // what others do beside it
	AboutClass  About = "class"  // its place in the class
)

// Offer is a field that a passage can be given beyond its length, counts and tempo: what it takes, and what holds where
// it is not given.
type Offer struct {
	Field   string
	About   About
	Choices []string // the words that it takes, the default first; none where it is a number, a text or a flag
	Flag    bool     // true or false
	Text    bool     // words, parted by spaces
	Unit    string   // of a number: counts, s or rounds
	Default string   // of a number
}

// offers is in the order in which a teacher is asked. The rules are those of formats.md, which Read applies. Fields of
// an object are written with a dot.
var offers = []Offer{
	{Field: "side", About: AboutBreath, Choices: []string{"left", "right"}},
	{Field: "entry", About: AboutBreath, Choices: []string{"inhale", "exhale"}},
	{Field: "airway", About: AboutBreath, Choices: []string{"nose", "out-mouth", "in-mouth", "mouth"}},
	{Field: "zone", About: AboutBreath, Choices: []string{"all", "belly", "ribs", "chest"}},
	{Field: "attention", About: AboutBreath, Choices: []string{"front", "sides", "back", "round"}},
	{Field: "aperture.inhale", About: AboutBreath, Choices: []string{"wide", "narrow"}},
	{Field: "aperture.exhale", About: AboutBreath, Choices: []string{"wide", "narrow"}},
	{Field: "natural_pause", About: AboutBreath, Unit: "s", Default: "0"},
	{Field: "voice", About: AboutVoice, Choices: []string{string(Numbers), string(UpDown), string(Syllables), string(Words), string(HoldsOnly), string(HoldSyllables), string(Silent)}},
	{Field: "syllables", About: AboutVoice, Text: true},
	{Field: "word", About: AboutVoice, Choices: []string{"on", "before"}},
	{Field: "fade.words_after", About: AboutVoice, Unit: "rounds", Default: "never"},
	{Field: "fade.silent_after", About: AboutVoice, Unit: "rounds", Default: "never"},
	{Field: "count_in", About: AboutAround, Unit: "counts", Default: "0"},
	{Field: "lead_in", About: AboutAround, Unit: "counts", Default: strconv.Itoa(defaultLeadIn)},
	{Field: "rest_between", About: AboutAround, Unit: "s"},
	{Field: "rest_wait", About: AboutAround, Flag: true},
	{Field: "rest_lead_in", About: AboutAround, Unit: "counts", Default: "0"},
	{Field: "recall", About: AboutAround, Unit: "s", Default: strconv.Itoa(leastRecall)},
	{Field: "beside", About: AboutLane, Choices: []string{"none", "breathe"}},
	{Field: "wait", About: AboutClass, Flag: true},
	{Field: "keep", About: AboutClass, Flag: true},
	{Field: "trial", About: AboutClass, Flag: true},
}

// Offers is the fields that the passage can be given.
func (p *Passage) Offers() []Offer {
	var list []Offer
	for _, offer := range offers {
		field, _, _ := strings.Cut(offer.Field, ".")
		if !p.mayHave(field) {
			continue
		}
		switch offer.Field {
		case "airway":
			usual := string(p.Practice.Airway)
			others := slices.DeleteFunc(slices.Clone(offer.Choices), func(word string) bool { return word == usual })
			offer.Choices = append([]string{usual}, others...)
		case "syllables":
			if p.Voice != Syllables && p.Voice != HoldSyllables {
				continue
			}
		case "fade.words_after", "fade.silent_after", "beside":
			if p.OwnPace {
				continue // nothing is counted aloud, and everybody breathes as they do
			}
		case "lead_in":
			if p.OwnPace {
				offer.Default = "0"
			}
		case "rest_between":
			if p.OwnPace {
				continue // there are no rounds to rest between
			}
			offer.Default = strconv.Itoa(p.Practice.Rest)
		case "recall":
			offer.Default = p.usualRecall().String()
		case "rest_wait", "rest_lead_in":
			if p.OwnPace {
				continue
			}
		}
		list = append(list, offer)
	}
	return list
}

// mayHave tells whether the field belongs to the passage.
func (p *Passage) mayHave(field string) bool {
	if slices.Contains(takenBySome, field) {
		return p.Type == Practice && (p.Practice == nil || p.Practice.TakesField(field))
	}
	at, known := places[field]
	return !known || at.holds(p)
}
