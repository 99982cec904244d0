package prepare

import (
	"bytes"
	_ "embed"
	"fmt"
	html "html/template"
	"slices"
	"strings"
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/care"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/sheet"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

//go:embed substitute.html
var substituteText string

var substitutePage = html.Must(html.New("substitute").Parse(substituteText))

// substitute is everything that somebody needs who leads a class in the teacher's place.
type substitute struct {
	Title, When, Length, General string
	Group                        *contract.Group
	Mind                         []string // what to take care of, for this group
	Passages                     []substitutePassage
	Practices                    []*practice.Practice
	Cautions                     []string
	Text                         string // the class, to be read in by the program
}

type substitutePassage struct {
	At, Name, What string
	Words          []string
}

// Substitute is a plan as one page that needs nothing else: the running order with all that is said, how each practice is
// led, what to take care of with this group, and the class as text.
func (ps *Plans) Substitute(id int64) (studio.File, error) {
	stored, err := ps.studio.Store.Plan(id)
	if err != nil {
		return studio.File{}, studio.Missing(err, "plan", id)
	}
	doc, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	if err != nil {
		return studio.File{}, studio.FailInPlan(err, "This plan cannot be handed on yet. Correct what is marked in it first.")
	}
	group, err := ps.library.Group(stored.GroupID)
	if err != nil {
		return studio.File{}, err
	}
	who, err := ps.library.CareFor(group, p.StartsAt)
	if err != nil {
		return studio.File{}, err
	}
	names, err := ps.Names()
	if err != nil {
		return studio.File{}, err
	}
	page := substitute{Title: p.Title, Length: inWords(p.Length()), General: care.Everyone.Text, Group: group}
	if p.Slot.Sign() > 0 {
		page.Length += fmt.Sprintf(" of %s min", p.Slot)
	}
	if !p.StartsAt.IsZero() {
		page.When = p.StartsAt.Format("Monday 2 January 2006, 15:04")
	}
	page.Text, _ = names.ToText(doc, p)
	fields := doc.Passages()
	start := breath.Exact{}
	for i := range p.Passages {
		one := &p.Passages[i]
		page.Passages = append(page.Passages, substituteOf(one, fields[i], at(p.StartsAt, start)))
		start = start.Add(one.PlannedLength())
		if one.Practice != nil && !slices.Contains(page.Practices, one.Practice) {
			page.Practices = append(page.Practices, one.Practice)
		}
		for _, c := range contract.CautionsOf(one) {
			if !slices.Contains(page.Cautions, c.Text) && c.Text != page.General {
				page.Cautions = append(page.Cautions, c.Text)
			}
		}
		for _, f := range contract.FindingsOf(one, who) {
			if line := fmt.Sprintf("%s, %s: %s", one.Name(), f.Do, f.Say); !slices.Contains(page.Mind, line) {
				page.Mind = append(page.Mind, line)
			}
		}
	}
	var out bytes.Buffer
	err = substitutePage.Execute(&out, page)
	return studio.File{Name: studio.FileName(stored.Title) + "-substitute.html", Type: "text/html; charset=utf-8", Data: out.Bytes()}, err
}

func substituteOf(p *plan.Passage, f plan.Fields, at string) substitutePassage {
	shape := substitutePassage{At: at, Name: p.Name(), What: inWords(p.PlannedLength())}
	if p.Practice != nil {
		what := append([]string{p.Short(f)}, p.Says(f)...)
		if p.Led() {
			what = append(what, fmt.Sprintf("a round takes %s s", tenth(p.Figures().Round.Div(breath.Int(1000)))))
		}
		shape.What = strings.Join(append(what, shape.What+" in all"), ", ")
	}
	for _, words := range []string{p.Script, prefixed("opening: ", contract.StepsInWords(p.OpeningSteps)), p.OwnWords(), prefixed("closing: ", contract.StepsInWords(p.ClosingSteps))} {
		for line := range strings.SplitSeq(words, "\n") {
			if strings.TrimSpace(line) != "" {
				shape.Words = append(shape.Words, line)
			}
		}
	}
	return shape
}

func prefixed(prefix string, steps []string) string {
	if len(steps) == 0 {
		return ""
	}
	return prefix + strings.Join(steps, ", ")
}

// inWords is milliseconds as 3 min 20 s.
func inWords(length breath.Exact) string {
	seconds := length.Div(breath.Int(1000)).Round()
	switch minutes, rest := seconds/60, seconds%60; {
	case minutes == 0:
		return fmt.Sprintf("%d s", rest)
	case rest == 0:
		return fmt.Sprintf("%d min", minutes)
	default:
		return fmt.Sprintf("%d min %d s", minutes, rest)
	}
}

// at is when a passage begins: by the clock where the class has a time, else from its start.
func at(starts time.Time, after breath.Exact) string {
	seconds := after.Div(breath.Int(1000)).Round()
	if starts.IsZero() {
		return fmt.Sprintf("%d:%02d", seconds/60, seconds%60)
	}
	return starts.Add(time.Duration(seconds) * time.Second).Format("15:04:05")
}
