-- +goose Up

create table review (
    id           bigint generated always as identity primary key,
    name         text not null,
    created      timestamptz not null default now(),
    touched      timestamptz not null default now(),
    deleted      boolean not null default false,
    view_sample  bigint,
    view_against bigint,
    view_rest    boolean not null default true
);

-- The question, blocks and limits of a review, saved whole at each change.
create table document (
    review   bigint not null references review on delete cascade,
    revision int not null,
    body     jsonb not null,
    made     timestamptz not null default now(),
    primary key (review, revision)
);

-- Records are stored once for each source and content, whatever samples they are in. doi and work are
-- digests of what makes two records one.
create table record (
    id     bigint generated always as identity primary key,
    source text not null,
    hash   bytea not null,
    doi    bytea,
    work   bytea,
    year   int not null,
    body   bytea not null,
    unique (source, hash)
);
create index record_doi on record (doi) where doi is not null;
create index record_work on record (work) where work is not null;

-- A file that was brought in: what came over the wire, until a job has read it, and what became of it.
create table import (
    id         bigint generated always as identity primary key,
    review     bigint not null references review on delete cascade,
    kind       text not null check (kind in ('sample', 'keys')),
    name       text not null,
    state      text not null check (state in ('waiting', 'reading', 'done', 'failed')),
    bytes      bigint not null default 0,
    bytes_read bigint not null default 0,
    hash       bytea,
    records    int not null default 0,
    skipped    int not null default 0,
    notices    int not null default 0,
    sample     bigint,
    problem    jsonb,
    made       timestamptz not null default now()
);

create table import_chunk (
    import bigint not null references import on delete cascade,
    n      int not null,
    data   bytea not null,
    primary key (import, n)
);

create table notice (
    import  bigint not null references import on delete cascade,
    n       int not null,
    line    int not null,
    record  int not null,
    kind    text not null,
    detail  text not null,
    skipped boolean not null,
    primary key (import, n)
);

-- A sample is a frozen set of records.
create table sample (
    id        bigint generated always as identity primary key,
    review    bigint not null references review on delete cascade,
    import    bigint not null references import,
    name      text not null,
    file_name text not null,
    records   int not null,
    years     jsonb not null,
    drawn     timestamptz not null default now(),
    deleted   boolean not null default false
);

create table sample_record (
    sample   bigint not null references sample on delete cascade,
    position int not null,
    record   bigint not null references record,
    primary key (sample, position)
);

create table key_study (
    id      bigint generated always as identity primary key,
    review  bigint not null references review on delete cascade,
    record  bigint not null references record,
    deleted boolean not null default false
);

-- What was decided about candidates. Open ones have no row; kept ones stand in a block.
create table decision (
    review bigint not null references review on delete cascade,
    facet  text not null,
    item   text not null,
    state  text not null check (state in ('parked', 'dropped')),
    reason text not null,
    made   timestamptz not null default now(),
    primary key (review, facet, item)
);

-- Each change with what held before and after it, so that it can be undone and made again.
create table change (
    review bigint not null references review on delete cascade,
    number int not null,
    what   jsonb not null,
    before jsonb not null,
    after  jsonb not null,
    undone boolean not null default false,
    made   timestamptz not null default now(),
    primary key (review, number)
);

-- +goose Down

drop table change, decision, key_study, sample_record, sample, notice, import_chunk, import, record, document, review;
