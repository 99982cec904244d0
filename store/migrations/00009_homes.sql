-- +goose Up
-- What was given to do at home: a plan of one passage, and how much of it.
CREATE TABLE homes (
    id          INTEGER PRIMARY KEY AUTOINCREMENT,
    uid         TEXT NOT NULL UNIQUE,
    class_id    INTEGER REFERENCES classes (id), -- empty where it was given with a plan, before any class
    plan_id     INTEGER REFERENCES plans (id),
    group_id    INTEGER REFERENCES groups (id),
    given_at    DATETIME NOT NULL,
    document    TEXT NOT NULL, -- the plan file
    minutes     INTEGER NOT NULL, -- a day
    pieces      INTEGER NOT NULL,
    days        INTEGER NOT NULL, -- 0 where they are left open
    day_part    TEXT NOT NULL,
    sentence    TEXT NOT NULL,
    answer      TEXT NOT NULL DEFAULT '', -- how it was, where it was asked about
    answered_at DATETIME
);
CREATE INDEX homes_by_group ON homes (group_id, given_at);
CREATE INDEX homes_by_class ON homes (class_id);

-- +goose Down
DROP TABLE homes;
