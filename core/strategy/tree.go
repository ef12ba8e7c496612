package strategy

import (
	"fmt"
	"strings"
	"unicode"

	"tamiz/core/query"
)

// A Tree is numbered lines put together: one by its number, or several joined. A number of 0 is a line that is not
// there. It may also be a query that no term says.
type Tree struct {
	Number int
	Join   string // and, or, not
	Parts  []Tree
	Query  query.Expr // where it is one

	From, To int // where it was written, in characters
}

// Whole reports whether each line of it is there.
func (t Tree) Whole() bool {
	if t.Join == "" {
		return t.Number > 0 || t.Query != nil
	}
	for _, p := range t.Parts {
		if !p.Whole() {
			return false
		}
	}
	return true
}

// Expr returns what it finds, by the lines that are numbered; nil where one is not there or finds nothing.
func (t Tree) Expr(lines []Numbered) query.Expr {
	if t.Query != nil {
		return t.Query
	}
	if t.Join == "" {
		if t.Number < 1 || t.Number > len(lines) {
			return nil
		}
		return lines[t.Number-1].Expr
	}
	parts := make([]query.Expr, len(t.Parts))
	for i, p := range t.Parts {
		if parts[i] = p.Expr(lines); parts[i] == nil {
			return nil
		}
	}
	return joinedExpr(t.Join, parts)
}

func joinedExpr(join string, parts []query.Expr) query.Expr {
	switch join {
	case "or":
		return query.Or(parts)
	case "and":
		return query.And(parts)
	}
	return query.Not(parts)
}

// runs are the words with which a run of numbers is written, by what joins them.
var runs = map[string]string{"or": "any", "and": "all"}

// String returns it as it is written: "2 and (5 or 6)", "any of 1-8". A line that is not there is "?".
func (t Tree) String() string {
	if t.Query != nil {
		return query.Write(t.Query)
	}
	if t.Join == "" {
		if t.Number == 0 {
			return "?"
		}
		return fmt.Sprint(t.Number)
	}
	if n, ok := t.run(); ok {
		return fmt.Sprintf("%s of %d-%d", runs[t.Join], n, n+len(t.Parts)-1)
	}
	parts := make([]string, len(t.Parts))
	for i, p := range t.Parts {
		parts[i] = p.String()
		if p.parted() {
			parts[i] = "(" + parts[i] + ")"
		}
	}
	return strings.Join(parts, " "+t.Join+" ")
}

// parted reports whether it is written as several that are joined, which stand in brackets where they are part of
// another.
func (t Tree) parted() bool {
	switch t.Query.(type) {
	case query.Or, query.And, query.Not:
		return true
	}
	_, run := t.run()
	return t.Join != "" && !run
}

// run returns the first of three numbers or more that follow each other.
func (t Tree) run() (first int, ok bool) {
	if len(t.Parts) < 3 || t.Join == "not" {
		return 0, false
	}
	for i, p := range t.Parts {
		if p.Join != "" || p.Query != nil || p.Number == 0 || p.Number != t.Parts[0].Number+i {
			return 0, false
		}
	}
	return t.Parts[0].Number, true
}

// MostVerbatim is how many characters a query may have that stands as a line of its own.
const MostVerbatim = 10_000

// MostTree is how many characters what is put together may have.
const MostTree = 2000

// A TreeFault is where what somebody wrote cannot be read: from and to in characters.
type TreeFault struct {
	From, To int
	Message  string
}

func (f *TreeFault) Error() string { return f.Message }

// ReadTree reads numbers joined by and, or, not, with brackets, in any case; runs and lists of them as "any of 1-8"
// or "all of 9, 18". What joins in two ways needs brackets: nothing is guessed. Errors are *TreeFault.
func ReadTree(text string) (Tree, error) {
	r := treeReader{text: []rune(text)}
	if len(r.text) > MostTree {
		return Tree{}, &TreeFault{
			MostTree,
			len(r.text),
			fmt.Sprintf("At most %d characters are read; these are %d.", MostTree, len(r.text)),
		}
	}
	t, err := r.joined(0)
	if err == nil && r.word() != "" {
		err = r.fault("Here something follows that joins nothing: numbers are joined by AND, OR or NOT.")
		if r.next == ")" {
			err = r.fault("This bracket closes what was not opened.")
		}
	}
	return t, err
}

// treeReader reads word by word; next is the one at from to to.
type treeReader struct {
	text           []rune
	next           string
	from, to, read int
}

func (r *treeReader) fault(format string, args ...any) error {
	return &TreeFault{r.from, r.to, fmt.Sprintf(format, args...)}
}

// word returns the next word without taking it: a number, a bracket, a word; "" at the end.
func (r *treeReader) word() string {
	i := r.read
	for i < len(r.text) && (unicode.IsSpace(r.text[i]) || r.text[i] == '#') {
		i++
	}
	r.from = i
	switch {
	case i >= len(r.text):
	case strings.ContainsRune("(),-–", r.text[i]):
		i++
	default:
		digits := unicode.IsDigit(r.text[i])
		for i < len(r.text) && !unicode.IsSpace(r.text[i]) && !strings.ContainsRune("(),-–#", r.text[i]) &&
			unicode.IsDigit(r.text[i]) == digits {
			i++
		}
	}
	r.to = i
	r.next = strings.ToLower(string(r.text[r.from:i]))
	return r.next
}

func (r *treeReader) take() string {
	w := r.word()
	r.read = r.to
	return w
}

func (r *treeReader) joined(depth int) (Tree, error) {
	start := r.read
	first, err := r.one(depth)
	if err != nil {
		return first, err
	}
	out := Tree{Parts: []Tree{first}}
	for {
		w := r.word()
		if w != "and" && w != "or" && w != "not" {
			break
		}
		if out.Join != "" && out.Join != w {
			return out, r.fault(
				"Here %s follows %s: brackets have to say which belongs together.",
				strings.ToUpper(w),
				strings.ToUpper(out.Join),
			)
		}
		out.Join = w
		r.take()
		next, err := r.one(depth)
		if err != nil {
			return next, err
		}
		out.Parts = append(out.Parts, next)
	}
	if len(out.Parts) == 1 {
		return first, nil
	}
	out.From, out.To = start, r.read
	return out, nil
}

const deepestTree = 20

func (r *treeReader) one(depth int) (Tree, error) {
	w := r.take()
	from := r.from
	switch {
	case w == "":
		return Tree{}, r.fault("Here the number of a line is missing.")
	case w == "(":
		if depth >= deepestTree {
			return Tree{}, r.fault("Brackets stand in each other at most %d deep.", deepestTree)
		}
		t, err := r.joined(depth + 1)
		if err != nil {
			return t, err
		}
		if r.take() != ")" {
			return t, r.fault("Here a bracket is missing.")
		}
		return t, nil
	case w == "any" || w == "all":
		if r.take() != "of" {
			return Tree{}, r.fault("Here OF is missing, as in any of 1-8.")
		}
		return r.list(w, from)
	}
	r.read = from
	return r.number()
}

// list reads numbers and runs of them with commas between, which any or all of join.
func (r *treeReader) list(word string, from int) (Tree, error) {
	out := Tree{Join: "or", From: from}
	if word == "all" {
		out.Join = "and"
	}
	for {
		first, err := r.number()
		if err != nil {
			return first, err
		}
		last := first
		if x := r.word(); x == "-" || x == "–" {
			r.take()
			if last, err = r.number(); err != nil {
				return last, err
			}
			if last.Number <= first.Number || last.Number-first.Number >= mostRun {
				return last, &TreeFault{
					from,
					r.to,
					fmt.Sprintf("A run goes from a lower to a higher number, over at most %d lines.", mostRun),
				}
			}
		}
		for n := first.Number; n <= last.Number; n++ {
			out.Parts = append(out.Parts, Tree{Number: n, From: first.From, To: last.To})
		}
		if r.word() != "," {
			break
		}
		r.take()
	}
	if out.To = r.read; len(out.Parts) < 2 {
		return out, r.fault("Here the last number of the run is missing, as in any of 1-8.")
	}
	return out, nil
}

// mostRun is over how many lines a run goes.
const mostRun = 500

func (r *treeReader) number() (Tree, error) {
	w := r.take()
	n := 0
	for _, c := range w {
		if c < '0' || c > '9' || n > 99_999 {
			n = 0
			break
		}
		n = n*10 + int(c-'0')
	}
	if n == 0 {
		return Tree{}, r.fault("Here the number of a line is missing.")
	}
	return Tree{Number: n, From: r.from, To: r.to}, nil
}
