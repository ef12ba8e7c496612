-- name: Tellings
select id, review, asking, at, fresh, likely, titles, trouble
    from told
    where review = $1
    order by id desc limit $2;

-- name: Untold
select w.Review, a.id as asking, r.name
    from watch w
    join asking a on a.id = w.last
    join review r on r.id = w.Review
    where not r.deleted and not exists (select from told n where n.asking = a.id)
    and not exists (select from unnest(a.sources) x
    where not exists (select from run where run.asking = a.id and run.source = x))
    and not exists (select from run join draw d on d.id = run.draw where run.asking = a.id
    and d.state in ('waiting', 'drawing'))
    order by a.id limit 20;

-- name: Tell insert told
insert into told (review, asking, at, fresh, likely, titles, trouble)
    values ($1, $2, $3, $4, $5, $6, $7)
    on conflict (asking) do nothing
    returning id;

-- name: Tell update mail
update mail
    set notice = $2
    from mail_to t
    where mail.mail_to = t.id and t.review = $1 and sent is null and given_up is null;

-- name: Tell insert mail
insert into mail (mail_to, notice, next) select t.id, $2,
    greatest($3, coalesce((select max(sent) from mail where mail_to = t.id), '-infinity') + interval
    '1 day')
    from mail_to t
    where t.review = $1 and t.stopped is null and t.trouble = ''
    and not exists (select from mail m where m.mail_to = t.id and m.sent is null and m.given_up is null);

-- name: MailTo
select id, address, secret, who, at, stopped, trouble,
    (select max(sent) from mail where mail_to = t.id) as last, coalesce(m.problem, '') as waits, m.next
    from mail_to t
    left join lateral (select problem, next from mail where mail_to = t.id and sent is null
    and given_up is null and problem <> '' order by id desc limit 1) m on true
    where review = $1
    order by id;

-- name: PutMailTo
insert into mail_to (review, address, secret, who) select $1, $2, $3, $4
    where (select count(*) from mail_to where review = $1 and address <> $2) < $5
    on conflict (review, address) do update set secret = excluded.secret, who = excluded.who,
    at = now(), stopped = null, trouble = '';

-- name: StopMailTo
update mail_to
    set stopped = coalesce(stopped, now())
    where review = $1 and id = $2;

-- name: StopMail
update mail_to
    set stopped = coalesce(stopped, now())
    where secret = $1;

-- name: MailOf
select r.name
    from mail_to t
    join review r on r.id = t.review
    where t.secret = $1;

-- name: Letters
with due as (select m.id from mail m join mail_to t on t.id = m.mail_to join review r on r.id = t.review
    where m.sent is null and m.given_up is null and m.next <= $1 and t.stopped is null
    and t.trouble = '' and not r.deleted order by m.next limit $3 for update of m skip locked),
    taken as (update mail m set next = $2,
    attempts = m.attempts + 1 from due where m.id = due.id returning m.id, m.attempts, m.mail_to,
    m.notice) select k.id, k.attempts, t.address, t.secret, t.review, r.name, t.id as mail_to, n.at,
    n.fresh, n.likely, n.titles
    from taken k
    join mail_to t on t.id = k.mail_to
    join review r on r.id = t.review
    join told n on n.id = k.notice;

-- name: Sent
update mail
    set sent = $2, problem = ''
    where id = $1;

-- name: NotSent update mail
update mail
    set problem = $2, next = coalesce($3, next),
    given_up = case when $3::timestamptz is null then $4::timestamptz end
    where id = $1;

-- name: NotSent update mail_to
update mail_to
    set trouble = $2
    where id = $1;

-- name: Feed
select f.review, f.secret, f.who, f.at
    from feed f
    join review r on r.id = f.review and not r.deleted
    where f.review = $1;

-- name: FeedAt
select f.review, f.secret, f.who, f.at
    from feed f
    join review r on r.id = f.review and not r.deleted
    where f.secret = $1;

-- name: PutFeed delete feed
delete from feed
    where review = $1;

-- name: PutFeed insert feed
insert into feed (review, secret, who)
    values ($1, $2, $3)
    on conflict (review) do update set secret = excluded.secret, who = excluded.who, at = now();
