package contract

import "vastlantern/core/voice"

// Voices is the recorded voices that there are.
type Voices struct {
	Voices    []VoiceCard `json:"voices"`
	Languages []string    `json:"languages"` // to choose from
	Language  string      `json:"language"`  // of the classes
}

// VoiceCard is a recorded voice in a list.
type VoiceCard struct {
	ID       int64  `json:"id"`
	UID      string `json:"uid"`
	Name     string `json:"name"`
	Language string `json:"language"`
	Speaks   bool   `json:"speaks"`   // in classes of its language
	Recorded int    `json:"recorded"` // of Words
	Words    int    `json:"words"`
}

// VoiceName makes a voice, or names it anew.
type VoiceName struct {
	Name     string `json:"name"`
	Language string `json:"language"` // of a new one
}

// VoiceSheet is a voice with all that is to be recorded.
type VoiceSheet struct {
	Voice VoiceCard   `json:"voice"`
	Words []VoiceWord `json:"words"`
	// Target is the loudness to which every recording is brought, in LUFS.
	Target float64 `json:"target"`
	// Longest is how long a recording may be, in seconds.
	Longest float64 `json:"longest"`
}

// VoiceWord is something to record.
type VoiceWord struct {
	Text     string         `json:"text"`
	Plain    string         `json:"plain"` // as a file with it is named
	Kind     voice.Kind     `json:"kind"`
	Recorded *VoiceRecorded `json:"recorded" jsonschema:"nullable"`
}

// VoiceRecorded is the recording of a word.
type VoiceRecorded struct {
	Sum     string  `json:"sum"` // by which its sound is asked for
	Seconds float64 `json:"seconds"`
	Gain    float64 `json:"gain"` // dB by which it was brought to one loudness
	Clipped bool    `json:"clipped"`
}

// VoiceRecording is a recording as it comes from a microphone or a file: RIFF WAVE, one or two channels.
type VoiceRecording struct {
	Text  string `json:"text"`
	Sound []byte `json:"sound"`
}

// VoiceText names a word of a voice.
type VoiceText struct {
	Text string `json:"text"`
}

// Speaker is the recorded voice of a score.
type Speaker struct {
	Name string `json:"name"`
	// Said is of which recordings each text is made, by their sums.
	Said map[string][]string `json:"said"`
	// Missing is what is said in this class and was not recorded.
	Missing []string `json:"missing"`
}
