// Package storetest gives tests a database of their own, on a PostgreSQL that ends with them.
package storetest

import (
	"context"
	"fmt"
	"os"
	"sync/atomic"
	"testing"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/require"

	"tamiz/store"
	"tamiz/store/cluster"
)

var (
	running *cluster.Cluster
	count   atomic.Int64
)

// Main runs the tests of a package with a PostgreSQL beside them; call it from TestMain.
func Main(m *testing.M) {
	os.Exit(run(m))
}

func run(m *testing.M) int {
	dir, err := os.MkdirTemp("", "tamiz-test-")
	if err == nil {
		err = os.Chmod(dir, 0o755) // whom the database runs as has to pass
	}
	if err == nil {
		running, err = cluster.Start(context.Background(), dir, true)
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, "no database for the tests:", err)
		return 1
	}
	defer os.RemoveAll(dir)
	defer running.Stop()
	return m.Run()
}

// URL makes an empty database and returns its address.
func URL(t testing.TB) string {
	t.Helper()
	ctx := context.Background()
	conn, err := pgx.Connect(ctx, running.URL)
	require.NoError(t, err)
	defer conn.Close(ctx)
	name := fmt.Sprintf("test%d", count.Add(1))
	_, err = conn.Exec(ctx, "create database "+name)
	require.NoError(t, err)
	return running.URL[:len(running.URL)-len("postgres")] + name
}

// Open makes an empty database with all tables.
func Open(t testing.TB) *store.Store {
	t.Helper()
	s, err := store.Open(context.Background(), URL(t))
	require.NoError(t, err)
	t.Cleanup(s.Close)
	return s
}
