package home

import (
	"bytes"
	"context"
	"encoding/json"
	"slices"

	"vastlantern/core/care"
	"vastlantern/core/fact"
	"vastlantern/core/homework"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/language"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// PageOfClasses returns a programme as one file that plays by itself: each class on its days, without the talks, from
// the day that begins says. key is what a device remembers its days under.
func (h *Homes) PageOfClasses(
	ctx context.Context, name, key, begins string, group int64, classes []studio.HomeClass, template []byte,
) (studio.File, error) {
	if wrong := (homework.Task{Minutes: 1, Pieces: 1, Begins: begins}).Check(); len(wrong) > 0 {
		return studio.File{}, studio.FailAll(wrong)
	}
	of, err := h.library.Group(ctx, group)
	if err != nil {
		return studio.File{}, err
	}
	fingers, err := h.library.FingersOf(ctx, of)
	if err != nil {
		return studio.File{}, err
	}
	data := contract.HomePage{Key: key, Steps: []contract.HomeDays{}}
	scores := scores{fingers: fingers, known: map[string]int{}, list: []contract.Score{}}
	scores.make = func(p *plan.Plan, fingers string) (contract.Score, error) {
		score, err := h.classes.PlanScore(ctx, p, fingers)
		score.Speaker = nil // recordings of whole classes would be too large to be sent
		return score, err
	}
	for i, class := range classes {
		days, err := scores.class(class)
		if err != nil {
			return studio.File{}, studio.Fail(studio.ErrInvalid, "home.class", "class", i+1, "title", class.Title, "why", err)
		}
		data.Steps = append(data.Steps, days)
	}
	data.Scores, data.Language = scores.list, scores.tag
	last := data.Steps[len(data.Steps)-1].Last
	in := language.In(data.Language)
	data.Sheet = contract.HomeSheet{
		Home: contract.Home{
			Name: name, Stretches: []contract.HomeStretch{},
			Amount:     in.Text(fact.New("home.classes", "classes", len(classes), "days", last)),
			HomeAmount: contract.HomeAmountOf(homework.Task{Begins: begins}),
		},
		How: []string{}, Opening: []string{}, Closing: []string{}, Cautions: []string{},
		Stop: in.Text(care.Everyone.Say), TooMuch: texts(in, homework.TooMuch("")),
	}
	page, err := filled(bytes.Replace(template, recordings, nil, 1), data)
	return studio.File{Name: studio.FileName(name) + ".html", Type: "text/html; charset=utf-8", Data: page}, err
}

// class returns a whole class as it is played.
func (s *scores) class(class studio.HomeClass) (days contract.HomeDays, err error) {
	doc, p, err := sheet.ReadPlan(bytes.NewReader(class.Document))
	if err != nil {
		return days, err
	}
	if !doc.AllAlone(p) {
		return days, fact.New("home.class-empty")
	}
	text, err := json.Marshal(doc)
	if err != nil {
		return days, err
	}
	_, alone, err := sheet.ReadPlan(bytes.NewReader(text))
	if err != nil {
		return days, err
	}
	alone.Translate()
	days = contract.HomeDays{
		HomeStretch: contract.HomeStretch{First: class.First, Last: class.Last, Typed: class.Title,
			Says: lengthInWords(alone)},
		Name: class.Title, How: []string{}, Cautions: []string{}, Evening: -1,
	}
	for i := range alone.Passages {
		one := &alone.Passages[i]
		one.CallIn(in(alone).Tag())
		days.How = append(days.How, in(alone).Text(one.Summed()))
		if one.Practice == nil {
			continue
		}
		for _, caution := range cautions(in(alone), one) {
			if !slices.Contains(days.Cautions, caution) {
				days.Cautions = append(days.Cautions, caution)
			}
		}
	}
	choice, err := s.choice(doc)
	days.Choices = []contract.HomeChoice{choice}
	return days, err
}

// lengthInWords returns how long a class takes: "about 12 min".
func lengthInWords(p *plan.Plan) string {
	const minute = 60_000
	return in(p).Text(fact.New("home.class-length", "minutes", max(1, (p.Length().Round()+minute/2)/minute)))
}
