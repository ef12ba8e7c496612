-- +goose Up

-- A literature source: where it is, how it is asked, and what it says of itself.
create table source (
    id         bigint generated always as identity primary key,
    name       text not null,
    address    text not null,
    version    text not null,
    map        jsonb not null,
    described  jsonb not null,
    vocabulary text not null default '',
    off        boolean not null default false,
    deleted    boolean not null default false,
    made       timestamptz not null default now()
);

-- A sample that is being drawn, or was: what was asked for, how far it has come.
create table draw (
    id       bigint generated always as identity primary key,
    review   bigint not null references review on delete cascade,
    source   bigint not null references source,
    name     text not null,
    concepts jsonb not null,
    how      text not null check (how in ('all', 'newest', 'years', 'random')),
    at_most  int not null,
    seed     bigint not null,
    query    text not null default '',
    notes    jsonb not null default '[]',
    plan     jsonb,
    state    text not null check (state in ('waiting', 'drawing', 'stopping', 'stopped', 'done', 'failed')),
    total    int not null default 0,
    wanted   int not null default 0,
    got      int not null default 0,
    pause    timestamptz,
    problem  text not null default '',
    sample   bigint,
    made     timestamptz not null default now()
);

-- Positions of a source's answers that need not be fetched again. Without a record: what stood there is
-- none, or the same work as an earlier one.
create table draw_position (
    draw     bigint not null references draw on delete cascade,
    part     int not null,
    position int not null,
    record   bigint references record,
    primary key (draw, part, position)
);

create table draw_trouble (
    id       bigint generated always as identity primary key,
    draw     bigint not null references draw on delete cascade,
    part     int not null,
    first    int not null,
    last     int not null,
    kind     text not null,
    detail   text not null
);
create index draw_trouble_draw on draw_trouble (draw);

-- A sample comes from a file, from a draw, or from two others put together.
alter table sample alter column import drop not null;
alter table sample add draw bigint references draw;
alter table sample add joined jsonb;

-- Whose counts are shown; the sample's where none is chosen.
alter table review add view_source bigint references source;

-- How many records a source says it finds, and what it made of the query. One for each day.
create table count (
    source   bigint not null references source on delete cascade,
    hash     bytea not null,
    day      date not null default current_date,
    records  int not null,
    exchange jsonb not null,
    at       timestamptz not null default now(),
    primary key (source, hash, day)
);

-- Whether a source holds a key study, and how that was found.
create table holding (
    key_study bigint not null references key_study on delete cascade,
    source    bigint not null references source on delete cascade,
    state     text not null check (state in ('held', 'near', 'absent', 'unknown')),
    how       text not null default '',
    record    bigint references record,
    at        timestamptz not null default now(),
    primary key (key_study, source)
);

-- +goose Down

drop table holding, count, draw_trouble, draw_position;
alter table sample drop column draw, drop column joined;
alter table review drop column view_source;
drop table draw, source;
