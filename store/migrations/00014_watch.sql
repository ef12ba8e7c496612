-- +goose Up

-- A search that is run again by itself: at which sources, how often, and when next. There is one for a review.
create table watch (
  review bigint primary key references review,
  sources bigint[] not null,
  every text not null check (every in ('week', 'month', 'once')),
  records integer not null,
  next timestamptz,              -- none once it is done, or while it rests
  missed integer not null default 0, -- times that passed while no program ran, of which one was made up for
  who text not null default '',
  last bigint references asking
);

-- What a person said of a record that was new: it is not told of again.
create table dismissed (
  review bigint not null references review,
  record bigint not null references record,
  who text not null default '',
  at timestamptz not null default now(),
  primary key (review, record)
);

-- +goose Down

drop table dismissed;
drop table watch;
