package skos

import (
	"encoding/json"
	"fmt"
	"io"

	"github.com/piprate/json-gold/ld"
)

// maxJSON is how large a JSON-LD file may be: its meaning may depend on what stands at its end, so it is
// read whole.
const maxJSON = 256 << 20

// readJSONLD reads JSON-LD 1.1. A context has to stand in the file: nothing is fetched.
func readJSONLD(r io.Reader, c *collector) error {
	limited := &io.LimitedReader{R: r, N: maxJSON + 1}
	var document any
	d := json.NewDecoder(limited)
	if err := d.Decode(&document); err != nil {
		if limited.N <= 0 {
			return fmt.Errorf("a vocabulary in JSON-LD has at most %d MB; N-Triples and RDF/XML may be larger", maxJSON>>20)
		}
		return fmt.Errorf("byte %d: %w", d.InputOffset(), err)
	}
	options := ld.NewJsonLdOptions("")
	options.DocumentLoader = nowhere{}
	expanded, err := expand(document, options)
	if err != nil {
		return fmt.Errorf("no JSON-LD: %w", err)
	}
	w := jsonWalk{c: c}
	return w.all(expanded, 0)
}

// expand answers also for documents that the library was not written for.
func expand(document any, options *ld.JsonLdOptions) (out []any, err error) {
	defer func() {
		if wrong := recover(); wrong != nil {
			err = fmt.Errorf("%v", wrong)
		}
	}()
	return ld.NewJsonLdProcessor().Expand(document, options)
}

// nowhere refuses to load anything.
type nowhere struct{}

func (nowhere) LoadDocument(address string) (*ld.RemoteDocument, error) {
	return nil, fmt.Errorf("the context %q is not in the file, and nothing is fetched", address)
}

// A jsonWalk goes through an expanded document.
type jsonWalk struct {
	c     *collector
	blank int
}

func (w *jsonWalk) all(values []any, depth int) error {
	for _, v := range values {
		if n, ok := v.(map[string]any); ok {
			if _, err := w.node(n, depth); err != nil {
				return err
			}
		}
	}
	return nil
}

// node says what a node object says and returns its address.
func (w *jsonWalk) node(n map[string]any, depth int) (string, error) {
	if depth > maxDepth {
		return "", fmt.Errorf("nodes stand more than %d deep in each other", maxDepth)
	}
	id, _ := n["@id"].(string)
	if id == "" {
		w.blank++
		id = fmt.Sprintf("_:j%d", w.blank)
	}
	for key, v := range n {
		values, _ := v.([]any)
		switch key {
		case "@graph", "@included":
			if err := w.all(values, depth+1); err != nil {
				return "", err
			}
		case "@type":
			for _, t := range values {
				if t, ok := t.(string); ok {
					if err := w.c.add(triple{subject: id, predicate: rdf + "type", object: t}, 0); err != nil {
						return "", err
					}
				}
			}
		case "@reverse":
			continue
		}
	}
	for _, name := range properties {
		values, _ := n[name].([]any)
		for _, v := range values {
			if err := w.value(id, name, v, depth); err != nil {
				return "", err
			}
		}
	}
	return id, nil
}

// properties are those that count, in an order that does not depend on chance.
var properties = []string{
	core + "prefLabel",
	core + "altLabel",
	core + "hiddenLabel",
	core + "scopeNote",
	core + "definition",
	core + "historyNote",
	core + "changeNote",
	core + "notation",
	core + "broader",
	core + "narrower",
	core + "related",
	core + "exactMatch",
	core + "closeMatch",
	core + "member",
	dct + "issued",
	dct + "created",
	dct + "replaces",
	dct + "isReplacedBy",
	owl + "deprecated",
}

func (w *jsonWalk) value(subject, predicate string, v any, depth int) error {
	m, ok := v.(map[string]any)
	if !ok {
		return nil
	}
	if list, ok := m["@list"].([]any); ok {
		for _, v := range list {
			if err := w.value(subject, predicate, v, depth+1); err != nil {
				return err
			}
		}
		return nil
	}
	if words, ok := m["@value"]; ok {
		language, _ := m["@language"].(string)
		return w.c.add(
			triple{subject: subject, predicate: predicate, object: fmt.Sprint(words), language: language, literal: true},
			0,
		)
	}
	object, err := w.node(m, depth+1)
	if err != nil {
		return err
	}
	return w.c.add(triple{subject: subject, predicate: predicate, object: object}, 0)
}
