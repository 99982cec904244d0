package library

import (
	"bytes"
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"maps"
	"slices"
	"strings"
	"unicode/utf8"

	"github.com/goccy/go-yaml"

	"vastlantern/core/care"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/school"
	"vastlantern/core/words"
	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

const settingsName = "teacher"

// Settings returns what the teacher has chosen, with what there is to choose from.
func (l *Library) Settings(ctx context.Context) (contract.Settings, error) {
	// before the rest: a save in between makes it old, not lost
	_, revision, err := l.studio.Store.With(ctx).SettingAt(settingsName)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return contract.Settings{}, err
	}
	now, err := l.InForce(ctx)
	settings := contract.Settings{
		Revision: revision,
		Schools:  now.Schools, Language: now.Language, OwnWords: now.OwnWords, CareRead: now.CareRead,
		Bring: now.Bring, AskAfter: now.AskAfter, Voice: now.Voice, Keys: *now.Keys,
	}
	if err != nil {
		return settings, err
	}
	settings.Questions, settings.General = questions(), care.Everyone.Say
	settings.Meanings = meanings
	settings.Languages = slices.Sorted(maps.Keys(words.Languages))
	settings.Words = []contract.Word{}
	for _, key := range words.Keys() {
		settings.Words = append(settings.Words, contract.Word{
			Key: key, Text: words.Languages[settings.Language].Text(key), Name: wordName(ctx, key),
		})
	}
	return settings, nil
}

// wordName returns what a word of class is called in a list, in the language of the person who asks.
func wordName(ctx context.Context, key string) string {
	in := words.Languages[language.Of(ctx)]
	if in == nil || in.Tag == "en" {
		return key
	}
	if key == words.EndLeft || key == words.EndRight {
		return studio.Told(ctx, fact.New("own-words.round-ends", "words", in.Text(key)))
	}
	return in.Text(key)
}

// InForce returns what the teacher has chosen, or what holds if nothing is or where it cannot be read: what can be
// chosen anew keeps nobody from leading.
func (l *Library) InForce(ctx context.Context) (contract.Choices, error) {
	chosen, err := l.Chosen(ctx)
	if err == nil {
		return chosen, nil
	}
	if errors.Is(err, store.ErrNotFound) || errors.Is(err, studio.ErrDamaged) {
		err = nil
	}
	keys := contract.UsualKeys("", "")
	return contract.Choices{Schools: map[string]string{}, Language: "en", OwnWords: map[string]string{}, Keys: &keys}, err
}

// Language returns the one that the teacher has chosen, as a tag; English if none is, or it cannot be read.
func (l *Library) Language(ctx context.Context) string {
	chosen, err := l.Chosen(ctx)
	if err != nil || chosen.Language == "" {
		return "en"
	}
	return chosen.Language
}

// Chosen returns what the teacher has chosen, as it is stored, or store.ErrNotFound.
func (l *Library) Chosen(ctx context.Context) (contract.Choices, error) {
	value, err := l.studio.Store.With(ctx).Setting(settingsName)
	if err != nil {
		return contract.Choices{}, err
	}
	var stored contract.Choices
	err = json.Unmarshal(value, &stored)
	if err == nil {
		stored, err = l.CheckChoices(stored)
	}
	if err != nil {
		l.studio.Store.With(ctx).NoteDamage(store.Damaged{Kind: store.KindSetting, Name: settingsName, Why: fact.Of(err)})
		return contract.Choices{}, studio.Fail(studio.ErrDamaged, "school.unreadable", "why", err)
	}
	stored.Schools, stored.OwnWords = contract.OrEmpty(stored.Schools), contract.OrEmpty(stored.OwnWords)
	return stored, nil
}

func questions() []contract.Question {
	list := []contract.Question{}
	for _, q := range school.Questions() {
		question := contract.Question{ID: q.ID, Asks: q.Asks(), Ways: []contract.Way{}}
		for _, w := range q.Ways {
			question.Ways = append(question.Ways, contract.Way{ID: w.ID, Says: q.Says(w)})
		}
		list = append(list, question)
	}
	return list
}

// SaveSettings stores what the teacher has chosen, in the place of its revision. Keys that are left out stay as they
// are. The same save may come twice, where the answer to the first was lost.
func (l *Library) SaveSettings(ctx context.Context, in contract.Settings) (contract.Settings, error) {
	if in.Keys.Letters == nil && in.Keys.Remote == nil {
		now, err := l.InForce(ctx)
		if err != nil {
			return in, err
		}
		in.Keys = *now.Keys
	}
	chosen, err := l.CheckChoices(contract.Choices{
		Schools:  contract.OrEmpty(in.Schools),
		Language: in.Language,
		OwnWords: contract.OrEmpty(in.OwnWords),
		CareRead: in.CareRead,
		Bring:    in.Bring,
		AskAfter: in.AskAfter,
		Voice:    in.Voice, Keys: &in.Keys,
	})
	if err != nil {
		return in, err
	}
	value, err := json.Marshal(chosen)
	if err != nil {
		return in, err
	}
	err = l.studio.Store.With(ctx).ReplaceSetting(settingsName, value, in.Revision)
	if errors.Is(err, store.ErrTaken) {
		if there, unread := l.studio.Store.With(ctx).Setting(settingsName); unread == nil && bytes.Equal(there, value) {
			return l.Settings(ctx)
		}
		return in, studio.FailChanged("settings")
	}
	if err != nil {
		return in, err
	}
	return l.Settings(ctx)
}

// SaveChoices stores what was chosen and checked, in the place of what is there.
func (*Library) SaveChoices(st *store.Store, chosen contract.Choices) error {
	value, err := json.Marshal(chosen)
	if err != nil {
		return err
	}
	return st.SaveSetting(settingsName, value)
}

// CheckChoices returns what is stored of what was chosen, or what is wrong with it.
func (*Library) CheckChoices(in contract.Choices) (contract.Choices, error) {
	if words.Languages[in.Language] == nil {
		return in, studio.Fail(
			studio.ErrInvalid,
			"language.unknown",
			"given",
			in.Language,
			"allowed",
			slices.Sorted(maps.Keys(words.Languages)),
		)
	}
	if err := school.Choices(in.Schools).Check(); err != nil {
		return in, studio.Fail(studio.ErrInvalid, "group.school", "why", err)
	}
	if in.Keys == nil {
		usual := contract.UsualKeys(in.PedalDown, in.PedalUp)
		in.Keys = &usual
	}
	in.PedalDown, in.PedalUp = "", ""
	if err := checkKeys(in.Keys); err != nil {
		return in, err
	}
	const longest = 300
	if in.Bring = strings.TrimSpace(in.Bring); utf8.RuneCountInString(in.Bring) > longest {
		return in, studio.Fail(studio.ErrInvalid, "school.bring", "given", utf8.RuneCountInString(in.Bring), "most", longest)
	}
	const longestUID = 100
	if len(
		in.Voice,
	) > longestUID { // whether it is there is seen when it is to speak: it may come with the same file, later
		return in, studio.Fail(studio.ErrInvalid, "school.voice", "given", len(in.Voice), "most", longestUID)
	}
	maps.DeleteFunc(in.OwnWords, func(_, text string) bool { return text == "" })
	for key, text := range in.OwnWords {
		if !slices.Contains(words.Keys(), key) || len(text) > 200 {
			return in, studio.Fail(studio.ErrInvalid, "school.word", "key", key)
		}
	}
	return in, nil
}

// ChoicesFor returns the teacher's school, with the group's own ways in place where it differs.
func (l *Library) ChoicesFor(ctx context.Context, group *contract.Group) (school.Choices, error) {
	now, err := l.InForce(ctx)
	choices := school.Choices(now.Schools)
	if group != nil {
		choices = choices.With(group.Schools)
	}
	return choices, err
}

// FingersOf returns how the fingers lie at the nose in a group, as its school has it.
func (l *Library) FingersOf(ctx context.Context, group *contract.Group) (string, error) {
	choices, err := l.ChoicesFor(ctx, group)
	return choices.Way("fingers").ID, err
}

// AttachTeacherSettings gives a document what it is led with: the words of the teacher's school and language, and the
// teacher's own practices that it uses. They travel with the plan, and a class of the past keeps those that it was led
// with.
func (l *Library) AttachTeacherSettings(ctx context.Context, doc plan.Document, group *contract.Group) error {
	now, err := l.InForce(ctx)
	if err != nil {
		return err
	}
	choices, err := l.ChoicesFor(ctx, group)
	if err != nil {
		return err
	}
	said := plan.Said{Language: now.Language, Sides: choices.Way("sides").Sides, Own: now.OwnWords}
	if choices.Way("address").Formal {
		own := doc.Language()
		if own != "" && own != cmp.Or(said.Language, "en") {
			said = plan.Said{Language: own, Sides: said.Sides} // languages are not mixed
		}
		said.Own = words.Formal(said.Language, said.Own)
	}
	doc.SetWords(said)
	stored, err := l.studio.Store.With(ctx).Practices()
	if err != nil {
		return err
	}
	own := map[string]json.RawMessage{}
	for _, p := range stored {
		if text, err := yaml.YAMLToJSON(p.Document); err == nil {
			own[p.ID] = text
		}
	}
	return doc.Carry(own)
}
