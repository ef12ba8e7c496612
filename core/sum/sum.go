// Package sum reads and writes values of several kinds as JSON: each is an object in which one word tells the kind.
package sum

import (
	"bytes"
	"encoding/json"
	"fmt"
	"reflect"
	"slices"
)

// Kinds are the kinds that a value may be of. They are added when the program begins, and do not change any more.
type Kinds[S any] struct {
	field  string
	called string
	fresh  map[string]func() S
	names  map[reflect.Type]string
}

// Of returns no kinds yet. field is that of the JSON object which tells the kind; called is what a value is called
// in errors.
func Of[S any](field, called string) *Kinds[S] {
	return &Kinds[S]{field, called, map[string]func() S{}, map[reflect.Type]string{}}
}

// Add makes a kind known by its name. fresh returns a new value of the kind, which is a pointer.
func (k *Kinds[S]) Add(name string, fresh func() S) {
	k.fresh[name] = fresh
	k.names[reflect.TypeOf(fresh())] = name
}

// Names returns the names of all kinds, ascending.
func (k *Kinds[S]) Names() []string {
	out := make([]string, 0, len(k.fresh))
	for name := range k.fresh {
		out = append(out, name)
	}
	slices.Sort(out)
	return out
}

// New returns a new value of a kind; ok is false where there is no such kind.
func (k *Kinds[S]) New(name string) (value S, ok bool) {
	fresh, ok := k.fresh[name]
	if !ok {
		return value, false
	}
	return fresh(), true
}

// Read reads a value of any kind. The error says which kind there is not.
func (k *Kinds[S]) Read(data []byte) (value S, err error) {
	var fields map[string]json.RawMessage
	if err := json.Unmarshal(data, &fields); err != nil {
		return value, err
	}
	var name string
	if said, ok := fields[k.field]; ok {
		if err := json.Unmarshal(said, &name); err != nil {
			return value, err
		}
	}
	value, ok := k.New(name)
	if !ok {
		return value, fmt.Errorf("there is no %s %q", k.called, name)
	}
	return value, json.Unmarshal(data, value)
}

// Write writes a value of any kind.
func (k *Kinds[S]) Write(value S) ([]byte, error) {
	name, ok := k.names[reflect.TypeOf(value)]
	if !ok {
		return nil, fmt.Errorf("%T is no %s", value, k.called)
	}
	body, err := json.Marshal(value)
	if err != nil {
		return nil, err
	}
	var out bytes.Buffer
	fmt.Fprintf(&out, `{%q:%q`, k.field, name)
	if len(body) > 2 {
		out.WriteByte(',')
	}
	out.Write(body[1:])
	return out.Bytes(), nil
}
