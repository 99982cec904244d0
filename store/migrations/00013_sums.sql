-- +goose Up
-- What a class adds to sums stands by itself: a year's summary asked the records of hundreds of classes for it. It is worked out
-- again with the rest.
DELETE FROM digests;
ALTER TABLE digests ADD COLUMN sum TEXT NOT NULL DEFAULT '{}'; -- JSON

-- +goose Down
ALTER TABLE digests DROP COLUMN sum;
DELETE FROM digests;
