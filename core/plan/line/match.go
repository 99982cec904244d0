package line

import (
	"encoding/json"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
)

func whole(digits string) int {
	n, err := strconv.Atoi(digits)
	if err != nil {
		return 0 // what is no count is for Read to tell
	}
	return n
}

// fillers say nothing by themselves, and may be anywhere.
var fillers = []string{
	"a",
	"an",
	"the",
	"of",
	"for",
	"and",
	"with",
	"on",
	"to",
	"at",
	"by",
	"through",
	"their",
	"each",
	"side",
	"first",
	"nostril",
	"from",
	"starting",
	"start",
	"please",
	"it",
	"ratio",
	"counts",
	",",
	"in",
	"side",
	"minutes",
	"we",
	"us",
	"our",
	"do",
	"let",
	"lets",
	"some",
	"about",
	"around",
	"roughly",
	"approx",
	"ca",
	"begin",
	"beginning",
	"open",
	"opening",
	"close",
	"closing",
	"finish",
	"finishing",
	"end",
	"ending",
	"then",
	"next",
	"another",
	"more",
	"is",
	"are",
	"as",
	"well",
	"also",
	"pranayama",
	"maybe",
	"perhaps",
	"just",
	"please",
	"everyone",
	"everybody",
	"all",
	"beginnen",
	"beginnend",
	"only",
	"je",
	"per",
	"between",
	"wir",
	"ich",
	"etwa",
	"noch",
	"mit",
	"im",
	"zum",
	"zu",
	"-",
}

// match reports how many tokens from i on the pattern takes, and what it found; 0 if it does not fit.
func match(pattern string, of subject, list []token, i int) (n int, found matched) {
	at := i
	for element := range strings.FieldsSeq(pattern) {
		optional := strings.HasSuffix(element, "?")
		taken := matchOne(strings.TrimSuffix(element, "?"), of, list, at, &found)
		if taken == 0 && !optional {
			return 0, matched{}
		}
		at += taken
	}
	return at - i, found
}

func matchOne(element string, of subject, list []token, at int, found *matched) int {
	if at >= len(list) || list[at].quoted {
		return 0
	}
	switch element {
	case "N":
		digits := list[at].number()
		if digits == "" {
			return 0
		}
		found.numbers = append(found.numbers, digits)
		return 1
	case "COUNTS":
		text := list[at].text
		if !isCounts(text) || of.stretch() {
			return 0
		}
		found.counts = text
		return 1
	case "CLOCK":
		if !clockOnly.MatchString(list[at].text) {
			return 0
		}
		found.counts = list[at].text
		return 1
	case "TIME":
		seconds, n := timeAt(list, at, of.stretch())
		found.seconds = seconds
		return n
	case "LIST":
		n := 0
		for at+n < len(list) && isCounts(list[at+n].text) {
			found.list = append(found.list, list[at+n].text)
			for n++; at+n < len(list) && (list[at+n].key == "or" || list[at+n].key == ","); {
				n++
			}
		}
		return n
	case "PHASES":
		n := 0
		for next := at; next < len(list); next++ {
			word := list[next].key
			if n > 0 && (word == "and" || word == ",") && next == at+n {
				continue
			}
			phase := strings.TrimSuffix(word, "s") // inhales too
			if !slices.Contains(plan.AllByHand.Phases(), breath.Phase(phase)) {
				break
			}
			found.list = append(found.list, phase)
			n = next + 1 - at
		}
		return n
	case "WORDS":
		n := 0
		var words []string
		for at+n < len(list) && list[at+n].key != "," && list[at+n].key != ";" && !list[at+n].quoted {
			words = append(words, list[at+n].given)
			n++
		}
		found.rest = strings.Join(words, " ")
		return n
	}
	for word := range strings.SplitSeq(element, "|") {
		if list[at].key == word {
			found.words = append(found.words, word)
			return 1
		}
	}
	return 0
}

var clockOnly = regexp.MustCompile(`^\d?\d:\d\d$`)

func isCounts(text string) bool { return dashed.MatchString(text) && strings.Contains(text, ":") }

var (
	minuteWords = []string{"m", "min", "mins", "minute", "minutes"}
	hourWords   = []string{"h", "hr", "hrs", "hour", "hours", "stunde", "stunden"}
	secondWords = []string{"s", "sec", "secs", "second", "seconds"}
)

// timeAt reads a time: 2 min, 90 s, 1m30s, a minute, half a minute; 1:30 if there are no counts it could be.
func timeAt(list []token, at int, clock bool) (seconds breath.Exact, n int) {
	word := func(i int) string {
		if at+i < len(list) && !list[at+i].quoted {
			return list[at+i].key
		}
		return ""
	}
	article := func(i int) int { // how many words: half a minute, une demi-minute
		if word(i) == "a" || word(i) == "an" {
			return 1
		}
		return 0
	}
	if half := article(0); word(half) == "half" {
		unit := half + 1 + article(half+1)
		switch {
		case slices.Contains(hourWords, word(unit)):
			return breath.Int(1800), unit + 1
		case slices.Contains(minuteWords, word(unit)):
			return breath.Int(30), unit + 1
		}
		return breath.Exact{}, 0
	}
	if minutes, secs, ok := strings.Cut(word(0), ":"); clock && ok && len(secs) == 2 && !strings.Contains(secs, ":") {
		return breath.Int(int64(60*whole(minutes) + whole(secs))), 1
	}
	amount := list[at].number()
	if amount == "" && (word(0) == "a" || word(0) == "an") {
		amount = "1"
	}
	if amount == "" {
		return breath.Exact{}, 0
	}
	x, err := breath.ParseExact(amount)
	switch {
	case err != nil:
		return breath.Exact{}, 0
	case slices.Contains(secondWords, word(1)):
		return x, 2
	case slices.Contains(hourWords, word(1)):
		return x.Times(3600), 2
	case slices.Contains(minuteWords, word(1)) && word(2) == "and" && word(3+article(3)) == "half":
		return x.Times(60).Add(breath.Int(30)), 4 + article(3)
	case !slices.Contains(minuteWords, word(1)):
		return breath.Exact{}, 0
	}
	x = x.Times(60)
	if at+2 < len(list) {
		if more, err := breath.ParseExact(list[at+2].number()); err == nil && list[at+2].number() != "" {
			if slices.Contains(secondWords, word(3)) {
				return x.Add(more), 4
			}
			if list[at].at == list[at+2].at { // 1m30
				return x.Add(more), 3
			}
		}
	}
	return x, 2
}

// numeral returns a number as JSON writes it, without the leading zeros that people write.
func numeral(text string) json.Number {
	text = strings.TrimLeft(text, "0")
	if text == "" || text[0] == '.' {
		text = "0" + text
	}
	return json.Number(text)
}
