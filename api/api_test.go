package api_test

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/getkin/kin-openapi/openapi3filter"
	"github.com/getkin/kin-openapi/routers/gorillamux"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/api"
	"tamiz/app"
	"tamiz/core/tally"
	"tamiz/demo"
	"tamiz/exchange/records"
	"tamiz/exchange/ris"
	"tamiz/exchange/skos"
	"tamiz/source/sru"
	"tamiz/store"
	"tamiz/store/storetest"
)

func TestMain(m *testing.M) { storetest.Main(m) }

// A caller asks the server, and holds every call and answer against the contract.
type caller struct {
	t       *testing.T
	server  *httptest.Server
	checked func(*http.Request, []byte, *http.Response, []byte)
}

func start(t *testing.T) (*caller, *store.Store) {
	t.Helper()
	db := storetest.Open(t)
	return startOn(t, db), db
}

func startOn(t *testing.T, db *store.Store) *caller {
	t.Helper()
	return startLogged(t, db, slog.New(slog.DiscardHandler))
}

func startLogged(t *testing.T, db *store.Store, log *slog.Logger) *caller {
	t.Helper()
	a, err := app.New(db, sru.Guard{Everywhere: true}, nil, log)
	require.NoError(t, err)
	ctx, cancel := context.WithCancel(context.Background())
	require.NoError(t, a.Start(ctx))
	front := fstest.MapFS{"index.html": {Data: []byte("<!doctype html>")}, "assets/a.js": {Data: []byte("1")}}
	handler, err := api.NewServer(a, front, log)
	require.NoError(t, err)
	server := httptest.NewServer(handler)
	t.Cleanup(func() {
		server.Close()
		_ = a.Stop(context.Background())
		cancel()
	})
	return &caller{t, server, contract(t)}
}

func contract(t *testing.T) func(*http.Request, []byte, *http.Response, []byte) {
	t.Helper()
	doc, err := openapi3.NewLoader().LoadFromFile("openapi.yaml")
	require.NoError(t, err)
	require.NoError(t, doc.Validate(context.Background()))
	router, err := gorillamux.NewRouter(doc)
	require.NoError(t, err)
	openapi3filter.RegisterBodyDecoder("application/octet-stream", openapi3filter.FileBodyDecoder)
	return func(r *http.Request, sent []byte, answer *http.Response, got []byte) {
		r.Body = io.NopCloser(bytes.NewReader(sent))
		route, params, err := router.FindRoute(r)
		require.NoError(t, err, "%s %s is not in the contract", r.Method, r.URL)
		in := &openapi3filter.RequestValidationInput{Request: r, PathParams: params, Route: route}
		out := &openapi3filter.ResponseValidationInput{
			RequestValidationInput: in,
			Status:                 answer.StatusCode,
			Header:                 answer.Header,
		}
		out.SetBodyBytes(got)
		if answer.StatusCode < 400 {
			require.NoError(t, openapi3filter.ValidateRequest(context.Background(), in), "%s %s", r.Method, r.URL)
		}
		require.NoError(t, openapi3filter.ValidateResponse(context.Background(), out), "%s %s", r.Method, r.URL)
	}
}

// call asks and returns the answer; its status has to be the wanted one.
func (c *caller) call(status int, method, path string, body any, headers ...string) map[string]any {
	c.t.Helper()
	var sent []byte
	kind := "application/json"
	switch b := body.(type) {
	case nil:
	case []byte:
		sent, kind = b, "application/octet-stream"
	default:
		var err error
		sent, err = json.Marshal(b)
		require.NoError(c.t, err)
	}
	r, err := http.NewRequest(method, c.server.URL+path, bytes.NewReader(sent))
	require.NoError(c.t, err)
	if body != nil {
		r.Header.Set("Content-Type", kind)
	}
	for i := 0; i < len(headers); i += 2 {
		r.Header.Set(headers[i], headers[i+1])
	}
	answer, err := http.DefaultClient.Do(r)
	require.NoError(c.t, err)
	defer answer.Body.Close()
	got, err := io.ReadAll(answer.Body)
	require.NoError(c.t, err)
	require.Equal(c.t, status, answer.StatusCode, "%s %s: %s", method, path, got)
	c.checked(r, sent, answer, got)
	var out map[string]any
	if json.Unmarshal(got, &out) != nil {
		out = map[string]any{"": string(got)}
	}
	return out
}

func TestEveryAnswerKeepsTheContract(t *testing.T) {
	c, _ := start(t)
	w := demo.NewWorld(demo.Seed, 400)
	file := func(n int) []byte {
		var b bytes.Buffer
		b.WriteString("stray\n")
		for _, r := range w.Records[:n] {
			require.NoError(t, ris.Write(&b, r))
		}
		return b.Bytes()
	}
	assert.Equal(t, "ok", c.call(200, "GET", "/health", nil)["status"])
	id := int64(c.call(201, "POST", "/api/reviews", map[string]any{"name": "Heat"})["id"].(float64))
	c.call(200, "GET", "/api/reviews", nil)
	at := fmt.Sprintf("/api/reviews/%d", id)
	c.call(200, "PATCH", at, map[string]any{"name": "Heat and kidneys"})
	for _, kind := range []string{"sample&name=rough.ris", "keys&name=keys.ris"} {
		n := 200
		if strings.HasPrefix(kind, "keys") {
			n = 20
		}
		i := c.call(202, "POST", at+"/imports?kind="+kind, file(n))
		number := int64(i["id"].(float64))
		require.Eventually(t, func() bool {
			return c.call(200, "GET", fmt.Sprintf("/api/imports/%d", number), nil)["state"] == "done"
		}, time.Minute, 20*time.Millisecond)
		c.call(200, "GET", fmt.Sprintf("/api/imports/%d/notices", number), nil)
		c.call(200, "GET", fmt.Sprintf("/api/imports/%d/notices.txt", number), nil)
	}
	// A table that has to be explained, a reader map, the shelf, and files that go out.
	asked := func(name, file string) string {
		number := int64(c.call(202, "POST", at+"/imports?kind=sample&name="+name, []byte(file))["id"].(float64))
		path := fmt.Sprintf("/api/imports/%d", number)
		require.Eventually(
			t,
			func() bool { return c.call(200, "GET", path, nil)["state"] == "asking" },
			time.Minute,
			20*time.Millisecond,
		)
		return path
	}
	table := asked("own.csv", "Entry;Team\nHeat in crews;Velkana\n")
	question := c.call(200, "GET", table+"/question", nil)
	settings := question["settings"].(map[string]any)
	c.call(200, "POST", table+"/preview", settings)
	c.call(200, "POST", table+"/preview?refill=true", settings)
	c.call(422, "POST", table+"/question", map[string]any{"remember": false})
	c.call(202, "POST", table+"/question", map[string]any{"columns": settings["columns"], "remember": true})
	c.call(409, "GET", table+"/question", nil)
	cards := asked("cards.txt", "Card: 1\nTitle: Heat\n\nCard: 2\nTitle: Rest\n")
	tagged := c.call(200, "GET", cards+"/question", nil)["settings"].(map[string]any)["map"].(map[string]any)
	tagged["name"] = "Cards"
	c.call(202, "POST", cards+"/question", map[string]any{"map": tagged, "remember": true})
	c.call(200, "GET", "/api/readers", nil)
	c.call(404, "DELETE", "/api/readers/99999", nil)
	doubled := asked(
		"twice.ris",
		"TY  - JOUR\nTI  - Heat\nDO  - 10.99999/a\nER  - \nTY  - JOUR\nTI  - Heat.\nDO  - 10.99999/a\nER  - \n",
	)
	c.call(200, "GET", doubled+"/question", nil)
	c.call(204, "DELETE", doubled, nil)
	var headings bytes.Buffer
	require.NoError(t, skos.Write(&headings, demo.Headings()))
	vocabulary := int64(
		c.call(202, "POST", at+"/imports?kind=vocabulary&name=headings.nt", headings.Bytes())["id"].(float64),
	)
	require.Eventually(t, func() bool {
		return c.call(200, "GET", fmt.Sprintf("/api/imports/%d", vocabulary), nil)["state"] == "done"
	}, time.Minute, 20*time.Millisecond)
	assert.NotEmpty(t, c.call(200, "GET", at, nil)["vocabulary"])
	concept := map[string]any{
		"op": "addBlock",
		"block": map[string]any{
			"id":       "a",
			"name":     "A",
			"concept":  "crews",
			"part":     "",
			"seeds":    []string{},
			"searched": true,
			"reason":   "",
			"negated":  false,
			"terms": []any{
				map[string]any{
					"id":   "t1",
					"kind": "text",
					"text": "zz*",
					"on":   true,
					"from": map[string]any{"facet": "words", "item": "zz"},
				},
				map[string]any{"id": "t2", "kind": "near", "left": "heat", "right": "rest", "within": 3, "on": true},
				map[string]any{"id": "t3", "kind": "heading", "heading": "Fluid Intake", "on": false},
			},
		},
	}
	edits := []any{map[string]any{"op": "question", "text": "Heat?"},
		map[string]any{
			"op":     "limits",
			"limits": []any{map[string]any{"kind": "languages", "values": []string{"eng"}}},
		}, concept}
	change := map[string]any{
		"what":      map[string]any{"key": "addTerm", "params": map[string]string{"term": "zz*"}},
		"edits":     edits,
		"decisions": []any{map[string]any{"facet": "words", "item": "heat", "state": "dropped", "reason": "too-broad"}},
	}
	c.call(200, "POST", at+"/changes", change, "If-Match", `"1"`)
	concept["block"].(map[string]any)["concept"] = "farm crews"
	clashing := c.call(409, "POST", at+"/changes", change, "If-Match", `"1"`)
	assert.Equal(t, "conflict", clashing["type"])
	assert.NotEmpty(t, clashing["clashes"])
	for _, bad := range []map[string]any{{"op": "fly"}, {"op": "question"}, {"op": "addTerm", "block": "a"},
		{"op": "patchTerm", "block": "a", "id": "t1", "patch": map[string]any{"id": "t9"}},
		{"op": "patchBlock", "id": "a", "patch": map[string]any{"terms": []any{}}}} {
		c.call(422, "POST", at+"/changes", map[string]any{"what": change["what"], "edits": []any{bad}}, "If-Match", `"2"`)
	}
	c.call(422, "POST", at+"/changes", change, "If-Match", `"no"`)
	known := c.call(200, "GET", at, nil)["vocabulary"].(map[string]any)["id"]
	c.call(409, "DELETE", fmt.Sprint("/api/vocabularies/", known), nil)
	c.call(404, "DELETE", "/api/vocabularies/99999", nil)
	assert.Equal(t, "no-edition", c.call(409, "GET", fmt.Sprint("/api/vocabularies/", known, "/changes"), nil)["type"])
	c.call(200, "GET", fmt.Sprint("/api/vocabularies/", known, "/changes?since=", known), nil)
	led := c.call(200, "GET", at+"/headings?word=farmworker&word=shade&block=a&language=es", nil)
	assert.NotEmpty(t, led["leads"])
	c.call(200, "GET", at+"/headings?block=a", nil)
	c.call(404, "GET", at+"/headings?block=z", nil)
	c.call(200, "GET", at+"/headings/one?label=hydration&block=a", nil)
	assert.Equal(t, "no-heading", c.call(404, "GET", at+"/headings/one?label=nothing+like+it", nil)["type"])
	c.call(200, "GET", at+"/headings/below?label=People", nil)
	c.call(200, "GET", at+"/headings/proposed", nil)
	assert.NotEmpty(t, c.call(200, "GET", at+"/lines", nil)["whole"])
	c.call(404, "GET", at+"/lines?source=99999", nil)
	priced := map[string]any{
		"id":       "t",
		"kind":     "heading",
		"heading":  "Fluid Intake",
		"on":       true,
		"narrower": true,
		"without":  []string{"Rest"},
		"until":    2013,
	}
	c.call(200, "POST", at+"/headings/price", priced)
	c.call(422, "POST", at+"/headings/price", map[string]any{"id": "t", "kind": "text", "text": "heat", "on": true})
	assert.Equal(t, "no-source", c.call(409, "POST", at+"/count-terms", []any{priced})["type"])
	lessOf := map[string]any{
		"kind": "less",
		"of":   map[string]any{"kind": "term", "term": priced},
		"less": map[string]any{"kind": "block", "block": "a", "words": true},
	}
	c.call(200, "POST", at+"/records", map[string]any{"of": lessOf, "at": 0, "limit": 5})
	review := c.call(200, "GET", at, nil)
	samples := review["samples"].([]any)
	sample := samples[len(samples)-1].(map[string]any)["id"] // the first that came in
	study := review["keyStudies"].([]any)[0].(map[string]any)
	c.call(
		200,
		"POST",
		at+"/changes",
		map[string]any{
			"what":  map[string]any{"key": "shelve", "params": map[string]string{}},
			"shelf": []any{map[string]any{"record": study["record"], "on": true, "note": "look", "tags": []string{"heat"}}},
		},
		"If-Match",
		`"2"`,
	)
	c.call(200, "GET", at+"/shelf", nil)
	c.call(
		422,
		"POST",
		at+"/export",
		map[string]any{"of": map[string]any{"kind": "all"}, "format": "ris", "name": "x", "fields": []string{"colour"}},
	)
	look := c.call(200, "POST", at+"/looks", map[string]any{"sample": sample, "rest": true,
		"set": map[string]any{"kind": "within", "of": map[string]any{"kind": "item", "facet": "words", "item": "heat"},
			"in": map[string]any{"kind": "any"}}})["name"]
	c.call(404, "POST", at+"/looks", map[string]any{"sample": 99999, "rest": true})
	assert.Equal(t, look, c.call(200, "GET", fmt.Sprint(at, "/looks/", look), nil)["name"])
	c.call(404, "GET", at+"/looks/nowhere", nil)
	c.call(200, "GET", fmt.Sprint(at, "/tally?facet=words&look=", look), nil)
	assert.Equal(t, "look-gone", c.call(404, "GET", at+"/tally?facet=words&look=nowhere", nil)["type"])
	c.call(200, "POST", at+"/looks", map[string]any{"sample": sample, "rest": true})
	c.call(200, "POST", at+"/bench", map[string]any{})
	c.call(
		200,
		"POST",
		at+"/bench",
		map[string]any{
			"revision": 2,
			"edits": []any{
				map[string]any{"op": "patchTerm", "block": "a", "id": "t1", "patch": map[string]any{"on": false, "from": nil}},
			},
		},
	)
	for _, facet := range tally.Facets {
		facet := string(facet)
		rows := c.call(200, "GET", at+"/tally?facet="+facet, nil)["rows"].([]any)
		if facet == string(tally.Substances) ||
			facet == string(tally.Humans) { // of which RIS says nothing; headings without a mark are keywords there
			continue
		}
		require.NotEmpty(t, rows)
		item := url.QueryEscape(rows[0].(map[string]any)["item"].(string))
		c.call(200, "GET", at+"/item?facet="+facet+"&item="+item, nil)
	}
	c.call(200, "GET", at+"/making", nil)
	c.call(404, "GET", "/api/reviews/99999/making", nil)
	c.call(200, "GET", at+"/coverage", nil)
	c.call(200, "GET", fmt.Sprint(at, "/coverage/", study["id"]), nil)
	c.call(404, "GET", at+"/coverage/99999", nil)
	c.call(200, "GET", at+"/plan", nil)
	c.call(200, "GET", at+"/blocks/a/blind-spot", nil)
	c.call(404, "GET", at+"/blocks/none/blind-spot", nil)
	assert.NotEmpty(t, c.call(200, "POST", at+"/halves?split=true", nil)["edits"])
	c.call(200, "GET", at+"/making", nil)
	c.call(404, "GET", "/api/reviews/99999/making", nil)
	c.call(200, "GET", at+"/coverage", nil)
	c.call(200, "POST", at+"/halves?split=false", nil)
	c.call(200, "POST", at+"/terms", map[string]any{"typed": "fluid"})
	c.call(200, "POST", at+"/terms", map[string]any{"typed": "a*"})
	c.call(
		200,
		"POST",
		at+"/records",
		map[string]any{"of": map[string]any{"kind": "block", "block": "a"}, "at": 0, "limit": 10},
	)
	list := c.call(200, "POST", at+"/records", map[string]any{"of": map[string]any{"kind": "all"}, "at": 5, "limit": 10})
	c.call(
		200,
		"GET",
		fmt.Sprint(at, "/records/", list["records"].([]any)[0].(map[string]any)["id"], "?facet=words&item=heat"),
		nil,
	)
	c.call(
		422,
		"POST",
		at+"/records",
		map[string]any{
			"of":    map[string]any{"kind": "term", "term": map[string]any{"id": "x", "kind": "text", "text": "a*", "on": true}},
			"at":    0,
			"limit": 10,
		},
	)
	assert.EqualValues(
		t,
		1,
		c.call(200, "POST", at+"/kept-blocks", map[string]any{"block": "a", "name": "Farm people"})["version"],
	)
	c.call(404, "POST", at+"/kept-blocks", map[string]any{"block": "none", "name": "Farm people"})
	c.call(200, "GET", "/api/kept-blocks", nil)
	c.call(204, "DELETE", "/api/kept-blocks?name=Farm+people", nil)
	c.call(404, "DELETE", "/api/kept-blocks?name=Farm+people", nil)
	c.call(204, "POST", at+"/versions", map[string]any{"name": "First draft"})
	var versions []map[string]any
	require.NoError(t, json.Unmarshal([]byte(c.call(200, "GET", at+"/versions", nil)[""].(string)), &versions))
	version := versions[0]
	c.call(
		204,
		"PATCH",
		fmt.Sprint(at, "/versions/", version["id"]),
		map[string]any{"name": "The first", "note": "as it was"},
	)
	c.call(200, "GET", at+"/versions/compared?older=1&newer=2", nil)
	c.call(404, "GET", at+"/versions/compared?older=1&newer=9999", nil)
	c.call(404, "GET", at+"/versions/between?older=1&newer=2&source=9999", nil)
	c.call(201, "POST", fmt.Sprint(at, "/versions/", version["id"], "/line"), map[string]any{"name": "A second line"})
	c.call(200, "POST", fmt.Sprint(at, "/versions/", version["id"], "/back"), nil)
	c.call(204, "DELETE", fmt.Sprint(at, "/versions/", version["id"]), nil)
	c.call(200, "GET", at+"/everywhere", nil)
	assert.Len(t, c.call(200, "GET", at+"/record", nil)["items"], 16)
	for _, format := range []string{"md", "html", "json"} {
		c.call(200, "GET", at+"/record/file?format="+format, nil)
	}
	c.call(422, "GET", at+"/record/file?format=exe", nil)
	c.call(200, "GET", at+"/bundle/export?formats=ris&formats=csv", nil)
	c.call(422, "GET", at+"/bundle/export?formats=exe", nil)
	c.call(
		204,
		"POST",
		at+"/runs/by-hand",
		map[string]any{"place": "Card box", "query": "heat", "records": 3, "at": "2026-03-02T09:00:00Z"},
	)
	c.call(422, "POST", at+"/runs/by-hand", map[string]any{"place": "", "query": "heat", "at": "2026-03-02T09:00:00Z"})
	c.call(422, "POST", at+"/runs", map[string]any{"sources": []int{}, "records": 0})
	c.call(200, "GET", at+"/runs", nil)
	c.call(200, "GET", at+"/watch", nil)
	c.call(204, "PUT", at+"/watch", map[string]any{"on": false, "sources": []int{}, "every": "month"})
	c.call(422, "PUT", at+"/watch", map[string]any{"on": true, "sources": []int{1}, "every": "month"})
	c.call(200, "GET", at+"/since", nil)
	c.call(422, "POST", at+"/dismissed", map[string]any{"records": []int{}})
	c.call(404, "POST", at+"/runs/99999/sample", nil)
	c.call(200, "POST", at+"/undo", nil)
	c.call(200, "POST", at+"/redo", nil)
	c.call(200, "PATCH", at, map[string]any{"deleted": true})
	c.call(404, "GET", at, nil)
}

func TestOnlyItsOwnPagesAreAnswered(t *testing.T) {
	c, _ := start(t)
	get := func(host, origin string) int {
		r, err := http.NewRequest("GET", c.server.URL+"/api/reviews", nil)
		require.NoError(t, err)
		if host != "" {
			r.Host = host
		}
		if origin != "" {
			r.Header.Set("Origin", origin)
		}
		answer, err := http.DefaultClient.Do(r)
		require.NoError(t, err)
		defer answer.Body.Close()
		return answer.StatusCode
	}
	own := strings.TrimPrefix(c.server.URL, "http://")
	assert.Equal(t, 200, get("", ""))
	assert.Equal(t, 200, get("localhost:1234", ""))
	assert.Equal(t, 200, get("[::1]:1234", ""))
	assert.Equal(t, 200, get("", "http://"+own))
	assert.Equal(t, 403, get("tamiz.example", ""))
	assert.Equal(t, 403, get("127.0.0.1.example:80", ""))
	assert.Equal(t, 403, get("", "http://elsewhere.example"))
	assert.Equal(t, 403, get("", "null"))
	assert.Equal(t, 403, get("", "http://127.0.0.1:1"))
}

func TestEveryAddressIsAScreenOrSaysThatItIsNone(t *testing.T) {
	c, _ := start(t)
	for path, status := range map[string]int{"/": 200, "/reviews/7/harvest": 200, "/assets/a.js": 200,
		"/assets/b.js": 404, "/api/nothing": 404, "/api/reviews/x": 400} {
		answer, err := http.Get(c.server.URL + path)
		require.NoError(t, err)
		defer answer.Body.Close()
		assert.Equal(t, status, answer.StatusCode, path)
		if status >= 400 {
			assert.Equal(t, "application/problem+json", answer.Header.Get("Content-Type"), path)
		}
	}
}

// A file is written in pieces, small and large, and comes whole to those who take packed answers too.
func TestASavedFileComesWhole(t *testing.T) {
	c, _ := start(t)
	id := int64(c.call(201, "POST", "/api/reviews", map[string]any{"name": "Heat"})["id"].(float64))
	var b bytes.Buffer
	for _, r := range demo.NewWorld(demo.Seed, 60).Records {
		require.NoError(t, ris.Write(&b, r))
	}
	at := fmt.Sprintf("/api/reviews/%d", id)
	i := c.call(202, "POST", at+"/imports?kind=sample&name=a.ris", b.Bytes())
	require.Eventually(t, func() bool {
		i = c.call(200, "GET", fmt.Sprintf("/api/imports/%d", int64(i["id"].(float64))), nil)
		return i["state"] == "done"
	}, time.Minute, 20*time.Millisecond)
	for _, format := range []string{"ris", "bibtex", "csl", "csv", "tsv", "mods", "html"} {
		order := fmt.Sprintf(
			`{"of": {"kind": "sample", "sample": %d}, "format": %q, "name": "all: of it"}`,
			int64(i["sample"].(float64)),
			format,
		)
		r, err := http.NewRequest("POST", c.server.URL+at+"/export", strings.NewReader(order))
		require.NoError(t, err)
		r.Header.Set("Content-Type", "application/json")
		answer, err := http.DefaultClient.Do(r) // which takes packed answers
		require.NoError(t, err)
		got, err := io.ReadAll(answer.Body)
		answer.Body.Close()
		require.NoError(t, err)
		require.Equal(t, 200, answer.StatusCode)
		assert.Contains(t, answer.Header.Get("Content-Disposition"), `filename="all of it.`)
		if format == "html" {
			assert.Contains(t, string(got), "60 records</footer>")
			continue
		}
		reader, _, err := records.Open(bytes.NewReader(got), records.Options{})
		require.NoError(t, err, format)
		n := 0
		for {
			if _, err := reader.Read(); err != nil {
				break
			}
			n++
		}
		assert.Equal(t, 60, n, format)
	}
}

// The figures of a look have a tag: who names it is sent nothing while they hold, and all of them when they do not.
// What is no figure of a look, and what goes wrong, has none.
func TestFiguresThatStillHoldAreNotSentAgain(t *testing.T) {
	c, _ := start(t)
	id := int64(c.call(201, "POST", "/api/reviews", map[string]any{"name": "Heat"})["id"].(float64))
	at := fmt.Sprintf("/api/reviews/%d", id)
	bring := func(kind string, n int) map[string]any {
		var b bytes.Buffer
		for _, r := range demo.NewWorld(demo.Seed, 60).Records[:n] {
			require.NoError(t, ris.Write(&b, r))
		}
		i := c.call(202, "POST", at+"/imports?kind="+kind+"&name=a.ris", b.Bytes())
		require.Eventually(t, func() bool {
			i = c.call(200, "GET", fmt.Sprintf("/api/imports/%d", int64(i["id"].(float64))), nil)
			return i["state"] == "done"
		}, time.Minute, 20*time.Millisecond)
		return i
	}
	sample := bring("sample", 60)["sample"]
	look := c.call(200, "POST", at+"/looks", map[string]any{"sample": sample, "rest": true})["name"]
	get := func(path, known string) (status int, tag, kept string, body []byte) {
		r, err := http.NewRequest("GET", c.server.URL+path, nil)
		require.NoError(t, err)
		if known != "" {
			r.Header.Set("If-None-Match", known)
		}
		answer, err := http.DefaultClient.Do(r)
		require.NoError(t, err)
		defer answer.Body.Close()
		body, err = io.ReadAll(answer.Body)
		require.NoError(t, err)
		return answer.StatusCode, answer.Header.Get("ETag"), answer.Header.Get("Cache-Control"), body
	}
	tally := fmt.Sprint(at, "/tally?facet=words&look=", look)
	status, tag, kept, body := get(tally, "")
	require.Equal(t, 200, status)
	require.NotEmpty(t, tag)
	assert.Equal(t, "private, no-cache", kept)
	assert.True(t, json.Valid(body))
	status, again, _, body := get(tally, `"other", `+tag)
	assert.Equal(t, 304, status)
	assert.Equal(t, tag, again)
	assert.Empty(t, body)
	bring("keys", 5)
	status, other, _, body := get(tally, tag)
	assert.Equal(t, 200, status, "key studies change the figures")
	assert.NotEqual(t, tag, other)
	assert.NotEmpty(t, body)
	status, tag, kept, _ = get(at+"/tally?facet=words&look=nowhere", "")
	assert.Equal(t, 404, status)
	assert.Empty(t, tag)
	assert.Equal(t, "no-store", kept)
	_, tag, _, _ = get(at, "")
	assert.Empty(t, tag)
}

func TestADatabaseThatIsGoneIsSaidAndComesBack(t *testing.T) {
	c, db := start(t)
	db.Close()
	answer, err := http.Get(c.server.URL + "/health")
	require.NoError(t, err)
	defer answer.Body.Close()
	assert.GreaterOrEqual(t, answer.StatusCode, 500)
}

func TestNewsReachThoseWhoListen(t *testing.T) {
	c, _ := start(t)
	id := int64(c.call(201, "POST", "/api/reviews", map[string]any{"name": "Heat"})["id"].(float64))
	ctx, cancel := context.WithTimeout(context.Background(), 20*time.Second)
	defer cancel()
	r, err := http.NewRequestWithContext(ctx, "GET", fmt.Sprintf("%s/api/reviews/%d/events", c.server.URL, id), nil)
	require.NoError(t, err)
	answer, err := http.DefaultClient.Do(r)
	require.NoError(t, err)
	defer answer.Body.Close()
	assert.Equal(t, "text/event-stream", answer.Header.Get("Content-Type"))
	heard := make(chan string, 1)
	go func() {
		buf, all := make([]byte, 1024), ""
		for !strings.Contains(all, `"kind":"change"`) {
			n, err := answer.Body.Read(buf)
			if err != nil {
				return
			}
			all += string(buf[:n])
		}
		heard <- all
	}()
	for i := 0; ; i++ {
		c.call(
			200,
			"POST",
			fmt.Sprintf("/api/reviews/%d/changes", id),
			map[string]any{"what": map[string]any{"key": "parked", "params": map[string]string{}},
				"decisions": []any{
					map[string]any{"facet": "words", "item": fmt.Sprint("heat ", i), "state": "parked"},
				}},
			"If-Match",
			`"1"`,
		)
		select {
		case all := <-heard:
			assert.Contains(t, all, fmt.Sprintf(`"review":%d`, id))
			return
		case <-ctx.Done():
			t.Fatal("no news came")
		case <-time.After(200 * time.Millisecond): // whoever listens may not have been there yet
		}
	}
}
