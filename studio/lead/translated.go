package lead

import (
	"context"
	"slices"
	"sync"

	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/words"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
)

// translated is the class in progress as it is said in other languages, for screens of the room that chose one. It has
// the same rows at the same times: only the words differ.
type translated struct {
	mutex sync.Mutex
	class int64
	by    map[string]*inLanguage
}

// inLanguage is the class in one language. It follows adjustment by adjustment.
type inLanguage struct {
	class              *led.Class
	mainCues, laneCues *led.Cues
	says               func(texts []string) *contract.Speaker
	of                 scored
	at                 int64
	score              *contract.Score // not to be changed: others have it too
}

// RunningScoreIn returns the score of the class that is being led with the words of a language, nil if none is led. An
// empty language, or one that the words do not have, is that of the class.
func (c *Classes) RunningScoreIn(ctx context.Context, language string) (*contract.Score, error) {
	l, err := c.InProgress(ctx)
	if err != nil || l == nil {
		return nil, err
	}
	if words.Languages[language] == nil || language == l.Plan.Words.Tag {
		score, err := c.score(ctx, l)
		return &score, err
	}
	c.others.mutex.Lock()
	defer c.others.mutex.Unlock()
	other, err := c.others.of(ctx, c, l, language)
	if err != nil {
		return nil, err
	}
	of := scored{l.Stored.ID, len(l.Script), l.Unstored, l.WhyUnstored.ID, !l.Stored.EndedAt.IsZero(), c.studio.Changes()}
	at := l.At(c.studio.Now())
	if age := at - other.at; of == other.of && age >= 0 && float64(age) <= sameMoment*c.studio.Rate() {
		return other.score, nil
	}
	here, err := c.who(ctx, l.Stored, l.Plan.Words.Tag)
	if err != nil {
		return nil, err
	}
	score := led.Score(other.class, other.class.Led.Timeline(), here.Here, at, other.mainCues.Of, other.laneCues.Of)
	if other.says != nil {
		score.Speaker = other.says(led.Texts(&score))
	}
	score.Sample = c.isSample(l.Stored.PlanID)
	other.of, other.at, other.score = of, at, &score
	return other.score, nil
}

// of returns the class in a language, as far as it was led.
func (t *translated) of(ctx context.Context, c *Classes, l *studio.Class, language string) (*inLanguage, error) {
	if t.class != l.Stored.ID {
		t.class, t.by = l.Stored.ID, map[string]*inLanguage{}
	}
	other := t.by[language]
	if other == nil || len(other.class.Script) > len(l.Script) {
		says, err := c.voices.Speaking(ctx, language)
		if err != nil {
			return nil, err
		}
		in := *l.Plan
		own, err := c.formal(ctx, l.Stored.GroupID, language)
		if err != nil {
			return nil, err
		}
		in.Words = words.Languages[language].With(own, l.Plan.Words.ByHand)
		in.Passages = slices.Clone(in.Passages)
		for i := range in.Passages {
			name(&in.Passages[i], in.Words)
		}
		other = &inLanguage{
			class:    &led.Class{Plan: &in, Led: pace.Begin(&in)},
			mainCues: led.NewCues(), laneCues: led.NewCues(), says: says,
		}
		t.by[language] = other
	}
	for i := len(other.class.Script); i < len(l.Script); i++ {
		other.class.Add(l.Sent[i], l.Script[i])
	}
	other.class.ID, other.class.StartedAt, other.class.EndedAt = l.ID, l.StartedAt, l.EndedAt
	return other, nil
}

// formal returns what is said formally in a language, where the group is addressed so; none elsewhere.
func (c *Classes) formal(ctx context.Context, group int64, language string) (map[string]string, error) {
	groups, err := c.library.EveryGroupByID(ctx)
	if err != nil {
		return nil, err
	}
	choices, err := c.library.ChoicesFor(ctx, groups[group])
	if err != nil || !choices.Way("address").Formal {
		return nil, err
	}
	return words.Formal(language, nil), nil
}

// name gives a passage the name that it has in the language of the words. A title that the teacher made up stays.
func name(p *plan.Passage, in *words.Words) {
	p.CallIn(in.Tag)
	called := p.Name()
	p.Translate(in.Tag)
	switch {
	case p.Title != "":
		p.Title = called
	case p.Practice != nil:
		p.Title = p.Practice.NameIn(in.Tag)
	case p.Type == plan.Talk:
		p.Title = in.Text("talk")
	default:
		p.Title = in.Text(words.Natural)
	}
}
