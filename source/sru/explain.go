package sru

import (
	"encoding/xml"
	"errors"
	"io"
	"strconv"
	"strings"

	"tamiz/source"
)

// explain is a ZeeRex record, as far as it says how a source is asked.
type explain struct {
	Server struct {
		Version string `xml:"version,attr"`
	} `xml:"serverInfo"`
	Database struct {
		Titles       []string `xml:"title"`
		Descriptions []string `xml:"description"`
	} `xml:"databaseInfo"`
	Indexes []struct {
		Scan   string   `xml:"scan,attr"`
		Sort   string   `xml:"sort,attr"`
		Search string   `xml:"search,attr"`
		Titles []string `xml:"title"`
		Maps   []struct {
			Names []struct {
				Set  string `xml:"set,attr"`
				Name string `xml:",chardata"`
			} `xml:"name"`
		} `xml:"map"`
	} `xml:"indexInfo>index"`
	Schemas []struct {
		Name       string   `xml:"name,attr"`
		Identifier string   `xml:"identifier,attr"`
		Titles     []string `xml:"title"`
	} `xml:"schemaInfo>schema"`
	Defaults []setting `xml:"configInfo>default"`
	Settings []setting `xml:"configInfo>setting"`
	Supports []setting `xml:"configInfo>supports"`
}

type setting struct {
	Type  string `xml:"type,attr"`
	Value string `xml:",chardata"`
}

func readExplain(r io.Reader) (*source.Description, error) {
	d := newDecoder(r)
	top, err := root(d, "explain")
	if err != nil {
		return nil, err
	}
	var found *explain
	var refused *source.Refusal
	version := ""
	depth := 0
	var visit func(e xml.StartElement) error
	visit = func(e xml.StartElement) error {
		if depth++; depth > maxDepth {
			return errDeep
		}
		defer func() { depth-- }()
		switch e.Name.Local {
		case "explain":
			found = &explain{}
			return d.DecodeElement(found, &e)
		case "version":
			return d.DecodeElement(&version, &e)
		case "record", "recordData", "diagnostics":
			return children(d, visit)
		case "diagnostic":
			var x diagnostic
			if err := d.DecodeElement(&x, &e); err != nil {
				return err
			}
			refused = &source.Refusal{Saying: x.saying()}
			return nil
		}
		return skip(d)
	}
	if top.Name.Local == "explain" {
		err = visit(top)
	} else {
		err = children(d, visit)
	}
	if err != nil {
		return nil, err
	}
	if refused != nil && found == nil {
		return nil, refused
	}
	if found == nil {
		return nil, errors.New("it holds no description of the source")
	}
	return found.description(strings.TrimSpace(version)), nil
}

func (x *explain) description(version string) *source.Description {
	d := &source.Description{Version: version, Supports: map[string][]string{}}
	if d.Version == "" {
		d.Version = strings.TrimSpace(x.Server.Version)
	}
	d.Title, d.About = first(x.Database.Titles), first(x.Database.Descriptions)
	for _, ix := range x.Indexes {
		if ix.Search == "false" {
			continue
		}
		for _, m := range ix.Maps {
			for _, n := range m.Names {
				name := strings.TrimSpace(n.Name)
				if name == "" {
					continue
				}
				if n.Set != "" && !strings.HasPrefix(name, n.Set+".") {
					name = n.Set + "." + name
				}
				d.Indexes = append(
					d.Indexes,
					source.Index{Name: name, Title: first(ix.Titles), Scan: ix.Scan == "true", Sort: ix.Sort == "true"},
				)
			}
		}
	}
	for _, s := range x.Schemas {
		d.Schemas = append(d.Schemas, source.Schema{Name: s.Name, Identifier: s.Identifier, Title: first(s.Titles)})
	}
	for _, s := range append(x.Defaults, x.Settings...) {
		n, err := strconv.Atoi(strings.TrimSpace(s.Value))
		if err == nil && n > 0 && strings.EqualFold(s.Type, "maximumRecords") {
			d.MaxRecords = n
		}
	}
	for _, s := range x.Supports {
		kind := strings.ToLower(s.Type)
		d.Supports[kind] = append(d.Supports[kind], strings.TrimSpace(s.Value))
	}
	return d
}

func first(of []string) string {
	for _, s := range of {
		if s = strings.Join(strings.Fields(s), " "); s != "" {
			return s
		}
	}
	return ""
}
