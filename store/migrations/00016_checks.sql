-- +goose Up

-- A version that was handed to a colleague, to be checked before it is run.
create table review_check (
  id bigint generated always as identity primary key,
  review bigint not null references review,
  revision integer not null,
  name text not null, -- of the version, as it was called then
  checker text not null,
  note text not null default '',
  who text not null default '',
  at timestamptz not null default now(),
  done timestamptz,
  gone boolean not null default false
);
create index on review_check (review);

-- What the colleague says to each question; the last that was said counts.
create table check_answer (
  checked bigint not null references review_check,
  question text not null,
  verdict text not null,
  words text not null,
  who text not null default '',
  at timestamptz not null default now(),
  primary key (checked, question)
);

-- What the colleague suggests of a line or of the whole: in words, and as edits that the owner takes or declines.
create table check_suggestion (
  id bigint generated always as identity primary key,
  checked bigint not null references review_check,
  line text not null, -- as it stood
  words text not null,
  edits jsonb,
  says text not null default '', -- what the edits do
  state text not null default 'open',
  who text not null default '',
  at timestamptz not null default now(),
  decided_by text not null default '',
  decided timestamptz
);
create index on check_suggestion (checked);

-- What somebody notes on anything, to be settled.
create table note (
  id bigint generated always as identity primary key,
  review bigint not null references review,
  kind text not null,
  about text not null, -- what it is on, by its id
  name text not null,  -- as it was called then
  words text not null,
  who text not null default '',
  at timestamptz not null default now(),
  settled timestamptz,
  settled_by text not null default '',
  gone boolean not null default false
);
create index on note (review);

-- +goose Down

drop table note;
drop table check_suggestion;
drop table check_answer;
drop table review_check;
