-- +goose Up
ALTER TABLE groups ADD COLUMN weekday INTEGER NOT NULL DEFAULT -1; -- 0 is Sunday
ALTER TABLE groups ADD COLUMN weektime TEXT NOT NULL DEFAULT '';   -- 18:30
ALTER TABLE groups ADD COLUMN under16 INTEGER NOT NULL DEFAULT 0;
ALTER TABLE groups ADD COLUMN conditions TEXT NOT NULL DEFAULT '{}'; -- how many people have each; never who
ALTER TABLE groups ADD COLUMN schools TEXT NOT NULL DEFAULT '{}';    -- where the group differs from the teacher
ALTER TABLE groups ADD COLUMN notes TEXT NOT NULL DEFAULT '';

-- The cautions that were read before the class was led.
ALTER TABLE classes ADD COLUMN acknowledged TEXT NOT NULL DEFAULT '[]';

-- A teacher's own practices, each as its file.
CREATE TABLE practices (
    id         TEXT PRIMARY KEY,
    document   TEXT NOT NULL,
    updated_at DATETIME NOT NULL
);

-- What the teacher has chosen: one row a kind of choice, as JSON.
CREATE TABLE settings (
    name  TEXT PRIMARY KEY,
    value TEXT NOT NULL
);

-- +goose Down
DROP TABLE settings;
DROP TABLE practices;
ALTER TABLE classes DROP COLUMN acknowledged;
ALTER TABLE groups DROP COLUMN notes;
ALTER TABLE groups DROP COLUMN schools;
ALTER TABLE groups DROP COLUMN conditions;
ALTER TABLE groups DROP COLUMN under16;
ALTER TABLE groups DROP COLUMN weektime;
ALTER TABLE groups DROP COLUMN weekday;
