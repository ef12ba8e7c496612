package bench

import (
	"bufio"
	"bytes"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"

	"tamiz/app/reviews"
	"tamiz/core/review"
	"tamiz/core/strategy"
	"tamiz/exchange/ris"
)

// processes tells how much memory the program takes at most, for some settings, when one person goes over every
// screen of a review of 50,000 wordy records, and when twenty do so at once. What is refused for want of memory is
// counted.
func processes(t *testing.T, _ sizes) (rows []row) {
	a, dir, url, ctx := applicationAt(t)
	r, err := a.Reviews.CreateReview(ctx, reviews.NewReview{Name: "Many words"})
	require.NoError(t, err)
	records := wordy(wordyRecords)
	for name, some := range map[string]int{"keys": 30, "sample": len(records)} {
		path := filepath.Join(dir, name+".ris")
		out, err := os.Create(path)
		require.NoError(t, err)
		w := ris.NewWriter(out)
		for _, record := range records[:some] {
			require.NoError(t, w.Write(record))
		}
		require.NoError(t, w.Close())
		require.NoError(t, out.Close())
		brought(t, ctx, a, r.ID, name, path)
	}
	now, err := a.Reviews.Review(ctx, r.ID)
	require.NoError(t, err)
	doc := now.Document
	for i := range 3 {
		b := review.Block{
			ID:       fmt.Sprint("b", i),
			Name:     string(rune('A' + i)),
			Concept:  fmt.Sprint("concept ", i),
			Searched: true,
		}
		for k, word := range strings.Fields(records[i].Abstract)[:5] {
			b.Terms = append(
				b.Terms,
				review.Term{
					ID:   fmt.Sprint("t", i, "-", k),
					Term: strategy.Term{Kind: strategy.TextTerm, Text: strings.Trim(word, "."), On: true, Field: "text"},
				},
			)
		}
		doc.Blocks = append(doc.Blocks, b)
	}
	_, err = a.Reviews.Change(
		ctx,
		r.ID,
		now.Revision,
		reviews.Change{What: reviews.What{Key: "demo"}, Edits: review.Diff(now.Document, doc)},
	)
	require.NoError(t, err)

	program := filepath.Join(dir, "tamiz")
	built, err := exec.Command("go", "build", "-C", "..", "-o", program, "./cmd/tamiz").CombinedOutput()
	require.NoError(t, err, string(built))
	for _, megabytes := range []int{300, 600, 1000} {
		p := begin(t, program, url, megabytes)
		one := p.screens(r.ID, true)
		alone := p.peak(t)
		var wait sync.WaitGroup
		all := make([]int, 20)
		for i := range all {
			wait.Go(func() { all[i] = p.screens(r.ID, false) })
		}
		wait.Wait()
		refused := 0
		for _, n := range all {
			refused += n
		}
		at := func(peak int) string {
			return fmt.Sprintf("%d MB at most, %.2f of it", peak, float64(peak)/float64(megabytes))
		}
		rows = append(
			rows,
			row{
				fmt.Sprintf(
					"every screen of a review of %d records of %d words, TAMIZ_MEMORY_MB=%d, one person (%d of %d calls refused)",
					wordyRecords,
					wordyWords,
					megabytes,
					one,
					len(screens),
				),
				"–",
				at(alone),
				"≤ 1.5",
			},
			row{
				fmt.Sprintf("the same, twenty at once (%d of %d refused)", refused, 20*len(screens)),
				"–",
				at(p.peak(t)),
				"≤ 1.5",
			},
		)
		p.end()
		t.Logf("%v", rows[len(rows)-2:])
	}
	return rows
}

// A served is the program in a process of its own.
type served struct {
	cmd     *exec.Cmd
	address string
}

func begin(t *testing.T, program, url string, megabytes int) *served {
	cmd := exec.Command(program, "serve", "--database-url", url, "--listen", "127.0.0.1:0")
	cmd.Env = append(os.Environ(), fmt.Sprint("TAMIZ_MEMORY_MB=", megabytes))
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start())
	line, err := bufio.NewReader(out).ReadString('\n')
	require.NoError(t, err)
	t.Cleanup(func() { _ = cmd.Process.Kill() })
	return &served{cmd, strings.TrimSpace(strings.TrimPrefix(line, "Tamiz is at "))}
}

func (p *served) end() {
	_ = p.cmd.Process.Kill()
	_ = p.cmd.Wait()
}

// screens are the calls that the screens of a review make.
var screens = []struct{ method, path, body string }{
	{
		"GET",
		"",
		"",
	}, {"POST", "/bench", "{}"}, {"GET", "/tally?facet=words", ""}, {"GET", "/suits?facet=words", ""},
	{"GET", "/tally?facet=words&words=ba", ""},
	{
		"GET",
		"/tally?facet=headings",
		"",
	}, {"GET", "/tally?facet=journals", ""}, {"GET", "/tally?facet=years", ""}, {"GET", "/heading-tree", ""},
	{"GET", "/teams", ""},
	{
		"GET",
		"/item?facet=words&item=ba",
		"",
	}, {"GET", "/coverage", ""}, {"GET", "/plan", ""}, {"GET", "/blocks/b0/blind-spot", ""},
	{"GET", "/blocks/b0/pruning?share=0.95", ""},
	{
		"GET",
		"/blocks/b0/remarks",
		"",
	}, {"POST", "/records", `{"of":{"kind":"strategy"},"at":0,"limit":200}`}, {"GET", "/lines", ""}, {"GET", "/record",
		""}, {"GET", "/tally/export?facet=words&format=csv", ""},
}

// screens goes over every screen and returns how many calls were refused for want of memory, or of a turn.
func (p *served) screens(review int64, say bool) (refused int) {
	for _, c := range screens {
		request, err := http.NewRequest(
			c.method,
			fmt.Sprint(p.address, "/api/reviews/", review, c.path),
			bytes.NewBufferString(c.body),
		)
		if err != nil {
			panic(err)
		}
		request.Header.Set("Content-Type", "application/json")
		answer, err := http.DefaultClient.Do(request)
		if err != nil {
			panic(err)
		}
		if answer.StatusCode < 300 {
			_, _ = io.Copy(io.Discard, answer.Body)
		} else {
			said, _ := io.ReadAll(answer.Body)
			refused++
			if say {
				fmt.Printf("%s %s: %d %s\n", c.method, c.path, answer.StatusCode, said)
			}
		}
		_ = answer.Body.Close()
	}
	return refused
}

var highWater = regexp.MustCompile(`VmHWM:\s+(\d+) kB`)

// peak returns how much memory the process has taken at most, in MB.
func (p *served) peak(t *testing.T) int {
	status, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", p.cmd.Process.Pid))
	require.NoError(t, err)
	kilobytes, err := strconv.Atoi(string(highWater.FindSubmatch(status)[1]))
	require.NoError(t, err)
	return kilobytes >> 10
}
