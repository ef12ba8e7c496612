-- +goose Up

-- Vocabularies are told apart by their names whatever their capitals: two sources that write one otherwise share what was
-- decided. Of two that said something of one heading the later holds.
delete from counterpart c using counterpart d
  where lower(c.vocabulary) = lower(d.vocabulary) and lower(c.other) = lower(d.other) and c.heading = d.heading
    and (c.saved, c.vocabulary, c.other) < (d.saved, d.vocabulary, d.other);
update counterpart set vocabulary = lower(vocabulary), other = lower(other);

-- +goose Down

select 1;
