package library

import (
	"cmp"
	"context"
	"slices"
	"strings"
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/care"
	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/words"
	"vastlantern/language"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Practices returns the practice book: the catalogue, and the teacher's own.
func (l *Library) Practices(ctx context.Context, group int64) (contract.Book, error) {
	own, err := l.OwnPractices(ctx)
	if err != nil {
		return contract.Book{}, err
	}
	g, err := l.Group(ctx, group)
	if err != nil {
		return contract.Book{}, err
	}
	choices, err := l.ChoicesFor(ctx, g)
	if err != nil {
		return contract.Book{}, err
	}
	room, err := l.CareFor(ctx, g, time.Time{}) // the hour of reading is not that of teaching
	if err != nil {
		return contract.Book{}, err
	}
	book := contract.Book{
		Practices: []contract.Practice{},
		Intents:   practice.Intents,
		Levels:    practice.Levels,
		General:   care.Everyone.Say,
	}
	for _, p := range slices.Concat(own, practice.Catalogue()) {
		translated, whole := p.Translated(language.Of(ctx))
		page := page(ctx, translated, room)
		page.Language = language.Of(ctx)
		switch {
		case page.Own:
			page.Language = "" // as its teacher wrote it
		case !whole:
			page.Language = "en"
		}
		page.Shown = choices.Shown(p)
		book.Practices = append(book.Practices, page)
	}
	order := language.Order(language.Of(ctx))
	slices.SortStableFunc(book.Practices, func(a, b contract.Practice) int { return order(a.Name, b.Name) })
	return book, nil
}

func page(ctx context.Context, p *practice.Practice, room care.Room) contract.Practice {
	passage := plan.Of(p)
	figures := passage.Figures()
	page := contract.Practice{
		ID:        p.ID,
		Name:      p.Name,
		Term:      p.Term,
		Kind:      string(p.Kind),
		Own:       strings.HasPrefix(p.ID, practice.OwnPrefix),
		From:      p.From,
		About:     p.About,
		Also:      texts(p.Also),
		Intents:   texts(p.Intents),
		Level:     p.Level,
		Seat:      p.Seat,
		Hands:     p.Hands,
		Eyes:      p.Eyes,
		Locks:     p.Locks,
		How:       texts(p.How),
		Prompts:   texts(p.PromptTexts()),
		Watch:     texts(p.Watch),
		Again:     again(p),
		Gentler:   p.Gentler,
		Harder:    p.Harder,
		Finish:    p.Finish,
		Schools:   texts(p.Schools),
		Texts:     classical(p.ID),
		Pattern:   studio.Told(ctx, passage.PatternFact()),
		Usual:     studio.Told(ctx, passage.Amount()),
		RoundMS:   figures.Round.Round(),
		PerMinute: figures.PerMinute.Float(),
		Holds:     passage.Measure.Counts.Holds(),
		Cautions:  contract.CautionsOf(&passage),
		Findings:  contract.FindingsOf(&passage, room),
		Course:    []string{},
		Pacers:    passage.Pacers(),
	}
	course, err := plan.Course(p)
	if err != nil {
		return page // a course was read with the practice
	}
	for _, fields := range course {
		if one, err := plan.One(fields, p); err == nil {
			page.Course = append(page.Course, courseInWords(ctx, fields, &one))
		}
	}
	return page
}

// courseInWords returns one passage of a course, with what tells it from the others: "chest 6:6 ×3".
func courseInWords(ctx context.Context, fields plan.Fields, p *plan.Passage) string {
	words, widths := fields.Variant()
	if widths {
		words = append(words, p.Aperture.Inhale+" / "+p.Aperture.Exhale+",")
	}
	return strings.Join(append(words, studio.Told(ctx, p.Amount())), " ")
}

func again(p *practice.Practice) []string {
	list := []string{}
	for _, one := range p.Again {
		list = append(list, one.Say)
	}
	return list
}

func texts(list []string) []string { return append([]string{}, list...) }

// Sample returns two rounds of the practice, for its lamp sheet to play silently on its page.
func (l *Library) Sample(ctx context.Context, id string) (contract.Score, error) {
	own, err := l.OwnPractices(ctx)
	if err != nil {
		return contract.Score{}, err
	}
	for _, p := range slices.Concat(own, practice.Catalogue()) {
		if p.ID == id {
			return l.sample(ctx, p)
		}
	}
	return contract.Score{}, studio.Fail(studio.ErrNotFound, "missing.practice", "practice", id)
}

// spoken returns what is said in class.
func (l *Library) spoken(ctx context.Context) (*words.Words, error) {
	chosen, err := l.InForce(ctx)
	if err != nil {
		return nil, err
	}
	choices, err := l.ChoicesFor(ctx, nil)
	if err != nil {
		return nil, err
	}
	own := chosen.OwnWords
	if choices.Way("address").Formal {
		own = words.Formal(chosen.Language, own)
	}
	return cmp.Or(words.Languages[chosen.Language], &words.English).With(own, false), nil
}

// sample returns two rounds of a practice as they are said in class.
func (l *Library) sample(ctx context.Context, p *practice.Practice) (contract.Score, error) {
	said, err := l.spoken(ctx)
	if err != nil {
		return contract.Score{}, err
	}
	passage := plan.Of(p)
	passage.LeadIn, passage.RestBetween, passage.Minutes, passage.Rounds = 0, breath.Exact{}, breath.Exact{}, 2
	if p.Kind.CountsStrokes() { // one round shows them all
		passage.Rounds = 1
	}
	one := &plan.Plan{Words: said, Passages: []plan.Passage{passage}}
	tl := pace.Sheet(one)
	name := p.NameIn(language.Of(ctx))
	return contract.Score{
		Title: name, Phases: contract.PhasesOf(tl.Rows, one), Lane: []contract.ScorePhase{}, EndMS: tl.End,
		Passages: []contract.ScorePassage{
			{
				Name:     name,
				Rounds:   passage.Rounds,
				Cautions: []contract.Caution{},
				Findings: []contract.Finding{},
				Steps:    []fact.Fact{},
				Lanes:    []contract.LaneOffer{},
				Sides:    contract.SidesOf(&passage), SideBreaths: passage.SideBreaths(),
			},
		},
		Cues: []contract.Cue{}, LaneCues: []contract.Cue{}, Spoken: []contract.Spoken{}, LaneSpoken: []contract.Spoken{},
	}, nil
}

// PracticeNames returns the names of all practices, by id.
func (l *Library) PracticeNames(ctx context.Context) (map[string]string, error) {
	own, err := l.OwnPractices(ctx)
	names := map[string]string{}
	for _, p := range slices.Concat(own, practice.Catalogue()) {
		names[p.ID] = p.NameIn(language.Of(ctx))
	}
	return names, err
}

// classical returns where the classical texts name the practice as one of their eight retentions.
func classical(id string) []string {
	list := []string{}
	for _, text := range practice.Classical() {
		for _, one := range text.Retentions {
			if one.Practice == id {
				list = append(list, text.Text+" "+one.Verses)
			}
		}
	}
	return list
}
