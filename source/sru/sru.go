// Package sru asks literature sources over SRU (Search/Retrieve via URL, Library of Congress and OASIS),
// in its versions 1.1, 1.2 and 2.0. A source is treated as hostile weather: whatever it sends, the answer
// is bounded in time and size, and what could be read is kept.
package sru

// The versions of the protocol.
const (
	Version11 = "1.1"
	Version12 = "1.2"
	Version20 = "2.0"
)

// Diagnostics of the standard (SRU, diagnostics list) that either side of Tamiz speaks of.
const (
	GeneralError         = 1
	UnsupportedOperation = 4
	UnsupportedVersion   = 5
	BadParameter         = 6
	MissingParameter     = 7
	QuerySyntax          = 10
	UnsupportedIndex     = 16
	UnsupportedRelation  = 19
	UnsupportedModifier  = 20
	MaskingUnsupported   = 28
	ProximityUnsupported = 39
	FirstOutOfRange      = 61
	UnknownSchema        = 66
	SortUnsupported      = 80
)

// DiagnosticText is what each says.
var DiagnosticText = map[int]string{
	GeneralError: "General system error", UnsupportedOperation: "Unsupported operation",
	UnsupportedVersion: "Unsupported version",
	BadParameter:       "Unsupported parameter value", MissingParameter: "Mandatory parameter not supplied",
	QuerySyntax:      "Query syntax error",
	UnsupportedIndex: "Unsupported index", UnsupportedRelation: "Unsupported relation",
	UnsupportedModifier: "Unsupported relation modifier",
	MaskingUnsupported:  "Masking character not supported", ProximityUnsupported: "Proximity not supported",
	FirstOutOfRange: "First record position out of range", UnknownSchema: "Unknown schema for retrieval",
	SortUnsupported: "Sort not supported",
}

// DiagnosticURI is what the address of a diagnostic begins with; its number follows.
const DiagnosticURI = "info:srw/diagnostic/1/"
