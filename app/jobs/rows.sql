-- name: AskIn
insert into task (name, kind, number, review, source, who, author)
    values ($1, $2, $3, $4, $5, $6, $7)
    on conflict (name) do update set asked = task.asked + 1, stop = false, source = excluded.source,
    who = excluded.who, author = excluded.author
    returning name, kind, number, review, source, who, author, asked, takes, waits, problem, ended,
    asked > done as wanted, asked - 1 = done as fresh;

-- name: Task
select name, kind, number, review, source, who, author, asked, takes, waits, problem, ended,
    asked > done as wanted, asked - 1 = done as fresh
    from task
    where name = $1;

-- name: Claim select
select pg_advisory_xact_lock($1, hashtext(split_part($2, ' ', 1)));

-- name: Claim select task
select name, kind, number, review, source, who, author, asked, takes, waits, problem, ended,
    asked > done as wanted, asked - 1 = done as fresh
    from task
    where name = $1 and asked > done and (holder is null or beat < now() - $2::interval) for update;

-- name: Claim select task 2
select count(*) filter (where source = $3), count(*) filter (where review = $4)
    from task
    where kind = $1 and name <> $2 and holder is not null and beat >= now() - $5::interval
    and asked > done;

-- name: Claim update task
update task
    set waits = $2, beat = now()
    where name = $1;

-- name: Claim update task 2
update task
    set holder = $2, beat = now(), waits = ''
    where name = $1;

-- name: Beat
update task
    set beat = now()
    where name = $1 and holder = $2
    returning stop;

-- name: End
update task
    set done = greatest(done, $3), holder = null, waits = '', stop = false, problem = $4, ended = now()
    where name = $1 and holder = $2
    returning asked > $3;

-- name: Leave
update task
    set holder = null
    where name = $1 and holder = $2;

-- name: Stop
update task
    set stop = true
    where name = $1 and asked > done and holder is not null and beat >= now() - $2::interval;

-- name: Orphans
update task
    set holder = null, beat = now(), takes = takes + 1
    where asked > done and (holder is not null and beat < now() - $1::interval or holder is null
    and beat < now() - $2::interval
    and not exists ( select from river_job j where j.kind = 'task'
    and j.args @> jsonb_build_object('name', task.name)
    and (j.state = 'available' or j.state in ('scheduled', 'retryable', 'pending')
    and j.scheduled_at > now() - $2::interval)))
    returning name, kind, number, review, source, who, author, asked, takes, waits, problem, ended,
    asked > done as wanted, asked - 1 = done as fresh;

-- name: HeldBy
select 1
    from task
    where name = $1 and holder = $2
    for key share;

-- name: DropIn
update task
    set done = asked, holder = null
    where name = $1;
