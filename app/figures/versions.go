package figures

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/core/coverage"
	"tamiz/core/review"
)

// A Version is a revision that was kept, with what it finds of what is looked at now.
type Version struct {
	ID       int64          `json:"id"` // 0 for what holds now
	Revision int            `json:"revision"`
	Name     string         `json:"name"`
	Note     string         `json:"note,omitempty"`
	Why      string         `json:"why,omitempty"` // the large step before which it was kept by itself
	Who      string         `json:"who,omitempty"`
	At       time.Time      `json:"at"`
	Lines    int            `json:"lines"`             // terms that are searched
	Records  *int           `json:"records,omitempty"` // of the sample; none without one
	Caught   int            `json:"caught"`            // key studies
	Recall   *Recall        `json:"recall,omitempty"`
	Current  bool           `json:"current,omitempty"` // it is what is searched now
	Problem  string         `json:"problem,omitempty"` // why it cannot be searched any more
	Counts   []VersionCount `json:"counts"`            // what sources said of it, one for each
	Same     []int          `json:"same,omitempty"`    // later revisions that search the same, of which something was run
}

// A VersionCount is how many records a source said last that it finds for a version.
type VersionCount struct {
	Source  int64     `json:"source"`
	Name    string    `json:"name"`
	Records int64     `json:"records"`
	At      time.Time `json:"at"`
}

const (
	mostVersions = 200
	mostCounts   = 2000 // what sources said, that is looked through
	mostRead     = 100  // revisions beside the versions that are read to see whether they search the same, the newest
)

// Versions returns the versions of a review, the oldest first, and what holds now as the last, where that is not
// what the newest version searches.
func (a *Service) Versions(ctx context.Context, at desk.At) ([]Version, error) {
	if err := a.desk.Heavy.Take(ctx); err != nil {
		return nil, err
	}
	lay, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	kept, err := a.reviewRows.Versions(ctx, at.Review, mostVersions)
	if err != nil {
		return nil, err
	}
	now, err := a.documents.Document(ctx, at.Review, 0)
	if err != nil {
		return nil, problems.Gone(err, "review")
	}
	out := []Version{}
	var docs []desk.Document
	var last desk.Document
	for _, v := range append(kept, reviews.Version{Revision: now.Revision, At: a.now()}) {
		row := Version{
			Current:  v.ID == 0,
			ID:       v.ID,
			Revision: v.Revision,
			Name:     v.Name,
			Note:     v.Note,
			Why:      v.Why,
			Who:      v.Who,
			At:       v.At,
			Counts:   []VersionCount{},
		}
		doc, err := a.revision(ctx, at.Review, v.Revision)
		if err != nil {
			return nil, err
		}
		if v.ID == 0 && len(out) > 0 && len(review.Compare(last, doc)) == 0 {
			out[len(out)-1].Current = true
			break
		}
		last = doc
		docs = append(docs, doc)
		for _, b := range doc.Blocks {
			for _, t := range b.Terms {
				if b.Searched && t.On {
					row.Lines++
				}
			}
		}
		f, err := found(ctx, lay, doc)
		switch {
		case ctx.Err() != nil:
			return nil, ctx.Err()
		case err != nil:
			row.Problem = err.Error()
		default:
			if f.sample != nil {
				row.Records = number(f.sample)
			}
			row.Caught = int(f.keys.GetCardinality())
			row.Recall = recall(row.Caught, lay.Keys.Held())
		}
		out = append(out, row)
	}
	return out, a.counts(ctx, at.Review, out, docs)
}

// counts puts to each version what sources said of it, or of a later revision that searches the same.
func (a *Service) counts(ctx context.Context, id int64, versions []Version, docs []desk.Document) error {
	var revisions []int
	for _, v := range versions {
		revisions = append(revisions, v.Revision)
	}
	said, err := a.runs.Counted(ctx, id, revisions, mostCounts)
	if err != nil {
		return err
	}
	read := 0
	place := map[int]int{} // by revision, which version it is; -1 for none
	for _, r := range said {
		i, known := place[r.Revision]
		if !known {
			i = -1
			for k := range versions {
				if versions[k].Revision <= r.Revision {
					i = k
				}
			}
			if i >= 0 && versions[i].Revision != r.Revision && read == mostRead {
				i = -1
			} else if i >= 0 && versions[i].Revision != r.Revision {
				read++
				doc, err := a.revision(ctx, id, r.Revision)
				if err != nil {
					return err
				}
				if len(review.Compare(docs[i], doc)) > 0 {
					i = -1
				} else {
					versions[i].Same = append(versions[i].Same, r.Revision)
				}
			}
			place[r.Revision] = i
		}
		if i < 0 {
			continue
		}
		c := VersionCount{*r.Source, r.Place, *r.Records, r.At}
		k := slices.IndexFunc(versions[i].Counts, func(x VersionCount) bool { return x.Source == c.Source })
		switch {
		case k < 0:
			versions[i].Counts = append(versions[i].Counts, c)
		case c.At.After(versions[i].Counts[k].At):
			versions[i].Counts[k] = c
		}
	}
	for i := range versions {
		slices.SortFunc(versions[i].Counts, func(a, b VersionCount) int { return strings.Compare(a.Name, b.Name) })
	}
	return ctx.Err()
}

func (a *Service) revision(ctx context.Context, review int64, revision int) (desk.Document, error) {
	saved, err := a.documents.Document(ctx, review, revision)
	if err != nil {
		return desk.Document{}, problems.Gone(err, "revision")
	}
	return desk.Parse(saved.Body)
}

// finds are the records of the sample and the key studies that a version finds.
type finds struct{ sample, keys *roaring.Bitmap }

func found(ctx context.Context, lay *desk.Desk, doc desk.Document) (f finds, err error) {
	s := doc.Strategy("")
	inKeys, err := coverage.Find(ctx, lay.Keys.Set, s)
	if err != nil {
		return f, err
	}
	if lay.Keys.Absent != nil {
		setAside(inKeys, lay.Keys.Absent)
	}
	f.keys = inKeys.Whole
	if lay.Pool != nil {
		reach, err := coverage.Find(ctx, lay.Pool.Set(), s)
		if err != nil {
			return f, err
		}
		f.sample = reach.Whole
	}
	return f, nil
}

// ComparedVersions is how two versions stand to each other.
type ComparedVersions struct {
	Old     int                 `json:"old"` // records of the sample that the older finds
	New     int                 `json:"new"`
	Kept    int                 `json:"kept"`
	Gained  int                 `json:"gained"`
	Lost    int                 `json:"lost"`
	Sampled bool                `json:"sampled"` // there is a sample: else there are no such figures
	Keys    int                 `json:"keys"`
	OldKeys int                 `json:"oldKeys"`
	NewKeys int                 `json:"newKeys"`
	Brought []desk.RecordHead   `json:"brought"` // key studies that only the newer catches
	Dropped []desk.RecordHead   `json:"dropped"` // that only the older does
	Lines   []review.LineChange `json:"lines"`
	Words   string              `json:"words"` // all of it in a paragraph, for the record
}

// CompareVersions returns how two revisions of the document stand to each other over the sample and the key studies.
func (a *Service) CompareVersions(ctx context.Context, at desk.At, older, newer int) (*ComparedVersions, error) {
	if err := a.desk.Quick.Take(ctx); err != nil {
		return nil, err
	}
	lay, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	var docs [2]desk.Document
	var sides [2]finds
	for i, n := range []int{older, newer} {
		if docs[i], err = a.revision(ctx, at.Review, n); err != nil {
			return nil, err
		}
		if sides[i], err = found(ctx, lay, docs[i]); err != nil {
			return nil, &problems.Problem{
				Type:   "not-searched",
				Status: 409,
				Title:  "One of the versions cannot be searched any more.",
				Detail: err.Error(),
			}
		}
	}
	old, now := sides[0], sides[1]
	c := &ComparedVersions{
		Keys:    lay.Keys.Held(),
		OldKeys: int(old.keys.GetCardinality()),
		NewKeys: int(now.keys.GetCardinality()),
		Brought: studies(
			lay,
			roaring.AndNot(now.keys, old.keys),
		),
		Dropped: studies(lay, roaring.AndNot(old.keys, now.keys)),
		Lines:   review.Compare(docs[0], docs[1]),
	}
	if old.sample != nil {
		c.Sampled = true
		c.Old, c.New = int(old.sample.GetCardinality()), int(now.sample.GetCardinality())
		c.Kept = int(old.sample.AndCardinality(now.sample))
		c.Gained, c.Lost = c.New-c.Kept, c.Old-c.Kept
	}
	c.Words = c.inWords(lay)
	return c, nil
}

func studies(lay *desk.Desk, set *roaring.Bitmap) []desk.RecordHead {
	out := []desk.RecordHead{}
	for it := set.Iterator(); it.HasNext(); {
		k := lay.Keys.Studies[it.Next()]
		out = append(
			out,
			desk.RecordHead{
				ID:      k.StoredRecord.ID,
				Title:   k.Record.Title,
				Byline:  desk.Byline(k.Record),
				Year:    k.Record.Year,
				Journal: k.Record.Journal,
				Indexed: k.Record.Indexed(),
			},
		)
	}
	return out
}

// inWords says it all in a paragraph, as it stands in the record of a search.
func (c *ComparedVersions) inWords(lay *desk.Desk) string {
	if len(c.Lines) == 0 {
		return "Nothing that is searched was changed."
	}
	var said []string
	byKind := map[string][]string{}
	for _, l := range c.Lines {
		text := l.Now
		switch l.Kind {
		case review.Gone, review.Unlimited:
			text = l.Was
		case review.BlockAdded, review.BlockGone:
			text = strings.TrimSpace(l.Block + " " + l.Concept)
		case review.BlockOther, review.LimitOther, review.Changed:
			text = l.Was + " → " + l.Now
		case review.Moved:
			text = fmt.Sprintf("%s (%s to %s)", l.Now, l.From, l.Block)
		}
		if l.Kind == review.Added || l.Kind == review.Gone {
			text += " (" + l.Block + ")"
		}
		byKind[l.Kind] = append(byKind[l.Kind], text)
	}
	for _, k := range [][2]string{{review.BlockAdded, "Concept blocks added"}, {review.BlockGone,
		"Concept blocks taken out"}, {review.BlockOther, "Blocks searched otherwise"},
		{review.Added, "Lines added"}, {review.Gone, "Lines taken out"}, {review.Changed, "Lines changed"},
		{review.Moved, "Lines moved"}, {review.Off, "Lines switched off"},
		{review.On, "Lines switched on"}, {review.Limited, "Limits set"}, {review.Unlimited, "Limits lifted"},
		{review.LimitOther, "Limits changed"}} {
		if all := byKind[k[0]]; len(all) > 0 {
			said = append(said, fmt.Sprintf("%s: %s", k[1], strings.Join(all, "; ")))
		}
	}
	text := strings.Join(said, ". ") + "."
	if c.Sampled {
		text += fmt.Sprintf(
			" Over the sample (%s) it finds %d records where it found %d: %d gained, %d lost, %d kept.",
			lay.Sample.Name,
			c.New,
			c.Old,
			c.Gained,
			c.Lost,
			c.Kept,
		)
	}
	if c.Keys > 0 {
		text += fmt.Sprintf(" Of %d key studies it catches %d where it caught %d", c.Keys, c.NewKeys, c.OldKeys)
		if len(c.Dropped) > 0 {
			text += fmt.Sprintf(" (%d gained, %d lost)", len(c.Brought), len(c.Dropped))
		}
		text += "."
	}
	return text
}
