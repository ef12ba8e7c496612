-- +goose Up

-- Who made a revision, as they call themselves; '' where they did not say.
alter table document add column who text not null default '';

-- Who parked or dropped a candidate, and the sample that was looked at then.
alter table decision add column who text not null default '';
alter table decision add column sample bigint;

-- +goose Down

alter table decision drop column sample;
alter table decision drop column who;
alter table document drop column who;
