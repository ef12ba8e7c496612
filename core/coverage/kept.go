package coverage

import (
	"fmt"
	"sync"

	"github.com/RoaringBitmap/roaring/v2"

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

func termKey(t strategy.Term) string {
	t.On = true
	return fmt.Sprintf("%q", []any{t.Kind, t.Text, t.Left, t.Right, t.Within, t.Field, t.Heading, t.Narrower, t.Central, t.Qualifiers, t.Without, t.Until})
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
