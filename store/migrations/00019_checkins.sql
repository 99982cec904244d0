-- +goose Up
-- What the room was asked before and after a class, in one touch: sums, and nothing of who answered.
CREATE TABLE check_ins (
    id          INTEGER PRIMARY KEY,
    class_id    INTEGER UNIQUE REFERENCES classes (id), -- NULL before the class begins
    plan_id     INTEGER REFERENCES plans (id),          -- that it is asked for, before the class begins
    opened_at   DATETIME NOT NULL,
    question    TEXT NOT NULL,                          -- side or calm
    before      TEXT NOT NULL DEFAULT '',               -- how many gave each answer, as "left:3 both:2"
    after       TEXT NOT NULL DEFAULT '',
    most_before INTEGER NOT NULL DEFAULT 0,             -- no more answers are taken
    most_after  INTEGER NOT NULL DEFAULT 0
);
CREATE INDEX check_ins_plan ON check_ins (plan_id);

-- +goose Down
DROP TABLE check_ins;
