package line

import (
	"encoding/json"
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/fold"
	"vastlantern/core/plan"
)

// TextError is what is wrong in one line of a text, from 1.
type TextError struct {
	Line int
	Err  error
}

// Tell says which line it is, and what is wrong in it.
func (e TextError) Tell() fact.Fact { return fact.New("line.numbered", "line", e.Line, "error", e.Err) }

func (e TextError) Error() string { return e.Tell().Error() }

// TextErrors is everything that is wrong in a text.
type TextErrors []TextError

// Tell has a line for each.
func (errs TextErrors) Tell() fact.Fact { return fact.Lines(errs) }

func (errs TextErrors) Error() string { return errs.Tell().Error() }

var (
	roundPlace  = regexp.MustCompile(`^(?:r|rounds?)?(\d+)(?:-(\d+))?$`)
	breathPlace = regexp.MustCompile(`^b(\d+)$`)
	clockPlace  = regexp.MustCompile(`^(\d+):(\d\d(?:\.\d+)?)$`)
	timePlace   = regexp.MustCompile(`^(\d+(?:\.\d+)?)(s|m|min|sec)$`)
	optionWords = regexp.MustCompile(`\(([^)]*)\)`)
	firstOption = regexp.MustCompile(`^\(([^)]*)\)\s*`)
	lastOption  = regexp.MustCompile(`\s*\(([^)]*)\)$`)
)

// SetOwnWords gives the passage its own words from text, one line each: the place, a colon and the words. "r3 hold:
// root lock", "every inhale: fill from below", "1:30: half of it is done", "rounds 2-4, exhale (room, aloud): softly",
// "last round, left inhale: let it fade", "1:00 every 30 s: soften". The places are those of cues.md section 3. The
// error is a TextErrors; the passage is as it was then.
func SetOwnWords(f plan.Fields, text string) error {
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
	delete(f.Values(), "lines")
	delete(f.Values(), "prompts") // the older form, which OwnWords writes as lines
	if len(list) > 0 {
		f.Values()["lines"] = list
	}
	return nil
}

func ownWords(line string) (map[string]any, error) {
	place, words, found := strings.Cut(line, ": ")
	if !found {
		if place, found = strings.CutSuffix(strings.TrimSpace(line), ":"); !found {
			return nil, &LineError{Why: fact.New("own-words.form")}
		}
	}
	fields := map[string]any{}
	for _, option := range optionWords.FindAllStringSubmatch(place, -1) {
		if err := setOptions(fields, option[1]); err != nil {
			return nil, err
		}
	}
	fields["text"] = textOf(fields, strings.TrimSpace(words))
	if err := setPlace(fields, placeTokens(place)); err != nil {
		return nil, err
	}
	return fields, nil
}

// placeTokens returns the words of a place, by those of the grammar. What is in brackets is no part of it.
func placeTokens(place string) []token {
	bare := optionWords.ReplaceAllStringFunc(place, func(s string) string { return strings.Repeat(" ", len(s)) })
	apart := func(r rune) bool { return r == ' ' || r == ',' || r == '\t' }
	words := anyLexicon()
	var list []token
	for at := 0; at < len(bare); {
		length := strings.IndexFunc(bare[at:]+" ", apart)
		if length > 0 {
			text := fold.Text(bare[at : at+length])
			list = append(list, token{text: text, key: text, given: bare[at : at+length], at: at, end: at + length})
		}
		at += length + 1
	}
	var all []token
	for i := 0; i < len(list); {
		as, n := words.phraseAt(list, i)
		if n == 0 || slices.ContainsFunc(as, func(word string) bool { return !ofAPlace(word) }) {
			if t := list[i]; !ofAPlace(t.key) {
				list[i].key = words.key(words.bare(t.key))
			}
			all = append(all, list[i])
			i++
			continue
		}
		for _, word := range as { // "rétention à vide"
			all = append(all, joined(place, list[i:i+n], word))
		}
		i += n
	}
	return all
}

// ofAPlace reports whether a word says something of a place, so that it is read as it is.
func ofAPlace(word string) bool {
	_, known := placeWords[word]
	return known || slices.Contains(smallPlaceWords, word) || slices.Contains([]string{"every", "each", "all"}, word)
}

// textOf returns the words without the options in brackets that begin or end them, which it sets. Brackets with
// anything else in them are words.
func textOf(fields map[string]any, words string) string {
	for _, form := range []*regexp.Regexp{firstOption, lastOption} {
		option := form.FindStringSubmatch(words)
		if option == nil || strings.TrimSpace(option[1]) == "" || len(option[0]) == len(words) ||
			setOptions(map[string]any{}, option[1]) != nil {
			continue
		}
		_ = setOptions(fields, option[1]) // it was possible at the moment
		words = form.ReplaceAllString(words, "")
	}
	return words
}

func setOptions(fields map[string]any, options string) error {
	for word := range strings.SplitSeq(options, ",") {
		if err := setOption(fields, strings.Fields(fold.Text(word))); err != nil {
			return err
		}
	}
	return nil
}

func setOption(fields map[string]any, words []string) error {
	keys := make([]string, 0, len(words))
	for _, word := range words {
		key := anyLexicon().key(anyLexicon().bare(word))
		keys = append(keys, key)
	}
	// "à voix haute", "to the room"
	for len(keys) > 1 && slices.Contains([]string{"a", "at", "with", "to", "the"}, keys[0]) {
		keys = keys[1:]
	}
	switch {
	case len(keys) == 0:
	case keys[0] == "room" || keys[0] == "all" || keys[0] == "teacher":
		fields["who"] = keys[0]
	case keys[0] == "everybody" || keys[0] == "everyone":
		fields["who"] = string(plan.ForAll)
	case keys[0] == "aloud" || keys[0] == "said":
		fields["say"] = true
	case slices.Contains(keys, "ahead"):
		number := strings.TrimSuffix(keys[0], "s")
		if !numberForm.MatchString(number) {
			return &LineError{Given: strings.Join(words, " "), Why: fact.New("own-words.ahead")}
		}
		fields["ahead"] = numeral(number)
	default:
		return &LineError{
			Given: strings.Join(words, " "), Why: fact.New("own-words.brackets"),
			Nearest: nearest(words[0], []string{"all", "room", "teacher", "aloud", "ahead"}),
		}
	}
	return nil
}

// smallPlaceWords say nothing of a place by themselves.
var smallPlaceWords = []string{
	"the",
	"in",
	"at",
	"of",
	"on",
	"by",
	"through",
	"from",
	"then",
	"and",
	"round",
	"rounds",
	"breaths",
	"with",
	"a",
	"to",
}

// placeWords is what single words of a place set.
var placeWords = map[string][2]string{
	"inhale": {
		"phase",
		"inhale",
	}, "inhales": {"phase", "inhale"}, "exhale": {"phase", "exhale"}, "exhales": {"phase", "exhale"},
	"out": {"phase", "exhale"},
	"hold": {
		"phase",
		"hold",
	}, "holds": {"phase", "hold"}, "empty": {"phase", "empty"}, "stroke": {"phase", "stroke"},
	"strokes": {"phase", "stroke"},
	"still": {
		"phase",
		"still",
	}, "pause": {"phase", "still"}, "pauses": {"phase", "still"}, "beat": {"phase", "beat"}, "lead": {"phase", "lead"},
	"talk": {
		"stage",
		"talk",
	}, "free": {"stage", "free"}, "setup": {"stage", "setup"}, "opening": {"stage", "opening"}, "rest": {"stage", "rest"},
	"rests": {"stage", "rest"}, "own": {"stage", "own"}, "recall": {"stage", "recall"}, "closing": {"stage", "closing"},
	"left": {"through", "left"}, "right": {"through", "right"}, "both": {"through", "both"}, "mouth": {"through", "mouth"},
	"belly": {
		"part",
		"belly",
	}, "ribs": {"part", "ribs"}, "chest": {"part", "chest"}, "forward": {"part", "forward"}, "side": {"part", "side"},
	"up": {"part", "up"}, "wide": {"part", "wide"}, "narrow": {"part", "narrow"}, "last": {"round", "last"},
}

// setPlace sets the place that the words tell.
func setPlace(fields map[string]any, list []token) error {
	said := make([]string, len(list))
	for i, t := range list {
		said[i] = t.key
	}
	each := -1 // the word for every one, until it is known of what
	for i := 0; i < len(said); {
		taken, err := setOnePlace(fields, said[i:])
		if err == nil && taken == 0 {
			err = &LineError{
				Why:     fact.New("own-words.place"),
				Nearest: nearest(list[i].text, slices.Sorted(maps.Keys(placeWords))),
			}
		}
		if wrong := AsLineError(err); wrong != nil {
			wrong.At, wrong.End, wrong.Given = list[i].at, list[i].end, list[i].given
			return err
		}
		if slices.Contains([]string{"every", "each", "all"}, said[i]) {
			each = i
		}
		i += taken
	}
	if each >= 0 && fields["round"] != nil && fields["phase"] == nil && fields["breath"] == nil &&
		fields["through"] == nil &&
		fields["part"] == nil &&
		fields["stage"] == nil {
		word := list[each]
		return &LineError{
			At:      word.at,
			End:     word.end,
			Given:   word.given,
			Why:     fact.New("own-words.every-what", "word", word.given),
			Refused: true,
		}
	}
	return nil
}

// setOnePlace sets what the first of the words tell, and says how many it took; none if they are not understood.
func setOnePlace(fields map[string]any, said []string) (taken int, err error) {
	set := func(field string, value any, taken int) (int, error) {
		if was, twice := fields[field]; twice && fmt.Sprint(was) != fmt.Sprint(value) {
			return 0, &LineError{
				Why:     fact.New("own-words.another", "word", said[0], "what", fact.New("own-words.what."+field)),
				Refused: true,
			}
		}
		fields[field] = value
		return taken, nil
	}
	next := func(i int) string {
		if i < len(said) {
			return said[i]
		}
		return ""
	}
	word := said[0]
	if seconds, n := placeTime(said); n > 0 {
		return set("second", seconds, n)
	}
	switch word {
	case "every", "each", "all", "throughout", "always":
		if seconds, n := placeTime(said[1:]); n > 0 {
			if fields["second"] == nil {
				fields["second"] = seconds // from its first time on
			}
			return set("every", seconds, 1+n)
		}
		return 1, nil
	case "round", "rounds", "rest", "rests":
		if strings.HasPrefix(word, "rest") {
			if _, err := set("stage", "rest", 1); err != nil {
				return 0, err
			}
		}
		if span := roundSpan(next(1)); span != nil {
			return set("round", span, 2)
		}
		return 1, nil
	case "breath":
		if number, err := strconv.Atoi(next(1)); err == nil {
			return set("breath", json.Number(strconv.Itoa(number)), 2)
		}
		return 0, nil
	case "in":
		if next(1) == "" || next(1) == "left" || next(1) == "right" {
			return set("phase", string(breath.Inhale), 1)
		}
	case "hold", "holds":
		if next(1) == "empty" {
			return set("phase", "empty", 2)
		}
	case "empty":
		if next(1) == "hold" || next(1) == "holds" {
			return set("phase", "empty", 2)
		}
	}
	if one, known := placeWords[word]; known {
		return set(one[0], one[1], 1)
	}
	if breaths := breathPlace.FindStringSubmatch(word); breaths != nil {
		return set("breath", numeral(breaths[1]), 1)
	}
	if span := roundSpan(word); span != nil && word[0] == 'r' {
		return set("round", span, 1)
	}
	if slices.Contains(smallPlaceWords, word) {
		return 1, nil
	}
	return 0, nil
}

// roundSpan returns a round or the first and the last of several, as a line has them; nil for other words.
func roundSpan(word string) any {
	parts := roundPlace.FindStringSubmatch(word)
	switch {
	case word == "last":
		return "last"
	case parts == nil:
		return nil
	case parts[2] != "":
		return []any{numeral(parts[1]), numeral(parts[2])}
	}
	return numeral(parts[1])
}

// placeTime reads a time, 1:30, 90s or 2 min, and how many words it took; none if there is no time.
func placeTime(said []string) (seconds json.Number, taken int) {
	if len(said) == 0 {
		return "", 0
	}
	if parts := clockPlace.FindStringSubmatch(said[0]); parts != nil {
		rest, err := breath.ParseExact(parts[2])
		if err != nil {
			return "", 0
		}
		return json.Number(breath.Int(int64(60 * whole(parts[1]))).Add(rest).String()), 1
	}
	text, taken := said[0], 1
	if len(said) > 1 && numberForm.MatchString(text) &&
		(slices.Contains(secondWords, said[1]) || slices.Contains(minuteWords, said[1])) {
		text, taken = text+said[1][:1], 2
	}
	parts := timePlace.FindStringSubmatch(text)
	if parts == nil {
		return "", 0
	}
	amount, err := breath.ParseExact(parts[1])
	if err != nil {
		return "", 0
	}
	if parts[2][0] == 'm' {
		amount = amount.Times(60)
	}
	return json.Number(amount.String()), taken
}

// OwnWords returns the passage's own words as SetOwnWords reads them; p is the passage.
func OwnWords(p *plan.Passage) string {
	var text strings.Builder
	for i := range p.Lines {
		fmt.Fprintf(&text, "%s: %s\n", placeOf(&p.Lines[i], p), oneLine(p.Lines[i].Text))
	}
	return strings.TrimSuffix(text.String(), "\n")
}

func oneLine(text string) string { return strings.Join(strings.Fields(text), " ") }

// placeOf returns where a line of the teacher's own is said, as SetOwnWords reads it.
func placeOf(l *plan.Line, p *plan.Passage) string {
	var words []string
	if l.Stage != p.UsualStage() {
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
	if l.LastRound {
		span = "last"
	}
	if span != "" {
		words = append(words, span)
	}
	if l.Breath > 0 {
		words = append(words, fmt.Sprintf("b%d", l.Breath))
	}
	if len(words) == 0 && (l.Phase != "" || l.Through != "" || l.Part != "") {
		words = append(words, "every")
	}
	for _, word := range []string{string(l.Through), l.Part, string(l.Phase)} {
		if word != "" {
			words = append(words, word)
		}
	}
	if l.Second.Sign() >= 0 {
		words = append(words, clockTime(l.Second))
	}
	if l.Every.Sign() > 0 {
		words = append(words, "every", l.Every.String()+" s")
	}
	if len(words) == 0 || len(words) == 1 && (words[0] == "opening" || words[0] == "closing") {
		words = append([]string{"throughout"}, words...) // "closing: 2 breaths" is what stands there
	}
	var options []string
	if l.Who != plan.ForTeacher {
		options = append(options, string(l.Who))
	}
	if l.Say {
		options = append(options, "aloud")
	}
	if !l.Ahead.Equal(plan.DefaultAhead(l.Who)) {
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
