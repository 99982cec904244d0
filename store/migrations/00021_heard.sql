-- +goose Up
-- What a lead screen heard of the room: numbers, never sound.
CREATE TABLE heard (
    id         INTEGER PRIMARY KEY,
    class_id   INTEGER NOT NULL REFERENCES classes (id),
    phase      TEXT NOT NULL,              -- stroke, or the phase that was chanted or hummed
    from_ms    INTEGER NOT NULL,           -- of the class
    to_ms      INTEGER NOT NULL,
    per_minute REAL NOT NULL DEFAULT 0,    -- of strokes
    UNIQUE (class_id, phase, from_ms)
);

-- +goose Down
DROP TABLE heard;
