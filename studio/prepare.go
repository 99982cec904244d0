package studio

import (
	"bytes"
	"errors"
	"fmt"
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
		return contract.Plan{}, s.orDamaged(missing(err, "plan", id), store.KindPlan, id)
	}
	return s.shapePlan(stored)
}

func (s *Studio) shapePlan(stored store.Plan) (contract.Plan, error) {
	groups, err := s.groups()
	if err != nil {
		return contract.Plan{}, err
	}
	doc, err := sheet.ReadDoc(bytes.NewReader(stored.Document))
	if err != nil {
		return contract.Plan{}, s.orDamaged(&unreadable{err}, store.KindPlan, stored.ID)
	}
	group := groups[stored.GroupID]
	summary, err := s.summary(doc, group)
	return contract.Plan{
		ID: stored.ID, Revision: stored.Revision, Group: group, Document: stored.Document, Summary: summary, Groups: byName(groups),
	}, err
}

// read outfits the document for the group and reads it. The plan is there also where it has errors.
func (s *Studio) read(doc plan.Doc, group *contract.Group) (*plan.Plan, error) {
	if err := s.outfit(doc, group); err != nil {
		return nil, err
	}
	return plan.Read(doc)
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

// SavePlan stores the document in the place of the revision that it was made from. The same save may come twice, where
// the answer to the first was lost: it is stored once.
func (s *Studio) SavePlan(id int64, save contract.PlanSave) (contract.Plan, error) {
	mine, err := s.toStore(save.Document, save.GroupID)
	if err != nil {
		return contract.Plan{}, err
	}
	mine.ID, mine.Revision = id, save.Revision
	stored, err := s.store.SavePlan(mine)
	if errors.Is(err, store.ErrTaken) {
		if there, err := s.store.Plan(id); err == nil && there.GroupID == mine.GroupID && bytes.Equal(there.Document, mine.Document) {
			return s.shapePlan(there)
		}
		return contract.Plan{}, fail(ErrConflict, "This plan was changed in another window. Nothing was overwritten: reload to see the other version, or keep this one by saving it again.")
	}
	if err != nil {
		return contract.Plan{}, missing(err, "plan", id)
	}
	return s.shapePlan(stored)
}

const longestTitle = 300 // bytes

// toStore is a document as it is stored. What could not be read again is refused.
func (s *Studio) toStore(document []byte, group int64) (store.Plan, error) {
	doc, err := sheet.ReadDoc(bytes.NewReader(document))
	if err != nil {
		return store.Plan{}, fail(ErrInvalid, "This is no plan: %v.", err)
	}
	g, err := s.group(group)
	if err != nil {
		return store.Plan{}, err
	}
	p, err := s.read(doc, g)
	if p == nil {
		return store.Plan{}, err
	}
	if len(p.Title) > longestTitle {
		return store.Plan{}, fail(ErrInvalid, "The title of a plan has at most %d characters.", longestTitle)
	}
	if control := sheet.ControlCharacter(document); control != "" {
		return store.Plan{}, fail(ErrInvalid, "There is a character in this plan that cannot be shown (%s): remove it.", control)
	}
	var text bytes.Buffer
	if err := sheet.WritePlan(&text, doc); err != nil {
		return store.Plan{}, err
	}
	// With the teacher's own words and practices it may have become longer than what is read.
	if _, err := sheet.ReadDoc(bytes.NewReader(text.Bytes())); err != nil {
		return store.Plan{}, fail(ErrInvalid, "This plan would not be read again: %v. Nothing was stored. What was stored before is still there.", err)
	}
	return store.Plan{GroupID: group, Title: p.Title, StartsAt: p.StartsAt, Document: text.Bytes(), UpdatedAt: s.now()}, nil
}

// Draft tells what a document means while it is being written, after one change that the core makes: one written the
// short way, or one passage in its gentle variant.
func (s *Studio) Draft(d contract.Draft) (contract.Drafted, error) {
	doc, err := sheet.ReadDoc(bytes.NewReader(d.Document))
	if err != nil {
		return contract.Drafted{}, fail(ErrInvalid, "This is no plan: %v.", err)
	}
	group, err := s.group(d.GroupID)
	if err != nil {
		return contract.Drafted{}, err
	}
	p, err := s.read(doc, group)
	if p == nil {
		return contract.Drafted{}, err
	}
	drafted := contract.Drafted{}
	var changed plan.Doc
	switch {
	case d.Short != nil:
		changed, err = s.shorten(doc, d.Passage, *d.Short, group)
	case d.Gentle:
		changed, drafted.Changed, err = gentle(doc, p, d.Passage)
	case d.Next:
		changed, drafted.Changed, err = s.takeOver(doc, p, d)
	case d.Learned:
		changed, drafted.Changed, err = s.learned(doc, p)
	case d.Split:
		changed, err = split(doc, p, d.Passage)
	case d.Fit, d.EndMS != nil, d.More != nil:
		changed, drafted.Changed, err = fitted(doc, p, d)
	default:
		changed, err = doc, nil
	}
	if err != nil {
		drafted.Problem = err.Error()
	} else {
		doc = changed
	}
	if drafted.Summary, err = s.summary(doc, group); err != nil {
		return drafted, err
	}
	var text bytes.Buffer
	err = sheet.WritePlan(&text, doc)
	drafted.Document = text.Bytes()
	return drafted, err
}

// shorten rewrites one passage of the document, or adds one.
func (s *Studio) shorten(doc plan.Doc, passage int, text string, group *contract.Group) (plan.Doc, error) {
	list, _ := doc["passages"].([]any)
	own, err := s.own()
	if err != nil {
		return nil, err
	}
	if passage == 0 {
		added, err := plan.NewPassages(text, own...)
		if err != nil {
			return nil, err
		}
		choices, err := s.choicesFor(group)
		if err != nil {
			return nil, err
		}
		for _, one := range added {
			list = append(list, map[string]any(choices.Fill(one, own...)))
		}
		doc["passages"] = list
		return doc, nil
	}
	if passage < 1 || passage > len(list) {
		return nil, errors.New("there is no such passage")
	}
	fields, ok := list[passage-1].(map[string]any)
	if !ok {
		return nil, errors.New("there is no such passage")
	}
	changed, err := plan.Shorten(fields, text, own...)
	if err != nil {
		return nil, err
	}
	list[passage-1] = map[string]any(changed)
	return doc, nil
}

// summary is the numbers of a document for the group. Passages that are wrong have those of the defaults in the place
// of what is wrong.
func (s *Studio) summary(doc plan.Doc, group *contract.Group) (contract.PlanSummary, error) {
	p, wrong := s.read(doc, group)
	if p == nil {
		return contract.PlanSummary{}, wrong
	}
	room, err := s.room(group, p.StartsAt)
	if err != nil {
		return contract.PlanSummary{}, err
	}
	shape := contract.PlanSummary{
		Title: p.Title, LengthMS: p.Length().Round(), SlotMS: p.Slot.Times(60_000).Round(), StartsMS: moment(p.StartsAt),
		Passages: []contract.PassageSummary{}, Errors: fieldErrors(wrong), Could: []contract.Addition{},
	}
	for _, a := range p.CouldAdd() {
		shape.Could = append(shape.Could, contract.Addition{Passage: a.Passage, Rounds: a.Rounds, LengthMS: a.Length.Round()})
	}
	if shape.Advice, err = s.advice(doc, p, group); err != nil {
		return contract.PlanSummary{}, err
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
		one := passageSummary(passage, room)
		one.Short = passage.Short(fields)
		one.StartMS, one.LengthMS = start.Round(), length.Round()
		start = start.Add(length)
		shape.Passages = append(shape.Passages, one)
	}
	return shape, nil
}

func passageSummary(p *plan.Passage, room care.Room) contract.PassageSummary {
	s := contract.PassageSummary{
		Name: p.Name(), Type: p.Type, OwnPace: p.OwnPace, Cautions: cautions(p), Findings: findings(p, room), Takes: []string{},
		Opening: stepsInWords(p.OpeningSteps), Closing: stepsInWords(p.ClosingSteps),
	}
	if p.Practice == nil {
		return s
	}
	f := p.Figures()
	_, words := care.GentleOf(plan.Doc{}, p)
	s.Gentler = words != ""
	s.Takes = append(s.Takes, p.Practice.Takes...)
	s.Practice, s.Term, s.Counts, s.TrueRatio = p.Practice.ID, p.Practice.Term, p.Pattern(), f.TrueRatio
	s.Rounds, s.RoundMS, s.PerMinute = f.Rounds, f.Round.Round(), f.PerMinute.Float()
	if !p.Is(practice.Open) {
		s.CountMS = breath.CountLength(p.Measure.Tempo).Float()
	}
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
