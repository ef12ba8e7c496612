package desk

import "tamiz/store"

// Whether a source holds a key study.
const (
	Held    = "held"
	Near    = "near" // something like it, which a person has to decide on
	Absent  = "absent"
	Unknown = "unknown" // the source did not answer, or cannot be asked so
)

// Holding says whether a source holds a key study, and how that was found.
type Holding = store.Holding
