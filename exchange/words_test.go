package exchange_test

import (
	"compress/gzip"
	"encoding/json"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"net"
	"os"
	"strconv"
	"strings"
	"syscall"
	"testing"

	"github.com/stretchr/testify/assert"

	"tamiz/exchange"
)

func TestWhatLibrariesSayIsSaidInOurWords(t *testing.T) {
	var into struct {
		On bool     `json:"on"`
		N  int      `json:"n"`
		L  []string `json:"l"`
	}
	parse := func(s string) error { return json.Unmarshal([]byte(s), &into) }
	_, number := strconv.ParseInt("many", 10, 64)
	_, missing := os.Open("/nowhere/at/all")
	_, packed := gzip.NewReader(strings.NewReader("no gzip at all"))
	var x struct{}
	for _, c := range []struct {
		err  error
		want string
	}{
		{parse(`{"on": 7}`), "on is to be true or false, and is a number"},
		{parse(`{"n": "x"}`), "n is to be a whole number, and is text"},
		{parse(`{"l": {}}`), "l is to be a list, and is an object"},
		{parse(`{`), "it ends too soon"},
		{parse(`{x`), "this is no JSON from character 2 on"},
		{xml.Unmarshal([]byte("<a><b></a>"), &x), "line 1 is no XML"},
		{fmt.Errorf("--from: %w", number), `--from: "many" is no number that can be taken`},
		{missing, "/nowhere/at/all: there is no such file"},
		{io.EOF, "it ends too soon"},
		{fmt.Errorf("the strategy: %w", io.ErrUnexpectedEOF), "the strategy: it ends too soon"},
		{packed, "what is packed is damaged"},
		{&net.DNSError{Err: "no such host", Name: "a.example", Server: "10.0.0.3:53"},
			"no server by the name a.example is known here"},
		{&net.OpError{Op: "dial", Err: syscall.ECONNREFUSED}, "nothing answers at this address"},
		{errors.New("ris: line 3: a tag of its own"), "ris: line 3: a tag of its own"},
	} {
		assert.Equal(t, c.want, exchange.InWords(c.err))
	}
	assert.Empty(t, exchange.InWords(nil))
}
