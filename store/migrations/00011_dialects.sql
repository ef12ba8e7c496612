-- +goose Up

-- A dialect that somebody wrote: it belongs to the program, and is its own file.
create table dialect (
  name text primary key,
  body text not null,
  saved timestamptz not null default now()
);

-- Which heading of one vocabulary stands for one of another, as somebody took it: '' where nothing does. Vocabularies by
-- their names, so that it outlives editions and serves the next review.
create table counterpart (
  vocabulary text not null,
  heading text not null,
  other text not null,
  stands text not null,
  saved timestamptz not null default now(),
  primary key (vocabulary, heading, other)
);

-- +goose Down

drop table counterpart;
drop table dialect;
