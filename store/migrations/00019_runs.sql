-- +goose Up

-- Runs are only ever added. One that was written down by hand is corrected by another that says so; void is one that says that the
-- other was never made. The records that were found by hand are those of a sample, where a file of them was brought in.
alter table run add column corrects bigint unique references run;
alter table run add column void boolean not null default false;
alter table run add column sample bigint references sample;

-- A draw that becomes a sample is a run too.
alter table run drop constraint run_kind_check;
alter table run add constraint run_kind_check check (kind in ('asked', 'counted', 'hand', 'round', 'draw'));

-- +goose Down

delete from run where kind = 'draw';
alter table run drop constraint run_kind_check;
alter table run add constraint run_kind_check check (kind in ('asked', 'counted', 'hand', 'round'));

delete from run where void;
alter table run drop column sample;
alter table run drop column void;
alter table run drop column corrects;
