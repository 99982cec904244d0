// Package words holds what is said while a class is led. A teacher's own words, or another language, are another table
// with the same keys.
package words

import (
	"cmp"
	"maps"
	"slices"
	"strconv"

	"vastlantern/core/breath"
)

// Words is one table. Sides are everyone's own left and right.
type Words struct {
	Tag     string            // of the language, BCP 47
	Texts   map[string]string // by key, see Keys
	Numbers []string          // from zero; what is beyond is said as digits
	ByHand  bool              // a side is said as what the hand does: close this one
	Moves   map[string]string // what the body does in the practices of the catalogue, by the English text
}

// The keys besides those of phases, sides and parts, which are their names in a cue sheet.
const (
	Natural    = "natural breath"
	Resting    = "rest"
	OwnPace    = "own pace"
	HandUp     = "hand up"
	ShutLeft   = "close left"
	ShutRight  = "close right"
	BothNarrow = "both narrow"
	Finish     = "finish"
	EndLeft    = "exhale left" // where a round ends
	EndRight   = "exhale right"
	OutLeft    = "out left"
	OutRight   = "out right"
	InLeft     = "in left"
	InRight    = "in right"
	HandDown   = "hand down"
	Seal       = "seal" // both nostrils, after the inhale
	Then       = "then"
	// between the two sides of the body
	ChangeSides = "change sides"
	ChantOm     = "chant om"
	EndOfClass  = "end of class"
	WithHolds   = "with holds"    // the lane of those who hold
	Through     = "through holds" // the lane of those who breathe through the holds
	Shorter     = "shorter"       // the lane of a shorter breath
	Others      = "others"        // those on the gentler lane, where one voice speaks to both
	Attention   = "attention "    // and front, sides, back or round
)

// Languages is the tables that ship, by their language tags (BCP 47).
var Languages = map[string]*Words{"en": &English, "de": &German, "es": &Spanish, "fr": &French, "pt": &Portuguese}

// Keys returns every key, sorted.
func Keys() []string { return slices.Sorted(maps.Keys(English.Texts)) }

// With returns the table with some texts replaced by the teacher's own.
func (w *Words) With(own map[string]string, byHand bool) *Words {
	if len(own) == 0 && !byHand {
		return w
	}
	texts := maps.Clone(w.Texts)
	maps.Copy(texts, own)
	return &Words{w.Tag, texts, w.Numbers, byHand, w.Moves}
}

// Text returns what is said for the key; nothing if there is no such key.
func (w *Words) Text(key string) string { return w.Texts[key] }

// Own returns a practice's own word or a movement, in the language of the table where it is one of the catalogue's.
func (w *Words) Own(word string) string {
	return cmp.Or(w.Texts[word], w.Moves[word], word)
}

// Number returns a number as it is said.
func (w *Words) Number(n int) string {
	if n < len(w.Numbers) {
		return w.Numbers[n]
	}
	return strconv.Itoa(n)
}

// Side returns what is said of the way the air goes: the side, or what the hand does for it; nothing where both
// nostrils breathe.
func (w *Words) Side(t breath.Through) string {
	if w.ByHand && (t == breath.Left || t == breath.Right) {
		return w.Hand(t)
	}
	return w.Named(t)
}

// Named is Side as left and right, whatever the class says.
func (w *Words) Named(t breath.Through) string {
	if t == breath.Both || t == breath.None {
		return ""
	}
	return w.Texts[string(t)]
}

// Hand is Side as what the hand does, whatever the class says: it closes the other nostril.
func (w *Words) Hand(t breath.Through) string { return w.Shut(t.Other()) }

// Shut tells to close the nostril.
func (w *Words) Shut(t breath.Through) string {
	switch t {
	case breath.Left:
		return w.Texts[ShutLeft]
	case breath.Right:
		return w.Texts[ShutRight]
	}
	return ""
}
