package api

import (
	"bytes"
	"context"
	_ "embed"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"net/http"
	"strings"
	"unicode/utf8"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/getkin/kin-openapi/openapi3filter"
	"github.com/getkin/kin-openapi/routers"
	"github.com/getkin/kin-openapi/routers/gorillamux"
	"github.com/labstack/echo/v5"

	"tamiz/app/problems"
)

//go:embed openapi.yaml
var contractText []byte

// contract holds calls against the contract: what it does not know is refused before anyone acts on it.
type contract struct{ router routers.Router }

func newContract() (*contract, error) {
	doc, err := openapi3.NewLoader().LoadFromData(contractText)
	if err != nil {
		return nil, err
	}
	// Of an object that says nothing else, what is listed is all there is.
	for _, s := range doc.Components.Schemas {
		closed(s, map[*openapi3.Schema]bool{})
	}
	router, err := gorillamux.NewRouter(doc)
	return &contract{router}, err
}

func closed(ref *openapi3.SchemaRef, seen map[*openapi3.Schema]bool) {
	if ref == nil || ref.Value == nil || seen[ref.Value] {
		return
	}
	s := ref.Value
	seen[s] = true
	if len(s.AllOf) > 0 {
		// What is put together of several is one object, which holds what any of them lists.
		all := openapi3.Schemas{}
		for _, part := range s.AllOf {
			maps.Copy(all, part.Value.Properties)
			s.Required = append(s.Required, part.Value.Required...)
		}
		maps.Copy(all, s.Properties)
		s.AllOf, s.Properties, s.Type = nil, all, &openapi3.Types{"object"}
	}
	if s.Type.Is("object") && len(s.Properties) > 0 && s.AdditionalProperties.Schema == nil &&
		s.AdditionalProperties.Has == nil {
		no := false
		s.AdditionalProperties.Has = &no
	}
	closed(s.Items, seen)
	for _, p := range s.Properties {
		closed(p, seen)
	}
}

// holds refuses a call that the contract does not allow.
func (c *contract) holds(next echo.HandlerFunc) echo.HandlerFunc {
	return func(e *echo.Context) error {
		r := e.Request()
		if p := brokenText(r); p != nil {
			return p
		}
		route, params, err := c.router.FindRoute(r)
		if err != nil {
			return next(e) // a screen, or an address that is none: the router of the calls tells
		}
		file := takesFile(r)
		if r.Body != nil && !file {
			body, err := io.ReadAll(r.Body)
			if err != nil {
				return bodyProblem(err)
			}
			if !utf8.Valid(body) {
				return &problems.Problem{
					Type:   "bad-request",
					Status: http.StatusBadRequest,
					Title:  "What was sent is no text in UTF-8. Nothing was changed.",
				}
			}
			body = withoutNUL(body)
			if len(body) > 0 && !json.Valid(body) {
				return &problems.Problem{
					Type:   "bad-request",
					Status: http.StatusBadRequest,
					Title:  "What was sent is no JSON that can be read. Nothing was changed.",
				}
			}
			r.Body, r.ContentLength = io.NopCloser(bytes.NewReader(body)), int64(len(body))
		}
		in := &openapi3filter.RequestValidationInput{
			Request:    r,
			PathParams: params,
			Route:      route,
			Options: &openapi3filter.Options{
				ExcludeRequestBody: file, SkipSettingDefaults: true, AuthenticationFunc: openapi3filter.NoopAuthenticationFunc},
		}
		if err := openapi3filter.ValidateRequest(context.WithoutCancel(r.Context()), in); err != nil {
			return refused(err)
		}
		return next(e)
	}
}

// takesFile reports whether the body of a call is a file, which is read as it comes.
func takesFile(r *http.Request) bool {
	return r.Method == http.MethodPost && strings.HasSuffix(r.URL.Path, "/imports")
}

// brokenText refuses text in an address that no database can hold.
func brokenText(r *http.Request) error {
	bad := func(name, s string) error {
		if utf8.ValidString(s) && !strings.ContainsRune(s, 0) {
			return nil
		}
		return &problems.Problem{
			Type:   "invalid",
			Status: http.StatusUnprocessableEntity,
			Field:  name,
			Title:  "This holds characters that are no text.",
		}
	}
	if err := bad("", r.URL.Path); err != nil {
		return err
	}
	for name, values := range r.URL.Query() {
		for _, s := range append(values, name) {
			if err := bad(strings.ToValidUTF8(name, ""), s); err != nil {
				return err
			}
		}
	}
	return nil
}

// withoutNUL takes the one character out of JSON that is text and yet cannot be kept.
func withoutNUL(body []byte) []byte {
	const escaped = `\u0000`
	if !bytes.Contains(body, []byte(escaped)) {
		return body
	}
	out := body[:0:0]
	for len(body) > 0 {
		switch {
		case bytes.HasPrefix(body, []byte(escaped)):
			body = body[len(escaped):]
		case body[0] == '\\' && len(body) > 1:
			out, body = append(out, body[:2]...), body[2:]
		default:
			out, body = append(out, body[0]), body[1:]
		}
	}
	return out
}

// refused says in plain words what of a call the contract does not allow.
func refused(err error) *problems.Problem {
	p := &problems.Problem{
		Type:   "invalid",
		Status: http.StatusUnprocessableEntity,
		Title:  "This request was not understood.",
	}
	var request *openapi3filter.RequestError
	if errors.As(err, &request) && request.Parameter != nil {
		p.Field = request.Parameter.Name
		if request.Parameter.In == "path" {
			p.Type, p.Status = "bad-request", http.StatusBadRequest
		}
		if errors.Is(err, openapi3filter.ErrInvalidRequired) {
			p.Title = fmt.Sprintf("%s is missing.", p.Field)
			return p
		}
	}
	var schema *openapi3.SchemaError
	if !errors.As(err, &schema) {
		if p.Field != "" {
			p.Title = fmt.Sprintf("%s is not of the kind that is wanted.", p.Field)
		}
		return p
	}
	if path := schema.JSONPointer(); len(path) > 0 {
		p.Field = strings.Join(path, ".")
	}
	for inner := schema; schema.SchemaField == "oneOf" && errors.As(schema.Origin, &inner); schema = inner {
		// Of several kinds it says which it is: what is wrong is wrong with that.
	}
	p.Title = wrong(schema)
	return p
}

func wrong(e *openapi3.SchemaError) string {
	s := e.Schema
	switch e.SchemaField {
	case "enum":
		var all []string
		for _, v := range s.Enum {
			all = append(all, fmt.Sprint(v))
		}
		return "This is none of " + strings.Join(all, ", ") + "."
	case "type":
		if s.Type != nil {
			return fmt.Sprintf("This is to be of the kind %s.", strings.Join(*s.Type, " or "))
		}
	case "required":
		return "Something that is needed is missing."
	case "properties", "additionalProperties":
		return "This says something that is not known here."
	case "maxLength":
		if s.MaxLength != nil {
			return fmt.Sprintf("This has at most %d characters.", *s.MaxLength)
		}
	case "minLength":
		return fmt.Sprintf("This has at least %d characters.", s.MinLength)
	case "minimum", "maximum":
		return "This number is too small or too large."
	case "maxItems":
		if s.MaxItems != nil {
			return fmt.Sprintf("There are at most %d of these.", *s.MaxItems)
		}
	case "nullable":
		return "This is to be said, or left out."
	}
	return "This is not of the kind that is wanted."
}
