package line

import (
	"slices"
	"strconv"
	"strings"

	"vastlantern/core/breath"
)

// Words that may be between the parts of a breath that is spoken, and within one of them.
var (
	betweenParts = []string{",", "and", "then", "breathe"}
	withinPart   = []string{"for", "to", "of", "a", "the", "on", "count", "with", "at"}
	// What is before "in" where it is no inhale: count in 4, lead in 3, narrow in.
	notInhale = []string{"count", "lead", "numbers", "narrow", "only", "beside"}
)

// spoken puts counts in the place of a breath that is spoken, phase by phase in its order: "inhale 6 hold 4 exhale 6",
// "in 4 out 4", "4 in, 6 out", "in and out for 5". What is not said is not held. Seconds are counts at 60 a minute. A
// part of a breath, as "hold 8", is left as it is: it changes a practice that is named.
func spoken(line string, list []token) []token {
	var all []token
	paced := slices.ContainsFunc(list, func(t token) bool { return t.key == "@" || t.key == "tempo" })
	for i := 0; i < len(list); {
		said, next := breathAt(list, i)
		if next == i {
			all = append(all, list[i])
			i++
			continue
		}
		counts, tempo := said.counts()
		one := joined(line, list[i:next], counts)
		all = append(all, one)
		if tempo != "" && !paced {
			at, number := one, one
			at.text, at.key, number.text, number.key = "@", "@", tempo, tempo
			all = append(all, at, number)
		}
		i = next
	}
	return all
}

// saidBreath is the parts of a spoken breath, in counts or in seconds; empty for what is not said.
type saidBreath struct {
	parts   [4]string
	seconds bool
}

// counts writes the breath as counts, and the tempo that makes seconds of them; empty where none is needed. Halves are
// counted at a tempo at which they are whole.
func (s saidBreath) counts() (counts, tempo string) {
	terms, halves, same := []breath.Exact{}, false, true
	for i, part := range s.parts {
		if part == "" {
			if i == 1 && s.parts[3] == "" || i == 3 {
				continue
			}
			part = "0"
		}
		x, _ := breath.ParseExact(part) // a number of the line
		_, isWhole := x.Whole()
		halves = halves || !isWhole
		same = same && (x.Sign() == 0 || len(terms) == 0 || x.Equal(terms[0]))
		terms = append(terms, x)
	}
	if s.seconds {
		tempo = "60"
	}
	list := make([]string, len(terms))
	for i, x := range terms {
		switch {
		case !halves:
		case same && x.Sign() > 0: // 5.5 seconds each: five counts that are a little longer
			floor := breath.Int(x.Floor())
			if s.seconds {
				tempo = strconv.FormatFloat(floor.Times(60).Div(x).Float(), 'f', 2, 64)
			}
			x = floor
		default:
			x = x.Times(2)
			if s.seconds {
				tempo = "120"
			}
		}
		list[i] = x.String()
	}
	return strings.Join(list, ":"), tempo
}

// breathAt reads a whole breath from i on, and where it ends; i if there is none.
func breathAt(list []token, i int) (said saidBreath, next int) {
	if i > 0 && slices.Contains(notInhale, list[i-1].key) {
		return said, i
	}
	if both, next := bothAt(list, i); next > i {
		return both, next
	}
	for _, read := range []func([]token, int, ...string) (part, int){partAt, partBefore} {
		said, next = breathOf(list, i, read)
		if next == i {
			continue
		}
		if list[i].number() != "" { // "x6 in 4 out 8" is no breath that begins with 6
			if _, later := breathOf(list, i+1, partAt); later > next {
				return saidBreath{}, i
			}
		}
		return said, next
	}
	return saidBreath{}, i
}

// part is one phase as it is said.
type part struct {
	number  string
	seconds bool
}

func breathOf(list []token, i int, read func([]token, int, ...string) (part, int)) (said saidBreath, next int) {
	inhale, at := read(list, i, "inhale", "in", "breathe")
	if inhale.number == "" {
		return said, i
	}
	later := func(words ...string) (one part) {
		from := at
		for from < len(list) && !list[from].quoted && slices.Contains(betweenParts, list[from].key) {
			from++
		}
		one, next := read(list, from, words...)
		if one.number != "" {
			at = next
		}
		return one
	}
	hold := later("hold", "holding", "pause", "retain")
	exhale := later("exhale", "out")
	if exhale.number == "" {
		return said, i
	}
	empty := later("hold", "holding", "empty", "pause")
	said.parts = [4]string{inhale.number, hold.number, exhale.number, empty.number}
	said.seconds = inhale.seconds || exhale.seconds
	return said, at
}

// bothAt reads "in and out for 5", "5 in and out" and "5 in and 5 out" as far as both are alike.
func bothAt(list []token, i int) (said saidBreath, next int) {
	key := func(at int) string {
		if at < len(list) && !list[at].quoted {
			return list[at].key
		}
		return ""
	}
	both := func(at int) bool {
		return slices.Contains([]string{"in", "inhale"}, key(at)) && key(at+1) == "and" &&
			slices.Contains([]string{"out", "exhale"}, key(at+2))
	}
	if one, at := numberOf(list, i); one.number != "" && both(at) && (i == 0 || key(i-1) != "x" && key(i-1) != "@") {
		if two, _ := numberOf(list, at+3); two.number == "" {
			return saidBreath{[4]string{one.number, "", one.number, ""}, one.seconds}, at + 3
		}
	}
	if !both(i) {
		return said, i
	}
	at := i + 3
	for slices.Contains(withinPart, key(at)) {
		at++
	}
	if one, end := numberOf(list, at); one.number != "" {
		return saidBreath{[4]string{one.number, "", one.number, ""}, one.seconds}, end
	}
	return said, i
}

// numberOf reads a number of counts or seconds.
func numberOf(list []token, at int) (one part, next int) {
	if at >= len(list) || list[at].quoted || list[at].number() == "" {
		return one, at
	}
	one.number = list[at].number()
	next = at + 1
	if next < len(list) && !list[next].quoted {
		switch key := list[next].key; {
		case slices.Contains(minuteWords, key):
			return part{}, at
		case slices.Contains(secondWords, key):
			one.seconds = true
			next++
		case key == "count" || key == "counts" || key == "beats":
			next++
		}
	}
	return one, next
}

// partBefore reads one phase whose counts are said first: "4 in", "four counts hold".
func partBefore(list []token, at int, words ...string) (one part, next int) {
	if at > 0 && at <= len(list) && (list[at-1].key == "x" || list[at-1].key == "@") {
		return one, at
	}
	one, next = numberOf(list, at)
	if one.number == "" {
		return one, at
	}
	for next < len(list) && !list[next].quoted && slices.Contains(withinPart, list[next].key) {
		next++
	}
	if next >= len(list) || list[next].quoted || !slices.Contains(words, list[next].key) {
		return part{}, at
	}
	next++
	if next < len(list) && !list[next].quoted && list[next].key == "empty" && slices.Contains(words, "empty") {
		next++
	}
	return one, next
}

// partAt reads one phase with its counts: "hold 4", "exhale for 6 counts".
func partAt(list []token, at int, words ...string) (one part, next int) {
	key := func(i int) string {
		if i < len(list) && !list[i].quoted {
			return list[i].key
		}
		return ""
	}
	if !slices.Contains(words, key(at)) {
		return one, at
	}
	next = at + 1
	switch {
	case key(at) == "breathe" && (key(next) == "in" || key(next) == "out"):
		next++
	case key(at) == "breathe":
		return one, at
	case key(at) == "hold" && key(next) == "empty" && slices.Contains(words, "empty"),
		key(at) == "empty" && key(next) == "hold":
		next++
	}
	for slices.Contains(withinPart, key(next)) {
		next++
	}
	if one, next = numberOf(list, next); one.number == "" {
		return one, at
	}
	return one, next
}
