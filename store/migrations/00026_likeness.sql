-- +goose Up

-- How much a work is like those that belong, of a round that looked for such: it is what it brought them for.
alter table round_work add likeness double precision;

-- +goose Down

alter table round_work drop column likeness;
