-- name: NewAskingIn
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

-- name: TwoRuns
-- with: run
    where id in (select id from ( select r.id,
    row_number() over (partition by r.source order by r.id desc) as n from run r left
    join draw d on d.id = r.draw where r.review = $1 and r.kind = 'asked'
    and (r.records = 0 or d.state = 'done' and d.wanted >= d.total
    and not exists (select from draw_trouble t where t.draw = d.id
    and t.kind not in ('no-record', 'repeated', 'total-moved')))) x where n <= 2)
    order by source, id desc;
