package review

import (
	"bytes"
	"encoding/json"
	"fmt"
	"slices"

	"tamiz/core/strategy"
	"tamiz/core/sum"
)

// An Edit is one thing done to a document, as data: it is kept while the program cannot be reached, travels, and is
// made on whatever the document has become meanwhile. The browser makes the same edits (web/src/state/edits.ts); the
// examples in testdata/edits.json hold the two together.
type Edit interface {
	// apply does it, and reports whether there is still what it is about.
	apply(d *Document) bool
}

// A Patch is the fields that change, as JSON, with what they become.
type Patch = json.RawMessage

// The edits.
type (
	// SetQuestion says what is asked.
	SetQuestion struct {
		Text string `json:"text"`
	}
	// SetFrame says by which frame the question is parted into concepts.
	SetFrame struct {
		Frame string `json:"frame"`
	}
	// SetOrder says how lines are numbered.
	SetOrder struct {
		Order string `json:"order"`
	}
	// SetLimits says within what is searched.
	SetLimits struct {
		Limits []strategy.Limit `json:"limits"`
	}
	// SetVocabulary says which vocabulary headings go by; none, where it is nil.
	SetVocabulary struct {
		Vocabulary *int64 `json:"vocabulary,omitempty"`
	}
	// SetHalves says how the key studies are split; not at all, where it is nil.
	SetHalves struct {
		Halves *Halves `json:"halves,omitempty"`
	}
	// Part parts a writing of an author from those it would be folded with, or folds it with them again.
	Part struct {
		Writing string `json:"writing"`
		Apart   bool   `json:"apart"`
	}
	// HandSearched puts a journal on the hand-search list, changes what is noted of it, or takes it off.
	HandSearched struct {
		Journal string  `json:"journal"`
		Name    string  `json:"name"`
		Note    *string `json:"note,omitempty"`
		On      bool    `json:"on"`
	}
	// AddBlock adds a block, before another or as the last. It has the letter it says, or the first that is free.
	AddBlock struct {
		Block  Block  `json:"block"`
		Before string `json:"before,omitempty"`
	}
	// PatchBlock lays some fields over those of a block; never its id or its terms.
	PatchBlock struct {
		ID    string `json:"id"`
		Patch Patch  `json:"patch"`
	}
	// RemoveBlock takes a block out.
	RemoveBlock struct {
		ID string `json:"id"`
	}
	// MoveBlock puts a block before another, or last.
	MoveBlock struct {
		ID     string `json:"id"`
		Before string `json:"before,omitempty"`
	}
	// AddTerm adds a term to a block, before another or as the last.
	AddTerm struct {
		Block  string `json:"block"`
		Term   Term   `json:"term"`
		Before string `json:"before,omitempty"`
	}
	// PatchTerm lays some fields over those of a term; never its id.
	PatchTerm struct {
		Block string `json:"block"`
		ID    string `json:"id"`
		Patch Patch  `json:"patch"`
	}
	// RemoveTerm takes a term out.
	RemoveTerm struct {
		Block string `json:"block"`
		ID    string `json:"id"`
	}
	// MoveTerm puts a term before another of its block, or last.
	MoveTerm struct {
		Block  string `json:"block"`
		ID     string `json:"id"`
		Before string `json:"before,omitempty"`
	}
	// AddLine adds a line that is put together of others, before another or as the last.
	AddLine struct {
		Line   Line   `json:"line"`
		Before string `json:"before,omitempty"`
	}
	// PatchLine lays some fields over those of such a line; never its id.
	PatchLine struct {
		ID    string `json:"id"`
		Patch Patch  `json:"patch"`
	}
	// RemoveLine takes such a line out. Those that it is part of say so.
	RemoveLine struct {
		ID string `json:"id"`
	}
)

// kinds are the edits by the name they travel under.
var kinds = sum.Of[Edit]("op", "edit")

func init() {
	for name, fresh := range map[string]func() Edit{
		"question":    func() Edit { return &SetQuestion{} },
		"frame":       func() Edit { return &SetFrame{} },
		"order":       func() Edit { return &SetOrder{} },
		"limits":      func() Edit { return &SetLimits{} },
		"vocabulary":  func() Edit { return &SetVocabulary{} },
		"halves":      func() Edit { return &SetHalves{} },
		"part":        func() Edit { return &Part{} },
		"handSearch":  func() Edit { return &HandSearched{} },
		"addBlock":    func() Edit { return &AddBlock{} },
		"patchBlock":  func() Edit { return &PatchBlock{} },
		"removeBlock": func() Edit { return &RemoveBlock{} },
		"moveBlock":   func() Edit { return &MoveBlock{} },
		"addTerm":     func() Edit { return &AddTerm{} },
		"patchTerm":   func() Edit { return &PatchTerm{} },
		"removeTerm":  func() Edit { return &RemoveTerm{} },
		"moveTerm":    func() Edit { return &MoveTerm{} },
		"addLine":     func() Edit { return &AddLine{} },
		"patchLine":   func() Edit { return &PatchLine{} },
		"removeLine":  func() Edit { return &RemoveLine{} },
	} {
		kinds.Add(name, fresh)
	}
}

// Edits are several, in the order in which they are made. As JSON each is an object whose op says which it is.
type Edits []Edit

// UnmarshalJSON reads edits.
func (e *Edits) UnmarshalJSON(data []byte) error {
	var all []json.RawMessage
	if err := json.Unmarshal(data, &all); err != nil {
		return err
	}
	*e = make(Edits, 0, len(all))
	for i, one := range all {
		edit, err := kinds.Read(one)
		if err != nil {
			return fmt.Errorf("edit %d: %w", i+1, err)
		}
		*e = append(*e, edit)
	}
	return nil
}

// MarshalJSON writes edits.
func (e Edits) MarshalJSON() ([]byte, error) {
	var out bytes.Buffer
	out.WriteByte('[')
	for i, edit := range e {
		body, err := kinds.Write(edit)
		if err != nil {
			return nil, err
		}
		if i > 0 {
			out.WriteByte(',')
		}
		out.Write(body)
	}
	out.WriteByte(']')
	return out.Bytes(), nil
}

// Apply returns the document with the edits made, and those that were about something which is there no more: they
// did nothing. The document is left as it is.
func Apply(d Document, edits Edits) (Document, Edits) {
	d = d.Filled()
	var idle Edits
	for _, e := range edits {
		if !e.apply(&d) {
			idle = append(idle, e)
		}
	}
	return d.Filled(), idle
}

func (e *SetQuestion) apply(d *Document) bool   { d.Question = e.Text; return true }
func (e *SetFrame) apply(d *Document) bool      { d.Frame = e.Frame; return true }
func (e *SetOrder) apply(d *Document) bool      { d.Order = e.Order; return true }
func (e *SetLimits) apply(d *Document) bool     { d.Limits = e.Limits; return true }
func (e *SetVocabulary) apply(d *Document) bool { d.Vocabulary = e.Vocabulary; return true }
func (e *SetHalves) apply(d *Document) bool     { d.Halves = e.Halves; return true }

func (e *Part) apply(d *Document) bool {
	d.Parted = slices.DeleteFunc(d.Parted, func(w string) bool { return w == e.Writing })
	if e.Apart {
		d.Parted = append(d.Parted, e.Writing)
	}
	return true
}

func (e *HandSearched) apply(d *Document) bool {
	i := slices.IndexFunc(d.HandSearch, func(h HandSearch) bool { return h.Journal == e.Journal })
	switch {
	case !e.On && i >= 0:
		d.HandSearch = slices.Delete(d.HandSearch, i, i+1)
	case !e.On:
	case i >= 0:
		if e.Note != nil {
			d.HandSearch[i].Note = *e.Note
		}
	default:
		h := HandSearch{Journal: e.Journal, Name: e.Name}
		if e.Note != nil {
			h.Note = *e.Note
		}
		d.HandSearch = append(d.HandSearch, h)
	}
	return true
}

func (e *AddBlock) apply(d *Document) bool {
	if d.Block(e.Block.ID) < 0 {
		b := e.Block.filled()
		b.Name = freeLetter(b.Name, d.Blocks)
		d.Blocks = putBefore(d.Blocks, b, d.Block(e.Before))
	}
	return true
}

func (e *PatchBlock) apply(d *Document) bool {
	i := d.Block(e.ID)
	if i < 0 {
		return false
	}
	b := d.Blocks[i].filled()
	if json.Unmarshal(e.Patch, &b) != nil {
		return false
	}
	b.ID, b.Terms = d.Blocks[i].ID, d.Blocks[i].Terms
	d.Blocks[i] = b
	return true
}

func (e *RemoveBlock) apply(d *Document) bool {
	d.Blocks = slices.DeleteFunc(d.Blocks, func(b Block) bool { return b.ID == e.ID })
	return true
}

func (e *MoveBlock) apply(d *Document) bool {
	i := d.Block(e.ID)
	if i < 0 {
		return false
	}
	b := d.Blocks[i]
	d.Blocks = slices.Delete(d.Blocks, i, i+1)
	d.Blocks = putBefore(d.Blocks, b, d.Block(e.Before))
	return true
}

func (e *AddTerm) apply(d *Document) bool {
	i := d.Block(e.Block)
	if i < 0 {
		return false
	}
	b := &d.Blocks[i]
	if b.Term(e.Term.ID) < 0 {
		b.Terms = putBefore(b.Terms, e.Term, b.Term(e.Before))
	}
	return true
}

// A patched is a term as a patch is laid over it: what is said replaces, what is not said stays.
type patched struct {
	*plainTerm
	From  json.RawMessage `json:"from"`
	Note  *string         `json:"note"`
	Group *string         `json:"group"`
	Quiet json.RawMessage `json:"quiet"`
}

type plainTerm strategy.Term

func (e *PatchTerm) apply(d *Document) bool {
	i := d.Block(e.Block)
	if i < 0 {
		return false
	}
	j := d.Blocks[i].Term(e.ID)
	if j < 0 {
		return false
	}
	t := d.Blocks[i].Terms[j]
	t.Qualifiers, t.Without = slices.Clone(t.Qualifiers), slices.Clone(t.Without)
	p := patched{plainTerm: (*plainTerm)(&t.Term)}
	if json.Unmarshal(e.Patch, &p) != nil {
		return false
	}
	if p.From != nil {
		t.From = nil
		if json.Unmarshal(p.From, &t.From) != nil {
			return false
		}
	}
	if p.Note != nil {
		t.Note = *p.Note
	}
	if p.Group != nil {
		t.Group = *p.Group
	}
	if p.Quiet != nil {
		t.Quiet = nil
		if json.Unmarshal(p.Quiet, &t.Quiet) != nil {
			return false
		}
		if len(t.Quiet) == 0 {
			t.Quiet = nil
		}
	}
	d.Blocks[i].Terms[j] = t
	return true
}

func (e *RemoveTerm) apply(d *Document) bool {
	if i := d.Block(e.Block); i >= 0 {
		d.Blocks[i].Terms = slices.DeleteFunc(d.Blocks[i].Terms, func(t Term) bool { return t.ID == e.ID })
	}
	return true
}

func (e *MoveTerm) apply(d *Document) bool {
	i := d.Block(e.Block)
	if i < 0 {
		return false
	}
	b := &d.Blocks[i]
	j := b.Term(e.ID)
	if j < 0 {
		return false
	}
	t := b.Terms[j]
	b.Terms = slices.Delete(b.Terms, j, j+1)
	b.Terms = putBefore(b.Terms, t, b.Term(e.Before))
	return true
}

func (e *AddLine) apply(d *Document) bool {
	if d.Line(e.Line.ID) < 0 {
		d.Lines = putBefore(d.Lines, e.Line.filled(), d.Line(e.Before))
	}
	return true
}

func (e *PatchLine) apply(d *Document) bool {
	i := d.Line(e.ID)
	if i < 0 {
		return false
	}
	// What it is put together of is one thing: it is replaced, not laid over.
	var p struct {
		Note *string   `json:"note"`
		Of   *LinePart `json:"of"`
	}
	if json.Unmarshal(e.Patch, &p) != nil {
		return false
	}
	if p.Note != nil {
		d.Lines[i].Note = *p.Note
	}
	if p.Of != nil {
		d.Lines[i].Of = p.Of.filled()
	}
	return true
}

func (e *RemoveLine) apply(d *Document) bool {
	d.Lines = slices.DeleteFunc(d.Lines, func(l Line) bool { return l.ID == e.ID })
	return true
}

// putBefore puts something at a place, or last where the place is -1.
func putBefore[T any](list []T, x T, at int) []T {
	if at < 0 {
		return append(list, x)
	}
	return slices.Insert(list, at, x)
}
