package cluster_test

import (
	"context"
	"os"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/require"

	"tamiz/store/cluster"
)

func TestADatabaseThatDiesIsStartedAgainWithAllThatItKept(t *testing.T) {
	dir, err := os.MkdirTemp("", "tamiz-cluster-")
	require.NoError(t, err)
	require.NoError(t, os.Chmod(dir, 0o755))
	t.Cleanup(func() { _ = os.RemoveAll(dir) })
	ctx, cancel := context.WithTimeout(t.Context(), 2*time.Minute)
	defer cancel()
	c, err := cluster.Start(ctx, dir, false)
	require.NoError(t, err)
	defer c.Stop()
	again := make(chan error, 10)
	go c.Keep(ctx, func(err error) { again <- err })
	conn, err := pgx.Connect(ctx, c.URL)
	require.NoError(t, err)
	_, err = conn.Exec(ctx, "create table kept as select 7 as n")
	require.NoError(t, err)
	c.Kill()
	_ = conn.Close(ctx)
	for err := range again { // what is left of it may be in the way for a moment
		if err == nil {
			break
		}
	}
	conn, err = pgx.Connect(ctx, c.URL)
	require.NoError(t, err)
	defer conn.Close(ctx)
	var n int
	require.NoError(t, conn.QueryRow(ctx, "select n from kept").Scan(&n))
	require.Equal(t, 7, n)
}
