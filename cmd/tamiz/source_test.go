package main

import (
	"encoding/json"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/demo"
	"tamiz/source/standin"
)

var small = sync.OnceValue(func() []*standin.Collection { return standin.Sources(demo.NewLiterature(demo.Seed, 1200)) })

func TestASourceIsDescribedAsJSON(t *testing.T) {
	server := httptest.NewServer(standin.Handler(small()...))
	defer server.Close()
	out, _, err := call(t, "", "source", server.URL+"/surco")
	require.NoError(t, err)
	var d struct {
		Title   string
		Indexes []struct{ Name string }
		Map     struct {
			Indexes map[string]string
			Near    bool
		}
		Lacks []string
	}
	require.NoError(t, json.Unmarshal([]byte(out), &d))
	assert.Equal(t, "Surco", d.Title)
	assert.Equal(t, "dc.title", d.Map.Indexes["title"])
	assert.False(t, d.Map.Near)
	assert.Equal(t, []string{"any", "journal", "country"}, d.Lacks)
	_, _, err = call(t, "", "source")
	require.ErrorIs(t, err, errUsage)
	_, _, err = call(t, "", "source", server.URL+"/nowhere")
	require.Error(t, err)
	assert.NotErrorIs(t, err, errUsage)
}

func TestASampleIsDrawnIntoAFile(t *testing.T) {
	server := httptest.NewServer(standin.Handler(small()...))
	defer server.Close()
	dir := t.TempDir()
	for _, how := range []string{"all", "newest", "years", "random"} {
		file := filepath.Join(dir, how+".ris")
		_, said, err := call(
			t,
			"",
			"draw",
			server.URL+"/almagre",
			"farm* or cane",
			file,
			"--how",
			how,
			"--at-most",
			"120",
			"--seed",
			"4",
		)
		require.NoError(t, err)
		assert.Contains(t, said, "120 wanted, 120 got, 0 troubles", how)
		counted, _, err := call(t, "", "count", file, "farm* or cane")
		require.NoError(t, err)
		assert.Equal(t, "120\n", counted, "what was drawn matches what was asked")
	}
	// The same seed draws the same file, and what a source lacks is told.
	again := filepath.Join(dir, "again.ris")
	_, _, err := call(
		t,
		"",
		"draw",
		server.URL+"/almagre",
		"farm* or cane",
		again,
		"--how",
		"random",
		"--at-most",
		"120",
		"--seed",
		"4",
	)
	require.NoError(t, err)
	a, err := os.ReadFile(filepath.Join(dir, "random.ris"))
	require.NoError(t, err)
	b, err := os.ReadFile(again)
	require.NoError(t, err)
	assert.Equal(t, a, b)
	mods := filepath.Join(dir, "vilano.xml")
	_, said, err := call(t, "", "draw", server.URL+"/vilano", "labo*r", mods, "--at-most", "30")
	require.NoError(t, err)
	assert.Contains(t, said, "no sign inside a word")
	x, err := os.ReadFile(mods)
	require.NoError(t, err)
	assert.Equal(t, 30, strings.Count(string(x), "<mods "))
	for _, wrong := range [][]string{{"draw", server.URL}, {"draw", server.URL, "x", "out.doc"}, {"draw", server.URL,
		"x", "out.ris", "--how", "best"}, {"draw", server.URL, "x", "out.ris", "--at-most", "0"}} {
		_, _, err := call(t, "", wrong...)
		require.ErrorIs(t, err, errUsage, "%v", wrong)
	}
}
