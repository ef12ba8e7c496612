package figures

import (
	"cmp"
	"context"
	"slices"
	"strings"
	"unicode/utf8"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/app/desk"
	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/core/coverage"
	"tamiz/core/heading"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
	"tamiz/store"
)

// A HeadingSearch is what somebody looks headings up by: a lay word, or all seeds of a concept.
type HeadingSearch struct {
	Words    []string
	Block    string // the id of the block that its seeds are taken from, or that headings are to suit
	Language string // that labels are shown in
}

// Headings is the headings that words lead to: by what the vocabulary says, and by what the records carry that say
// them.
type Headings struct {
	Languages []string         `json:"languages"` // of the vocabulary
	Leads     []HeadingLead    `json:"leads"`
	Cut       bool             `json:"cut"` // there are more
	Evidence  []HeadingCarried `json:"evidence"`
	Saying    int              `json:"saying"`  // records that say a word and carry a heading
	Without   int              `json:"without"` // that say one and carry none
	Words     []string         `json:"words"`
	Said      []string         `json:"said"` // the words as records say them: as a beginning, where none says it as it is
}

// A HeadingLead is a heading that words lead to, with how.
type HeadingLead struct {
	Label     string             `json:"label"`
	Shown     string             `json:"shown"` // the label in the language that is wanted
	Via       thesaurus.Via      `json:"via"`
	Matched   string             `json:"matched"`
	Language  string             `json:"language,omitempty"` // of what matched
	Forgiven  thesaurus.Forgiven `json:"forgiven,omitempty"`
	Meant     string             `json:"meant,omitempty"`
	ScopeNote string             `json:"scopeNote,omitempty"`
	Narrower  int                `json:"narrower"` // below it
	Retired   bool               `json:"retired,omitempty"`
	Records   *int               `json:"records,omitempty"` // with all below it
	Keys      int                `json:"keys"`
	Words     []string           `json:"words"`           // that lead there, of several
	Suit      *float64           `json:"suit,omitempty"`  // to the block
	Taken     string             `json:"taken,omitempty"` // the block that has it, by its id
}

// A HeadingCarried is a heading that records carry which say a word.
type HeadingCarried struct {
	Label   string  `json:"label"`
	Records int     `json:"records"`
	Share   float64 `json:"share"`
	Pull    float64 `json:"pull"`
	Known   bool    `json:"known"` // the vocabulary has it
}

const (
	mostLeads    = 60
	mostEvidence = 12
	mostSearched = 12  // words at once
	longestWord  = 200 // characters
)

// Headings looks words up.
func (a *Service) Headings(ctx context.Context, at desk.At, s HeadingSearch) (*Headings, error) {
	turns := a.desk.Quick
	if s.Block != "" {
		turns = a.desk.Heavy // what suits a block needs the company of all words, which may have to be worked out first
	}
	if err := turns.Take(ctx); err != nil {
		return nil, err
	}
	d, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	block := -1
	if s.Block != "" {
		if block = d.Document.Block(s.Block); block < 0 {
			return nil, problems.Gone(store.ErrNone, "block")
		}
		if len(s.Words) == 0 {
			s.Words = d.Document.Blocks[block].Seeds
		}
	}
	words := s.Words[:0:0]
	for _, w := range s.Words {
		if w = strings.TrimSpace(w); w != "" && utf8.RuneCountInString(w) <= longestWord && len(words) < mostSearched &&
			!slices.Contains(words, w) {
			words = append(words, w)
		}
	}
	out := &Headings{
		Languages: []string{},
		Leads:     []HeadingLead{},
		Evidence:  []HeadingCarried{},
		Words:     append([]string{}, words...),
		Said:      []string{},
	}
	if v := d.Keys.Set.Thesaurus; v != nil {
		out.Languages = append(out.Languages, v.Spoken()...)
		if err := leads(ctx, d, out, words, block, s.Language); err != nil {
			return nil, err
		}
	}
	if d.Pool == nil || len(words) == 0 {
		return out, nil
	}
	return out, carried(ctx, d, out, words)
}

// leads adds what the vocabulary says of words: of several, the headings that most of them lead to first.
func leads(ctx context.Context, d *desk.Desk, out *Headings, words []string, block int, language string) error {
	v := d.Keys.Set.Thesaurus
	at := map[int]int{}
	for _, w := range words {
		for _, l := range v.Suggest(w, mostLeads+1) {
			i, known := at[l.Heading]
			if !known {
				i = len(out.Leads)
				at[l.Heading] = i
				label := v.Label(l.Heading)
				lead := HeadingLead{
					Label:     label,
					Shown:     label,
					Via:       l.Via,
					Matched:   l.Matched,
					Forgiven:  l.Forgiven,
					Meant:     l.Meant,
					Words:     []string{},
					Narrower:  len(v.Below(l.Heading)) - 1,
					ScopeNote: v.ScopeNote(l.Heading),
					Retired:   v.Retired(l.Heading),
				}
				if language != "" {
					lead.Shown = v.LabelIn(l.Heading, language)
					if n := v.NoteIn(l.Heading, language); n != "" {
						lead.ScopeNote = n
					}
				}
				if l.Language != v.Language {
					lead.Language = l.Language
				}
				out.Leads = append(out.Leads, lead)
			}
			if !slices.Contains(out.Leads[i].Words, w) {
				out.Leads[i].Words = append(out.Leads[i].Words, w)
			}
		}
	}
	if len(words) > 1 {
		slices.SortStableFunc(out.Leads, func(a, b HeadingLead) int { return len(b.Words) - len(a.Words) })
	}
	if len(out.Leads) > mostLeads {
		out.Leads, out.Cut = out.Leads[:mostLeads], true
	}
	look := headingLook(d)
	for i := range out.Leads {
		if ctx.Err() != nil {
			return ctx.Err()
		}
		lead := &out.Leads[i]
		c, err := look.Count(heading.Of(lead.Label, true))
		if err != nil {
			return err
		}
		if d.Pool != nil {
			lead.Records = &c.Records
		}
		lead.Keys, lead.Taken = c.Keys, takenBy(d, lead.Label)
	}
	if block < 0 || d.Pool == nil || len(words) < 2 {
		return nil
	}
	return suitLeads(ctx, d, out, block)
}

// suitLeads tells how well the leads suit a block, and orders those that as many words lead to by it.
func suitLeads(ctx context.Context, d *desk.Desk, out *Headings, block int) error {
	_, suits, err := suitsOf(ctx, d)
	if err != nil {
		return err
	}
	for i := range out.Leads {
		key := text.Label(out.Leads[i].Label)
		found := d.Pool.Index.Keyed(key)
		if found.IsEmpty() {
			continue
		}
		suit := tally.Round(suits.Heading(key, found).Of[block])
		out.Leads[i].Suit = &suit
	}
	of := func(l HeadingLead) float64 {
		if l.Suit == nil {
			return 0
		}
		return *l.Suit
	}
	slices.SortStableFunc(out.Leads, func(a, b HeadingLead) int {
		return cmp.Or(cmp.Compare(len(b.Words), len(a.Words)), cmp.Compare(of(b), of(a)))
	})
	return nil
}

// carried adds which headings records carry that say one of the words.
func carried(ctx context.Context, d *desk.Desk, out *Headings, words []string) error {
	said := roaring.New()
	for _, w := range words {
		// Where nobody says it just so, it may be a beginning.
		for _, typed := range []string{w, w + "*"} {
			found, err := coverage.Hits(
				d.Pool.Set(),
				strategy.Term{Kind: strategy.TextTerm, Text: typed, Field: "text", On: true},
			)
			if err != nil || found.IsEmpty() {
				continue // what is no word is said by none
			}
			said.Or(found)
			out.Said = append(out.Said, typed)
			break
		}
	}
	found, without, err := coverage.HeadingsOfRecords(ctx, d.Pool.Over(d.Pool.Sample, roaring.New()), said)
	if err != nil {
		return err
	}
	out.Saying, out.Without = int(said.GetCardinality())-without, without
	for _, e := range found[:min(len(found), mostEvidence)] {
		known := false
		if v := d.Pool.Thesaurus; v != nil {
			_, known = v.Find(e.Heading)
		}
		out.Evidence = append(
			out.Evidence,
			HeadingCarried{e.Heading, e.Records, tally.Round(e.Share), tally.Round(e.Pull), known},
		)
	}
	return nil
}

// headingLook is what headings are looked at over: the sample and the key studies.
func headingLook(d *desk.Desk) heading.Look {
	l := heading.Look{Keys: d.Keys.Set, Aside: d.Keys.Absent}
	if d.Pool != nil {
		l.Set, l.Pool = d.Pool.Set(), d.Pool.Over(d.Pool.Sample, roaring.New())
	}
	l.Set.Thesaurus = d.Keys.Set.Thesaurus
	return l
}

// takenBy returns the block that has a heading as a term, by its id.
func takenBy(d *desk.Desk, label string) string {
	for _, b := range d.Document.Blocks {
		for _, t := range b.Terms {
			if t.Kind == strategy.HeadingTerm && d.Means(t.Heading, label) {
				return b.ID
			}
		}
	}
	return ""
}

// A HeadingWhole is one heading with all that is known of it.
type HeadingWhole struct {
	heading.Whole
	Shown   string         `json:"shown"` // its label in the language that is wanted
	Block   string         `json:"block,omitempty"`
	Taken   []HeadingTaken `json:"taken"` // where it is a term already
	Sides   *heading.Sides `json:"sides,omitempty"`
	Counted bool           `json:"counted"` // figures over records are there
	// Through another vocabulary than the review's: the headings of its terms that this one stands for, and the sample
	// of a source of it that figures are over; nil where nothing was drawn there.
	Matches   []HeadingMatch   `json:"matches"` // in vocabularies of other sources
	StandsFor []string         `json:"standsFor,omitempty"`
	Over      *desk.SampleHead `json:"over,omitempty"`
}

// HeadingTaken is a term of a block that is a heading.
type HeadingTaken struct {
	Block string `json:"block"`
	Term  string `json:"term"`
}

// A HeadingMatch is a heading of another vocabulary that may mean the same, and what says so.
type HeadingMatch struct {
	Vocabulary int64  `json:"vocabulary"`
	Name       string `json:"name"` // of the vocabulary
	Heading    string `json:"heading"`
	Via        string `json:"via"`
	Matched    string `json:"matched,omitempty"`
}

const (
	mostOthers  = 6 // vocabularies in which matches are looked for
	mostMatches = 3 // in one of them
)

// matches returns which headings of the review's vocabulary, and of those of other sources, may mean the same as
// one of the vocabulary that is looked in.
func (a *Service) matches(ctx context.Context, d *desk.Desk, h int) ([]HeadingMatch, error) {
	out := []HeadingMatch{}
	looked := d.Document.Vocabulary
	if d.Carried != nil {
		looked = d.Carried.ID
	}
	if looked == nil {
		return out, nil
	}
	here, err := a.vocabularyRows.One(ctx, *looked)
	if err != nil {
		return nil, problems.Gone(err, "vocabulary")
	}
	all, err := a.vocabularyRows.All(ctx)
	if err != nil {
		return nil, err
	}
	sources, err := a.library.Sources(ctx)
	if err != nil {
		return nil, err
	}
	tried := 0
	for _, v := range all {
		own := d.Document.Vocabulary != nil && v.ID == *d.Document.Vocabulary
		used := v.Later == nil && slices.ContainsFunc(sources, func(s library.Source) bool { return s.Tied(v.Name) })
		if !own && !used || text.Label(v.Name) == text.Label(here.Name) || tried == mostOthers {
			continue
		}
		tried++
		other, err := a.desk.Pools.Thesaurus(ctx, &v.ID)
		if err != nil {
			return nil, err
		}
		found := d.Keys.Set.Thesaurus.Counterparts(h, other)
		for _, c := range found[:min(len(found), mostMatches)] {
			out = append(out, HeadingMatch{v.ID, v.Name, c.Heading, string(c.Via), c.Matched})
		}
	}
	return out, nil
}

// headingAt returns the place of a heading in the vocabulary that is looked by.
func headingAt(d *desk.Desk, label string) (int, error) {
	v := d.Keys.Set.Thesaurus
	if v == nil {
		return 0, errNoVocabulary
	}
	at, ok := v.Find(label)
	if !ok {
		at, ok = v.Term(label)
	}
	if !ok {
		return 0, &problems.Problem{
			Type:   "no-heading",
			Status: 404,
			Field:  "label",
			Title:  "The vocabulary has no such heading.",
		}
	}
	return at, nil
}

var errNoVocabulary = &problems.Problem{
	Type:   "no-vocabulary",
	Status: 409,
	Title:  "There is no vocabulary to look headings up in. Bring one in under Samples, or choose one that is there.",
}

// Heading tells all that is known of one heading; block, where given, is the id of that which it may be taken into.
func (a *Service) Heading(ctx context.Context, at desk.At, label, block, language string) (*HeadingWhole, error) {
	if err := a.desk.Quick.Take(ctx); err != nil {
		return nil, err
	}
	d, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	h, err := headingAt(d, label)
	if err != nil {
		return nil, err
	}
	var into strategy.Block
	if block != "" {
		i := d.Document.Block(block)
		if i < 0 {
			return nil, problems.Gone(store.ErrNone, "block")
		}
		into = d.Strategy.Blocks[i]
	}
	look := headingLook(d)
	whole, err := look.Whole(ctx, h, into)
	if err != nil {
		return nil, err
	}
	v := d.Keys.Set.Thesaurus
	out := &HeadingWhole{Whole: *whole, Shown: whole.Label, Block: block, Taken: []HeadingTaken{}, Counted: d.Pool != nil}
	if out.Matches, err = a.matches(ctx, d, h); err != nil {
		return nil, err
	}
	if d.Drawn {
		out.Over = d.Sample
	}
	if language != "" {
		out.Shown = v.LabelIn(h, language)
		if n := v.NoteIn(h, language); n != "" {
			out.ScopeNote = n
		}
	}
	for _, b := range d.Document.Blocks {
		for _, t := range b.Terms {
			if t.Kind != strategy.HeadingTerm || !d.Means(t.Heading, whole.Label) {
				continue
			}
			out.Taken = append(out.Taken, HeadingTaken{b.ID, t.ID})
			if d.Carried != nil && !slices.Contains(out.StandsFor, t.Heading) {
				out.StandsFor = append(out.StandsFor, t.Heading)
			}
		}
	}
	if block != "" {
		sides, err := look.Sides(heading.Of(whole.Label, true), into)
		if err != nil {
			return nil, err
		}
		out.Sides = &sides
	}
	return out, nil
}

// HeadingBelow returns the headings right below one, with what they find.
func (a *Service) HeadingBelow(ctx context.Context, at desk.At, label string) ([]heading.Node, error) {
	if err := a.desk.Quick.Take(ctx); err != nil {
		return nil, err
	}
	d, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	h, err := headingAt(d, label)
	if err != nil {
		return nil, err
	}
	children := d.Keys.Set.Thesaurus.Narrower(h)
	return headingLook(d).Nodes(ctx, children[:min(len(children), heading.MostNodes)])
}

// HeadingPrice tells what a heading term finds, and what each way to narrow it would lose.
func (a *Service) HeadingPrice(ctx context.Context, at desk.At, t desk.Term) (*heading.Price, error) {
	if t.Kind != strategy.HeadingTerm {
		return nil, problems.Invalid("term", "Only a heading has qualifiers and a main point.")
	}
	if err := a.desk.Quick.Take(ctx); err != nil {
		return nil, err
	}
	d, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	var qualifiers []string
	if v := d.Keys.Set.Thesaurus; v != nil {
		qualifiers = v.Qualifiers
	}
	p, err := headingLook(d).Price(t.Term, qualifiers)
	if err != nil {
		return nil, problems.Invalid("term", "%s", err.Error())
	}
	return &p, nil
}

// HeadingsProposed returns the headings that what is looked at and the key studies point to.
func (a *Service) HeadingsProposed(ctx context.Context, at desk.At) (*heading.Proposed, error) {
	if err := a.desk.Heavy.Take(ctx); err != nil {
		return nil, err
	}
	d, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	if d.Keys.Set.Thesaurus == nil {
		return nil, errNoVocabulary
	}
	sample, contrast := roaring.New(), roaring.New()
	if d.Pool != nil {
		sample, contrast = d.Look.Sample, d.Look.Contrast
	}
	return headingLook(d).Propose(ctx, sample, contrast, d.Keys.MinedSet().Within)
}
