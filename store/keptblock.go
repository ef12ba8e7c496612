package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/jackc/pgx/v5"
)

// A KeptBlock is a block that is kept for reuse.
type KeptBlock struct {
	Name    string
	Version int
	Body    json.RawMessage
	Note    string
	Tested  string // on what, and how it fared
	Review  string // the name of the one it comes from
	Who     string
	At      time.Time
	Gone    bool // it is not offered any more
}

const keptBlockColumns = "name, version, body, note, tested, review, who, at, gone"

// KeptBlocks returns the blocks that were kept, those too that are not any more, the newest version of each first.
func (s *Store) KeptBlocks(ctx context.Context, most int) ([]KeptBlock, error) {
	return all[KeptBlock](ctx, s, "select "+keptBlockColumns+" from kept_block order by name, version desc limit $1", most)
}

// KeepBlock keeps a block, as the next version of its name.
func (s *Store) KeepBlock(ctx context.Context, b KeptBlock) (kept KeptBlock, err error) {
	err = s.once(ctx, func(ctx context.Context, tx pgx.Tx) error {
		kept, err = one[KeptBlock](ctx, tx, `insert into kept_block (name, version, body, note, tested, review, who)
			values ($1, (select coalesce(max(version), 0) + 1 from kept_block where name = $1), $2, $3, $4, $5, $6) returning `+keptBlockColumns,
			b.Name, b.Body, b.Note, b.Tested, b.Review, AuthorOf(ctx).Name)
		return err
	})
	return kept, err
}

// ForgetBlock keeps a block no more, in any version, or again.
func (s *Store) ForgetBlock(ctx context.Context, name string, gone bool) error {
	tag, err := s.write.Exec(ctx, "update kept_block set gone = $2 where name = $1 and gone <> $2", name, gone)
	if err == nil && tag.RowsAffected() == 0 {
		err = ErrNone
	}
	return err
}
