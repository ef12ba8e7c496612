package app_test

import (
	"os"
	"path/filepath"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/store"
)

// elsewhere are the tables of which one column is another room's: which look at a review was taken last is the desk's.
var elsewhere = map[string]string{"review": "desk"}

// A room changes its own tables: those of another it asks that room to change.
func TestEachTableIsChangedByOneRoom(t *testing.T) {
	files, err := filepath.Glob("*/rows.sql")
	require.NoError(t, err)
	require.NotEmpty(t, files)
	quiet := regexp.MustCompile(`for (no key )?update|do update`)
	changes := regexp.MustCompile(`\b(?:insert into|update|delete from)\s+([a-z_]+)`)
	owner := map[string]string{}
	for _, f := range files {
		text, err := os.ReadFile(f)
		require.NoError(t, err)
		room := filepath.Dir(f)
		for name, statement := range store.Statements(string(text)) {
			for _, m := range changes.FindAllStringSubmatch(quiet.ReplaceAllString(statement, ""), -1) {
				table := m[1]
				if elsewhere[table] == room {
					continue
				}
				if other, known := owner[table]; known {
					assert.Equal(t, other, room, "%s changes %s", name, table)
				}
				owner[table] = room
			}
		}
	}
	assert.Greater(t, len(owner), 30)
}
