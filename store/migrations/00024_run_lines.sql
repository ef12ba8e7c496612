-- +goose Up

-- The lines of the strategy that was run, one by one as they were asked there: the record shows what was asked, not what would be.
alter table run add lines jsonb;

-- +goose Down

alter table run drop column lines;
