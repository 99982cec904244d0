package demo

import (
	"bytes"
	"context"
	"embed"
	"encoding/binary"
	"encoding/json"
	"errors"
	"io"
	"strings"
	"sync"

	"github.com/hajimehoshi/go-mp3"

	"vastlantern/core/fact"
	"vastlantern/core/voice"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk"
)

// The words of a synthesiser, as voice/make.sh has made them.
//
//go:embed voice/*.mp3
var words embed.FS

const (
	voiceName    = "Synthesiser (demo)"
	voiceSetting = "demo voice"
)

// layVoice records the demo's voice of the words that read returns, unless it is there. With speaks it is the one that
// speaks, if none does.
func layVoice(ctx context.Context, d *desk.Desk, speaks bool, read func() ([]contract.VoiceRecording, error)) error {
	if id, err := laidVoice(d.Store); err != nil || id != 0 {
		return err
	}
	sheet, err := d.Voices.Add(ctx, contract.VoiceName{Name: voiceName, Language: "en"})
	if err != nil {
		return err
	}
	value, err := json.Marshal(sheet.Voice.ID)
	if err != nil {
		return err
	}
	if err := d.Store.With(ctx).SaveSetting(voiceSetting, value); err != nil {
		return err
	}
	all, err := read()
	if err != nil {
		return fact.Wrap(err, "demo.words", "why", err)
	}
	if _, err := d.Voices.Record(ctx, sheet.Voice.ID, all...); err != nil {
		return err
	}
	settings, err := d.Library.Settings(ctx)
	if err != nil || !speaks || settings.Voice != "" {
		return err
	}
	settings.Voice = sheet.Voice.UID
	_, err = d.Library.SaveSettings(ctx, settings)
	return err
}

// readWords reads all of them, by every processor.
func readWords() ([]contract.VoiceRecording, error) {
	files, err := words.ReadDir("voice")
	if err != nil {
		return nil, err
	}
	all := make([]contract.VoiceRecording, len(files))
	wrong := make([]error, len(files))
	var reading sync.WaitGroup
	for i, file := range files {
		reading.Go(func() {
			all[i].Text = strings.ReplaceAll(strings.TrimSuffix(file.Name(), ".mp3"), "-", " ")
			all[i].Sound, wrong[i] = spoken(file.Name())
		})
	}
	reading.Wait()
	return all, errors.Join(wrong...)
}

// laidVoice returns the number of the demo's voice, 0 if it is not there.
func laidVoice(s *store.Store) (id int64, err error) {
	value, err := s.Setting(voiceSetting)
	if errors.Is(err, store.ErrNotFound) {
		return 0, nil
	}
	if err != nil || json.Unmarshal(value, &id) != nil {
		return 0, err
	}
	if _, err := s.Voice(id); errors.Is(err, store.ErrNotFound) {
		return 0, nil
	}
	return id, err
}

// spoken returns a word as a microphone would send it.
func spoken(name string) ([]byte, error) {
	file, err := words.ReadFile("voice/" + name)
	if err != nil {
		return nil, err
	}
	in, err := mp3.NewDecoder(bytes.NewReader(file))
	if err != nil {
		return nil, err
	}
	raw, err := io.ReadAll(in) // 16 bits, two channels that are the same
	if err != nil {
		return nil, err
	}
	const frame = 4
	r := voice.Recording{Rate: in.SampleRate(), Samples: make([]float64, len(raw)/frame)}
	for i := range r.Samples {
		r.Samples[i] = float64(int16(binary.LittleEndian.Uint16(raw[i*frame:]))) / (1 << 15)
	}
	return studio.WriteWave(r)
}
