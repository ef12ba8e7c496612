package sru

import (
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"math"
	"strconv"
	"strings"

	"golang.org/x/text/encoding/htmlindex"

	"tamiz/core/bib"
	"tamiz/exchange"
	"tamiz/exchange/dc"
	"tamiz/exchange/marcxml"
	"tamiz/exchange/mods"
	"tamiz/source"
)

// maxRecords is how many records of one answer are read.
const maxRecords = 10_000

// mostRecords is how many records a source may say it has for a question. No source has more, and nothing that is
// kept is larger.
const mostRecords = math.MaxInt32

// newDecoder reads XML in any usual encoding. A document type with entities of its own is not taken up:
// what it defines stays unknown, so it cannot grow.
func newDecoder(r io.Reader) *xml.Decoder {
	d := xml.NewDecoder(r)
	d.CharsetReader = func(label string, in io.Reader) (io.Reader, error) {
		e, err := htmlindex.Get(label)
		if err != nil {
			return nil, fmt.Errorf("the encoding %q is not known", label)
		}
		return e.NewDecoder().Reader(in), nil
	}
	return d
}

// root finds the first element and refuses one that is no answer of the protocol.
func root(d *xml.Decoder, wanted string) (xml.StartElement, error) {
	for {
		t, err := d.Token()
		if err != nil {
			if errors.Is(err, io.EOF) {
				err = errors.New("the answer is empty")
			}
			return xml.StartElement{}, err
		}
		if e, ok := t.(xml.StartElement); ok {
			switch e.Name.Local {
			case wanted:
				return e, nil
			case "html":
				return e, errors.New("it is a web page")
			case "diagnostics", "diagnostic", "searchRetrieveResponse", "explainResponse", "scanResponse":
				return e, nil
			}
			return e, fmt.Errorf("it begins with <%s>", e.Name.Local)
		}
	}
}

// children calls visit for each element inside the one that has begun, until that ends. visit has to read
// its element to the end.
func children(d *xml.Decoder, visit func(e xml.StartElement) error) error {
	for {
		t, err := d.Token()
		if err != nil {
			return err
		}
		switch e := t.(type) {
		case xml.StartElement:
			if err := visit(e); err != nil {
				return err
			}
		case xml.EndElement:
			return nil
		}
	}
}

type diagnostic struct {
	URI     string `xml:"uri"`
	Details string `xml:"details"`
	Message string `xml:"message"`
}

func (d diagnostic) saying() source.Saying {
	s := source.Saying{Text: strings.TrimSpace(d.Message), Detail: strings.TrimSpace(d.Details)}
	uri := strings.TrimSpace(d.URI)
	s.Number, _ = strconv.Atoi(uri[strings.LastIndexByte(uri, '/')+1:]) // none, where it ends otherwise
	if s.Text == "" {
		s.Text = DiagnosticText[s.Number]
	}
	return s
}

func readPage(r io.Reader, start int) (*source.Page, error) {
	page := &source.Page{Total: -1}
	in := &perRecord{r: r}
	d := newDecoder(in)
	top, err := root(d, "searchRetrieveResponse")
	if err != nil {
		return page, err
	}
	var refused []source.Saying
	next := start
	said := func(e xml.StartElement) error {
		if e.Name.Local != "diagnostic" {
			return skip(d)
		}
		var x diagnostic
		if err := d.DecodeElement(&x, &e); err != nil {
			return err
		}
		refused = append(refused, x.saying())
		return nil
	}
	if top.Name.Local == "diagnostics" {
		err = children(d, said)
	} else {
		err = children(d, func(e xml.StartElement) error {
			switch e.Name.Local {
			case "numberOfRecords":
				var n string
				if err := d.DecodeElement(&n, &e); err != nil {
					return err
				}
				if page.Total, err = strconv.Atoi(strings.TrimSpace(n)); err != nil || page.Total < 0 || page.Total > mostRecords {
					page.Total = -1
					return fmt.Errorf("the number of records is %q", n)
				}
				return nil
			case "records":
				return children(d, func(e xml.StartElement) error {
					if e.Name.Local != "record" {
						return skip(d)
					}
					if len(page.Records) >= maxRecords {
						return fmt.Errorf("more than %d records in one answer", maxRecords)
					}
					in.begin(true)
					got, err := readRecord(d, next)
					in.begin(false)
					if err == nil || got.Record != nil || got.Trouble != "" {
						page.Records = append(page.Records, got)
						next = got.Position + 1
					}
					return err
				})
			case "echoedSearchRetrieveRequest":
				return children(d, func(e xml.StartElement) error {
					if e.Name.Local != "query" {
						return skip(d)
					}
					return d.DecodeElement(&page.Echoed, &e)
				})
			case "diagnostics":
				return children(d, said)
			case "extraResponseData":
				return leaves(d, 0, func(text string) { page.Said = append(page.Said, source.Saying{Text: text}) })
			}
			return skip(d)
		})
	}
	if len(refused) > 0 && page.Total <= 0 && len(page.Records) == 0 {
		page.Said, page.Total = append(page.Said, refused...), -1
		return page, &source.Refusal{Saying: refused[0]}
	}
	page.Said = append(page.Said, refused...)
	if err == nil && page.Total < 0 {
		err = errors.New("it does not say how many records there are")
	}
	return page, err
}

// maxDepth is how deep elements that mean nothing to us may stand in each other.
const maxDepth = 100

// leaves calls visit with the text of each element that holds text alone.
func leaves(d *xml.Decoder, depth int, visit func(text string)) error {
	if depth > maxDepth {
		return errDeep
	}
	var text strings.Builder
	inner := false
	for {
		t, err := d.Token()
		if err != nil {
			return err
		}
		switch e := t.(type) {
		case xml.StartElement:
			inner = true
			if err := leaves(d, depth+1, visit); err != nil {
				return err
			}
		case xml.CharData:
			if text.Len() < 4096 {
				text.Write(e)
			}
		case xml.EndElement:
			if s := strings.Join(strings.Fields(text.String()), " "); s != "" && !inner {
				visit(s)
			}
			return nil
		}
	}
}

// readRecord reads one record element. A record that cannot be taken is a Got with its trouble; an error
// is one after which the answer cannot be read on.
func readRecord(d *xml.Decoder, position int) (source.Got, error) {
	got := source.Got{Position: position}
	err := children(d, func(e xml.StartElement) error {
		switch e.Name.Local {
		case "recordPosition":
			var s string
			if err := d.DecodeElement(&s, &e); err != nil {
				return err
			}
			if n, err := strconv.Atoi(strings.TrimSpace(s)); err == nil && n > 0 {
				got.Position = n
			}
			return nil
		case "recordData":
			return readData(d, &got)
		}
		return skip(d)
	})
	if got.Record == nil && got.Trouble == "" && err == nil {
		got.Trouble = "no record in it"
	}
	return got, err
}

// readData reads a record that stands in the answer as XML or, escaped, as text.
func readData(d *xml.Decoder, got *source.Got) error {
	var text strings.Builder
	for {
		t, err := d.Token()
		if err != nil {
			return err
		}
		switch e := t.(type) {
		case xml.StartElement:
			if err := readBody(d, e, got, 0); err != nil {
				return err
			}
		case xml.CharData:
			text.Write(e)
		case xml.EndElement:
			if s := strings.TrimSpace(text.String()); s != "" && got.Record == nil && got.Trouble == "" {
				inner := newDecoder(strings.NewReader(s))
				for got.Record == nil && got.Trouble == "" {
					t, err := inner.Token()
					if err != nil {
						got.Trouble = "it is no record that can be read"
						break
					}
					if e, ok := t.(xml.StartElement); ok {
						if err := readBody(inner, e, got, 0); err != nil {
							got.Trouble = "it cannot be read: " + exchange.InWords(err)
						}
					}
				}
			}
			return nil
		}
	}
}

func readBody(d *xml.Decoder, e xml.StartElement, got *source.Got, depth int) (err error) {
	if depth > maxDepth {
		return errDeep
	}
	if got.Record != nil || got.Trouble != "" {
		return skip(d) // one place holds one record: what stands behind it is no other
	}
	var r *bib.Record
	switch e.Name.Local {
	case "mods":
		r, err = mods.Decode(d, e)
	case "dc":
		r, err = dc.Decode(d, e)
	case "record":
		r, err = marcxml.Decode(d, e)
	case "modsCollection", "collection":
		return children(d, func(e xml.StartElement) error { return readBody(d, e, got, depth+1) })
	case "diagnostic":
		var x diagnostic
		if err := d.DecodeElement(&x, &e); err != nil {
			return err
		}
		got.Trouble = (&source.Refusal{Saying: x.saying()}).Error()
		return nil
	default:
		got.Trouble = fmt.Sprintf("records in <%s> are not known", e.Name.Local)
		return skip(d)
	}
	if err != nil {
		return err
	}
	exchange.Tidy(r, exchange.Plain)
	if r.Title == "" && r.Abstract == "" && r.Accession == "" && r.DOI == "" {
		got.Trouble = "it is no record: it has neither a title nor anything to know it by"
		return nil
	}
	got.Record = r
	return nil
}

func readEntries(r io.Reader) ([]source.Entry, error) {
	d := newDecoder(r)
	if _, err := root(d, "scanResponse"); err != nil {
		return nil, err
	}
	var out []source.Entry
	var refused *source.Refusal
	err := children(d, func(e xml.StartElement) error {
		switch e.Name.Local {
		case "terms":
			return children(d, func(e xml.StartElement) error {
				var t struct {
					Value   string `xml:"value"`
					Records string `xml:"numberOfRecords"`
				}
				if err := d.DecodeElement(&t, &e); err != nil {
					return err
				}
				n, _ := strconv.Atoi(strings.TrimSpace(t.Records)) // not every source counts
				out = append(out, source.Entry{Term: strings.TrimSpace(t.Value), Records: n})
				return nil
			})
		case "diagnostics":
			return children(d, func(e xml.StartElement) error {
				var x diagnostic
				if err := d.DecodeElement(&x, &e); err != nil {
					return err
				}
				refused = &source.Refusal{Saying: x.saying()}
				return nil
			})
		}
		return skip(d)
	})
	if refused != nil {
		return nil, refused
	}
	return out, err
}
