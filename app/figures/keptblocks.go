package figures

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/store"
)

// A KeptBlock is a block that is kept apart from its review, to be taken into others.
type KeptBlock struct {
	Name    string     `json:"name"`
	Version int        `json:"version"`
	Block   desk.Block `json:"block"`
	Note    string     `json:"note,omitempty"`
	Tested  string     `json:"tested"`
	From    string     `json:"from"`
	Who     string     `json:"who,omitempty"`
	At      time.Time  `json:"at"`
	gone    bool
}

// A BlockToKeep says which block is to be kept, and as what.
type BlockToKeep struct {
	Block string `json:"block"`
	Name  string `json:"name"`
	Note  string `json:"note,omitempty"`
}

const mostKept = 1000 // versions of blocks

func keptOf(b KeptBlockRow) (k KeptBlock, err error) {
	k = KeptBlock{
		Name:    b.Name,
		Version: b.Version,
		Note:    b.Note,
		Tested:  b.Tested,
		From:    b.Review,
		Who:     b.Who,
		At:      b.At,
		gone:    b.Gone,
	}
	err = json.Unmarshal(b.Body, &k.Block)
	return k, err
}

// KeptBlocks returns the blocks that are kept for reuse.
func (a *Service) KeptBlocks(ctx context.Context) ([]KeptBlock, error) {
	all, err := a.EverKept(ctx)
	return slices.DeleteFunc(all, func(k KeptBlock) bool { return k.gone }), err
}

// EverKept returns those too that are not any more: copies say where they come from.
func (a *Service) EverKept(ctx context.Context) ([]KeptBlock, error) {
	all, err := a.rows.KeptBlocks(ctx, mostKept)
	if err != nil {
		return nil, err
	}
	out := make([]KeptBlock, len(all))
	for i, b := range all {
		if out[i], err = keptOf(b); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// KeepBlock keeps a block of a review for reuse, with what it was tested on and how it fared: over the sample that
// is looked at, and with the key studies.
func (a *Service) KeepBlock(ctx context.Context, at desk.At, k BlockToKeep) (*KeptBlock, error) {
	k.Name, k.Note = strings.TrimSpace(
		store.Plain(k.Name),
	), strings.TrimSpace(
		store.Plain(k.Note),
	)
	if k.Name == "" || utf8.RuneCountInString(k.Name) > 200 {
		return nil, problems.Invalid("name", "A kept block has a name of 1 to 200 characters.")
	}
	if utf8.RuneCountInString(k.Note) > 4000 {
		return nil, problems.Invalid("note", "A note has at most 4,000 characters.")
	}
	bench, err := a.Bench(ctx, at, desk.Proposal{})
	if err != nil {
		return nil, err
	}
	doc, err := a.desk.Proposed(ctx, at.Review, desk.Proposal{})
	if err != nil {
		return nil, err
	}
	i := doc.Block(k.Block)
	if i < 0 || i >= len(bench.Blocks) {
		return nil, problems.Gone(store.ErrNone, "block")
	}
	b := doc.Blocks[i]
	if len(b.Terms) == 0 {
		return nil, problems.Invalid("block", "There is no line in this block yet: there is nothing to keep.")
	}
	for j := range b.Terms { // where a term was found is of this review alone
		b.Terms[j].From, b.Terms[j].Key = nil, ""
	}
	b.Origin = nil
	body, err := json.Marshal(b)
	if err != nil {
		return nil, err
	}
	head, err := a.reviewRows.Head(ctx, at.Review)
	if err != nil {
		return nil, problems.Gone(err, "review")
	}
	saved, err := a.rows.KeepBlock(
		ctx,
		KeptBlockRow{Name: k.Name, Body: body, Note: k.Note, Tested: tested(bench, i), Review: head.Name},
	)
	if err != nil {
		return nil, err
	}
	out, err := keptOf(saved)
	return &out, err
}

func tested(b *Bench, block int) string {
	row, said := b.Blocks[block], []string{}
	if b.Sample != nil && row.Records != nil {
		said = append(said, fmt.Sprintf("finds %d of the %d records of “%s”", *row.Records, b.Sample.Records, b.Sample.Name))
	}
	if n := len(row.Caught); n > 0 {
		said = append(said, fmt.Sprintf("catches %d of %d key studies", Marked(row.Caught), n))
	}
	if len(said) == 0 {
		return "Not tested: there was neither a sample nor a key study."
	}
	text := strings.Join(said, ", ")
	return strings.ToUpper(text[:1]) + text[1:] + "."
}

// ForgetBlock keeps a block no more, or again. Copies in reviews stay as they are.
func (a *Service) ForgetBlock(ctx context.Context, name string, gone bool) error {
	return problems.Gone(a.rows.ForgetBlock(ctx, name, gone), "kept block")
}
