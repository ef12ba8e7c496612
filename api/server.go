package api

import (
	"context"
	"fmt"
	"io/fs"
	"log/slog"
	"mime"
	"net"
	"net/http"
	"net/url"
	"path"
	"strings"

	"github.com/google/uuid"
	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"

	"tamiz/app"
	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/store"
)

const maxBody = 16 << 20 // bytes of a request, but for files that are brought in

// NewServer returns the web application: the calls of the contract and the front end. log gets a line
// for each call that failed, and for every other at the level of debugging.
func NewServer(a *app.App, front fs.FS, log *slog.Logger) (http.Handler, error) {
	contract, err := newContract()
	if err != nil {
		return nil, fmt.Errorf("the contract: %w", err)
	}
	e := echo.NewWithConfig(
		echo.Config{Logger: log, HTTPErrorHandler: func(c *echo.Context, err error) { sendProblem(c, err, log) }},
	)
	e.Use(middleware.Recover(), logged(log), onlyFromHere, spoken, headers, bounded(), named,
		middleware.GzipWithConfig(middleware.GzipConfig{MinLength: 1400, Skipper: func(c *echo.Context) bool {
			// What is written piece by piece: the packer holds back small pieces, then tells a wrong length.
			return strings.HasSuffix(c.Request().URL.Path, "/events") || strings.HasSuffix(c.Request().URL.Path, "/export")
		}}),
		middleware.BodyLimitWithConfig(middleware.BodyLimitConfig{LimitBytes: maxBody, Skipper: func(c *echo.Context) bool {
			return takesFile(c.Request())
		}}), answeredOnce(a), withTag, contract.holds)
	RegisterHandlers(e, NewStrictHandler(Handlers{a}, nil))
	forOthers(e, a)
	e.GET("/*", frontEnd(front))
	return e, nil
}

// onlyFromHere refuses what a page of another origin, or a name that was made to point at this
// machine, asks of the program.
func onlyFromHere(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		r := c.Request()
		origin := r.Header.Get("Origin")
		if !loopback(r.Host) || origin != "" && !sameOrigin(origin, r) {
			return &problems.Problem{
				Type:   "foreign-origin",
				Status: http.StatusForbidden,
				Title:  "Tamiz answers on this machine alone, and only to its own pages.",
			}
		}
		return next(c)
	}
}

func loopback(host string) bool {
	name, _, err := net.SplitHostPort(host)
	if err != nil {
		name = strings.Trim(host, "[]")
	}
	ip := net.ParseIP(name)
	return name == "localhost" || ip != nil && ip.IsLoopback()
}

// sameOrigin reports whether a page is one of the program's own: of the same scheme, name and port.
func sameOrigin(origin string, r *http.Request) bool {
	scheme := "http"
	if r.TLS != nil {
		scheme = "https"
	}
	u, err := url.Parse(origin)
	return err == nil && u.Scheme == scheme && u.Host == r.Host
}

// spoken refuses a body that is no JSON where one is sent: a form of another page can send others without being asked.
func spoken(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		r := c.Request()
		kind, _, err := mime.ParseMediaType(r.Header.Get("Content-Type"))
		if r.ContentLength != 0 && !takesFile(r) && strings.HasPrefix(r.URL.Path, "/api/") &&
			(err != nil || kind != "application/json") {
			return &problems.Problem{
				Type:   "not-json",
				Status: http.StatusUnsupportedMediaType,
				Title:  "What is sent here is application/json. Nothing was changed.",
			}
		}
		return next(c)
	}
}

// named makes all that a call does be done by whom it names, and once under the request that it names.
func named(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		ctx, done := desk.ForRequest(c.Request().Context())
		defer done()
		if name := c.Request().Header.Get("Tamiz-Who"); name != "" {
			ctx = reviews.As(ctx, name)
		}
		for name, as := range map[string]func(context.Context, uuid.UUID) context.Context{"Tamiz-Self": reviews.AsSelf,
			"Tamiz-Request": store.AsRequest} {
			said := c.Request().Header.Get(name)
			if said == "" {
				continue
			}
			id, err := uuid.Parse(said)
			if err != nil {
				return &problems.Problem{
					Type:   "invalid",
					Status: http.StatusUnprocessableEntity,
					Field:  name,
					Title:  name + " is a UUID.",
				}
			}
			ctx = as(ctx, id)
		}
		c.SetRequest(c.Request().WithContext(ctx))
		return next(c)
	}
}

func headers(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		h := c.Response().Header()
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "no-referrer")
		// Vuetify writes its theme into a style element.
		h.Set(
			"Content-Security-Policy",
			"default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self' data:; base-uri "+
				"'none'; form-action 'self'; object-src 'none'; frame-ancestors 'none'",
		)
		if strings.HasPrefix(c.Request().URL.Path, "/api/") {
			h.Set("Cache-Control", "no-store")
		}
		return next(c)
	}
}

func logged(log *slog.Logger) echo.MiddlewareFunc {
	return middleware.RequestLoggerWithConfig(middleware.RequestLoggerConfig{
		LogStatus: true, LogMethod: true, LogURI: true, LogLatency: true, HandleError: true,
		LogValuesFunc: func(c *echo.Context, v middleware.RequestLoggerValues) error {
			level := slog.LevelDebug
			if v.Status >= 500 {
				level = slog.LevelWarn
			}
			log.LogAttrs(context.Background(), level, "request", slog.String("method", v.Method), slog.String("uri", v.URI),
				slog.Int("status", v.Status), slog.Duration("took", v.Latency))
			return nil
		},
	})
}

// frontEnd serves the files of the front end; every other address is one of its screens.
func frontEnd(files fs.FS) echo.HandlerFunc {
	return func(c *echo.Context) error {
		name := strings.TrimPrefix(path.Clean(c.Request().URL.Path), "/")
		if strings.HasPrefix(name, "api/") {
			return echo.ErrNotFound
		}
		body, err := fs.ReadFile(files, name)
		if err != nil {
			if path.Ext(name) != "" {
				return echo.ErrNotFound
			}
			if body, err = fs.ReadFile(files, "index.html"); err != nil {
				return &problems.Problem{
					Type:   "no-front-end",
					Status: http.StatusNotFound,
					Title:  "The front end was not built into this program; see make build.",
				}
			}
			name = "index.html"
		}
		if strings.HasPrefix(name, "assets/") {
			c.Response().Header().Set("Cache-Control", "public, max-age=31536000, immutable")
		} else {
			c.Response().Header().Set("Cache-Control", "no-cache")
		}
		kind := mime.TypeByExtension(path.Ext(name))
		if kind == "" {
			kind = "application/octet-stream"
		}
		return c.Blob(http.StatusOK, kind, body)
	}
}
