-- +goose Up

-- A sample that is being filed is seen by nobody until all of it is there.
alter table sample add column hidden boolean not null default false;

-- A file is received piece by piece, each kept as it comes; touched is when the last one did.
alter table import drop constraint import_state_check;
alter table import add constraint import_state_check check (state in ('receiving', 'waiting', 'reading', 'asking', 'done', 'failed'));
alter table import add column touched timestamptz not null default now();

-- Work that goes on beside what people do. asked counts how often it was asked for, done how much of that is
-- done: where they differ, someone has to work. Who works says so every second; who has not said so for a while
-- has died, and another takes over.
create table task (
    name    text primary key,
    kind    text not null,
    number  bigint not null,
    review  bigint references review on delete cascade,
    source  bigint references source on delete cascade,
    asked   bigint not null default 1,
    done    bigint not null default 0,
    takes   int not null default 0,
    holder  uuid,
    beat    timestamptz not null default now(),
    stop    boolean not null default false,
    waits   text not null default '',
    problem jsonb,
    ended   timestamptz
);
create index task_open on task (kind) where asked > done;

insert into task (name, kind, number, review, source)
    select 'draw ' || id, 'draw', id, review, source from draw where state in ('waiting', 'drawing', 'stopping');
insert into task (name, kind, number, review)
    select 'import ' || id, 'import', id, review from import where state in ('waiting', 'reading');

-- Changes by the request that asked for them, so that one that is sent again, because its answer was lost, is
-- not made twice.
create table request (
    review bigint not null references review on delete cascade,
    id     uuid not null,
    made   timestamptz not null default now(),
    primary key (review, id)
);
create index request_made on request (made);

-- +goose Down

drop table request, task;
alter table import drop column touched;
delete from import where state = 'receiving';
alter table import drop constraint import_state_check;
alter table import add constraint import_state_check check (state in ('waiting', 'reading', 'asking', 'done', 'failed'));
delete from sample where hidden;
alter table sample drop column hidden;
