package plan

import (
	"encoding/json"
	"slices"
	"strings"
	"unicode/utf8"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
)

// The names of what has none, in English.
const (
	talk    = "Talk"
	natural = "Natural breath"
)

// CallIn has Name answer in the language of a reader (BCP 47). What the plan is does not change.
func (p *Plan) CallIn(tag string) {
	for i := range p.Passages {
		p.Passages[i].CallIn(tag)
	}
}

// CallIn is that of Plan, for one passage.
func (p *Passage) CallIn(tag string) { p.tag = tag }

// Name returns what a running order shows: the title, else the practice's name. A title that is a name of ours, as
// "Square breath" or "Rest", is in the reader's language too.
func (p *Passage) Name() string {
	switch {
	case p.Title != "":
		return p.titleIn()
	case p.Practice != nil:
		return p.PracticeName()
	case p.tag == "" || p.tag == "en":
		if p.Type == Talk {
			return talk
		}
		return natural
	}
	return p.stretchNamed("", "")
}

// PracticeName returns the name of the passage's practice in the reader's language; only for a practice passage.
func (p *Passage) PracticeName() string {
	if p.tag == "" {
		return p.Practice.Name
	}
	return p.Practice.NameIn(p.tag)
}

func (p *Passage) titleIn() string {
	if p.tag == "" {
		return p.Title
	}
	if p.Practice == nil {
		title := p.Title
		if title == natural || title == talk {
			title = ""
		}
		return p.stretchNamed(title, p.Title)
	}
	for _, preset := range p.Practice.Presets {
		if preset.TagOf(p.Title) != "" {
			return Capital(preset.NameIn(p.tag))
		}
	}
	return p.Title
}

// stretchNamed returns what the stretch with an English title is called in the reader's language; otherwise for none.
func (p *Passage) stretchNamed(title, otherwise string) string {
	if p.tag == "en" {
		return otherwise
	}
	i := slices.IndexFunc(Stretches, func(s Stretch) bool { return s.Type == p.Type && s.Title == title })
	if i < 0 || len(Stretches[i].Called[p.tag]) == 0 {
		return otherwise
	}
	return Capital(Stretches[i].Called[p.tag][0])
}

// Capital writes the first letter large.
func Capital(name string) string {
	_, size := utf8.DecodeRuneInString(name)
	return strings.ToUpper(name[:size]) + name[size:]
}

// PatternFact is Pattern for a reader of any language.
func (p *Passage) PatternFact() fact.Fact {
	if p.TakesCounts() || !p.CountsStrokes() {
		return fact.New("name", "name", p.Pattern())
	}
	if after := p.Measure.Counts; after.Inhale > 0 {
		return fact.New("pattern.strokes-then", "strokes", p.Measure.Strokes, "counts", after.String())
	}
	return fact.New("pattern.strokes", "strokes", p.Measure.Strokes)
}

// Summed is the passage in a few words, for a reader of any language: "Alternate nostril breath 4:4:8 ×6".
func (p *Passage) Summed() fact.Fact {
	if p.Practice == nil {
		return fact.New("name", "name", p.Name())
	}
	return fact.New("pattern.of", "name", p.Name(), "amount", p.Amount())
}

// Amount is how much of a practice it is, as "4:4:8 ×6".
func (p *Passage) Amount() fact.Fact {
	length := fact.New("pattern.times", "rounds", p.Rounds)
	if p.Minutes.Sign() > 0 {
		length = fact.New("name", "name", SpokenTime(p.Millis()))
	}
	if p.Pattern() == "" {
		return length
	}
	return fact.New("pattern.length", "pattern", p.PatternFact(), "length", length)
}

// fillOf is what the passage fills, as a reader sees it.
func (p *Passage) fillOf() fact.Fact {
	if p.Fill == FillToEnd {
		return fact.New("saying.fill-to-end")
	}
	return fact.New("saying.fill", "clock", p.Fill)
}

// Says returns what tells the passage from others beyond its title and what Short writes, in a few words each: "through
// the mouth", "narrow in", "beside 4:4". What is usual has none.
func (p *Passage) Says(f Fields) []fact.Fact {
	list := []fact.Fact{}
	for _, name := range lineOrder {
		if slices.Contains(InShort, name) || fieldNamed[name].say(f, p) == "" {
			continue
		}
		list = append(list, p.Saying(name, f)...)
	}
	return list
}

// Saying is what a field of the passage says to a reader of any language; only for one that a line can say.
func (p *Passage) Saying(name string, f Fields) []fact.Fact {
	id := "saying." + strings.ReplaceAll(name, "_", "-")
	switch name {
	case "fill":
		return []fact.Fact{p.fillOf()}
	case "fill_least":
		return []fact.Fact{fact.New(id, "seconds", p.FillLeast.Div(breath.Int(1000)).String())}
	case "aperture":
		return []fact.Fact{fact.New(id, "inhale", p.Aperture.Inhale, "exhale", p.Aperture.Exhale)}
	case "syllables":
		return []fact.Fact{fact.New(id+"."+string(p.Voice), "syllables", strings.Join(p.Syllables, " "))}
	case "choices":
		return []fact.Fact{fact.New(id, "counts", choicesOf(p))}
	case "beside":
		return []fact.Fact{fact.New(id, "lane", p.Beside.Name())}
	case "fade":
		var list []fact.Fact
		if p.Fade.WordsAfter >= 0 {
			list = append(list, fact.New("saying.fade-words", "rounds", p.Fade.WordsAfter))
		}
		if p.Fade.SilentAfter >= 0 {
			list = append(list, fact.New("saying.fade-silent", "rounds", p.Fade.SilentAfter))
		}
		return list
	case "by_hand":
		if p.ByHand == AllByHand {
			return []fact.Fact{fact.New(id)}
		}
		var phases []fact.Fact
		for _, phase := range p.ByHand.Phases() {
			phases = append(phases, fact.New("phase."+string(phase)))
		}
		return []fact.Fact{fact.New("saying.by-hand-phases", "phases", phases)}
	}
	switch value := f.values[name].(type) {
	case bool:
		return []fact.Fact{fact.New(id)}
	case json.Number:
		if x, err := value.Float64(); err == nil {
			return []fact.Fact{fact.New(id, "value", x)}
		}
	case string:
		if name != "after" { // one of a few words
			return []fact.Fact{fact.New(id + "." + value)}
		}
	}
	return []fact.Fact{fact.New(id, "value", f.values[name])}
}
