package plan

import (
	"slices"
	"strconv"
)

// Offer is a field that a passage can be given beyond its length, counts and tempo: what it takes, and what holds where
// it is not given.
type Offer struct {
	Field   string
	Choices []string // the words that it takes, the default first; none where it is a number or a flag
	Flag    bool     // true or false
	Unit    string   // of a number: counts or s
	Default string   // of a number
}

// offers is in the order in which a teacher is asked. The rules are those of formats.md, which Read applies.
var offers = []Offer{
	{Field: "wait", Flag: true},
	{Field: "keep", Flag: true},
	{Field: "trial", Flag: true},
	{Field: "side", Choices: []string{"left", "right"}},
	{Field: "entry", Choices: []string{"inhale", "exhale"}},
	{Field: "zone", Choices: []string{"all", "belly", "ribs", "chest"}},
	{Field: "word", Choices: []string{"on", "before"}},
	{Field: "voice", Choices: []string{string(Numbers), string(UpDown), string(Words), string(HoldsOnly), string(Silent)}},
	{Field: "count_in", Unit: "counts", Default: "0"},
	{Field: "lead_in", Unit: "counts", Default: strconv.Itoa(defaultLeadIn)},
	{Field: "natural_pause", Unit: "s", Default: "0"},
	{Field: "recall", Unit: "s", Default: strconv.Itoa(defaultRecall)},
	{Field: "rest_between", Unit: "s"},
	{Field: "rest_wait", Flag: true},
	{Field: "rest_lead_in", Unit: "counts", Default: "0"},
}

// Offers is the fields that the passage can be given.
func (p *Passage) Offers() []Offer {
	var list []Offer
	for _, offer := range offers {
		if !p.mayHave(offer.Field) {
			continue
		}
		switch offer.Field {
		case "lead_in":
			if p.OwnPace {
				offer.Default = "0"
			}
		case "rest_between":
			if p.OwnPace {
				continue // there are no rounds to rest between
			}
			offer.Default = strconv.Itoa(p.Practice.Rest)
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
