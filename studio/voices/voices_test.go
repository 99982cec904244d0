package voices_test

import (
	"bytes"
	"math"
	"testing"
	"time"

	"github.com/go-audio/wav"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/voice"
	"vastlantern/language"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

// spoken returns something to be heard, in a file.
func spoken(t *testing.T, pitch, seconds float64) []byte {
	t.Helper()
	r := voice.Recording{Rate: 24_000, Samples: make([]float64, int(24_000*seconds))}
	for i := range r.Samples {
		r.Samples[i] = 0.05 * math.Sin(2*math.Pi*pitch*float64(i)/24_000)
	}
	file, err := studio.WriteWave(r)
	require.NoError(t, err)
	return file
}

func recorded(sheet contract.VoiceSheet, text string) *contract.VoiceRecorded {
	for _, word := range sheet.Words {
		if word.Text == text {
			return word.Recorded
		}
	}
	return nil
}

// A word is recorded, recorded again, and taken back to what it was; what is kept is read by another's reader.
func TestAWordIsRecordedAndTakenBack(t *testing.T) {
	d := desktest.New(t)
	sheet, err := d.Voices.Add(t.Context(), contract.VoiceName{Name: " Ilse ", Language: "en"})
	require.NoError(t, err)
	assert.Equal(t, "Ilse", sheet.Voice.Name)
	assert.Zero(t, sheet.Voice.Recorded)
	id := sheet.Voice.ID
	first, err := d.Voices.Record(t.Context(), id, contract.VoiceRecording{Text: "Inhale", Sound: spoken(t, 300, 0.5)})
	require.NoError(t, err)
	once := recorded(first, "inhale")
	require.NotNil(t, once)
	assert.Greater(t, once.Gain, 3.0, "it was soft")

	file, err := d.Voices.Sound(t.Context(), once.Sum)
	require.NoError(t, err)
	in := wav.NewDecoder(bytes.NewReader(file.Data))
	buffer, err := in.FullPCMBuffer()
	require.NoError(t, err)
	assert.Equal(
		t,
		[]int{1, 24_000, 16},
		[]int{buffer.Format.NumChannels, buffer.Format.SampleRate, buffer.SourceBitDepth},
	)
	samples := make([]float64, len(buffer.Data))
	for i, s := range buffer.Data {
		samples[i] = float64(s) / (1 << 15)
	}
	assert.InDelta(t, once.Seconds, float64(len(samples))/24_000, 0.001)
	assert.InDelta(t, voice.Target, voice.Loudness(samples, 24_000), 0.5)

	second, err := d.Voices.Record(t.Context(), id, contract.VoiceRecording{Text: "inhale", Sound: spoken(t, 500, 0.4)})
	require.NoError(t, err)
	assert.NotEqual(t, once.Sum, recorded(second, "inhale").Sum)
	assert.Equal(t, 1, second.Voice.Recorded)
	back, err := d.Voices.TakeBack(t.Context(), id, contract.VoiceText{Text: "inhale"})
	require.NoError(t, err)
	assert.Equal(t, once, recorded(back, "inhale"))
	back, err = d.Voices.TakeBack(t.Context(), id, contract.VoiceText{Text: "inhale"})
	require.NoError(t, err)
	assert.Nil(t, recorded(back, "inhale"))
	_, err = d.Voices.TakeBack(t.Context(), id, contract.VoiceText{Text: "inhale"})
	assert.ErrorIs(t, err, studio.ErrNotFound)
	_, err = d.Voices.Sound(t.Context(), once.Sum)
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

func TestWhatCannotBeRecordedSaysWhy(t *testing.T) {
	d := desktest.New(t)
	sheet, err := d.Voices.Add(t.Context(), contract.VoiceName{Name: "Ilse", Language: "en"})
	require.NoError(t, err)
	for want, in := range map[string]contract.VoiceRecording{
		"not a WAV file":                 {Text: "hold", Sound: []byte("what is this")},
		"nothing was heard":              {Text: "hold", Sound: spoken(t, 0, 1)},
		"longer than 12":                 {Text: "hold", Sound: spoken(t, 300, 13)},
		"needs the text":                 {Text: " , ", Sound: spoken(t, 300, 1)},
		`“hold”: this is not a WAV file`: {Text: "hold"},
	} {
		_, err := d.Voices.Record(t.Context(), sheet.Voice.ID, in)
		require.ErrorIs(t, err, studio.ErrInvalid, want)
		assert.Contains(t, language.English().Error(err), want)
	}
	_, err = d.Voices.Record(t.Context(), 99, contract.VoiceRecording{Text: "hold", Sound: spoken(t, 300, 1)})
	require.ErrorIs(t, err, studio.ErrNotFound)
	for _, wrong := range []contract.VoiceName{{Name: " ", Language: "en"}, {Name: "Ilse", Language: "tlh"}} {
		_, err = d.Voices.Add(t.Context(), wrong)
		assert.ErrorIs(t, err, studio.ErrInvalid)
	}
}

// The voice that was chosen speaks in classes of its language; own lines that are said are on its list; what is missing
// is told.
func TestTheChosenVoiceSpeaks(t *testing.T) {
	d := desktest.New(t)
	own := d.AddPlan(
		`{"type": "practice", "practice": "counted-breath", "counts": "2:2", "rounds": 2, "lead_in": 0, "lines": [{"text": ` +
			`"Fill from below", "phase": "inhale", "say": true}]}`,
	)
	ilse, err := d.Voices.Add(t.Context(), contract.VoiceName{Name: "Ilse", Language: "en"})
	require.NoError(t, err)
	assert.Nil(t, recorded(ilse, "Fill from below"))
	assert.Contains(t, ilse.Words, contract.VoiceWord{Text: "Fill from below", Plain: "fill from below", Kind: voice.Own})
	jonas, err := d.Voices.Add(t.Context(), contract.VoiceName{Name: "Jonas", Language: "de"})
	require.NoError(t, err)
	for _, text := range []string{"inhale", "exhale", "two"} {
		_, err = d.Voices.Record(t.Context(), ilse.Voice.ID, contract.VoiceRecording{Text: text, Sound: spoken(t, 300, 0.3)})
		require.NoError(t, err)
	}
	try := func() contract.Score {
		score, err := d.Classes.Try(t.Context(), own.ID, contract.Try{Script: []contract.Tried{}})
		require.NoError(t, err)
		return score
	}
	choose := func(uid string) {
		settings, err := d.Library.Settings(t.Context())
		require.NoError(t, err)
		settings.Voice = uid
		_, err = d.Library.SaveSettings(t.Context(), settings)
		require.NoError(t, err)
	}
	assert.Nil(t, try().Speaker)
	choose(jonas.Voice.UID)
	assert.Nil(t, try().Speaker, "its language is another")
	choose(ilse.Voice.UID)
	speaker := try().Speaker
	require.NotNil(t, speaker)
	assert.Equal(t, "Ilse", speaker.Name)
	assert.Equal(t, []string{"Fill from below", "one more, the last"}, speaker.Missing)
	assert.Len(t, speaker.Said, 3)
	_, err = d.Transfer.Delete(t.Context(), "voice", ilse.Voice.ID, false)
	require.NoError(t, err)
	assert.Nil(t, try().Speaker, "a voice that was deleted says nothing")
	_, err = d.Transfer.BringBack(t.Context(), "voice", ilse.Voice.ID)
	require.NoError(t, err)
	assert.NotNil(t, try().Speaker)
}

// A voice goes to another machine with its recordings; of a word that is on both the one that was made later counts.
func TestAVoiceMoves(t *testing.T) {
	here, away := desktest.New(t), desktest.New(t)
	sheet, err := here.Voices.Add(t.Context(), contract.VoiceName{Name: "Ilse", Language: "en"})
	require.NoError(t, err)
	record := func(d *desktest.Desk, text string, pitch float64) contract.VoiceSheet {
		d.Time = d.Time.Add(time.Minute)
		sheet, err := d.Voices.Record(t.Context(), 1, contract.VoiceRecording{Text: text, Sound: spoken(t, pitch, 0.3)})
		require.NoError(t, err)
		return sheet
	}
	record(here, "inhale", 300)
	record(here, "exhale", 300)
	away.Import(here.Export())
	there, err := away.Voices.Sheet(t.Context(), 1)
	require.NoError(t, err)
	assert.Equal(t, sheet.Voice.UID, there.Voice.UID)
	assert.Equal(t, here.Export(), away.Export())

	away.Time = here.Time
	older := record(here, "inhale", 400)
	record(away, "inhale", 500)
	away.Time = away.Time.Add(time.Minute)
	younger := record(away, "inhale", 500)
	record(here, "hold", 300)
	changes := desktest.Lines(here.Import(away.Export()))
	assert.Contains(t, changes, "voice changed: Ilse (1 recording)")
	away.Import(here.Export())
	for _, d := range []*desktest.Desk{here, away} {
		now, err := d.Voices.Sheet(t.Context(), 1)
		require.NoError(t, err)
		assert.Equal(t, recorded(younger, "inhale").Sum, recorded(now, "inhale").Sum)
		assert.NotEqual(t, recorded(older, "inhale").Sum, recorded(now, "inhale").Sum)
		assert.NotNil(t, recorded(now, "hold"))
	}
}
