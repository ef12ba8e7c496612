-- +goose Up

-- A file may have to be explained before it can be read: what its columns or tags are, what becomes of
-- records of the same work. settings is what was answered, asked what is to be answered.
alter table import drop constraint import_state_check;
alter table import add constraint import_state_check check (state in ('waiting', 'reading', 'asking', 'done', 'failed'));
alter table import add format text not null default '', add settings jsonb not null default '{}', add asked jsonb;

-- How kinds of files are read, as people have said it: mappings of columns, known again by the heads of a
-- table, and reader maps of tagged text, known by their name.
create table reading (
    id   bigint generated always as identity primary key,
    kind text not null check (kind in ('columns', 'tags')),
    key  text not null,
    body jsonb not null,
    made timestamptz not null default now(),
    unique (kind, key)
);

-- Records that someone wants to keep, whatever becomes of the samples they were found in.
create table shelved (
    review bigint not null references review on delete cascade,
    record bigint not null references record,
    note   text not null default '',
    tags   text[] not null default '{}',
    made   timestamptz not null default now(),
    primary key (review, record)
);

-- +goose Down

drop table shelved, reading;
update import set state = 'failed' where state = 'asking';
alter table import drop column format, drop column settings, drop column asked;
alter table import drop constraint import_state_check;
alter table import add constraint import_state_check check (state in ('waiting', 'reading', 'done', 'failed'));
