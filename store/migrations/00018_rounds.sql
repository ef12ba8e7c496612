-- +goose Up

-- A round of looking beside the strategy: along references or citing works, through the works of a person, a journal, the most
-- cited. Rows are only added; how far it is changes until it comes to rest.
create table round (
  id bigint generated always as identity primary key,
  review bigint not null references review on delete cascade,
  way text not null check (way in ('backward', 'forward', 'both', 'author', 'journal', 'cited', 'alike')),
  asked jsonb not null,           -- what somebody asked for
  name text not null,             -- what it began from, in words
  sources bigint[] not null,
  after bigint references round,  -- the round whose works it began from
  more integer not null default 0, -- rounds that are to follow it by themselves
  state text not null default 'waiting' check (state in ('waiting', 'going', 'stopping', 'stopped', 'done', 'failed')),
  place jsonb not null default '{}', -- where it is, to be gone on from there
  requests integer not null default 0,
  notes jsonb not null default '[]', -- what could not be had in full
  problem jsonb,
  who text not null default '',
  at timestamptz not null default now(),
  ended timestamptz
);
create index on round (review, id);

-- The works that a round began from, and the records of them that sources hold.
create table round_start (
  round bigint not null references round on delete cascade,
  start bigint not null references record,  -- that it began from
  record bigint not null references record, -- itself, or the same work at a source
  primary key (round, start, record)
);

-- The works that a round brought, and which of those it began from lead there.
create table round_work (
  round bigint not null references round on delete cascade,
  record bigint not null references record,
  source bigint references source,
  leads bigint[] not null default '{}',
  primary key (round, record)
);

-- References that no source holds, or that something resembles.
create table round_lost (
  id bigint generated always as identity primary key,
  round bigint not null references round on delete cascade,
  start bigint not null references record, -- that has the reference
  line text not null,
  near bigint references record,           -- what resembles it
  why text not null check (why in ('none', 'near', 'unasked'))
);
create index on round_lost (round);

-- Where a key study came from: a file, a look-up, judging, a round; and by what name. None is said of those from before.
alter table key_study add column way text not null default '';
alter table key_study add column origin text not null default '';

-- A round is a run of the logbook.
alter table run drop constraint run_kind_check;
alter table run add constraint run_kind_check check (kind in ('asked', 'counted', 'hand', 'round'));

-- +goose Down

delete from run where kind = 'round';
alter table run drop constraint run_kind_check;
alter table run add constraint run_kind_check check (kind in ('asked', 'counted', 'hand'));

alter table key_study drop column origin;
alter table key_study drop column way;
drop table round_lost;
drop table round_work;
drop table round_start;
drop table round;
