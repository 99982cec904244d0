// Package line reads what a teacher types: one passage a line, in the words of the trade and in any order, a whole
// class as text, and the teacher's own words below a passage. It writes them too. docs/decisions/14 says how a line is
// read.
package line

import (
	"errors"
	"maps"
	"slices"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// LineError says which word of a line is not understood, and what is nearest to it.
type LineError struct {
	At, End int // bytes of the line; both 0 for the line as a whole
	Given   string
	Why     fact.Fact // what was expected there
	Refused bool      // the word was understood, and Why says why it cannot be
	Nearest []string  // what could have been meant
}

// Tell returns what is wrong and what could have been meant.
func (e *LineError) Tell() fact.Fact {
	text := e.Why
	if e.Given != "" && !e.Refused {
		text = fact.New("line.not-understood", "given", e.Given, "why", e.Why)
	}
	if len(e.Nearest) > 0 {
		text = fact.New("line.with-nearest", "text", text, "nearest", fact.Names(e.Nearest))
	}
	return text
}

func (e *LineError) Error() string { return e.Tell().Error() }

// mostWords is the longest line that is read: what is longer was pasted by mistake.
const mostWords = 120

// Read reads a line as a teacher writes it: what it is, how much of it, and how, in any order; "then" and more of it is
// another passage. "even breath, 3 rounds", "square x3", "sit 2 min", "nadi 4:4 5 min own", "belly 4:4 x8 then 8:8 x4".
// A practice of which nothing else is said comes as its whole course. The error is a LineError.
func (n *Names) Read(line string) ([]plan.Fields, error) {
	readings, err := n.Understand(line)
	return FieldsIn(readings), err
}

// Understand is Read that also reports what the line gave, so what is assumed, and what is doubtful.
func (n *Names) Understand(line string) ([]Reading, error) {
	list := n.split(line)
	if len(list) == 0 {
		return nil, &LineError{Why: fact.New("line.write-something")}
	}
	if len(list) > mostWords {
		return nil, &LineError{Why: fact.New("line.too-long", "words", len(list), "most", mostWords)}
	}
	var all []Reading
	var last *entry
	for _, part := range n.parts(list) {
		one, e, err := n.readPart(line, part, last)
		if err != nil {
			return nil, err
		}
		all, last = append(all, one...), e
	}
	return all, nil
}

// Plainly is Read that refuses what Understand only doubts.
func (n *Names) Plainly(line string) ([]plan.Fields, error) {
	readings, err := n.Understand(line)
	for _, r := range readings {
		if len(r.Doubts) > 0 {
			return nil, &r.Doubts[0].LineError
		}
	}
	return FieldsIn(readings), err
}

// split returns the tokens of a line, with one for each number, each breath and each phrase.
func (n *Names) split(line string) []token {
	return spoken(line, n.lexicon.amounts(line, tokens(line, n.lexicon), n.isName))
}

// isName reports whether numbers in a row are a name, as "four seven eight".
func (n *Names) isName(numbers []token) bool {
	for i := range n.entries {
		for _, name := range n.entries[i].names {
			if slices.EqualFunc(name.words, numbers, func(word string, t token) bool {
				return word == t.text || word == t.key || word == t.given
			}) {
				return true
			}
		}
	}
	return false
}

// Shorten rewrites a passage from the short way of writing it, "4:4:8 x6 @50": counts, rounds or a time, tempo, side
// and own pace, as Names.Read takes them. The error, a LineError, says which word was not understood; whether the
// values are allowed is for Read to say.
func Shorten(f plan.Fields, text string, own ...*practice.Practice) (plan.Fields, error) {
	next := maps.Clone(f.Values())
	for _, field := range append([]string{"fill", "fill_least"}, plan.InShort...) { // a length that is typed stays
		delete(next, field)
	}
	return said(f, next, text, true, own)
}

// Restate changes what the text says of a passage and leaves all else as it is: "30 strokes", "10 min", "words only".
// Errors are those of Shorten.
func Restate(f plan.Fields, text string, own ...*practice.Practice) (plan.Fields, error) {
	return said(f, maps.Clone(f.Values()), text, false, own)
}

// said returns the fields with what a text says of them; basic is only the short way of writing a passage.
func said(f plan.Fields, next map[string]any, text string, basic bool, own []*practice.Practice) (plan.Fields, error) {
	of := subject{f: next}
	if f.IsPractice() {
		of.p = plan.PracticeOf(f, own)
	}
	words := anyLexicon()
	list := spoken(text, words.amounts(text, tokens(text, words), noNames))
	heard := of.say(list, func(int) bool { return false }, basic)
	if len(heard.unknown) > 0 {
		t := list[heard.unknown[0]]
		if !t.refused.None() {
			return f, notUnderstood(of, t)
		}
		return f, &LineError{At: t.at, End: t.end, Given: t.given, Why: of.expects()}
	}
	return plan.FieldsWith(next), nil
}

// AsLineError returns the LineError that an error is, or nil.
func AsLineError(err error) *LineError {
	var line *LineError
	if errors.As(err, &line) {
		return line
	}
	return nil
}
