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
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
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
	s, err := h.Sheet(ctx, id)
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
	score := func(p *plan.Plan, fingers string) (contract.Score, error) {
		s, err := h.classes.PlanScore(ctx, p, fingers)
		if !voice {
			s.Speaker = nil
		}
		return s, err
	}
	data, err := page(template, s, stored.Document, fingers, score)
	return studio.File{Name: studio.FileName(s.Home.Name) + ".html", Type: "text/html; charset=utf-8", Data: data}, err
}

// Score returns one piece of a home practice, from 0, as it is heard.
func (h *Homes) Score(ctx context.Context, id int64) (contract.Score, error) {
	stored, err := h.studio.Store.With(ctx).Home(id)
	if err != nil {
		return contract.Score{}, studio.Missing(err, store.KindHome, id)
	}
	home, p, err := card(stored)
	if err != nil {
		return contract.Score{}, h.studio.OrDamaged(err, store.KindHome, id)
	}
	if !home.Plays {
		return contract.Score{}, cannotPlay(home)
	}
	score, err := h.classes.PlanScore(ctx, p, "")
	return score.ForTheRoom(), err
}

func cannotPlay(home contract.Home) error {
	return studio.Fail(studio.ErrInvalid, "home.open-phases", "name", home.Name)
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
		usual := taught.UsualHome(one.PlannedLength().Round())
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
	_, alone, err := sheet.ReadPlan(bytes.NewReader(document))
	if err != nil {
		return nil, err
	}
	home := contract.Home{Name: one.Name(), Says: pieceInWords(&alone.Passages[0]), Plays: plays(&alone.Passages[0])}
	return page(
		bytes.Replace(template, recordings, nil, 1),
		sheetOf(home, alone, from),
		document,
		"",
		func(p *plan.Plan, fingers string) (contract.Score, error) { return of(p, fingers), nil },
	)
}

func page(template []byte, s contract.HomeSheet, document []byte, fingers string, of score) ([]byte, error) {
	data, err := pageData(s, document, fingers, of)
	if err != nil {
		return nil, err
	}
	return filled(template, data)
}

// Recordings returns what the recorded voice says in the page of a home practice.
func (h *Homes) Recordings(ctx context.Context, id int64) (contract.HomeRecordings, error) {
	list := contract.HomeRecordings{Sums: []string{}, Missing: []string{}}
	stored, err := h.studio.Store.With(ctx).Home(id)
	if err != nil {
		return list, studio.Missing(err, store.KindHome, id)
	}
	s, err := h.Sheet(ctx, id)
	if err != nil {
		return list, err
	}
	data, err := pageData(s, stored.Document, "", func(p *plan.Plan, fingers string) (contract.Score, error) {
		return h.classes.PlanScore(ctx, p, fingers)
	})
	for _, choice := range data.Choices {
		if speaker := choice.Score.Speaker; speaker != nil {
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

func pageData(s contract.HomeSheet, document []byte, fingers string, of score) (contract.HomePage, error) {
	data := contract.HomePage{Sheet: s, Choices: []contract.HomeChoice{}}
	if !s.Home.Plays {
		return data, cannotPlay(s.Home)
	}
	_, given, err := sheet.ReadPlan(bytes.NewReader(document))
	if err != nil {
		return data, err
	}
	for _, amount := range amounts(&given.Passages[0]) {
		doc, err := sheet.ReadDocument(bytes.NewReader(document))
		if err != nil {
			return data, err
		}
		amount.set(doc.Passages()[0])
		p, err := plan.Read(doc)
		if err != nil {
			return data, err
		}
		if amount.given {
			data.Given = len(data.Choices)
		}
		score, err := of(p, fingers)
		if err != nil {
			return data, err
		}
		data.Choices = append(
			data.Choices,
			contract.HomeChoice{Says: pieceInWords(&p.Passages[0]), Score: score.ForTheRoom()},
		)
	}
	return data, nil
}

// choice is how much is played at once.
type choice struct {
	rounds  int
	minutes breath.Exact // of what fills its minutes
	given   bool
}

func (c choice) set(fields plan.Fields) {
	if c.rounds > 0 {
		fields.SetRounds(c.rounds)
		return
	}
	fields.SetMinutes(c.minutes)
}

// mostAtOnce is how long the longest choice may take, in milliseconds: the ceiling of handbook.md section 9.
const mostAtOnce = taught.MostHomeMinutes * 60_000

// amounts returns how much there is to choose from: as it was given, less and more.
func amounts(p *plan.Passage) []choice {
	if p.Practice.FillsMinutes() {
		var list []choice
		for _, halves := range []int64{1, 2, 3, 4} {
			if minutes := p.Minutes.Mul(breath.Ratio(halves, 2)); halves == 2 ||
				!breath.Int(taught.MostHomeMinutes).Less(minutes) {
				list = append(list, choice{minutes: minutes, given: halves == 2})
			}
		}
		return list
	}
	given := p.TotalRounds(p.Measure)
	each := p.RoundSpan(p.Measure).Add(p.BetweenSpan(p.Measure))
	counts := []int{1, (given + 1) / 2, given, given + (given+1)/2, 2 * given}
	slices.Sort(counts)
	var list []choice
	for _, n := range slices.Compact(counts) {
		if n == given || n <= plan.MaxRounds && !breath.Int(mostAtOnce).Less(each.Times(n)) {
			list = append(list, choice{rounds: n, given: n == given})
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
