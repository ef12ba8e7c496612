package bench

import (
	"fmt"
	"io/fs"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/blevesearch/bleve/v2"
	"github.com/blevesearch/bleve/v2/analysis/analyzer/custom"
	"github.com/blevesearch/bleve/v2/analysis/tokenizer/whitespace"
	"github.com/blevesearch/bleve/v2/index/scorch"
	"github.com/blevesearch/bleve/v2/mapping"
	bquery "github.com/blevesearch/bleve/v2/search/query"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/strategy"
	"tamiz/core/text"
	"tamiz/demo"
)

// rival is a bleve index of the records: normalised tokens with positions, headings whole. Nothing is
// stored and no score is worked out.
type rival struct {
	bleve.Index
	building time.Duration
	bytes    uint64
}

// openBleve indexes a world of so many records, which are made as they are wanted; their making does not
// count.
func openBleve(t *testing.T, n int) *rival {
	m := bleve.NewIndexMapping()
	require.NoError(t, m.AddCustomAnalyzer("tokens", map[string]any{"type": custom.Name, "tokenizer": whitespace.Name}))
	m.DefaultAnalyzer = "tokens"
	field := func(kind *mapping.FieldMapping) *mapping.FieldMapping {
		kind.Store, kind.DocValues, kind.IncludeInAll = false, false, false
		return kind
	}
	words, headings := field(bleve.NewTextFieldMapping()), field(bleve.NewKeywordFieldMapping())
	words.Analyzer, words.IncludeTermVectors = "tokens", true
	doc := bleve.NewDocumentStaticMapping()
	doc.AddFieldMappingsAt("words", words)
	doc.AddFieldMappingsAt("headings", headings)
	m.DefaultMapping = doc
	dir := filepath.Join(t.TempDir(), "bleve")
	began := time.Now()
	ix, err := bleve.NewUsing(dir, m, scorch.Name, scorch.Name, map[string]any{"unsafe_batch": true})
	require.NoError(t, err)
	t.Cleanup(func() { ix.Close() })
	out := &rival{Index: ix, building: time.Since(began)}
	var waiting []*bib.Record
	number := 0
	flush := func() {
		began := time.Now()
		batch := ix.NewBatch()
		for _, r := range waiting {
			var values, labels []string
			r.Values(bib.Text, func(_ bib.Field, v string) {
				if key := text.Key(v); key != "" {
					values = append(values, key)
				}
			})
			for _, h := range r.Headings {
				labels = append(labels, text.Label(h.Label))
			}
			require.NoError(t, batch.Index(fmt.Sprint(number), map[string]any{"words": values, "headings": labels}))
			number++
		}
		require.NoError(t, ix.Batch(batch))
		out.building += time.Since(began)
		waiting = waiting[:0]
	}
	require.NoError(t, demo.Each(1, n, func(r *bib.Record, _ bool) error {
		if waiting = append(waiting, r); len(waiting) == 2000 {
			flush()
		}
		return nil
	}))
	flush()
	_ = filepath.WalkDir(dir, func(_ string, d fs.DirEntry, err error) error {
		if err == nil && !d.IsDir() { // files come and go while segments are merged
			if info, err := d.Info(); err == nil {
				out.bytes += uint64(info.Size())
			}
		}
		return nil
	})
	return out
}

func (r *rival) count(t *testing.T, s strategy.Strategy) int {
	var all []bquery.Query
	for _, b := range s.Blocks {
		var any []bquery.Query
		for _, term := range b.Terms {
			tokens := strings.Fields(term.Text)
			switch {
			case term.Kind == strategy.HeadingTerm:
				q := bleve.NewTermQuery(text.Label(term.Heading))
				q.SetField("headings")
				any = append(any, q)
			case strings.HasSuffix(term.Text, "*"):
				q := bleve.NewPrefixQuery(strings.TrimSuffix(term.Text, "*"))
				q.SetField("words")
				any = append(any, q)
			case len(tokens) > 1:
				any = append(any, bleve.NewPhraseQuery(tokens, "words"))
			default:
				q := bleve.NewTermQuery(term.Text)
				q.SetField("words")
				any = append(any, q)
			}
		}
		all = append(all, bleve.NewDisjunctionQuery(any...))
	}
	request := bleve.NewSearchRequestOptions(bleve.NewConjunctionQuery(all...), 0, 0, false)
	request.Score = "none"
	found, err := r.Search(request)
	require.NoError(t, err)
	return int(found.Total)
}
