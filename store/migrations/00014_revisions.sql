-- +goose Up
-- A save names the revision that it changes, so that two screens never overwrite each other. Plans have this already.
ALTER TABLE groups     ADD COLUMN revision INTEGER NOT NULL DEFAULT 1;
ALTER TABLE practices  ADD COLUMN revision INTEGER NOT NULL DEFAULT 1;
ALTER TABLE settings   ADD COLUMN revision INTEGER NOT NULL DEFAULT 1;
ALTER TABLE programmes ADD COLUMN revision INTEGER NOT NULL DEFAULT 1;
ALTER TABLE homes      ADD COLUMN revision INTEGER NOT NULL DEFAULT 1;

-- +goose Down
ALTER TABLE homes      DROP COLUMN revision;
ALTER TABLE programmes DROP COLUMN revision;
ALTER TABLE settings   DROP COLUMN revision;
ALTER TABLE practices  DROP COLUMN revision;
ALTER TABLE groups     DROP COLUMN revision;
