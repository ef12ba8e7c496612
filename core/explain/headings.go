package explain

import (
	"fmt"

	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// heading looks a heading up in the vocabulary.
func (e *explainer) heading(n *dialect.Node, q query.Heading) {
	v := e.over.Set.Thesaurus
	if v == nil {
		return
	}
	at, known := v.Find(q.Label)
	if known {
		if after := v.History(at).After; v.Retired(at) && len(after) > 0 {
			e.renamed(n, q, v.Label(after[0]), "is given to records no more")
		}
		return
	}
	if h, ok := v.Term(q.Label); ok {
		e.renamed(n, q, v.Label(h), "is no heading but an entry term")
		return
	}
	for _, old := range e.over.Earlier {
		if was, ok := old.Find(q.Label); ok {
			if now, still := old.Same(v, was); still {
				e.renamed(n, q, v.Label(now), "was renamed")
			} else {
				e.unknown(n, fmt.Sprintf("%s was a heading of an earlier edition, and is none now", e.short(n)), nil)
			}
			return
		}
	}
	var mend *string
	why := fmt.Sprintf("there is no heading “%s” in %s", q.Label, "the vocabulary")
	for _, lead := range v.Suggest(q.Label, 3) {
		if lead.Via == thesaurus.Label || lead.Via == thesaurus.EntryTerm {
			label := v.Label(lead.Heading)
			mend = e.labelled(n, q.Label, label)
			why += fmt.Sprintf("; “%s” may be meant", label)
			break
		}
	}
	e.unknown(n, why, mend)
}

func (e *explainer) unknown(n *dialect.Node, why string, mend *string) {
	records := e.found0(n)
	e.spent[n] = true
	e.find(HeadingUnknown, n, records, mend, why)
}

func (e *explainer) renamed(n *dialect.Node, q query.Heading, now, how string) {
	records := e.found0(n)
	e.spent[n] = true
	e.find(
		HeadingRenamed,
		n,
		records,
		e.labelled(n, q.Label, now),
		fmt.Sprintf("“%s” %s; the heading is “%s”", q.Label, how, now),
	)
}

// found0 returns how many records a part finds, where there are any to look at.
func (e *explainer) found0(n *dialect.Node) *int {
	m := e.match(n)
	if m == nil {
		return nil
	}
	records := int(m.GetCardinality())
	return &records
}

// labelled returns the text of a heading with another label in it.
func (e *explainer) labelled(n *dialect.Node, old, with string) *string {
	return replaced(e.r.Of(n.From, n.To), text.Label(old), with)
}
