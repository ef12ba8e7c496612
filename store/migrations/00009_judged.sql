-- +goose Up

-- What a person said of a record after reading it: whether it is relevant to the review.
create table judgement (
    review  bigint not null references review on delete cascade,
    record  bigint not null references record on delete cascade,
    verdict text not null check (verdict in ('relevant', 'not', 'unsure')),
    who     text not null default '',
    made    timestamptz not null default now(),
    primary key (review, record)
);

-- +goose Down

drop table judgement;
