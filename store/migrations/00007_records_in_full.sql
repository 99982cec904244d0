-- +goose Up
-- Records tell more by now: rounds as they were done, and how much of a practice is advised. They are worked out again.
DELETE FROM digests;

-- +goose Down
DELETE FROM digests;
