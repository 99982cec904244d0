// Package voice is a teacher's own voice: which words it takes, how a recording is made ready, and of which recordings
// a text is made.
package voice

import (
	"strconv"

	"vastlantern/core/words"
)

// Kind is what a word is for.
type Kind string

// The kinds, in the order in which they are recorded: with the first three a class can be led.
const (
	Breath    Kind = "breath"
	Numbers   Kind = "numbers"
	Sides     Kind = "sides"
	Calls     Kind = "calls"
	Hand      Kind = "hand"
	Zones     Kind = "zones"
	Tens      Kind = "tens of strokes"
	Practices Kind = "practices"
	Own       Kind = "own"
)

// Kinds is all of them, in that order.
var Kinds = []Kind{Breath, Numbers, Sides, Calls, Hand, Zones, Practices, Own, Tens}

// Word is something to record.
type Word struct {
	Text string // as it is said
	Kind Kind
}

// keys is which words of the table are of a kind. What is only shown, as the end of the class, is not recorded.
var keys = []struct {
	kind Kind
	keys []string
}{
	{
		Breath,
		[]string{"inhale", "exhale", "hold", "empty", "stroke", "mouth", words.Natural, words.Resting, words.OwnPace},
	},
	{Sides, []string{"left", "right", words.ShutLeft, words.ShutRight, words.BothNarrow}},
	{Calls, []string{"last", "half", "minute", "half-minute"}},
	{
		Hand,
		[]string{
			words.HandUp,
			words.Then,
			words.ChangeSides,
			words.HandDown,
			words.Seal,
			words.Finish,
			words.InLeft,
			words.OutLeft,
			words.InRight,
			words.OutRight,
			words.EndLeft,
			words.EndRight,
			words.Others,
		},
	},
	{Zones, []string{
		"belly", "ribs", "chest", "forward", "side", "up", "wide", "narrow",
		words.ChantOm, words.Attention + "front", words.Attention + "sides", words.Attention + "back",
		words.Attention + "round",
	}},
}

const (
	mostNumber = 20 // what is beyond is said only at the tens of strokes
	mostTens   = 120
)

// List returns what a teacher records in the language of the table: its words as this school says them, the numbers,
// the names of practices, and what else is said in these plans: own lines, syllables. A text is once.
func List(w *words.Words, practices, said []string) []Word {
	var list []Word
	known := map[string]bool{}
	add := func(kind Kind, text string) {
		if plain := Plain(text); plain != "" && !known[plain] {
			known[plain] = true
			list = append(list, Word{text, kind})
		}
	}
	for _, kind := range Kinds {
		for _, of := range keys {
			if of.kind == kind {
				for _, key := range of.keys {
					add(kind, w.Text(key))
				}
			}
		}
		switch kind {
		case Numbers:
			for n := 1; n <= mostNumber; n++ {
				add(kind, w.Number(n))
			}
		case Tens:
			for n := mostNumber + 10; n <= mostTens; n += 10 {
				add(kind, strconv.Itoa(n))
			}
		case Practices:
			for _, name := range practices {
				add(kind, name)
			}
		case Own:
			for _, text := range said {
				if Pieces(text, func(plain string) bool { return known[plain] }) == nil {
					add(kind, text)
				}
			}
		}
	}
	return list
}
