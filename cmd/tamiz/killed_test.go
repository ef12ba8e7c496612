package main

import (
	"bufio"
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"os"
	"os/exec"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/draws"
	"tamiz/app/figures"
	"tamiz/app/reviews"
	"tamiz/app/sources"
	"tamiz/demo"
	"tamiz/source/standin"
	"tamiz/store/storetest"
)

// asProgram makes the test binary be the program itself, so that it can be killed.
const asProgram = "TAMIZ_TEST_AS_PROGRAM"

func TestMain(m *testing.M) {
	if os.Getenv(asProgram) != "" {
		main()
		return
	}
	storetest.Main(m)
}

// A running is the program in a process of its own.
type running struct {
	cmd     *exec.Cmd
	address string
}

func (r *running) kill() {
	_ = r.cmd.Process.Kill() // SIGKILL: nothing is said good-bye to
	_ = r.cmd.Wait()
}

func run1(t *testing.T, url, allowed string) *running {
	t.Helper()
	program, err := os.Executable()
	require.NoError(t, err)
	cmd := exec.Command(program, "serve", "--database-url", url, "--listen", "127.0.0.1:0")
	cmd.Env = append(os.Environ(), asProgram+"=1", "TAMIZ_ALLOW_SOURCES="+allowed)
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start())
	line, err := bufio.NewReader(out).ReadString('\n')
	require.NoError(t, err)
	return &running{cmd, strings.TrimSpace(strings.TrimPrefix(line, "Tamiz is at "))}
}

func (r *running) call(t *testing.T, method, path, body string, into any) {
	t.Helper()
	request, err := http.NewRequest(method, r.address+path, strings.NewReader(body))
	require.NoError(t, err)
	request.Header.Set("Content-Type", "application/json")
	answer, err := http.DefaultClient.Do(request)
	require.NoError(t, err)
	defer answer.Body.Close()
	said, err := io.ReadAll(answer.Body)
	require.NoError(t, err)
	require.Less(t, answer.StatusCode, 300, "%s %s: %s", method, path, said)
	if into != nil {
		require.NoError(t, json.Unmarshal(said, into))
	}
}

// The program is killed at twenty random moments of a draw of 5,000: before, within and after the answer to
// a page. Each time it is started again it goes on by itself, and it ends with exactly those 5,000.
func TestADrawSurvivesBeingKilled(t *testing.T) {
	const wanted, kills = 5000, 20
	literature := demo.NewLiterature(demo.Seed, 6000)
	handler := standin.Handler(standin.Sources(literature)...)
	r := rand.New(rand.NewPCG(1, 2))
	var mu sync.Mutex
	left, next, within := kills, 1, 0
	strike := make(chan struct{}, 1)
	source := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, q *http.Request) {
		mu.Lock()
		hit := false
		if q.FormValue("maximumRecords") != "0" && q.FormValue("query") != "" && left > 0 {
			if next--; next == 0 {
				hit, left, next, within = true, left-1, 1+r.IntN(4), r.IntN(3)
			}
		}
		how := within
		mu.Unlock()
		if !hit {
			handler.ServeHTTP(w, q)
			return
		}
		switch how {
		case 0: // before the answer
		case 1: // within it
			answer := httptest.NewRecorder()
			handler.ServeHTTP(answer, q)
			body := answer.Body.Bytes()
			w.Header().Set("Content-Length", fmt.Sprint(len(body)))
			_, _ = w.Write(body[:len(body)/2])
			_ = http.NewResponseController(w).Flush()
		case 2: // after it, while it is being kept
			handler.ServeHTTP(w, q)
			_ = http.NewResponseController(w).Flush()
		}
		strike <- struct{}{}
		if how < 2 {
			<-q.Context().Done()
		}
	}))
	defer source.Close()
	allowed := strings.TrimPrefix(source.URL, "http://")
	url := storetest.URL(t)

	p := run1(t, url, allowed)
	defer func() { p.kill() }()
	var src sources.Source
	p.call(t, "POST", "/api/sources", fmt.Sprintf(`{"address": %q}`, source.URL+"/almagre"), &src)
	var review reviews.Head
	p.call(t, "POST", "/api/reviews", `{"name": "Killed"}`, &review)
	var begun []draws.Draw
	p.call(
		t,
		"POST",
		fmt.Sprintf("/api/reviews/%d/draws", review.ID),
		fmt.Sprintf(
			`{"name": "five thousand", "sources": [%d], "concepts": [], "each": false, "how": "random", "atMost": %d, "seed": 5}`,
			src.ID,
			wanted,
		),
		&begun,
	)
	for range kills {
		select {
		case <-strike:
		case <-time.After(time.Minute):
			require.Fail(t, "the draw did not go on by itself")
		}
		p.kill()
		p = run1(t, url, allowed)
	}
	list := []draws.Draw{}
	require.Eventually(t, func() bool {
		p.call(t, "GET", fmt.Sprintf("/api/reviews/%d/draws", review.ID), "", &list)
		return len(list) == 1 && list[0].State == "done"
	}, time.Minute, 100*time.Millisecond)
	assert.Equal(t, []int{wanted, wanted, 0}, []int{list[0].Wanted, list[0].Got, list[0].Troubles})

	// Exactly those: each once, and those that the seed says.
	seen := map[string]bool{}
	for at := 0; at < wanted; at += 500 {
		var list figures.RecordList
		p.call(
			t,
			"POST",
			fmt.Sprintf("/api/reviews/%d/records", review.ID),
			fmt.Sprintf(`{"of": {"kind": "all"}, "at": %d, "limit": 500}`, at),
			&list,
		)
		require.Equal(t, wanted, list.Total)
		for _, head := range list.Records {
			key := fmt.Sprint(head.ID)
			require.False(t, seen[key])
			seen[key] = true
		}
	}
	assert.Len(t, seen, wanted)
	var review2 reviews.Head
	p.call(t, "POST", "/api/reviews", `{"name": "Not killed"}`, &review2)
	p.call(
		t,
		"POST",
		fmt.Sprintf("/api/reviews/%d/draws", review2.ID),
		fmt.Sprintf(
			`{"name": "the same", "sources": [%d], "concepts": [], "each": false, "how": "random", "atMost": %d, "seed": 5}`,
			src.ID,
			wanted,
		),
		nil,
	)
	require.Eventually(t, func() bool {
		p.call(t, "GET", fmt.Sprintf("/api/reviews/%d/draws", review2.ID), "", &list)
		return len(list) == 1 && list[0].State == "done"
	}, time.Minute, 100*time.Millisecond)
	for at := 0; at < wanted; at += 500 {
		var list figures.RecordList
		p.call(
			t,
			"POST",
			fmt.Sprintf("/api/reviews/%d/records", review2.ID),
			fmt.Sprintf(`{"of": {"kind": "all"}, "at": %d, "limit": 500}`, at),
			&list,
		)
		for _, head := range list.Records {
			require.True(t, seen[fmt.Sprint(head.ID)], "a record that the killed draw does not have")
		}
	}
}
