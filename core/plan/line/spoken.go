package line

import (
	"slices"
	"strings"
)

// Words that may be between the parts of a breath that is spoken, and within one of them.
var (
	betweenParts = []string{",", "and", "then"}
	withinPart   = []string{"for", "to", "of", "a", "the"}
	// What is before "in" where it is no inhale: count in 4, lead in 3, narrow in.
	notInhale = []string{"count", "lead", "numbers", "narrow"}
)

// spoken puts counts in the place of a breath that is spoken, phase by phase in its order: "inhale 6 hold 4 exhale 6",
// "in 4 out 4", "in 4, hold 4, out 4, hold 4". What is not said is not held. A part of a breath, as "hold 8", is left
// as it is: it changes a practice that is named.
func spoken(line string, list []token) []token {
	var all []token
	for i := 0; i < len(list); {
		counts, next := breathAt(list, i)
		if next == i {
			all = append(all, list[i])
			i++
			continue
		}
		first, last := list[i], list[next-1]
		all = append(all, token{text: counts, key: counts, given: line[first.at:last.end], at: first.at, end: last.end})
		i = next
	}
	return all
}

// breathAt reads a whole breath from i on, and where it ends; i if there is none.
func breathAt(list []token, i int) (counts string, next int) {
	if i > 0 && slices.Contains(notInhale, list[i-1].key) {
		return "", i
	}
	inhale, at := partAt(list, i, "inhale", "in")
	if inhale == "" {
		return "", i
	}
	terms := []string{inhale}
	hold, at := laterPart(list, at, "hold")
	exhale, at := laterPart(list, at, "exhale", "out")
	if exhale == "" {
		return "", i
	}
	empty, at := laterPart(list, at, "hold", "empty")
	switch {
	case empty != "" && hold == "":
		hold = "0"
		fallthrough
	case hold != "":
		terms = append(terms, hold)
	}
	terms = append(terms, exhale)
	if empty != "" {
		terms = append(terms, empty)
	}
	return strings.Join(terms, ":"), at
}

// laterPart returns partAt after what may be between two parts.
func laterPart(list []token, at int, words ...string) (number string, next int) {
	from := at
	for from < len(list) && !list[from].quoted && slices.Contains(betweenParts, list[from].key) {
		from++
	}
	if number, next = partAt(list, from, words...); number == "" {
		return "", at
	}
	return number, next
}

// partAt reads one phase with its counts: "hold 4", "exhale for 6 counts". Seconds are not counts.
func partAt(list []token, at int, words ...string) (number string, next int) {
	key := func(i int) string {
		if i < len(list) && !list[i].quoted {
			return list[i].key
		}
		return ""
	}
	if !slices.Contains(words, key(at)) {
		return "", at
	}
	next = at + 1
	if key(at) == "hold" && key(next) == "empty" && slices.Contains(words, "empty") ||
		key(at) == "empty" && key(next) == "hold" {
		next++
	}
	for slices.Contains(withinPart, key(next)) {
		next++
	}
	if next >= len(list) || list[next].number() == "" {
		return "", at
	}
	number = list[next].number()
	switch next++; {
	case slices.Contains(secondWords, key(next)), slices.Contains(minuteWords, key(next)):
		return "", at
	case key(next) == "count", key(next) == "counts":
		next++
	}
	return number, next
}
