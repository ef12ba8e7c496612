-- +goose Up

-- A block that is kept apart from its review, to be taken into others: it belongs to the program. Kept again under its name it is the
-- next version; those before stay, since copies speak of them.
create table kept_block (
  name text not null,
  version integer not null,
  body jsonb not null,
  note text not null default '',
  tested text not null,
  review text not null,
  who text not null default '',
  at timestamptz not null default now(),
  gone boolean not null default false, -- it is not offered any more; copies still say where they come from
  primary key (name, version)
);

-- +goose Down

drop table kept_block;
