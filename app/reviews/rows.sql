-- part: review
select id, name, touched, deleted,
    (select count(*) from sample s where s.review = r.id and not s.deleted
    and not s.hidden)::int as samples,
    (select count(*) from key_study k where k.review = r.id and not k.deleted)::int as key_studies
    from review r

-- name: Heads
-- with: review
    where not deleted
    order by touched desc, id desc;

-- name: Head
-- with: review
    where id = $1;

-- name: New
insert into review (name)
    values ($1)
    returning id;

-- name: Patch
update review
    set name = coalesce($2, name), deleted = coalesce($3, deleted), touched = now()
    where id = $1;

-- name: Decisions
select facet, item, state, reason, made as at, who, sample
    from decision
    where review = $1
    order by facet, item;

-- name: decisionIn
select facet, item, state, reason, made as at, who, sample
    from decision
    where review = $1 and facet = $2 and item = $3;

-- name: apply delete decision
delete from decision
    where review = $1 and facet = $2 and item = $3;

-- name: apply insert decision
insert into decision (review, facet, item, state, reason, made, who, sample)
    values ($1, $2, $3, $4, $5, coalesce($6, now()), $7, $8)
    on conflict (review, facet, item) do update set state = excluded.state, reason = excluded.reason,
    made = excluded.made, who = excluded.who, sample = excluded.sample;

-- name: nextNumber
update review
    set number = number + 1
    where id = $1
    returning number;

-- name: logChange delete change
delete from change
    where review = $1 and undone and author = $2;

-- name: logChange insert change
insert into change (review, number, author, what, before, after) select $1,
    coalesce(max(number), 0) + 1, $2, $3, $4, $5
    from change
    where review = $1;

-- name: lastChange done
select number, what, before, after
    from change
    where review = $1 and author = $2 and not undone
    order by number desc limit 1;

-- name: lastChange undone
select number, what, before, after
    from change
    where review = $1 and author = $2 and undone
    order by number limit 1;

-- name: markUndone
update change
    set undone = $3
    where review = $1 and number = $2;

-- name: Steps
select (select what from change where review = $1 and author = $2 and not undone
    order by number desc limit 1),
    (select what from change where review = $1 and author = $2 and undone order by number limit 1);

-- name: Number
select number
    from review
    where id = $1;

-- name: ForgetChanges
delete from change
    where review = $1;

-- name: Versions
select *
    from (select id, revision, name, note, why, who, at from version where review = $1 and not gone
    order by revision desc limit $2) x
    order by revision;

-- name: VersionIn
select id, revision, name, note, why, who, at
    from version
    where review = $1 and not gone and id = $2;

-- name: keepVersion
insert into version (review, revision, name, note, why, who)
    values ($1, $2, $3, $4, $5, $6)
    on conflict (review, revision) do update set name = excluded.name, note = excluded.note,
    why = excluded.why, who = excluded.who, gone = false
    where excluded.why = '' or version.gone;

-- name: nameVersion
update version
    set name = $3, note = $4
    where review = $1 and id = $2;

-- name: forgetVersion
update version
    set gone = $3
    where review = $1 and id = $2 and gone <> $3;
