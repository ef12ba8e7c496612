-- name: PutLook insert look
insert into look (review, name, body) select id, $2, $3
    from review
    where id = $1
    on conflict do nothing;

-- name: PutLook update review
update review
    set look = $2
    where id = $1 and look is distinct from $2;

-- name: Look
select l.body
    from look l
    join review r on r.id = l.review
    where r.id = $1 and l.name = coalesce(nullif($2, ''), r.look);

-- name: documentOf
select revision, body, who
    from document
    where review = $1 and ($2 = 0 or revision = $2)
    order by revision desc limit 1;

-- name: AddDocument
insert into document (review, revision, body, who)
    values ($1, $2, $3, $4);
