-- name: newRound insert round
insert into round (review, way, asked, name, sources, after, more, state, who, notes, ended)
    values ($1, $2, $3, $4, $5, $6, $7, $8, $9, coalesce($10::jsonb, '[]'),
    case when $8 = 'done' then now() end)
    returning id;

-- name: newRound insert round_start
insert into round_start (round, start, record) select $1, x, x
    from unnest($2::bigint[]) x
    on conflict do nothing;

-- name: Rounds
select id, review, way, asked, name, sources, after, more, state, place, requests, notes, problem, who,
    at, ended
    from round
    where review = $1
    order by id;

-- name: Round
select id, review, way, asked, name, sources, after, more, state, place, requests, notes, problem, who,
    at, ended
    from round
    where id = $1;

-- name: RoundStarts
select start, record
    from round_start
    where round = $1
    order by start, record;

-- name: RoundWorks
select w.round, w.record, w.source, w.leads, w.likeness
    from round_work w
    join round r on r.id = w.round
    where r.review = $1
    order by w.round desc, w.record limit $2;

-- name: RoundForms
select distinct f.record
    from round_start f
    join round r on r.id = f.round
    where r.review = $1 and f.record <> f.start
    order by 1;

-- name: WorksOfRound
select round, record, source, leads, likeness
    from round_work
    where round = $1
    order by record;

-- name: RoundLosts
select round, start, line, near, why
    from round_lost
    where round = $1
    order by id limit $2;

-- name: RoundsBrought
select r.id as round, (select count(*) from round_work w where w.round = r.id)::int as works,
    (select count(*) from round_lost l where l.round = r.id)::int as lost
    from round r
    where r.review = $1;

-- name: PutRoundStep update round
update round
    set place = $2, requests = requests + $3, notes = $4,
    state = case when state = 'waiting' then 'going' else state end
    where id = $1 and state in ('waiting', 'going', 'stopping');

-- name: PutRoundStep insert round_start
insert into round_start (round, start, record)
    values ($1, $2, $3)
    on conflict do nothing;

-- name: PutRoundStep insert round_lost
insert into round_lost (round, start, line, near, why) select $1, $2, $3, $4, $5
    where not exists (select from round_lost where round = $1 and start = $2 and line = $3);

-- name: putRoundWorks
insert into round_work (round, record, source, leads, likeness)
    values ($1, $2, $3, $4, $5)
    on conflict (round, record) do update set leads
    = (select coalesce(array_agg(distinct x order by x), '{}')
    from unnest(round_work.leads || excluded.leads) x);

-- name: RestRound
update round
    set state = $2, problem = $3, ended = now()
    where id = $1 and state in ('waiting', 'going', 'stopping');

-- name: EndRound
update round
    set state = 'done', ended = now()
    where id = $1 and state in ('waiting', 'going', 'stopping');

-- name: ResumeRound
update round
    set state = 'waiting', problem = null, ended = null
    where id = $1 and state in ('stopped', 'failed');
