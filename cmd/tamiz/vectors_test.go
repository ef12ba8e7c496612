package main

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
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

// built are the commands that there are.
func built(args []string) bool {
	return slices.Contains([]string{"tally", "check"}, args[0])
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
		if !built(e.Args) {
			continue
		}
		run++
		t.Run(e.Expect, func(t *testing.T) {
			out, complaints, err := call(t, "", e.Args...)
			require.NoError(t, err, complaints)
			expected, err := os.ReadFile(e.Expect)
			require.NoError(t, err)
			if strings.HasSuffix(e.Expect, ".json") {
				assert.JSONEq(t, string(expected), out)
				return
			}
			assertSameTable(t, string(expected), out)
		})
	}
	assert.GreaterOrEqual(t, run, 9, "worked examples that were run")
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
			assert.InDelta(t, number(want[i][pull]), number(want[at][pull]), 2e-6, "%q stands in row %d instead of %d", want[i][0], at, i)
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
		{"tally"}, {"tally", "sample.ris", "--facet", "colours"}, {"tally", "sample.ris", "--max-words", "99"}, {"tally", "sample.ris", "--kw", "some"},
		{"tally", "sample.ris", "--fields", "any"}, {"tally", "--no-such-flag"}, {"check", "--keys", "keys.ris"}, {"serve"}, {"sieve"},
	} {
		_, _, err := call(t, "", args...)
		if assert.Error(t, err, "%q", args) {
			assert.ErrorIs(t, err, errUsage, "%q", args)
		}
	}
	for _, args := range [][]string{{"tally", "no-such.ris"}, {"tally", "commands.json"}, {"check", "--strategy", "commands.json", "--keys", "keys.ris"}} {
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
