package line

import (
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/fold"
	"vastlantern/core/plan"
)

// readUnlisted reads what is not in the practice book as a passage of a practice of the book, with its words as title.
func (n *Names) readUnlisted(_ string, list []token, as *entry) ([]Reading, error) {
	read, err := n.readAs(list, hit{entry: as})
	if err != nil {
		return read, err
	}
	for i := range read {
		r := &read[i]
		if said, _ := r.Fields.Values()["remark"].(string); slices.Contains(justBreath, fold.Text(said)) {
			delete(r.Fields.Values(), "remark")
			delete(r.Fields.Values(), "check")
			r.Doubts = nil
		}
		if len(r.Doubts) > 0 && !slices.ContainsFunc(r.Doubts, func(d Doubt) bool { return !d.Refused }) {
			continue // it names nothing: what it says cannot be so
		}
		remark, _ := r.Fields.Values()["remark"].(string)
		delete(r.Fields.Values(), "remark")
		delete(r.Fields.Values(), "check")
		r.Doubts = nil
		remark = strings.TrimRight(remark, ":;,. ")
		if as.p.TakesField("sides") && !slices.Contains(r.Said, "sides") { // most have no sides
			r.Fields.Values()["sides"] = "none"
		}
		if remark != "" && r.Fields.Values()["title"] == nil {
			r.Fields.Values()["title"] = plan.Capital(remark)
			r.Said = append(r.Said, "title")
			if as.p.ID != "posture" {
				r.Doubts = []Doubt{{LineError: *n.noSuchName(list), Kind: DoubtName}}
				r.Fields.Values()["check"] = DoubtName
			}
		}
	}
	return read, nil
}

// readStretch reads what is not in the practice book as a free stretch with its words as title; nil where there are no
// words.
func (n *Names) readStretch(list []token) ([]Reading, error) {
	named := slices.ContainsFunc(list, func(t token) bool { return t.quoted || strings.IndexFunc(t.key, isLetter) >= 0 })
	f := plan.NewStretch(plan.Free, "", breath.Int(plan.DefaultTalk))
	of := subject{f.Values(), nil}
	heard := of.say(list, func(int) bool { return false }, false)
	left, odd := oddOnes(list, heard.left)
	title := strings.TrimRight(wordsOf(list, titled(list, left)), ":;,. ")
	if of.f["title"] == nil && (title == "" || !named) {
		return nil, nil
	}
	if lone := len(heard.said) == 0 && !strings.Contains(title, " "); lone && of.f["title"] == nil {
		if near := n.noSuchName(list); len(near.Nearest) > 0 {
			return nil, near // a slip of the finger, or the beginning of a name
		}
	}
	if of.f["title"] == nil {
		of.f["title"] = plan.Capital(title)
	}
	of.f["check"] = DoubtName
	r := Reading{
		Fields: f, Said: append(heard.said, "title"), Doubts: []Doubt{{LineError: *n.noSuchName(list), Kind: DoubtName}},
	}
	of.keepOdd(&r, list, odd)
	return []Reading{r}, nil
}

// oddOnes tells numbers and counts that say nothing of a stretch from the words of it.
func oddOnes(list []token, left []int) (words, odd []int) {
	for _, i := range left {
		if t := list[i]; t.text == "x" || t.text == "@" || isCounts(t.text) || !t.refused.None() {
			odd = append(odd, i)
		} else {
			words = append(words, i)
		}
	}
	return words, odd
}

// keepOdd keeps them as a remark.
func (of subject) keepOdd(r *Reading, list []token, odd []int) {
	if len(odd) == 0 {
		return
	}
	of.f["remark"] = wordsOf(list, odd)
	r.Said = append(r.Said, "remark")
	if of.f["check"] == nil {
		of.f["check"] = DoubtWords
	}
	for _, i := range odd {
		r.Doubts = append(r.Doubts, Doubt{LineError: *notUnderstood(of, list[i]), Kind: DoubtWords})
	}
}

func (n *Names) entryOf(id string) *entry {
	i := slices.IndexFunc(n.entries, func(e entry) bool { return e.p != nil && e.p.ID == id && e.with == nil })
	return &n.entries[i]
}

// readAs reads a part as the thing that was hit.
func (n *Names) readAs(list []token, h hit) ([]Reading, error) {
	skip := func(i int) bool { return h.from <= i && i < h.to }
	if h.entry.passages != nil {
		for i, t := range list {
			if !skip(i) && !slices.Contains(fillers, t.key) {
				return nil, &LineError{At: t.at, End: t.end, Given: t.given, Why: fact.New("line.template-whole")}
			}
		}
		var all []Reading
		for _, f := range h.entry.passages {
			one := f.Clone()
			all = append(all, Reading{Fields: one, Said: append(slices.Sorted(maps.Keys(one.Values())), alwaysTold...)})
		}
		return all, nil
	}
	if h.entry.p == nil {
		return h.read(list, skip)
	}
	alone := !slices.ContainsFunc(list, func(t token) bool { return t.quoted })
	for i, t := range list {
		if !skip(i) && !slices.Contains(fillers, t.key) {
			alone = false
		}
	}
	course, err := plan.Course(h.entry.p)
	if err != nil {
		return nil, err
	}
	if alone && len(course) > 0 && h.entry.with == nil {
		all := make([]Reading, len(course))
		for i, f := range course {
			all[i] = Reading{Fields: f, Said: []string{"practice"}}
		}
		return all, nil
	}
	f := plan.NewFields(h.entry.p.ID)
	if len(course) == 1 {
		f = course[0]
	}
	of := subject{f.Values(), h.entry.p}
	if err := of.take(h.entry.with); err != nil {
		return nil, err
	}
	before := of.f["counts"]
	amount := h.amountBefore(of, list)
	heard := of.say(list, func(i int) bool { return i == amount || skip(i) }, false)
	if amount >= 0 && fmt.Sprint(of.f["rounds"]) != list[amount].number() { // something else was said of its length
		heard.left = append([]int{amount}, heard.left...)
		heard.unknown = append(heard.unknown, amount)
	}
	if side, named := h.entry.with["side"]; named && side != of.f["side"] {
		return nil, &LineError{Why: fact.New("line.other-side", "name", h.entry.name, "side", side)}
	}
	if h.entry.with != nil && of.f["title"] == nil && alikeCounts(before, of.f["counts"]) {
		of.f["title"] = h.entry.name
	}
	said := append(heard.said, slices.Sorted(maps.Keys(h.entry.with))...)
	if h.from < h.to {
		said = append(said, "practice")
	}
	r := Reading{Fields: f, Said: said}
	of.keep(&r, list, heard)
	return of.repeated(of.onBothSides(r, list)), nil
}

// mostRepeats is how often a passage is repeated in a line at most.
const mostRepeats = 12

// repeated reads "2 x 5 min with 1 min rest" as so many passages, with natural breath between.
func (of subject) repeated(list []Reading) []Reading {
	n := whole(fmt.Sprint(of.f[repeats]))
	delete(of.f, repeats)
	if n < 2 || len(list) != 1 {
		return list
	}
	one := list[0]
	rest, rests := of.f["rest_between"].(json.Number)
	delete(of.f, "rest_between")
	for range min(n, mostRepeats) - 1 {
		if rests {
			between := plan.NewStretch(plan.Free, "Rest", breath.Int(plan.DefaultTalk))
			between.Values()["seconds"] = rest
			list = append(list, Reading{Fields: between, Said: []string{"seconds", "title"}})
		}
		again := one
		again.Fields = one.Fields.Clone()
		list = append(list, again)
	}
	return list
}

// keep keeps what is not understood as a remark on the passage, in the order in which it was written.
func (of subject) keep(r *Reading, list []token, heard heard) {
	remark := strings.Join(runsOf(list, heard.left), " ")
	if remark == "" {
		return
	}
	of.f["remark"] = remark
	r.Said = append(r.Said, "remark")
	for _, i := range heard.unknown {
		if list[i].text == "," || list[i].key == "where" || slices.Contains(whereWords, list[i].key) {
			continue
		}
		why := notUnderstood(of, list[i])
		r.Doubts = append(r.Doubts, Doubt{LineError: *why, Kind: DoubtWords})
	}
	if len(r.Doubts) > 0 {
		of.f["check"] = DoubtWords
	}
}

// runsOf returns the words of tokens that stand together, without runs of words that say nothing by themselves.
func runsOf(list []token, left []int) (runs []string) {
	for len(left) > 0 {
		n := 1
		for n < len(left) && left[n] == left[n-1]+1 {
			n++
		}
		says := func(i int) bool { return !slices.Contains(fillers, list[i].key) }
		if text := wordsOf(list, trimmed(list, left[:n])); text != "" && slices.ContainsFunc(left[:n], says) {
			runs = append(runs, text)
		}
		left = left[n:]
	}
	return runs
}

// whereWords are words that say where and how people are. They are a remark that nobody needs to look at again.
var whereWords = []string{
	"standing", "seated", "sitting", "lying", "kneeling", "chair", "wall", "back", "side", "belly", "floor", "ears",
	"eyes",
	"hands", "hand", "over", "open", "closed", "knees", "legs", "feet", "on", "the", "against", "with", "on", "soft",
	"softly", "gently", "gentle", "quiet", "quietly", "easy", "light", "relaxed", "blanket", "bolster", "partner",
	"partners",
	"pairs", "together", "alone", "stehend", "sitzend", "liegend", "liegen", "sitzen", "stehen", "rucken", "stuhl", "in",
	"down", "bent", "crossed",
	"heels", "apart", "savasana", "shavasana", "supine", "prone", "bolster", "out", "loud", "aloud", "shut",
	"mudra", "chin", "jnana", "gyan", "shanmukhi", "straight", "tall",
	"shoulders", "palms", "thumbs", "covered", "cushion", "block", "mat", "at",
	"under", "head", "arms", "wide", "up", "forward", "deep", "deeply", "smooth", "smoothly", "full", "long",
}

// onBothSides reads "each side" of a practice that has one side as a passage for either.
func (of subject) onBothSides(r Reading, list []token) []Reading {
	if minutes := of.f["minutes"]; minutes != nil && of.p.TakesField("breaths") && slices.Contains(r.Said, "minutes") {
		return of.heldForATime(r)
	}
	first, second := "left", "right"
	switch {
	case !of.p.OneSided() || !slices.ContainsFunc(list, func(t token) bool {
		return slices.Contains([]string{"bothsides", "left-right", "right-left"}, t.key)
	}):
		return []Reading{r}
	case slices.ContainsFunc(list, func(t token) bool { return t.key == "right-left" }) || of.f["side"] == "right":
		first, second = second, first
	}
	other := r
	other.Fields = r.Fields.Clone()
	r.Fields.Values()["side"], other.Fields.Values()["side"] = first, second
	for _, one := range []Reading{r, other} {
		if title, _ := one.Fields.Values()["title"].(string); strings.HasSuffix(title, "nostril") {
			delete(one.Fields.Values(), "title")
		}
	}
	return []Reading{r, other}
}

// heldForATime reads a posture with a length in time: everyone breathes at their own pace in it, on one side after the
// other.
func (of subject) heldForATime(r Reading) []Reading {
	values := r.Fields.Values()
	values["pace"] = "own"
	delete(values, "rounds")
	delete(values, "breaths")
	sides, _ := values["sides"].(string)
	first, second, both := strings.Cut(sides, "-")
	if !both {
		return []Reading{r}
	}
	other := r
	other.Fields = r.Fields.Clone()
	values["sides"], other.Fields.Values()["sides"] = first, second
	return []Reading{r, other}
}

// amountBefore takes a number that stands directly before the name for rounds, "5 sun salutations", and returns where
// it
// is; -1 if there is none.
func (h hit) amountBefore(of subject, list []token) int {
	i := h.from - 1
	if h.to == 0 || i < 0 || list[i].number() == "" || of.p.FillsMinutes() || of.strokes() || of.open() ||
		i > 0 && slices.Contains([]string{"x", "@", "tempo", "at"}, list[i-1].key) {
		return -1
	}
	n := whole(list[i].number())
	if n < 1 || n > plan.MaxRounds || fmt.Sprint(n) != list[i].number() {
		return -1
	}
	setRounds(of, matched{numbers: []string{list[i].number()}})
	return i
}

// alikeCounts reports whether two breaths go by the same name: each phase is there in both, and as long as the inhale,
// longer or shorter in both.
func alikeCounts(a, b any) bool {
	if a == b {
		return true
	}
	first, _ := a.(string)
	second, _ := b.(string)
	x, err := breath.ParseCounts(first)
	y, err2 := breath.ParseCounts(second)
	if err != nil || err2 != nil {
		return false
	}
	shape := func(c breath.Counts) [5]bool {
		return [5]bool{c.Hold > 0, c.Empty > 0, c.Exhale == c.Inhale, c.Exhale > c.Inhale, c.Hold == c.Inhale}
	}
	return shape(x) == shape(y)
}

// take gives the passage the fields of a preset.
func (of subject) take(with map[string]any) error {
	preset, err := plan.FieldsOf(with)
	if err != nil {
		return err
	}
	if preset.GivesLength() {
		delete(of.f, "rounds")
		delete(of.f, "minutes")
	}
	maps.Copy(of.f, preset.Values())
	return nil
}

// errNotThis says that a part is not what was hit.
var errNotThis = errors.New("unfit")

// read reads a talk or free breathing. What is not its length is its title, or, of a talk, what the teacher wants to
// say: its title is for the room, so it must be in quotation marks or marked "(room)".
func (h hit) read(list []token, skip func(int) bool) ([]Reading, error) {
	e := h.entry
	f := plan.NewStretch(e.Type, h.title, breath.Int(plan.DefaultTalk))
	of := subject{f.Values(), nil}
	heard := of.say(list, skip, false)
	left, odd := oddOnes(list, heard.left)
	if (h.weight <= slipped || h.share <= almost) && len(trimmed(list, left)) > 0 {
		return nil, errNotThis // a slip is no reason to take the rest for its title
	}
	text, forRoom := h.wordsIn(list, left)
	quoted := slices.ContainsFunc(list, func(t token) bool { return t.quoted })
	field := "title"
	if quoted || e.Type == plan.Talk && !forRoom {
		field = "script"
	}
	r := Reading{Fields: f}
	if text != "" {
		before := len(left) > 0 && left[0] < h.from
		switch {
		case quoted:
		case before && (field == "title" || e.Joins): // "guided meditation"
			whole := append(slices.Clone(left), span(h.from, h.to)...)
			slices.Sort(whole)
			whole = trimmed(list, whole)
			for len(whole) > 1 && slices.Contains([]string{"with", "to", "a", "the"}, list[whole[0]].key) {
				whole = whole[1:]
			}
			text = plan.Capital(wordsOf(list, whole))
		case e.Joins:
			text = h.title + " " + text
		case field == "title" && h.to < len(list) && list[h.to].key == "in": // "relaxation in savasana"
			whole := append(span(h.from, h.to), h.to)
			text = plan.Capital(strings.TrimRight(wordsOf(list, titled(list, append(whole, left...))), ":;,. "))
		}
		if field == "title" && text != "" {
			text = plan.Capital(text)
		}
		of.f[field] = text
		heard.said = append(heard.said, field)
	}
	r.Said = heard.said
	of.keepOdd(&r, list, odd)
	return []Reading{r}, nil
}

func span(from, to int) []int {
	list := make([]int, 0, to-from)
	for i := from; i < to; i++ {
		list = append(list, i)
	}
	return list
}

// roomMarks are the words by which a teacher marks the words of a talk for the room.
var roomMarks = []string{"(room)", "(all)"}

// wordsIn returns the words of those tokens, and whether they are marked for the room.
func (h hit) wordsIn(list []token, left []int) (text string, forRoom bool) {
	marked := func(i int) bool { return slices.Contains(roomMarks, list[i].key) }
	forRoom = slices.ContainsFunc(left, marked)
	left = slices.DeleteFunc(slices.Clone(left), marked)
	if h.entry.Joins && len(left) > 0 && list[left[0]].key == "and" {
		return wordsOf(list, append(left[:1:1], trimmed(list, left[1:])...)), forRoom
	}
	return wordsOf(list, trimmed(list, left)), forRoom
}

// titled leaves out the small words at the ends of a title: "opening circle" keeps its first.
func titled(list []token, left []int) []int {
	small := func(i int) bool {
		return slices.Contains([]string{
			",", "and", "with", "to", "a", "an", "the", "for", "of", "we", "i", "do", "let", "lets", "us", "some", "about", "at",
			"by", "then", "begin", "start", "finish", "from", "on", "please", "maybe", "each", "another",
		}, list[i].key)
	}
	for len(left) > 0 && small(left[0]) {
		left = left[1:]
	}
	for len(left) > 0 && small(left[len(left)-1]) {
		left = left[:len(left)-1]
	}
	return left
}

// sayMore are fillers that say something beside a word that is no filler.
var sayMore = []string{"first", "side", "nostril", "counts", "ratio", "open", "close", "only", "another", "more",
	"about", "around"}

// trimmed leaves out the words at the ends that say nothing by themselves.
func trimmed(list []token, left []int) []int {
	little := func(i int) bool {
		return slices.Contains(fillers, list[i].key) && !slices.Contains(sayMore, list[i].key)
	}
	vague := func(i int) bool { return list[i].key == "about" || list[i].key == "around" }
	for k := len(left) - 1; k >= 0 && (little(left[k]) || vague(left[k])); k-- {
		if list[left[k]].key == "in" && k > 0 && left[k-1] == left[k]-1 && !little(left[k-1]) {
			break // "check in"
		}
		left = left[:k]
	}
	for len(left) > 0 && little(left[0]) {
		if slices.Contains([]string{"on", "the", "to", "with"}, list[left[0]].key) && len(left) > 1 &&
			left[1] == left[0]+1 {
			break // "on the back"
		}
		left = left[1:]
	}
	return left
}

// wordsOf returns the tokens as they were written.
func wordsOf(list []token, left []int) string {
	var words strings.Builder
	for k, i := range left {
		if k > 0 && list[i].at == list[left[k-1]].at {
			continue // two tokens of one word
		}
		comma := list[i].text == "," || list[i].text == ";"
		if comma && (words.Len() == 0 || k > 0 && list[left[k-1]].text == ",") {
			continue
		}
		if words.Len() > 0 && !comma {
			words.WriteByte(' ')
		}
		words.WriteString(list[i].given)
	}
	return words.String()
}
