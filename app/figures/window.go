package figures

import (
	"cmp"
	"context"
	"math"
	"regexp"
	"slices"
	"strings"
	"unicode/utf8"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/strategy"
	"tamiz/core/tally"
)

// MostRows is how many rows of a tally are sent at once, beside those that somebody decided on, and as many that a term
// finds already, which step aside.
const MostRows = 10000

// A Window is which rows of a tally are wanted, and in what order. Its zero value is the first of all.
type Window struct {
	Words   string // that an item or a form of it holds; with * or ?, whole words that stand in it
	Sort    string // item, records, withNarrower, lift, pull or keys; "" is the tally's own order
	Down    bool
	Records Bounds
	Lift    Bounds
	Pull    Bounds
	Most    int // 1 to MostRows; 0 is MostRows
}

// Bounds are the least and the greatest that a figure may be; nil is any.
type Bounds struct{ From, To *float64 }

func (b Bounds) hold(of float64) bool {
	if math.IsNaN(of) {
		of = 0
	}
	return (b.From == nil || of >= *b.From) && (b.To == nil || of <= *b.To)
}

// TallyIn counts a facet of what is looked at and returns the rows of a window: the first of those that pass, in
// its order, and behind them all that somebody decided on or that a term finds already, whether they pass or not.
// Of how many they are taken is said (All, Passing, Sent).
func (a *Service) TallyIn(ctx context.Context, at desk.At, f tally.Facet, w Window) (*Tally, error) {
	pick, err := w.picks()
	if err != nil {
		return nil, err
	}
	c, err := a.counting(ctx, at, f)
	if err != nil {
		return nil, err
	}
	t := c.head
	in, out := pick(c.Len(), c.brief)
	t.Passing = len(in)
	most := MostRows
	if w.Most > 0 {
		most = min(w.Most, MostRows)
	}
	first := min(most, len(in))
	if w.Most == 0 { // who asks for so many rows gets the first of them
		in, first = piecesLast(in, most, func(place int32) bool { return c.Piece(c.at(place)) })
	}
	t.Rows, t.Sent = make([]TallyRow, first), first
	for i, place := range in[:first] {
		t.Rows[i] = c.whole(place)
	}
	rest := append(in[first:len(in):len(in)], out...)
	if len(rest) == 0 {
		return &t, nil
	}
	told, err := a.told(ctx, c, at)
	if err != nil {
		return nil, err
	}
	found, err := c.foundAlready(ctx)
	if err != nil {
		return nil, err
	}
	for i, place := range rest {
		if i&1023 == 0 && ctx.Err() != nil {
			return nil, ctx.Err()
		}
		n := c.at(place)
		if told(n) || len(t.Rows) < first+MostRows && found.Contains(uint32(n)) {
			t.Rows = append(t.Rows, c.whole(place))
			if i < len(in)-first {
				t.Sent++
			}
		}
	}
	return &t, nil
}

// piecesLast returns rows with the first of them, at most so many, in front, each part in its order: where they are
// not all, pieces of sentences are the first to be left out, since nobody would type them.
func piecesLast(rows []int32, most int, isPiece func(int32) bool) ([]int32, int) {
	if len(rows) <= most {
		return rows, len(rows)
	}
	whole, piece := 0, make([]bool, len(rows))
	for i, r := range rows {
		if piece[i] = isPiece(r); !piece[i] {
			whole++
		}
	}
	pieces := max(0, most-whole) // that there is room for
	var first, rest []int32
	for i, r := range rows {
		switch {
		case len(first) == most || piece[i] && pieces == 0:
			rest = append(rest, r)
			continue
		case piece[i]:
			pieces--
		}
		first = append(first, r)
	}
	return append(first, rest...), len(first)
}

// picks returns how rows, of which there are so many, are parted into those that are wanted, in their order, and
// all others. The browser does the same with what it was sent: testdata/rows.json holds the two together.
func (w Window) picks() (func(n int, row func(int32) brief) (in, out []int32), error) {
	matches, err := matcher(w.Words)
	if err != nil {
		return nil, err
	}
	return func(n int, row func(int32) brief) (in, out []int32) {
		var items []string
		var figures []float64
		of, sorted := columns[w.Sort]
		for i := range int32(n) {
			r := row(i)
			if !matches(r) || !w.Records.hold(float64(r.records)) || !w.Lift.hold(r.lift) || !w.Pull.hold(r.pull) {
				out = append(out, i)
				continue
			}
			in = append(in, i)
			switch {
			case sorted:
				figures = append(figures, of(r))
			case w.Sort == "item":
				items = append(items, r.item)
			}
		}
		switch {
		case sorted:
			return inOrder(in, figures, w.Down), out
		case w.Sort == "item":
			return inOrder(in, items, w.Down), out
		}
		return in, out
	}, nil
}

// inOrder returns rows by what each is sorted by; what is alike stays as it stands.
func inOrder[K cmp.Ordered](rows []int32, by []K, down bool) []int32 {
	order := make([]int, len(rows))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int {
		if down {
			a, b = b, a
		}
		return cmp.Compare(by[a], by[b])
	})
	out := make([]int32, len(rows))
	for i, k := range order {
		out[i] = rows[k]
	}
	return out
}

// A brief is what a row is picked and sorted by. It takes no memory of its own: there may be a million.
type brief struct {
	item                           string
	forms                          func() []string
	records                        int
	lift, pull, keys, withNarrower float64
}

// absent is a figure that is not to be had.
var absent = math.NaN()

// columns are the figures that rows are sorted by; what a row has none of is below every other, as cmp.Compare has it.
var columns = map[string]func(brief) float64{
	"records":      func(r brief) float64 { return float64(r.records) },
	"withNarrower": func(r brief) float64 { return r.withNarrower },
	"keys":         func(r brief) float64 { return r.keys },
	"lift":         func(r brief) float64 { return r.lift },
	"pull":         func(r brief) float64 { return r.pull },
}

const longestFilter = 200 // characters

// matcher reads what rows are filtered for: letters that stand in them, or with * and ? whole words in a row, of two
// letters or more each.
func matcher(typed string) (func(brief) bool, error) {
	wanted := strings.ToLower(strings.TrimSpace(typed))
	if wanted == "" {
		return func(brief) bool { return true }, nil
	}
	if utf8.RuneCountInString(wanted) > longestFilter {
		return nil, problems.Invalid("words", "rows are filtered for at most %d characters", longestFilter)
	}
	holds := func(item string) bool { return strings.Contains(strings.ToLower(item), wanted) }
	if strings.ContainsAny(wanted, "*?") {
		words := strings.Fields(wanted)
		for i, word := range words {
			if strings.ContainsAny(word, "*?") && utf8.RuneCountInString(strings.Map(letters, word)) < 2 {
				return nil, problems.Invalid("words", "a word with a sign has two letters or more beside it: %s", word)
			}
			word = regexp.QuoteMeta(word)
			for strings.Contains(word, `\*\*`) {
				word = strings.ReplaceAll(word, `\*\*`, `\*`)
			}
			words[i] = strings.NewReplacer(`\*`, `\S*`, `\?`, `\S`).Replace(word)
		}
		whole, err := regexp.Compile(`(?:^|\s)` + strings.Join(words, `\s+`) + `(?:\s|$)`)
		if err != nil {
			return nil, problems.Invalid("words", "this filter cannot be read: %s", typed)
		}
		holds = func(item string) bool { return whole.MatchString(strings.ToLower(item)) }
	}
	return func(r brief) bool { return holds(r.item) || slices.ContainsFunc(r.forms(), holds) }, nil
}

func letters(r rune) rune {
	if r == '*' || r == '?' {
		return -1
	}
	return r
}

// told returns whether somebody decided on a row, by its number: parked or dropped it, or took it as a term.
func (a *Service) told(ctx context.Context, c *counting, at desk.At) (func(row int) bool, error) {
	decided, err := a.decided(ctx, at, c.Facet)
	if err != nil {
		return nil, err
	}
	for _, b := range c.desk.Strategy.Blocks {
		for _, t := range b.Terms {
			switch {
			case t.Kind == strategy.HeadingTerm && c.Facet == tally.Headings:
				decided[c.key(t.Heading)] = true
			case t.Kind == strategy.TextTerm && c.Facet != tally.Headings:
				decided[c.key(strings.ToLower(t.Text))] = true
			}
		}
	}
	if c.Facet != tally.Words {
		return func(row int) bool { return decided[c.key(c.Row(row).Item)] }, nil
	}
	rows := map[int]bool{} // few are decided on, of very many
	for item := range decided {
		if i, ok := c.Find(item); ok {
			rows[i] = true
		}
	}
	return func(row int) bool { return rows[row] }, nil
}
