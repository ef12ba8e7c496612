package skos

import (
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"net/url"
	"strings"
)

const xmlns = "http://www.w3.org/XML/1998/namespace"

// readRDFXML reads RDF 1.1 XML as a stream. Elements are nodes and properties in turn.
func readRDFXML(r io.Reader, c *collector) error {
	d := xml.NewDecoder(r)
	// it is UTF-8 by now, whatever it says
	d.CharsetReader = func(_ string, in io.Reader) (io.Reader, error) { return in, nil }
	x := &rdfReader{d: d, c: c}
	for {
		token, err := d.Token()
		if errors.Is(err, io.EOF) {
			if !x.any {
				return errors.New("the XML holds no RDF")
			}
			return nil
		}
		if err != nil {
			return x.wrong(err)
		}
		start, ok := token.(xml.StartElement)
		if !ok {
			continue
		}
		x.any = true
		if start.Name.Space == rdf && start.Name.Local == "RDF" {
			x.scope = x.scope.within(start)
			continue // its children are nodes, read by this loop; its scope holds for all of them
		}
		if _, err := x.node(start, x.scope, 0); err != nil {
			return x.wrong(err)
		}
	}
}

type rdfReader struct {
	d     *xml.Decoder
	c     *collector
	scope scope
	any   bool
	blank int
}

// A scope is what elements inherit: the base of addresses and the language.
type scope struct{ base, language string }

func (s scope) within(e xml.StartElement) scope {
	for _, a := range e.Attr {
		if a.Name.Space == xmlns || a.Name.Space == "xml" {
			switch a.Name.Local {
			case "base":
				s.base = a.Value
			case "lang":
				s.language = a.Value
			}
		}
	}
	return s
}

func (s scope) resolve(address string) string {
	base, err := url.Parse(s.base)
	if err != nil || s.base == "" {
		return address
	}
	to, err := base.Parse(address)
	if err != nil {
		return address
	}
	return to.String()
}

func (x *rdfReader) wrong(err error) error {
	line, _ := x.d.InputPos()
	return fmt.Errorf("line %d: %w", line, err)
}

func (x *rdfReader) say(subject, predicate, object string) error {
	line, _ := x.d.InputPos()
	return x.c.add(triple{subject: subject, predicate: predicate, object: object}, line)
}

func (x *rdfReader) words(subject, predicate, value, language string) error {
	line, _ := x.d.InputPos()
	return x.c.add(triple{subject: subject, predicate: predicate, object: value, language: language, literal: true}, line)
}

// maxDepth is how deep nodes may stand in each other.
const maxDepth = 200

func (x *rdfReader) newBlank() string {
	x.blank++
	return fmt.Sprintf("_:b%d", x.blank)
}

// node reads a node element up to its end and returns its address.
func (x *rdfReader) node(e xml.StartElement, outer scope, depth int) (string, error) {
	if depth > maxDepth {
		return "", fmt.Errorf("elements stand more than %d deep in each other", maxDepth)
	}
	in := outer.within(e)
	subject := ""
	for _, a := range e.Attr {
		if a.Name.Space == rdf {
			switch a.Name.Local {
			case "about":
				subject = in.resolve(a.Value)
			case "ID":
				subject = in.resolve("#" + a.Value)
			case "nodeID":
				subject = "_:" + a.Value
			}
		}
	}
	if subject == "" {
		subject = x.newBlank()
	}
	if name := e.Name.Space + e.Name.Local; name != rdf+"Description" {
		if err := x.say(subject, rdf+"type", name); err != nil {
			return "", err
		}
	}
	for _, a := range e.Attr {
		switch {
		case a.Name.Space == rdf && a.Name.Local == "type":
			if err := x.say(subject, rdf+"type", in.resolve(a.Value)); err != nil {
				return "", err
			}
		case a.Name.Space == core:
			if err := x.words(subject, core+a.Name.Local, a.Value, in.language); err != nil {
				return "", err
			}
		}
	}
	return subject, x.properties(subject, in, depth)
}

// properties reads the property elements of a node up to its end.
func (x *rdfReader) properties(subject string, in scope, depth int) error {
	for {
		token, err := x.d.Token()
		if err != nil {
			return unfinished(err)
		}
		switch token := token.(type) {
		case xml.StartElement:
			if err := x.property(subject, token, in, depth); err != nil {
				return err
			}
		case xml.EndElement:
			return nil
		}
	}
}

func unfinished(err error) error {
	if errors.Is(err, io.EOF) {
		return io.ErrUnexpectedEOF
	}
	return err
}

// property reads a property element up to its end: an address, words, or nodes within.
func (x *rdfReader) property(subject string, e xml.StartElement, outer scope, depth int) error {
	in := outer.within(e)
	predicate := e.Name.Space + e.Name.Local
	object, parse := "", ""
	for _, a := range e.Attr {
		if a.Name.Space != rdf {
			continue
		}
		switch a.Name.Local {
		case "resource":
			object = in.resolve(a.Value)
		case "nodeID":
			object = "_:" + a.Value
		case "parseType":
			parse = a.Value
		}
	}
	if object != "" {
		if err := x.say(subject, predicate, object); err != nil {
			return err
		}
		return x.d.Skip()
	}
	switch parse {
	case "Literal":
		return x.d.Skip()
	case "Resource":
		object := x.newBlank()
		if err := x.say(subject, predicate, object); err != nil {
			return err
		}
		return x.properties(object, in, depth+1)
	}
	var words strings.Builder
	nodes := false
	for {
		token, err := x.d.Token()
		if err != nil {
			return unfinished(err)
		}
		switch token := token.(type) {
		case xml.CharData:
			if !nodes && words.Len() <= maxText {
				words.Write(token)
			}
		case xml.StartElement:
			nodes = true
			object, err := x.node(token, in, depth+1)
			if err != nil {
				return err
			}
			if err := x.say(subject, predicate, object); err != nil {
				return err
			}
		case xml.EndElement:
			if nodes {
				return nil
			}
			return x.words(subject, predicate, words.String(), in.language)
		}
	}
}
