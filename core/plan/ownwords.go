package plan

import (
	"encoding/json"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"vastlantern/core/breath"
)

// TextError is what is wrong in one line of a text, from 1.
type TextError struct {
	Line int
	Err  error
}

func (e TextError) Error() string { return fmt.Sprintf("line %d: %v", e.Line, e.Err) }

// TextErrors is everything that is wrong in a text.
type TextErrors []TextError

func (errs TextErrors) Error() string {
	list := make([]string, len(errs))
	for i, err := range errs {
		list[i] = err.Error()
	}
	return strings.Join(list, "\n")
}

var (
	roundPlace  = regexp.MustCompile(`^(?:r|rounds?)?(\d+)(?:-(\d+))?$`)
	breathPlace = regexp.MustCompile(`^b(\d+)$`)
	clockPlace  = regexp.MustCompile(`^(\d+):(\d\d(?:\.\d+)?)$`)
	timePlace   = regexp.MustCompile(`^(\d+(?:\.\d+)?)(s|m|min|sec)$`)
	optionWords = regexp.MustCompile(`\(([^)]*)\)`)
)

// SetOwnWords gives the passage its own words from text, one line each: the place, a colon and the words. "r3 hold: root lock",
// "every inhale: fill from below", "1:30: half of it is done", "rounds 2-4, exhale (room, aloud): softly". The places are those
// of cues.md section 3. The error is a TextErrors; the passage is as it was then.
func (f Fields) SetOwnWords(text string) error {
	var errs TextErrors
	list := []any{}
	for i, line := range strings.Split(text, "\n") {
		if strings.TrimSpace(line) == "" {
			continue
		}
		one, err := ownWords(line)
		if err != nil {
			errs = append(errs, TextError{i + 1, err})
			continue
		}
		list = append(list, one)
	}
	if len(errs) > 0 {
		return errs
	}
	delete(f.values, "lines")
	delete(f.values, "prompts") // the older form, which OwnWords writes as lines
	if len(list) > 0 {
		f.values["lines"] = list
	}
	return nil
}

func ownWords(line string) (map[string]any, error) {
	place, words, found := strings.Cut(line, ": ")
	if !found {
		if place, found = strings.CutSuffix(strings.TrimSpace(line), ":"); !found {
			return nil, &LineError{Why: `Write the place, a colon and the words, as "r3 hold: root lock" or "1:30: half of it is done"`}
		}
	}
	fields := map[string]any{"text": strings.TrimSpace(words)}
	for _, option := range optionWords.FindAllStringSubmatch(place, -1) {
		for word := range strings.SplitSeq(option[1], ",") {
			if err := setOption(fields, strings.Fields(fold(word))); err != nil {
				return nil, err
			}
		}
	}
	said := strings.FieldsFunc(fold(optionWords.ReplaceAllString(place, " ")), func(r rune) bool { return r == ' ' || r == ',' || r == '\t' })
	for len(said) > 0 {
		taken := setPlace(fields, said)
		if taken == 0 {
			at := strings.Index(fold(line), said[0])
			return nil, &LineError{At: max(0, at), End: max(0, at) + len(said[0]), Given: said[0],
				Why:     "a place is a round as r3 or r2-4, a phase as hold, opening, closing, rest 1, recall, or a time as 1:30",
				Nearest: nearest(said[0], placeWords)}
		}
		said = said[taken:]
	}
	return fields, nil
}

var placeWords = []string{"inhale", "hold", "exhale", "empty", "still", "stroke", "opening", "closing", "setup", "rest", "recall", "round", "every", "breath"}

func setOption(fields map[string]any, words []string) error {
	switch {
	case len(words) == 0:
	case words[0] == "room" || words[0] == "all" || words[0] == "teacher":
		fields["who"] = words[0]
	case words[0] == "everybody":
		fields["who"] = string(ForAll)
	case words[0] == "aloud" || words[0] == "said":
		fields["say"] = true
	case slices.Contains(words, "ahead"):
		number := strings.TrimSuffix(words[0], "s")
		if !numberForm.MatchString(number) {
			return &LineError{Given: strings.Join(words, " "), Why: "write how long ahead as 4 s ahead"}
		}
		fields["ahead"] = numeral(number)
	default:
		return &LineError{Given: strings.Join(words, " "), Why: "in brackets stand all, room or teacher, aloud, and 4 s ahead", Nearest: nearest(words[0], []string{"all", "room", "teacher", "aloud", "ahead"})}
	}
	return nil
}

// setPlace sets the place that the first words tell, and says how many it took.
func setPlace(fields map[string]any, said []string) int {
	next := ""
	if len(said) > 1 {
		next = said[1]
	}
	rounds := func(word string) bool {
		parts := roundPlace.FindStringSubmatch(word)
		if parts == nil {
			return false
		}
		fields["round"] = any(numeral(parts[1]))
		if parts[2] != "" {
			fields["round"] = []any{numeral(parts[1]), numeral(parts[2])}
		}
		return true
	}
	switch word := said[0]; {
	case slices.Contains([]string{"every", "each", "the", "throughout", "always", "in", "at", "of"}, word):
		return 1
	case word == "round" || word == "rounds":
		if next != "" && rounds(next) {
			return 2
		}
		return 1
	case word == "rest" || word == "rests":
		fields["stage"] = "rest"
		if next != "" && rounds(next) {
			return 2
		}
		return 1
	case word == "breath":
		if number, err := strconv.Atoi(next); err == nil {
			fields["breath"] = json.Number(strconv.Itoa(number))
			return 2
		}
		return 0
	case slices.Contains(linePhases, breath.Phase(word)) && word != "free":
		fields["phase"] = word
		return 1
	case word == "out" || word == "exhales":
		fields["phase"] = string(breath.Exhale)
		return 1
	case word == "inhales":
		fields["phase"] = string(breath.Inhale)
		return 1
	case slices.Contains(lineStages, word):
		fields["stage"] = word
		return 1
	case breathPlace.MatchString(word):
		fields["breath"] = numeral(breathPlace.FindStringSubmatch(word)[1])
		return 1
	case clockPlace.MatchString(word):
		parts := clockPlace.FindStringSubmatch(word)
		seconds, err := breath.ParseExact(parts[2])
		if err != nil {
			return 0
		}
		fields["second"] = json.Number(breath.Int(int64(60 * whole(parts[1]))).Add(seconds).String())
		return 1
	case timePlace.MatchString(word):
		parts := timePlace.FindStringSubmatch(word)
		amount, err := breath.ParseExact(parts[1])
		if err != nil {
			return 0
		}
		if parts[2][0] == 'm' {
			amount = amount.Times(60)
		}
		fields["second"] = json.Number(amount.String())
		return 1
	case rounds(word) && word[0] == 'r':
		return 1
	}
	delete(fields, "round") // a bare number is no round
	return 0
}

// OwnWords is the passage's own words as SetOwnWords reads them; p is the passage.
func (p *Passage) OwnWords() string {
	var text strings.Builder
	for i := range p.Lines {
		fmt.Fprintf(&text, "%s: %s\n", p.Lines[i].place(p), oneLine(p.Lines[i].Text))
	}
	return strings.TrimSuffix(text.String(), "\n")
}

func oneLine(text string) string { return strings.Join(strings.Fields(text), " ") }

func (l *Line) place(p *Passage) string {
	var words []string
	if l.Stage != p.usualStage() {
		words = append(words, l.Stage)
	}
	span := ""
	switch {
	case l.First > 0 && l.First == l.Last:
		span = strconv.Itoa(l.First)
	case l.First > 0:
		span = fmt.Sprintf("%d-%d", l.First, l.Last)
	}
	if span != "" && l.Stage != "rest" {
		span = "r" + span
	}
	if span != "" {
		words = append(words, span)
	}
	if l.Breath > 0 {
		words = append(words, fmt.Sprintf("b%d", l.Breath))
	}
	if l.Phase != "" {
		if len(words) == 0 {
			words = append(words, "every")
		}
		words = append(words, string(l.Phase))
	}
	if l.Second.Sign() >= 0 {
		words = append(words, clockTime(l.Second))
	}
	if len(words) == 0 || len(words) == 1 && (words[0] == "opening" || words[0] == "closing") {
		words = append([]string{"throughout"}, words...) // "closing: 2 breaths" is what stands there
	}
	var options []string
	if l.Who != ForTeacher {
		options = append(options, string(l.Who))
	}
	if l.Say {
		options = append(options, "aloud")
	}
	if !l.Ahead.Equal(breath.Int(defaultAhead)) {
		options = append(options, l.Ahead.String()+" s ahead")
	}
	if len(options) > 0 {
		words = append(words, "("+strings.Join(options, ", ")+")")
	}
	return strings.Join(words, " ")
}

// clockTime writes seconds as 1:30.
func clockTime(seconds breath.Exact) string {
	minutes := seconds.Div(breath.Int(60)).Floor()
	rest := seconds.Sub(breath.Int(60 * minutes)).String()
	if whole, _, _ := strings.Cut(rest, "."); len(whole) < 2 {
		rest = "0" + rest
	}
	return fmt.Sprintf("%d:%s", minutes, rest)
}
