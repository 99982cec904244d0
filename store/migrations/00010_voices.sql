-- +goose Up
-- The voice of a teacher, in one language.
CREATE TABLE voices (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    uid        TEXT NOT NULL UNIQUE,
    name       TEXT NOT NULL,
    language   TEXT NOT NULL, -- BCP 47
    updated_at DATETIME NOT NULL,
    deleted_at DATETIME
);
-- What was recorded with it. Of the same word the newest counts; the one before can be taken back.
CREATE TABLE recordings (
    id       INTEGER PRIMARY KEY AUTOINCREMENT,
    voice_id INTEGER NOT NULL REFERENCES voices (id),
    plain    TEXT NOT NULL, -- the word as it is looked up
    text     TEXT NOT NULL,
    sum      TEXT NOT NULL, -- of the SHA-256 of the sound, by which it is asked for
    made_at  DATETIME NOT NULL,
    seconds  REAL NOT NULL,
    was      REAL NOT NULL, -- loudness before, LUFS
    gain     REAL NOT NULL, -- dB
    clipped  BOOLEAN NOT NULL,
    sound    BLOB NOT NULL -- RIFF WAVE, 16 bits, one channel
);
CREATE INDEX recordings_by_word ON recordings (voice_id, plain, id);
CREATE INDEX recordings_by_sum ON recordings (sum);

-- +goose Down
DROP TABLE recordings;
DROP TABLE voices;
