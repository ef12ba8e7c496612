-- +goose Up

-- Everything that changes a review has a number of its own: who knows one can tell whether something was missed.
alter table review add column number bigint not null default 1;

-- Whose a change is: what a browser calls itself (a UUID), so that everybody takes back their own; '' where that is not
-- known, which anybody may.
alter table change add column author text not null default '';

-- Work that somebody asked for is done as theirs.
alter table task add column who text not null default '';
alter table task add column author text not null default '';

-- What is looked at is a value, named by what it is; everybody has their own. A review remembers the one that was taken
-- last, which whoever has none begins with.
create table look (
    review bigint not null references review on delete cascade,
    name   text not null,
    body   jsonb not null,
    made   timestamptz not null default now(),
    primary key (review, name)
);
alter table review add column look text;
alter table review drop column view_source, drop column view_sample, drop column view_against, drop column view_rest, drop column view_set, drop column view_revision;

-- +goose Down

alter table review add column view_source bigint, add column view_sample bigint, add column view_against bigint,
    add column view_rest boolean not null default true, add column view_set jsonb, add column view_revision int not null default 0;
alter table review drop column look;
drop table look;

alter table task drop column author;
alter table task drop column who;
alter table change drop column author;
alter table review drop column number;
