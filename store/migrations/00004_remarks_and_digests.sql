-- +goose Up
-- What is added to a record afterwards. The record itself is computed and never edited.
CREATE TABLE remarks (
    id       INTEGER PRIMARY KEY AUTOINCREMENT,
    class_id INTEGER NOT NULL REFERENCES classes (id),
    at       DATETIME NOT NULL,
    kind     TEXT NOT NULL, -- people, took, note, correction
    text     TEXT NOT NULL
);
CREATE INDEX remarks_by_class ON remarks (class_id);

-- What lists and searches need of a class, worked out from it once. It can be thrown away at any time.
CREATE TABLE digests (
    class_id  INTEGER PRIMARY KEY REFERENCES classes (id),
    over      INTEGER NOT NULL,
    title     TEXT NOT NULL,
    length_ms INTEGER NOT NULL,
    headlines TEXT NOT NULL, -- JSON
    practices TEXT NOT NULL, -- ids, each between spaces
    eased     INTEGER NOT NULL,
    words     TEXT NOT NULL, -- what is searched, in lower case
    record    TEXT NOT NULL  -- JSON: the passages as they were taught
);
CREATE INDEX digests_by_over ON digests (over, class_id);
CREATE INDEX classes_by_group ON classes (group_id, started_at);

-- +goose Down
DROP INDEX classes_by_group;
DROP TABLE digests;
DROP TABLE remarks;
