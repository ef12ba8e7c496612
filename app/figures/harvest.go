package figures

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/app/desk"
	"tamiz/core/tally"
	"tamiz/core/text"
)

// A Tally is what the sample is made of, set against its contrast.
type Tally struct {
	Facet  tally.Facet     `json:"facet"`
	Sample desk.SampleHead `json:"sample"`
	// records that are looked at: of the sample, or of a set of it and its contrast
	Looked       int         `json:"looked"`
	Contrast     int         `json:"contrast"`     // its records; 0 is none
	ContrastName string      `json:"contrastName"` // empty where it is all other records of the review
	HasKeys      bool        `json:"hasKeys"`
	HasCentral   bool        `json:"hasCentral"`
	HasNarrower  bool        `json:"hasNarrower"`
	Unindexed    []Unindexed `json:"unindexed,omitempty"` // of headings: by year, how many records have none
	// Of headings: the part of all records that has none.
	UnindexedShare *float64 `json:"unindexedShare,omitempty"`
	LeftOutBelow   int      `json:"leftOutBelow"`
	// that figures are counted over, whether the source holds them or not
	KeyStudies   int     `json:"keyStudies"`
	Missing      int     `json:"missing"`      // of what records carry as lists: records without any
	MissingShare float64 `json:"missingShare"` // of all records
	MissingKeys  int     `json:"missingKeys"`  // key studies without any
	// journals, those with most records first, that hold half of the records
	Half    int    `json:"half,omitempty"`
	Said    []Said `json:"said,omitempty"`
	Foreign int    `json:"foreign,omitempty"` // of words: records that do not read like English
	// rows stand in the order of pull and suit; else of pull, or records
	BySuit  bool `json:"bySuit,omitempty"`
	All     int  `json:"all"`     // rows that there are
	Passing int  `json:"passing"` // of these, that pass what was filtered for
	Sent    int  `json:"sent"`    // and of those, that are among the rows
	// the first of them, those that somebody decided on, and those that a term finds
	Rows []TallyRow `json:"rows"`
}

// A TallyRow is one item; Key is by what it is decided on, where that is not the item as written.
type TallyRow struct {
	Item            string   `json:"item"`
	Key             string   `json:"key,omitempty"`
	Records         int      `json:"records"`
	Occurrences     int      `json:"occurrences"`
	Share           float64  `json:"share"`
	ContrastRecords *int     `json:"contrastRecords,omitempty"`
	ContrastShare   *float64 `json:"contrastShare,omitempty"`
	Lift            *float64 `json:"lift,omitempty"`
	Pull            *float64 `json:"pull,omitempty"`
	Keys            *int     `json:"keys,omitempty"`
	Central         *int     `json:"central,omitempty"`
	WithNarrower    *int     `json:"withNarrower,omitempty"`
	Forms           []Form   `json:"forms,omitempty"`   // of a family with several, the most frequent first
	Absorbs         []string `json:"absorbs,omitempty"` // items that never stand without it
	Piece           bool     `json:"piece,omitempty"`   // none of its forms stands by itself: it is a piece of a sentence
	Inside          []string `json:"inside,omitempty"`  // blocks whose terms matched all its forms when it was counted
	Unindexed       int      `json:"unindexed,omitempty"`
	Heading         string   `json:"heading,omitempty"` // of a keyword: the heading that it leads to
	Loses           *Loss    `json:"loses,omitempty"`   // what a limit to it would lose; of a year, a limit from it on
	// of a journal: the share that it and all with more records hold together
	UpTo *float64 `json:"upTo,omitempty"`
	// of a journal: its share of all records without headings; of a year: the share of its own that have none
	Bare     *float64 `json:"bare,omitempty"`
	Writings []Form   `json:"writings,omitempty"` // of journals and authors: the ways of writing that are folded
}

// A Loss is what a limit would lose of what is looked at.
type Loss struct {
	Records int     `json:"records"`
	Share   float64 `json:"share"`
	Keys    *int    `json:"keys,omitempty"`
}

// A Form is one of the variants of a word or phrase.
type Form struct {
	Item    string `json:"item"`
	Records int    `json:"records"`
}

// A Said is how many records are of a kind by what they are indexed with, and how many say so in the title.
type Said struct {
	Kind    string   `json:"kind"`
	Indexed []string `json:"indexed"` // publication types, or headings, that stand for it
	Words   []string `json:"words"`   // of titles that do
	Typed   int      `json:"typed"`
	Titled  int      `json:"titled"`
	Both    int      `json:"both"`
	Either  int      `json:"either"`
}

// An Unindexed is how many records of a year carry no heading; year 0 is none.
type Unindexed struct {
	Year      int `json:"year"`
	Records   int `json:"records"`
	Unindexed int `json:"unindexed"`
}

// Tally counts a facet of what is looked at.
func (a *Service) Tally(ctx context.Context, at desk.At, f tally.Facet) (*Tally, error) {
	c, err := a.counting(ctx, at, f)
	if err != nil {
		return nil, err
	}
	out := c.head
	out.Rows = make([]TallyRow, c.Len())
	for i := range out.Rows {
		out.Rows[i] = c.whole(int32(i))
	}
	return &out, nil
}

// A counting is a tally whose rows are made when they are asked for: there may be a million, of which some
// thousands are sent.
type counting struct {
	*desk.Counted
	desk   *desk.Desk
	head   Tally                         // without rows
	order  []int                         // of the rows; nil is their own
	inside func(forms []string) []string // the blocks that find all forms; nil for facets that are no terms
	limits
}

// counting counts a facet of what is looked at.
func (a *Service) counting(ctx context.Context, at desk.At, f tally.Facet) (*counting, error) {
	if err := desk.CheckFacet(f); err != nil {
		return nil, err
	}
	d, err := a.sampled(ctx, at, a.desk.Heavy)
	if err != nil {
		return nil, err
	}
	if f == tally.Words {
		go func() { _, _ = d.Pool.Befriended(ctx) }() // it is asked for next, and takes as long
	}
	t, err := d.Pool.Tally(ctx, d.Look, f, d.Keys)
	if err != nil {
		return nil, err
	}
	c := &counting{Counted: t, desk: d}
	c.head = Tally{Facet: f, Sample: *d.Sample, Looked: t.Sample, Contrast: t.Contrast, ContrastName: d.Contrast,
		HasKeys: t.HasKeys, HasCentral: t.HasCentral, HasNarrower: t.HasNarrower, KeyStudies: t.KeyStudies,
		LeftOutBelow: t.LeftOutBelow, Missing: t.Missing, MissingKeys: t.MissingKeys,
		All: t.Len(), Passing: t.Len(), Sent: t.Len()}
	if f == tally.Words {
		c.head.Foreign = d.Look.Foreign()
	}
	for _, s := range d.Look.Said(f) {
		c.head.Said = append(c.head.Said, Said(s))
	}
	if t.Sample > 0 {
		c.head.MissingShare = tally.Round(float64(t.Missing) / float64(t.Sample))
	}
	if f == tally.Headings && t.Sample > 0 {
		records, years := d.Look.Unindexed()
		share := tally.Round(float64(records) / float64(t.Sample))
		c.head.UnindexedShare = &share
		for _, y := range years {
			c.head.Unindexed = append(c.head.Unindexed, Unindexed(y))
		}
	}
	if desk.Textual(f) || f == tally.Headings {
		if c.inside, err = insideOf(d, f); err != nil {
			return nil, err
		}
	}
	c.limits = limitsOf(c)
	c.order, c.head.BySuit, err = a.ordered(ctx, at, c)
	return c, err
}

// at returns the number of the row that stands at a place.
func (c *counting) at(place int32) int {
	if c.order == nil {
		return int(place)
	}
	return c.order[place]
}

// brief returns what rows are picked and sorted by.
func (c *counting) brief(place int32) brief {
	i := c.at(place)
	r := c.Row(i)
	out := brief{
		item:         r.Item,
		records:      r.Records,
		forms:        func() []string { return c.Forms(i) },
		lift:         absent,
		pull:         absent,
		keys:         absent,
		withNarrower: absent,
	}
	if c.Contrast > 0 {
		out.lift, out.pull = tally.Round(r.Lift), tally.Round(r.Pull)
	}
	if c.HasKeys {
		out.keys = float64(r.Keys)
	}
	if c.HasNarrower {
		out.withNarrower = float64(r.WithNarrower)
	}
	return out
}

// key returns by what a row is decided on.
func (c *counting) key(item string) string { return desk.ItemKey(c.Facet, item, c.desk.Pool.Parted) }

// foundAlready returns the rows, by number, all forms of which the terms of a block match. It is worked out once
// for a strategy.
func (c *counting) foundAlready(ctx context.Context) (*roaring.Bitmap, error) {
	if c.inside == nil {
		return roaring.New(), nil
	}
	said, err := json.Marshal(c.desk.Strategy)
	if err != nil {
		return nil, err
	}
	key := fmt.Sprint("found already ", c.Facet, c.desk.Look.Key, " ", c.desk.Keys.Key, " ", string(said))
	return desk.Cached(ctx, c.desk.Pool.Suited, key, func(ctx context.Context) (*roaring.Bitmap, int64, error) {
		found := roaring.New()
		for i := range c.Len() {
			if i&1023 == 0 && ctx.Err() != nil {
				return nil, 0, ctx.Err()
			}
			if len(c.inside(c.Forms(i))) > 0 {
				found.Add(uint32(i))
			}
		}
		return found, int64(found.GetSizeInBytes()), nil
	})
}

// whole returns a row as it is sent.
func (c *counting) whole(place int32) TallyRow {
	i := c.at(place)
	r := c.Row(i)
	row := TallyRow{Item: r.Item, Records: r.Records, Piece: c.Piece(i)}
	if key := c.key(r.Item); key != r.Item {
		row.Key = key
	}
	if c.HasKeys {
		row.Keys = &r.Keys
	}
	if c.HasNarrower {
		row.WithNarrower = &r.WithNarrower
	}
	family := c.Family(i)
	if c.Several(i) {
		for _, form := range family.Forms {
			row.Forms = append(row.Forms, Form{form.Item, form.Records})
		}
	}
	row.Occurrences, row.Share, row.Unindexed = r.Occurrences, tally.Round(r.Share), r.Unindexed
	if c.Facet == tally.Authors || c.Facet == tally.Journals {
		row.Writings = writings(r.Writings)
	}
	if c.Contrast > 0 {
		share, lift, pull := tally.Round(r.ContrastShare), tally.Round(r.Lift), tally.Round(r.Pull)
		row.ContrastRecords, row.ContrastShare, row.Lift, row.Pull = &r.ContrastRecords, &share, &lift, &pull
	}
	if c.HasCentral {
		row.Central = &r.Central
	}
	if row.Absorbs = family.Absorbs; c.inside != nil {
		row.Inside = c.inside(c.Forms(i))
	}
	if v := c.desk.Pool.Thesaurus; v != nil && c.Facet == tally.Keywords {
		row.Heading, _ = v.Leads(r.Item)
	}
	c.tell(&row, i)
	return row
}

// limits are what a limit to each row would lose, and how far down the list of journals how much is reached.
type limits struct {
	losses    []tally.Loss
	upTo      []float64
	unindexed int // records
}

func limitsOf(c *counting) (l limits) {
	switch c.Facet {
	case tally.Years, tally.Types, tally.Languages, tally.Countries, tally.Ages, tally.Humans:
		l.losses = c.Losses()
	case tally.Journals:
		l.upTo, c.head.Half = c.Reach()
		l.unindexed, _ = c.desk.Look.Unindexed()
	}
	return l
}

// tell tells of a row what a limit to it would lose and, of years and journals, what has no headings.
func (c *counting) tell(row *TallyRow, i int) {
	bare := func(of int) {
		if of > 0 {
			share := tally.Round(float64(row.Unindexed) / float64(of))
			row.Bare = &share
		}
	}
	switch {
	case c.losses != nil:
		l := c.losses[i]
		row.Loses = &Loss{Records: l.Records, Share: tally.Round(l.Share)}
		if c.HasKeys {
			row.Loses.Keys = &l.Keys
		}
		if c.Facet == tally.Years {
			bare(row.Records)
		}
	case c.upTo != nil:
		reached := tally.Round(c.upTo[i])
		row.UpTo = &reached
		bare(c.unindexed)
	}
}

// words returns the tokens of a label for looking up by beginnings.
func beginsLike(label string, typed []string) bool {
	tokens := text.Tokens(label)
	for _, t := range typed {
		found := false
		for _, l := range tokens {
			found = found || strings.HasPrefix(l, t)
		}
		if !found {
			return false
		}
	}
	return len(typed) > 0
}

// Teams is the teams of authors in what is looked at.
type Teams struct {
	Teams []Team `json:"teams"`
}

// A Team is authors who are joined by two or more records.
type Team struct {
	Authors    []string `json:"authors"`
	Keys       []string `json:"keys"`
	Records    int      `json:"records"` // that two of them signed
	KeyStudies int      `json:"keyStudies"`
	From       int      `json:"from"` // years of the records; 0 where none has one
	To         int      `json:"to"`
}

const mostTeams = 500

// Teams finds the teams in what is looked at.
func (a *Service) Teams(ctx context.Context, at desk.At) (*Teams, error) {
	d, err := a.sampled(ctx, at, a.desk.Heavy)
	if err != nil {
		return nil, err
	}
	out := &Teams{Teams: []Team{}}
	all := d.Look.Teams(d.Keys.Mined())
	for _, t := range all[:min(len(all), mostTeams)] {
		out.Teams = append(out.Teams, Team{t.Authors, t.Keys, t.Records, t.KeyHits, t.From, t.To})
	}
	return out, nil
}

// writings returns ways of writing one item, that of most records first.
func writings(of map[string]int) (out []Form) {
	for w, n := range of {
		out = append(out, Form{w, n})
	}
	slices.SortFunc(
		out,
		func(a, b Form) int { return cmp.Or(cmp.Compare(b.Records, a.Records), cmp.Compare(a.Item, b.Item)) },
	)
	return out
}
