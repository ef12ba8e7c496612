package standin

import (
	"encoding/xml"
	"errors"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"golang.org/x/text/language"
	"golang.org/x/text/message"

	"tamiz/exchange/dc"
	"tamiz/exchange/mods"
	"tamiz/source/sru"
)

// maxBody is how large a request by POST may be, in bytes.
const maxBody = 2 << 20

// Handler answers for collections, each at the path of its name; below that is a page where its own syntax is typed.
func Handler(collections ...*Collection) http.Handler {
	mux := http.NewServeMux()
	for _, c := range collections {
		mux.Handle("/"+c.Name, c)
		mux.HandleFunc("/"+c.Name+"/page", c.servePage)
	}
	return mux
}

// The namespaces of an answer, by version.
var namespaces = map[string]string{
	sru.Version11: "http://www.loc.gov/zing/srw/", sru.Version12: "http://www.loc.gov/zing/srw/",
	sru.Version20: "http://docs.oasis-open.org/ns/search-ws/sruResponse",
}

const diagnosticNamespace = "http://www.loc.gov/zing/srw/diagnostic/"

// ServeHTTP answers explain, searchRetrieve and scan, asked by GET or by POST.
func (c *Collection) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	c.filling.RLock()
	defer c.filling.RUnlock()
	if r.Method != http.MethodGet && r.Method != http.MethodPost && r.Method != http.MethodHead {
		w.Header().Set("Allow", "GET, POST")
		http.Error(w, "ask by GET or POST", http.StatusMethodNotAllowed)
		return
	}
	r.Body = http.MaxBytesReader(w, r.Body, maxBody)
	if err := r.ParseForm(); err != nil {
		http.Error(w, err.Error(), http.StatusBadRequest)
		return
	}
	w.Header().Set("Content-Type", "application/xml; charset=utf-8")
	a := &answer{Collection: c, q: r.Form, w: w, e: xml.NewEncoder(w)}
	a.version = a.said("version")
	operation := a.said("operation")
	var unknown bool
	if a.version == "" {
		// 2.0 does not say its version, nor its operation.
		if a.version = sru.Version12; operation == "" {
			a.version = sru.Version20
		}
	}
	if _, ok := namespaces[a.version]; !ok {
		a.version, unknown = sru.Version12, true
	}
	if operation == "" {
		switch {
		case a.said("query") != "":
			operation = "searchRetrieve"
		case a.said("scanClause") != "":
			operation = "scan"
		default:
			operation = "explain"
		}
	}
	_, _ = w.Write([]byte(xml.Header))
	if unknown {
		a.refuse("searchRetrieveResponse", &refusal{sru.UnsupportedVersion, sru.Version20})
		return
	}
	switch operation {
	case "explain":
		a.explain()
	case "searchRetrieve":
		a.search()
	case "scan":
		a.scan()
	default:
		a.refuse("searchRetrieveResponse", &refusal{sru.UnsupportedOperation, operation})
	}
	_ = a.e.Flush() // who no longer listens cannot be told
}

// answer writes one answer. Errors of writing stay in the encoder: the one who asked has gone.
type answer struct {
	*Collection
	q       url.Values
	version string
	w       http.ResponseWriter
	e       *xml.Encoder
}

func (a *answer) said(name string) string { return strings.TrimSpace(a.q.Get(name)) }

func (a *answer) open(name string, attrs ...string) {
	e := xml.StartElement{Name: xml.Name{Local: name}}
	for i := 0; i+1 < len(attrs); i += 2 {
		e.Attr = append(e.Attr, xml.Attr{Name: xml.Name{Local: attrs[i]}, Value: attrs[i+1]})
	}
	_ = a.e.EncodeToken(e)
}

func (a *answer) shut(name string) {
	_ = a.e.EncodeToken(xml.EndElement{Name: xml.Name{Local: name}})
}

func (a *answer) put(name, value string, attrs ...string) {
	a.open(name, attrs...)
	_ = a.e.EncodeToken(xml.CharData(value))
	a.shut(name)
}

func (a *answer) begin(name string) {
	a.open(name, "xmlns", namespaces[a.version])
	a.put("version", a.version)
}

func (a *answer) diagnostic(r *refusal) {
	a.open("diagnostic", "xmlns", diagnosticNamespace)
	a.put("uri", sru.DiagnosticURI+strconv.Itoa(r.number))
	a.put("details", r.detail)
	a.put("message", sru.DiagnosticText[r.number])
	a.shut("diagnostic")
}

func (a *answer) refuse(response string, r *refusal) {
	a.begin(response)
	if response == "searchRetrieveResponse" {
		a.put("numberOfRecords", "0")
	}
	a.open("diagnostics")
	a.diagnostic(r)
	a.shut("diagnostics")
	a.shut(response)
	_ = a.e.Flush()
}

// number reads a parameter; def where it is not said.
func (a *answer) number(name string, def, least int) (int, *refusal) {
	s := a.said(name)
	if s == "" {
		return def, nil
	}
	n, err := strconv.Atoi(s)
	if err != nil || n < least {
		return 0, &refusal{sru.BadParameter, name}
	}
	return n, nil
}

// escaped reports whether records are to be put into the answer as text.
func (a *answer) escaped() bool {
	if a.version == sru.Version20 {
		return a.said("recordXMLEscaping") == "string"
	}
	return a.said("recordPacking") == "string"
}

func (a *answer) search() {
	const response = "searchRetrieveResponse"
	refuse := func(err error) {
		var r *refusal
		if !errors.As(err, &r) {
			r = &refusal{sru.GeneralError, err.Error()}
		}
		a.refuse(response, r)
	}
	cql := a.said("query")
	if cql == "" {
		refuse(&refusal{sru.MissingParameter, "query"})
		return
	}
	start, bad := a.number("startRecord", 1, 1)
	most, bad2 := a.number("maximumRecords", 10, 0)
	for _, r := range []*refusal{bad, bad2} {
		if r != nil {
			refuse(r)
			return
		}
	}
	schema := a.said("recordSchema")
	switch schema {
	case "", "mods", mods.Schema, mods.Namespace:
		schema = mods.Schema
	case "dc", dc.Schema:
		schema = dc.Schema
	default:
		refuse(&refusal{sru.UnknownSchema, schema})
		return
	}
	found, err := a.Collection.search(cql)
	if err != nil {
		refuse(err)
		return
	}
	total := len(found.order)
	if start > total && start > 1 {
		refuse(&refusal{sru.FirstOutOfRange, strconv.Itoa(start)})
		return
	}
	end := min(total, start-1+min(most, a.MostRecords))
	a.begin(response)
	a.put("numberOfRecords", strconv.Itoa(total))
	if end >= start {
		a.open("records")
		for i := start - 1; i < end; i++ {
			a.record(int(found.order[i]), i+1, schema)
		}
		a.shut("records")
	}
	if end < total {
		a.put("nextRecordPosition", strconv.Itoa(end+1))
	}
	a.open("echoedSearchRetrieveRequest")
	a.put("version", a.version)
	a.put("query", cql)
	a.shut("echoedSearchRetrieveRequest")
	if len(found.said) > 0 {
		a.open("extraResponseData")
		a.open("interpretation", "xmlns", "https://tamiz.example/ns/interpretation")
		for _, s := range found.said {
			a.put("remark", s)
		}
		a.shut("interpretation")
		a.shut("extraResponseData")
	}
	a.shut(response)
}

func (a *answer) record(n, position int, schema string) {
	a.open("record")
	a.put("recordSchema", schema)
	packing := "xml"
	if a.escaped() {
		packing = "string"
	}
	if a.version == sru.Version20 {
		a.put("recordXMLEscaping", packing)
	} else {
		a.put("recordPacking", packing)
	}
	a.open("recordData")
	write := func(e *xml.Encoder) error {
		if schema == dc.Schema {
			return dc.Encode(e, a.records[n])
		}
		return mods.Encode(e, a.records[n], a.Authority)
	}
	if packing == "string" {
		var text strings.Builder
		inner := xml.NewEncoder(&text)
		_, _ = write(inner), inner.Flush()
		_ = a.e.EncodeToken(xml.CharData(text.String()))
	} else {
		_ = write(a.e)
	}
	a.shut("recordData")
	a.put("recordPosition", strconv.Itoa(position))
	a.shut("record")
}

func (a *answer) scan() {
	clause := a.said("scanClause")
	if clause == "" {
		a.refuse("scanResponse", &refusal{sru.MissingParameter, "scanClause"})
		return
	}
	position, bad := a.number("responsePosition", 1, 0)
	most, bad2 := a.number("maximumTerms", 20, 1)
	if bad == nil {
		bad = bad2
	}
	if bad != nil {
		a.refuse("scanResponse", bad)
		return
	}
	entries, err := a.Collection.scan(clause, max(0, min(position, 200)-1), min(most, 200))
	if err != nil {
		var r *refusal
		if !errors.As(err, &r) {
			r = &refusal{sru.GeneralError, err.Error()}
		}
		a.refuse("scanResponse", r)
		return
	}
	a.begin("scanResponse")
	a.open("terms")
	for _, t := range entries {
		a.open("term")
		a.put("value", t.term)
		a.put("numberOfRecords", strconv.Itoa(t.records))
		a.shut("term")
	}
	a.shut("terms")
	a.shut("scanResponse")
}

// The context sets of the indexes.
var sets = map[string]string{"tamiz": "https://tamiz.example/cql", "dc": "info:srw/cql-context-set/1/dc-v1.1"}

func (a *answer) explain() {
	a.begin("explainResponse")
	a.open("record")
	a.put("recordSchema", "http://explain.z3950.org/dtd/2.0/")
	if a.version == sru.Version20 {
		a.put("recordXMLEscaping", "xml")
	} else {
		a.put("recordPacking", "xml")
	}
	a.open("recordData")
	a.open("explain", "xmlns", "http://explain.z3950.org/dtd/2.0/")
	a.open("serverInfo", "protocol", "SRU", "version", a.version)
	a.put("host", "127.0.0.1")
	a.put("database", a.Name)
	a.shut("serverInfo")
	a.open("databaseInfo")
	a.put("title", a.Title, "lang", "en", "primary", "true")
	a.put("description", message.NewPrinter(language.English).Sprintf(a.About, a.Len()), "lang", "en", "primary", "true")
	a.shut("databaseInfo")
	a.open("indexInfo")
	used := map[string]bool{}
	for _, name := range a.Indexes {
		set, _, _ := strings.Cut(name, ".")
		if !used[set] {
			used[set] = true
			a.open("set", "name", set, "identifier", sets[set])
			a.shut("set")
		}
	}
	for _, name := range a.Indexes {
		set, bare, _ := strings.Cut(name, ".")
		list := "false"
		switch bare {
		case "text", "title", "abstract", "keyword", "any", "titleAbstract", "description", "subject":
			list = "true"
		}
		sort := "false"
		if bare == "year" || bare == "title" || bare == "date" || bare == "timesCited" {
			sort = "true"
		}
		a.open("index", "search", "true", "scan", list, "sort", sort)
		a.put("title", bare, "lang", "en")
		a.open("map")
		a.put("name", bare, "set", set)
		a.shut("map")
		a.shut("index")
	}
	a.shut("indexInfo")
	a.open("schemaInfo")
	for _, s := range [][3]string{{"mods", mods.Schema, "MODS"}, {"dc", dc.Schema, "Dublin Core"}} {
		a.open("schema", "name", s[0], "identifier", s[1], "sort", "false", "retrieve", "true")
		a.put("title", s[2], "lang", "en")
		a.shut("schema")
	}
	a.shut("schemaInfo")
	a.open("configInfo")
	a.put("default", "10", "type", "numberOfRecords")
	a.put("setting", strconv.Itoa(a.MostRecords), "type", "maximumRecords")
	a.put("supports", "=", "type", "relation")
	if a.Near {
		a.put("supports", "", "type", "proximity")
	}
	a.put("supports", "*", "type", "maskingCharacter")
	if a.Inside {
		a.put("supports", "?", "type", "maskingCharacter")
	}
	if a.terms != nil {
		a.put("supports", "narrower", "type", "relationModifier")
	}
	if a.Qualifiers {
		a.put("supports", "central", "type", "relationModifier")
		a.put("supports", "qualifier", "type", "relationModifier")
	}
	a.put("supports", "", "type", "sort")
	a.put("supports", "", "type", "scan")
	a.shut("configInfo")
	a.shut("explain")
	a.shut("recordData")
	a.shut("record")
	a.shut("explainResponse")
}
