package reviews

import (
	"tamiz/app/problems"
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
