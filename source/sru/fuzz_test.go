package sru

import (
	"strings"
	"testing"
)

// Whatever a source sends, it is read to an end or refused; what is read keeps to its positions.
func FuzzReadPage(f *testing.F) {
	f.Add(
		`<searchRetrieveResponse><numberOfRecords>2</numberOfRecords><records><record><recordData><dc><title>Shade</title></dc></recordData><recordPosition>1</recordPosition></record></records></searchRetrieveResponse>`,
	)
	f.Add(
		`<searchRetrieveResponse><numberOfRecords>1</numberOfRecords><records><record><recordData>&lt;mods&gt;&lt;titleInfo&gt;&lt;title&gt;x&lt;/title&gt;&lt;/titleInfo&gt;&lt;/mods&gt;</recordData></record></records></searchRetrieveResponse>`,
	)
	f.Add(
		`<searchRetrieveResponse><numberOfRecords>0</numberOfRecords><diagnostics><diagnostic><uri>info:srw/diagnostic/1/10</uri></diagnostic></diagnostics></searchRetrieveResponse>`,
	)
	f.Add(
		`<explainResponse><record><recordData><explain><indexInfo><index><map><name set="dc">title</name></map></index></indexInfo></explain></recordData></record></explainResponse>`,
	)
	f.Add(
		`<scanResponse><terms><term><value>shade</value><numberOfRecords>4</numberOfRecords></term></terms></scanResponse>`,
	)
	f.Add(`<!DOCTYPE html><html><p>no</html>`)
	f.Fuzz(func(t *testing.T, s string) {
		page, err := readPage(strings.NewReader(s), 1)
		if page == nil || err == nil && page.Total < 0 {
			t.Fatal("an answer without an error has a count")
		}
		for _, g := range page.Records {
			if g.Position < 1 || (g.Record == nil) == (g.Trouble == "") {
				t.Fatalf("%+v", g)
			}
		}
		if d, err := readExplain(strings.NewReader(s)); err == nil && d == nil {
			t.Fatal("no description and no error")
		}
		_, _ = readEntries(strings.NewReader(s)) // must come to an end
	})
}
