// Package skos reads controlled vocabularies in SKOS (W3C Recommendation of 18 August 2009), written as
// N-Triples, RDF/XML or JSON-LD. The first two are read as streams: only what belongs to the vocabulary
// is kept in memory.
package skos

import (
	"bufio"
	"bytes"
	"cmp"
	"errors"
	"fmt"
	"io"
	"regexp"
	"strings"

	"tamiz/core/text"
	"tamiz/core/thesaurus"
	"tamiz/exchange"
	"tamiz/exchange/packed"
)

// Limits of what is read; a larger vocabulary is refused.
const (
	MaxConcepts = 1_000_000
	maxTexts    = 10_000  // of one concept, and as many links
	maxText     = 1 << 20 // bytes of one of its texts
)

// ErrNone is the answer to a file that holds no vocabulary.
var ErrNone = errors.New("the file holds no SKOS concept with a label")

// Read reads a vocabulary. What cannot be taken as it stands is told to report, which may be nil; a file
// without a concept, or one that breaks off, is an error.
func Read(r io.Reader, report func(exchange.Notice)) ([]thesaurus.Concept, error) {
	if report == nil {
		report = func(exchange.Notice) {}
	}
	c := newCollector(report)
	if err := c.read(r); err != nil {
		return nil, err
	}
	return c.concepts()
}

// read takes in a file, in whichever of the three forms it is.
func (c *collector) read(r io.Reader) error {
	in := bufio.NewReaderSize(r, 64<<10)
	head, err := in.Peek(4096)
	if err != nil && !errors.Is(err, io.EOF) && !errors.Is(err, bufio.ErrBufferFull) {
		return err
	}
	switch head = bytes.TrimLeft(head, " \t\r\n"); {
	case len(head) == 0:
		return errors.New("the file is empty")
	case head[0] == '{' || head[0] == '[':
		return readJSONLD(in, c)
	case beginsXML.Match(head):
		return readRDFXML(in, c)
	}
	return readNTriples(in, c)
}

// Load reads a vocabulary file, packed or not, in any encoding and makes a thesaurus of it, in the given language or,
// when that is empty, in that of most labels. What is mended in it is told to report, which may be nil. An archive with
// several files is one vocabulary in parts.
func Load(file io.ReadSeeker, language string, report func(exchange.Notice)) (*thesaurus.Thesaurus, error) {
	if report == nil {
		report = func(exchange.Notice) {}
	}
	parts, err := packed.Open(file)
	if err != nil {
		return nil, err
	}
	c := newCollector(report)
	for _, p := range parts {
		decoded, encoding, err := exchange.Decode(p.File)
		if err == nil {
			if encoding == exchange.Windows1252 {
				report(exchange.Notice{Kind: exchange.OtherEncoding, Detail: encoding})
			}
			err = c.read(decoded)
		}
		if err != nil && len(parts) > 1 {
			err = fmt.Errorf("%s: %w", p.Name, err)
		}
		if err != nil {
			return nil, err
		}
	}
	concepts, err := c.concepts()
	if err != nil {
		return nil, err
	}
	t, troubles := thesaurus.Build(concepts, language)
	for _, x := range troubles {
		report(Notice(x))
	}
	if t.Len() == 0 {
		return nil, ErrNone
	}
	return t, nil
}

// Notice returns what is wrong with a vocabulary as readers report it.
func Notice(x thesaurus.Trouble) exchange.Notice {
	detail := x.Concept
	if x.Detail != "" {
		detail = x.Detail + ", " + x.Concept
	}
	return exchange.Notice{Kind: exchange.Kind(x.Kind), Detail: detail, Skipped: x.Kind == thesaurus.NoLabel}
}

// beginsXML tells XML, whose outermost tag names its namespaces in attributes, from an address in
// N-Triples.
var beginsXML = regexp.MustCompile(`^<(\?|!|[A-Za-z_][\w.-]*(:[\w.-]+)?\s+[\w:.-]+\s*=)`)

const (
	rdf  = "http://www.w3.org/1999/02/22-rdf-syntax-ns#"
	core = "http://www.w3.org/2004/02/skos/core#"
	dct  = "http://purl.org/dc/terms/"
	owl  = "http://www.w3.org/2002/07/owl#"
)

// beside are the properties of other vocabularies that count, as they are told apart here: when a concept came in,
// what was used before it and is used now, and that it is not given any more (DCMI Metadata Terms; OWL 2).
var beside = map[string]string{
	dct + "issued":       "issued",
	dct + "created":      "created",
	dct + "replaces":     "replaces",
	dct + "isReplacedBy": "isReplacedBy",
	owl + "deprecated":   "deprecated",
}

// A triple is one statement. The object is an address or, when literal, words.
type triple struct {
	subject, predicate, object string
	language                   string
	literal                    bool
}

// A collector keeps what triples say of concepts, in the order in which they are first named.
type collector struct {
	report  func(exchange.Notice)
	order   []*node
	byID    map[string]*node
	members map[string][]string // of collections
}

type node struct {
	thesaurus.Concept
	concept, other bool // said to be one; said to be something else
	links          int
}

func newCollector(report func(exchange.Notice)) *collector {
	return &collector{report: report, byID: map[string]*node{}, members: map[string][]string{}}
}

func (c *collector) node(id string) *node {
	n := c.byID[id]
	if n == nil {
		n = &node{}
		n.ID = id
		c.byID[id] = n
		c.order = append(c.order, n)
	}
	return n
}

// add takes in a statement; line is where it stands, 0 when that is not known.
func (c *collector) add(t triple, line int) error {
	name, ok := strings.CutPrefix(t.predicate, core)
	if !ok {
		name, ok = beside[t.predicate]
	}
	if !ok && t.predicate != rdf+"type" {
		return nil
	}
	if len(c.order) >= MaxConcepts {
		return fmt.Errorf("line %d: a vocabulary has at most %d concepts", line, MaxConcepts)
	}
	if !ok {
		switch t.object {
		case core + "Concept":
			c.node(t.subject).concept = true
		case core + "ConceptScheme", core + "Collection", core + "OrderedCollection":
			c.node(t.subject).other = true
		}
		return nil
	}
	n := c.node(t.subject)
	if n.links++; n.links > maxTexts {
		if n.links == maxTexts+1 {
			c.report(exchange.Notice{Line: line, Kind: exchange.TooLarge, Detail: t.subject, Skipped: true})
		}
		return nil
	}
	if !t.literal {
		if name == "member" {
			c.members[t.subject] = append(c.members[t.subject], t.object)
		} else if put := links[name]; put != nil {
			list := put(n)
			*list = append(*list, t.object)
		}
		return nil
	}
	if len(t.object) > maxText {
		c.report(exchange.Notice{Line: line, Kind: exchange.TooLarge, Detail: t.subject, Skipped: true})
		return nil
	}
	if put := texts[name]; put != nil {
		put(n, thesaurus.Text{Value: strings.TrimSpace(t.object), Language: strings.ToLower(t.language)})
	}
	return nil
}

// links are the lists of a concept that lead to others, by what leads there.
var links = map[string]func(*node) *[]string{
	"broader":      func(n *node) *[]string { return &n.Broader },
	"narrower":     func(n *node) *[]string { return &n.Narrower },
	"related":      func(n *node) *[]string { return &n.Related },
	"replaces":     func(n *node) *[]string { return &n.Replaces },
	"isReplacedBy": func(n *node) *[]string { return &n.ReplacedBy },
	"exactMatch":   func(n *node) *[]string { return &n.Exact },
	"closeMatch":   func(n *node) *[]string { return &n.Close },
}

// texts are what is made of what a concept says in words.
var texts = map[string]func(*node, thesaurus.Text){
	"prefLabel":   func(n *node, w thesaurus.Text) { n.Labels = append(n.Labels, w) },
	"altLabel":    entryTerm,
	"hiddenLabel": entryTerm,
	"scopeNote": func(n *node, w thesaurus.Text) { // before any definition
		n.ScopeNotes = append([]thesaurus.Text{w}, n.ScopeNotes...)
	},
	"definition":  func(n *node, w thesaurus.Text) { n.ScopeNotes = append(n.ScopeNotes, w) },
	"historyNote": historyNote,
	"changeNote":  historyNote,
	"notation":    func(n *node, w thesaurus.Text) { n.Notation = w.Value },
	"issued":      func(n *node, w thesaurus.Text) { n.Since = w.Value },
	"created":     func(n *node, w thesaurus.Text) { n.Since = cmp.Or(n.Since, w.Value) },
	"deprecated":  func(n *node, w thesaurus.Text) { n.Retired = w.Value == "true" || w.Value == "1" },
}

func entryTerm(n *node, w thesaurus.Text) { n.EntryTerms = append(n.EntryTerms, w) }

func historyNote(n *node, w thesaurus.Text) { n.HistoryNotes = append(n.HistoryNotes, w) }

// concepts returns what was collected: everything said to be a concept, or that has a label and is said
// to be nothing else. The members of a collection of qualifiers are qualifiers.
func (c *collector) concepts() ([]thesaurus.Concept, error) {
	for id, members := range c.members {
		if !isQualifiers(c.byID[id]) {
			continue
		}
		for _, m := range members {
			if n := c.byID[m]; n != nil {
				n.Qualifier = true
			}
		}
	}
	var out []thesaurus.Concept
	labelled := false
	for _, n := range c.order {
		if n.concept || !n.other && len(n.Labels) > 0 {
			out = append(out, n.Concept)
			labelled = labelled || len(n.Labels) > 0
		}
	}
	if !labelled {
		return nil, ErrNone
	}
	return out, nil
}

// isQualifiers reports whether a collection says of itself that it is of qualifiers: SKOS has no
// property for that, so its label or the end of its address does.
func isQualifiers(n *node) bool {
	if n == nil {
		return false
	}
	names := []string{n.ID[strings.LastIndexAny(n.ID, "/#")+1:]}
	for _, l := range n.Labels {
		names = append(names, l.Value)
	}
	for _, name := range names {
		if strings.Contains(text.Label(name), "qualifier") {
			return true
		}
	}
	return false
}
