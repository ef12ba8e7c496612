package company

import "github.com/RoaringBitmap/roaring/v2"

// Place returns the number of an item, by which what is counted of all items is asked.
func (c *Company) Place(item string) (int, bool) {
	i, ok := c.place[item]
	return i, ok
}

// Counts returns, by the number of each item, how many of some records have it in title or abstract.
func (c *Company) Counts(records *roaring.Bitmap) []int32 {
	counts := make([]int32, len(c.items))
	for it := roaring.And(records, c.set).Iterator(); it.HasNext(); {
		for item := range c.lists.of(it.Next()) {
			counts[item]++
		}
	}
	return counts
}
