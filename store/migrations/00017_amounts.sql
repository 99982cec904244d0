-- +goose Up
-- What people counted at own pace: how many told each number, as "60:2 110:1". Sums, never who.
ALTER TABLE answers ADD COLUMN amounts TEXT NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE answers DROP COLUMN amounts;
