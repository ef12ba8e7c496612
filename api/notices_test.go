package api_test

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/alerts"
)

// page asks for what is no call of the contract.
func (c *caller) page(method, path string, headers ...string) (status int, body string) {
	c.t.Helper()
	r, err := http.NewRequest(method, c.server.URL+path, nil)
	require.NoError(c.t, err)
	for i := 0; i < len(headers); i += 2 {
		r.Header.Set(headers[i], headers[i+1])
	}
	answer, err := http.DefaultClient.Do(r)
	require.NoError(c.t, err)
	defer answer.Body.Close()
	got, err := io.ReadAll(answer.Body)
	require.NoError(c.t, err)
	return answer.StatusCode, string(got)
}

// list asks for what is a list.
func (c *caller) list(path string) (out []map[string]any) {
	c.t.Helper()
	require.NoError(c.t, json.Unmarshal([]byte(c.call(200, "GET", path, nil)[""].(string)), &out))
	return out
}

func TestALinkInAMailStopsItOnlyWhenItIsPressed(t *testing.T) {
	c, db := start(t)
	id := c.call(201, "POST", "/api/reviews", map[string]any{"name": "Heat & <crews>"})["id"]
	at := fmt.Sprintf("/api/reviews/%v/told", id)
	c.call(409, "POST", at+"/addresses", map[string]any{"address": "sol@olmo.example"}) // no mail server is known here
	_, err := alerts.NewRows(db).PutMailTo(t.Context(), int64(id.(float64)), "sol@olmo.example", "SECRET", 5)
	require.NoError(t, err)
	status, body := c.page("GET", "/stop/SECRET")
	assert.Equal(t, 200, status)
	assert.Contains(t, body, "Heat &amp; &lt;crews&gt;")
	shown, err := http.Get(c.server.URL + "/stop/SECRET")
	require.NoError(t, err)
	require.NoError(t, shown.Body.Close())
	assert.Equal(t, "same-origin", shown.Header.Get("Referrer-Policy"), "so that the browser says whose form it is")
	stopped := func() any { return c.call(200, "GET", at, nil)["addresses"].([]any)[0].(map[string]any)["stopped"] }
	assert.Equal(t, false, stopped(), "whoever only follows the link stops nothing")
	status, _ = c.page("POST", "/stop/SECRET", "Origin", "null")
	assert.Equal(t, 403, status)
	assert.Equal(t, false, stopped(), "nor does a page of another")
	status, body = c.page("POST", "/stop/SECRET", "Origin", c.server.URL)
	assert.Equal(t, 200, status)
	assert.Contains(t, body, "You get no more mail")
	assert.Equal(t, true, stopped())
	status, _ = c.page("POST", "/stop/OTHER")
	assert.Equal(t, 404, status)

	c.call(204, "POST", at+"/feed", nil)
	secret := c.call(200, "GET", at, nil)["feed"].(string)
	status, body = c.page("GET", "/feeds/"+secret+"/rss")
	assert.Equal(t, 200, status)
	assert.True(t, strings.Contains(body, "Heat &amp; &lt;crews&gt;"), body)
	c.call(204, "DELETE", at+"/feed", nil)
	status, _ = c.page("GET", "/feeds/"+secret+"/atom")
	assert.Equal(t, 404, status)
	c.call(404, "DELETE", at+"/addresses/999", nil)
}

func TestChecksAndNotesKeepTheContract(t *testing.T) {
	c, _ := start(t)
	id := c.call(201, "POST", "/api/reviews", map[string]any{"name": "Heat"})["id"]
	at := fmt.Sprintf("/api/reviews/%v", id)
	c.call(204, "POST", at+"/versions", map[string]any{"name": "Draft"})
	var version float64
	for _, v := range c.list(at + "/versions") {
		version = v["id"].(float64)
	}
	c.call(404, "POST", at+"/checks", map[string]any{"version": 999, "checker": "Sol"})
	c.call(204, "POST", at+"/checks", map[string]any{"version": version, "checker": "Sol"})
	check := fmt.Sprintf("%s/checks/%v", at, c.list(at + "/checks")[0]["id"])
	c.call(200, "GET", check+"/sheet", nil)
	c.call(422, "PUT", check+"/answers/words", map[string]any{"verdict": "revise", "words": ""})
	c.call(204, "PUT", check+"/answers/words", map[string]any{"verdict": "revise", "words": "pickers"})
	c.call(204, "POST", check+"/suggestions", map[string]any{"line": "", "words": "pickers"})
	c.call(
		422,
		"POST",
		check+"/suggestions",
		map[string]any{
			"line":  "",
			"words": "",
			"edits": []any{
				map[string]any{"op": "removeTerm", "block": "a", "id": "1"},
				map[string]any{"op": "patchTerm", "block": "a", "id": "1", "patch": map[string]any{}},
			},
		},
	)
	suggestion := c.list(at + "/checks")[0]["suggestions"].([]any)[0].(map[string]any)["id"]
	c.call(204, "PATCH", fmt.Sprintf("%s/suggestions/%v", check, suggestion), map[string]any{"state": "declined"})
	c.call(422, "PATCH", check, map[string]any{"done": true})
	c.call(204, "DELETE", check, nil)
	c.call(409, "PUT", check+"/answers/words", map[string]any{"verdict": "fine", "words": ""})
	c.call(204, "DELETE", check+"?back=true", nil)

	c.call(
		204,
		"POST",
		at+"/notes",
		map[string]any{"kind": "question", "about": "", "name": "the question", "words": "Children too?"},
	)
	note := fmt.Sprintf("%s/notes/%v", at, c.list(at + "/notes")[0]["id"])
	c.call(204, "PATCH", note, map[string]any{"settled": true})
	c.call(204, "DELETE", note, nil)
	c.call(404, "PATCH", note, map[string]any{"settled": false})
	said := c.call(422, "POST", at+"/lines/read", map[string]any{"text": "1 or 2"})
	assert.Equal(t, "There is no line 1 before this one: there are 0.", said["title"])
}
