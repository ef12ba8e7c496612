package figures

import (
	"encoding/json"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The browser reads the same examples: what is wanted of the rows of a tally is the same wherever it is picked.
func TestRowsArePickedAsTheExamplesSay(t *testing.T) {
	data, err := os.ReadFile("testdata/rows.json")
	require.NoError(t, err)
	var all struct {
		Rows     []TallyRow
		Examples []struct {
			Window struct {
				Words, Sort                                                string
				Down                                                       bool
				RecordsFrom, RecordsTo, LiftFrom, LiftTo, PullFrom, PullTo *float64
			}
			Refused bool
			Items   []string
		}
	}
	require.NoError(t, json.Unmarshal(data, &all))
	for _, e := range all.Examples {
		w := e.Window
		pick, err := Window{Words: w.Words, Sort: w.Sort, Down: w.Down, Records: Bounds{w.RecordsFrom, w.RecordsTo},
			Lift: Bounds{w.LiftFrom, w.LiftTo}, Pull: Bounds{w.PullFrom, w.PullTo}}.picks()
		require.Equal(t, e.Refused, err != nil, w)
		if err != nil {
			continue
		}
		in, out := pick(all.Rows)
		items := []string{}
		for _, r := range in {
			items = append(items, r.Item)
		}
		assert.Equal(t, e.Items, items, w)
		assert.Len(t, out, len(all.Rows)-len(in), w)
	}
}
