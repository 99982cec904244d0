-- +goose Up
CREATE TABLE groups (
    id    INTEGER PRIMARY KEY AUTOINCREMENT,
    name  TEXT NOT NULL,
    level TEXT NOT NULL DEFAULT '',
    size  INTEGER NOT NULL DEFAULT 0
);

CREATE TABLE plans (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    group_id   INTEGER REFERENCES groups (id),
    revision   INTEGER NOT NULL,
    title      TEXT NOT NULL,
    starts_at  DATETIME,
    document   TEXT NOT NULL,
    updated_at DATETIME NOT NULL
);
CREATE INDEX plans_by_start ON plans (starts_at);

-- A class that was led is its plan, its start and its adjustments, and nothing else: all that is shown of it is
-- computed from these.
CREATE TABLE classes (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    plan_id    INTEGER REFERENCES plans (id),
    group_id   INTEGER REFERENCES groups (id),
    started_at DATETIME NOT NULL,
    document   TEXT NOT NULL
);
CREATE INDEX classes_by_start ON classes (started_at);

CREATE TABLE adjustments (
    class_id INTEGER NOT NULL REFERENCES classes (id),
    number   INTEGER NOT NULL,
    key      TEXT NOT NULL,
    body     TEXT NOT NULL,
    PRIMARY KEY (class_id, number),
    UNIQUE (class_id, key)
);

-- +goose Down
DROP TABLE adjustments;
DROP TABLE classes;
DROP TABLE plans;
DROP TABLE groups;
