package document_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/exchange/document"
)

func example() document.Document {
	s := document.Section{ID: "lines", Title: "Lines"}
	s.Add(
		document.Text("Searched on *2 March*"),
		document.Part{Items: []string{"one", "two | three"}},
		document.Part{Title: "As typed", Code: "farm* AND ```\nheat"},
		document.Rows(
			"Counts",
			[]string{"Line", ">Records"},
			[][]string{{"farm* <b>", "1,204"}, {"a\nb", "3"}},
		),
		document.Note("Two could not be asked."),
	)
	return document.Document{
		Title:    "Heat & kidneys",
		Sections: []document.Section{s, {ID: "none", Title: "References", Empty: "None were followed."}},
	}
}

func TestMarkdownSaysWhatTheTextSays(t *testing.T) {
	got := string(example().Markdown())
	for _, want := range []string{"# Heat & kidneys\n", "## Lines\n", `Searched on \*2 March\*`,
		"- one\n- two \\| three\n", "````\nfarm* AND ```\nheat\n````",
		"| Line | Records |\n| --- | ---: |\n| farm\\* \\<b\\> | 1,204 |\n| a b | 3 |",
		"## References\n\nNone were followed."} {
		assert.Contains(t, got, want)
	}
}

func TestTheHTMLPageStandsByItselfAndEscapes(t *testing.T) {
	body, err := example().HTML()
	require.NoError(t, err)
	got := string(body)
	for _, want := range []string{"<title>Heat &amp; kidneys</title>", "<td>farm* &lt;b&gt;</td>",
		`<td class="right">1,204</td>`, "<li>one</li>", `<p class="empty">None were followed.</p>`,
		`<p class="note">Two could not be asked.</p>`} {
		assert.Contains(t, got, want)
	}
	assert.Equal(t, 2, strings.Count(got, "<h2>"))
	assert.NotContains(t, got, "http", "nothing from outside")
	assert.NotContains(t, got, "src=")
}
