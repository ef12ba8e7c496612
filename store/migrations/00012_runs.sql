-- +goose Up

-- Somebody asked for the whole strategy to be run: at which sources, by which revision of the document, and how many records of
-- each were to be drawn at most (0 for none).
create table asking (
  id bigint generated always as identity primary key,
  review bigint not null references review,
  revision integer not null,
  sources bigint[] not null,
  records integer not null,
  who text not null default '',
  at timestamptz not null default now()
);
create index on asking (review, id desc);

-- What came of a strategy at one place: asked for so, counted in passing while somebody worked, or written down by hand. Rows
-- are only ever added. One that was written down by hand is of a place that
-- cannot be asked: it has no source. Why there is no count, where there is none, is the problem.
create table run (
  id bigint generated always as identity primary key,
  review bigint not null references review,
  kind text not null check (kind in ('asked', 'counted', 'hand')),
  way text not null default '', -- of one that was written down: what it was, a search, a register, references …
  asking bigint references asking,
  revision integer not null,
  source bigint references source,
  place text not null,
  query text not null,
  records bigint,
  exchange jsonb,
  notes jsonb not null default '[]',
  problem jsonb,
  draw bigint references draw,
  note text not null default '',
  who text not null default '',
  at timestamptz not null default now(),
  unique (asking, source)
);
create index on run (review, id desc);

-- Records that were fetched for a run do not become a sample by themselves: they would be part of what samples are set against.
alter table draw add column apart boolean not null default false;

-- +goose Down

alter table draw drop column apart;

drop table run;
drop table asking;
