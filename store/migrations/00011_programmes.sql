-- +goose Up
-- What a group follows over weeks: its steps, and the class with which it was begun. Plans and classes carry its uid.
CREATE TABLE programmes (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    uid        TEXT NOT NULL UNIQUE,
    group_id   INTEGER REFERENCES groups (id),
    programme  TEXT NOT NULL, -- JSON: name, steps, when it goes on
    base       TEXT NOT NULL, -- a plan file
    updated_at DATETIME NOT NULL,
    deleted_at DATETIME
);
CREATE INDEX programmes_by_group ON programmes (group_id);

-- +goose Down
DROP TABLE programmes;
