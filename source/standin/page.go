package standin

import (
	"fmt"
	"html/template"
	"net/http"
	"strings"

	"tamiz/core/dialect"
	"tamiz/core/query"
)

// mostTitles are shown on a page.
const mostTitles = 20

// page is where a person types a query in the source's own syntax: the dialect is tried against the server that
// speaks it.
var page = template.Must(template.New("page").Parse(`<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>{{.Title}}</title>
<style>
body{font:15px/1.5 system-ui,sans-serif;max-width:60rem;margin:2rem auto;padding:0 1rem;color:#222}
textarea{width:100%;height:9rem;font:14px/1.5 ui-monospace,monospace;padding:.5rem;box-sizing:border-box}
button{font:inherit;padding:.3rem 1rem;margin-top:.4rem}
.wrong{color:#8a2a1a}.small{color:#555;font-size:13px}
</style></head><body>
<h1>{{.Title}}</h1>
<p class="small">{{.About}} An invented source: nothing here is real.</p>
<form method="post"><label for="q">{{if .ByLine}}One line after the other; the last is what is found{{else}}Query{{end}}</label>
<textarea id="q" name="q" spellcheck="false">{{.Typed}}</textarea><br><button>Search</button></form>
{{if .Asked}}{{range .Wrong}}<p class="wrong" role="alert">{{.}}</p>{{end}}
{{if .Searched}}<p role="status"><b>{{.Count}}</b> records</p>
{{if .ByLine}}<ol>{{range .Lines}}<li><code>{{.Typed}}</code> {{.Count}}</li>{{end}}</ol>{{end}}
<ol>{{range .Titles}}<li>{{.}}</li>{{end}}</ol>{{end}}{{end}}
</body></html>`))

type typedLine struct {
	Typed string
	Count int
}

type typedPage struct {
	Title, About, Typed string
	ByLine, Asked       bool
	Searched            bool
	Wrong               []string
	Count               int
	Lines               []typedLine
	Titles              []string
}

// servePage answers what was typed. What the source refuses is not searched: it says what is wrong, and where.
func (c *Collection) servePage(w http.ResponseWriter, r *http.Request) {
	d, ok := dialect.Named(c.Name)
	if !ok {
		http.NotFound(w, r)
		return
	}
	r.Body = http.MaxBytesReader(w, r.Body, maxBody)
	if err := r.ParseForm(); err != nil {
		http.Error(w, err.Error(), http.StatusBadRequest)
		return
	}
	p := typedPage{Title: c.Title, About: d.About, Typed: r.Form.Get("q"), ByLine: d.Typed == dialect.AsLines}
	p.Asked = strings.TrimSpace(p.Typed) != ""
	if p.Asked {
		c.typed(d, &p)
	}
	w.Header().Set("Content-Type", "text/html; charset=utf-8")
	_ = page.Execute(w, p) // who no longer listens cannot be told
}

// harmless are findings with which a source searches all the same: it takes the query as it says.
var harmless = map[string]bool{dialect.Mixed: true, dialect.ExactTruncated: true}

func (c *Collection) typed(d *dialect.Dialect, p *typedPage) {
	read, err := d.Read(p.Typed, c.terms)
	if err != nil {
		p.Wrong = append(p.Wrong, err.Error())
		return
	}
	refused := false
	for _, f := range read.Findings {
		p.Wrong = append(p.Wrong, fmt.Sprintf("Character %d: %s.", f.From+1, f.Why))
		refused = refused || !harmless[f.Code]
	}
	q := read.Expr()
	if refused || q == nil {
		return
	}
	p.Searched = true
	found := q.Match(c.index)
	p.Count = int(found.GetCardinality())
	for it := found.Iterator(); it.HasNext() && len(p.Titles) < mostTitles; {
		p.Titles = append(p.Titles, c.records[it.Next()].Title)
	}
	for _, l := range read.Lines {
		p.Lines = append(p.Lines, typedLine{read.Of(l.From, l.To), c.count(l.Expr)})
	}
}

func (c *Collection) count(q query.Expr) int {
	if q == nil {
		return 0
	}
	return int(q.Match(c.index).GetCardinality())
}
