package prepare

import (
	"bytes"
	"context"
	_ "embed"
	"fmt"
	html "html/template"
	"maps"
	"slices"
	"strings"
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/care"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/plan/line"
	"vastlantern/core/practice"
	"vastlantern/core/school"
	"vastlantern/core/sheet"
	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

//go:embed substitute.html
var substituteText string

var substitutePage = html.Must(html.New("substitute").Parse(substituteText))

// substitute holds everything that a substitute teacher needs.
type substitute struct {
	Language                     string
	Say                          func(id string) string // a heading
	Level                        string
	Title, When, Length, General string
	Group                        *contract.Group
	Mind                         []string // what to take care of, for this group
	Ways                         []string // how it is done here: fingers, chin, palms
	Passages                     []substitutePassage
	Practices                    []*practice.Practice
	Cautions                     []string
	Translated                   bool   // the cautions are not as they were written, in English
	Text                         string // the class, to be read in by the program
}

type substitutePassage struct {
	At, Name, What string
	Words          []string
}

// Substitute returns a plan as one page that needs nothing else: the running order with all that is said, how each
// practice is led, what to take care of with this group, and the class as text.
func (ps *Plans) Substitute(ctx context.Context, id int64) (studio.File, error) {
	stored, err := ps.studio.Store.With(ctx).Plan(id)
	if err != nil {
		return studio.File{}, studio.Missing(err, store.KindPlan, id)
	}
	doc, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	if err != nil {
		return studio.File{}, studio.FailInPlan(err, "plan.cannot-hand-over-yet")
	}
	group, err := ps.library.Group(ctx, stored.GroupID)
	if err != nil {
		return studio.File{}, err
	}
	who, err := ps.library.CareFor(ctx, group, p.StartsAt)
	if err != nil {
		return studio.File{}, err
	}
	names, err := ps.Names(ctx)
	if err != nil {
		return studio.File{}, err
	}
	in := language.In(language.Of(ctx))
	text := in.Text
	page := substitute{
		Title: p.Title, Length: plan.SpokenTime(p.Length()), General: text(care.Everyone.Say), Group: group,
		Translated: text(care.Everyone.Say) != language.In("en").Text(care.Everyone.Say),
		Language:   language.Of(ctx), Say: func(id string) string { return text(fact.New("hand-over." + id)) },
	}
	if group != nil && group.Level != "" {
		page.Level = text(fact.New("level." + group.Level))
	}
	if p.Slot.Sign() > 0 {
		page.Length = text(fact.New("hand-over.of-slot", "length", page.Length, "slot", p.Slot))
	}
	if !p.StartsAt.IsZero() {
		page.When = text(fact.New("hand-over.when", "weekday", int(p.StartsAt.Weekday()), "day", p.StartsAt.Day(),
			"month", int(p.StartsAt.Month()), "year", p.StartsAt.Year(), "time", p.StartsAt.Format("15:04")))
	}
	page.Text, _ = names.ToText(doc, p)
	choices, err := ps.library.ChoicesFor(ctx, group)
	if err != nil {
		return studio.File{}, err
	}
	fields := doc.Passages()
	start := breath.Exact{}
	for i := range p.Passages {
		one := &p.Passages[i]
		page.Passages = append(page.Passages, substituteOf(in, one, fields[i], at(p.StartsAt, start)))
		start = start.Add(one.PlannedLength())
		if one.Practice != nil && !slices.ContainsFunc(page.Practices, one.Practice.Is) {
			told, _ := one.Practice.Translated(page.Language)
			page.Practices = append(page.Practices, told)
			for _, way := range waysOf(choices, p, one.Practice) {
				if way := text(way); !slices.Contains(page.Ways, way) {
					page.Ways = append(page.Ways, way)
				}
			}
		}
		for _, c := range contract.CautionsOf(one) {
			if say := text(c.Say); !slices.Contains(page.Cautions, say) && c.ID != care.EveryoneID {
				page.Cautions = append(page.Cautions, say)
			}
		}
		for _, f := range contract.FindingsOf(one, who) {
			if line := text(fact.New("hand-over.finding", "name", one.Name(), "do", fact.New("do."+string(f.Do)), "finding",
				f.Say)); !slices.Contains(
				page.Mind,
				line,
			) {
				page.Mind = append(page.Mind, line)
			}
		}
	}
	var out bytes.Buffer
	err = substitutePage.Execute(&out, page)
	return studio.File{
		Name: studio.FileName(stored.Title) + "-substitute.html",
		Type: "text/html; charset=utf-8",
		Data: out.Bytes(),
	}, err
}

// waysOf returns how a practice is done in a class: as the school has it, but for what the plan has otherwise.
func waysOf(choices school.Choices, p *plan.Plan, one *practice.Practice) []fact.Fact {
	here := maps.Clone(choices)
	if here == nil {
		here = school.Choices{}
	}
	if p.Chin != "" {
		here["chin"] = p.Chin
	}
	if len(p.Fingers) > 0 {
		here["fingers"] = p.Fingers[0]
	}
	ways := here.Shown(one)
	if len(p.Fingers) > 1 && one.Sided() {
		ways = append(ways, school.Line("fingers", p.Fingers[1]))
	}
	return ways
}

func substituteOf(in *language.Catalogue, p *plan.Passage, f plan.Fields, at string) substitutePassage {
	p.CallIn(in.Tag())
	p.Translate(in.Tag()) // its steps
	shape := substitutePassage{At: at, Name: p.Name(), What: plan.SpokenTime(p.PlannedLength())}
	if p.Practice != nil {
		what := []string{line.ShortIn(in.Tag(), p.Short(f))}
		for _, said := range p.Says(f) {
			what = append(what, in.Text(said))
		}
		if p.Led() {
			what = append(what, in.Text(fact.New("hand-over.round", "seconds", tenth(p.Figures().Round.Div(breath.Int(1000))))))
		}
		shape.What = strings.Join(append(what, in.Text(fact.New("hand-over.in-all", "length", shape.What))), ", ")
	}
	for _, words := range []string{p.Script, stepsInWords(in, "hand-over.opening", p.OpeningSteps), ownWords(in, p),
		stepsInWords(in, "hand-over.closing", p.ClosingSteps)} {
		for line := range strings.SplitSeq(words, "\n") {
			if strings.TrimSpace(line) != "" {
				shape.Words = append(shape.Words, line)
			}
		}
	}
	return shape
}

// ownWords returns the teacher's own words with where they come, a line each.
func ownWords(in *language.Catalogue, p *plan.Passage) string {
	var lines []string
	for i := range p.Lines {
		var place []string
		for _, part := range p.Lines[i].Place(p) {
			place = append(place, in.Text(part))
		}
		lines = append(lines, in.Text(fact.New("labelled.text", "label", strings.Join(place, ", "), "text", p.Lines[i].Text)))
	}
	return strings.Join(lines, "\n")
}

func stepsInWords(in *language.Catalogue, id string, steps []plan.Step) string {
	if len(steps) == 0 {
		return ""
	}
	return in.Text(fact.New(id, "steps", contract.StepsOf(steps)))
}

// at returns when a passage begins: by the clock where the class has a time, else from its start.
func at(starts time.Time, after breath.Exact) string {
	seconds := after.Div(breath.Int(1000)).Round()
	if starts.IsZero() {
		return fmt.Sprintf("%d:%02d", seconds/60, seconds%60)
	}
	return starts.Add(time.Duration(seconds) * time.Second).Format("15:04:05")
}
