-- +goose Up
-- Plans that were led with a simulated room. They are no classes, and stand in no record of any.
CREATE TABLE rehearsals (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    uid        TEXT NOT NULL UNIQUE,
    started_at DATETIME NOT NULL,
    updated_at DATETIME NOT NULL,
    ended_at   DATETIME,
    deleted_at DATETIME,
    document   TEXT NOT NULL, -- the plan file that is led
    setting    TEXT NOT NULL, -- JSON: the room, the seed, the task and its level
    script     TEXT NOT NULL, -- JSON: what was pressed, and when
    at_ms      INTEGER NOT NULL, -- how far it came
    looks      INTEGER NOT NULL, -- how often the covered count was looked at
    digest     TEXT NOT NULL  -- JSON: what came of it, in few numbers; empty while it goes on
);
CREATE INDEX rehearsals_by_start ON rehearsals (started_at);

-- +goose Down
DROP TABLE rehearsals;
