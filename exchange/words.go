package exchange

import (
	"archive/zip"
	"compress/flate"
	"compress/gzip"
	"context"
	"crypto/tls"
	"crypto/x509"
	"encoding/csv"
	"encoding/json"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"net"
	"os"
	"strconv"
	"strings"
	"syscall"
)

// InWords returns what an error says in words for people: what libraries say in theirs is put into ours, and no
// address of a machine behind the one that was asked is told.
func InWords(err error) string {
	if err == nil {
		return ""
	}
	if words := network(err); words != "" {
		return words
	}
	text := err.Error()
	var path *fs.PathError
	if errors.As(err, &path) {
		before, _, _ := strings.Cut(text, path.Error())
		return strings.TrimSuffix(before, path.Path+": ") + library(path)
	}
	for inner := range chain(err) {
		if words := library(inner); words != "" {
			return strings.Replace(text, inner.Error(), words, 1)
		}
	}
	return text
}

// chain goes through an error and all that it wraps, the outermost first.
func chain(err error) func(yield func(error) bool) {
	return func(yield func(error) bool) {
		var walk func(error) bool
		walk = func(err error) bool {
			if err == nil {
				return true
			}
			if !yield(err) {
				return false
			}
			switch x := err.(type) {
			case interface{ Unwrap() error }:
				return walk(x.Unwrap())
			case interface{ Unwrap() []error }:
				for _, e := range x.Unwrap() {
					if !walk(e) {
						return false
					}
				}
			}
			return true
		}
		walk(err)
	}
}

// network says why another machine could not be asked; "" where that is not what went wrong.
func network(err error) string {
	var name *net.DNSError
	var certificate *tls.CertificateVerificationError
	var authority x509.UnknownAuthorityError
	var op *net.OpError
	switch {
	case errors.As(err, &name):
		return fmt.Sprintf("no server by the name %s is known here", name.Name)
	case errors.As(err, &certificate), errors.As(err, &authority):
		return "its certificate is not valid"
	case errors.Is(err, syscall.ECONNREFUSED):
		return "nothing answers at this address"
	case errors.Is(err, syscall.ECONNRESET), errors.Is(err, syscall.EPIPE):
		return "the connection broke off"
	case errors.Is(err, syscall.ENETUNREACH), errors.Is(err, syscall.EHOSTUNREACH):
		return "there is no way to this address"
	case errors.As(err, &op):
		return "the connection failed"
	}
	return ""
}

// library puts what a library says into our words; "" for what is said in ours already.
func library(err error) string {
	switch e := err.(type) {
	case *json.SyntaxError:
		if e.Error() == "unexpected end of JSON input" {
			return "it ends too soon"
		}
		return fmt.Sprintf("this is no JSON from character %d on", e.Offset)
	case *json.UnmarshalTypeError:
		where := "a value"
		if e.Field != "" {
			where = e.Field
		}
		return fmt.Sprintf("%s is to be %s, and is %s", where, kindOf(e.Type.Kind().String()), jsonKind(e.Value))
	case *xml.SyntaxError:
		return fmt.Sprintf("line %d is no XML", e.Line)
	case *strconv.NumError:
		return fmt.Sprintf("%q is no number that can be taken", e.Num)
	case *csv.ParseError:
		return fmt.Sprintf("line %d is no row of a table", e.Line)
	case flate.CorruptInputError:
		return "what is packed is damaged"
	case *fs.PathError:
		return e.Path + ": " + file(e.Err)
	case *os.SyscallError:
		return "the system refused it"
	}
	switch {
	case err == io.EOF, err == io.ErrUnexpectedEOF:
		return "it ends too soon"
	case err == gzip.ErrHeader,
		err == gzip.ErrChecksum,
		err == zip.ErrFormat,
		err == zip.ErrChecksum,
		err == zip.ErrAlgorithm:
		return "what is packed is damaged"
	case err == context.DeadlineExceeded:
		return "it took too long"
	case err == context.Canceled:
		return "it was broken off"
	}
	return ""
}

func file(err error) string {
	switch {
	case errors.Is(err, fs.ErrNotExist):
		return "there is no such file"
	case errors.Is(err, fs.ErrPermission):
		return "this may not be read or written"
	case errors.Is(err, syscall.EISDIR):
		return "this is a folder"
	case errors.Is(err, syscall.ENOSPC):
		return "the disk is full"
	}
	return "this cannot be read or written"
}

func kindOf(kind string) string {
	switch {
	case kind == "bool":
		return "true or false"
	case strings.HasPrefix(kind, "int"), strings.HasPrefix(kind, "uint"):
		return "a whole number"
	case strings.HasPrefix(kind, "float"):
		return "a number"
	case kind == "string":
		return "text"
	case kind == "slice", kind == "array":
		return "a list"
	}
	return "an object"
}

func jsonKind(value string) string {
	switch first, _, _ := strings.Cut(value, " "); first {
	case "string":
		return "text"
	case "number":
		return "a number"
	case "bool":
		return "true or false"
	case "array":
		return "a list"
	case "object":
		return "an object"
	}
	return "something else"
}
