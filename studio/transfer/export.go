// Package transfer exports everything to a file, imports it, and deletes and restores.
package transfer

import (
	"bytes"
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"io"
	"slices"
	"time"

	"vastlantern/core/fact"
	"vastlantern/core/homework"
	"vastlantern/core/practice"
	"vastlantern/core/sheet"
	"vastlantern/core/words"
	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Transfer is the room.
type Transfer struct {
	studio   *studio.Studio
	library  Library
	classes  Classes
	progress progress
}

// Library is what moving asks of what is chosen, the own practices and the groups: whether it is right.
type Library interface {
	Chosen(context.Context) (contract.Choices, error)
	CheckChoices(contract.Choices) (contract.Choices, error)
	SaveChoices(*store.Store, contract.Choices) error
	CheckPractice(file string) (id, name string, err error)
	CheckGroup(contract.Group) (store.Group, error)
}

// Classes is what moving asks of the room where classes are led.
type Classes interface {
	WhileNothingBegins(context.Context, func(running *studio.Class) error) error
}

// New returns the room of a studio.
func New(s *studio.Studio, l Library, c Classes) *Transfer {
	return &Transfer{studio: s, library: l, classes: c}
}

const exportVersion = 1

// Export writes everything that the teacher has, one thing a line. The same content is the same file.
func (tr *Transfer) Export(ctx context.Context, w io.Writer) error {
	all, err := tr.everything(ctx)
	if err != nil {
		return err
	}
	var text bytes.Buffer
	out := json.NewEncoder(&text)
	out.SetEscapeHTML(false)
	item := func(before string, value any) error {
		text.WriteString(before)
		err := out.Encode(value)
		text.Truncate(text.Len() - 1) // the encoder's line end
		return err
	}
	err = errors.Join(item(`{"format": `, all.Format), item(`, "version": `, all.Version))
	if all.Choices != nil {
		err = errors.Join(err, item(",\n\"choices\": ", all.Choices))
	}
	err = errors.Join(err, lines(item, &text, "practices", all.Practices), lines(item, &text, "groups", all.Groups),
		lines(item, &text, "plans", all.Plans), lines(item, &text, "classes", all.Classes))
	if len(all.Homes) > 0 {
		err = errors.Join(err, lines(item, &text, "homes", all.Homes))
	}
	if len(all.Voices) > 0 {
		err = errors.Join(err, lines(item, &text, "voices", all.Voices))
	}
	if len(all.Programmes) > 0 {
		err = errors.Join(err, lines(item, &text, "programmes", all.Programmes))
	}
	if len(all.Rehearsals) > 0 {
		err = errors.Join(err, lines(item, &text, "rehearsals", all.Rehearsals))
	}
	if len(all.Damaged) > 0 {
		err = errors.Join(err, lines(item, &text, "damaged", all.Damaged))
	}
	if err != nil {
		return err
	}
	text.WriteString("\n}\n")
	_, err = text.WriteTo(w)
	return err
}

func lines[T any](item func(string, any) error, text *bytes.Buffer, name string, list []T) error {
	text.WriteString(",\n\"" + name + "\": [")
	for i, one := range list {
		if err := item([]string{"\n", ",\n"}[min(i, 1)], one); err != nil {
			return err
		}
	}
	text.WriteString("]")
	return nil
}

// everything returns what there is, in the shape of the file.
func (tr *Transfer) everything(ctx context.Context) (contract.Export, error) {
	all, err := tr.allButClasses(ctx)
	if err != nil {
		return all.Export, err
	}
	for i := range all.stored {
		one, err := tr.class(ctx, &all, &all.stored[i])
		if err != nil {
			return all.Export, err
		}
		if one != nil {
			all.Classes = append(all.Classes, *one)
		}
	}
	if all.Homes, err = tr.homes(ctx, &all); err != nil {
		return all.Export, err
	}
	for _, d := range tr.studio.Store.Damage() {
		all.Damaged = append(
			all.Damaged,
			contract.ExportDamaged{Kind: string(d.Kind), ID: d.ID, Name: d.Name, Why: language.English().Text(d.Why)},
		)
	}
	return all.Export, nil
}

// here is what there is on this machine.
type here struct {
	contract.Export
	stored                  []store.Class    // in their order, those that cannot be read too
	groups, plans, classUID map[int64]string // uids by number, of classes those that can be read
}

// class returns a class in the shape of the file; nil if it cannot be read.
func (tr *Transfer) class(ctx context.Context, all *here, c *store.Class) (*contract.ExportClass, error) {
	adjustments, err := tr.studio.Store.With(ctx).Adjustments(c.ID)
	if err != nil {
		return nil, err
	}
	if _, err := studio.ReadClass(*c, adjustments); err != nil {
		tr.studio.NoteDamage(store.KindClass, c.ID, err)
		delete(all.classUID, c.ID)
		return nil, nil
	}
	one := &contract.ExportClass{
		UID:       c.UID,
		Group:     all.groups[c.GroupID],
		Plan:      all.plans[c.PlanID],
		StartedAt: c.StartedAt.UTC(),
		EndedAt:   ifAny(c.EndedAt),
		DeletedAt: ifAny(c.DeletedAt),
		Acknowledged: append(
			[]string{},
			c.Acknowledged...), Document: compact(c.Document), Adjustments: []contract.ExportAdjustment{},
		Remarks: []contract.ExportRemark{},
	}
	for _, a := range adjustments {
		one.Adjustments = append(
			one.Adjustments,
			contract.ExportAdjustment{Key: a.Key, Origin: a.Origin, Line: compact(a.Body)},
		)
	}
	remarks, err := tr.studio.Store.With(ctx).Remarks(c.ID)
	if err != nil {
		return nil, err
	}
	for _, r := range remarks {
		one.Remarks = append(one.Remarks, contract.ExportRemark{At: r.At, Kind: r.Kind, Text: r.Text})
	}
	if one.Answers, err = tr.answers(ctx, c.ID); err != nil {
		return nil, err
	}
	if one.CheckIn, err = tr.checkIn(ctx, c.ID); err != nil {
		return nil, err
	}
	one.Heard, err = tr.heard(ctx, c.ID)
	return one, err
}

// allButClasses returns what there is except for what is in the classes, of which there are many, and what was given
// after them.
func (tr *Transfer) allButClasses(ctx context.Context) (all here, err error) {
	all.groups, all.plans, all.classUID = map[int64]string{}, map[int64]string{}, map[int64]string{}
	all.Export = contract.Export{
		Format:    contract.ExportFormat,
		Version:   exportVersion,
		Practices: []contract.ExportPractice{},
		Groups:    []contract.ExportGroup{},
		Plans:     []contract.ExportPlan{}, Classes: []contract.ExportClass{},
	}
	chosen, err := tr.library.Chosen(ctx)
	switch {
	case errors.Is(err, store.ErrNotFound), errors.Is(err, studio.ErrDamaged): // the latter is named below
	case err != nil:
		return all, err
	default:
		all.Choices = &chosen
	}
	practices, err := tr.studio.Store.With(ctx).Practices()
	if err != nil {
		return all, err
	}
	for _, p := range practices {
		if _, err := practice.ReadOwn(p.Document); err != nil {
			tr.studio.Store.With(ctx).NoteDamage(store.Damaged{Kind: store.KindPractice, Name: p.ID, Why: fact.Of(err)})
			continue
		}
		all.Practices = append(
			all.Practices,
			contract.ExportPractice{ID: p.ID, UpdatedAt: p.UpdatedAt, File: string(p.Document)},
		)
	}
	groups, err := tr.studio.Store.With(ctx).EveryGroup()
	if err != nil {
		return all, err
	}
	slices.SortFunc(groups, func(a, b store.Group) int { return cmp.Compare(a.ID, b.ID) })
	for _, g := range groups {
		all.groups[g.ID] = g.UID
		all.Groups = append(all.Groups, contract.ExportGroup{
			UID:        g.UID,
			UpdatedAt:  g.UpdatedAt,
			DeletedAt:  ifAny(g.DeletedAt),
			Name:       g.Name,
			Level:      g.Level,
			Size:       g.Size,
			Weekday:    g.Weekday,
			Weektime:   g.Weektime,
			Under16:    g.Under16,
			Conditions: contract.OrEmpty(g.Conditions),
			Schools:    contract.OrEmpty(g.Schools),
			Notes:      g.Notes,
		})
	}
	plans, err := tr.studio.Store.With(ctx).EveryPlan()
	if err != nil {
		return all, err
	}
	for _, p := range plans {
		if _, err := sheet.ReadDocument(bytes.NewReader(p.Document)); err != nil {
			tr.studio.NoteDamage(store.KindPlan, p.ID, err)
			continue
		}
		all.plans[p.ID] = p.UID
		all.Plans = append(all.Plans, contract.ExportPlan{
			UID:       p.UID,
			Group:     all.groups[p.GroupID],
			UpdatedAt: p.UpdatedAt,
			DeletedAt: ifAny(p.DeletedAt),
			Document:  compact(p.Document),
		})
	}
	if all.stored, err = tr.studio.Store.With(ctx).EveryClass(); err != nil {
		return all, err
	}
	for _, c := range all.stored {
		all.classUID[c.ID] = c.UID
	}
	if all.Voices, err = tr.voices(ctx); err != nil {
		return all, err
	}
	if all.Programmes, err = tr.programmes(ctx, all.groups); err != nil {
		return all, err
	}
	all.Rehearsals, err = tr.rehearsals(ctx)
	return all, err
}

// homes returns what was given to do at home. What belongs to a class that cannot be read is left out with it.
func (tr *Transfer) homes(ctx context.Context, all *here) ([]contract.ExportHome, error) {
	stored, err := tr.studio.Store.With(ctx).EveryHome()
	var list []contract.ExportHome
	for _, h := range stored {
		if h.ClassID != 0 && all.classUID[h.ClassID] == "" {
			continue
		}
		_, err := sheet.ReadDocument(bytes.NewReader(h.Document))
		steps, wrong := homework.UnpackSteps(h.Steps)
		if err := errors.Join(err, wrong); err != nil {
			tr.studio.NoteDamage(store.KindHome, h.ID, err)
			continue
		}
		list = append(list, contract.ExportHome{
			UID:        h.UID,
			Class:      all.classUID[h.ClassID],
			Plan:       all.plans[h.PlanID],
			Group:      all.groups[h.GroupID],
			GivenAt:    h.GivenAt,
			Document:   compact(h.Document),
			Minutes:    h.Minutes,
			Pieces:     h.Pieces,
			Days:       h.Days,
			When:       h.When,
			Sentence:   h.Sentence,
			Evening:    h.Evening,
			Begins:     h.Begins,
			Ask:        h.Ask,
			Steps:      contract.HomeStepsOf(steps),
			Answer:     h.Answer,
			AnsweredAt: ifAny(h.AnsweredAt),
		})
	}
	return list, err
}

// programmes returns what groups follow.
func (tr *Transfer) programmes(ctx context.Context, groups map[int64]string) ([]contract.ExportProgramme, error) {
	stored, err := tr.studio.Store.With(ctx).EveryProgramme()
	var list []contract.ExportProgramme
	for _, p := range stored {
		if _, err := sheet.ReadDocument(bytes.NewReader(p.Base)); err != nil || !json.Valid(p.Programme) {
			tr.studio.NoteDamage(store.KindProgramme, p.ID, cmp.Or(err, error(fact.New("entry.steps-not-json"))))
			continue
		}
		list = append(list, contract.ExportProgramme{
			UID:       p.UID,
			Group:     groups[p.GroupID],
			UpdatedAt: p.UpdatedAt,
			DeletedAt: ifAny(p.DeletedAt),
			Programme: compact(p.Programme),
			Base:      compact(p.Base),
		})
	}
	return list, err
}

// voices returns every recorded voice with its words.
func (tr *Transfer) voices(ctx context.Context) ([]contract.ExportVoice, error) {
	stored, err := tr.studio.Store.With(ctx).EveryVoice()
	if err != nil {
		return nil, err
	}
	var list []contract.ExportVoice
	for _, v := range stored {
		if words.Languages[v.Language] == nil {
			tr.studio.NoteDamage(store.KindVoice, v.ID, fact.New("entry.language", "language", v.Language))
			continue
		}
		sounds, err := tr.studio.Store.With(ctx).Sounds(v.ID)
		if err != nil {
			return nil, err
		}
		one := contract.ExportVoice{
			UID:       v.UID,
			Name:      v.Name,
			Language:  v.Language,
			UpdatedAt: v.UpdatedAt,
			DeletedAt: ifAny(v.DeletedAt),
			Words:     []contract.ExportRecording{},
		}
		for _, r := range sounds {
			one.Words = append(
				one.Words,
				contract.ExportRecording{
					Text:    r.Text,
					MadeAt:  r.MadeAt,
					Was:     r.Was,
					Gain:    r.Gain,
					Clipped: r.Clipped,
					Sound:   r.Sound,
				},
			)
		}
		list = append(list, one)
	}
	return list, nil
}

// answers returns what was answered after a class, nil if nobody was asked.
func (tr *Transfer) answers(ctx context.Context, class int64) (*contract.ExportAnswers, error) {
	a, err := tr.studio.Store.With(ctx).Answers(class)
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil
	}
	return &contract.ExportAnswers{
		Most:    a.Most,
		Easy:    a.Easy,
		Right:   a.Right,
		TooMuch: a.TooMuch,
		Main:    a.Main,
		Beside:  a.Beside,
		Amounts: a.Amounts,
	}, err
}

func ifAny(t time.Time) *time.Time {
	if t.IsZero() {
		return nil
	}
	return &t
}

// orZero returns ifAny the other way round.
func orZero(t *time.Time) time.Time {
	if t == nil {
		return time.Time{}
	}
	return t.UTC()
}

// compact is JSON without spaces, so that the same content is the same text. What has none is returned as it is.
func compact(document []byte) json.RawMessage {
	var text bytes.Buffer
	text.Grow(len(document))
	if json.Compact(&text, document) != nil || text.Len() == len(document) {
		return document // what is no JSON is told where it is read
	}
	return bytes.Clone(text.Bytes())
}
