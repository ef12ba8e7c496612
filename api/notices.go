package api

import (
	"context"
	"html/template"
	"net/http"

	"github.com/labstack/echo/v5"

	"tamiz/app"
)

func (h Handlers) ToldOf(ctx context.Context, r ToldOfRequestObject) (ToldOfResponseObject, error) {
	v, err := h.app.Alerts.Told(ctx, r.Review)
	if err != nil {
		return nil, err
	}
	return ToldOf200JSONResponse(*v), nil
}

func (h Handlers) TellTo(ctx context.Context, r TellToRequestObject) (TellToResponseObject, error) {
	return TellTo204Response{}, h.app.Alerts.TellTo(ctx, r.Review, r.Body.Address)
}

func (h Handlers) TellNoMore(ctx context.Context, r TellNoMoreRequestObject) (TellNoMoreResponseObject, error) {
	return TellNoMore204Response{}, h.app.Alerts.Stop(ctx, r.Review, r.Address)
}

func (h Handlers) OpenFeed(ctx context.Context, r OpenFeedRequestObject) (OpenFeedResponseObject, error) {
	return OpenFeed204Response{}, h.app.Alerts.OpenFeed(ctx, r.Review)
}

func (h Handlers) CloseFeed(ctx context.Context, r CloseFeedRequestObject) (CloseFeedResponseObject, error) {
	return CloseFeed204Response{}, h.app.Alerts.CloseFeed(ctx, r.Review)
}

var stopPage = template.Must(template.New("").Parse(`<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>Mail about a search</title>
<style>body{font:16px/1.5 sans-serif;max-width:560px;margin:60px auto;padding:0 16px;color:#241d2c}button{font:inherit;padding:6px 16px}</style></head>
<body><main><h1>{{.Name}}</h1>{{if .Done}}<p role="status">You get no more mail about this search.</p>{{else}}<form method="post"><p>Get no more mail about this search?</p><button>No more mail</button></form>{{end}}</main></body></html>`))

// forOthers answers what stands in mails and feed readers: pages without the front end.
func forOthers(e *echo.Echo, a *app.App) {
	show := func(c *echo.Context, name string, done bool) error {
		c.Response().Header().Set("Content-Type", "text/html; charset=utf-8")
		// Without it a browser does not say where the form that is sent comes from, and it is refused as another's.
		c.Response().Header().Set("Referrer-Policy", "same-origin")
		return stopPage.Execute(c.Response(), struct {
			Name string
			Done bool
		}{name, done})
	}
	// A link in a mail is followed by programs too: it stops nothing before somebody presses the button.
	e.GET("/stop/:secret", func(c *echo.Context) error {
		name, err := a.Alerts.MailOf(c.Request().Context(), c.Param("secret"))
		if err != nil {
			return err
		}
		return show(c, name, false)
	})
	e.POST("/stop/:secret", func(c *echo.Context) error {
		ctx := c.Request().Context()
		name, err := a.Alerts.MailOf(ctx, c.Param("secret"))
		if err == nil {
			err = a.Alerts.StopBy(ctx, c.Param("secret"))
		}
		if err != nil {
			return err
		}
		return show(c, name, true)
	})
	for _, format := range []string{"atom", "rss"} {
		e.GET("/feeds/:secret/"+format, func(c *echo.Context) error {
			body, kind, err := a.Alerts.Feed(c.Request().Context(), c.Param("secret"), format)
			if err != nil {
				return err
			}
			return c.Blob(http.StatusOK, kind, []byte(body))
		})
	}
}
