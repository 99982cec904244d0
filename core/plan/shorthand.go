package plan

import (
	"encoding/json"
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strings"

	"vastlantern/core/breath"
	"vastlantern/core/practice"
)

// covered are the fields that the short way of writing a passage stands for. The text is the whole of them: a
// field that it does not name goes back to its default.
var covered = []string{"counts", "rounds", "minutes", "tempo", "side", "pace", "seconds", "breaths", "strokes", "rate", "open_seconds"}

var (
	countsWord  = regexp.MustCompile(`^\d+(:\d+)+$`)
	roundsWord  = regexp.MustCompile(`^[x×](\d+)$`)
	tempoWord   = regexp.MustCompile(`^@(\d+(?:\.\d+)?)$`)
	strokesWord = regexp.MustCompile(`^(\d+)st$`)
	openWord    = regexp.MustCompile(`^\d+(?:\.\d+)?(?::\d+(?:\.\d+)?){3}$`)
	breathsWord = regexp.MustCompile(`^(\d+)b$`)
	timeWord    = regexp.MustCompile(`^(?:(\d+(?:\.\d+)?)m(?:in)?)?(?:(\d+(?:\.\d+)?)s)?$`)
)

// Shorten rewrites a passage from the short way of writing it, "4:4:8 x6 @50": counts, x and rounds or a time as 3m
// or 1m30s, @ and tempo, left or right, own for own pace. Of strokes 20st is twenty a round and @ the rate; of open
// phases 6:10:8:6 are their seconds; of free breathing 10b is ten breaths. The error says which word was not
// understood; whether the values are allowed is for Read to say.
func Shorten(f Fields, text string, own ...*practice.Practice) (Fields, error) {
	next := maps.Clone(f.values)
	for _, field := range covered {
		delete(next, field)
	}
	var kind practice.Kind // none for talks and free breathing
	if next["type"] == string(Practice) {
		kind = practice.Counted
		id, _ := next["practice"].(string)
		if p := book(own).find(id); p != nil {
			kind = p.Kind
		}
	}
	for word := range strings.FieldsSeq(strings.ToLower(text)) {
		if err := next.shortWord(word, kind); err != nil {
			return f, err
		}
	}
	if next["pace"] == "own" {
		delete(next, "rounds") // "x6 own" cannot be meant; own pace is timed
	}
	return Fields{next}, nil
}

func (d object) shortWord(word string, kind practice.Kind) error {
	isPractice := kind != ""
	switch {
	case kind == practice.Open && openWord.MatchString(word):
		d.shortOpen(word)
	case kind == practice.Strokes && strokesWord.MatchString(word):
		d["strokes"] = numeral(strokesWord.FindStringSubmatch(word)[1])
	case kind == practice.Strokes && tempoWord.MatchString(word):
		d["rate"] = numeral(tempoWord.FindStringSubmatch(word)[1])
	case isPractice && countsWord.MatchString(word):
		d["counts"] = word
	case isPractice && roundsWord.MatchString(word):
		d["rounds"] = numeral(roundsWord.FindStringSubmatch(word)[1])
	case isPractice && tempoWord.MatchString(word):
		d["tempo"] = numeral(tempoWord.FindStringSubmatch(word)[1])
	case isPractice && (word == "left" || word == "right"):
		d["side"] = word
	case isPractice && word == "own":
		d["pace"] = word
	case d["type"] == string(Free) && breathsWord.MatchString(word):
		d["breaths"] = numeral(breathsWord.FindStringSubmatch(word)[1])
	case timeWord.MatchString(word):
		d.shortTime(timeWord.FindStringSubmatch(word), isPractice)
	case isPractice:
		return fmt.Errorf("%q is not understood: write %s, rounds as x6 or a time as 3m, %s", word, firstWords[kind], lastWords[kind])
	default:
		return fmt.Errorf("%q is not understood: write a time as 90s, 2m or 1m30s, or for free breathing breaths as 10b", word)
	}
	return nil
}

var (
	firstWords = map[practice.Kind]string{
		practice.Counted: "counts as 4:4:8", practice.Strokes: "strokes as 20st", practice.Open: "seconds as 6:10:8:6", practice.Fixed: "tempo as @88",
	}
	lastWords = map[practice.Kind]string{
		practice.Counted: "tempo as @50, left, right or own", practice.Strokes: "rate as @60, or own", practice.Open: "or own", practice.Fixed: "or own",
	}
)

func (d object) shortOpen(word string) {
	var lengths []any
	for term := range strings.SplitSeq(word, ":") {
		lengths = append(lengths, numeral(term))
	}
	d["open_seconds"] = lengths
}

// numeral is a number as JSON writes it, without the leading zeros that people write.
func numeral(text string) json.Number {
	text = strings.TrimLeft(text, "0")
	if text == "" || text[0] == '.' {
		text = "0" + text
	}
	return json.Number(text)
}

func (d object) shortTime(parts []string, isPractice bool) {
	minutes, _ := breath.ParseExact("0" + parts[1])
	secs, _ := breath.ParseExact("0" + parts[2])
	if isPractice {
		d["minutes"] = json.Number(minutes.Add(secs.Div(breath.Int(60))).String())
		return
	}
	d["seconds"] = json.Number(minutes.Times(60).Add(secs).String())
}

// NewPassage is a passage from one line, "nadi 4:4:8 x6 @50", "rest 2m" or "talk 1m seat and spine": what it is, then
// words as Shorten reads them; after a talk or a rest, all others are its title.
func NewPassage(line string, own ...*practice.Practice) (Fields, error) {
	words := strings.Fields(line)
	if len(words) == 0 {
		return Fields{}, fmt.Errorf("write what to add: talk, rest or a practice, as %q", "nadi 4:4:8 x6 @50")
	}
	name := strings.ToLower(words[0])
	switch name {
	case "talk", "free", "rest":
		return newStretch(name, words[1:])
	}
	p, err := book(own).byPrefix(name)
	if err != nil {
		return Fields{}, err
	}
	return Shorten(NewFields(p.ID), strings.Join(words[1:], " "), own...)
}

// NewPassages is NewPassage, but a practice comes as its course has it: the whole of it where nothing is said of the
// practice, and where something is said, with the opening and closing of a course of one passage.
func NewPassages(line string, own ...*practice.Practice) ([]Fields, error) {
	one, err := NewPassage(line, own...)
	if err != nil {
		return nil, err
	}
	p := book(own).find(one.Practice())
	if p == nil || len(p.Course) == 0 {
		return []Fields{one}, nil
	}
	course, err := Course(p)
	words := strings.Fields(line)[1:]
	if err != nil || len(words) == 0 {
		return course, err
	}
	if len(course) == 1 {
		one, err = Shorten(course[0], strings.Join(words, " "), own...)
	}
	return []Fields{one}, err
}

func newStretch(name string, words []string) (Fields, error) {
	kind := Talk
	if name != "talk" {
		kind = Free
	}
	f := NewStretch(kind, "", breath.Int(defaultTalk))
	if name == "rest" {
		f.values["title"] = "Rest"
	}
	var title []string
	for _, word := range words {
		next, err := Shorten(f, word)
		if err != nil || timeWord.FindString(word) == "" && !breathsWord.MatchString(word) {
			title = append(title, word)
			continue
		}
		f = next
	}
	if len(title) > 0 {
		f.values["title"] = strings.Join(title, " ")
	}
	return f, nil
}

func (own book) byPrefix(name string) (*practice.Practice, error) {
	var found []string
	for _, p := range slices.Concat(own, practice.Catalogue()) {
		if p.ID == name {
			return p, nil
		}
		if strings.HasPrefix(p.ID, name) {
			found = append(found, p.ID)
		}
	}
	switch len(found) {
	case 1:
		return own.find(found[0]), nil
	case 0:
		return nil, fmt.Errorf("no practice is called %q: there are talk, rest, %s", name, own.ids())
	}
	return nil, fmt.Errorf("%q could be %s: write more of it", name, strings.Join(found, " or "))
}
