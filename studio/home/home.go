// Package home is what people take home from a class: which practice, how much of it, on paper, as a page that plays by
// itself; and how it was, when they come again.
package home

import (
	"bytes"
	"errors"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/care"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Homes is the room.
type Homes struct {
	studio  *studio.Studio
	library Library
	classes Classes
}

// Library is what is asked of the school.
type Library interface {
	Group(id int64) (*contract.Group, error)
	AttachTeacherSettings(doc plan.Document, group *contract.Group) error
	FingersOf(group *contract.Group) (string, error)
}

// Classes is what is asked of the room where classes are led.
type Classes interface {
	Open(id int64) (*studio.Class, error)
	// PlanScore is the whole of a plan as it is played without this program.
	PlanScore(p *plan.Plan, fingers string) contract.Score
}

// New is the room of a studio.
func New(s *studio.Studio, l Library, c Classes) *Homes { return &Homes{s, l, c} }

// whens is when in the day, to choose from: common practice, with no source.
var whens = []string{"in the morning", "before lunch", "in the evening", "before sleep", "while waiting for something"}

// answers is how it can have been at home.
var answers = []string{"every day", "now and then", "hardly", contract.HomeTooMuch}

// source is where a home practice comes from: a plan, or a class that was led from it.
type source struct {
	doc     plan.Document
	plan    *plan.Plan
	lengths []int64       // of each passage, in milliseconds
	last    []taught.Next // what was in force at the end of each
	planID  int64
	classID int64
	group   int64
}

func (h *Homes) ofPlan(id int64) (source, error) {
	stored, err := h.studio.Store.Plan(id)
	if err != nil {
		return source{}, studio.Missing(err, "plan", id)
	}
	doc, err := sheet.ReadDocument(bytes.NewReader(stored.Document))
	if err != nil {
		return source{}, err
	}
	group, err := h.library.Group(stored.GroupID)
	if err != nil {
		return source{}, err
	}
	if err := h.library.AttachTeacherSettings(doc, group); err != nil {
		return source{}, err
	}
	p, err := plan.Read(doc)
	if err != nil {
		return source{}, studio.FailInPlan(err, "Nothing can go home from this plan yet. Correct what is marked in it first.")
	}
	from := source{doc: doc, plan: p, planID: id, group: stored.GroupID, lengths: make([]int64, len(p.Passages)), last: make([]taught.Next, len(p.Passages))}
	for i := range p.Passages {
		from.lengths[i] = p.Passages[i].PlannedLength().Round()
	}
	return from, nil
}

func (h *Homes) ofClass(id int64) (source, error) {
	class, err := h.classes.Open(id)
	if err != nil {
		return source{}, err
	}
	doc, p, err := sheet.ReadPlan(bytes.NewReader(class.Stored.Document))
	if err != nil {
		return source{}, err
	}
	record := taught.Of(p, class.Script, class.At(h.studio.Now()))
	from := source{doc: doc, plan: p, classID: id, planID: class.Stored.PlanID, group: class.Stored.GroupID}
	if _, err := h.studio.Store.Plan(from.planID); errors.Is(err, store.ErrNotFound) {
		from.planID = 0
	}
	for i, was := range record.Passages {
		from.lengths = append(from.lengths, was.Length)
		last := taught.Next{}
		if p.Passages[i].Led() && was.Rounds > 0 {
			last = taught.Next{Counts: was.Counts, Strokes: was.Strokes, Tempo: was.TempoEnd}
		}
		from.last = append(from.last, last)
	}
	return from, nil
}

// OfferFromPlan is what can go home from a plan.
func (h *Homes) OfferFromPlan(id int64) (contract.HomeOffer, error) {
	from, err := h.ofPlan(id)
	if err != nil {
		return contract.HomeOffer{}, err
	}
	return h.offer(from)
}

// OfferFromClass is what can go home from a class, as it was led.
func (h *Homes) OfferFromClass(id int64) (contract.HomeOffer, error) {
	from, err := h.ofClass(id)
	if err != nil {
		return contract.HomeOffer{}, err
	}
	return h.offer(from)
}

// mostBefore is how many earlier ones are offered again.
const mostBefore = 10

func (h *Homes) offer(from source) (contract.HomeOffer, error) {
	offer := contract.HomeOffer{Title: from.plan.Title, PlanID: from.planID, ClassID: from.classID, Passages: []contract.HomePassage{}, Whens: whens, Before: []contract.Home{}}
	for _, number := range taught.CanGoHome(from.plan, from.lengths) {
		offer.Passages = append(offer.Passages, homePassage(from, number))
	}
	given, err := h.given(from)
	if err != nil {
		return offer, err
	}
	offer.Given = h.cards(given)
	if from.group == 0 {
		return offer, nil
	}
	before, err := h.studio.Store.HomesOfGroup(from.group, mostBefore)
	before = slices.DeleteFunc(before, func(b store.Home) bool {
		return slices.ContainsFunc(given, func(g store.Home) bool { return g.ID == b.ID })
	})
	offer.Before = h.cards(before)
	return offer, err
}

// given is what was given from there.
func (h *Homes) given(from source) ([]store.Home, error) {
	if from.classID == 0 {
		return h.studio.Store.HomesOfPlan(from.planID)
	}
	return h.studio.Store.HomesOfClass(from.classID, from.planID)
}

// homePassage is a passage as it would go home: as it was at the end.
func homePassage(from source, number int) contract.HomePassage {
	p, last := &from.plan.Passages[number-1], from.last[number-1]
	usual := taught.UsualHome(from.lengths[number-1])
	m := p.Measure
	if last.Counts.Inhale > 0 {
		m.Counts = last.Counts
	}
	if last.Strokes > 0 {
		m.Strokes = last.Strokes
	}
	if last.Tempo.Sign() > 0 {
		m.Tempo = last.Tempo
	}
	one := contract.HomePassage{Passage: number, Name: p.Name(), Says: p.Headline(), Usual: contract.HomeAmount{Minutes: usual.Minutes, Pieces: usual.Pieces, Days: usual.Days}}
	if p.Is(practice.Counted) {
		one.Counts = m.Counts.String()
	}
	if !p.Is(practice.Open) {
		one.Tempo = math.Round(m.Tempo.Float()*10) / 10
	}
	return one
}

// GiveFromPlan gives something to do at home with a plan.
func (h *Homes) GiveFromPlan(id int64, in contract.HomeGive) (contract.HomeOffer, error) {
	from, err := h.ofPlan(id)
	if err != nil {
		return contract.HomeOffer{}, err
	}
	return h.give(from, in)
}

// GiveFromClass gives something to do at home after a class, or in it.
func (h *Homes) GiveFromClass(id int64, in contract.HomeGive) (contract.HomeOffer, error) {
	from, err := h.ofClass(id)
	if err != nil {
		return contract.HomeOffer{}, err
	}
	return h.give(from, in)
}

func (h *Homes) give(from source, in contract.HomeGive) (contract.HomeOffer, error) {
	amount := amountOf(in.HomeAmount)
	if wrong := amount.Check(); len(wrong) > 0 {
		return contract.HomeOffer{}, studio.Fail(studio.ErrInvalid, "%s", strings.Join(wrong, " "))
	}
	number, at := in.Passage, taught.Next{}
	switch {
	case in.Again != 0:
		earlier, err := h.studio.Store.Home(in.Again)
		if err != nil {
			return contract.HomeOffer{}, studio.Missing(err, "home practice", in.Again)
		}
		if from.doc, from.plan, err = sheet.ReadPlan(bytes.NewReader(earlier.Document)); err != nil {
			return contract.HomeOffer{}, studio.FailInPlan(err, "What was given then cannot be read any more.")
		}
		number = 1
	case !slices.Contains(taught.CanGoHome(from.plan, from.lengths), number):
		return contract.HomeOffer{}, studio.Fail(studio.ErrInvalid, "Passage %d cannot go home: it is no practice that was led, or a try-out.", number)
	default:
		at = from.last[number-1]
	}
	if err := overrule(&at, in, &from.plan.Passages[number-1]); err != nil {
		return contract.HomeOffer{}, err
	}
	if err := amount.Plan(from.doc, from.plan, number, at); err != nil {
		return contract.HomeOffer{}, studio.FailInPlan(err, "It cannot go home like this.")
	}
	var document bytes.Buffer
	if err := sheet.WritePlan(&document, from.doc); err != nil {
		return contract.HomeOffer{}, err
	}
	if _, _, err := sheet.ReadPlan(bytes.NewReader(document.Bytes())); err != nil { // what cannot be read again is not stored
		return contract.HomeOffer{}, studio.FailInPlan(err, "It cannot go home like this.")
	}
	_, err := h.studio.Store.AddHome(store.Home{
		ClassID: from.classID, PlanID: from.planID, GroupID: from.group, GivenAt: h.studio.Now().Truncate(time.Second), Document: document.Bytes(),
		Minutes: amount.Minutes, Pieces: amount.Pieces, Days: amount.Days, When: amount.When, Sentence: amount.Sentence,
	})
	if err != nil {
		return contract.HomeOffer{}, err
	}
	h.studio.NoteChange()
	if from.classID != 0 {
		return h.OfferFromClass(from.classID)
	}
	return h.OfferFromPlan(from.planID)
}

// overrule takes the counts and the tempo that were chosen, where they were.
func overrule(at *taught.Next, in contract.HomeGive, p *plan.Passage) error {
	if in.Counts != "" {
		counts, err := breath.ParseCounts(in.Counts)
		if err != nil || !p.Is(practice.Counted) {
			return studio.Fail(studio.ErrInvalid, "Counts: given %q, allowed: as 4:4, 4:4:8 or 4:4:4:4, of a practice that is counted.", in.Counts)
		}
		at.Counts = counts
	}
	if in.Tempo != 0 {
		tempo, err := breath.ParseExact(strconv.FormatFloat(in.Tempo, 'f', -1, 64))
		if err != nil {
			return studio.Fail(studio.ErrInvalid, "Tempo: given %v, allowed: counts a minute.", in.Tempo)
		}
		at.Tempo = tempo
	}
	return nil
}

func amountOf(a contract.HomeAmount) taught.Home {
	return taught.Home{Minutes: a.Minutes, Pieces: a.Pieces, Days: a.Days, When: strings.TrimSpace(a.When), Sentence: strings.TrimSpace(a.Sentence)}
}

func amountStored(s store.Home) taught.Home {
	return taught.Home{Minutes: s.Minutes, Pieces: s.Pieces, Days: s.Days, When: s.When, Sentence: s.Sentence}
}

// cards leaves out what cannot be read any more, which is told where damage is.
func (h *Homes) cards(stored []store.Home) []contract.Home {
	list := []contract.Home{}
	for _, s := range stored {
		if card, _, err := card(s); err == nil {
			list = append(list, card)
		}
	}
	return list
}

func card(s store.Home) (contract.Home, *plan.Plan, error) {
	_, p, err := sheet.ReadPlan(bytes.NewReader(s.Document))
	if err != nil || len(p.Passages) != 1 {
		return contract.Home{}, nil, errors.Join(err, fmt.Errorf("home practice %d cannot be read", s.ID))
	}
	one, amount := &p.Passages[0], amountStored(s)
	return contract.Home{
		ID: s.ID, ClassID: s.ClassID, PlanID: s.PlanID, GivenMS: contract.Millis(s.GivenAt), Name: one.Name(), Says: pieceInWords(one), Amount: amount.Amount(),
		Plays: plays(one), Answer: s.Answer,
		HomeAmount: contract.HomeAmount{Minutes: amount.Minutes, Pieces: amount.Pieces, Days: amount.Days, When: amount.When, Sentence: amount.Sentence},
	}, p, nil
}

// plays tells whether nothing in the passage waits for a teacher.
func plays(p *plan.Passage) bool { return !p.Is(practice.Open) }

// pieceInWords is one piece: "4:2:7, 12 rounds at 60, about 3 min".
func pieceInWords(p *plan.Passage) string {
	words := []string{}
	if pattern := p.Pattern(); pattern != "" {
		words = append(words, pattern)
	}
	if p.HasRounds() {
		rounds := "one round"
		if n := p.TotalRounds(p.Measure); n > 1 {
			rounds = fmt.Sprintf("%d rounds", n)
		}
		words = append(words, rounds)
	}
	if !p.Is(practice.Open) {
		words[len(words)-1] += " at " + strconv.FormatFloat(math.Round(p.Measure.Tempo.Float()*10)/10, 'f', -1, 64)
	}
	return strings.Join(append(words, "about "+length(p.PlannedLength().Round())), ", ")
}

func length(ms int64) string {
	const minute = 60_000
	if ms < minute {
		return fmt.Sprintf("%d s", (ms+500)/1000)
	}
	return fmt.Sprintf("%d min", (ms+minute/2)/minute)
}

// Sheet is a home practice with what its paper says.
func (h *Homes) Sheet(id int64) (contract.HomeSheet, error) {
	stored, err := h.studio.Store.Home(id)
	if err != nil {
		return contract.HomeSheet{}, studio.Missing(err, "home practice", id)
	}
	home, p, err := card(stored)
	if err != nil {
		return contract.HomeSheet{}, err
	}
	from := ""
	if stored.ClassID != 0 {
		if class, err := h.classes.Open(stored.ClassID); err == nil {
			from = class.Plan.Title
		}
	} else if from, err = h.planTitle(stored.PlanID); err != nil {
		return contract.HomeSheet{}, err
	}
	return sheetOf(home, p, from), nil
}

func (h *Homes) planTitle(id int64) (string, error) {
	stored, err := h.studio.Store.Plan(id)
	if errors.Is(err, store.ErrNotFound) {
		return "", nil
	}
	return stored.Title, err
}

func sheetOf(home contract.Home, p *plan.Plan, from string) contract.HomeSheet {
	one := &p.Passages[0]
	s := contract.HomeSheet{
		Home: home, From: from, Term: one.Practice.Term, How: append([]string{}, one.Practice.How...), Opening: contract.StepsInWords(one.OpeningSteps),
		Closing: contract.StepsInWords(one.ClosingSteps), Beside: contract.BesideInWords(one.Beside), Cautions: []string{}, Stop: care.Everyone.Text,
	}
	for _, c := range care.Of(one) {
		if c.Text != care.Everyone.Text {
			s.Cautions = append(s.Cautions, c.Text)
		}
	}
	return s
}

// OfGroup is what a group was given, with what to ask about when it comes again: what was not answered yet, and was given
// some days ago.
func (h *Homes) OfGroup(group int64) (contract.HomesOfGroup, error) {
	stored, err := h.studio.Store.HomesOfGroup(group, mostBefore)
	of := contract.HomesOfGroup{Homes: h.cards(stored), Ask: []int64{}, Answers: answers}
	for _, s := range stored {
		if s.Answer == "" && h.studio.Now().Sub(s.GivenAt) >= soonest {
			of.Ask = append(of.Ask, s.ID)
		}
	}
	return of, err
}

// soonest is how long after it was given a home practice is asked about: not in the class in which it was.
const soonest = 12 * time.Hour

// OfClass is what was given in a class, or with its plan before it.
func (h *Homes) OfClass(class store.Class) ([]contract.Home, error) {
	stored, err := h.studio.Store.HomesOfClass(class.ID, class.PlanID)
	return h.cards(stored), err
}

// Answer notes how it was at home; an empty answer takes back what was noted.
func (h *Homes) Answer(id int64, in contract.HomeAnswer) (contract.HomesOfGroup, error) {
	if in.Answer != "" && !slices.Contains(answers, in.Answer) {
		return contract.HomesOfGroup{}, studio.Fail(studio.ErrInvalid, "How it was at home is one of: %s.", strings.Join(answers, ", "))
	}
	stored, err := h.studio.Store.Home(id)
	if err == nil {
		err = h.studio.Store.AnswerHome(id, in.Answer, h.studio.Now())
	}
	if err != nil {
		return contract.HomesOfGroup{}, studio.Missing(err, "home practice", id)
	}
	if class, err := h.studio.Store.Class(stored.ClassID); err == nil {
		h.studio.ClassChanged(class) // it counts for next time
	}
	h.studio.NoteChange()
	return h.OfGroup(stored.GroupID)
}

// TakeBack removes what was given by mistake.
func (h *Homes) TakeBack(id int64) (contract.Done, error) {
	err := h.studio.Store.TakeBackHome(id)
	h.studio.NoteChange()
	return contract.Done{}, studio.Missing(err, "home practice", id)
}
