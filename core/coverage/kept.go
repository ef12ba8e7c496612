package coverage

import (
	"fmt"
	"strconv"
	"sync"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/query"
	"tamiz/core/strategy"
)

// Kept remembers what terms find in a set of records, which never changes: a strategy is looked at again after
// each change of it, and mostly one term of it is new.
type Kept struct {
	mu    sync.Mutex
	most  uint64 // bytes
	bytes uint64
	found map[string]*roaring.Bitmap
}

// NewKept returns a memory of at most so many bytes.
func NewKept(most uint64) *Kept { return &Kept{most: most, found: map[string]*roaring.Bitmap{}} }

// termKey tells terms apart by all that says what they find.
func termKey(t strategy.Term) string {
	var b []byte
	said := func(all ...string) {
		for _, s := range all {
			b = append(strconv.AppendQuote(b, s), ' ')
		}
	}
	said(string(t.Kind), t.Text, t.Left, t.Right, string(t.Field), t.Heading)
	b = strconv.AppendBool(strconv.AppendInt(b, int64(t.Within), 10), t.Narrower)
	b = strconv.AppendInt(strconv.AppendBool(b, t.Central), int64(t.Until), 10)
	said(t.Qualifiers...)
	b = append(b, '/')
	said(t.Without...)
	return string(b)
}

// Matched returns the records of the set that a query finds. The set may be that of others too: it is not to be
// changed.
func (s Set) Matched(q query.Expr) *roaring.Bitmap {
	found := query.Matched(q, func(part query.Expr) *roaring.Bitmap {
		switch part.(type) {
		case query.Phrase, query.Near: // what is looked for longest, and most often again
			found, _ := s.Kept.of(fmt.Sprintf("%#v", part), func() (*roaring.Bitmap, error) { return part.Match(s.Index), nil })
			return found
		}
		return part.Match(s.Index)
	})
	if s.Within == nil {
		return found
	}
	return roaring.And(found, s.Within)
}

// of returns what is found under a key, as work finds it when it is not remembered. What it returns is shared.
func (k *Kept) of(key string, work func() (*roaring.Bitmap, error)) (*roaring.Bitmap, error) {
	if k == nil {
		return work()
	}
	k.mu.Lock()
	found := k.found[key]
	k.mu.Unlock()
	if found != nil {
		return found, nil
	}
	found, err := work()
	if err != nil {
		return nil, err
	}
	k.mu.Lock()
	defer k.mu.Unlock()
	if k.bytes > k.most {
		clear(k.found)
		k.bytes = 0
	}
	k.found[key] = found
	k.bytes += found.GetSizeInBytes() + uint64(len(key)) + 64
	return found, nil
}
