-- +goose Up

-- A revision of the document that was kept: with a name by somebody, or by itself before a large step (why says which). Nothing
-- is copied, since all revisions are kept.
create table version (
  id bigint generated always as identity primary key,
  review bigint not null references review,
  revision integer not null,
  name text not null default '',
  note text not null default '',
  why text not null default '',
  who text not null default '',
  at timestamptz not null default now(),
  gone boolean not null default false, -- somebody keeps it no more, and can again
  unique (review, revision)
);

-- +goose Down

drop table version;
