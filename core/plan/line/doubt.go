package line

import (
	"slices"
	"strings"
	"unicode/utf8"

	"vastlantern/core/fact"
)

// ambiguous reports whether something else fits as well as the hit.
func ambiguous(found []hit, h hit) bool {
	return slices.ContainsFunc(found, func(other hit) bool {
		return other.entry != h.entry && other.from == h.from && other.to == h.to && rank(other) == rank(h) &&
			other.share > h.share*0.7 &&
			!sameThing(other.entry, h.entry)
	})
}

// sameThing reports whether one of two is a preset of the other: the practice itself is meant then.
func sameThing(a, b *entry) bool { return a.p != nil && a.p == b.p && (a.with == nil || b.with == nil) }

func couldBe(list []token, found []hit, h hit) *LineError {
	var names []string
	for _, other := range found {
		if other.from == h.from && other.to == h.to && rank(other) == rank(h) &&
			!slices.Contains(names, lower(other.entry.name)) {
			names = append(names, lower(other.entry.name))
		}
	}
	given := list[h.from].given
	return &LineError{
		At:      list[h.from].at,
		End:     list[h.to-1].end,
		Given:   given,
		Why:     fact.New("line.ambiguous"),
		Nearest: names[:min(3, len(names))],
	}
}

func lower(name string) string {
	_, size := utf8.DecodeRuneInString(name)
	return strings.ToLower(name[:size]) + name[size:]
}

// notUnderstood says what is expected in the place of a word, and what is nearest to it.
func notUnderstood(of subject, t token) *LineError {
	if !t.refused.None() {
		return &LineError{
			At:      t.at,
			End:     t.end,
			Given:   t.given,
			Why:     fact.New("line.word-refused", "given", t.given, "why", t.refused),
			Refused: true,
		}
	}
	if known(t.key) {
		return &LineError{
			At:      t.at,
			End:     t.end,
			Given:   t.given,
			Why:     fact.New("line.not-here", "given", t.given, "expects", of.expects()),
			Refused: true,
		}
	}
	return &LineError{At: t.at, End: t.end, Given: t.given, Why: of.expects(), Nearest: nearest(t.text, of.words())}
}

// known reports whether a word is one of the grammar, so that it is not misspelt but in the wrong place.
func known(word string) bool {
	return slices.ContainsFunc(forms, func(f form) bool {
		for element := range strings.FieldsSeq(f.pattern) {
			if slices.Contains(strings.Split(strings.TrimSuffix(element, "?"), "|"), word) {
				return true
			}
		}
		return false
	})
}

// expects returns what can be said of the passage, in short.
func (of subject) expects() fact.Fact {
	switch {
	case of.p == nil:
		return fact.New("expects.stretch")
	case of.strokes():
		return fact.New("expects.strokes")
	case of.open():
		return fact.New("expects.open")
	case of.p != nil && of.p.Kind.HasFixedCounts():
		return fact.New("expects.fixed")
	}
	return fact.New("expects.counted")
}

// unnamed is the error of a line that names nothing.
func (n *Names) unnamed(list []token) error { return n.noSuchName(list) }

// noSuchName says that what a line names is not in the practice book.
func (n *Names) noSuchName(list []token) *LineError {
	for _, t := range list {
		if t.quoted || t.number() != "" || slices.Contains(fillers, t.key) || isCounts(t.text) || t.text == "x" ||
			t.text == "@" {
			continue
		}
		return &LineError{
			At:      t.at,
			End:     t.end,
			Given:   t.given,
			Why:     fact.New("line.no-such-name"),
			Nearest: n.nearestNames(t.text),
		}
	}
	return &LineError{Why: fact.New("line.name-it")}
}

// nearestNames returns what is called by words like this one.
func (n *Names) nearestNames(word string) []string {
	type near struct {
		name string
		d    int
	}
	var list []near
	for i := range n.entries {
		best := 4
		for _, name := range n.entries[i].names {
			for _, w := range name.words {
				d := slips(word, w, 2)
				if len(word) >= 2 && strings.HasPrefix(w, word) {
					d = 1
				}
				if d <= (len(word)+1)/2 && d < best {
					best = d
				}
			}
		}
		if best < 4 {
			list = append(list, near{lower(n.entries[i].name), best})
		}
	}
	slices.SortStableFunc(list, func(a, b near) int { return a.d - b.d })
	var names []string
	for _, l := range list[:min(3, len(list))] {
		names = append(names, l.name)
	}
	return names
}

// nearest returns the words that are most like one, up to three.
func nearest(word string, among []string) []string {
	best := 3
	var found []string
	for _, w := range among {
		switch d := slips(word, w, 2); {
		case d > (len(word)+2)/3:
		case d < best:
			best, found = d, []string{w}
		case d == best:
			found = append(found, w)
		}
	}
	return found[:min(3, len(found))]
}
