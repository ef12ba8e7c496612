package bench

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"tamiz/app/draws"
	"tamiz/app/reviews"
	"tamiz/app/sources"
	"tamiz/core/bib"
	"tamiz/core/strategy"
	"tamiz/source"
	"tamiz/source/sru"
	"tamiz/store/cluster"
)

// A process is the program, running.
type process struct {
	cmd   *exec.Cmd
	lines []string
}

// program builds the program once for a test and returns where it is.
func program(t *testing.T) string {
	file := filepath.Join(t.TempDir(), "tamiz")
	out, err := exec.Command("go", "build", "-o", file, "tamiz/cmd/tamiz").CombinedOutput()
	require.NoError(t, err, "%s", out)
	return file
}

// start runs the program until the test ends, and waits for so many lines of what it prints.
func start(t *testing.T, file string, lines int, env []string, args ...string) *process {
	p := &process{cmd: exec.Command(file, args...)}
	p.cmd.Env = append(os.Environ(), env...)
	out, err := p.cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, p.cmd.Start())
	t.Cleanup(func() {
		_ = p.cmd.Process.Signal(syscall.SIGTERM)
		_ = p.cmd.Wait()
	})
	read := bufio.NewReader(out)
	for range lines {
		line, err := read.ReadString('\n')
		require.NoError(t, err)
		p.lines = append(p.lines, strings.TrimSpace(strings.TrimPrefix(line, "Tamiz is at ")))
	}
	return p
}

var peak = regexp.MustCompile(`VmHWM:\s+(\d+) kB`)

// memory returns the most memory that the process ever held, in bytes.
func (p *process) memory(t *testing.T) uint64 {
	said, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", p.cmd.Process.Pid))
	require.NoError(t, err)
	kb, err := strconv.ParseUint(peak.FindStringSubmatch(string(said))[1], 10, 64)
	require.NoError(t, err)
	return kb * 1024
}

func call(t *testing.T, method, url, body string, into any) {
	request, err := http.NewRequest(method, url, strings.NewReader(body))
	require.NoError(t, err)
	request.Header.Set("Content-Type", "application/json")
	answer, err := http.DefaultClient.Do(request)
	require.NoError(t, err)
	defer answer.Body.Close()
	said, err := io.ReadAll(answer.Body)
	require.NoError(t, err)
	require.Less(t, answer.StatusCode, 300, "%s", said)
	if into != nil {
		require.NoError(t, json.Unmarshal(said, into))
	}
}

func strategiesOf(records []*bib.Record) []strategy.Strategy { return draw(records, 40, everyKind) }

// answering measures what a draw costs beside only fetching and parsing the same pages, and what a count
// costs through HTTP. The made-up source and the program run in processes of their own.
func answering(t *testing.T, _ sizes) []row {
	const few, many = 20_000, 100_000
	file := program(t)
	made := start(t, file, 3, nil, "standin", "--listen", "127.0.0.1:0", "--scale", strconv.Itoa(many))
	almagre := made.lines[0]
	at := strings.TrimSuffix(strings.TrimPrefix(almagre, "http://"), "/almagre")

	settings := &sru.Settings{Guard: sru.Guard{Everywhere: true}}
	c, err := settings.NewClient(almagre, "", source.Map{})
	require.NoError(t, err)
	_, m, err := c.Discover(context.Background())
	require.NoError(t, err)
	c.Map = m
	// As the program is asked to draw: anything with a year.
	cql := m.Indexes["year"] + " >= 1"
	fetching := taken(2, func() {
		for from := 1; from <= few; from += m.AtMost {
			page, err := c.Search(context.Background(), source.Search{Query: cql, Start: from, Max: m.AtMost})
			require.NoError(t, err)
			require.Len(t, page.Records, m.AtMost)
		}
	})

	dir, err := os.MkdirTemp("", "tamiz-bench-")
	require.NoError(t, err)
	t.Cleanup(func() { _ = os.RemoveAll(dir) })
	require.NoError(t, os.Chmod(dir, 0o755))
	db, err := cluster.Start(context.Background(), dir, true)
	require.NoError(t, err)
	t.Cleanup(db.Stop)
	serve := func(base string) *process {
		return start(
			t,
			file,
			1,
			[]string{"TAMIZ_ALLOW_SOURCES=" + at},
			"serve",
			"--database-url",
			base,
			"--listen",
			"127.0.0.1:0",
		)
	}
	p := serve(db.URL)
	var src sources.Source
	call(t, "POST", p.lines[0]+"/api/sources", fmt.Sprintf(`{"address": %q}`, almagre), &src)
	drawn := func(n int) time.Duration {
		var review reviews.Head
		call(t, "POST", p.lines[0]+"/api/reviews", `{"name": "Drawn"}`, &review)
		path := fmt.Sprintf("%s/api/reviews/%d/draws", p.lines[0], review.ID)
		began := time.Now()
		call(
			t,
			"POST",
			path,
			fmt.Sprintf(
				`{"name": "x", "sources": [%d], "concepts": [], "each": false, "how": "all", "atMost": %d, "seed": 1}`,
				src.ID,
				n,
			),
			nil,
		)
		for {
			var begun []draws.Draw
			call(t, "GET", path, "", &begun)
			if begun[0].State == "done" {
				require.Equal(t, n, begun[0].Got)
				return time.Since(began)
			}
			require.NotEqual(t, "stopped", begun[0].State, begun[0].Problem)
			time.Sleep(25 * time.Millisecond) // a measurement, not a test
		}
	}
	drawing := drawn(few)
	drawn(many)
	held := p.memory(t)

	// Strategies of 3 blocks × 15 terms, from the words of the source itself.
	var times []time.Duration
	usual := start(t, file, 3, nil, "standin", "--listen", "127.0.0.1:0")
	c, err = settings.NewClient(usual.lines[0], "", m)
	require.NoError(t, err)
	for _, s := range strategiesOf(world(5000)) {
		q, err := s.Query(nil)
		require.NoError(t, err)
		cql, notes := source.Render(q, m)
		require.Empty(t, notes)
		began := time.Now()
		_, err = c.Search(context.Background(), source.Search{Query: cql, Start: 1})
		require.NoError(t, err)
		times = append(times, time.Since(began))
	}
	return []row{
		{
			fmt.Sprintf("draw of %d records from a source: HTTP, XML, identity, storing", few),
			"only fetching and parsing the same pages",
			ratio(drawing, fetching),
			"≤ 2",
		},
		{
			fmt.Sprintf("peak memory of the program over a draw of %d records", many),
			"its goal alone",
			fmt.Sprintf("%.0f MB", float64(held)/1e6),
			"< 300 MB",
		},
		{
			"count of a strategy of 3 blocks × 15 terms at a source of 24000 records through HTTP, median of 40",
			"its goal alone",
			short(percentile(times, 50)),
			"< 30 ms",
		},
	}
}
