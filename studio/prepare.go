package studio

import (
	"bytes"
	"cmp"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/care"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// Practices is the catalogue.
func (s *Studio) Practices() []contract.Practice {
	list := make([]contract.Practice, 0, len(practice.Catalogue()))
	for _, p := range practice.Catalogue() {
		passage := plan.Of(p)
		list = append(list, contract.Practice{
			ID: p.ID, Name: p.Name, Term: p.Term, About: p.About,
			Cautions: cautions(&passage),
		})
	}
	return list
}

func cautions(p *plan.Passage) []contract.Caution {
	list := []contract.Caution{}
	for _, c := range care.Of(p) {
		list = append(list, contract.Caution(c))
	}
	return list
}

// Plan is a stored plan with its numbers.
func (s *Studio) Plan(id int64) (contract.Plan, error) {
	stored, err := s.store.Plan(id)
	if err != nil {
		return contract.Plan{}, missing(err, "plan", id)
	}
	return s.shapePlan(stored)
}

func (s *Studio) shapePlan(stored store.Plan) (contract.Plan, error) {
	groups, err := s.groups()
	if err != nil {
		return contract.Plan{}, err
	}
	doc, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	if p == nil {
		return contract.Plan{}, err
	}
	shape := contract.Plan{
		ID: stored.ID, Revision: stored.Revision, Group: groups[stored.GroupID], Document: stored.Document,
		Summary: summary(doc, p, err), Groups: []contract.Group{},
	}
	for _, g := range groups {
		shape.Groups = append(shape.Groups, *g)
	}
	slices.SortFunc(shape.Groups, func(a, b contract.Group) int { return cmp.Compare(a.Name, b.Name) })
	return shape, nil
}

// AddPlan stores a new plan. A document with errors in its fields is stored too: it is being written, and cannot be
// led until they are mended. What is no plan document at all is refused.
func (s *Studio) AddPlan(document []byte, group int64) (contract.Plan, error) {
	stored, err := s.toStore(document, group)
	if err != nil {
		return contract.Plan{}, err
	}
	if stored, err = s.store.AddPlan(stored); err != nil {
		return contract.Plan{}, missing(err, "group", group)
	}
	return s.shapePlan(stored)
}

// SavePlan stores the document in the place of the revision that it was made from.
func (s *Studio) SavePlan(id int64, save contract.PlanSave) (contract.Plan, error) {
	stored, err := s.toStore(save.Document, save.GroupID)
	if err != nil {
		return contract.Plan{}, err
	}
	stored.ID, stored.Revision = id, save.Revision
	stored, err = s.store.SavePlan(stored)
	if errors.Is(err, store.ErrTaken) {
		return contract.Plan{}, fail(ErrConflict, "This plan was changed in another window. Nothing was overwritten: reload to see the other version, or keep this one by saving it again.")
	}
	if err != nil {
		return contract.Plan{}, missing(err, "plan", id)
	}
	return s.shapePlan(stored)
}

func (s *Studio) toStore(document []byte, group int64) (store.Plan, error) {
	doc, p, err := sheet.ReadPlan(bytes.NewReader(document))
	if p == nil {
		return store.Plan{}, fail(ErrInvalid, "This is no plan: %v.", err)
	}
	var text bytes.Buffer
	if err := sheet.WritePlan(&text, doc); err != nil {
		return store.Plan{}, err
	}
	return store.Plan{GroupID: group, Title: p.Title, StartsAt: p.StartsAt, Document: text.Bytes(), UpdatedAt: s.now()}, nil
}

// Draft tells what a document means while it is being written, after a change that is written the short way.
func (s *Studio) Draft(d contract.Draft) (contract.Drafted, error) {
	doc, p, err := sheet.ReadPlan(bytes.NewReader(d.Document))
	if p == nil {
		return contract.Drafted{}, fail(ErrInvalid, "This is no plan: %v.", err)
	}
	problem := ""
	if d.Short != nil {
		changed, wrong := shorten(doc, d.Passage, *d.Short)
		if wrong != nil {
			problem = wrong.Error()
		} else {
			doc = changed
			p, err = plan.Read(doc)
		}
	}
	var text bytes.Buffer
	if err := sheet.WritePlan(&text, doc); err != nil {
		return contract.Drafted{}, err
	}
	return contract.Drafted{Document: text.Bytes(), Summary: summary(doc, p, err), Problem: problem}, nil
}

// shorten rewrites one passage of the document, or adds one.
func shorten(doc plan.Doc, passage int, text string) (plan.Doc, error) {
	list, _ := doc["passages"].([]any)
	if passage == 0 {
		added, err := plan.NewPassage(text)
		if err != nil {
			return nil, err
		}
		doc["passages"] = append(list, map[string]any(added))
		return doc, nil
	}
	if passage < 1 || passage > len(list) {
		return nil, errors.New("there is no such passage")
	}
	fields, ok := list[passage-1].(map[string]any)
	if !ok {
		return nil, errors.New("there is no such passage")
	}
	changed, err := plan.Shorten(fields, text)
	if err != nil {
		return nil, err
	}
	list[passage-1] = map[string]any(changed)
	return doc, nil
}

// summary is the numbers of a plan. Passages that are wrong have those of the defaults in the place of what is wrong.
func summary(doc plan.Doc, p *plan.Plan, wrong error) contract.PlanSummary {
	shape := contract.PlanSummary{
		Title: p.Title, LengthMS: p.Length().Round(), SlotMS: p.Slot.Times(60_000).Round(), StartsMS: moment(p.StartsAt),
		Passages: []contract.PassageSummary{}, Errors: fieldErrors(wrong),
	}
	if shape.SlotMS > 0 {
		shape.SpareMS = shape.SlotMS - shape.LengthMS
	}
	list, _ := doc["passages"].([]any)
	var start breath.Exact
	for i := range p.Passages {
		passage := &p.Passages[i]
		length := passage.PlannedLength()
		var fields plan.Doc
		if i < len(list) {
			fields, _ = list[i].(map[string]any)
		}
		s := passageSummary(passage)
		s.Short = passage.Short(fields)
		s.StartMS, s.LengthMS = start.Round(), length.Round()
		start = start.Add(length)
		shape.Passages = append(shape.Passages, s)
	}
	return shape
}

func passageSummary(p *plan.Passage) contract.PassageSummary {
	s := contract.PassageSummary{Name: p.Name(), Type: string(p.Type), OwnPace: p.OwnPace, Cautions: cautions(p)}
	if p.Practice == nil {
		return s
	}
	f := p.Figures()
	s.Practice, s.Term, s.Counts, s.TrueRatio = p.Practice.ID, p.Practice.Term, p.Pattern(), f.TrueRatio
	s.Rounds, s.RoundMS, s.PerMinute = f.Rounds, f.Round.Round(), f.PerMinute.Float()
	s.LongestHoldMS, s.HeldMS = f.LongestHold.Round(), f.HeldFull.Add(f.HeldEmpty).Round()
	return s
}

func moment(t time.Time) *float64 {
	if t.IsZero() {
		return nil
	}
	ms := millis(t)
	return &ms
}

func planCard(stored store.Plan, groups map[int64]*contract.Group) contract.PlanCard {
	card := contract.PlanCard{ID: stored.ID, Title: stored.Title, Group: groups[stored.GroupID], StartsMS: moment(stored.StartsAt), Passages: []string{}}
	_, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	card.Wrong = err != nil
	if p != nil {
		card.LengthMS, card.SlotMS = p.Length().Round(), p.Slot.Times(60_000).Round()
		for i := range p.Passages {
			card.Passages = append(card.Passages, headline(&p.Passages[i]))
		}
	}
	return card
}

// headline is a passage in a few words, as "Alternate nostril breath 4:4:8 ×6".
func headline(p *plan.Passage) string {
	if p.Practice == nil {
		return p.Name()
	}
	length := fmt.Sprintf("×%d", p.Rounds)
	if p.Minutes.Sign() > 0 {
		length = fmt.Sprintf("%s min", p.Minutes)
	}
	return strings.Join(strings.Fields(fmt.Sprintf("%s %s %s", p.Name(), p.Pattern(), length)), " ")
}
