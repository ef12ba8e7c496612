package figures

import (
	"encoding/json"
	"os"
	"strings"
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
		in, out := pick(len(all.Rows), func(i int32) brief { return briefOf(all.Rows[i]) })
		items := []string{}
		for _, i := range in {
			items = append(items, all.Rows[i].Item)
		}
		assert.Equal(t, e.Items, items, w)
		assert.Len(t, out, len(all.Rows)-len(in), w)
	}
}

func briefOf(r TallyRow) brief {
	figure := func(x *float64) float64 {
		if x == nil {
			return absent
		}
		return *x
	}
	count := func(n *int) float64 {
		if n == nil {
			return absent
		}
		return float64(*n)
	}
	forms := []string{r.Item}
	for _, f := range r.Forms {
		forms = append(forms, f.Item)
	}
	return brief{
		item:         r.Item,
		records:      r.Records,
		forms:        func() []string { return forms },
		lift:         figure(r.Lift),
		pull:         figure(r.Pull),
		keys:         count(r.Keys),
		withNarrower: count(r.WithNarrower),
	}
}

// Where not all rows are sent, pieces of sentences are the first to be left out; the order of the others stays.
func TestPiecesOfSentencesAreLeftOutFirst(t *testing.T) {
	all := []string{"a", "of b", "c", "of d", "e", "of f"}
	for most, want := range map[int]string{6: "a,of b,c,of d,e,of f", 4: "a,of b,c,e", 3: "a,c,e", 2: "a,c", 1: "a"} {
		got, first := piecesLast(
			[]int32{0, 1, 2, 3, 4, 5},
			most,
			func(i int32) bool { return strings.HasPrefix(all[i], "of ") },
		)
		assert.Len(t, got, 6)
		var items []string
		for _, i := range got[:first] {
			items = append(items, all[i])
		}
		assert.Equal(t, want, strings.Join(items, ","), most)
	}
}
