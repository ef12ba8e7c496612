package alerts

import (
	"context"
	"fmt"
	"strings"
	"time"

	"github.com/gorilla/feeds"

	"tamiz/app/problems"
)

// Feed writes what was told of a review for programs that read it: as atom (RFC 4287) or rss (2.0). Whoever knows
// the secret may read it; withdrawn, it is there no more.
func (a *Service) Feed(ctx context.Context, secret, format string) (body, kind string, err error) {
	f, err := a.rows.FeedAt(ctx, secret)
	if err != nil {
		return "", "", problems.Gone(err, "feed")
	}
	review, err := a.reviewRows.Head(ctx, f.Review)
	if err != nil {
		return "", "", problems.Gone(err, "feed")
	}
	list, err := a.noticesOf(ctx, f.Review)
	if err != nil {
		return "", "", err
	}
	base := ""
	if b := a.base.Load(); b != nil {
		base = *b
	}
	link := fmt.Sprintf("%s/reviews/%d/logbook?part=again", base, f.Review)
	out := &feeds.Feed{
		Title:       "New in the search: " + clean(review.Name),
		Link:        &feeds.Link{Href: link},
		Description: "What the search finds that it did not find before",
		Id:          "urn:tamiz:feed:" + secret,
		Created:     f.At,
		Updated:     f.At,
	}
	for _, n := range list {
		if n.New == 0 {
			continue
		}
		title := fmt.Sprintf("%d new", n.New)
		if n.Likely > 0 {
			title += fmt.Sprintf(", %d likely", n.Likely)
		}
		var says strings.Builder
		for _, t := range n.Titles {
			fmt.Fprintf(&says, "%s. %s (%s)\n", t.Title, t.Byline, t.From)
		}
		out.Add(
			&feeds.Item{
				Title:       title,
				Link:        &feeds.Link{Href: link},
				Id:          fmt.Sprintf("urn:tamiz:notice:%d", n.ID),
				Description: clean(says.String()),
				Created:     n.At,
				Updated:     n.At,
			},
		)
		if n.At.After(out.Updated) {
			out.Updated = n.At
		}
	}
	out.Updated = out.Updated.Truncate(time.Second)
	if format == "rss" {
		body, err = out.ToRss()
		return body, "application/rss+xml; charset=utf-8", err
	}
	body, err = out.ToAtom()
	return body, "application/atom+xml; charset=utf-8", err
}

// clean takes out what XML cannot hold.
func clean(s string) string {
	return strings.Map(func(r rune) rune {
		if r == '\t' || r == '\n' || r >= ' ' && r != 0xFFFE && r != 0xFFFF {
			return r
		}
		return -1
	}, s)
}
