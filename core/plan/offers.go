package plan

// About is what a field of a passage is about, as a teacher asks for it.
type About string

// What fields are about, in the order in which a teacher thinks.
const (
	AboutBreath About = "breath" // what is breathed
	AboutVoice  About = "voice"  // how it is said
	AboutAround About = "around" // what is before, between and after
	AboutLane   About = "lane"   // what others do beside it
	AboutClass  About = "class"  // its place in the class
)

// Offer is a field that a passage can be given beyond its length, counts and tempo: what it takes, and what holds where
// it is not given.
type Offer struct {
	Field   string
	About   About
	Choices []string // the words that it takes, the default first; none if it is a number, a text or a flag
	Flag    bool     // true or false
	Text    bool     // words, parted by spaces
	Unit    string   // of a number: counts, s or rounds
	Default string   // of a number
}

// Offers returns the fields that the passage can be given, in the order in which a teacher is asked.
func (p *Passage) Offers() []Offer {
	var list []Offer
	for _, name := range offerOrder {
		f := fieldNamed[name]
		if !f.on.holds(p, name) {
			continue
		}
		for _, offer := range f.offers {
			if f.offered == nil || f.offered(p, &offer) {
				list = append(list, offer)
			}
		}
	}
	return list
}
