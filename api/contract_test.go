package api_test

import (
	"fmt"
	"testing"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Each number that is sent has a least and a most, so that none reaches the database that it cannot hold.
func TestEveryNumberThatIsSentHasBounds(t *testing.T) {
	contract, err := openapi3.NewLoader().LoadFromFile("openapi.yaml")
	require.NoError(t, err)
	seen := map[*openapi3.Schema]bool{}
	numbers := 0
	var look func(s *openapi3.SchemaRef, where string)
	look = func(s *openapi3.SchemaRef, where string) {
		if s == nil || s.Value == nil || seen[s.Value] {
			return
		}
		v := s.Value
		seen[v] = true
		if v.Type.Includes("integer") && len(v.Enum) == 0 {
			numbers++
			assert.NotNil(t, v.Min, where)
			assert.NotNil(t, v.Max, where)
		}
		for name, p := range v.Properties {
			look(p, where+" "+name)
		}
		look(v.Items, where+" item")
		look(v.AdditionalProperties.Schema, where+" member")
		for _, all := range []openapi3.SchemaRefs{v.OneOf, v.AnyOf, v.AllOf} {
			for i, one := range all {
				look(one, fmt.Sprintf("%s %d", where, i))
			}
		}
	}
	for path, item := range contract.Paths.Map() {
		for method, op := range item.Operations() {
			where := method + " " + path
			for _, p := range append(item.Parameters, op.Parameters...) {
				look(p.Value.Schema, where+" "+p.Value.Name)
			}
			if op.RequestBody != nil {
				for _, body := range op.RequestBody.Value.Content {
					look(body.Schema, where)
				}
			}
		}
	}
	assert.Greater(t, numbers, 200)
}
