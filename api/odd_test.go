package api_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"maps"
	"math/rand/v2"
	"net/http"
	"net/url"
	"os"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/demo"
	"tamiz/exchange/ris"
	"tamiz/store/storetest"
)

// Words as nobody types them, and as somebody once did.
var oddWords = []string{
	"*",
	"--",
	"[]",
	"",
	" ",
	"?",
	"a",
	"heat*",
	"cane cutters",
	"\"",
	"(",
	"and",
	"ŉ",
	"熱中症",
	"e\u0301",
	"a*b?c",
	"heat ~3 rest",
	"[Shade +]",
	"0",
	"-1",
	"2147483648",
	strings.Repeat(
		"x",
		300,
	),
	strings.Repeat("a ", 200),
	"<b>",
	"'; drop",
	"\u200b",
	"\ufeff",
	"heat\nrest",
	"any",
	"words",
	"headings",
	"A",
	"title",
	"random",
}

var oddNumbers = []string{
	"0",
	"1",
	"2",
	"-1",
	"3",
	"2147483647",
	"2147483648",
	"9223372036854775807",
	"-9223372036854775808",
	"1000000",
}

// odd makes calls that the contract describes, of values that keep to it in kind and in nothing else.
type odd struct {
	r      *rand.Rand
	review string
	ids    []string // numbers of things that are there
}

func (o *odd) pick(all []string) string { return all[o.r.IntN(len(all))] }

func (o *odd) number() string {
	if o.r.IntN(3) > 0 {
		return o.pick(o.ids)
	}
	return o.pick(oddNumbers)
}

// value makes a value of a schema; deep ones end.
func (o *odd) value(s *openapi3.SchemaRef, depth int) any {
	if s == nil || s.Value == nil || depth > 7 {
		return nil
	}
	v := s.Value
	switch of := slices.Concat(v.OneOf, v.AnyOf); {
	case len(of) > 0:
		return o.value(of[o.r.IntN(len(of))], depth+1)
	case len(v.Enum) > 0 && o.r.IntN(20) > 0:
		return v.Enum[o.r.IntN(len(v.Enum))]
	case len(v.AllOf) > 0:
		out := map[string]any{}
		for _, part := range v.AllOf {
			if m, ok := o.value(part, depth+1).(map[string]any); ok {
				for k, x := range m {
					out[k] = x
				}
			}
		}
		return out
	}
	switch {
	case v.Type.Is("object"), v.Properties != nil:
		out := map[string]any{}
		for _, name := range slices.Sorted(maps.Keys(v.Properties)) { // the same from the same seed
			p := v.Properties[name]
			if slices.Contains(v.Required, name) || o.r.IntN(2) == 0 {
				if x := o.value(p, depth+1); x != nil || o.r.IntN(10) == 0 {
					out[name] = x
				}
			}
		}
		return out
	case v.Type.Is("array"):
		out := []any{}
		for range o.r.IntN(3) {
			out = append(out, o.value(v.Items, depth+1))
		}
		return out
	case v.Type.Is("integer"), v.Type.Is("number"):
		return json.Number(o.number())
	case v.Type.Is("boolean"):
		return o.r.IntN(2) == 0
	case v.Type.Is("string"):
		return o.pick(oddWords)
	}
	return o.pick(oddWords)
}

// call makes one call of an operation.
func (o *odd) call(path, method string, of *openapi3.PathItem, op *openapi3.Operation) (string, []byte, string) {
	query := url.Values{}
	for _, p := range slices.Concat(of.Parameters, op.Parameters) {
		x := o.value(p.Value.Schema, 0)
		said := fmt.Sprint(x)
		if list, ok := x.([]any); ok {
			for _, one := range list {
				query.Add(p.Value.Name, fmt.Sprint(one))
			}
			continue
		}
		switch p.Value.In {
		case "path":
			if p.Value.Name == "review" && o.r.IntN(10) > 0 {
				said = o.review
			}
			path = strings.ReplaceAll(path, "{"+p.Value.Name+"}", url.PathEscape(said))
		case "query":
			if p.Value.Required || o.r.IntN(2) == 0 {
				query.Set(p.Value.Name, said)
			}
		}
	}
	if len(query) > 0 {
		path += "?" + query.Encode()
	}
	if op.RequestBody == nil {
		return path, nil, ""
	}
	kind := slices.Sorted(maps.Keys(op.RequestBody.Value.Content))[0] // each has but one
	if !strings.Contains(kind, "json") {
		return path, []byte(o.pick(oddWords)), kind
	}
	body, _ := json.Marshal(o.value(op.RequestBody.Value.Content[kind].Schema, 0))
	return path, body, "application/json"
}

// How many times each operation is called, and how long that may take. TAMIZ_ODD_SEED makes other calls: 0 is a
// seed of its own.
const (
	oddTimes = 40
	oddTime  = time.Minute
)

// TestOddCallsAreAnsweredClearly: whatever is asked in the form of the contract, nothing falls over: what cannot be
// done is said, and never as a fault of the program.
func TestOddCallsAreAnsweredClearly(t *testing.T) {
	log := &tail{}
	c := startLogged(
		t,
		storetest.Open(t),
		slog.New(slog.NewTextHandler(log, &slog.HandlerOptions{Level: slog.LevelError})),
	)
	doc, err := openapi3.NewLoader().LoadFromFile("openapi.yaml")
	require.NoError(t, err)
	review := int64(c.call(201, "POST", "/api/reviews", map[string]any{"name": "Odd"})["id"].(float64))
	id := fmt.Sprint(review)
	var file bytes.Buffer
	for _, r := range demo.NewWorld(demo.Seed, 60).Records[:60] {
		require.NoError(t, ris.Write(&file, r))
	}
	c.bringOdd(id, "sample", file.Bytes())
	c.bringOdd(id, "keys", file.Bytes()[:file.Len()/4])

	type operation struct {
		path, method string
		of           *openapi3.PathItem
		op           *openapi3.Operation
	}
	var all []operation
	for path, of := range doc.Paths.Map() {
		for method, op := range of.Operations() {
			// An open ear is not an answer, and what removes the review ends the test.
			if strings.HasSuffix(path, "/events") || method == "DELETE" && path == "/api/reviews/{review}" {
				continue
			}
			all = append(all, operation{path, method, of, op})
		}
	}
	slices.SortFunc(all, func(a, b operation) int { return strings.Compare(a.path+a.method, b.path+b.method) })
	seed := uint64(7)
	if said := os.Getenv("TAMIZ_ODD_SEED"); said != "" {
		seed, err = strconv.ParseUint(said, 10, 64)
		require.NoError(t, err)
		if seed == 0 {
			seed = uint64(time.Now().UnixNano())
		}
	}
	o := &odd{r: rand.New(rand.NewPCG(seed, 3)), review: id, ids: []string{"1", "2", "3", id, "60"}}
	calls, fallen := 0, map[string]bool{}
	until := time.Now().Add(oddTime)
	for n := 0; n < oddTimes && time.Now().Before(until); n++ {
		for _, x := range all {
			path, body, kind := o.call(x.path, x.method, x.of, x.op)
			r, err := http.NewRequestWithContext(t.Context(), x.method, c.server.URL+path, bytes.NewReader(body))
			if err != nil {
				continue // no address at all
			}
			if kind != "" {
				r.Header.Set("Content-Type", kind)
			}
			r.Header.Set("If-Match", `"`+o.pick(oddNumbers)+`"`)
			answer, err := http.DefaultClient.Do(r)
			require.NoError(t, err, "%s %s %s (seed %d)", x.method, path, body, seed)
			got, _ := io.ReadAll(io.LimitReader(answer.Body, 4<<10))
			_ = answer.Body.Close()
			calls++
			if what := x.method + " " + x.path; answer.StatusCode == http.StatusInternalServerError && !fallen[what] {
				fallen[what] = true // each operation is told of once
				assert.Fail(t, "it fell over", "%s %s\n%s\n%s (seed %d)\n%s", x.method, path, body, got, seed, log)
			}
		}
	}
	t.Logf("%d calls of %d operations", calls, len(all))
}

// A tail keeps the end of what is written to it.
type tail struct {
	mu   sync.Mutex
	last []byte
}

func (t *tail) Write(p []byte) (int, error) {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.last = append([]byte{}, p[:min(len(p), 3000)]...)
	return len(p), nil
}

func (t *tail) String() string {
	t.mu.Lock()
	defer t.mu.Unlock()
	return string(t.last)
}

// bringOdd brings in a file and waits until it is read.
func (c *caller) bringOdd(review, kind string, file []byte) {
	c.t.Helper()
	i := c.call(202, "POST", "/api/reviews/"+review+"/imports?kind="+kind+"&name=a.ris", file)
	require.Eventually(c.t, func() bool {
		return c.call(200, "GET", fmt.Sprintf("/api/imports/%d", int64(i["id"].(float64))), nil)["state"] == "done"
	}, time.Minute, 20*time.Millisecond)
}
