package dialect

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"tamiz/core/query"
)

func TestFindSame(t *testing.T) {
	y := func(n int) query.Expr { return query.Years{From: n, To: n} }
	a, b, c := y(1), y(2), y(3)
	assert.True(t, FindSame(query.And{a, query.Or{b, c}}, query.Or{query.And{a, b}, query.And{c, a}}))
	assert.True(t, FindSame(query.Not{query.Or{a, b}, c}, query.Or{query.Not{a, c}, query.Not{b, c}}))
	assert.False(t, FindSame(query.And{a, b}, query.Or{a, b}))
	assert.False(t, FindSame(query.Not{a, b}, query.Not{b, a}))
	var many query.Or
	for n := range mostLeaves + 1 {
		many = append(many, y(n))
	}
	assert.False(t, FindSame(many, many), "of so many it is not known")
}
