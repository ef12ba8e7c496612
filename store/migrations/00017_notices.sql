-- +goose Up

-- What a search brought that ran again by itself: told once for each order.
create table told (
  id bigint generated always as identity primary key,
  review bigint not null references review,
  asking bigint not null unique references asking,
  at timestamptz not null default now(),
  fresh integer not null,  -- works that are new
  likely integer not null, -- of them
  titles jsonb not null,   -- the likeliest first
  trouble text not null default '' -- why it is not known what is new
);
create index on told (review);

-- Whom it is told by mail. The secret stands in the link that stops it.
create table mail_to (
  id bigint generated always as identity primary key,
  review bigint not null references review,
  address text not null,
  secret text not null unique,
  who text not null default '',
  at timestamptz not null default now(),
  stopped timestamptz,
  trouble text not null default '', -- why nothing is sent there any more
  unique (review, address)
);

-- Mails that are to go, and those that went: one a day at most to an address.
create table mail (
  id bigint generated always as identity primary key,
  mail_to bigint not null references mail_to,
  notice bigint not null references told,
  next timestamptz not null,
  attempts integer not null default 0,
  sent timestamptz,
  given_up timestamptz,
  problem text not null default ''
);
create index on mail (next) where sent is null and given_up is null;

-- The secret address at which what is told can be read by other programs.
create table feed (
  review bigint primary key references review,
  secret text not null unique,
  who text not null default '',
  at timestamptz not null default now()
);

-- +goose Down

drop table feed;
drop table mail;
drop table mail_to;
drop table told;
