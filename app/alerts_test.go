package app_test

import (
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/emersion/go-smtp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/alerts"
	"tamiz/app/runs"
	"tamiz/core/bib"
	"tamiz/demo/mailbox"
)

// told is a review whose search ran again, with a mail server that refuses who it is told to refuse.
type told struct {
	*trial
	review int64
	world  *world
	box    *mailbox.Mailbox
	later  atomic.Int64 // how much later it is
	years  int          // up to which the source holds
}

func startTold(t *testing.T) *told {
	t.Helper()
	box, err := mailbox.Listen("127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { _ = box.Close() })
	post, err := alerts.NewPost(box.Address(), "tamiz@olmo.example")
	require.NoError(t, err)
	x := &told{box: box, years: 2017}
	x.trial, x.review = startWith(t, post, func() time.Time { return time.Now().Add(time.Duration(x.later.Load())) })
	x.world = standInSources(t, x.trial)
	crewsStrategy(t, x.trial, x.review)
	x.again(t)
	return x
}

// again has the source hold a year more, runs what is due, and tells of it.
func (x *told) again(t *testing.T) {
	t.Helper()
	x.years++
	x.world.hold("almagre", x.world.Almagre, func(r *bib.Record) bool { return r.Year <= x.years })
	due := time.Now().Add(-time.Minute)
	require.NoError(
		t,
		x.Runs.SetWatch(
			t.Context(),
			x.review,
			runs.Watch{On: true, Sources: []int64{x.world.ids["almagre"]}, Every: "week", Next: &due},
		),
	)
	before := len(logged(t, x.trial, x.review))
	require.NoError(t, x.Runs.RunDue(t.Context()))
	until(t, x.trial, x.review, func() bool { return len(logged(t, x.trial, x.review)) > before })
	everywhere(t, x.trial, x.review)
	require.NoError(t, x.Alerts.Tell(t.Context()))
	require.NoError(t, x.Alerts.Tell(t.Context()), "what was told is not told twice")
}

func (x *told) now(t *testing.T) *alerts.Told {
	t.Helper()
	out, err := x.Alerts.Told(t.Context(), x.review)
	require.NoError(t, err)
	return out
}

func TestWhatIsNewIsToldOnceADayByMailAndStopsByItsLink(t *testing.T) {
	x := startTold(t)
	x.Alerts.At("http://tamiz.example")
	assert.Equal(t, "address", problem(t, x.Alerts.TellTo(t.Context(), x.review, "sol at olmo")).Field)
	assert.Equal(
		t,
		"address",
		problem(t, x.Alerts.TellTo(t.Context(), x.review, "sol@olmo.example\r\nBcc: all@olmo.example")).Field,
	)
	assert.Equal(t, "review-gone", problem(t, x.Alerts.TellTo(t.Context(), 999, "sol@olmo.example")).Type)
	require.NoError(t, x.Alerts.TellTo(t.Context(), x.review, "Sol Ferren <sol@olmo.example>"))
	require.Len(t, x.now(t).Notices, 1)
	assert.Zero(t, x.now(t).Notices[0].New, "the first time nothing is new")

	x.again(t)
	require.Len(t, x.now(t).Notices, 2)
	n := x.now(t).Notices[0]
	assert.Positive(t, n.New)
	assert.NotEmpty(t, n.Titles)
	require.NoError(t, x.Alerts.Send(t.Context()))
	require.NoError(t, x.Alerts.Send(t.Context()))
	require.Len(t, x.box.Mails(), 1)
	got := x.box.Mails()[0]
	assert.Equal(t, []string{"sol@olmo.example"}, got.To)
	assert.Contains(t, got.Subject, "Heat and kidneys")
	for _, text := range []string{got.Text, got.HTML} {
		assert.Contains(t, text, "the search ran again by itself"[4:])
		assert.Contains(t, text, got.Stop)
	}
	assert.Contains(t, got.Text, n.Titles[0].Title)
	require.True(t, strings.HasPrefix(got.Stop, "http://tamiz.example/stop/"))

	// Never more than one a day: what comes meanwhile waits, and then the newest is told.
	x.again(t)
	x.again(t)
	require.NoError(t, x.Alerts.Send(t.Context()))
	require.Len(t, x.box.Mails(), 1)
	x.later.Store(int64(25 * time.Hour))
	require.NoError(t, x.Alerts.Send(t.Context()))
	require.Len(t, x.box.Mails(), 2)

	// The link stops it; what waits goes no more.
	secret := strings.TrimPrefix(got.Stop, "http://tamiz.example/stop/")
	name, err := x.Alerts.MailOf(t.Context(), secret)
	require.NoError(t, err)
	assert.Equal(t, "Heat and kidneys", name)
	require.NoError(t, x.Alerts.StopBy(t.Context(), secret))
	assert.Equal(t, "link-gone", problem(t, x.Alerts.StopBy(t.Context(), "none")).Type)
	x.again(t)
	x.later.Store(int64(60 * time.Hour))
	require.NoError(t, x.Alerts.Send(t.Context()))
	assert.Len(t, x.box.Mails(), 2)
	assert.True(t, x.now(t).Addresses[0].Stopped)

	// The same at a secret address, until it is withdrawn.
	require.NoError(t, x.Alerts.OpenFeed(t.Context(), x.review))
	feed := x.now(t).Feed
	for format, want := range map[string]string{"atom": "<feed xmlns=\"http://www.w3.org/2005/Atom\">",
		"rss": "<rss version=\"2.0\""} {
		body, kind, err := x.Alerts.Feed(t.Context(), feed, format)
		require.NoError(t, err)
		assert.Contains(t, kind, format)
		assert.Contains(t, body, want)
		assert.Contains(t, body, "New in the search: Heat and kidneys")
		assert.Contains(t, body, "urn:tamiz:notice:")
	}
	require.NoError(t, x.Alerts.OpenFeed(t.Context(), x.review))
	_, _, err = x.Alerts.Feed(t.Context(), feed, "atom")
	assert.Equal(t, "feed-gone", problem(t, err).Type, "a new address withdraws the old")
	require.NoError(t, x.Alerts.CloseFeed(t.Context(), x.review))
	assert.Empty(t, x.now(t).Feed)
}

func TestAMailServerThatWantsToSeeASenderTwiceAndAnAddressThatIsNone(t *testing.T) {
	x := startTold(t)
	x.Alerts.At("http://tamiz.example")
	for _, to := range []string{"grey@olmo.example", "gone@olmo.example"} {
		require.NoError(t, x.Alerts.TellTo(t.Context(), x.review, to))
	}
	seen := 0
	x.box.Refuse = func(to string) *smtp.SMTPError {
		switch {
		case to == "gone@olmo.example":
			return &smtp.SMTPError{Code: 550, EnhancedCode: smtp.EnhancedCode{5, 1, 1}, Message: "no such person here"}
		case to == "grey@olmo.example" && seen == 0:
			seen++
			return &smtp.SMTPError{Code: 451, EnhancedCode: smtp.EnhancedCode{4, 7, 1}, Message: "come again later"}
		}
		return nil
	}
	x.again(t)
	require.NoError(t, x.Alerts.Send(t.Context()))
	assert.Empty(t, x.box.Mails())
	gone := x.now(t).Addresses[1]
	assert.Contains(t, gone.Trouble, "no such person here", "nothing is sent there any more")
	assert.Empty(t, x.now(t).Addresses[0].Trouble)
	require.NoError(t, x.Alerts.Send(t.Context()))
	assert.Empty(t, x.box.Mails(), "not at once again")
	x.later.Store(int64(11 * time.Minute))
	require.NoError(t, x.Alerts.Send(t.Context()))
	require.Len(t, x.box.Mails(), 1)
	assert.Equal(t, []string{"grey@olmo.example"}, x.box.Mails()[0].To)
	require.NoError(t, x.Alerts.TellTo(t.Context(), x.review, "gone@olmo.example"))
	assert.Empty(t, x.now(t).Addresses[1].Trouble, "put down anew, it is tried anew")
}

// A mail server that does not answer: each address says why nothing came, and when it is tried again.
func TestAMailServerThatSaysNothingLeavesItsReasonAtEveryAddress(t *testing.T) {
	x := startTold(t)
	x.Alerts.At("http://tamiz.example")
	all := []string{"one@olmo.example", "two@olmo.example", "three@olmo.example"}
	for _, to := range all {
		require.NoError(t, x.Alerts.TellTo(t.Context(), x.review, to))
	}
	x.again(t)
	x.box.Close()
	require.NoError(t, x.Alerts.Send(t.Context()))
	for _, a := range x.now(t).Addresses {
		assert.NotEmpty(t, a.Waits, a.Address)
		assert.NotNil(t, a.Next, a.Address)
		assert.Empty(t, a.Trouble, "it is no fault of the address")
	}
}

func TestWithoutAMailServerNobodyIsPutDown(t *testing.T) {
	a, id := start(t)
	assert.Equal(t, "no-mail", problem(t, a.Alerts.TellTo(t.Context(), id, "sol@olmo.example")).Type)
}
