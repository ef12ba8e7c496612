package intake

import (
	"context"
	"errors"
	"io"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/bib"
	"tamiz/exchange"
	"tamiz/exchange/records"
)

// What becomes of a record of the same work as an earlier one of its file.
const (
	Apart = "apart" // both are kept
	Join  = "join"  // the earlier one takes from it what it lacks
	Leave = "leave" // it is left out
)

const (
	maxDoubles   = 300    // pairs that are shown side by side
	maxJoined    = 50_000 // records that are joined to others
	maxDifferent = 2000   // characters of a field that is shown side by side
)

// A Double is two records of a file that are of the same work.
type Double struct {
	Place       int              `json:"place"` // of the later one in the file, from 1
	Of          int              `json:"of"`    // of the earlier one
	Title       string           `json:"title"`
	Byline      string           `json:"byline"`
	Differences []bib.Difference `json:"differences"`
	// it cannot be told whether they are: only what is said of this pair holds
	Perhaps bool `json:"perhaps,omitempty"`
}

type pairOfPlaces struct {
	first, second int
	perhaps       bool
}

// plan holds, by the place of a record in its file, the later ones that are joined to it.
type plan map[int][]*bib.Record

// of returns what becomes of the record at a place of the file, empty where nothing is said.
func (s FileSettings) of(place int) string {
	if c, ok := s.Choices[place]; ok {
		return c
	}
	return s.Doubles
}

// ofPerhaps returns the same of a record of which it cannot be told whether it is of the same work: only what is
// said of it by itself holds.
func (s FileSettings) ofPerhaps(place int) string {
	if c, ok := s.Choices[place]; ok {
		return c
	}
	return Apart
}

// joins reports whether records are joined, so that the file has to be looked through before it is filed.
func (s FileSettings) joins() bool {
	for _, c := range s.Choices {
		if c == Join {
			return true
		}
	}
	return s.Doubles == Join
}

// planDoubles looks through the file for records that are joined to an earlier one.
func (f *filer) planDoubles(ctx context.Context) error {
	r, _, err := f.open(ctx, func(exchange.Notice) {})
	if err != nil {
		return f.file.blame(err)
	}
	f.plan = plan{}
	var known bib.Known
	joined := 0
	for place := 1; ; place++ {
		rec, err := r.Read()
		if errors.Is(err, io.EOF) {
			return nil
		}
		if err != nil {
			return f.file.blame(err)
		}
		first, double := known.Find(rec)
		what := f.settings.of(place)
		if !double {
			if first, double = known.Perhaps(rec); double {
				what = f.settings.ofPerhaps(place)
			}
		}
		switch {
		case !double || what == Apart:
			known.Add(rec, place)
		case what == Join:
			if joined++; joined > maxJoined {
				return &problems.Problem{
					Type:   "too-many-doubles",
					Status: 422,
					Field:  "file",
					Title:  "The file holds too many records of the same work to join them. Nothing was brought in.",
				}
			}
			f.plan[first] = append(f.plan[first], rec)
		}
	}
}

// askDoubles puts the records that are of the same work side by side, for someone to say what becomes of
// them. Nothing of the file is filed meanwhile.
func (f *filer) askDoubles(ctx context.Context, format records.Format) error {
	q := &FileQuestion{
		What:     "doubles",
		Format:   string(format),
		Settings: f.settings,
		Total:    len(f.doubles),
		Doubles:  []Double{},
	}
	shown := f.doubles[:min(len(f.doubles), maxDoubles)]
	wanted := map[int]*bib.Record{}
	last := 0
	for _, p := range shown {
		wanted[p.first], wanted[p.second] = nil, nil
		last = max(last, p.second)
	}
	r, _, err := f.open(ctx, func(exchange.Notice) {})
	if err != nil {
		return f.file.blame(err)
	}
	for place := 1; place <= last; place++ {
		rec, err := r.Read()
		if err != nil {
			return f.file.blame(err)
		}
		if _, ok := wanted[place]; ok {
			wanted[place] = rec
		}
	}
	for _, p := range shown {
		a, b := wanted[p.first], wanted[p.second]
		d := Double{
			Place:       p.second,
			Of:          p.first,
			Title:       a.Title,
			Byline:      desk.Byline(a),
			Differences: []bib.Difference{},
			Perhaps:     p.perhaps,
		}
		for _, x := range bib.Differences(a, b) {
			x.A, x.B = exchange.Cut(x.A, maxDifferent), exchange.Cut(x.B, maxDifferent)
			d.Differences = append(d.Differences, x)
		}
		q.Doubles = append(q.Doubles, d)
	}
	return q
}
