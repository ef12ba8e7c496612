package thesaurus

import "slices"

// allow takes in which qualifiers may be put behind which headings. SKOS has no word for it: a heading and a
// qualifier that are said to be related, by either, are taken for that.
func (t *Thesaurus) allow(kept, qualifiers []labelled) {
	place, heading := map[string]uint32{}, map[string]int{}
	for i, q := range qualifiers {
		place[q.ID] = uint32(i)
	}
	lists := make([][]uint32, len(kept))
	said := false
	put := func(heading int, qualifier uint32) {
		lists[heading] = append(lists[heading], qualifier)
		said = true
	}
	for i, c := range kept {
		heading[c.ID] = i
		for _, id := range c.Related {
			if q, ok := place[id]; ok {
				put(i, q)
			}
		}
	}
	for i, q := range qualifiers {
		for _, id := range q.Related {
			if h, ok := heading[id]; ok {
				put(h, uint32(i))
			}
		}
	}
	if !said {
		return
	}
	for i := range lists {
		slices.Sort(lists[i])
		lists[i] = slices.Compact(lists[i])
	}
	t.allows = flatten(lists)
}

// Allows returns the qualifiers that may be put behind a heading, ascending; said is false where the vocabulary
// tells that of none.
func (t *Thesaurus) Allows(heading int) (qualifiers []string, said bool) {
	if len(t.allows.From) == 0 {
		return nil, false
	}
	for _, q := range t.allows.span(heading) {
		qualifiers = append(qualifiers, t.Qualifiers[q])
	}
	return qualifiers, true
}
