package store

import "context"

// An Author is who makes a change: a name, as they call themselves, and what their browser calls itself (a UUID), by
// which everybody takes back their own. Both may be empty. It is a courtesy among people who share a review, no proof.
type Author struct{ Name, Self string }

type authorKey struct{}

// By returns a context in which all that is done is done by an author.
func By(ctx context.Context, a Author) context.Context { return context.WithValue(ctx, authorKey{}, a) }

// AuthorOf returns who does what is done in a context.
func AuthorOf(ctx context.Context) Author {
	a, _ := ctx.Value(authorKey{}).(Author)
	return a
}
