package main

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"math"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// wool is the folder of the worked examples, named from the root: the tests change into it.
var wool = func() string {
	dir, err := filepath.Abs("../../testdata/vectors/wool")
	if err != nil {
		panic(err)
	}
	return dir
}()

// call runs the program in the folder of the worked examples.
func call(t *testing.T, stdin string, args ...string) (stdout, stderr string, err error) {
	t.Helper()
	t.Chdir(wool)
	root := newRoot()
	var out, complaints bytes.Buffer
	root.SetArgs(args)
	root.SetIn(strings.NewReader(stdin))
	root.SetOut(&out)
	root.SetErr(&complaints)
	err = root.Execute()
	return out.String(), complaints.String(), err
}

func TestCommandsAgreeWithWorkedExamples(t *testing.T) {
	data, err := os.ReadFile(filepath.Join(wool, "commands.json"))
	require.NoError(t, err)
	var examples []struct {
		Args   []string
		Expect string
	}
	require.NoError(t, json.Unmarshal(data, &examples))
	run := 0
	for _, e := range examples {
		run++
		t.Run(e.Expect, func(t *testing.T) {
			out, complaints, err := call(t, "", e.Args...)
			require.NoError(t, err, complaints)
			expected, err := os.ReadFile(e.Expect)
			require.NoError(t, err)
			if strings.HasSuffix(e.Expect, ".json") {
				var want, have any
				require.NoError(t, json.Unmarshal(expected, &want))
				require.NoError(t, json.Unmarshal([]byte(out), &have))
				if answer, ok := have.(map[string]any); ok && strings.HasPrefix(e.Expect, "evidence") {
					// The files hold what is told by evidence alone.
					assert.NotEmpty(t, answer["headings"])
					delete(answer, "headings")
				}
				assertSame(t, "", want, have)
				return
			}
			assertSameTable(t, string(expected), out)
		})
	}
	assert.GreaterOrEqual(t, run, 32, "worked examples that were run")
}

// assertSame compares two answers: text and counts exactly, fractions to a millionth. Rows of a list of
// items stand in the same order, but for those that the figure they are ordered by hardly tells apart.
func assertSame(t *testing.T, at string, want, have any) {
	t.Helper()
	switch want := want.(type) {
	case map[string]any:
		have, ok := have.(map[string]any)
		if !assert.True(t, ok, "%s is no object", at) {
			return
		}
		for key, w := range want {
			h, ok := have[key]
			if assert.True(t, ok, "%s lacks %s", at, key) {
				assertSame(t, at+"."+key, w, h)
			}
		}
		for key := range have {
			assert.Contains(t, want, key, "%s", at)
		}
	case []any:
		have, ok := have.([]any)
		if !assert.True(t, ok, "%s is no list", at) || !assert.Len(t, have, len(want), at) {
			return
		}
		place := map[string]int{}
		for i, h := range have {
			place[itemOf(h)] = i
		}
		for i, w := range want {
			from := i
			if item := itemOf(w); item != "" && !strings.HasSuffix(at, ".plan") {
				if from, ok = place[item]; !assert.True(t, ok, "%s has no %s", at, item) {
					continue
				}
				if from != i {
					assert.InDelta(t, orderedBy(w), orderedBy(want[from]), 2e-6, "%s: %s stands at %d instead of %d", at, item,
						from, i)
				}
			}
			assertSame(t, at+"."+strconv.Itoa(i), w, have[from])
		}
	case float64:
		h, ok := have.(float64)
		if assert.True(t, ok, "%s is no number", at) {
			if want == math.Trunc(want) && h == math.Trunc(h) {
				assert.Equal(t, want, h, at)
			} else {
				assert.InDelta(t, want, h, 1.000001e-6, at)
			}
		}
	default:
		assert.Equal(t, want, have, at)
	}
}

func itemOf(row any) string {
	r, _ := row.(map[string]any)
	item, _ := r["item"].(string)
	kind, _ := r["kind"].(string)
	if item == "" {
		return ""
	}
	return kind + " " + item
}

// orderedBy returns the figure by which a list of items is ordered.
func orderedBy(row any) float64 {
	r := row.(map[string]any)
	if fits, ok := r["fits"].(map[string]any); ok {
		best := 0.0
		for _, x := range fits {
			best = max(best, x.(float64))
		}
		return best
	}
	for _, name := range []string{"worth", "alike"} {
		if x, ok := r[name].(float64); ok {
			return x
		}
	}
	return 0
}

// assertSameTable compares two tallies: text and counts exactly, fractions to a millionth, and the
// order but for rows that their pull hardly tells apart.
func assertSameTable(t *testing.T, expected, got string) {
	t.Helper()
	want, have := readRows(t, expected), readRows(t, got)
	require.Equal(t, want[0], have[0], "the head")
	require.Len(t, have, len(want))
	pull := slices.Index(want[0], "pull")
	place := map[string]int{}
	for i, row := range have {
		place[row[0]] = i
	}
	for i := 1; i < len(want); i++ {
		at, ok := place[want[i][0]]
		if !assert.True(t, ok, "no row for %q", want[i][0]) {
			continue
		}
		if at != i {
			assert.InDelta(
				t,
				number(want[i][pull]),
				number(want[at][pull]),
				2e-6,
				"%q stands in row %d instead of %d",
				want[i][0],
				at,
				i,
			)
		}
		for c, column := range want[0] {
			switch {
			case strings.Contains(want[i][c], "."):
				assert.InDelta(t, number(want[i][c]), number(have[at][c]), 1e-6, "%s of %q", column, want[i][0])
			default:
				assert.Equal(t, want[i][c], have[at][c], "%s of %q", column, want[i][0])
			}
		}
	}
}

func readRows(t *testing.T, s string) [][]string {
	t.Helper()
	rows, err := csv.NewReader(strings.NewReader(s)).ReadAll()
	require.NoError(t, err)
	return rows
}

func number(s string) float64 {
	x, _ := strconv.ParseFloat(s, 64)
	return x
}

func TestWrongCallsAreToldFromFailures(t *testing.T) {
	for _, args := range [][]string{
		{"tally"}, {"tally", "sample.ris", "--facet", "colours"}, {"tally", "sample.ris", "--max-words", "99"},
		{"tally", "sample.ris", "--kw", "some"},
		{"tally", "sample.ris", "--fields", "any"}, {"tally", "--no-such-flag"}, {"check", "--keys", "keys.ris"},
		{"serve"}, {"sieve"},
	} {
		_, _, err := call(t, "", args...)
		if assert.Error(t, err, "%q", args) {
			assert.ErrorIs(t, err, errUsage, "%q", args)
		}
	}
	for _, args := range [][]string{{"tally", "no-such.ris"}, {"tally", "commands.json"}, {"check", "--strategy",
		"commands.json", "--keys", "keys.ris"}} {
		_, _, err := call(t, "", args...)
		if assert.Error(t, err, "%q", args) {
			assert.NotErrorIs(t, err, errUsage, "%q", args)
		}
	}
}

func TestStandardInputIsReadLikeAFile(t *testing.T) {
	sample, err := os.ReadFile(filepath.Join(wool, "sample.ris"))
	require.NoError(t, err)
	fromFile, _, err := call(t, "", "tally", "sample.ris", "--limit", "20")
	require.NoError(t, err)
	fromInput, _, err := call(t, string(sample), "tally", "-", "--limit", "20")
	require.NoError(t, err)
	assert.Equal(t, fromFile, fromInput)
}

func TestStrictMakesASkippedRecordFatal(t *testing.T) {
	file := "stray\nTY  - JOUR\nTI  - Heat\nER  - \n"
	_, complaints, err := call(t, file, "tally", "-", "--min-records", "1")
	require.NoError(t, err)
	assert.Contains(t, complaints, "line 1")
	_, _, err = call(t, file, "tally", "-", "--strict")
	assert.ErrorContains(t, err, "--strict")
}
