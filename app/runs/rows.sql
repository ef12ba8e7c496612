-- name: Watch
select review, sources, every, records, next, missed, who, last
    from watch
    where review = $1;

-- name: PutWatch
insert into watch (review, sources, every, records, next, who)
    values ($1, $2, $3, $4, $5, $6)
    on conflict (review) do update set sources = excluded.sources, every = excluded.every,
    records = excluded.records, next = excluded.next, missed = 0, who = excluded.who;

-- name: DropWatch
delete from watch
    where review = $1;

-- name: DueWatches select watch
select review, sources, every, records, next, missed, who, last
    from watch w
    where next <= $1 and exists (select from review r where r.id = w.Review and not r.deleted)
    order by next limit 20 for update skip locked;

-- name: DueWatches update watch
update watch
    set next = $2, missed = $3, last = $4
    where review = $1;

-- name: Dismiss delete dismissed
delete from dismissed
    where review = $1 and record = any($2);

-- name: Dismiss insert dismissed
insert into dismissed (review, record, who) select $1, x, $3
    from unnest($2::bigint[]) x
    where exists (select from record where id = x)
    on conflict do nothing;

-- name: Dismissed
select record
    from dismissed
    where review = $1;
