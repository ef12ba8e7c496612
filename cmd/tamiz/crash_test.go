package main

import (
	"bytes"
	"fmt"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"os"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/reviews"
	"tamiz/app/sources"
	"tamiz/demo"
	"tamiz/exchange/ris"
	"tamiz/source/standin"
	"tamiz/store/storetest"
)

// fewKills is how often a program is killed where nobody says how often (TAMIZ_KILLS; `make test-crash` says 200).
const fewKills = 8

// takenUpWithin is how long what was acknowledged may stand still after the last kill: ten seconds until it is
// taken up, and its work.
const takenUpWithin = 90 * time.Second

// Two copies work on one database. Files and draws are asked for all the time, and again and again one copy is
// killed, mostly in the moment when what waits asks for its turn. Whatever was acknowledged is done in the end,
// once, and nothing is left standing.
func TestNothingIsStrandedByKills(t *testing.T) {
	kills := fewKills
	if said := os.Getenv("TAMIZ_KILLS"); said != "" {
		var err error
		kills, err = strconv.Atoi(said)
		require.NoError(t, err)
	}
	source := httptest.NewServer(standin.Handler(standin.Sources(demo.NewLiterature(demo.Seed, 2000))...))
	defer source.Close()
	url, allowed := storetest.URL(t), strings.TrimPrefix(source.URL, "http://")
	copies := []*running{run1(t, url, allowed), run1(t, url, allowed)}
	defer func() {
		for _, c := range copies {
			c.kill()
		}
	}()
	var src sources.Source
	copies[0].call(t, "POST", "/api/sources", fmt.Sprintf(`{"address": %q}`, source.URL+"/almagre"), &src)
	var review reviews.Head
	copies[0].call(t, "POST", "/api/reviews", `{"name": "Killed and killed"}`, &review)
	at := fmt.Sprintf("/api/reviews/%d", review.ID)

	world := demo.NewWorld(demo.Seed+1, 40).Records
	r := rand.New(rand.NewPCG(7, 7))
	files, draws := map[string]bool{}, map[string]bool{} // acknowledged
	ask := func(n int) {
		c := copies[r.IntN(2)]
		name := fmt.Sprintf("%d", n)
		if n%3 == 0 {
			body := fmt.Sprintf(
				`{"name": %q, "sources": [%d], "concepts": [], "each": false, "how": "random", "atMost": 40, "seed": %d}`,
				name,
				src.ID,
				n+1,
			)
			if c.acknowledged(at+"/draws", "application/json", []byte(body)) {
				draws[name] = true
			}
			return
		}
		var file bytes.Buffer
		for i := range 10 {
			record := *world[(n+i)%len(world)]
			record.Title += " " + name // no two files are the same
			require.NoError(t, ris.Write(&file, &record))
		}
		if c.acknowledged(at+"/imports?kind=sample&name="+name+".ris", "application/octet-stream", file.Bytes()) {
			files[name] = true
		}
	}
	asked := 0
	for range kills {
		for range 1 + r.IntN(4) {
			ask(asked)
			asked++
		}
		victim := r.IntN(2)
		for range r.IntN(12) { // at once, or while what was asked last is under way
			copies[victim].call(t, "GET", "/api/reviews", "", nil)
		}
		copies[victim].kill()
		copies[victim] = run1(t, url, allowed)
	}
	require.NotEmpty(t, files)

	var now reviews.Review
	assert.Eventually(t, func() bool {
		now = reviews.Review{}
		copies[0].call(t, "GET", at, "", &now)
		return len(now.Samples) >= len(files)+len(draws)
	}, takenUpWithin, 100*time.Millisecond, "%d of %d came of %d files and %d draws", len(now.Samples),
		len(files)+len(draws), len(files), len(draws))
	seen := map[string]int{}
	for _, s := range now.Samples {
		seen[strings.TrimSuffix(s.Name, ".ris")]++
	}
	for _, all := range []map[string]bool{files, draws} {
		for name := range all {
			assert.Equal(t, 1, seen[name], "%s", name)
		}
	}
	t.Logf("%d kills, %d files and %d draws acknowledged, %d samples", kills, len(files), len(draws), len(now.Samples))
}

// acknowledged sends something and reports whether it was taken. Where its answer is lost it may have been taken or
// not.
func (r *running) acknowledged(path, kind string, body []byte) bool {
	request, err := http.NewRequest("POST", r.address+path, bytes.NewReader(body))
	if err != nil {
		return false
	}
	request.Header.Set("Content-Type", kind)
	request.Header.Set("Tamiz-Request", uuid.NewString())
	answer, err := http.DefaultClient.Do(request)
	if err != nil {
		return false
	}
	_ = answer.Body.Close()
	return answer.StatusCode == 202
}
