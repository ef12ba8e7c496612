-- +goose Up

-- Answers to requests that made something, by the request: one that is sent again, because its answer was lost, is answered as
-- before and makes nothing. The row is written with what was made, its answer once there is one.
create table answer (
  request uuid primary key,
  status integer,
  type text not null default '',
  body bytea,
  made timestamptz not null default now()
);

create index answer_made on answer (made);

-- +goose Down

drop table answer;
