package demo

// A HandRun is a search that was made by hand, somewhere that cannot be asked by protocol.
type HandRun struct {
	Way, Place, Query, Note string
	Records                 int64
}

// HandRuns are those of the demo review, in the order in which they were made.
var HandRuns = []HandRun{
	{
		Way:     "register",
		Place:   "Register of trials of the Olmo institute",
		Query:   "heat AND (crew OR farm)",
		Records: 14,
		Note:    "read through title by title; three go on the shelf",
	},
	{Way: "browsing", Place: "Talvenia labour library, card index", Query: "Sun and toil; Water rations", Records: 6},
}
