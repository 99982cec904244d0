package transfer

import (
	"strings"
	"time"

	"vastlantern/core/fact"
	"vastlantern/core/voice"
	"vastlantern/core/words"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// voice is what is done with a recorded voice of the file. Of its name and whether it is deleted the form that was
// changed last counts; of each word the recording that was made last.
func (i *Import) voice(here *contract.ExportVoice, in contract.ExportVoice) error {
	if words.Languages[in.Language] == nil {
		return fact.New("entry.language", "language", in.Language)
	}
	if strings.TrimSpace(in.Name) == "" {
		return fact.New("entry.no-name")
	}
	rows := make([]store.Recording, len(in.Words))
	for n, word := range in.Words {
		samples, rate, err := studio.ReadWave(word.Sound)
		if err != nil {
			return fact.Wrap(err, "entry.word", "number", n+1, "word", word.Text, "why", err)
		}
		plain := voice.Plain(word.Text)
		if plain == "" {
			return fact.New("entry.word-silent", "number", n+1)
		}
		rows[n] = store.Recording{
			Plain:   plain,
			Text:    word.Text,
			Sum:     studio.SumOf(word.Sound),
			MadeAt:  word.MadeAt,
			Seconds: float64(len(samples)) / float64(rate),
			Was:     word.Was, Gain: word.Gain, Clipped: word.Clipped, Sound: word.Sound,
		}
	}
	change := Change{Kind: "voice", Name: named(in.Name), Does: doesAdd}
	row := store.Voice{
		UID:       in.UID,
		Name:      in.Name,
		Language:  in.Language,
		UpdatedAt: in.UpdatedAt,
		DeletedAt: orZero(in.DeletedAt),
	}
	if here == nil {
		return i.put(change, func(st *store.Store) error {
			added, err := st.AddVoice(row)
			if err != nil {
				return err
			}
			return addRecordings(st, added.ID, rows)
		})
	}
	fresh := youngerThan(here.Words, rows)
	what := count("recordings", int64(len(fresh)))
	newer := changedAt(in.UpdatedAt, in.DeletedAt).After(changedAt(here.UpdatedAt, here.DeletedAt))
	if row.ID = i.voices[in.UID]; !newer {
		if len(fresh) == 0 {
			i.Same++
			return nil
		}
		change.Does, change.What = doesChange, []fact.Fact{what}
		return i.put(change, func(st *store.Store) error { return addRecordings(st, row.ID, fresh) })
	}
	change.Does = doesChange
	if len(fresh) > 0 {
		change.What = []fact.Fact{what}
	}
	return i.replace(change, here.DeletedAt, in.DeletedAt, func(st *store.Store) error {
		if err := st.SaveVoice(row); err != nil {
			return err
		}
		return addRecordings(st, row.ID, fresh)
	})
}

// youngerThan returns the recordings of words that are not here, or that were made later than those here.
func youngerThan(here []contract.ExportRecording, in []store.Recording) (list []store.Recording) {
	made := map[string]time.Time{}
	for _, word := range here {
		made[voice.Plain(word.Text)] = word.MadeAt
	}
	for _, r := range in {
		if at, known := made[r.Plain]; !known || r.MadeAt.After(at) {
			list = append(list, r)
		}
	}
	return list
}

func addRecordings(st *store.Store, id int64, rows []store.Recording) error {
	for _, r := range rows {
		r.VoiceID = id
		if _, err := st.AddRecording(r); err != nil {
			return err
		}
	}
	return nil
}
