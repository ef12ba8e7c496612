package desk

import "tamiz/app/library"

// A RecordHead is a record as it stands in a list.
type RecordHead struct {
	ID      int64  `json:"id"`
	Title   string `json:"title"`
	Byline  string `json:"byline"`
	Year    int    `json:"year"`
	Journal string `json:"journal"`
	Indexed bool   `json:"indexed"`
	Key     bool   `json:"key"`
}

// Head returns a record as it stands in a list.
func (d *Desk) Head(s library.StoredRecord) RecordHead {
	r := s.Record
	return RecordHead{
		ID:      s.ID,
		Title:   r.Title,
		Byline:  Byline(r),
		Year:    r.Year,
		Journal: r.Journal,
		Indexed: r.Indexed(),
		Key:     d.Keys.Has(s.ID),
	}
}

// A Piece is a stretch of text; Blocks are the letters of those whose terms match it.
type Piece struct {
	Text      string   `json:"text"`
	Blocks    []string `json:"blocks,omitempty"`
	Candidate bool     `json:"candidate,omitempty"`
	Near      bool     `json:"near,omitempty"` // it is all but a term
}
