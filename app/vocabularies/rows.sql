-- name: Counterparts
select heading, stands
    from counterpart
    where vocabulary = $1 and other = $2
    order by heading;

-- name: ChangeCounterpart select
select pg_advisory_xact_lock(hashtext('counterpart' || $1 || ' ' || $2 || ' ' || $3));

-- name: ChangeCounterpart select counterpart
select stands
    from counterpart
    where vocabulary = $1 and heading = $2 and other = $3;

-- name: ChangeCounterpart delete counterpart
delete from counterpart
    where vocabulary = $1 and heading = $2 and other = $3;

-- name: ChangeCounterpart insert counterpart
insert into counterpart (vocabulary, heading, other, stands)
    values ($1, $2, $3, $4)
    on conflict (vocabulary, heading, other) do update set stands = excluded.stands, saved = now();

-- part: vocabulary
select v.id, v.import, v.name, v.language, v.languages, v.headings, coalesce(i.notices, 0) as notices,
    v.earlier, (select max(l.id) from vocabulary l where l.earlier = v.id and not l.gone) as later,
    v.made
    from vocabulary v
    left join import i on i.id = v.import

-- name: All
-- with: vocabulary
    where not v.gone
    order by lower(v.name), v.id desc;

-- name: One
-- with: vocabulary
    where v.id = $1;

-- name: Thesaurus
select body, packed
    from vocabulary
    where id = $1;

-- name: AddIn
insert into vocabulary (review, import, name, language, languages, headings, body, earlier)
    values ($1, $2, $3, $4, $5, $6, $7,
    (select max(id) from vocabulary where lower(name) = lower($3) and not gone))
    returning id;

-- name: Add
insert into vocabulary (review, import, name, language, languages, headings, body, earlier)
    values ($1, $2, $3, $4, $5, $6, $7,
    (select max(id) from vocabulary where lower(name) = lower($3) and not gone))
    returning id;

-- name: Delete
with used as (select exists (select from review r
    join lateral (select body from document where review = r.id order by revision desc limit 1) d
    on true where not r.deleted and (d.body ->> 'vocabulary')::bigint = $1) as yes),
    gone as (update vocabulary set gone = true where id = $1 and not gone
    and not (select yes from used) returning id)
    select exists (select from vocabulary where id = $1 and not gone), (select yes from used),
    exists (select from gone);
