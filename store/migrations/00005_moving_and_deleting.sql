-- +goose Up
-- What is the same group, plan or class on every machine, whatever its number there.
ALTER TABLE groups  ADD COLUMN uid TEXT NOT NULL DEFAULT '';
ALTER TABLE plans   ADD COLUMN uid TEXT NOT NULL DEFAULT '';
ALTER TABLE classes ADD COLUMN uid TEXT NOT NULL DEFAULT '';
UPDATE groups  SET uid = lower(hex(randomblob(16)));
UPDATE plans   SET uid = lower(hex(randomblob(16)));
UPDATE classes SET uid = lower(hex(randomblob(16)));
CREATE UNIQUE INDEX groups_by_uid  ON groups (uid);
CREATE UNIQUE INDEX plans_by_uid   ON plans (uid);
CREATE UNIQUE INDEX classes_by_uid ON classes (uid);

-- Of two machines' forms of a group the younger one counts; plans and practices have this already.
ALTER TABLE groups ADD COLUMN updated_at DATETIME NOT NULL DEFAULT '1970-01-01 00:00:00+00:00';

-- What was deleted is not shown, and can be brought back for a while. What went together has the same moment.
ALTER TABLE groups  ADD COLUMN deleted_at DATETIME;
ALTER TABLE plans   ADD COLUMN deleted_at DATETIME;
ALTER TABLE classes ADD COLUMN deleted_at DATETIME;

-- Whether a class is deleted is found without reading its document, which is long.
DROP INDEX classes_by_start;
DROP INDEX classes_by_group;
CREATE INDEX classes_by_start ON classes (started_at) WHERE deleted_at IS NULL;
CREATE INDEX classes_by_group ON classes (group_id, started_at) WHERE deleted_at IS NULL;
CREATE INDEX classes_deleted ON classes (deleted_at) WHERE deleted_at IS NOT NULL;
CREATE INDEX plans_deleted ON plans (deleted_at) WHERE deleted_at IS NOT NULL;

-- +goose Down
DROP INDEX plans_deleted;
DROP INDEX classes_deleted;
DROP INDEX classes_by_group;
DROP INDEX classes_by_start;
CREATE INDEX classes_by_start ON classes (started_at);
CREATE INDEX classes_by_group ON classes (group_id, started_at);
ALTER TABLE classes DROP COLUMN deleted_at;
ALTER TABLE plans   DROP COLUMN deleted_at;
ALTER TABLE groups  DROP COLUMN deleted_at;
ALTER TABLE groups  DROP COLUMN updated_at;
DROP INDEX classes_by_uid;
DROP INDEX plans_by_uid;
DROP INDEX groups_by_uid;
ALTER TABLE classes DROP COLUMN uid;
ALTER TABLE plans   DROP COLUMN uid;
ALTER TABLE groups  DROP COLUMN uid;
