package app

import (
	"context"
	"net/url"
	"strings"
	"unicode"

	"tamiz/exchange"
)

type whoKey struct{}

// mostOfName is how long a name may be, in characters.
const mostOfName = 80

// As returns a context in which all that is done is done by someone, as they call themselves: a name as it
// stands in the header Tamiz-Who, percent-encoded. It is a courtesy among people who share a review, no proof.
func As(ctx context.Context, header string) context.Context {
	name, err := url.PathUnescape(header)
	if err != nil {
		return ctx
	}
	name = strings.Join(strings.FieldsFunc(strings.ToValidUTF8(name, ""), func(r rune) bool { return unicode.IsSpace(r) || unicode.IsControl(r) }), " ")
	if name == "" {
		return ctx
	}
	return context.WithValue(ctx, whoKey{}, exchange.Cut(name, mostOfName))
}

// who returns who does it, or "".
func who(ctx context.Context) string {
	name, _ := ctx.Value(whoKey{}).(string)
	return name
}
