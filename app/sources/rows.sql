-- name: newAsking
insert into asking (review, revision, sources, records, who)
    values ($1, case when $2 > 0 then $2
    else (select max(revision) from document where review = $1) end, $3, $4, $5)
    returning id;

-- name: Asking
select id, review, revision, sources, records, who, at
    from asking
    where id = $1;

-- name: LastAsking
select id, review, revision, sources, records, who, at
    from asking
    where review = $1
    order by id desc limit 1;

-- part: run
select id, review, kind, way, asking, revision, source, place, query, records, exchange, notes, problem,
    draw, note, who, at, corrects, void, sample,
    (select c.id from run c where c.corrects = run.id) as corrected_by
    from run

-- name: Runs
-- with: run
    where review = $1 and ($2::bigint = 0 or id < $2::bigint) and ($3 or kind <> 'counted')
    order by id desc limit $4;

-- name: CountedInPassing
select count(*)
    from run
    where review = $1 and kind = 'counted';

-- name: LastRuns
select distinct on (source) *
    from (select id, review, kind, way, asking, revision, source, place, query, records, exchange,
    notes, problem, draw, note, who, at, corrects, void, sample,
    (select c.id from run c where c.corrects = run.id) as corrected_by from run where review = $1
    and kind = 'asked') x
    order by source, id desc;

-- name: Counted
select distinct on (revision, source) *
    from (select id, review, kind, way, asking, revision, source, place, query, records, exchange,
    notes, problem, draw, note, who, at, corrects, void, sample,
    (select c.id from run c where c.corrects = run.id) as corrected_by from run where review = $1
    and source is not null and records is not null
    and (kind = 'asked' or kind = 'counted' and revision = any($3))) x
    order by revision desc, source, id desc limit $2;

-- name: HandRuns
-- with: run
    where review = $1 and kind = 'hand' and not void
    and not exists (select from run c where c.corrects = run.id)
    order by at, id;

-- name: RunsOf
-- with: run
    where asking = $1
    order by id;

-- name: PutRun select asking
select
    from asking
    where id = $1 for update;

-- name: PutRun select run
select exists (select from run where asking = $1 and source = $2) as there;

-- name: PutRun select run 2
select exists (select from run c where c.corrects = run.id) as done
    from run
    where id = $1 and review = $2 and kind = 'hand' and not void for update;

-- name: AddRun
insert into run (review, kind, way, asking, revision, source, place, query, records, exchange, notes,
    problem, draw, note, who, at, corrects, void, sample, lines)
    values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19, $20);

-- name: Run
-- with: run
    where id = $1;

-- name: LinesOfRun
select lines
    from run
    where id = $1;

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

-- name: TwoRuns
-- with: run
    where id in (select id from ( select r.id,
    row_number() over (partition by r.source order by r.id desc) as n from run r left
    join draw d on d.id = r.draw where r.review = $1 and r.kind = 'asked'
    and (r.records = 0 or d.state = 'done' and d.wanted >= d.total
    and not exists (select from draw_trouble t where t.draw = d.id
    and t.kind not in ('no-record', 'repeated', 'total-moved')))) x where n <= 2)
    order by source, id desc;
