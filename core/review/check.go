package review

import (
	"fmt"
	"slices"
	"unicode/utf8"

	"tamiz/core/strategy"
)

// Limits of what a document may hold.
const (
	MostHandSearch = 1000   // journals
	MostParted     = 2000   // writings
	MostSeeds      = 200    // of one concept
	MostTest       = 20_000 // key studies of the test half
	MostOfName     = 80     // characters of who took a term
	MostWordings   = 50     // of a block
	MostOfNote     = 1000   // characters of the note on a term
	MostOfGroup    = 100    // of the name of a group of terms
	MostQuiet      = 20     // kinds of remarks that are not made of a term any more
)

// A Fault is what keeps a document from being kept: in which field, and in words. Err is what is behind it, where a
// term is refused.
type Fault struct {
	Field   string
	Message string
	Err     error
}

func (f *Fault) Error() string { return f.Message }

// Unwrap returns what is behind the fault.
func (f *Fault) Unwrap() error { return f.Err }

func fault(field, format string, args ...any) *Fault {
	return &Fault{Field: field, Message: fmt.Sprintf(format, args...)}
}

// Validate returns the first thing that keeps a document from being kept: a *Fault.
func (d Document) Validate() error {
	if err := d.Strategy("").Check(); err != nil {
		return &Fault{"document", err.Error(), err}
	}
	if err := longest(field{"question", d.Question, 5000}, field{"frame", d.Frame, 60}); err != nil {
		return err
	}
	if d.Order != strategy.ByConcept && d.Order != strategy.HeadingsLead && d.Order != strategy.TermsFirst {
		return fault("order", "There is no way %q of numbering lines.", d.Order)
	}
	if d.Halves != nil && len(d.Halves.Test) > MostTest {
		return fault("halves", "The test half has at most %d key studies.", MostTest)
	}
	if err := d.checkLists(); err != nil {
		return err
	}
	ids := ids{}
	for _, b := range d.Blocks {
		if err := b.check(ids); err != nil {
			return err
		}
	}
	return d.checkLines(ids)
}

// ids are those of blocks and terms: each has one of its own.
type ids map[string]bool

// take reports whether an id can be that of something more, and takes it.
func (x ids) take(id string) bool {
	free := id != "" && !x[id]
	x[id] = true
	return free
}

func (b Block) check(ids ids) error {
	if err := longest(field{"concept", b.Concept, 300}, field{"reason", b.Reason, 500}, field{"part", b.Part, 60},
		field{"name", b.Name, 3}); err != nil {
		return err
	}
	if b.Origin != nil && (b.Origin.Name == "" || len([]rune(b.Origin.Name)) > 200 || b.Origin.Version < 1) {
		return fault("origin", "A kept block has a name of 1 to 200 characters and a version above 0.")
	}
	if err := b.Wordings.check(b.Name); err != nil {
		return err
	}
	if len(b.Seeds) > MostSeeds {
		return fault("seeds", "A concept has at most %d seed words; %s has %d.", MostSeeds, b.Name, len(b.Seeds))
	}
	if !ids.take(b.ID) {
		return fault("blocks", "Each block needs an id of its own.")
	}
	for _, t := range b.Terms {
		if err := t.check(ids); err != nil {
			return err
		}
	}
	return nil
}

func (t Term) check(ids ids) error {
	if t.From != nil && (utf8.RuneCountInString(t.From.Who) > MostOfName+1 || len(t.From.At) > 40) {
		return fault("from", "Who took a term has at most %d characters, and when at most 40.", MostOfName)
	}
	if err := longest(field{"note", t.Note, MostOfNote}, field{"group", t.Group, MostOfGroup}); err != nil {
		return err
	}
	if len(t.Quiet) > MostQuiet || slices.ContainsFunc(t.Quiet, func(kind string) bool { return len(kind) > 40 }) {
		return fault("quiet", "At most %d kinds of remarks of a term are known.", MostQuiet)
	}
	if !ids.take(t.ID) {
		return fault("terms", "Each term needs an id of its own.")
	}
	return nil
}

func (d Document) checkLists() error {
	if len(d.HandSearch) > MostHandSearch {
		return fault("handSearch", "The hand-search list holds at most %d journals.", MostHandSearch)
	}
	journals := map[string]bool{}
	for _, h := range d.HandSearch {
		if h.Journal == "" || journals[h.Journal] {
			return fault("handSearch", "A journal stands in the hand-search list once.")
		}
		journals[h.Journal] = true
		if err := longest(field{"note", h.Note, 2000}, field{"name", h.Name, 1000}); err != nil {
			return err
		}
	}
	if len(d.Parted) > MostParted {
		return fault("parted", "At most %d writings of authors are parted.", MostParted)
	}
	for _, writing := range d.Parted {
		if err := longest(field{"parted", writing, 300}); err != nil {
			return err
		}
	}
	return nil
}

// A field is a text with how many characters it may have.
type field struct {
	name, value string
	most        int
}

func longest(fields ...field) error {
	for _, f := range fields {
		if n := utf8.RuneCountInString(f.value); n > f.most {
			return fault(f.name, "This text has %d characters; at most %d are kept.", n, f.most)
		}
	}
	return nil
}

func (w Wordings) check(block string) error {
	if len(w) > MostWordings {
		return fault("wordings", "A block is said in at most %d dialects of its own; %s in %d.", MostWordings, block, len(w))
	}
	for i, x := range w {
		if x.Dialect == "" || x.Query == "" || len([]rune(x.Dialect)) > 60 || len([]rune(x.Query)) > strategy.MostVerbatim {
			return fault("wordings", "A wording names its dialect and has 1 to %d characters.", strategy.MostVerbatim)
		}
		for _, y := range w[:i] {
			if x.Dialect == y.Dialect {
				return fault("wordings", "Block %s is said twice in %s.", block, x.Dialect)
			}
		}
	}
	return nil
}
