-- +goose Up

-- Several headings may stand for one together; none, where nothing does.
alter table counterpart alter column stands type text[] using case when stands = '' then '{}'::text[] else array[stands] end;

-- +goose Down

alter table counterpart alter column stands type text using coalesce(stands[1], '');
