package review

import (
	"bytes"
	"encoding/json"
	"reflect"
	"slices"
)

// Diff returns the edits that make one document of another: Apply(from, Diff(from, to)) is to.
func Diff(from, to Document) Edits {
	from, to = from.Filled(), to.Filled()
	var out Edits
	if from.Question != to.Question {
		out = append(out, &SetQuestion{to.Question})
	}
	if from.Frame != to.Frame {
		out = append(out, &SetFrame{to.Frame})
	}
	if from.Order != to.Order {
		out = append(out, &SetOrder{to.Order})
	}
	if !reflect.DeepEqual(from.Limits, to.Limits) {
		out = append(out, &SetLimits{to.Limits})
	}
	if !reflect.DeepEqual(from.Vocabulary, to.Vocabulary) {
		out = append(out, &SetVocabulary{to.Vocabulary})
	}
	if !reflect.DeepEqual(from.Halves, to.Halves) {
		out = append(out, &SetHalves{to.Halves})
	}
	out = append(out, diffParted(from.Parted, to.Parted)...)
	out = append(out, diffJournals(from.HandSearch, to.HandSearch)...)
	out = append(out, diffBlocks(from, to)...)
	return append(out, diffLines(from.Lines, to.Lines)...)
}

// diffParted goes by the order too: whoever is parted anew stands last.
func diffParted(from, to []string) (out Edits) {
	rest := slices.DeleteFunc(slices.Clone(from), func(w string) bool {
		gone := !slices.Contains(to, w)
		if gone {
			out = append(out, &Part{w, false})
		}
		return gone
	})
	same := 0
	for same < len(rest) && same < len(to) && rest[same] == to[same] {
		same++
	}
	for _, w := range to[same:] {
		out = append(out, &Part{w, true})
	}
	return out
}

func diffJournals(from, to []HandSearch) (out Edits) {
	off := func(h HandSearch) { out = append(out, &HandSearched{Journal: h.Journal, Name: h.Name}) }
	rest := slices.DeleteFunc(slices.Clone(from), func(h HandSearch) bool {
		gone := !slices.ContainsFunc(to, func(x HandSearch) bool { return x.Journal == h.Journal && x.Name == h.Name })
		if gone {
			off(h)
		}
		return gone
	})
	same := 0
	for same < len(rest) && same < len(to) && rest[same].Journal == to[same].Journal {
		same++
	}
	for _, h := range rest[same:] { // they stand in another order: taken off, and put on again
		off(h)
	}
	for i, h := range to {
		if i >= same || rest[i] != h {
			out = append(out, &HandSearched{h.Journal, h.Name, &h.Note, true})
		}
	}
	return out
}

func diffBlocks(from, to Document) (out Edits) {
	do := func(e Edit) {
		e.apply(&from)
		out = append(out, e)
	}
	for _, b := range slices.Clone(from.Blocks) {
		if to.Block(b.ID) < 0 {
			do(&RemoveBlock{b.ID})
		}
	}
	for i, b := range to.Blocks {
		if at := from.Block(b.ID); at < 0 {
			do(&AddBlock{b, idAt(from.Blocks, i)})
			if name := from.Blocks[i].Name; name != b.Name { // a letter that another block has until its own turn
				do(&PatchBlock{b.ID, patch(map[string]any{"name": b.Name})})
			}
			continue
		} else if at != i {
			do(&MoveBlock{b.ID, idAt(from.Blocks, i)})
		}
		if p := changed(withoutTerms(from.Blocks[i]), withoutTerms(b)); p != nil {
			do(&PatchBlock{b.ID, p})
		}
		diffTerms(&from, i, b, do)
	}
	return out
}

// diffTerms goes by the document as it is with what was done so far.
func diffTerms(from *Document, block int, to Block, do func(Edit)) {
	for _, t := range slices.Clone(from.Blocks[block].Terms) {
		if to.Term(t.ID) < 0 {
			do(&RemoveTerm{to.ID, t.ID})
		}
	}
	for i, t := range to.Terms {
		now := from.Blocks[block].Terms
		switch at := from.Blocks[block].Term(t.ID); {
		case at < 0:
			do(&AddTerm{to.ID, t, idAt(now, i)})
			continue
		case at == i+1 && now[i].ID != t.ID: // one that stood before it goes further down: it is moved, not all behind it
			place := to.Term(now[i].ID)
			before := ""
			for _, later := range to.Terms[place+1:] {
				if from.Blocks[block].Term(later.ID) >= 0 {
					before = later.ID
					break
				}
			}
			do(&MoveTerm{to.ID, now[i].ID, before})
		}
		if now = from.Blocks[block].Terms; now[i].ID != t.ID {
			do(&MoveTerm{to.ID, t.ID, now[i].ID})
		}
		if p := changed(from.Blocks[block].Terms[i], t); p != nil {
			do(&PatchTerm{to.ID, t.ID, p})
		}
	}
}

// diffLines takes out what is gone and puts each where it stands now.
func diffLines(from, to []Line) (out Edits) {
	at := func(list []Line, id string) int {
		return slices.IndexFunc(list, func(l Line) bool { return l.ID == id })
	}
	rest := slices.DeleteFunc(slices.Clone(from), func(l Line) bool {
		gone := at(to, l.ID) < 0
		if gone {
			out = append(out, &RemoveLine{l.ID})
		}
		return gone
	})
	for i, l := range to {
		if j := at(rest, l.ID); j > i { // they stand in another order: taken out, and put in again
			out = append(out, &RemoveLine{l.ID})
			rest = slices.Delete(rest, j, j+1)
		}
		if at(rest, l.ID) < 0 {
			out = append(out, &AddLine{l, idAt(rest, i)})
			rest = putBefore(rest, l, min(i, len(rest)))
			continue
		}
		if p := changed(rest[i], l); p != nil {
			out = append(out, &PatchLine{l.ID, p})
		}
	}
	return out
}

type identified interface{ id() string }

func (b Block) id() string { return b.ID }
func (t Term) id() string  { return t.ID }

// idAt returns what stands at a place, or "" behind the last.
func idAt[T identified](list []T, i int) string {
	if i >= len(list) {
		return ""
	}
	return list[i].id()
}

func withoutTerms(b Block) Block {
	b.Terms = nil
	return b
}

// changed returns the fields that differ, with what they become: a patch. It is nil where none do. A field that is left
// out where it is empty becomes what is empty of its kind.
func changed(from, to any) json.RawMessage {
	before, after := fields(from), fields(to)
	out := map[string]any{}
	for name, value := range after {
		if !bytes.Equal(before[name], value) {
			out[name] = value
		}
	}
	for name, value := range before {
		if _, there := after[name]; !there {
			out[name] = emptyOf(value)
		}
	}
	if len(out) == 0 {
		return nil
	}
	return patch(out)
}

func patch(fields map[string]any) json.RawMessage {
	body, _ := json.Marshal(fields) // of what JSON was read from
	return body
}

func fields(of any) map[string]json.RawMessage {
	body, _ := json.Marshal(of) // a struct of texts, numbers and lists
	out := map[string]json.RawMessage{}
	_ = json.Unmarshal(body, &out)
	return out
}

func emptyOf(value json.RawMessage) any {
	switch value[0] {
	case '"':
		return ""
	case '[':
		return []any{}
	case '{':
		return nil
	case 't', 'f':
		return false
	}
	return 0
}
