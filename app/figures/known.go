package figures

import (
	"context"
	"encoding/json"
	"slices"
	"time"

	"tamiz/app/desk"
	"tamiz/app/library"
	"tamiz/core/bib"
)

// StudyKnown is all that is known of a key study: the reference as it was brought in, and its record at each source
// that holds it.
type StudyKnown struct {
	By      int64       `json:"by"` // the source by whose record its figures go; 0 for all that is known put together
	Brought KnownRecord `json:"brought"`
	Sources []KnownAt   `json:"sources"`
}

// KnownAt is what one source says of it.
type KnownAt struct {
	Source  int64            `json:"source"`
	Name    string           `json:"name"`
	State   string           `json:"state"`
	How     string           `json:"how"`
	At      time.Time        `json:"at"`
	Record  *KnownRecord     `json:"record,omitempty"`
	Changed *time.Time       `json:"changed,omitempty"` // when its record was first seen to be another than before
	Changes []bib.Difference `json:"changes"`           // what was otherwise before
}

// A KnownRecord is what a record brings that figures go by.
type KnownRecord struct {
	Headings []string `json:"headings"`
	Keywords int      `json:"keywords"`
	Abstract bool     `json:"abstract"`
}

func knownRecord(r *bib.Record) KnownRecord {
	out := KnownRecord{Headings: []string{}, Keywords: len(r.Keywords), Abstract: r.Abstract != ""}
	for _, h := range r.Headings {
		out.Headings = append(out.Headings, h.Label)
	}
	return out
}

// known returns what is known of the n-th key study.
func (a *Service) known(ctx context.Context, d *desk.Desk, review int64, n int) (*StudyKnown, error) {
	study := d.Keys.Studies[n]
	out := &StudyKnown{By: d.Keys.By[n], Brought: knownRecord(study.Record), Sources: []KnownAt{}}
	sources, err := a.library.Sources(ctx)
	if err != nil {
		return nil, err
	}
	holdings, err := a.library.Holdings(ctx, review)
	if err != nil {
		return nil, err
	}
	records, err := a.library.KeyRecords(ctx, review, study.ID)
	if err != nil {
		return nil, err
	}
	for _, h := range holdings {
		i := slices.IndexFunc(sources, func(s library.Source) bool { return s.ID == h.Source })
		if h.KeyStudy != study.ID || i < 0 {
			continue
		}
		row := KnownAt{
			Source:  h.Source,
			Name:    sources[i].Name,
			State:   h.State,
			How:     h.How,
			At:      h.At,
			Changed: h.Changed,
			Changes: []bib.Difference{},
		}
		if k := slices.IndexFunc(records, func(r library.KeyRecord) bool { return r.Source == h.Source }); k >= 0 {
			if err := row.read(records[k]); err != nil {
				return nil, err
			}
		}
		out.Sources = append(out.Sources, row)
	}
	return out, nil
}

// read fills in what a source's record brings, and what it was before.
func (k *KnownAt) read(r library.KeyRecord) error {
	var now, was bib.Record
	if err := json.Unmarshal(r.Body, &now); err != nil {
		return err
	}
	of := knownRecord(&now)
	k.Record = &of
	if r.Was == nil {
		return nil
	}
	if err := json.Unmarshal(r.Was, &was); err != nil {
		return err
	}
	k.Changes = append(k.Changes, bib.Differences(&was, &now)...)
	return nil
}
