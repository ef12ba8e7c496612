package written

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"

	"tamiz/app/figures"
	"tamiz/app/runs"
	"tamiz/app/sources"
)

type source = sources.Source

// figure writes a number of works with its interval.
func figure(f runs.OverlapFigure) string {
	if f.Low == f.High {
		return num(f.Works)
	}
	return fmt.Sprintf("about %s (%s to %s)", num(f.Works), num(f.Low), num(f.High))
}

// byCount returns the keys of a tally, those with most first.
func byCount(of map[string]int) []string {
	return slices.SortedFunc(
		maps.Keys(of),
		func(a, b string) int { return cmp.Or(cmp.Compare(of[b], of[a]), cmp.Compare(a, b)) },
	)
}

// before says of a step before which a version was kept by itself what it was.
var before = map[string]string{
	"plan":             "before a rescue plan was taken",
	"prune":            "before terms were pruned",
	"pruneSample":      "before terms were pruned, by the sample only",
	"takeQuery":        "before a query was taken over",
	"vocabulary":       "before the vocabulary changed",
	"removeVocabulary": "before the vocabulary was taken out",
	"removeBlock":      "before a block was taken out",
	"goBack":           "before going back to an earlier version",
}

func named(v figures.Version) string {
	switch {
	case v.Name != "":
		return v.Name
	case v.ID == 0:
		return "as it is now"
	case before[v.Why] != "":
		return before[v.Why]
	}
	return fmt.Sprintf("revision %d", v.Revision)
}

func when(v figures.Version) string {
	if v.ID == 0 {
		return ""
	}
	return day(v.At)
}

func (f facts) flow() Flow {
	out := Flow{Sources: []FlowSource{}, Exact: f.everywhere.Exact}
	asked := int64(0)
	for _, e := range f.everywhere.Sources {
		if e.Run != nil && e.Run.Records != nil {
			out.Sources = append(out.Sources, FlowSource{Place: e.Name, Records: *e.Run.Records})
			asked += *e.Run.Records
		}
	}
	for _, r := range f.runs {
		if r.Kind == "hand" && r.Records != nil {
			out.Sources = append(out.Sources, FlowSource{Place: r.Place, Records: *r.Records, Hand: true})
			out.ByHand += *r.Records
		}
	}
	out.Found = asked + out.ByHand
	among := asked
	for _, h := range f.everywhere.ByHand {
		among += int64(h.Fetched)
	}
	if t := f.everywhere.Together; t != nil && f.everywhere.Among == among {
		removed := max(0, among-int64(t.Works))
		left := out.Found - removed
		out.Removed, out.Left = &removed, &left
	}
	return out
}

// listed writes several as a sentence does.
func listed(all []string) string {
	if len(all) < 2 {
		return strings.Join(all, "")
	}
	return strings.Join(all[:len(all)-1], ", ") + " and " + all[len(all)-1]
}

// methods says the search in some 150 words, as a paper does.
func (f facts) methods(now time.Time) string {
	var said []string
	say := func(format string, args ...any) { said = append(said, fmt.Sprintf(format, args...)) }
	var concepts, kept []string
	terms, headings := 0, 0
	for _, b := range f.doc.Blocks {
		name := b.Concept
		if name == "" {
			name = "concept " + b.Name
		}
		if !b.Searched {
			kept = append(kept, name)
			continue
		}
		concepts = append(concepts, name)
		for _, t := range b.Terms {
			if !t.On {
				continue
			}
			if t.Kind == "heading" {
				headings++
			} else {
				terms++
			}
		}
	}
	if len(concepts) == 0 {
		return "There is no strategy yet."
	}
	var places []string
	var last time.Time
	for _, e := range f.everywhere.Sources {
		if e.Run != nil && e.Run.Records != nil {
			places = append(places, fmt.Sprintf("%s (%s records)", e.Name, num(*e.Run.Records)))
			if e.Run.At.After(last) {
				last = e.Run.At
			}
		}
	}
	if len(places) > 0 {
		say("We searched %s, last on %s.", listed(places), day(last))
	} else {
		say("The search was developed but, by %s, not yet run.", day(now))
	}
	say(
		"The strategy combines %s: %s free-text terms and %s subject headings.",
		listed(concepts),
		num(terms),
		num(headings),
	)
	if len(kept) > 0 {
		say(
			"%s %s not searched for.",
			strings.ToUpper(kept[0][:1])+listed(kept)[1:],
			map[bool]string{true: "was", false: "were"}[len(kept) == 1],
		)
	}
	if n := len(f.review.Samples); n > 0 {
		records := 0
		for _, s := range f.review.Samples {
			records += s.Records
		}
		say(
			"Terms were harvested from %s: %s records, whose words, headings and keywords were counted against each other.",
			plural(n, "sample", "samples"),
			num(records),
		)
	}
	if n := len(f.doc.Limits); n > 0 {
		var kinds []string
		for _, l := range f.doc.Limits {
			kinds = append(kinds, l.Kind)
		}
		say("Results were limited by %s.", listed(kinds))
	} else {
		say("No limits were set.")
	}
	if r := f.coverage.Recall; r != nil {
		of := "key studies"
		if f.away() > 0 {
			of += " that " + f.counted + " holds"
		}
		say(
			"Tested with %d %s, it catches %d (%s; 95 %% interval %s to %s).",
			r.Of,
			of,
			r.Caught,
			percent(r.Share),
			percent(r.Low),
			percent(r.High),
		)
	}
	if t := f.everywhere.Together; t != nil && f.everywhere.Among == f.everywhere.Records {
		say("Records of the same work were told by DOI, or by title, first author and year; %s works are left.", figure(*t))
	}
	return strings.Join(said, " ")
}

func plural(n int, one, more string) string {
	if n == 1 {
		return "1 " + one
	}
	return num(n) + " " + more
}

// plain says it for a reader who knows nothing of searching.
func (f facts) plain() string {
	var places []string
	for _, e := range f.everywhere.Sources {
		if e.Run != nil && e.Run.Records != nil {
			places = append(places, e.Name)
		}
	}
	if len(places) == 0 {
		return "A search for papers on this question is being prepared. It has not been run yet."
	}
	text := fmt.Sprintf(
		"We looked for papers on this question in %s. A paper was found when its title, summary or subject labels spoke "+
			"of each part of the question. That brought %s papers to read",
		listed(places),
		num(f.everywhere.Records),
	)
	if t := f.everywhere.Together; t != nil && f.everywhere.Among == f.everywhere.Records {
		text += fmt.Sprintf(", %s when each is counted once", figure(*t))
	}
	text += "."
	if r := f.coverage.Recall; r != nil {
		text += fmt.Sprintf(
			" To see how good the search is, we took %d papers that we knew beforehand: it found %d of them.",
			r.Of,
			r.Caught,
		)
	}
	return text
}
