package store

import (
	"database/sql"
	"time"

	"gorm.io/gorm"
)

// Voice is the recorded voice of somebody, in one language.
type Voice struct {
	ID        int64
	UID       string // the same on every machine; given by the store where it is empty
	Name      string
	Language  string // BCP 47
	UpdatedAt time.Time
	DeletedAt time.Time // zero if it is not
}

// Recording is a word of a voice. Sound is there only where it is asked for.
type Recording struct {
	ID      int64
	VoiceID int64
	Plain   string // the word as it is looked up
	Text    string
	Sum     string // of the sound
	MadeAt  time.Time
	Seconds float64
	Was     float64 // LUFS before it was brought to one loudness
	Gain    float64 // dB
	Clipped bool
	Sound   []byte // RIFF WAVE
}

type voiceRow struct {
	ID        int64
	UID       string
	Name      string
	Language  string
	UpdatedAt time.Time `gorm:"autoUpdateTime:false"`
	DeletedAt gorm.DeletedAt
}

func (r voiceRow) number() int64 { return r.ID }

func (r voiceRow) moments() []time.Time { return []time.Time{r.UpdatedAt, r.DeletedAt.Time} }

func (voiceRow) TableName() string { return "voices" }

type recordingRow Recording

func (r recordingRow) number() int64 { return r.VoiceID }

func (r recordingRow) moments() []time.Time { return []time.Time{r.MadeAt} }

func (recordingRow) TableName() string { return "recordings" }

func (r voiceRow) voice() Voice {
	return Voice{r.ID, r.UID, r.Name, r.Language, r.UpdatedAt.UTC(), timeOf(sql.NullTime(r.DeletedAt))}
}

// Voices returns all voices by name.
func (s *Store) Voices() ([]Voice, error) { return s.voices(s.read.Order("name, id")) }

// EveryVoice returns all voices in the order in which they were made, those too that were deleted.
func (s *Store) EveryVoice() ([]Voice, error) { return s.voices(s.read.Unscoped().Order("id")) }

func (s *Store) voices(query *gorm.DB) ([]Voice, error) {
	rows, err := readable[voiceRow](s, KindVoice, "id", query)
	list := make([]Voice, len(rows))
	for i, r := range rows {
		list[i] = r.voice()
	}
	return list, err
}

// Voice returns one voice, or ErrNotFound.
func (s *Store) Voice(id int64) (Voice, error) {
	var row voiceRow
	err := s.read.Take(&row, id).Error
	return row.voice(), found(s, KindVoice, id, row, err)
}

// AddVoice stores a new voice and returns it with its id.
func (s *Store) AddVoice(v Voice) (Voice, error) {
	row := voiceRow{
		UID:       named(v.UID),
		Name:      v.Name,
		Language:  v.Language,
		UpdatedAt: v.UpdatedAt.UTC(),
		DeletedAt: gorm.DeletedAt(moment(v.DeletedAt)),
	}
	err := s.db.Create(&row).Error
	return row.voice(), plainly(err)
}

// SaveVoice stores the name of a voice and when it was deleted, or says ErrNotFound. Its language stays.
func (s *Store) SaveVoice(v Voice) error {
	saved := s.db.Unscoped().Model(&voiceRow{}).Where("id = ?", v.ID).
		Updates(map[string]any{"name": v.Name, "updated_at": v.UpdatedAt.UTC(), "deleted_at": moment(v.DeletedAt)})
	if saved.Error == nil && saved.RowsAffected == 0 {
		return ErrNotFound
	}
	return plainly(saved.Error)
}

const (
	keptOfWord = 2 // recordings of the same word: the one in force, and the one before
	soundless  = "id, voice_id, plain, text, sum, made_at, seconds, was, gain, clipped"
)

// AddRecording stores a recording as the newest of its word. Of those before, one is kept.
func (s *Store) AddRecording(r Recording) (Recording, error) {
	row := recordingRow(r)
	row.MadeAt = r.MadeAt.UTC()
	err := s.transaction(func(db *gorm.DB) error {
		if err := db.Create(&row).Error; err != nil {
			return err
		}
		return db.Exec(`DELETE FROM recordings WHERE voice_id = ? AND plain = ? AND id NOT IN (
			SELECT id FROM recordings WHERE voice_id = ? AND plain = ? ORDER BY id DESC LIMIT ?)`, r.VoiceID, r.Plain, r.VoiceID, r.Plain, keptOfWord).Error
	})
	return Recording(row), err
}

// RemoveRecording removes the newest recording of a word, so that the one before counts again, or says ErrNotFound.
func (s *Store) RemoveRecording(voice int64, plain string) error {
	removed := s.db.Exec(
		"DELETE FROM recordings WHERE id = (SELECT max(id) FROM recordings WHERE voice_id = ? AND plain = ?)",
		voice,
		plain,
	)
	if removed.Error == nil && removed.RowsAffected == 0 {
		return ErrNotFound
	}
	return plainly(removed.Error)
}

// Recordings returns those of a voice that count, the newest of each word, without their sound.
func (s *Store) Recordings(voice int64) ([]Recording, error) {
	return s.recordings(s.newest(voice).Select(soundless))
}

// Sounds is Recordings with their sound.
func (s *Store) Sounds(voice int64) ([]Recording, error) { return s.recordings(s.newest(voice)) }

func (s *Store) newest(voice int64) *gorm.DB {
	return s.read.Where("id IN (SELECT max(id) FROM recordings WHERE voice_id = ? GROUP BY plain)", voice).Order("id")
}

func (s *Store) recordings(query *gorm.DB) ([]Recording, error) {
	rows, err := readable[recordingRow](s, KindVoice, "id", query)
	list := make([]Recording, len(rows))
	for i, r := range rows {
		list[i] = Recording(r)
		list[i].MadeAt = r.MadeAt.UTC()
	}
	return list, err
}

// Sound returns a recording by the sum of its sound, or ErrNotFound.
func (s *Store) Sound(sum string) ([]byte, error) {
	var row recordingRow
	err := s.read.Select("sound").Where("sum = ?", sum).Take(&row).Error
	return row.Sound, plainly(err)
}
