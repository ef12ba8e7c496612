-- +goose Up

-- Everything that changes a review has a number of its own: who knows one can tell whether something was missed.
alter table review add column number bigint not null default 1;

-- Whose a change is: what a browser calls itself (a UUID), so that everybody takes back their own; '' where that is not
-- known, which anybody may.
alter table change add column author text not null default '';

-- Work that somebody asked for is done as theirs.
alter table task add column who text not null default '';
alter table task add column author text not null default '';

-- +goose Down

alter table task drop column author;
alter table task drop column who;
alter table change drop column author;
alter table review drop column number;
