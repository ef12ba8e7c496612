package api

import (
	"context"
	"encoding/json"
	"errors"
	"log/slog"
	"net/http"

	"github.com/labstack/echo/v5"

	"tamiz/app/problems"
	"tamiz/store"
)

// sendProblem answers with problem+json. What is no fault of the caller is logged, and told without
// its inner workings.
func sendProblem(c *echo.Context, err error, log *slog.Logger) {
	if r, _ := echo.UnwrapResponse(c.Response()); r != nil && r.Committed {
		return
	}
	p := problemOf(c.Request().Context(), err)
	if p.Status >= 500 && !errors.Is(c.Request().Context().Err(), context.Canceled) { // a browser that gave up is no fault
		log.Error(
			"request failed",
			"method",
			c.Request().Method,
			"path",
			c.Request().URL.Path,
			"problem",
			p.Type,
			"error",
			err,
		)
	}
	body, err := json.Marshal(p)
	if err != nil {
		log.Error("problem not told", "error", err)
		return
	}
	if p.Status == http.StatusServiceUnavailable {
		c.Response().Header().Set("Retry-After", "1")
	}
	if err := c.Blob(p.Status, "application/problem+json", body); err != nil {
		log.Debug("problem not sent", "error", err)
	}
}

// problemOf says what went wrong. *Nothing was changed* is said only where that is so.
func problemOf(ctx context.Context, err error) *problems.Problem {
	var p *problems.Problem
	var h echo.HTTPStatusCoder
	switch {
	case errors.As(err, &p):
		return p
	case errors.Is(err, store.ErrMade):
		return &problems.Problem{
			Type:   "made-already",
			Status: http.StatusConflict,
			Title: "This was made when it was asked for the first time; only the answer was lost. It stands in the list, " +
				"and nothing was made twice.",
		}
	case errors.Is(err, store.ErrUnknown):
		return &problems.Problem{Type: "unknown", Status: http.StatusServiceUnavailable,
			Title: "The database went away before it said whether this was saved. It is not known; sent again under the " +
				"same Tamiz-Request it is made once."}
	case store.Busy(err) || errors.Is(context.Cause(ctx), errTooLong):
		return &problems.Problem{
			Type:   "busy",
			Status: http.StatusServiceUnavailable,
			Title:  "This waited too long for its turn and was given up. Nothing was changed; try again in a moment.",
		}
	case store.Full(err):
		return &problems.Problem{
			Type:   "disk-full",
			Status: http.StatusInsufficientStorage,
			Title:  "The disk of the database is full. Nothing was changed.",
		}
	case store.Unreachable(err):
		return &problems.Problem{
			Type:   "database-unreachable",
			Status: http.StatusServiceUnavailable,
			Title:  "The database does not answer just now. Nothing was changed; try again in a moment.",
		}
	case store.Odd(err):
		return &problems.Problem{
			Type:   "invalid",
			Status: http.StatusUnprocessableEntity,
			Title:  "A number or a text of this request is beyond what there can be. Nothing was changed.",
		}
	case store.Missing(err):
		return &problems.Problem{
			Type:   "not-found",
			Status: http.StatusNotFound,
			Title:  "What this is about is not there, or not any more. Nothing was changed.",
		}
	case errors.As(err, &h) && h.StatusCode() < 500:
		p = &problems.Problem{Type: "bad-request", Status: h.StatusCode(), Title: "This request was not understood."}
		switch p.Status {
		case http.StatusNotFound:
			p.Type, p.Title = "not-found", "There is nothing at this address."
		case http.StatusRequestEntityTooLarge:
			p.Type, p.Title = "too-large", "More was sent than is taken at once. Nothing was changed."
		}
		return p
	}
	return &problems.Problem{
		Type:   "internal",
		Status: http.StatusInternalServerError,
		Title:  "Something went wrong in Tamiz itself. What was saved before is untouched.",
	}
}
