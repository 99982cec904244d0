-- +goose Up
-- When a class came to its end; empty for the one that is in progress. Which class is being led is told by this and not
-- by the newest start, which a corrected clock or an import can give to another one.
ALTER TABLE classes ADD COLUMN ended_at DATETIME;
UPDATE classes SET ended_at = (SELECT min(later.started_at) FROM classes AS later WHERE later.started_at > classes.started_at);
CREATE INDEX classes_in_progress ON classes (id) WHERE ended_at IS NULL;

-- Why a class cannot be read; empty for nearly all.
ALTER TABLE digests ADD COLUMN damaged TEXT NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE digests DROP COLUMN damaged;
DROP INDEX classes_in_progress;
ALTER TABLE classes DROP COLUMN ended_at;
