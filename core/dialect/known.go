package dialect

import (
	"embed"
	"fmt"
	"slices"
	"sync"
)

//go:embed known/*.json
var files embed.FS

// Schema is the JSON Schema of a dialect's file.
//
//go:embed schema.json
var Schema []byte

// order is in what order the dialects that ship are listed, and tried on a text that says nothing of its own.
var order = []string{"cql", "dc", "words", "almagre", "surco", "vilano"}

var known = sync.OnceValue(func() []*Dialect {
	var out []*Dialect
	for _, name := range order {
		data, err := files.ReadFile("known/" + name + ".json")
		if err != nil {
			panic(err)
		}
		d, err := Parse(data)
		if err != nil {
			panic(fmt.Sprintf("%s: %v", name, err))
		}
		out = append(out, d)
	}
	return out
})

// Known returns the dialects that ship with the program. They are not to be changed.
func Known() []*Dialect { return known() }

// Named returns one of them.
func Named(name string) (*Dialect, bool) {
	i := slices.IndexFunc(known(), func(d *Dialect) bool { return d.Name == name })
	if i < 0 {
		return nil, false
	}
	return known()[i], true
}

// Source returns the file of one of them.
func Source(name string) ([]byte, error) { return files.ReadFile("known/" + name + ".json") }
