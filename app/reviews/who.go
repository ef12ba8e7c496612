package reviews

import (
	"context"
	"net/url"
	"strings"
	"unicode"

	"github.com/google/uuid"

	"tamiz/core/review"
	"tamiz/exchange"
	"tamiz/store"
)

// As returns a context in which all that is done is done by someone, as they call themselves: a name as it
// stands in the header Tamiz-Who, percent-encoded.
func As(ctx context.Context, header string) context.Context {
	name, err := url.PathUnescape(header)
	if err != nil {
		return ctx
	}
	name = strings.Join(
		strings.FieldsFunc(
			strings.ToValidUTF8(name, ""),
			func(r rune) bool { return unicode.IsSpace(r) || unicode.IsControl(r) },
		),
		" ",
	)
	if name == "" {
		return ctx
	}
	return store.By(ctx, store.Author{Name: exchange.Cut(name, review.MostOfName), Self: self(ctx)})
}

// AsSelf returns a context in which all that is done is done by a browser, by what it calls itself: everybody takes
// back their own.
func AsSelf(ctx context.Context, id uuid.UUID) context.Context {
	return store.By(ctx, store.Author{Name: who(ctx), Self: id.String()})
}

// who returns who does it, or "".
func who(ctx context.Context) string { return store.AuthorOf(ctx).Name }

// self returns what the browser calls itself from which it is done, or "".
func self(ctx context.Context) string { return store.AuthorOf(ctx).Self }
