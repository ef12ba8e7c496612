package api

import (
	"bytes"
	"crypto/sha256"
	"encoding/base64"
	"net/http"
	"slices"
	"strings"

	"github.com/labstack/echo/v5"
)

// withTag gives the figures of a look a tag (ETag, RFC 9110 §8.8.3): who has them already, as after coming back to
// a screen, is sent nothing but that they still hold. They are worked out all the same, mostly from what is kept:
// what they rest on besides the look, such as key studies and decisions, may have changed. The tag is weak, since
// an answer may be packed or not.
func withTag(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		r := c.Request()
		if r.Method != http.MethodGet || !r.URL.Query().Has("look") {
			return next(c)
		}
		sent := c.Response()
		held := &held{ResponseWriter: sent}
		c.SetResponse(held)
		err := next(c)
		c.SetResponse(sent)
		if !held.holds {
			return err
		}
		if err != nil {
			return err // nothing was sent yet: the answer is the error
		}
		sum := sha256.Sum256(held.body.Bytes())
		tag := `W/"` + base64.RawURLEncoding.EncodeToString(sum[:18]) + `"`
		sent.Header().Set("ETag", tag)
		sent.Header().Set("Cache-Control", "private, no-cache")
		if knows(r.Header.Get("If-None-Match"), tag) {
			sent.Header().Del("Content-Type")
			sent.WriteHeader(http.StatusNotModified)
			return nil
		}
		sent.WriteHeader(http.StatusOK)
		_, err = sent.Write(held.body.Bytes())
		return err
	}
}

// knows reports whether one of the tags that a browser names is the tag.
func knows(named, tag string) bool {
	return slices.ContainsFunc(strings.Split(named, ","), func(n string) bool { return strings.TrimSpace(n) == tag })
}

// held holds an answer in JSON back until all of it is there; any other goes through.
type held struct {
	http.ResponseWriter
	body   bytes.Buffer
	holds  bool
	made   bool // not only what was read, but what was made is held
	status int
}

// WriteHeader implements http.ResponseWriter.
func (h *held) WriteHeader(status int) {
	h.status = status
	h.holds = (status == http.StatusOK || h.made && (status == http.StatusCreated || status == http.StatusAccepted)) &&
		strings.HasPrefix(h.Header().Get("Content-Type"), "application/json")
	if !h.holds {
		h.ResponseWriter.WriteHeader(status)
	}
}

// Write implements http.ResponseWriter.
func (h *held) Write(b []byte) (int, error) {
	if h.holds {
		return h.body.Write(b)
	}
	return h.ResponseWriter.Write(b)
}

// Unwrap lets deadlines be set on what is below.
func (h *held) Unwrap() http.ResponseWriter { return h.ResponseWriter }
