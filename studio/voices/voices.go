// Package voices manages recorded voices: which there are, what is recorded and missing, and which one speaks in a
// class.
package voices

import (
	"bytes"
	"context"
	"errors"
	"maps"
	"slices"
	"strings"
	"unicode/utf8"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/sheet"
	"vastlantern/core/voice"
	"vastlantern/core/words"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
)

// Voices is the room.
type Voices struct {
	studio  *studio.Studio
	library Library
}

// Library is what is asked of the school.
type Library interface {
	InForce(context.Context) (contract.Choices, error)
	AttachTeacherSettings(ctx context.Context, doc plan.Document, group *contract.Group) error
}

// New returns the room of a studio.
func New(s *studio.Studio, l Library) *Voices { return &Voices{s, l} }

// All returns every voice, and how much of it is recorded.
func (v *Voices) All(ctx context.Context) (contract.Voices, error) {
	chosen, err := v.library.InForce(ctx)
	if err != nil {
		return contract.Voices{}, err
	}
	list := contract.Voices{
		Voices:    []contract.VoiceCard{},
		Languages: slices.Sorted(maps.Keys(words.Languages)),
		Language:  chosen.Language,
	}
	stored, err := v.studio.Store.With(ctx).Voices()
	if err != nil {
		return list, err
	}
	for _, one := range stored {
		s, err := v.sheet(ctx, one, chosen)
		if errors.Is(err, studio.ErrDamaged) { // noted
			continue
		}
		if err != nil {
			return list, err
		}
		list.Voices = append(list.Voices, s.Voice)
	}
	return list, nil
}

// Sheet returns a voice with all that is to be recorded.
func (v *Voices) Sheet(ctx context.Context, id int64) (contract.VoiceSheet, error) {
	chosen, err := v.library.InForce(ctx)
	if err != nil {
		return contract.VoiceSheet{}, err
	}
	stored, err := v.studio.Store.With(ctx).Voice(id)
	if err != nil {
		return contract.VoiceSheet{}, v.studio.OrDamaged(studio.Missing(err, store.KindVoice, id), store.KindVoice, id)
	}
	return v.sheet(ctx, stored, chosen)
}

func (v *Voices) sheet(ctx context.Context, of store.Voice, chosen contract.Choices) (contract.VoiceSheet, error) {
	s := contract.VoiceSheet{
		Voice: contract.VoiceCard{
			ID:       of.ID,
			UID:      of.UID,
			Name:     of.Name,
			Language: of.Language,
			Speaks:   of.UID == chosen.Voice,
		},
		Words: []contract.VoiceWord{}, Target: voice.Target, Longest: voice.Longest,
	}
	if words.Languages[of.Language] == nil {
		return s, v.studio.OrDamaged(
			studio.Unreadable(fact.New("entry.language", "language", of.Language)),
			store.KindVoice,
			of.ID,
		)
	}
	recorded, err := v.studio.Store.With(ctx).Recordings(of.ID)
	if err != nil {
		return s, err
	}
	byText := map[string]*contract.VoiceRecorded{}
	for _, r := range recorded {
		byText[r.Plain] = &contract.VoiceRecorded{Sum: r.Sum, Seconds: r.Seconds, Gain: r.Gain, Clipped: r.Clipped}
	}
	said, err := v.saidInPlans(ctx, of.Language)
	if err != nil {
		return s, err
	}
	add := func(text string, kind voice.Kind) {
		plain := voice.Plain(text)
		s.Words = append(s.Words, contract.VoiceWord{Text: text, Plain: plain, Kind: kind, Recorded: byText[plain]})
		delete(byText, plain)
	}
	for _, word := range voice.List(table(of.Language, chosen), practiceNames(), said) {
		add(word.Text, word.Kind)
	}
	for _, r := range recorded { // what is on no list any more, as the line of a plan that is over
		if byText[r.Plain] != nil {
			add(r.Text, voice.Own)
		}
	}
	s.Voice.Words = len(s.Words)
	for _, word := range s.Words {
		if word.Recorded != nil {
			s.Voice.Recorded++
		}
	}
	return s, nil
}

// table returns the words of a language, as this school says them.
func table(language string, chosen contract.Choices) *words.Words {
	w := words.Languages[language]
	if language == chosen.Language {
		return w.With(chosen.OwnWords, false)
	}
	return w
}

// practiceNames returns the names of the catalogue, and the practices' own words.
func practiceNames() []string {
	var names, own []string
	for _, p := range practice.Catalogue() {
		names = append(names, p.Name)
		for _, phase := range slices.Sorted(maps.Keys(p.Words)) {
			own = append(own, p.Words[phase])
		}
	}
	return append(own, names...)
}

// saidPlans is how many plans are asked for what is said in them.
const saidPlans = 500

// saidInPlans returns the own lines that the voice says, and the syllables, in the plans of a language: of those that
// were changed last, since of ten thousands most are over.
func (v *Voices) saidInPlans(ctx context.Context, language string) ([]string, error) {
	stored, err := v.studio.Store.With(ctx).NewestPlans(saidPlans)
	if err != nil {
		return nil, err
	}
	var said []string
	for _, one := range stored {
		doc, err := sheet.ReadDocument(bytes.NewReader(one.Document))
		if err != nil {
			continue // it is told where it is opened
		}
		if err := v.library.AttachTeacherSettings(ctx, doc, nil); err != nil {
			return nil, err
		}
		p, err := plan.Read(doc)
		if err != nil || p.Words.Tag != language {
			continue
		}
		for i := range p.Passages {
			passage := &p.Passages[i]
			for _, line := range passage.Lines {
				if line.Say {
					said = append(said, line.Text)
				}
			}
			if passage.Voice == plan.Syllables {
				said = append(said, passage.Syllables...)
			}
		}
	}
	return said, nil
}

const longestName = 60 // characters

// Add makes a new voice.
func (v *Voices) Add(ctx context.Context, in contract.VoiceName) (contract.VoiceSheet, error) {
	name, err := checkName(in.Name)
	if err != nil {
		return contract.VoiceSheet{}, err
	}
	if words.Languages[in.Language] == nil {
		return contract.VoiceSheet{}, studio.Fail(
			studio.ErrInvalid,
			"language.unknown",
			"given",
			in.Language,
			"allowed",
			slices.Sorted(maps.Keys(words.Languages)),
		)
	}
	added, err := v.studio.Store.With(ctx).AddVoice(store.Voice{Name: name, Language: in.Language,
		UpdatedAt: v.studio.Now()})
	if err != nil {
		return contract.VoiceSheet{}, err
	}
	return v.Sheet(ctx, added.ID)
}

func checkName(name string) (string, error) {
	name = strings.TrimSpace(name)
	if n := utf8.RuneCountInString(name); n == 0 || n > longestName {
		return "", studio.Fail(studio.ErrInvalid, "voice.name", "given", n, "most", longestName)
	}
	return name, nil
}

// Rename names a voice anew.
func (v *Voices) Rename(ctx context.Context, id int64, in contract.VoiceName) (contract.VoiceSheet, error) {
	name, err := checkName(in.Name)
	if err != nil {
		return contract.VoiceSheet{}, err
	}
	stored, err := v.studio.Store.With(ctx).Voice(id)
	if err != nil {
		return contract.VoiceSheet{}, studio.Missing(err, store.KindVoice, id)
	}
	stored.Name, stored.UpdatedAt = name, v.studio.Now()
	if err := v.studio.Store.With(ctx).SaveVoice(stored); err != nil {
		return contract.VoiceSheet{}, err
	}
	v.studio.NotifyAll()
	return v.Sheet(ctx, id)
}

const longestText = 500 // characters, as a line of a plan

// Record takes recordings of words, makes them ready and keeps them. The one before of each can be had back with
// TakeBack.
func (v *Voices) Record(ctx context.Context, id int64, all ...contract.VoiceRecording) (contract.VoiceSheet, error) {
	stored, err := v.studio.Store.With(ctx).Voice(id)
	if err != nil {
		return contract.VoiceSheet{}, studio.Missing(err, store.KindVoice, id)
	}
	for _, one := range all {
		if err := v.record(ctx, id, one); err != nil {
			return contract.VoiceSheet{}, err
		}
	}
	return v.changed(ctx, stored)
}

func (v *Voices) record(ctx context.Context, id int64, in contract.VoiceRecording) error {
	plain := voice.Plain(in.Text)
	if plain == "" || utf8.RuneCountInString(in.Text) > longestText {
		return studio.Fail(studio.ErrInvalid, "recording.text", "most", longestText)
	}
	samples, rate, err := studio.ReadWave(in.Sound)
	if err != nil {
		return studio.Fail(studio.ErrInvalid, "recording.wrong", "text", in.Text, "why", err)
	}
	ready, err := voice.Ready(samples, rate)
	if err != nil {
		return studio.Fail(studio.ErrInvalid, "recording.wrong", "text", in.Text, "why", err)
	}
	sound, err := studio.WriteWave(ready)
	if err != nil {
		return err
	}
	_, err = v.studio.Store.With(ctx).AddRecording(store.Recording{
		VoiceID: id,
		Plain:   plain,
		Text:    strings.TrimSpace(in.Text),
		Sum:     studio.SumOf(sound),
		MadeAt:  v.studio.Now(),
		Seconds: ready.Seconds(),
		Was:     ready.Was,
		Gain:    ready.Gain,
		Clipped: ready.Clipped, Sound: sound,
	})
	return err
}

// TakeBack removes the newest recording of a word; the one before, where there is one, counts again.
func (v *Voices) TakeBack(ctx context.Context, id int64, in contract.VoiceText) (contract.VoiceSheet, error) {
	stored, err := v.studio.Store.With(ctx).Voice(id)
	if err != nil {
		return contract.VoiceSheet{}, studio.Missing(err, store.KindVoice, id)
	}
	if err := v.studio.Store.With(ctx).RemoveRecording(id, voice.Plain(in.Text)); errors.Is(err, store.ErrNotFound) {
		return contract.VoiceSheet{}, studio.Fail(studio.ErrNotFound, "recording.missing", "text", in.Text)
	} else if err != nil {
		return contract.VoiceSheet{}, err
	}
	return v.changed(ctx, stored)
}

// changed notes that a voice is another, and tells the screens.
func (v *Voices) changed(ctx context.Context, stored store.Voice) (contract.VoiceSheet, error) {
	stored.UpdatedAt = v.studio.Now()
	if err := v.studio.Store.With(ctx).SaveVoice(stored); err != nil {
		return contract.VoiceSheet{}, err
	}
	v.studio.NotifyAll()
	return v.Sheet(ctx, stored.ID)
}

// Sound returns a recording by its sum.
func (v *Voices) Sound(ctx context.Context, sum string) (studio.File, error) {
	sound, err := v.studio.Store.With(ctx).Sound(sum)
	if errors.Is(err, store.ErrNotFound) {
		return studio.File{}, studio.Fail(studio.ErrNotFound, "recording.gone")
	}
	return studio.File{Name: sum[:min(len(sum), 12)] + ".wav", Type: "audio/wav", Data: sound}, err
}

// Speaking returns what the voice that speaks in a language makes of texts; nil if the browser's own does.
func (v *Voices) Speaking(ctx context.Context, language string) (func(texts []string) *contract.Speaker, error) {
	voice, err := v.Recorded(ctx, language)
	if err != nil || voice == nil {
		return nil, err
	}
	return func(texts []string) *contract.Speaker { return led.Speaker(voice, texts) }, nil
}

// Recorded returns the recordings of the voice that speaks in a language; nil if the browser's own does.
func (v *Voices) Recorded(ctx context.Context, language string) (*contract.KitVoice, error) {
	chosen, err := v.library.InForce(ctx)
	if err != nil || chosen.Voice == "" {
		return nil, err
	}
	stored, err := v.studio.Store.With(ctx).Voices()
	if err != nil {
		return nil, err
	}
	i := slices.IndexFunc(stored, func(s store.Voice) bool { return s.UID == chosen.Voice && s.Language == language })
	if i < 0 {
		return nil, nil
	}
	recorded, err := v.studio.Store.With(ctx).Recordings(stored[i].ID)
	sums := map[string]string{}
	for _, r := range recorded {
		sums[r.Plain] = r.Sum
	}
	return &contract.KitVoice{Name: stored[i].Name, Recordings: sums}, err
}
