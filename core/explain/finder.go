package explain

import (
	"fmt"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/dialect"
	"tamiz/core/query"
)

// MostKept is how many bytes are kept, at most, of what the parts of one query find.
const MostKept = 256 << 20

// A finder tells what the parts of a query find in one set of records. Each part is looked for once, however often
// and however deep it stands: a line that others name, and a term that is written again and again.
type finder struct {
	search func(query.Expr) *roaring.Bitmap
	lines  map[int]*dialect.TextLine

	terms map[string]*roaring.Bitmap
	often map[string]int // how many records hold a phrase
	found map[*dialect.Node]*roaring.Bitmap
	size  map[*dialect.Node]uint64 // of parts of which no more than that is kept
	begun map[*dialect.Node]bool   // being worked out: a line that leads back to itself is passed over
	lost  map[*dialect.Node]taken  // by what NOT takes away
	bytes uint64
	most  uint64
	full  bool // there was too much to keep: of what is left nothing is known
}

// taken is what a part takes away from what it is taken from.
type taken struct{ lost, of uint64 }

func newFinder(lines map[int]*dialect.TextLine, most uint64, search func(query.Expr) *roaring.Bitmap) *finder {
	if most == 0 {
		most = MostKept
	}
	return &finder{
		search: search,
		most:   most,
		lines:  lines,
		terms:  map[string]*roaring.Bitmap{},
		often:  map[string]int{},
		found:  map[*dialect.Node]*roaring.Bitmap{},
		size:   map[*dialect.Node]uint64{},
		begun:  map[*dialect.Node]bool{},
		lost:   map[*dialect.Node]taken{},
	}
}

// match returns what a part finds; nil where that is not known. It is not to be changed.
func (f *finder) match(n *dialect.Node) *roaring.Bitmap {
	if n == nil || n.Left || n.Op == dialect.Unread {
		return nil
	}
	if found, ok := f.found[n]; ok {
		return found
	}
	if f.full || f.begun[n] {
		return nil
	}
	f.begun[n] = true
	var found *roaring.Bitmap
	switch n.Op {
	case "or", "and", "not":
		found = f.joined(n, n.Op, n.Parts)
	case dialect.Line:
		var trees []*dialect.Node
		for _, ref := range n.Refs {
			if l := f.lines[ref]; l != nil && l.Expr != nil {
				trees = append(trees, l.Tree)
			}
		}
		found = f.joined(n, n.Join, trees)
	default:
		found = f.term(n.Expr)
	}
	delete(f.begun, n)
	f.found[n] = found
	return found
}

// count returns how many records a part finds; nil where that is not known.
func (f *finder) count(n *dialect.Node) *int {
	size, known := f.size[n]
	if !known {
		found := f.match(n)
		if found == nil {
			return nil
		}
		size = found.GetCardinality()
	}
	out := int(size)
	return &out
}

func (f *finder) term(q query.Expr) *roaring.Bitmap {
	if q == nil {
		return nil
	}
	key := keyOf(q)
	found, ok := f.terms[key]
	if !ok {
		found = f.search(q)
		f.terms[key] = found
		f.keep(found)
	}
	return found
}

// holds returns how many records hold a phrase.
func (f *finder) holds(q query.Phrase) int {
	key := keyOf(q)
	n, ok := f.often[key]
	if !ok {
		if found, known := f.terms[key]; known {
			n = int(found.GetCardinality())
		} else {
			n = int(f.search(q).GetCardinality())
		}
		f.often[key] = n
	}
	return n
}

// keyOf returns a name of a term that no other has.
func keyOf(q query.Expr) string {
	var fields bib.Field
	var more bool
	switch q := q.(type) {
	case query.Phrase:
		fields, more = q.Fields, q.Whole
	case query.Words:
		fields = q.Fields
	case query.Near:
		fields, more = q.Fields, q.Ordered
	}
	return fmt.Sprintf("%T %d %t %s", q, fields, more, query.Write(q))
}

func (f *finder) keep(found *roaring.Bitmap) {
	f.bytes += found.GetSizeInBytes()
	f.full = f.full || f.bytes > f.most
}

// joined puts together what the parts of a node find. A part of which nothing can be searched is passed over; where
// that is what others are taken away from, nothing is known. Of parts that are joined as the whole is, and stand
// nowhere else, only their number is kept: they are asked for no more.
func (f *finder) joined(n *dialect.Node, op string, parts []*dialect.Node) *roaring.Bitmap {
	var out, first *roaring.Bitmap
	own := false // out may be changed
	for i, p := range parts {
		found := f.match(p)
		if found == nil {
			if i == 0 && op == "not" || f.full {
				return nil
			}
			continue
		}
		alike := p.Op == op && n.Op == op && (i == 0 || op != "not")
		if alike {
			f.release(p, found)
		}
		if out == nil {
			out, first, own = found, found, alike && op != "not"
			continue
		}
		if op == "not" {
			f.lost[p] = taken{first.AndCardinality(found), first.GetCardinality()}
		}
		if !own {
			out, own = out.Clone(), true
		}
		switch op {
		case "and":
			out.And(found)
		case "not":
			out.AndNot(found)
		default:
			out.Or(found)
		}
	}
	if own {
		f.keep(out)
	}
	return out
}

// release keeps of a part no more than how much it finds.
func (f *finder) release(p *dialect.Node, found *roaring.Bitmap) {
	f.size[p] = found.GetCardinality()
	f.bytes -= min(f.bytes, found.GetSizeInBytes())
	delete(f.found, p)
}
