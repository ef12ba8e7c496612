-- +goose Up

-- A vocabulary belongs to the program: it outlives the review that brought it in.
alter table vocabulary alter column review drop not null;
alter table vocabulary alter column import drop not null;
alter table vocabulary drop constraint vocabulary_review_fkey;
alter table vocabulary drop constraint vocabulary_import_fkey;
alter table vocabulary add constraint vocabulary_review_fkey foreign key (review) references review on delete set null;
alter table vocabulary add constraint vocabulary_import_fkey foreign key (import) references import on delete set null;
-- What it is an edition of: the one of its name that was there before.
alter table vocabulary add column earlier bigint references vocabulary;
alter table vocabulary add column languages text[] not null default '{}';
alter table vocabulary add column gone boolean not null default false;
-- How its body is kept: as concepts in JSON, or packed. Both are compressed.
alter table vocabulary add column packed boolean not null default false;
alter table vocabulary alter column packed set default true;

-- +goose Down

delete from vocabulary where packed or review is null or import is null;
alter table vocabulary drop column packed, drop column gone, drop column languages, drop column earlier;
