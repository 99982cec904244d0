-- +goose Up
-- What those who breathed answered afterwards: sums, and nothing of who answered, from where or when.
CREATE TABLE answers (
    class_id INTEGER PRIMARY KEY REFERENCES classes (id),
    most     INTEGER NOT NULL, -- no more answers are taken: the greatest number of phones at once while the class was led
    easy     INTEGER NOT NULL DEFAULT 0,
    right    INTEGER NOT NULL DEFAULT 0,
    too_much INTEGER NOT NULL DEFAULT 0,
    main     INTEGER NOT NULL DEFAULT 0, -- of these, those who told which lane they took
    beside   INTEGER NOT NULL DEFAULT 0
);

-- Records tell the gentler lanes, and what those who breathed told. They are worked out again.
DELETE FROM digests;
ALTER TABLE digests ADD COLUMN told TEXT NOT NULL DEFAULT '{}'; -- JSON

-- +goose Down
ALTER TABLE digests DROP COLUMN told;
DELETE FROM digests;
DROP TABLE answers;
