-- +goose Up

-- A sample may be drawn in parts: all concepts together, each by itself, and some of anything. Each part has its concepts, its
-- query and how many records that finds. Which part a position belongs to is told by its number: part = 10000 × the place of the
-- part + the year, or 0.
alter table draw add parts jsonb not null default '[]';

-- +goose Down

alter table draw drop column parts;
