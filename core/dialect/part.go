package dialect

import (
	"slices"
	"unicode/utf8"

	"tamiz/core/query"
)

// mostParts is how many queries one is parted into.
const mostParts = 400

// parts returns the queries that together find what one finds, each of which the source takes: some alternative
// that the whole holds is shared out over two queries until all fit. fits is false where that does not help.
func (d *Dialect) parts(q query.Expr) (out []query.Expr, fits bool) {
	fits = true
	todo := []query.Expr{q}
	for len(todo) > 0 {
		q, todo = todo[len(todo)-1], todo[:len(todo)-1]
		long, deep := d.over(q)
		if !long && !deep {
			out = append(out, q)
			continue
		}
		first, second, ok := d.shared(q, deep)
		if !ok || len(out)+len(todo) >= mostParts {
			out, fits = append(out, q), false
			continue
		}
		todo = append(todo, second, first)
	}
	return out, fits
}

// over reports whether a query is too long, or stands too deep in brackets.
func (d *Dialect) over(q query.Expr) (long, deep bool) {
	if d.Longest == 0 && d.MostTerms == 0 && d.Brackets.Deepest == 0 && d.Brackets.Open != "" {
		return false, false
	}
	s, depth := d.written(q, "")
	long = d.Longest > 0 && utf8.RuneCountInString(s) > d.Longest || d.MostTerms > 0 && leaves(q) > d.MostTerms
	return long, d.Brackets.Deepest > 0 && depth > d.Brackets.Deepest || d.Brackets.Open == "" && d.ambiguous(q, "")
}

// ambiguous reports whether a query without brackets would be read otherwise.
func (d *Dialect) ambiguous(q query.Expr, inside string) bool {
	op, parts := operatorOf(q)
	if op == "" {
		return false
	}
	if inside != "" && d.rank(op) >= d.rank(inside) {
		return true
	}
	for _, p := range parts {
		if d.ambiguous(p, op) {
			return true
		}
	}
	return false
}

func leaves(q query.Expr) (n int) {
	_, parts := operatorOf(q)
	if parts == nil {
		return 1
	}
	for _, p := range parts {
		n += leaves(p)
	}
	return n
}

// shared parts a query at one of its alternatives: the longest, or where brackets are the trouble, one that stands
// inside something else.
func (d *Dialect) shared(q query.Expr, deep bool) (first, second query.Expr, ok bool) {
	op, parts := operatorOf(q)
	if op == opOr && (!deep || !slices.ContainsFunc(parts, hasOr)) {
		if flat, joined := apart(parts); deep && len(flat) > 0 && len(joined) > 0 {
			return one(opOr, flat), one(opOr, joined), true
		}
		half := len(parts) / 2
		return one(opOr, parts[:half]), one(opOr, parts[half:]), true
	}
	positive := parts
	if op == opNot {
		positive = parts[:1]
	}
	best, size := -1, 0
	for i, p := range positive {
		if hasOr(p) {
			if n := leaves(p); best < 0 || n > size {
				best, size = i, n
			}
		}
	}
	if best < 0 {
		return nil, nil, false
	}
	a, b, ok := d.shared(parts[best], deep)
	if !ok {
		return nil, nil, false
	}
	with := func(p query.Expr) query.Expr {
		out := make([]query.Expr, len(parts))
		copy(out, parts)
		out[best] = p
		switch op {
		case opNot:
			return query.Not(out)
		case opOr:
			return query.Or(out)
		}
		return flat(out)
	}
	if op == opOr {
		// What stands in an alternative is shared out inside it.
		out := append([]query.Expr{}, parts...)
		out[best] = a
		return one(opOr, out), b, true
	}
	return with(a), with(b), true
}

// apart tells alternatives that are one term from those that join several.
func apart(parts []query.Expr) (flat, joined []query.Expr) {
	for _, p := range parts {
		if op, _ := operatorOf(p); op == "" {
			flat = append(flat, p)
		} else {
			joined = append(joined, p)
		}
	}
	return flat, joined
}

// flat joins by and what is no longer parted.
func flat(parts []query.Expr) query.Expr {
	var out query.And
	for _, p := range parts {
		if inner, ok := p.(query.And); ok {
			out = append(out, inner...)
		} else {
			out = append(out, p)
		}
	}
	return out
}

// hasOr reports whether something can be shared out in a query.
func hasOr(q query.Expr) bool {
	op, parts := operatorOf(q)
	switch op {
	case "":
		return false
	case opOr:
		return true
	case opNot:
		return hasOr(parts[0])
	}
	for _, p := range parts {
		if hasOr(p) {
			return true
		}
	}
	return false
}
