package logbook

// The ways of looking that are written down by hand, and of a round.
const (
	BySearch   = "search"    // in a source that cannot be asked by protocol
	ByRegister = "register"  // in a register of studies
	ByBrowsing = "browsing"  // in web sites, catalogues, tables of contents
	ByCiting   = "citations" // along references and citing works
	ByAsking   = "people"    // by asking people
	ByEarlier  = "earlier"   // in searches of earlier reviews that were used again
	Otherwise  = "other"
)

// Ways are all of them.
var Ways = []string{BySearch, ByRegister, ByBrowsing, ByCiting, ByAsking, ByEarlier, Otherwise}
