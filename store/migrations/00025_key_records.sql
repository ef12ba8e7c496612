-- +goose Up

-- What a source says of a key study: its own record, as it was fetched last, and the one before where that was another. Figures
-- for a source go by its record; records of samples are kept apart, and are not changed by it.
alter table holding add body bytea, add was bytea, add changed timestamptz, add headings integer not null default 0;
update holding set body = r.body, headings = (length(convert_from(r.body, 'UTF8')) - length(replace(convert_from(r.body, 'UTF8'), '"Label":', ''))) / 8
    from record r where r.id = holding.record;

-- +goose Down

alter table holding drop column body, drop column was, drop column changed, drop column headings;
