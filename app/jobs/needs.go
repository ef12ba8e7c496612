package jobs

import (
	"context"
	"encoding/json"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// ownRows are the calls by which this room asks of its own rows.
type ownRows interface {
	Ask(ctx context.Context, t Task, then func(context.Context, pgx.Tx, Task) error) error
	Beat(ctx context.Context, name string, holder uuid.UUID) (stop bool, err error)
	Claim(ctx context.Context, name string, holder uuid.UUID, most Most) (t Task, err error)
	End(ctx context.Context, t Task, holder uuid.UUID, problem json.RawMessage) (again bool, err error)
	Leave(ctx context.Context, name string, holder uuid.UUID) error
	Orphans(ctx context.Context) ([]Task, error)
	Stop(ctx context.Context, name string) (bool, error)
	Task(ctx context.Context, name string) (Task, error)
}
