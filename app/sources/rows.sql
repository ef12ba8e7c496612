-- name: Counts
select distinct on (hash) hash, records, exchange, at, day = current_date as today
    from count
    where source = $1 and hash = any($2)
    order by hash, day desc;

-- name: PutCount
insert into count (source, hash, records, exchange)
    values ($1, $2, $3, $4)
    on conflict (source, hash, day) do update set records = excluded.records,
    exchange = excluded.exchange, at = now();

-- name: ForgetCounts
delete from count
    where source = $1 and hash = any($2) and day = current_date;
