package company_test

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/company"
	"tamiz/core/index"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/demo"
)

// plain works the figures out as they are defined, step by step, over all pairs.
type plain struct {
	items   map[string]bool
	weights map[string]map[string]float64
}

func newPlain(records []*bib.Record) plain {
	p := must(tally.NewPool(context.Background(), records, nil))
	items := map[string]bool{}
	for _, r := range must(tally.CountWords(context.Background(), p, nil, tally.DefaultWords)).Rows {
		if r.Records >= 5 && (r.AbsorbedBy == "" || !strings.Contains(r.Item, " ")) {
			items[r.Item] = true
		}
	}
	counts := map[string]map[string]float64{}
	for _, r := range records {
		r.Values(bib.TitleAbstract, func(_ bib.Field, value string) {
			spans := text.Spans(value)
			for i := range spans {
				for n := 1; n <= 4 && i+n <= len(spans) && (n == 1 || !spans[i+n-1].Break); n++ {
					var words []string
					for _, s := range spans[i : i+n] {
						words = append(words, s.Token)
					}
					item := strings.Join(words, " ")
					if !items[item] {
						continue
					}
					if counts[item] == nil {
						counts[item] = map[string]float64{}
					}
					for k := max(0, i-5); k < min(len(spans), i+n+5); k++ {
						if (k < i || k >= i+n) && items[spans[k].Token] {
							counts[item][spans[k].Token]++
						}
					}
				}
			}
		})
	}
	context, sum := map[string]float64{}, 0.0
	for item, of := range counts {
		if !strings.Contains(item, " ") {
			for c, n := range of {
				context[c] += n
			}
		}
	}
	for _, n := range context {
		sum += math.Pow(n, 0.75)
	}
	weights := map[string]map[string]float64{}
	for item, of := range counts {
		total := 0.0
		for _, n := range of {
			total += n
		}
		weights[item] = map[string]float64{}
		for c, n := range of {
			if context[c] > 0 {
				weights[item][c] = max(0, math.Log(n*sum/(total*math.Pow(context[c], 0.75))))
			}
		}
	}
	return plain{items, weights}
}

func (p plain) cosine(a, b map[string]float64) float64 {
	dot, la, lb := 0.0, 0.0, 0.0
	for c, w := range a {
		dot += w * b[c]
		la += w * w
	}
	for _, w := range b {
		lb += w * w
	}
	if la == 0 || lb == 0 {
		return 0
	}
	return dot / math.Sqrt(la*lb)
}

func (p plain) unit(item string) map[string]float64 {
	length, out := 0.0, map[string]float64{}
	for _, w := range p.weights[item] {
		length += w * w
	}
	for c, w := range p.weights[item] {
		if length > 0 {
			out[c] = w / math.Sqrt(length)
		}
	}
	return out
}

// add lays the vector of an item, brought to length 1 and weighed, to a sum.
func (p plain) add(sum map[string]float64, item string, weight float64) {
	for c, w := range p.unit(item) {
		sum[c] += weight * w
	}
}

func squares(v map[string]float64) (sum float64) {
	for _, w := range v {
		sum += w * w
	}
	return sum
}

func TestCompanyAgreesWithItsDefinition(t *testing.T) {
	records := demo.NewWorld(4, 120).Records
	p := newPlain(records)
	ix := index.Build(records)
	c := must(company.Build(context.Background(), ix, ix.All()))
	assert.Equal(t, len(p.items), c.Len())
	for _, item := range []string{"heat", "workers", "kidney", "results", "rest breaks"} {
		if !p.items[item] {
			continue
		}
		found, ok := c.Alike(item, 0)
		require.True(t, ok, item)
		assert.NotEmpty(t, found)
		for i, a := range found {
			assert.InDelta(t, p.cosine(p.weights[item], p.weights[a.Item]), a.Alike, 1e-6, "%s and %s", item, a.Item)
			assert.NotContains(t, " "+a.Item+" ", " "+item+" ")
			if i > 0 {
				assert.GreaterOrEqual(t, found[i-1].Alike, a.Alike)
			}
		}
	}
	s := strategy.Strategy{
		Blocks: []strategy.Block{
			terms("A", "heat*", "rest*"),
			terms("B", "kidney*", "creatinine"),
			terms("C"),
			terms("D", "zzz*"),
		},
	}
	fits, err := c.Fits(context.Background(), s)
	require.NoError(t, err)
	require.Len(t, fits, c.Len())
	for _, f := range fits {
		for b, block := range s.Blocks {
			sum := map[string]float64{}
			for _, term := range block.Terms { // each weighs the same, and the item itself is left out
				whole := map[string]float64{}
				for item := range p.items {
					if matches(strategy.Block{Terms: []strategy.Term{term}}, item) {
						p.add(whole, item, 1)
					}
				}
				length := math.Sqrt(squares(whole))
				for item := range p.items {
					if item != f.Item && matches(strategy.Block{Terms: []strategy.Term{term}}, item) {
						p.add(sum, item, 1/length)
					}
				}
			}
			assert.InDelta(t, p.cosine(p.weights[f.Item], sum), f.Fits[b], 2e-6, "%s to %s", f.Item, block.Name)
			assert.Equal(t, matches(block, f.Item), slices.Contains(f.Inside, b))
		}
		if f.Proposed >= 0 {
			best := f.Fits[f.Proposed]
			assert.GreaterOrEqual(t, best, 0.1)
			for b, x := range f.Fits {
				assert.True(t, b == f.Proposed || best >= 1.2*x, "%+v", f)
			}
		}
	}
}

func terms(name string, typed ...string) strategy.Block {
	b := strategy.Block{Name: name, Searched: true}
	for _, x := range typed {
		b.Terms = append(b.Terms, strategy.Term{Kind: strategy.TextTerm, Text: x, Field: "text", On: true})
	}
	return b
}

func matches(b strategy.Block, item string) bool {
	for _, term := range b.Terms {
		p, _ := text.ParsePattern(term.Text)
		if len(p.Find(strings.Fields(item))) > 0 {
			return true
		}
	}
	return false
}

func TestWhatIsNoItemKeepsNoCompany(t *testing.T) {
	var records []*bib.Record
	for i := range 4 {
		records = append(records, &bib.Record{Title: fmt.Sprintf("Heat in crew %d", i)})
	}
	ix := index.Build(records)
	c := must(company.Build(context.Background(), ix, ix.All()))
	assert.Zero(t, c.Len(), "four records are too few")
	_, ok := c.Alike("heat", 0)
	assert.False(t, ok)
	fits, err := c.Fits(context.Background(), strategy.Strategy{Blocks: []strategy.Block{terms("A", "heat")}})
	assert.NoError(t, err)
	assert.Empty(t, fits)
	empty := index.Build(nil)
	assert.Zero(t, must(company.Build(context.Background(), empty, empty.All())).Len())
}

// must returns what was worked out; in a test nothing ends before its time.
func must[T any](v T, err error) T {
	if err != nil {
		panic(err)
	}
	return v
}

// What a pool keeps of its words is what the company is made of: the same, whether words were counted before or not.
func TestCompanyOfWhatAPoolKeepsIsTheSame(t *testing.T) {
	ctx := context.Background()
	records := demo.NewWorld(demo.Seed, 400).Records
	p := must(tally.NewPool(ctx, records, nil))
	want := must(company.Build(ctx, p.Index, p.Index.All()))
	for _, keeps := range []bool{false, true} {
		if keeps {
			p.Keep()
		}
		got := must(company.Of(ctx, p))
		require.Equal(t, want.Len(), got.Len())
		items := want.ItemsIn(p.Index.All())
		require.Equal(t, items, got.ItemsIn(p.Index.All()))
		for i := 0; i < len(items); i += 40 {
			a, _ := want.Alike(items[i], 10)
			b, _ := got.Alike(items[i], 10)
			require.Equal(t, a, b, items[i])
		}
	}
	stopped, stop := context.WithCancel(ctx)
	stop()
	_, err := company.Of(stopped, must(tally.NewPool(ctx, records, nil)))
	assert.ErrorIs(t, err, context.Canceled)
}
