-- +goose Up
-- How a home practice grows, its second time in the evening, its first day, and whom to ask.
ALTER TABLE homes ADD COLUMN steps TEXT NOT NULL DEFAULT '';
ALTER TABLE homes ADD COLUMN evening TEXT NOT NULL DEFAULT '';
ALTER TABLE homes ADD COLUMN begins TEXT NOT NULL DEFAULT '';
ALTER TABLE homes ADD COLUMN ask TEXT NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE homes DROP COLUMN ask;
ALTER TABLE homes DROP COLUMN begins;
ALTER TABLE homes DROP COLUMN evening;
ALTER TABLE homes DROP COLUMN steps;
