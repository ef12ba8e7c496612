package reviews

import (
	"encoding/json"
	"tamiz/app/problems"
	"tamiz/store"
)

// An Import is a file that is being brought in.
type Import struct {
	ID        int64             `json:"id"`
	Kind      string            `json:"kind"`
	Name      string            `json:"name"`
	State     string            `json:"state"`
	Bytes     int64             `json:"bytes"`
	BytesRead int64             `json:"bytesRead"`
	Records   int               `json:"records"`
	Skipped   int               `json:"skipped"`
	Notices   int               `json:"notices"`
	Sample    *int64            `json:"sample,omitempty"`
	Format    string            `json:"format,omitempty"`
	Asks      string            `json:"asks,omitempty"`    // what has to be answered before the file can be read
	Waits     string            `json:"waits,omitempty"`   // review: whose other files it waits for
	Doubles   int               `json:"doubles,omitempty"` // records of the same work that are asked about
	Error     *problems.Problem `json:"error,omitempty"`
}

// ImportOf returns an import as it is told.
func ImportOf(i store.Import) Import {
	out := Import{ID: i.ID, Kind: i.Kind, Name: i.Name, State: i.State, Bytes: i.Bytes, BytesRead: i.BytesRead,
		Records: i.Records, Skipped: i.Skipped, Notices: i.Notices, Sample: i.Sample, Format: i.Format, Waits: i.Waits}
	var q struct { // the heads of the question alone
		What  string
		Total int
	}
	if i.Asked != nil && json.Unmarshal(i.Asked, &q) == nil {
		out.Asks, out.Doubles = q.What, q.Total
	}
	var p problems.Problem
	if i.Problem != nil && json.Unmarshal(i.Problem, &p) == nil {
		out.Error = &p
	}
	return out
}
