package api

import (
	"context"
	"errors"
	"fmt"
	"net"
	"testing"

	"github.com/jackc/pgx/v5/pgconn"
	"github.com/stretchr/testify/assert"

	"tamiz/store"
)

// What the database says becomes what happened, what was kept and whether to try again; none of its own words.
func TestProblemsOfTheDatabaseAreTold(t *testing.T) {
	for _, c := range []struct {
		err    error
		kind   string
		status int
	}{
		{&pgconn.PgError{Code: "53100", Message: "could not extend file"}, "disk-full", 507},
		{&pgconn.PgError{Code: "55P03", Message: "canceling statement due to lock timeout"}, "busy", 503},
		{&pgconn.PgError{Code: "57014", Message: "canceling statement due to statement timeout"}, "busy", 503},
		{&pgconn.PgError{Code: "57P01", Message: "terminating connection due to administrator command"},
			"database-unreachable", 503},
		{&pgconn.PgError{Code: "53300", Message: "sorry, too many clients already"}, "busy", 503},
		{&net.OpError{Op: "dial", Err: errors.New("connect: connection refused")}, "database-unreachable", 503},
		{&pgconn.PgError{Code: "22021", Message: "invalid byte sequence"}, "invalid", 422},
		{&pgconn.PgError{Code: "23503", Message: "violates foreign key"}, "not-found", 404},
		{errors.New("failed to encode args[1]: 3000000000 is greater than maximum value for int4"), "invalid", 422},
		{store.ErrWait, "busy", 503},
		{store.ErrUnknown, "unknown", 503},
		{errors.New("pq: odd"), "internal", 500},
	} {
		p := problemOf(context.Background(), fmt.Errorf("saving: %w", c.err))
		assert.Equal(t, c.kind, p.Type, c.err)
		assert.Equal(t, c.status, p.Status, c.err)
		for _, theirs := range []string{"pq", "extend", "timeout", "connect", "clients", "administrator"} {
			assert.NotContains(t, p.Title, theirs)
		}
	}
}
