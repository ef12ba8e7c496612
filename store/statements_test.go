package store_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"tamiz/store"
)

func TestStatementsAreTakenByTheirNames(t *testing.T) {
	got := store.Statements(`-- part: head
select id
    from review

-- name: One
-- with: head
    where id = $1;

-- name: All of them
-- with: head
    order by id;

-- name: Drop
delete from review;
`)
	assert.Equal(t, map[string]string{
		"One":         "select id\n    from review\n\n\n    where id = $1",
		"All of them": "select id\n    from review\n\n\n    order by id",
		"Drop":        "delete from review",
	}, got)
}
