// Package bench compares the core with others doing the same work in the same run: a pass that only
// tokenises, a scan, PostgreSQL's text search, bleve. Everything in it is tests; make bench runs them and
// prints a table.
package bench
