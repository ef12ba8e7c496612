-- name: Checks
select id, revision, name, checker, note, who, at, done, done_by, withdrawn, withdrawn_by
    from review_check
    where review = $1 and not gone
    order by id desc limit $2;

-- name: Check
select id, revision, name, checker, note, who, at, done, done_by, withdrawn, withdrawn_by
    from review_check
    where review = $1 and not gone and id = $2;

-- name: Answers
select a.checked, a.question, a.verdict, a.words, a.who, a.at
    from check_answer a
    join review_check c on c.id = a.checked
    where c.review = $1 and not c.gone;

-- name: Suggestions
select g.id, g.checked, g.line, g.words, g.edits, g.says, g.state, g.who, g.at, g.decided_by, g.decided
    from check_suggestion g
    join review_check c on c.id = g.checked
    where c.review = $1 and not c.gone
    order by g.id;

-- name: putCheck
insert into review_check (review, revision, name, checker, note, who)
    values ($1, $2, $3, $4, $5, $6)
    returning id;

-- name: openCheck
select id, revision, name, checker, note, who, at, done, done_by, withdrawn, withdrawn_by
    from review_check
    where review = $1 and not gone and id = $2 and done is null for update;

-- name: finishCheck
update review_check
    set done = case when $3 then coalesce(done, now()) end, done_by = case when $3 then $4 else '' end,
    withdrawn = null, withdrawn_by = ''
    where review = $1 and id = $2 and not gone;

-- name: dropCheck
update review_check
    set gone = $3 and done is null, withdrawn = case when $3 and done is not null then now() end,
    withdrawn_by = case when $3 and done is not null then $4 else '' end
    where review = $1 and id = $2;

-- name: putAnswer
insert into check_answer (checked, question, verdict, words, who)
    values ($1, $2, $3, $4, $5)
    on conflict (checked, question) do update set verdict = excluded.verdict, words = excluded.words,
    who = excluded.who, at = now();

-- name: putSuggestion insert check_suggestion
insert into check_suggestion (checked, line, words, edits, says, who)
    values ($1, $2, $3, $4, $5, $6);

-- name: putSuggestion select check_suggestion
select count(*)
    from check_suggestion
    where checked = $1;

-- name: decideSuggestion
update check_suggestion g
    set state = $4, decided_by = case when $4 = 'open' then '' else $5 end,
    decided = case when $4 = 'open' then null else now() end
    from review_check c
    where g.id = $3 and g.checked = $2 and c.id = g.checked and c.review = $1 and not c.gone;

-- name: Notes
select id, kind, about, name, words, who, at, settled, settled_by
    from note
    where review = $1 and not gone
    order by id desc limit $2;

-- name: putNote insert note
insert into note (review, kind, about, name, words, who)
    values ($1, $2, $3, $4, $5, $6);

-- name: putNote select note
select count(*)
    from note
    where review = $1 and not gone;

-- name: settleNote
update note
    set settled = case when $3 then coalesce(settled, now()) end,
    settled_by = case when not $3 then '' when settled is null then $4 else settled_by end
    where review = $1 and id = $2 and not gone;

-- name: dropNote
update note
    set gone = $3
    where review = $1 and id = $2;
