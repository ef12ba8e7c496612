-- +goose Up

alter table import drop constraint import_kind_check;
alter table import add constraint import_kind_check check (kind in ('sample', 'keys', 'vocabulary'));

-- A controlled vocabulary that was brought in. Which one a review goes by is said in its document.
create table vocabulary (
    id       bigint generated always as identity primary key,
    review   bigint not null references review on delete cascade,
    import   bigint not null references import,
    name     text not null,
    language text not null,
    headings int not null,
    body     bytea not null, -- its concepts as JSON, compressed
    made     timestamptz not null default now()
);

-- +goose Down

drop table vocabulary;
