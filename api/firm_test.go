package api_test

import (
	"bufio"
	"encoding/json"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/store"
	"tamiz/store/cluster"
)

// asked sends anything and returns the status and what was said.
func (c *caller) asked(method, path, body string, headers ...string) (int, string) {
	c.t.Helper()
	r, err := http.NewRequest(method, c.server.URL+path, strings.NewReader(body))
	require.NoError(c.t, err)
	if body != "" {
		r.Header.Set("Content-Type", "application/json")
	}
	for i := 0; i < len(headers); i += 2 {
		r.Header.Set(headers[i], headers[i+1])
	}
	answer, err := http.DefaultClient.Do(r)
	require.NoError(c.t, err)
	defer answer.Body.Close()
	said, err := io.ReadAll(answer.Body)
	require.NoError(c.t, err)
	return answer.StatusCode, string(said)
}

// What the contract does not know is refused, with words of ours and without inner workings; nothing panics.
func TestCallsAreHeldAgainstTheContract(t *testing.T) {
	c, _ := start(t)
	id := int64(c.call(201, "POST", "/api/reviews", map[string]any{"name": "Heat"})["id"].(float64))
	at := fmt.Sprintf("/api/reviews/%d", id)
	for _, x := range []struct {
		method, path, body string
		status             int
		says               string
	}{
		{"GET", at + "/tally?facet=colours", "", 422, "This is none of words, headings"},
		{"GET", at + "/tally", "", 422, "facet is missing"},
		{"GET", at + "/item?facet=words&item=heat%00", "", 422, "no text"},
		{"GET", at + "/item?facet=words&item=%ff%fe", "", 422, "no text"},
		{"GET", at + "/item?facet=colours&item=heat", "", 422, "none of"},
		{"GET", "/api/reviews/x", "", 400, ""},
		{"GET", "/api/reviews/99999999999999999999999", "", 400, ""},
		{"POST", at + "/imports?kind=recipes&name=a.ris", "TY  - JOUR", 422, "none of sample, keys, vocabulary"},
		{"POST", "/api/reviews", `{"name": "a", "colour": "red"}`, 422, "not known here"},
		{"POST", "/api/reviews", `{"name": 7}`, 422, "kind string"},
		{"POST", "/api/reviews", `{}`, 422, "missing"},
		{"POST", "/api/reviews", `{`, 400, "no JSON"},
		{"POST", "/api/reviews", "{\"name\": \"\xff\"}", 400, "UTF-8"},
		{"POST", "/api/reviews", `[]`, 422, "kind object"},
		{"POST", at + "/changes", `{"what": {"key": "x", "params": {}}, "edits": [{"op": "frame", "frme": ""}]}`, 422,
			"not known here"},
		{"POST", at + "/changes", `{"what": {"key": "x", "params": {}}, "decisions": [{"facet": "words", "item": "x", "state": "eaten"}]}`, 422, "none of open, parked, dropped"},
		{"POST", at + "/records", `{"of": {"kind": "item", "facet": "colours", "item": "x"}, "at": 0, "limit": 5}`, 422,
			"none of"},
		{"POST", at + "/export", `{"of": {"kind": "all"}, "format": "exe", "name": "x"}`, 422, "none of ris"},
	} {
		status, said := c.asked(x.method, x.path, x.body, "If-Match", `"1"`)
		assert.Equal(t, x.status, status, "%s %s: %s", x.method, x.path, said)
		assert.Contains(t, said, x.says, "%s %s", x.method, x.path)
		for _, inner := range []string{"strconv", "json:", "unmarshal", "pq:", "SQLSTATE", "app.", "openapi", "schema",
			"goroutine"} {
			assert.NotContains(t, said, inner, "%s %s", x.method, x.path)
		}
	}
	// The one character that is text and cannot be kept is left out.
	made := c.call(201, "POST", "/api/reviews", map[string]any{"name": "He\x00at"})
	assert.Equal(t, "Heat", made["name"])
}

// Thirty senders of files that come in drops hold nothing that others need.
func TestDrippingFilesKeepNobodyWaiting(t *testing.T) {
	c, _ := start(t)
	id := int64(c.call(201, "POST", "/api/reviews", map[string]any{"name": "Heat"})["id"].(float64))
	address := strings.TrimPrefix(c.server.URL, "http://")
	var open []net.Conn
	for k := range 30 {
		conn, err := net.Dial("tcp", address)
		require.NoError(t, err)
		defer conn.Close()
		_, err = fmt.Fprintf(
			conn,
			"POST /api/reviews/%d/imports?kind=sample&name=%d.ris HTTP/1.1\r\nHost: %s\r\nContent-Type: "+
				"application/octet-stream\r\nContent-Length: 100000\r\n\r\nTY  - JOUR\r\n",
			id,
			k,
			address,
		)
		require.NoError(t, err)
		open = append(open, conn)
	}
	at := fmt.Sprintf("/api/reviews/%d", id)
	for range 20 {
		c.call(200, "GET", "/health", nil)
		c.call(200, "GET", at, nil)
	}
	c.call(200, "PATCH", at, map[string]any{"name": "Heat and kidneys"})
	c.call(202, "POST", at+"/imports?kind=sample&name=whole.ris", []byte("TY  - JOUR\nTI  - Heat\nER  - \n"))
	require.Eventually(
		t,
		func() bool { return len(c.call(200, "GET", at, nil)["samples"].([]any)) == 1 },
		time.Minute,
		20*time.Millisecond,
	)
	// Who leaves on the way leaves nothing behind.
	for _, conn := range open {
		require.NoError(t, conn.Close())
	}
	require.Eventually(
		t,
		func() bool { return len(c.call(200, "GET", at, nil)["imports"].([]any)) == 0 },
		time.Minute,
		20*time.Millisecond,
	)
}

func TestFilesHaveAnEndThatMovesWithWhatComes(t *testing.T) {
	c, _ := start(t)
	address := strings.TrimPrefix(c.server.URL, "http://")
	conn, err := net.Dial("tcp", address)
	require.NoError(t, err)
	defer conn.Close()
	// A call that is no file and breaks off is told so.
	_, err = fmt.Fprintf(
		conn,
		"POST /api/reviews HTTP/1.1\r\nHost: %s\r\nContent-Type: application/json\r\nContent-Length: 100\r\n\r\n{\"name\"",
		address,
	)
	require.NoError(t, err)
	require.NoError(t, conn.(*net.TCPConn).CloseWrite())
	answer, err := http.ReadResponse(bufio.NewReader(conn), nil)
	require.NoError(t, err)
	defer answer.Body.Close()
	said, _ := io.ReadAll(answer.Body)
	assert.Equal(t, 400, answer.StatusCode)
	assert.Contains(t, string(said), "broken-off")
}

// A change whose answer was lost is sent again under the same name, and made once.
func TestARepeatedRequestIsMadeOnce(t *testing.T) {
	c, _ := start(t)
	id := int64(c.call(201, "POST", "/api/reviews", map[string]any{"name": "Heat"})["id"].(float64))
	at := fmt.Sprintf("/api/reviews/%d", id)
	change := map[string]any{"what": map[string]any{"key": "question", "params": map[string]string{}},
		"edits": []any{map[string]any{"op": "question", "text": "Heat?"}}}
	request := []string{"If-Match", `"1"`, "Tamiz-Request", "7b1fb1a0-5d7e-4c2e-9b0a-2f6a3c1d5e77"}
	first := c.call(200, "POST", at+"/changes", change, request...)
	again := c.call(200, "POST", at+"/changes", change, request...)
	assert.Equal(t, first["revision"], again["revision"])
	undone := []string{"Tamiz-Request", "0b1fb1a0-5d7e-4c2e-9b0a-2f6a3c1d5e77"}
	c.call(200, "POST", at+"/undo", nil, undone...)
	after := c.call(200, "POST", at+"/undo", nil, undone...)
	assert.NotNil(t, after["redo"])
	status, said := c.asked("POST", at+"/undo", "", "Tamiz-Request", "no uuid")
	assert.Equal(t, 422, status, said)
}

// What makes something makes it once, however often it is sent: the answer is the same, and while the first is
// being done the second waits for it.
func TestWhatIsMadeIsMadeOnce(t *testing.T) {
	c, _ := start(t)
	again := func(method, path, kind, body string) {
		t.Helper()
		id := uuid.NewString()
		type answer struct {
			status int
			said   string
		}
		answers := make(chan answer, 3)
		for range 3 {
			go func() {
				status, said := c.asked(method, path, body, "Tamiz-Request", id, "Content-Type", kind)
				answers <- answer{status, said}
			}()
		}
		first := <-answers
		assert.Contains(t, []int{200, 201, 202}, first.status, first.said)
		assert.Equal(t, first, <-answers, path)
		assert.Equal(t, first, <-answers, path)
		status, said := c.asked(method, path, body, "Tamiz-Request", id, "Content-Type", kind)
		assert.Equal(t, first, answer{status, said}, path)
	}
	again("POST", "/api/reviews", "application/json", `{"name": "Heat"}`)
	_, said := c.asked("GET", "/api/reviews", "")
	var reviews []struct{ ID int64 }
	require.NoError(t, json.Unmarshal([]byte(said), &reviews))
	require.Len(t, reviews, 1)
	at := fmt.Sprintf("/api/reviews/%d", reviews[0].ID)
	again("POST", at+"/imports?kind=sample&name=a.ris", "application/octet-stream", "TY  - JOUR\nTI  - Heat\nER  - \n")
}

// A page of another place cannot have anything changed: neither under another scheme, nor by what a form sends
// without being asked.
func TestOnlyItsOwnPagesChangeAnything(t *testing.T) {
	c, _ := start(t)
	own := c.server.URL
	for _, x := range []struct {
		origin, kind string
		status       int
	}{
		{own, "application/json", 201},
		{"", "application/json", 201},
		{strings.Replace(own, "http:", "https:", 1), "application/json", 403},
		{"http://elsewhere.example", "application/json", 403},
		{"null", "application/json", 403},
		{own, "text/plain", 415},
		{own, "application/x-www-form-urlencoded", 415},
		{own, "", 415},
	} {
		headers := []string{"Content-Type", x.kind}
		if x.origin != "" {
			headers = append(headers, "Origin", x.origin)
		}
		status, said := c.asked("POST", "/api/reviews", `{"name": "Heat"}`, headers...)
		assert.Equal(t, x.status, status, "%s %s: %s", x.origin, x.kind, said)
	}
}

// A database that is away is told as that, whatever was asked, and never as a fault of what was sent. When it is
// back, so is the program.
func TestADatabaseThatDiesIsToldAndComesBack(t *testing.T) {
	dir, err := os.MkdirTemp("", "tamiz-dies-")
	require.NoError(t, err)
	require.NoError(t, os.Chmod(dir, 0o755))
	t.Cleanup(func() { _ = os.RemoveAll(dir) })
	server, err := cluster.Start(t.Context(), dir, false)
	require.NoError(t, err)
	t.Cleanup(server.Stop)
	db, err := store.Open(t.Context(), server.URL)
	require.NoError(t, err)
	t.Cleanup(db.Close)
	c := startOn(t, db)
	id := int64(c.call(201, "POST", "/api/reviews", map[string]any{"name": "Heat"})["id"].(float64))
	server.Kill()
	at := fmt.Sprintf("/api/reviews/%d", id)
	for _, call := range [][2]string{{"GET", "/health"}, {"GET", at}, {"GET", "/api/reviews"}, {"GET", at + "/counts"}} {
		// What is left of the one that died may answer for a moment.
		require.Eventually(t, func() bool {
			status, said := c.asked(call[0], call[1], "")
			require.Contains(t, []int{200, 503}, status, "%s: %s", call[1], said)
			return status == 503
		}, time.Minute, 20*time.Millisecond)
	}
	r, err := http.Post(
		c.server.URL+at+"/imports?kind=sample&name=a.ris",
		"application/octet-stream",
		strings.NewReader("TY  - JOUR\nER  - \n"),
	)
	require.NoError(t, err)
	defer r.Body.Close()
	assert.Equal(t, 503, r.StatusCode, "a file is not called unreadable for it")
	go server.Keep(t.Context(), func(error) {})
	require.Eventually(t, func() bool {
		status, _ := c.asked("GET", at, "")
		return status == 200
	}, time.Minute, 50*time.Millisecond)
	require.Eventually(t, func() bool {
		r, err := http.Post(
			c.server.URL+at+"/imports?kind=sample&name=a.ris",
			"application/octet-stream",
			strings.NewReader("TY  - JOUR\nTI  - Heat\nER  - \n"),
		)
		require.NoError(t, err)
		defer r.Body.Close()
		return r.StatusCode == 202
	}, time.Minute, 50*time.Millisecond, "a connection that died with the database is found out by whoever gets it")
	require.Eventually(t, func() bool {
		return len(c.call(200, "GET", at, nil)["samples"].([]any)) == 1
	}, time.Minute, 50*time.Millisecond, "work goes on when the database is back")
}
