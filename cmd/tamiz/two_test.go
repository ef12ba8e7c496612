package main

import (
	"bufio"
	"bytes"
	"context"
	"fmt"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/draws"
	"tamiz/app/library"
	"tamiz/app/reviews"
	"tamiz/app/sources"
	"tamiz/demo"
	"tamiz/exchange/ris"
	"tamiz/source/standin"
	"tamiz/store/storetest"
)

// bring sends a file as a person would and returns its import.
func (r *running) bring(t *testing.T, review int64, kind, name string, file []byte) reviews.Import {
	t.Helper()
	answer, err := http.Post(
		fmt.Sprintf("%s/api/reviews/%d/imports?kind=%s&name=%s", r.address, review, kind, name),
		"application/octet-stream",
		bytes.NewReader(file),
	)
	require.NoError(t, err)
	defer answer.Body.Close()
	require.Equal(t, 202, answer.StatusCode)
	var list struct {
		Imports []reviews.Import `json:"imports"`
	}
	r.call(t, "GET", fmt.Sprintf("/api/reviews/%d", review), "", &list)
	require.NotEmpty(t, list.Imports)
	return list.Imports[len(list.Imports)-1]
}

// listen returns the news of a review as one program tells them.
func (r *running) listen(t *testing.T, review int64) <-chan string {
	t.Helper()
	ctx, cancel := context.WithCancel(context.Background())
	t.Cleanup(cancel)
	request, err := http.NewRequestWithContext(ctx, "GET", fmt.Sprintf("%s/api/reviews/%d/events", r.address, review), nil)
	require.NoError(t, err)
	answer, err := http.DefaultClient.Do(request)
	require.NoError(t, err)
	out := make(chan string, 1000)
	go func() {
		defer answer.Body.Close()
		lines := bufio.NewScanner(answer.Body)
		for lines.Scan() {
			out <- lines.Text()
		}
	}()
	return out
}

func hears(t *testing.T, news <-chan string, what string) {
	t.Helper()
	end := time.After(20 * time.Second)
	for {
		select {
		case line := <-news:
			if strings.Contains(line, what) {
				return
			}
		case <-end:
			require.Fail(t, "no news came", what)
		}
	}
}

// Two programs share a database. What is asked of one is worked on by either and told by both; one is killed in
// the middle of everything, and the other does the rest.
func TestTwoProgramsShareADatabase(t *testing.T) {
	literature := demo.NewLiterature(demo.Seed, 6000)
	handler := standin.Handler(standin.Sources(literature)...)
	var mu sync.Mutex
	slow := true
	source := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, q *http.Request) {
		mu.Lock()
		wait := slow && q.FormValue("maximumRecords") != "0" && q.FormValue("query") != ""
		mu.Unlock()
		if wait {
			select {
			case <-q.Context().Done():
				return
			case <-time.After(50 * time.Millisecond): // so that there is a middle
			}
		}
		handler.ServeHTTP(w, q)
	}))
	defer source.Close()
	url, allowed := storetest.URL(t), strings.TrimPrefix(source.URL, "http://")
	one := run1(t, url, allowed)
	defer one.kill()
	two := run1(t, url, allowed)
	defer two.kill()

	var review reviews.Head
	one.call(t, "POST", "/api/reviews", `{"name": "Shared"}`, &review)
	at := fmt.Sprintf("/api/reviews/%d", review.ID)
	news := map[string]<-chan string{"one": one.listen(t, review.ID), "two": two.listen(t, review.ID)}
	for _, split := range []string{"true", "false"} { // a change, and back
		two.call(t, "POST", at+"/halves?split="+split, "", nil)
		for _, n := range news {
			hears(t, n, `"kind":"change"`)
		}
	}
	var src sources.Source
	one.call(t, "POST", "/api/sources", fmt.Sprintf(`{"address": %q}`, source.URL+"/almagre"), &src)
	one.call(t, "POST", at+"/looks", fmt.Sprintf(`{"rest": true, "source": %d}`, src.ID), nil)

	// A file that is large enough to be in the middle of, a draw, key studies to be looked up, counts.
	var large, keys bytes.Buffer
	for i, r := range demo.NewWorld(demo.Seed+1, 30_000).Records {
		require.NoError(t, ris.Write(&large, r))
		if i < 10 {
			require.NoError(t, ris.Write(&keys, r))
		}
	}
	number := one.bring(t, review.ID, "sample", "large.ris", large.Bytes()).ID
	var begun []draws.Draw
	one.call(
		t,
		"POST",
		at+"/draws",
		fmt.Sprintf(
			`{"name": "all", "sources": [%d], "concepts": [], "each": false, "how": "random", "atMost": 3000, "seed": 5}`,
			src.ID,
		),
		&begun,
	)
	one.bring(t, review.ID, "keys", "keys.ris", keys.Bytes())
	one.call(t, "GET", at+"/counts", "", nil)
	require.Eventually(t, func() bool {
		var i reviews.Import
		two.call(t, "GET", fmt.Sprintf("/api/imports/%d", number), "", &i)
		return i.Records > 0
	}, time.Minute, 20*time.Millisecond)
	one.kill()

	var now reviews.Review
	require.Eventually(t, func() bool {
		now = reviews.Review{} // what was decoded before would show through
		two.call(t, "GET", at, "", &now)
		return len(now.Samples) == 2 && len(now.KeyStudies) == 10
	}, 2*time.Minute, 100*time.Millisecond, "the file, the draw or the key studies stand still")
	for _, s := range now.Samples {
		if s.Import != nil {
			assert.Equal(t, 30_000, s.Records)
		} else {
			assert.Equal(t, 3000, s.Records)
		}
	}
	assert.Empty(t, now.Imports)
	require.Eventually(t, func() bool {
		var holdings []library.Holding
		two.call(t, "GET", at+"/holdings", "", &holdings)
		return len(holdings) == 10
	}, time.Minute, 100*time.Millisecond, "what the sources hold was never found out")
	mu.Lock()
	slow = false
	mu.Unlock()
	hears(t, news["two"], `"kind":"change"`)
}
