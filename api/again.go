package api

import (
	"context"
	"errors"
	"net/http"
	"sync"
	"time"

	"github.com/labstack/echo/v5"

	"tamiz/app"
	"tamiz/store"
)

// answeredOnce answers a request that made something, and is sent again under its name because the answer was lost,
// as it was answered before. While it is still being done, the second waits for the first.
func answeredOnce(a *app.App) echo.MiddlewareFunc {
	var under sync.Map // names of requests that are being done
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			r := c.Request()
			name := r.Header.Get("Tamiz-Request")
			if name == "" || r.Method != http.MethodPost {
				return next(c)
			}
			ended := make(chan struct{})
			for {
				first, is := under.LoadOrStore(name, ended)
				if !is {
					break
				}
				select {
				case <-first.(chan struct{}):
				case <-r.Context().Done():
					return store.ErrUnknown // the first may still be done
				}
			}
			defer close(ended)
			defer under.Delete(name)
			switch before, err := a.AnswerOf(r.Context()); {
			case err == nil:
				return c.Blob(before.Status, before.Type, before.Body)
			case !errors.Is(err, store.ErrNone):
				return err
			}
			sent := c.Response()
			held := &held{ResponseWriter: sent, made: true}
			c.SetResponse(held)
			err := next(c)
			c.SetResponse(sent)
			if err != nil || !held.holds {
				return err
			}
			// Who asked may be gone by now: the answer is kept for when they ask again.
			ctx, done := context.WithTimeout(context.WithoutCancel(r.Context()), 5*time.Second)
			defer done()
			keep := a.KeepAnswer(
				ctx,
				store.Made{Status: held.status, Type: held.Header().Get("Content-Type"), Body: held.body.Bytes()},
			)
			sent.WriteHeader(held.status)
			_, err = sent.Write(held.body.Bytes())
			return errors.Join(keep, err)
		}
	}
}
