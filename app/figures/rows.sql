-- name: KeptBlocks
select name, version, body, note, tested, review, who, at, gone
    from kept_block
    order by name, version desc limit $1;

-- name: KeepBlock
insert into kept_block (name, version, body, note, tested, review, who)
    values ($1, (select coalesce(max(version), 0) + 1 from kept_block where name = $1), $2, $3, $4, $5,
    $6)
    returning name, version, body, note, tested, review, who, at, gone;

-- name: ForgetBlock
update kept_block
    set gone = $2
    where name = $1 and gone <> $2;
