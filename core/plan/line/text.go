package line

import (
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/fold"
	"vastlantern/core/plan"
)

// FromText reads a whole class from plain text: a first line "# title", then what holds for all of it (slot 40, tempo
// 50, starts 2026-12-01 18:30, for before sleep), then passages as ReadLines takes them. Times are those of the place.
// The error is a TextErrors with every line that is wrong.
func (n *Names) FromText(text string, place *time.Location) (plan.Document, error) {
	d := plan.NewDocument()
	var errs TextErrors
	lines := strings.Split(strings.ReplaceAll(text, "\r\n", "\n"), "\n")
	headLines := map[string]int{}
	first := 0
	for ; first < len(lines); first++ {
		trimmed := strings.TrimSpace(lines[first])
		if trimmed == "" {
			continue
		}
		if trimmed[0] == '#' {
			if title := strings.TrimSpace(strings.TrimLeft(trimmed, "#")); title != "" && d.Values()["title"] == nil {
				d.Values()["title"] = title
			}
			continue
		}
		field, err := setHead(d, trimmed, place)
		more := strings.TrimSpace(strings.Join(lines[first+1:], "")) != ""
		if next := lineAt(lines, first+1); field == "" && d.Values()["title"] == nil && more &&
			lines[first] == trimmed && n.titled(trimmed, next) {
			d.Values()["title"] = strings.TrimSuffix(trimmed, ":")
			continue
		}
		if field == "" {
			break
		}
		headLines[field] = first + 1
		if err != nil {
			errs = append(errs, TextError{first + 1, err})
		}
	}
	readings, wrong := n.ReadLines(strings.Join(lines[first:], "\n"))
	for _, e := range wrong {
		errs = append(errs, TextError{first + e.Line, e.Err})
	}
	d.Append(FieldsIn(readings)...)
	var refused plan.Errors
	p, err := plan.ReadWith(d, n.own...)
	if err == nil {
		d.FillUp(p)
	}
	if len(errs) == 0 && errors.As(err, &refused) {
		for _, e := range refused {
			line := headLines[e.Field]
			if e.Passage > 0 && e.Passage <= len(readings) {
				line = first + readings[e.Passage-1].Line
			}
			errs = append(
				errs,
				TextError{
					line,
					&LineError{Given: e.Given, Why: fact.New("line.field-allowed", "field", e.Field, "allowed", e.Allowed)},
				},
			)
		}
	}
	if len(errs) > 0 {
		return d, errs
	}
	return d, nil
}

// ReadLines reads passages from lines, each as Understand takes it. Lines that begin with a space belong to the passage
// above: its own words by their place, and script:, opening: and closing:. Empty lines, and those that begin with #,
// say nothing. Every line that is wrong is told.
func (n *Names) ReadLines(text string) (passages []Reading, errs TextErrors) {
	var below []string // own words of the passage above, and an empty one for each other line since it
	fail := func(line int, err error) { errs = append(errs, TextError{line, err}) }
	finish := func(before int) {
		if strings.Join(below, "") == "" {
			below = nil
			return
		}
		var wrong TextErrors
		if err := SetOwnWords(passages[len(passages)-1].Fields, strings.Join(below, "\n")); errors.As(err, &wrong) {
			for _, e := range wrong {
				fail(before-len(below)+e.Line, e.Err)
			}
		}
		below = nil
	}
	lines := strings.Split(strings.ReplaceAll(text, "\r\n", "\n"), "\n")
	margins := marginsOf(lines)
	read := 0
	for i, line := range lines {
		trimmed := strings.TrimSpace(line)
		inside := line != "" && (line[0] == ' ' || line[0] == '\t')
		switch {
		case trimmed == "" || trimmed[0] == '#':
			below = append(below, "")
			continue
		case inside && len(passages) == 0:
			fail(i+1, &LineError{Why: fact.New("line.no-passage-above")})
			continue
		case inside:
			key, rest, _ := strings.Cut(trimmed, ":")
			taken, err := setPart(passages[len(passages)-1].Fields, anyLexicon().key(fold.Text(key)), strings.TrimSpace(rest))
			if err != nil {
				fail(i+1, err)
			}
			if taken {
				trimmed = ""
			}
			below = append(below, trimmed)
			continue
		}
		finish(i)
		if read++; read > plan.MaxPassages || len(passages) > plan.MaxPassages {
			fail(i+1, &LineError{Why: fact.New("line.too-many-passages", "most", plan.MaxPassages)})
			break
		}
		added, err := n.sentences(margins[i].blank(trimmed), passages)
		if err != nil {
			fail(i+1, err)
			added = []Reading{{Fields: plan.NewStretch(plan.Talk, "", breath.Int(plan.DefaultTalk))}} // for the lines below it
		}
		for _, one := range added {
			one.Line = i + 1
			passages = append(passages, one)
		}
	}
	finish(len(lines))
	slices.SortStableFunc(errs, func(a, b TextError) int { return a.Line - b.Line })
	return passages, errs
}

// setHead reads a line of what holds for the whole class, and reports which field it sets; none if it is no such line.
func setHead(d plan.Document, line string, place *time.Location) (field string, err error) {
	key, rest, _ := strings.Cut(line, " ")
	rest = strings.TrimSpace(rest)
	switch fold.Text(strings.TrimSuffix(key, ":")) {
	case "slot", "tempo":
		number := strings.TrimSpace(strings.TrimSuffix(strings.TrimSuffix(rest, "minutes"), "min"))
		field = map[string]string{"slot": "slot_min", "tempo": "tempo"}[fold.Text(strings.TrimSuffix(key, ":"))]
		if !numberForm.MatchString(number) {
			return field, &LineError{Given: rest, Why: fact.New("line.head-number")}
		}
		d.Values()[field] = numeral(number)
		return field, nil
	case "starts":
		for _, form := range []string{time.RFC3339, "2006-01-02 15:04", "2006-01-02T15:04"} {
			if at, err := time.ParseInLocation(form, rest, place); err == nil {
				d.SetStart(at)
				return "starts_at", nil
			}
		}
		return "starts_at", &LineError{Given: rest, Why: fact.New("line.head-date")}
	case "numbers":
		screen := plan.Screen(fold.Text(strings.TrimSuffix(rest, " only")))
		if !slices.Contains([]plan.Screen{plan.WithNumbers, plan.WithLamps, plan.WithNothing}, screen) {
			return "numbers", &LineError{Given: rest, Why: fact.New("line.head-numbers")}
		}
		d.Values()["numbers"] = string(screen)
		return "numbers", nil
	case "fingers":
		ways := strings.Fields(strings.ReplaceAll(fold.Text(rest), " or ", " "))
		for _, way := range ways {
			if !slices.Contains(plan.FingerWays, way) {
				return "", nil // a passage, as "fingers to the toes 1 min"
			}
		}
		d.Values()["fingers"] = strings.Join(ways, " ")
		return "fingers", nil
	case "chin":
		if !slices.Contains(plan.ChinWays, fold.Text(rest)) {
			return "", nil // a passage, as "chin to the chest 1 min"
		}
		d.Values()["chin"] = fold.Text(rest)
		return "chin", nil
	case "for":
		d.Values()["intent"] = rest
		return "intent", nil
	}
	return "", nil
}

// setPart sets a part of the passage that has its own name, and reports whether it is one.
func setPart(f plan.Fields, key, text string) (taken bool, err error) {
	switch {
	case key == "script":
		if said, _ := f.Values()["script"].(string); said != "" { // in the line of the passage
			text = said + "\n" + text
		}
		f.Values()["script"] = text
		return true, nil
	case key == "remark":
		f.Values()["remark"] = text
		return true, nil
	case key != "opening" && key != "closing":
		return false, nil
	case anyLexicon().key(fold.Text(text)) == "none":
		delete(f.Values(), key)
		return true, nil
	}
	steps, err := steps(text)
	if err != nil {
		return true, err
	}
	f.Values()[key] = steps
	return true, nil
}

// steps reads the steps of an opening or a closing, which a semicolon or a comma parts: "2 breaths, 30 s hand down,
// notice". What is no step by itself belongs to the words of the step before it; words in quotation marks are never
// parted.
func steps(text string) ([]any, error) {
	list := []any{}
	said, between := "", "" // the last step as it was written, and the marks since
	for text != "" {
		end := stepEnd(text)
		part := text[:end]
		mark := text[end:min(end+1, len(text))]
		text = text[end+len(mark):]
		if strings.TrimSpace(part) == "" {
			between += mark
			continue
		}
		one, err := step(part)
		switch {
		case err == nil:
			list, said = append(list, one), part
		case len(list) == 0:
			return nil, err
		default:
			joined := strings.TrimRight(said, " ") + between + part
			if before := list[len(list)-1].(map[string]any); before["seconds"] != nil && before["text"] == nil {
				joined = said + " " + part
			}
			if one, joins := step(joined); joins == nil {
				list[len(list)-1], said = one, joined
				break
			}
			return nil, err
		}
		between = mark
	}
	if len(list) == 0 {
		_, err := step("")
		return nil, err
	}
	return list, nil
}

// stepEnd returns where the first part of the text ends: at a semicolon or a comma outside quotation marks.
func stepEnd(text string) int {
	for at := 0; at < len(text); {
		r, size := utf8.DecodeRuneInString(text[at:])
		at += size
		switch {
		case r == ';' || r == ',':
			return at - size
		case strings.ContainsRune(openQuotes, r):
			_, length := quoted(r, text[at:])
			at += length
		}
	}
	return len(text)
}

// step reads a step of an opening or a closing: "2 breaths 4:5:6 through the mouth" or "30 s hand down".
func step(text string) (map[string]any, error) {
	list := tokens(text, anyLexicon())
	if n, found := match("N breaths|breath", subject{}, list, 0); n > 0 {
		fields := map[string]any{"breaths": numeral(found.numbers[0])}
		for list = list[n:]; len(list) > 0; list = list[1:] {
			switch t := list[0]; {
			case isCounts(t.text):
				fields["counts"] = t.text
			case t.key == "mouth" && fields["airway"] == nil:
				fields["airway"] = string(breath.ByMouth)
			case t.key == "out":
				fields["airway"] = string(breath.OutByMouth)
			case !slices.Contains(fillers, t.key) && t.key != "mouth" && t.key != "nose":
				return nil, &LineError{Given: t.given, Why: fact.New("line.step-breaths")}
			}
		}
		return fields, nil
	}
	if len(list) > 0 {
		if seconds, n := timeAt(list, 0, true); n > 0 {
			fields := map[string]any{"seconds": json.Number(seconds.String())}
			if n < len(list) {
				fields["text"] = strings.TrimSpace(text[list[n].at:])
				if list[n].quoted && n+1 == len(list) {
					fields["text"] = list[n].text
				}
			}
			return fields, nil
		}
	}
	return nil, &LineError{Given: strings.TrimSpace(text), Why: fact.New("line.step")}
}

// saidHead are the fields of a plan that its text says, or that are of no use elsewhere: the advice that was put away.
var saidHead = []string{
	"format",
	"version",
	"title",
	"slot_min",
	"tempo",
	"starts_at",
	"intent",
	"numbers",
	"fingers",
	"chin",
	"passages",
	"dismissed",
}

// ToText writes the document, whose plan is p, as FromText reads it. left names what the text does not say, as "field
// room".
func (n *Names) ToText(d plan.Document, p *plan.Plan) (text string, left []string) {
	var b strings.Builder
	if p.Title != "" {
		fmt.Fprintf(&b, "# %s\n", oneLine(p.Title))
	}
	if p.Slot.Sign() > 0 {
		fmt.Fprintf(&b, "slot %v\n", d.Values()["slot_min"])
	}
	if d.Values()["tempo"] != nil {
		fmt.Fprintf(&b, "tempo %v\n", d.Values()["tempo"])
	}
	if !p.StartsAt.IsZero() {
		fmt.Fprintf(&b, "starts %s\n", p.StartsAt.Format(time.RFC3339))
	}
	if p.Intent != "" {
		fmt.Fprintf(&b, "for %s\n", oneLine(p.Intent))
	}
	if d.Values()["numbers"] != nil {
		fmt.Fprintf(&b, "numbers %s\n", p.Numbers)
	}
	if p.Chin != "" {
		fmt.Fprintf(&b, "chin %s\n", p.Chin)
	}
	if d.Values()["fingers"] != nil {
		fmt.Fprintf(&b, "fingers %s\n", strings.Join(p.Fingers, " or "))
	}
	for _, field := range slices.Sorted(maps.Keys(d.Values())) {
		if !slices.Contains(saidHead, field) {
			left = append(left, field)
		}
	}
	b.WriteByte('\n')
	for i, f := range d.Passages() {
		if i >= len(p.Passages) || f.Broken() {
			continue
		}
		line, below, unsaid := n.toLine(f, &p.Passages[i])
		for _, field := range unsaid {
			left = append(left, fmt.Sprintf("%s of passage %d", field, i+1))
		}
		b.WriteString(line + "\n")
		for _, more := range below {
			b.WriteString("  " + more + "\n")
		}
	}
	return b.String(), left
}

// toLine returns a passage as Read takes it, what is below it, and the fields that neither says.
func (n *Names) toLine(f plan.Fields, p *plan.Passage) (line string, below, unsaid []string) {
	words := []string{n.callOf(f, p)}
	known := []string{"type", "practice", "remark", "check", "script", "opening", "closing", "lines", "prompts"}
	for _, said := range plan.Sayings(f, p) {
		known = append(known, said.Field)
		if said.Text != "" {
			words = append(words, said.Text)
		}
	}
	if known = append(known, "title"); p.Title != "" {
		words = append(words, inQuotes(p.Title))
	}
	line = strings.Join(words, " ")
	for row := range strings.Lines(strings.TrimSpace(p.Script)) { // each by itself: some divide it into cards
		below = append(below, strings.TrimSpace("script: "+oneLine(row)))
	}
	if p.Remark != "" {
		below = append(below, "remark: "+oneLine(p.Remark))
	}
	again, _ := n.Read(line)
	for _, part := range []struct {
		field string
		steps []plan.Step
	}{{"opening", p.OpeningSteps}, {"closing", p.ClosingSteps}} {
		switch {
		case len(part.steps) > 0:
			below = append(below, part.field+": "+stepsText(part.steps))
		case len(again) == 1 && again[0].Values()[part.field] != nil: // what a practice brings along is not wanted
			below = append(below, part.field+": none")
		}
	}
	if own := OwnWords(p); own != "" {
		below = append(below, strings.Split(own, "\n")...)
	}
	for _, field := range slices.Sorted(maps.Keys(f.Values())) {
		if !slices.Contains(known, field) {
			unsaid = append(unsaid, field)
		}
	}
	return line, below, unsaid
}

// callOf returns what the passage is called in a line: the plainest name that is understood as it.
func (n *Names) callOf(f plan.Fields, p *plan.Passage) string {
	switch {
	case p.Type == plan.Talk:
		return "talk"
	case p.Type == plan.Free:
		return "free"
	}
	if read, err := n.Read(p.Practice.Name); err == nil && read[0].Practice() == f.Practice() {
		return lower(p.Practice.Name)
	}
	return p.Practice.ID
}

func stepsText(steps []plan.Step) string {
	list := make([]string, len(steps))
	for i, s := range steps {
		if s.Breaths == 0 {
			list[i] = strings.TrimSpace(s.Length.Div(breath.Int(1000)).String() + " s " + stepWords(s.Text))
			continue
		}
		list[i] = fmt.Sprintf("%d breaths %s", s.Breaths, s.Counts)
		switch s.Airway {
		case breath.ByMouth:
			list[i] += " through the mouth"
		case breath.OutByMouth:
			list[i] += " out through the mouth"
		}
	}
	return strings.Join(list, "; ")
}

// stepWords returns the words of a step as steps reads them: in quotation marks where they would be taken for more than
// one step.
func stepWords(text string) string {
	text = oneLine(text)
	if again, err := steps("1 s " + text); err == nil && len(again) == 1 && again[0].(map[string]any)["text"] == text {
		return text
	}
	if text == "" {
		return ""
	}
	return inQuotes(text)
}

// inQuotes writes text as quoted reads it.
func inQuotes(text string) string {
	return `"` + strings.NewReplacer(`\`, `\\`, `"`, `\"`, "\n", " ").Replace(text) + `"`
}
