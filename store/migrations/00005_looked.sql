-- +goose Up

-- Which records are looked at in the place of the sample, and by which revision of the document.
alter table review add column view_set jsonb, add column view_revision int not null default 0;

-- +goose Down

alter table review drop column view_set, drop column view_revision;
