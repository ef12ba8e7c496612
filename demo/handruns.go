package demo

import "time"

// A HandRun is a search that was made by hand, somewhere that cannot be asked by protocol.
type HandRun struct {
	Way, Place, Query, Note string
	Records                 int64
	At                      time.Time
}

// HandRuns are those of the demo review.
var HandRuns = []HandRun{
	{Way: "register", Place: "Register of trials of the Olmo institute", Query: "heat AND (crew OR farm)", Records: 14, At: time.Date(2026, 3, 2, 9, 0, 0, 0, time.UTC), Note: "read through title by title; three go on the shelf"},
	{Way: "browsing", Place: "Talvenia labour library, card index", Query: "Sun and toil; Water rations", Records: 6, At: time.Date(2026, 3, 19, 9, 0, 0, 0, time.UTC)},
}
