-- part: draw
select id, review, source, name, concepts, how, at_most, seed, query, notes, plan, parts, state, total,
    wanted, got, pause, problem, sample, made, apart,
    (select count(*) from draw_trouble t where t.draw = d.id)::int as troubles,
    (select coalesce(sum(last - first + 1), 0) from draw_trouble t where t.draw = d.id
    and kind not in ('no-record', 'repeated', 'total-moved'))::int as missing,
    exists (select from draw_trouble t where t.draw = d.id and t.kind = 'total-moved') as moved,
    coalesce((select waits from task where name = 'draw ' || d.id), '') as waits
    from draw d

-- name: Draw
-- with: draw
    where id = $1;

-- name: Draws
-- with: draw
    where review = $1 and not (apart and sample is null)
    and (sample is null and state <> 'done' and (state <> 'failed' or made > now() - interval '1 day')
    or exists (select from sample x where x.id = d.sample and not x.deleted))
    order by id desc;

-- name: NewDrawIn
insert into draw (review, source, name, concepts, how, at_most, seed, query, notes, apart, parts, state)
    values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, coalesce($11::jsonb, '[]'), 'waiting')
    returning id;

-- name: GoOn
update draw
    set plan = case when at_most = $2 then plan end, at_most = $2, state = 'waiting', problem = ''
    where id = $1 and state in ('stopped', 'done', 'failed');

-- name: StopDraw
update draw
    set state = 'stopping'
    where id = $1 and state in ('waiting', 'drawing');

-- name: BeginDraw delete draw_trouble
delete from draw_trouble
    where draw = $1 and kind not in ('no-record', 'repeated', 'total-moved');

-- name: BeginDraw update draw
update draw
    set plan = $2, total = $3, wanted = $4, parts = coalesce($5::jsonb, parts),
    state = case when state = 'waiting' then 'drawing' else state end
    where id = $1;

-- name: PauseDraw
update draw
    set pause = $2
    where id = $1;

-- name: Drawn
select part, position
    from draw_position
    where draw = $1;

-- name: DrawnIdentities
select p.part / $2, r.body
    from draw_position p
    join record r on r.id = p.record
    where p.draw = $1;

-- name: Origins
select s.id as sample, s.name, s.records, s.import, s.joined, s.draw, d.source,
    coalesce(d.how, '') as how, coalesce(d.concepts, '[]') as concepts,
    coalesce(d.parts, '[]') as parts, coalesce(d.apart, false) as apart
    from sample s
    left join draw d on d.id = s.draw
    where s.review = $1 and not s.deleted and not s.hidden
    order by s.id desc;

-- name: PartIDs
select distinct part / $2, record
    from draw_position
    where draw = $1 and record is not null;

-- name: KeepDrawn select draw
select state
    from draw
    where id = $1 for update;

-- name: KeepDrawn with new
with new as (insert into draw_position (draw, part, position, record) select $1, $2, p,
    r from unnest($3::int[], $4::bigint[]) as u(p, r) on conflict do nothing returning 1) update draw
    set got = got + (select count(*) from new), pause = null
    where id = $1;

-- name: KeepDrawn insert draw_position
insert into draw_position (draw, part, position) select $1, $2, p
    from unnest($3::int[]) as u(p)
    on conflict do nothing;

-- name: KeepDrawn insert draw_trouble
insert into draw_trouble (draw, part, first, last, kind, detail)
    values ($1, $2, $3, $4, $5, $6);

-- name: Troubles
select part, first, last, kind, detail
    from draw_trouble
    where draw = $1
    order by id limit $2;

-- name: FillDrawn select draw_position
select count(*)
    from draw_position
    where draw = $1 and record is not null;

-- name: FillDrawn select sample
select id
    from sample
    where draw = $1
    order by hidden limit 1;

-- name: FillDrawn insert sample
insert into sample (review, draw, name, file_name, records, years, hidden)
    values ($1, $2, $3, '', 0, '[]', true)
    returning id;

-- name: FillDrawn insert sample_record
insert into sample_record (sample, position, record) select $1,
    (select coalesce(max(position) + 1, 0) from sample_record where sample = $1) + row_number() over
    (order by part / $3, part desc, position) - 1, record
    from (select distinct on (record) part, position, record from draw_position where draw = $2
    and record is not null order by record, part / $3, part desc, position) p
    where not exists (select from sample_record s where s.sample = $1 and s.record = p.record);

-- name: EndDraw
update draw
    set state = $2, problem = $3, pause = null, sample = coalesce($4, sample)
    where id = $1;

-- name: RestDraw
update draw
    set state = $2, problem = $3, pause = null
    where id = $1;

-- name: show
update sample
    set hidden = false
    where id = $1 and hidden;

-- name: recount
update sample
    set records = (select count(*) from sample_record where sample = $1),
    years = (select coalesce(jsonb_agg(jsonb_build_object('year', year, 'records', n) order by year),
    '[]') from (select r.year, count(*) as n from sample_record s join record r on r.id = s.record
    where s.sample = $1 group by r.year) y)
    where id = $1;

-- name: FillJoined
insert into sample (review, name, file_name, records, years, joined, hidden)
    values ($1, $2, '', 0, '[]', $3, true)
    returning id;

-- part: sample
select s.id, s.import, s.draw, s.joined, s.name, s.file_name, s.records,
    coalesce(i.skipped, 0) as skipped, coalesce(i.notices, 0) as notices, s.drawn, s.years
    from sample s
    left join import i on i.id = s.import

-- name: SameFile
-- with: sample
    where not s.deleted and not s.hidden and s.review = $1 and i.hash = $2
    order by s.id limit 1;

-- name: Judge delete judgement
delete from judgement
    where review = $1 and record = $2;

-- name: Judge insert judgement
insert into judgement (review, record, verdict, who) select v.id, r.id, $3, $4
    from review v, record r
    where v.id = $1 and r.id = $2
    on conflict (review, record) do update set verdict = excluded.verdict, who = excluded.who,
    made = now();

-- name: Judgements
select record, verdict, who, made
    from judgement
    where review = $1
    order by record;

-- name: Samples
-- with: sample
    where not s.deleted and not s.hidden and s.review = $1
    order by s.id desc;

-- name: SampleRecords
select r.id, r.body
    from (select record, min(array_position($1, sample)) as s,
    min(position) as p from sample_record where sample = any($1) group by record) x
    join record r on r.id = x.record
    order by x.s, x.p;

-- name: SampleBytes
select coalesce(sum(n.records * m.mean), 0)::bigint
    from unnest($1::bigint[]) as u(id)
    cross join lateral (select count(*) as records from sample_record where sample = u.id) n
    cross join lateral (select coalesce(avg(octet_length(r.body::text)), 0) as mean
    from (select record from sample_record where sample = u.id limit 300) x
    join record r on r.id = x.record) m;

-- name: SampleIDs
select record
    from (select record, min(array_position($1, sample)) as s,
    min(position) as p from sample_record where sample = any($1) group by record) x
    order by s, p;

-- name: RecordsByID
select r.id, r.body
    from unnest($1::bigint[]) with ordinality as u(id, n)
    join record r on r.id = u.id
    order by u.n;

-- name: oneRecord
select id, body
    from record
    where id = $1;

-- name: readKeys
select k.id, r.id, r.body
    from key_study k
    join record r on r.id = k.record
    where k.review = $1 and not k.deleted
    order by k.id;

-- name: PutIn insert record
insert into record (source, hash, doi, work, year, body) select distinct on (h) $1, h, d, w, y, b
    from unnest($2::bytea[], $3::bytea[], $4::bytea[], $5::int[], $6::bytea[]) as u(h, d, w, y, b)
    order by h
    on conflict (source, hash) do nothing;

-- name: PutIn select unnest($2::bytea[]
select r.id
    from unnest($2::bytea[]) with ordinality as u(h, n)
    join record r on r.source = $1 and r.hash = u.h
    order by u.n;

-- name: KeyOrigins
select id, way, origin
    from key_study
    where review = $1 and not deleted
    order by id;

-- name: DrawnWorks
select r.body
    from draw_position p
    join record r on r.id = p.record
    where p.draw = $1
    order by p.part desc, p.position;

-- name: SampleWorks
select r.body
    from sample_record p
    join record r on r.id = p.record
    where p.sample = $1
    order by p.position;

-- name: DrawnIDs
select record
    from draw_position
    where draw = $1 and record is not null
    order by part desc, position;

-- name: DrawsByID
-- with: draw
    where id = any($1);

-- name: HasIn
select exists (select from record where id = $1);

-- name: ShelvedIDs
select record
    from shelved
    where review = $1
    order by made, record;

-- name: Shelf
select r.id, r.body, s.note, s.tags, s.made
    from shelved s
    join record r on r.id = s.record
    where s.review = $1
    order by s.made desc, s.record desc;

-- name: Sources
select id, name, address, version, map, described, vocabulary, off, made
    from source
    where not deleted
    order by id;

-- name: Source
select id, name, address, version, map, described, vocabulary, off, made
    from source
    where not deleted and id = $1;

-- name: PutSource insert source
insert into source (name, address, version, map, described, vocabulary, off)
    values ($1, $2, $3, $4, $5, $6, $7)
    returning id;

-- name: PutSource update source
update source
    set name = $2, address = $3, version = $4, map = $5, described = $6, vocabulary = $7, off = $8
    where id = $1 and not deleted;

-- name: DeleteSource
update source
    set deleted = true
    where id = $1 and not deleted;

-- name: Holdings
select h.key_study, h.source, h.state, h.how, h.record, h.at, h.headings, h.changed
    from holding h
    join key_study k on k.id = h.key_study
    join source s on s.id = h.source
    where k.review = $1 and not k.deleted and not s.deleted
    order by h.key_study, h.source;

-- name: KeyRecords
select h.key_study, h.source, h.body, case when $2 = 0 then null else h.was end as was
    from holding h
    join key_study k on k.id = h.key_study
    join source s on s.id = h.source
    where k.review = $1 and ($2 = 0 or k.id = $2) and not k.deleted and not s.deleted
    and h.state = 'held' and h.body is not null
    order by h.key_study, h.source;

-- name: PutHolding
insert into holding (key_study, source, state, how, record, body, headings)
    values ($1, $2, $3, $4, $5, $6, $7)
    on conflict (key_study, source) do update set state = excluded.state, how = excluded.how,
    record = excluded.record, at = now(), body = excluded.body, headings = excluded.headings,
    was = case when holding.body is distinct from excluded.body
    and holding.body is not null then holding.body else holding.was end,
    changed = case when holding.body is distinct from excluded.body
    and holding.body is not null then now() else holding.changed end
    where excluded.state <> 'unknown' or holding.state = 'unknown';

-- name: SettleHolding
update holding
    set state = $3, how = 'settled', at = now()
    where key_study = $1 and source = $2;

-- name: AddKeys
insert into key_study (review, record, way, origin) select $1, x, $3, $4
    from unnest($2::bigint[]) with ordinality as u(x, n)
    where exists (select from record where id = x)
    order by n
    returning id;

-- name: SampleStateIn
select id, name, deleted
    from sample
    where review = $1 and id = $2 and not hidden;

-- name: SetSample
update sample
    set name = $3, deleted = $4
    where review = $1 and id = $2;

-- name: KeyStateIn
select id, deleted
    from key_study
    where review = $1 and id = $2;

-- name: SetKey
update key_study
    set deleted = $3
    where review = $1 and id = $2;

-- name: ShelvedIn
select record, true as on, note, tags
    from shelved
    where review = $1 and record = $2;

-- name: ShelfSize
select count(*)
    from shelved
    where review = $1;

-- name: Shelve insert
insert into shelved (review, record, note, tags)
    values ($1, $2, $3, $4)
    on conflict (review, record) do update set note = excluded.note, tags = excluded.tags;

-- name: Shelve delete
delete from shelved
    where review = $1 and record = $2;

-- name: SweepHidden
delete from sample
    where id in (select s.id from sample s where s.hidden and s.drawn < now() - $1::interval
    and not exists (select from task t where t.asked > t.done
    and (t.kind = 'import' and t.number = s.import or t.kind = 'draw' and t.number = s.draw)) limit 5);

-- name: DropHidden
delete from sample
    where import = $1 and hidden;

-- name: BeginSample
insert into sample (review, import, name, file_name, records, years, hidden)
    values ($1, $2, $3, $4, 0, '[]', true)
    returning id;

-- name: ShowFiled
update sample
    set records = $2, years = $3, hidden = false, drawn = now()
    where id = $1;
