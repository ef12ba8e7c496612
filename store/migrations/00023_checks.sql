-- +goose Up

-- Who finished a check, and that a finished one is withdrawn: it stays to be read.
alter table review_check add done_by text not null default '', add withdrawn timestamptz, add withdrawn_by text not null default '';

-- +goose Down

alter table review_check drop column done_by, drop column withdrawn, drop column withdrawn_by;
