// Package storetest gives tests a database of their own, on a PostgreSQL that ends with them.
package storetest

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"sync/atomic"
	"testing"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
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

// Review makes a review of which nothing is said yet, and returns its number.
func Review(t testing.TB, s *store.Store) (id int64) {
	t.Helper()
	require.NoError(
		t,
		s.Write.QueryRow(context.Background(), "insert into review (name) values ('Heat') returning id").Scan(&id),
	)
	_, err := s.Write.Exec(context.Background(), "insert into document (review, revision, body) values ($1, 1, '{}')", id)
	require.NoError(t, err)
	return id
}

// Prepare has PostgreSQL read all statements of a room against the tables as they are. Each statement that the Go
// of the room names must be there, and each that is there be named.
func Prepare(t *testing.T, statements map[string]string) {
	t.Helper()
	s := Open(t)
	files, err := filepath.Glob("*.go")
	require.NoError(t, err)
	var code strings.Builder
	for _, f := range files {
		body, err := os.ReadFile(f)
		require.NoError(t, err)
		code.Write(body)
	}
	used := map[string]bool{}
	for _, m := range regexp.MustCompile(`\bsql\["([^"]+)"\]`).FindAllStringSubmatch(code.String(), -1) {
		assert.Contains(t, statements, m[1], "is named and not there")
		used[m[1]] = true
	}
	for name, text := range statements {
		assert.True(t, used[name], "%s is there and not named", name)
		require.NoError(t, s.Write.Tx(t.Context(), func(ctx context.Context, tx pgx.Tx) error {
			_, err := tx.Prepare(ctx, "", text)
			assert.NoError(t, err, name)
			return nil
		}))
	}
}
