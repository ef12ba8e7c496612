package jobs

import (
	"context"
	"encoding/json"
	"log/slog"
	"sync"
	"time"

	"tamiz/app/problems"
	"tamiz/store"
)

// News is something that happened in a review, for those who are looking at it.
type News struct {
	Review int64  `json:"review"`
	Kind   string `json:"kind"` // change, import, draw, counts, holdings, sources
	Import int64  `json:"import,omitempty"`
	Step   any    `json:"step,omitempty"` // what was done, of a change
	Done   int    `json:"done,omitempty"` // of work in parts, how many are done
	Of     int    `json:"of,omitempty"`
	// Problem is why work that someone waits for came to nothing, where nothing that can be read says so.
	Problem *problems.Problem `json:"problem,omitempty"`
}

// String returns the news as they are passed on.
func (n News) String() string {
	b, _ := json.Marshal(n)
	return string(b)
}

// A hub passes on what any process says happened to those who listen in this one.
type hub struct {
	mu        sync.Mutex
	listeners map[chan News]int64
}

func newHub() *hub { return &hub{listeners: map[chan News]int64{}} }

// Listen returns the news of a review until the context ends. Who does not keep up misses some.
func (a *Service) Listen(ctx context.Context, review int64) <-chan News {
	c := make(chan News, 64)
	a.hub.mu.Lock()
	a.hub.listeners[c] = review
	a.hub.mu.Unlock()
	context.AfterFunc(ctx, func() {
		a.hub.mu.Lock()
		defer a.hub.mu.Unlock()
		delete(a.hub.listeners, c)
		close(c)
	})
	return c
}

// Tell says what happened; that it cannot be told is no reason for what happened to fail.
func (a *Service) Tell(ctx context.Context, review int64, n News) {
	n.Review = review
	if err := a.store.Notify(ctx, n.String()); err != nil {
		a.log.Warn("news not told", "error", err)
	}
}

func (n *hub) pass(message News) {
	n.mu.Lock()
	defer n.mu.Unlock()
	for c, review := range n.listeners {
		if message.Review == review || message.Review == 0 {
			select {
			case c <- message:
			default:
			}
		}
	}
}

// listen hears what the database passes on, and comes back when the connection breaks. After a break
// everyone is told to look again, since something may have been missed.
func (n *hub) listen(ctx context.Context, s *store.Store, log *slog.Logger) {
	for ctx.Err() == nil {
		err := n.hear(ctx, s)
		if ctx.Err() != nil {
			return
		}
		log.Warn("news interrupted", "error", err)
		select {
		case <-ctx.Done():
		case <-time.After(time.Second):
		}
	}
}

func (n *hub) hear(ctx context.Context, s *store.Store) error {
	return s.Listen(ctx, func() { n.pass(News{Kind: "change"}) }, func(payload string) {
		var message News
		if json.Unmarshal([]byte(payload), &message) == nil {
			n.pass(message)
		}
	})
}
