package home

import (
	"bytes"
	"compress/gzip"
	"context"
	"encoding/base64"
	"encoding/json"
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/homework"
	"vastlantern/core/plan"
	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// score is the whole of a plan as it is played without this program.
type score func(p *plan.Plan, fingers string) (contract.Score, error)

// Page returns a home practice as one file that plays by itself. The template is the page as it was built, without a
// practice. With voice, the place of the recordings is left for whoever puts them in.
func (h *Homes) Page(ctx context.Context, id int64, template []byte, voice bool) (studio.File, error) {
	stored, err := h.studio.Store.With(ctx).Home(id)
	if err != nil {
		return studio.File{}, studio.Missing(err, store.KindHome, id)
	}
	of, s, err := h.sheet(ctx, id)
	if err != nil {
		return studio.File{}, err
	}
	group, err := h.library.Group(ctx, stored.GroupID)
	if err != nil {
		return studio.File{}, err
	}
	fingers, err := h.library.FingersOf(ctx, group)
	if err != nil {
		return studio.File{}, err
	}
	if !voice {
		template = bytes.Replace(template, recordings, nil, 1)
	}
	data, err := pageData(s, stored.UID, &of, fingers, func(p *plan.Plan, fingers string) (contract.Score, error) {
		score, err := h.classes.PlanScore(ctx, p, fingers)
		if !voice {
			score.Speaker = nil
		}
		return score, err
	})
	if err != nil {
		return studio.File{}, err
	}
	page, err := filled(template, data)
	return studio.File{Name: studio.FileName(s.Home.Name) + ".html", Type: "text/html; charset=utf-8", Data: page}, err
}

// Score returns one piece of a step of a home practice, from 0, as it is heard.
func (h *Homes) Score(ctx context.Context, id int64, step int) (contract.Score, error) {
	of, _, err := h.sheet(ctx, id)
	if err != nil {
		return contract.Score{}, err
	}
	if step < 0 || step >= len(of.steps) {
		return contract.Score{}, studio.Fail(studio.ErrInvalid, "home.no-step", "step", step+1, "steps", len(of.steps))
	}
	score, err := h.classes.PlanScore(ctx, of.steps[step], "")
	return score.ForTheRoom(), err
}

// PageOf returns the page of a passage of a plan, by its number from 1, in as many rounds as it is planned.
func PageOf(
	template []byte,
	doc plan.Document,
	p *plan.Plan,
	number int,
	of func(p *plan.Plan, fingers string) contract.Score,
) ([]byte, error) {
	if number < 1 || number > len(p.Passages) || p.Passages[number-1].Practice == nil {
		return nil, fact.New("home.no-practice", "passage", number)
	}
	one, from := &p.Passages[number-1], p.Title
	if one.OwnPace { // in as many rounds as fit its minutes
		usual := homework.Usual(one.PlannedLength().Round())
		if err := usual.Plan(doc, p, number, taught.Next{}); err != nil {
			return nil, err
		}
	} else {
		doc.Only(doc.Passages()[number-1].Alone(one), one.Name())
	}
	document, err := json.Marshal(doc)
	if err != nil {
		return nil, err
	}
	alone, err := givenOf(homework.Task{}, document)
	if err != nil {
		return nil, err
	}
	home := contract.Home{
		Name: one.Name(), Says: pieceInWords(alone.plan, in(alone.plan)),
		Stretches:  alone.stretches(in(alone.plan)),
		HomeAmount: contract.HomeAmountOf(alone.task),
	}
	data, err := pageData(sheetOf(home, &alone, from), "", &alone, "",
		func(p *plan.Plan, fingers string) (contract.Score, error) { return of(p, fingers), nil })
	if err != nil {
		return nil, err
	}
	return filled(bytes.Replace(template, recordings, nil, 1), data)
}

// Recordings returns what the recorded voice says in the page of a home practice.
func (h *Homes) Recordings(ctx context.Context, id int64) (contract.HomeRecordings, error) {
	list := contract.HomeRecordings{Sums: []string{}, Missing: []string{}}
	of, s, err := h.sheet(ctx, id)
	if err != nil {
		return list, err
	}
	data, err := pageData(s, "", &of, "", func(p *plan.Plan, fingers string) (contract.Score, error) {
		return h.classes.PlanScore(ctx, p, fingers)
	})
	for _, score := range data.Scores {
		if speaker := score.Speaker; speaker != nil {
			list.Name = speaker.Name
			for _, sums := range speaker.Said {
				list.Sums = append(list.Sums, sums...)
			}
			list.Missing = append(list.Missing, speaker.Missing...)
		}
	}
	slices.Sort(list.Sums)
	slices.Sort(list.Missing)
	list.Sums, list.Missing = slices.Compact(list.Sums), slices.Compact(list.Missing)
	return list, err
}

// pageData returns what a page is made of. key is what a device remembers its days under.
func pageData(s contract.HomeSheet, key string, of *given, fingers string, play score) (contract.HomePage, error) {
	data := contract.HomePage{
		Sheet: s, Key: key, Steps: []contract.HomeDays{}, Scores: []contract.Score{}, Language: of.plan.Words.Tag,
	}
	scores := scores{make: play, fingers: fingers, known: map[string]int{}}
	for i, stretch := range of.stretches(in(of.plan)) {
		doc, p, err := stepDocument(of.task, of.document, of.plan, i)
		if err != nil {
			return data, err
		}
		one := &p.Passages[0]
		days := contract.HomeDays{
			HomeStretch: stretch,
			Name:        one.Name(),
			Term:        one.Practice.Term,
			How:         append([]string{}, one.Practice.How...),
			Cautions:    cautions(in(p), one),
			Choices:     []contract.HomeChoice{},
			Evening:     -1,
		}
		for _, amount := range amounts(one, len(of.task.Steps) > 0) {
			amount.set(doc.Passages()[0])
			if amount.given {
				days.Given = len(days.Choices)
			}
			if of.task.Evening == homework.SameEvening && amount.given ||
				of.task.Evening == homework.HalfEvening && amount.half {
				days.Evening = len(days.Choices)
			}
			choice, err := scores.choice(doc)
			if err != nil {
				return data, err
			}
			days.Choices = append(days.Choices, choice)
		}
		data.Steps = append(data.Steps, days)
	}
	data.Scores = scores.list
	return data, nil
}

// choice is how much is played at once.
type choice struct {
	rounds  int
	minutes breath.Exact // of what fills its minutes
	given   bool
	half    bool // of what was given
}

func (c choice) set(fields plan.Fields) {
	if c.rounds > 0 {
		fields.SetRounds(c.rounds)
		return
	}
	fields.SetMinutes(c.minutes)
}

// mostAtOnce is how long the longest choice may take, in milliseconds: the ceiling of handbook.md section 9.
const mostAtOnce = homework.MaxMinutes * 60_000

// amounts returns how much there is to choose from: as it was given, less, and more where it does not grow by itself.
func amounts(p *plan.Passage, grows bool) []choice {
	if p.Practice.FillsMinutes() {
		var list []choice
		for _, halves := range []int64{1, 2, 3, 4} {
			minutes := p.Minutes.Mul(breath.Ratio(halves, 2))
			if halves <= 2 || !grows && !breath.Int(homework.MaxMinutes).Less(minutes) {
				list = append(list, choice{minutes: minutes, given: halves == 2, half: halves == 1})
			}
		}
		return list
	}
	given := p.TotalRounds(p.Measure)
	half := (given + 1) / 2
	each := p.RoundSpan(p.Measure).Add(p.BetweenSpan(p.Measure))
	counts := []int{1, half, given, given + half, 2 * given}
	slices.Sort(counts)
	var list []choice
	for _, n := range slices.Compact(counts) {
		fits := n <= plan.MaxRounds && !breath.Int(mostAtOnce).Less(each.Times(n))
		if n <= given || fits && !grows {
			list = append(list, choice{rounds: n, given: n == given, half: n == half})
		}
	}
	return list
}

// place is where the built page takes a practice. It is packed: the scores of several choices say much twice.
var place = []byte("PRACTICE-GOES-HERE")

// recordings is where it takes what a voice says: small sounds, which the browser makes.
var recordings = []byte("RECORDINGS-GO-HERE")

func filled(template []byte, data contract.HomePage) ([]byte, error) {
	if bytes.Count(template, place) != 1 {
		return nil, fact.New("home.page-not-built")
	}
	plain, err := json.Marshal(data)
	if err != nil {
		return nil, err
	}
	var small bytes.Buffer
	writer, err := gzip.NewWriterLevel(&small, gzip.BestCompression)
	if err != nil {
		return nil, err
	}
	if _, err := writer.Write(plain); err != nil {
		return nil, err
	}
	if err := writer.Close(); err != nil {
		return nil, err
	}
	return bytes.Replace(template, place, base64.StdEncoding.AppendEncode(nil, small.Bytes()), 1), nil
}
