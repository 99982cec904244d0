package line

import (
	"regexp"
	"slices"
	"strconv"
	"strings"

	"vastlantern/core/breath"
)

// noNames says of no numbers in a row that they are a name.
func noNames([]token) bool { return false }

// amounts puts one number in the place of the words and marks that say it: "twenty five", "a dozen", "five and a half",
// 1½, "twice", 5-7 minutes. It makes counts of 4444 and of a ratio with its base, and one word of each phrase for order
// and sides ("after that", "right then left"). isName tells of numbers in a row whether they are a name.
func (l *lexicon) amounts(line string, list []token, isName func([]token) bool) []token {
	list = l.phrases(line, list)
	var all []token
	for i := 0; i < len(list); {
		number, n := numberAt(list, i)
		if n == 0 {
			all = append(all, list[i])
			i++
			continue
		}
		all = append(all, joined(line, list[i:i+n], number))
		i += n
		if times := map[string]bool{"once": true, "twice": true, "thrice": true}; times[list[i-1].key] {
			t := all[len(all)-1]
			t.text, t.key = "times", "times"
			all = append(all, t)
		}
	}
	return ratios(line, digitCounts(line, all, isName))
}

// joined returns one token in the place of several.
func joined(line string, list []token, text string) token {
	first, last := list[0], list[len(list)-1]
	return token{text: text, key: text, given: line[first.at:last.end], at: first.at, end: last.end}
}

// phrases puts the words of the grammar in the place of each phrase, and reads "until 7:15".
func (l *lexicon) phrases(line string, list []token) []token {
	var all []token
	for i := 0; i < len(list); {
		as, n := l.phraseAt(list, i)
		if n == 0 {
			as, n = []string{"where"}, placeAt(list, i)
		}
		switch {
		case n > 0:
			for _, word := range as {
				all = append(all, joined(line, list[i:i+n], word))
			}
			i += n
		case clockAt(list, i) != "":
			clock := clockAt(list, i)
			all = append(all, token{
				text: "untilclock", key: "untilclock", given: line[list[i].at:list[i+1].end], at: list[i].at, end: list[i+1].end,
			}, token{text: clock, key: clock, given: list[i+1].given, at: list[i+1].at, end: list[i+1].end})
			i += 2
			if i < len(list) && (list[i].key == "pm" || list[i].key == "am") {
				i++
			}
		default:
			all = append(all, list[i])
			i++
		}
	}
	return all
}

// placeAt returns how many tokens say where hands are: "hands on the belly". That is no zone and no side.
func placeAt(list []token, i int) (n int) {
	key := func(k int) string {
		if i+k < len(list) && !list[i+k].quoted {
			return list[i+k].key
		}
		return ""
	}
	if !slices.Contains([]string{"hand", "hands", "thumb", "thumbs", "palm", "palms", "hande"}, key(0)) ||
		!slices.Contains([]string{"on", "over", "at", "in", "under", "to", "auf"}, key(1)) {
		return 0
	}
	n = 2
	if slices.Contains([]string{"the", "your", "their"}, key(n)) {
		n++
	}
	if key(n) == "" || key(n) == "," {
		return 0
	}
	return n + 1
}

func (l *lexicon) phraseAt(list []token, i int) (as []string, n int) {
	for _, s := range l.spellings {
		at := i
		for _, part := range s.words {
			if at >= len(list) || list[at].quoted || list[at].text != part {
				at = -1
				break
			}
			at++
		}
		if at > 0 {
			return s.as, at - i
		}
	}
	return nil, 0
}

// A time of day in a line: 7:15, 19.15, 7:15pm.
var clockForm = regexp.MustCompile(`^([01]?\d|2[0-3])[:.]([0-5]\d)(am|pm)?$`)

// clockAt returns the time of day of "until 7:15", as HH:MM; empty if there is none.
func clockAt(list []token, i int) string {
	if i+1 >= len(list) || list[i].quoted || !slices.Contains([]string{"until", "till"}, list[i].key) {
		return ""
	}
	m := clockForm.FindStringSubmatch(list[i+1].text)
	if m == nil {
		return ""
	}
	hour := whole(m[1])
	if pm := m[3] == "pm" || i+2 < len(list) && list[i+2].key == "pm"; pm && hour < 12 {
		hour += 12
	}
	return strconv.Itoa(hour) + ":" + m[2]
}

var (
	tensWords = map[string]int{
		"twenty": 20, "thirty": 30, "forty": 40, "fifty": 50, "sixty": 60, "seventy": 70, "eighty": 80, "ninety": 90,
	}
	otherNumbers = map[string]string{
		"thirteen": "13", "fourteen": "14", "sixteen": "16", "seventeen": "17", "eighteen": "18", "nineteen": "19",
		"seventy": "70", "eighty": "80", "ninety": "90", "hundred": "100", "dozen": "12", "once": "1", "twice": "2",
		"thrice": "3",
	}
	halves = regexp.MustCompile(`^(\d*)½$`)
)

// numberAt reads a number that takes more than a token, or is none of the usual words; n is 0 for all others.
func numberAt(list []token, i int) (number string, n int) {
	key := func(k int) string {
		if i+k < len(list) && !list[i+k].quoted {
			return list[i+k].key
		}
		return ""
	}
	if list[i].quoted {
		return "", 0
	}
	if m := halves.FindStringSubmatch(list[i].text); m != nil {
		return strconv.Itoa(whole(m[1])) + ".5", 1
	}
	units := func(k int) bool {
		return slices.Contains(minuteWords, key(k)) || slices.Contains(secondWords, key(k)) || key(k) == "rounds" ||
			key(k) == "breaths"
	}
	if low, _, ranged := strings.Cut(list[i].given, "-"); ranged && numberForm.MatchString(low) &&
		strings.Count(list[i].text, ":") == 1 && units(1) {
		return low, 1 // 5-7 minutes: the least of it
	}
	switch {
	case list[i].number() != "" && (key(1) == "to" || key(1) == "until") && i+2 < len(list) && list[i+2].number() != "" &&
		units(3):
		return list[i].number(), 3 // 15 to 20 minutes: the least of it
	case key(0) == "half" && key(1) == "a" && key(2) == "dozen":
		return "6", 3
	case (key(0) == "a" || key(0) == "one") && key(1) == "dozen":
		return "12", 2
	case key(0) == "a" && key(1) == "couple":
		return "2", 2 + len(slices.DeleteFunc([]string{key(2)}, func(s string) bool { return s != "of" }))
	case key(0) == "a" && key(1) == "hundred":
		return "100", 2
	case tensWords[key(0)] > 0 && whole(numberWords[key(1)]) > 0 && whole(numberWords[key(1)]) < 10:
		return strconv.Itoa(tensWords[key(0)] + whole(numberWords[key(1)])), 2
	case whole(list[i].number()) > 0 && whole(list[i].number()) < 10 && key(1) == "hundred":
		hundreds, at := whole(list[i].number())*100, 2
		if key(2) == "and" {
			at = 3
		}
		if i+at < len(list) && whole(list[i+at].number()) > 0 && whole(list[i+at].number()) < 100 {
			return strconv.Itoa(hundreds + whole(list[i+at].number())), at + 1
		}
		return strconv.Itoa(hundreds), 2
	}
	number, n = otherNumbers[key(0)], 1
	if number == "" {
		number, n = list[i].number(), 0
	}
	if number == "" {
		return "", 0
	}
	switch {
	case key(1) == "and" && key(2) == "a" && key(3) == "half":
		return number + ".5", 4
	case key(1) == "1:2" && list[i+1].given == "1/2" && units(2):
		return number + ".5", 2
	case key(1) == "," && units(3) && i+2 < len(list) && list[i+2].number() != "" && list[i].end == list[i+1].at &&
		list[i+1].end == list[i+2].at:
		return number + "." + list[i+2].text, 3 // 1,5 min
	}
	return number, n
}

var runOfDigits = regexp.MustCompile(`^[1-9]{3,4}$`)

// digitCounts reads 4444 and 478 as counts, where what follows does not say that they are a number of something.
func digitCounts(line string, list []token, isName func([]token) bool) []token {
	list = numbersInARow(line, list, isName)
	for i := range list {
		t := &list[i]
		if t.quoted || !runOfDigits.MatchString(t.text) || t.text != t.given {
			continue
		}
		if i > 0 && slices.Contains([]string{"@", "tempo", "at", "x", "rate"}, list[i-1].key) {
			continue
		}
		times := i+2 < len(list) && list[i+1].key == "x" && list[i+2].number() != ""
		if i+1 < len(list) && !times && (slices.Contains(secondWords, list[i+1].key) ||
			slices.Contains(minuteWords, list[i+1].key) ||
			slices.Contains(countedThings, list[i+1].key)) {
			continue
		}
		t.text = strings.Join(strings.Split(t.text, ""), ":")
		t.key = t.text
	}
	return list
}

// numbersInARow reads "4 4 8" as counts: three or four small numbers in digits, of which the last is no number of
// anything.
func numbersInARow(line string, list []token, isName func([]token) bool) []token {
	small := func(i int) bool {
		return i < len(list) && len(list[i].number()) > 0 && len(list[i].number()) <= 2 &&
			(list[i].given == list[i].text || numberWords[list[i].key] != "")
	}
	for i := range list {
		n := 0
		for small(i + n) {
			n++
		}
		before := i > 0 && (list[i-1].key == "x" || list[i-1].key == "@")
		if n < 3 || n > 4 || before || isName(list[i:i+n]) {
			continue
		}
		if next := i + n; next < len(list) && (slices.Contains(countedThings, list[next].key) ||
			slices.Contains(minuteWords, list[next].key) || slices.Contains(secondWords, list[next].key)) {
			if n--; n < 3 {
				continue
			}
		}
		terms := make([]string, n)
		for k := range terms {
			terms[k] = list[i+k].number()
		}
		one := joined(line, list[i:i+n], strings.Join(terms, ":"))
		return numbersInARow(line, slices.Replace(slices.Clone(list), i, i+n, one), isName)
	}
	return list
}

// countedThings are words after a number that say what it is a number of.
var countedThings = []string{
	"x", "times", "rounds", "round", "sets", "strokes", "stroke", "st", "pumps", "breaths", "breath", "b", "a", "per",
	"reps",
}

// usualBase is the inhale of a ratio that is given no base (common practice, with no source).
const usualBase = 4

// ratios multiplies a ratio with its base: "base 4 ratio 1:4:2" is 4:16:8.
func ratios(line string, list []token) []token {
	base, from, to := 0, -1, -1
	ratio := slices.ContainsFunc(list, func(t token) bool { return !t.quoted && t.key == "ratio" })
	for i := range list {
		if list[i].quoted || list[i].key != "base" {
			continue
		}
		next := i + 1
		for next < len(list) && slices.Contains([]string{"of", "count", "is", "number"}, list[next].key) {
			next++
		}
		if next < len(list) && list[next].number() != "" {
			base, from, to = whole(list[next].number()), i, next+1
		} else if i > 0 && list[i-1].number() != "" {
			base, from, to = whole(list[i-1].number()), i-1, i+1
		} else if before := slices.IndexFunc(list[max(0, i-3):i],
			func(t token) bool { return t.number() != "" }); before >= 0 {
			from = max(0, i-3) + before // "4 as the base"
			base, to = whole(list[from].number()), i+1
		}
	}
	if base == 0 && ratio {
		base = usualBase
	}
	at := slices.IndexFunc(list, func(t token) bool { return !t.quoted && isCounts(t.text) })
	if base == 0 || at < 0 {
		return list
	}
	terms := strings.Split(list[at].text, ":")
	if from < 0 && terms[0] != "1" {
		return list // it is no ratio but counts
	}
	for i, term := range terms {
		x, err := breath.ParseExact(term)
		if err != nil {
			return list
		}
		terms[i] = x.Times(base).String()
	}
	list = slices.Clone(list)
	list[at].text = strings.Join(terms, ":")
	list[at].key = list[at].text
	if from >= 0 {
		list[at].given = line[min(list[at].at, list[from].at):max(list[at].end, list[to-1].end)]
		list[at].at, list[at].end = min(list[at].at, list[from].at), max(list[at].end, list[to-1].end)
		list = slices.Delete(list, from, to)
	}
	return list
}
