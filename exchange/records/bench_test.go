package records_test

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/require"

	"tamiz/demo"
	"tamiz/exchange/records"
)

// Each reader over eight thousand made-up records; make bench sets them beside tokenising the same bytes.
func BenchmarkReaders(b *testing.B) {
	all := demo.NewWorld(1, 8000).Records
	for _, f := range records.Held {
		file := write(b, f, all, records.Choice{})
		b.Run(string(f), func(b *testing.B) {
			b.SetBytes(int64(len(file)))
			b.ReportAllocs()
			for b.Loop() {
				n, err := count(bytes.Clone(file), records.Options{})
				require.NoError(b, err)
				require.Equal(b, len(all), n)
			}
		})
	}
}
