-- part: import
select id, review, kind, name, state, bytes, bytes_read, hash, records, skipped, notices, sample,
    problem, made, format, settings, asked,
    coalesce((select waits from task where name = 'import ' || import.id), '') as waits
    from import

-- name: Import
-- with: import
    where id = $1;

-- name: Open
-- with: import
    where review = $1 and (state in ('waiting', 'reading', 'asking') or state = 'failed'
    and made > now() - interval '1 hour')
    order by id;

-- name: Receive insert import
insert into import (review, kind, name, state)
    values ($1, $2, $3, 'receiving')
    returning id;

-- name: Receive with x
with x as (update import set touched = now(), bytes = $4 where id = $1 returning id)
    insert into import_chunk (import, n, data) select id, $2, $3
    from x;

-- name: Received
update import
    set state = 'waiting', bytes = $2, hash = $3, touched = now()
    where id = $1 and state = 'receiving';

-- name: SweepImports delete import
delete from import
    where id in (select id from import where state = 'receiving'
    and touched < now() - $1::interval limit 10);

-- name: SweepImports delete import_chunk
delete from import_chunk
    where import in (select i.id from import i where i.state in ('done', 'failed')
    and exists (select from import_chunk c where c.import = i.id) limit 5);

-- name: DropFile
delete from import_chunk
    where import = $1;

-- name: Read
select data
    from import_chunk
    where import = $1 and n = $2;

-- name: ImportProgress
update import
    set state = 'reading', bytes_read = $2, records = $3, skipped = $4
    where id = $1;

-- name: FailImport
update import
    set state = 'failed', problem = $2, hash = null
    where id = $1;

-- name: dropFiled
delete from notice
    where import = $1;

-- name: AskImport
update import
    set state = 'asking', format = $2, asked = $3, bytes_read = 0, records = 0, skipped = 0
    where id = $1;

-- name: DropImport select
select id
    from import
    where id = $1 and state <> 'done'
    for update;

-- name: DropImport delete
delete from import
    where id = $1;

-- name: AnswerImport
update import
    set state = 'waiting', settings = $2, asked = null, kind = $3
    where id = $1 and state = 'asking';

-- name: KeepReading
insert into reading (kind, key, body)
    values ($1, $2, $3)
    on conflict (kind, key) do update set body = excluded.body, made = now();

-- name: Reading
select id, key, body
    from reading
    where kind = $1 and key = $2;

-- name: Readings
select id, key, body
    from reading
    where kind = $1
    order by key;

-- name: DropReading
delete from reading
    where id = $1;

-- name: Show
update import
    set state = 'done', bytes_read = bytes, records = $2, skipped = $3, notices = $4, sample = $5,
    format = $6
    where id = $1;

-- name: Notices
select line, record, kind, detail, skipped
    from notice
    where import = $1
    order by n;
