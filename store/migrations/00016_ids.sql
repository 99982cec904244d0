-- +goose Up
-- Levels of groups and answers to home practices are ids, not English.
UPDATE groups SET level = 'some-practice' WHERE level = 'some practice';
UPDATE homes SET answer = 'every-day' WHERE answer = 'every day';
UPDATE homes SET answer = 'now-and-then' WHERE answer = 'now and then';
UPDATE homes SET answer = 'too-much' WHERE answer = 'it was too much';

-- +goose Down
UPDATE groups SET level = 'some practice' WHERE level = 'some-practice';
UPDATE homes SET answer = 'every day' WHERE answer = 'every-day';
UPDATE homes SET answer = 'now and then' WHERE answer = 'now-and-then';
UPDATE homes SET answer = 'it was too much' WHERE answer = 'too-much';
