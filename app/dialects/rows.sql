-- name: Dialects
select name, body
    from dialect
    order by name;

-- name: PutDialect
insert into dialect (name, body)
    values ($1, $2)
    on conflict (name) do update set body = excluded.body, saved = now();

-- name: DeleteDialect
delete from dialect
    where name = $1;
