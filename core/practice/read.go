package practice

import (
	"bytes"
	"maps"
	"slices"
	"strconv"

	"github.com/goccy/go-yaml"
	"github.com/goccy/go-yaml/lexer"
	"github.com/goccy/go-yaml/token"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
)

// MostBytes is the largest file of a practice that is read.
const MostBytes = 64 << 10

// The bounds of a practice, so that no file can make a class of a million rows. Those of rounds, minutes and strokes
// are a plan's.
const (
	mostPhases  = 60
	mostSteps   = 6  // of an inhale or an exhale
	mostBreaths = 60 // of one side
	mostMove    = 80 // bytes
	mostTexts   = 30
	mostText    = 2000 // bytes
	leastAgain  = 10   // seconds from one time to the next, as of a line in a plan
	mostAgain   = 600
	mostRounds  = 999
	mostMinutes = 180
	mostStrokes = 500
	mostRest    = 600 // seconds
	mostOpen    = 120 // seconds
	mostChange  = 60  // seconds
	maxDepth    = 32  // lists and objects in each other
)

// Read reads one practice from YAML, or from JSON, which is YAML, and checks it. Errors tell the line where they can.
func Read(data []byte) (*Practice, error) {
	if len(data) > MostBytes {
		return nil, fact.New("practice.file-too-large", "kib", MostBytes>>10)
	}
	if line := tooDeep(data); line > 0 {
		return nil, fact.New("practice.too-deep", "line", line, "most", maxDepth)
	}
	p, err := decode(data)
	if err == nil {
		p.Level = ID(p.Level)
		for i, intent := range p.Intents {
			p.Intents[i] = ID(intent)
		}
		for i, aspect := range p.Care {
			p.Care[i] = ID(aspect)
		}
		err = p.check()
	}
	if err != nil {
		return nil, err
	}
	return p, nil
}

// tooDeep returns the first line, from 1, in which lists and objects are nested deeper than any practice needs; 0 if
// none is. The reader of YAML takes gigabytes for 50,000 brackets in a row, so this looks at the text alone, before it
// is read: at brackets that are open, whether in quotes or not, at how far a line is indented, and at the dashes that
// begin it.
func tooDeep(data []byte) (line int) {
	open := 0
	for number, text := range bytes.Split(data, []byte("\n")) {
		content := bytes.TrimLeft(text, " ")
		indented, dashes := len(text)-len(content), 0
		for len(content) > 1 && (content[0] == '-' || content[0] == '?' || content[0] == ':') &&
			(content[1] == ' ' || content[1] == '\t') {
			dashes++
			content = bytes.TrimLeft(content[1:], " \t")
		}
		deepest := open
		for _, b := range content {
			switch b {
			case '[', '{':
				open++
				deepest = max(deepest, open)
			case ']', '}':
				open = max(0, open-1)
			}
		}
		if indented > 4*maxDepth || dashes > maxDepth || deepest > maxDepth {
			return number + 1
		}
	}
	return 0
}

// decode reads the YAML. The reader panics on some files that are no YAML at all, as fuzzing showed; to whoever
// imports such a file that is an error like any other.
func decode(data []byte) (p *Practice, err error) {
	defer func() {
		if broken := recover(); broken != nil {
			p, err = nil, fact.New("practice.not-yaml")
		}
	}()
	for _, t := range lexer.Tokenize(string(data)) {
		if t.Type == token.AnchorType || t.Type == token.AliasType || t.Type == token.MergeKeyType {
			return nil, fact.New("practice.anchors", "line", t.Position.Line)
		}
	}
	p = &Practice{}
	return p, yaml.UnmarshalWithOptions(data, p, yaml.Strict())
}

func (p *Practice) check() error {
	if p.ID == "" || p.Name == "" || len(p.Figure) == 0 {
		return fact.New("practice.needs")
	}
	if (p.Rounds < 1) == (p.Minutes < 1) {
		return fact.New("practice.rounds-or-minutes", "rounds", p.Rounds, "minutes", p.Minutes)
	}
	for _, n := range []struct {
		field            string
		given, low, most int
	}{
		{"rounds", p.Rounds, 0, mostRounds}, {"minutes", p.Minutes, 0, mostMinutes}, {"strokes", p.Strokes, 0, mostStrokes},
		{"rest", p.Rest, 0, mostRest}, {"change", p.Change, 0, mostChange}, {"breaths", p.Breaths, 0, mostBreaths},
		{"figure", len(p.Figure), 1, mostPhases}, {"course", len(p.Course), 0, mostTexts},
		{"bounds", len(p.Bounds), 0, mostTexts},
		{"presets", len(p.Presets), 0, mostTexts},
	} {
		if n.given < n.low || n.given > n.most {
			return fact.New("practice.outside", "field", n.field, "given", n.given, "least", n.low, "most", n.most)
		}
	}
	if p.Tempo != 0 && (p.Tempo < breath.SlowestTempo || p.Tempo > breath.FastestTempo) {
		return fact.New("practice.tempo", "given", p.Tempo, "least", breath.SlowestTempo, "most", breath.FastestTempo)
	}
	if !slices.Contains([]breath.Airway{breath.ByNose, breath.OutByMouth, breath.InByMouth, breath.ByMouth}, p.Airway) {
		return fact.New("practice.airway", "given", p.Airway)
	}
	if p.Sounds != "" && !p.Sounds.Moves() {
		return fact.New("practice.sounds", "given", p.Sounds)
	}
	if p.Audible != "" && !p.Audible.Moves() {
		return fact.New("practice.audible", "given", p.Audible)
	}
	if err := p.checkWords(); err != nil {
		return err
	}
	if err := p.checkKind(); err != nil {
		return err
	}
	for _, again := range p.Again {
		if again.Say == "" || len(again.Say) > mostText || again.Every < leastAgain || again.Every > mostAgain {
			return fact.New("practice.again", "least", leastAgain, "most", mostAgain)
		}
	}
	for i, bounds := range p.Bounds {
		if err := bounds.check(); err != nil {
			return fact.Wrap(err, "practice.bounds-numbered", "number", i+1, "why", err)
		}
	}
	for i, step := range p.Figure {
		err := step.check(p.Kind)
		if err == nil {
			err = step.checkMove(p.Kind)
		}
		if err != nil {
			return fact.Wrap(err, "practice.phase-numbered", "number", i+1, "why", err)
		}
	}
	return nil
}

// checkWords checks what is for people: that it is of a kind, and no longer than can be read.
func (p *Practice) checkWords() error {
	if !slices.Contains([]Effect{"", Warming, Calming}, p.TaughtAs) {
		return fact.New("practice.taught-as", "given", p.TaughtAs)
	}
	for _, intent := range p.Intents {
		if !slices.Contains(Intents, intent) {
			return fact.New("practice.intent", "given", intent, "allowed", Intents)
		}
	}
	if p.Level != "" && !slices.Contains(Levels, p.Level) {
		return fact.New("practice.level", "given", p.Level, "allowed", Levels)
	}
	for phase := range p.Words {
		if !slices.Contains(breath.OfAFigure, breath.Phase(phase)) {
			return fact.New("practice.words", "given", phase)
		}
	}
	texts := slices.Concat(
		[]string{p.ID, p.Name, p.Term, p.About, p.Seat, p.Hands, p.Eyes, p.Locks, p.Gentler, p.Harder, p.Finish},
		p.Also,
		p.How,
		p.PromptTexts(),
		p.Watch,
		p.Schools,
		slices.Collect(maps.Values(p.Words)),
		p.Called.All(),
	)
	for _, preset := range p.Presets {
		if preset.Name == "" {
			return fact.New("practice.preset-name")
		}
		texts = slices.Concat(texts, []string{preset.Name}, preset.Also, preset.Called.All())
	}
	for _, t := range p.In {
		for _, text := range t.singles() {
			texts = append(texts, *text)
		}
		for _, list := range t.lists() {
			texts = append(texts, *list...)
		}
	}
	if err := p.checkTexts(); err != nil {
		return err
	}
	if len(texts) > (11+8*mostTexts)*(1+len(p.In)) {
		return fact.New("practice.too-many-texts", "given", len(texts), "most", mostTexts)
	}
	for _, text := range texts {
		if len(text) > mostText {
			return fact.New("practice.text-too-long", "given", len(text), "most", mostText)
		}
	}
	return nil
}

// All returns the names in every language.
func (c Called) All() []string { return slices.Concat(slices.Collect(maps.Values(c))...) }

func (p *Practice) checkKind() error {
	switch p.Kind {
	case Counted:
		if _, err := breath.ParseCounts(p.Counts); err != nil {
			return fact.Wrap(err, "practice.counts", "given", p.Counts, "allowed", err)
		}
	case Strokes:
		if p.Rate < breath.SlowestRate || p.Rate > breath.FastestRate {
			return fact.New("practice.rate", "given", p.Rate, "least", breath.SlowestRate, "most", breath.FastestRate)
		}
		if p.FillsMinutes() && p.Minutes == 0 {
			return fact.New("practice.strokes")
		}
		if _, err := breath.ParseCounts(p.After); p.After != "" && err != nil {
			return fact.Wrap(err, "practice.counts", "given", p.After, "allowed", err)
		}
	case Open:
		if len(p.Seconds) != 4 || slices.Min(p.Seconds) < 1 || slices.Max(p.Seconds) > mostOpen {
			return fact.New("practice.open-seconds", "given", p.Seconds)
		}
	case Fixed:
	default:
		return fact.New("practice.kind", "given", p.Kind)
	}
	return nil
}

// partRoles are what the parts of a phase may be called, besides their own words.
var partRoles = []string{"zones up", "zones down", "aperture"}

func (s Step) check(kind Kind) error {
	ways := []string{""}
	switch s.Phase {
	case breath.Inhale, breath.Exhale:
		ways = []string{"airway", "start", "other", "left", "right", "both", "mouth"}
	case breath.Stroke:
		ways = []string{"airway", "both", "mouth"}
	case breath.Hold, breath.Empty:
	default:
		return fact.New("practice.phase", "given", s.Phase)
	}
	if s.Phase == breath.Stroke && !kind.CountsStrokes() {
		return fact.New("practice.phase-of-kind", "given", s.Phase)
	}
	if !slices.Contains(ways, s.Through) {
		return fact.New("practice.through", "given", s.Through, "phase", s.Phase, "allowed", ways)
	}
	n, err := strconv.Atoi(s.Counts)
	roles := natures[kind].roles
	if !slices.Contains(roles, s.Counts) && (err != nil || n < 1 || n > breath.MostCounts || !natures[kind].numbers) {
		return fact.New("practice.phase-counts", "given", s.Counts, "allowed", roles, "most", breath.MostCounts)
	}
	role := len(s.Parts) == 1 && slices.Contains(partRoles, s.Parts[0])
	if len(s.Parts) > 0 && !role && (n == 0 || len(s.Parts) != n) {
		return fact.New("practice.parts", "given", s.Parts, "allowed", partRoles)
	}
	return nil
}

// checkMove checks the steps of a phase and the words of a movement.
func (s Step) checkMove(kind Kind) error {
	stop := Step{Counts: s.Stop}
	breathes := s.Phase == breath.Inhale || s.Phase == breath.Exhale
	switch {
	case s.Steps == 0 && s.Stop == "":
	case !kind.TakesCounts(), !breathes, s.Steps < 2, s.Steps > mostSteps, s.role() < 0,
		stop.role() < 0, !breath.OfABreath[max(0, stop.role())].Held():
		return fact.New("practice.steps", "given", s.Steps, "most", mostSteps)
	}
	if len(s.Move) > 2 || len(s.Move) > 0 && (!kind.TakesCounts() || len(s.Parts) > 0) {
		return fact.New("practice.move", "given", s.Move, "most", mostMove)
	}
	for _, text := range s.Move {
		if text == "" || len(text) > mostMove {
			return fact.New("practice.move", "given", text, "most", mostMove)
		}
	}
	return nil
}
