package jobs

import (
	"fmt"
	"testing"

	"github.com/jackc/pgx/v5/pgconn"
	"github.com/stretchr/testify/assert"
)

// Work that the database cannot do just now is tried again; a full disk is told to whoever waits.
func TestWorkIsTriedAgainForWhatPasses(t *testing.T) {
	for code, again := range map[string]bool{"57P01": true, "55P03": true, "53300": true, "53100": false, "23505": false} {
		assert.Equal(t, again, passing(fmt.Errorf("filing: %w", &pgconn.PgError{Code: code})), code)
	}
}
