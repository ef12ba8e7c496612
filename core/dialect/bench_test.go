package dialect_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/text"
)

func BenchmarkRead(b *testing.B) {
	cql, _ := dialect.Named("cql")
	long := strings.Repeat(`(title = "cane cutters" or "rest breaks*" or abstract = farm) and `, 15_000) + "heat"
	b.SetBytes(int64(len(long)))
	for b.Loop() {
		_, err := cql.Read(long, nil)
		require.NoError(b, err)
	}
}

// BenchmarkWords is what reading is compared with: the same text cut into words.
func BenchmarkWords(b *testing.B) {
	long := strings.Repeat(`(title = "cane cutters" or "rest breaks*" or abstract = farm) and `, 15_000) + "heat"
	b.SetBytes(int64(len(long)))
	for b.Loop() {
		text.Tokens(long)
	}
}

func BenchmarkWrite(b *testing.B) {
	var or query.Or
	for i := range 2000 {
		p, err := text.ParsePattern("cane cutter" + string(rune('a'+i%26)) + "*")
		require.NoError(b, err)
		or = append(or, query.Phrase{Pattern: p, Fields: bib.Text})
	}
	for _, d := range dialect.Known() {
		b.Run(d.Name, func(b *testing.B) {
			for b.Loop() {
				d.Write(or, dialect.Options{})
			}
		})
	}
}
