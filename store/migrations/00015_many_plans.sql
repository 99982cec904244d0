-- +goose Up
-- Among tens of thousands of plans those that come, those without a time that were changed last, those of a programme, and of all
-- those changed last, are found at once.
CREATE INDEX plans_coming ON plans (starts_at, id) WHERE deleted_at IS NULL;
CREATE INDEX plans_without_time ON plans (updated_at, id) WHERE starts_at IS NULL AND deleted_at IS NULL;
CREATE INDEX plans_by_change ON plans (updated_at, id) WHERE deleted_at IS NULL;
CREATE INDEX plans_of_programme ON plans
    (iif(json_valid(document), coalesce(json_extract(document, '$.programme.uid'), json_extract(document, '$.course.name')), NULL));
CREATE INDEX classes_of_programme ON classes
    (iif(json_valid(document), coalesce(json_extract(document, '$.programme.uid'), json_extract(document, '$.course.name')), NULL));
DROP INDEX plans_by_start;

-- +goose Down
CREATE INDEX plans_by_start ON plans (starts_at);
DROP INDEX classes_of_programme;
DROP INDEX plans_of_programme;
DROP INDEX plans_by_change;
DROP INDEX plans_without_time;
DROP INDEX plans_coming;
