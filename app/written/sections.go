package written

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"tamiz/app/logbook"

	"tamiz/app/figures"
	"tamiz/app/rounds"
	"tamiz/app/runs"
	"tamiz/core/review"
	"tamiz/exchange/document"
)

// sections writes the record, section by section. One that has nothing to say says what would fill it.
func (f facts) sections() []document.Section {
	return append(f.openSection(), f.question(), f.sourcesSection(), f.vocabularySection(), f.strategy(),
		f.linesSection(), f.limits(), f.results(), f.sameWorks(), f.byWay("byHand", "Searched by hand",
			"No search by hand was written down.", logbook.BySearch),
		f.found(), f.tested(), f.development(), f.versionsSection(), f.other(),
		f.byWay("registers", "Registers of studies", "None was searched, or it was not written down.", logbook.ByRegister),
		f.byWay("browsed", "Browsed", "No site, catalogue or table of contents was browsed, or it was not written down.",
			logbook.ByBrowsing),
		f.byWay("citations", "References and citing works", "None were followed, or it was not written down.",
			logbook.ByCiting),
		f.byWay("contacts", "People who were asked", "Nobody was asked, or it was not written down.", logbook.ByAsking),
		f.filters(),
		f.byWay("earlier", "Earlier searches that were used again",
			"No earlier search was used again, or it was not written down.", logbook.ByEarlier),
		f.updates(),
		f.checked(),
		f.left())
}

func (f facts) question() document.Section {
	s := document.Section{ID: "question", Title: "Question and concepts", Empty: "The question was not written down yet."}
	if q := strings.TrimSpace(f.review.Document.Question); q != "" {
		s.Add(document.Text("%s", q))
	}
	var rows [][]string
	for _, b := range f.doc.Blocks {
		how := "searched"
		switch {
		case !b.Searched:
			how = "kept out"
			if b.Reason != "" {
				how += ": " + b.Reason
			}
		case b.Negated:
			how = "taken away"
		}
		rows = append(rows, []string{b.Name, b.Concept, b.Part, how})
	}
	if len(rows) > 0 {
		s.Add(document.Rows("", []string{"Block", "Concept", "Part", "How"}, rows))
	}
	return s
}

func (f facts) sourcesSection() document.Section {
	s := document.Section{ID: "sources", Title: "Sources", Empty: "No source was searched."}
	var rows [][]string
	for _, e := range f.everywhere.Sources {
		if e.Run == nil {
			continue
		}
		i := slices.IndexFunc(f.sources, func(x source) bool { return x.ID == e.Source })
		about := f.sources[i].Described.About
		rows = append(rows, []string{e.Name, f.sources[i].Address, about, f.sources[i].Vocabulary, day(e.Run.At)})
	}
	for _, r := range f.runs {
		if r.Kind == "hand" && r.Way == logbook.BySearch {
			rows = append(rows, []string{r.Place, "", "searched by hand", "", day(r.At)})
		}
	}
	if len(rows) > 0 {
		s.Add(document.Rows("", []string{"Source", "Address", "What it says of itself", "Vocabulary", "Last searched"}, rows))
	}
	return s
}

func (f facts) vocabularySection() document.Section {
	s := document.Section{ID: "vocabularies", Title: "Vocabularies", Empty: "Headings were not gone by a vocabulary."}
	for _, v := range f.vocabularies {
		if f.doc.Vocabulary != nil && v.ID == *f.doc.Vocabulary {
			s.Add(document.Text("Headings are those of %s, as it was brought in on %s: %s headings, in %s.", v.Name,
				day(v.Made), num(v.Headings), strings.Join(v.Languages, ", ")))
		}
	}
	return s
}

// strategy is the lines as they are meant, with what each finds.
func (f facts) strategy() document.Section {
	s := document.Section{ID: "strategy", Title: "Strategy as it is meant", Empty: "There is no strategy yet."}
	var rows [][]string
	for i, b := range f.doc.Blocks {
		if !b.Searched {
			continue
		}
		for j, t := range b.Terms {
			if !t.On {
				continue
			}
			row := f.bench.Blocks[i].Terms[j]
			rows = append(rows, []string{b.Name, review.LineText(t.Term), numOf(row.Records), num(row.Keys), t.Note})
		}
		rows = append(rows, []string{b.Name, "together: " + b.Concept, numOf(f.bench.Blocks[i].Records),
			num(figures.Marked(f.bench.Blocks[i].Caught)), ""})
	}
	if len(rows) == 0 {
		return s
	}
	rows = append(rows, []string{"", "all blocks and limits", numOf(f.bench.Records),
		num(figures.Marked(f.bench.Caught)), ""})
	over := "the sample"
	if f.bench.Sample != nil {
		over = f.bench.Sample.Name
	}
	s.Add(document.Rows("", []string{"Block", "Line", ">Records of " + over, ">Key studies", "Note"}, rows))
	return s
}

func (f facts) limits() document.Section {
	s := document.Section{ID: "limits", Title: "Limits"}
	if len(f.doc.Limits) == 0 {
		s.Add(document.Text("No limit was set."))
		return s
	}
	var rows [][]string
	for i, l := range f.doc.Limits {
		row := f.bench.Limits[i]
		rows = append(rows, []string{l.Kind, review.SaidLimit(l), numOf(row.TakenAway), num(row.Dropped)})
	}
	s.Add(document.Rows("", []string{"Limit", "To", ">Records of the sample it takes away", ">Key studies outside it"},
		rows))
	return s
}

func (f facts) results() document.Section {
	s := document.Section{ID: "results", Title: "Results by source", Empty: "The whole strategy was not run yet."}
	var rows [][]string
	for _, e := range f.everywhere.Sources {
		if e.Run == nil {
			continue
		}
		found := numOf(e.Run.Records)
		if e.Run.Problem != nil {
			found = e.Run.Problem.Title
		}
		only := ""
		if e.Only != nil {
			only = figure(*e.Only)
		}
		rows = append(rows, []string{e.Name, day(e.Run.At), found, only, heldCaught(e)})
	}
	if len(rows) == 0 {
		return s
	}
	s.Add(document.Rows("", []string{"Source", "Run on", ">Records", ">Brought by no other", ">Key studies caught"}, rows))
	return s
}

// heldCaught says how many key studies what was run at a source catches, of those that it holds.
func heldCaught(e runs.SourceRun) string {
	out := fmt.Sprintf("%d of %d held", e.Caught, e.Held)
	if e.Held == 0 {
		out = "none held"
	}
	if e.Open > 0 {
		out += fmt.Sprintf(", %d undecided", e.Open)
	}
	return out
}

func (f facts) sameWorks() document.Section {
	s := document.Section{ID: "sameWorks", Title: "Records of the same work",
		Empty: "Records of several sources were not put together yet."}
	if f.everywhere.Together == nil {
		return s
	}
	how := "counted over all records"
	if !f.everywhere.Exact {
		how = "estimated from records drawn at random from each answer"
	}
	s.Add(document.Text("Two records are one work where their DOIs are the same, or their titles, first authors and "+
		"years (one year apart at most). Of %s records, %s works are left when each is counted once, %s.",
		num(f.everywhere.Among), figure(*f.everywhere.Together), how))
	if more := f.everywhere.Records - f.everywhere.Among; more > 0 {
		s.Add(document.Note("%s more records are of sources of whose answers nothing was fetched: which of them are the "+
			"same works is not known.", num(more)))
	}
	return s
}

// byWay is what was written down by hand of one way of looking, and the rounds that went that way.
func (f facts) byWay(id, title, empty, way string) document.Section {
	s := document.Section{ID: id, Title: title, Empty: empty}
	var rows [][]string
	for _, r := range f.runs {
		if (r.Kind == "hand" || r.Kind == "round") && r.Way == way {
			rows = append(rows, []string{r.Place, day(r.At), numOf(r.Records), r.Query, r.Note})
		}
	}
	if len(rows) > 0 {
		s.Add(document.Rows("", []string{"Where", "When", ">Records", "What was looked for", "Note"}, rows))
	}
	return s
}

func (f facts) tested() document.Section {
	s := document.Section{ID: "tested", Title: "How it was tested", Empty: "There is no key study to test it by."}
	if f.coverage.Recall == nil {
		return s
	}
	s.Add(document.Text("%s", tested(f.coverage, f.away(), f.counted)))
	if f.coverage.Test != nil && f.coverage.Build != nil {
		s.Add(document.Text("They were split at random: words were taken from %d alone, of which %d are caught; of the "+
			"other %d, which no word was taken from, %d are (%s to %s).",
			f.coverage.Build.Of, f.coverage.Build.Caught, f.coverage.Test.Of, f.coverage.Test.Caught,
			percent(f.coverage.Test.Low), percent(f.coverage.Test.High)))
	}
	var rows [][]string
	for i, c := range f.coverage.Studies {
		if c.Caught || c.NotHere || i >= len(f.review.KeyStudies) {
			continue
		}
		why := strings.Join(c.HeldBackBy, ", ")
		k := f.review.KeyStudies[i]
		rows = append(rows, []string{k.Title, k.Byline, why})
	}
	if len(rows) > 0 {
		s.Add(document.Rows("Key studies that are missed", []string{"Title", "", "Held back by"}, rows))
	}
	rows = nil
	for i, c := range f.coverage.Studies {
		if c.NotHere && i < len(f.review.KeyStudies) {
			rows = append(rows, []string{f.review.KeyStudies[i].Title, f.review.KeyStudies[i].Byline})
		}
	}
	if len(rows) > 0 {
		s.Add(document.Rows("Key studies that "+f.counted+" does not hold", []string{"Title", ""}, rows))
	}
	return s
}

// found is what the ways of looking beside the strategy brought, and where key studies came from.
func (f facts) found() document.Section {
	s := document.Section{ID: "found", Title: "How key studies were found", Empty: "There is no key study."}
	var rows [][]string
	for _, o := range f.said.Origins {
		row := []string{cameBy(o.Way), num(o.Keys), fmt.Sprintf("%d (%s to %s)", o.Caught, percent(o.Low),
			percent(o.High)), num(o.Away)}
		if o.Keys == 0 {
			row[2] = ""
		}
		rows = append(rows, row)
	}
	if len(rows) > 0 {
		held := "Key studies"
		if f.counted != "" {
			held += " that " + f.counted + " holds"
		}
		s.Add(document.Rows("", []string{"They came by", ">" + held, ">Caught, 95 % interval", ">Not held"}, rows))
	}
	if f.said.Draft {
		s.Add(document.Note("All key studies come from the draft search itself: what it catches of them flatters it."))
	}
	rows = nil
	for _, r := range f.said.Rounds {
		rows = append(rows, []string{num(r.Number), wayName(r.Way) + ": " + r.Name, num(r.All), num(r.Known), num(r.New),
			num(r.Judged), num(r.Belongs), num(r.Keys), num(r.Missed)})
	}
	if len(rows) > 0 {
		s.Add(document.Rows("Rounds of looking beside the strategy", []string{">Round", "Way", ">Brought", ">Known before",
			">New", ">Judged", ">Belong", ">Taken as key studies", ">Missed by the strategy"}, rows))
	}
	if l := f.said.Left; l != nil && !l.Few && l.Open > 0 {
		s.Add(document.Text("Of the %s works that rounds brought newly, %s were not judged. Of %s that were read at "+
			"random %s belong, so that %.0f (95 %% interval %.0f to %.0f) are likely to be left among them.",
			num(l.Works), num(l.Open), num(l.Read), num(l.Belong), l.Total, l.Low, l.High))
	}
	if c := f.said.Captures; c != nil {
		few := ""
		if c.Few {
			few = " So few are in both that the figure says little."
		}
		s.Add(document.Text("The search by words finds %d of the works that belong, citations lead to %d, both to %d. "+
			"Were the two ways independent, there would be about %.0f in all (95 %% interval %.0f to %.0f; Chapman 1951, "+
			"Sadinle 2009). They are not quite: there may be more.%s",
			c.Words, c.Citations, c.Both, c.Total, c.Low, c.High, few))
	}
	return s
}

func cameBy(way string) string {
	if name := map[string]string{"file": "a file", "look-up": "a look-up", "judged": "judging what the strategy finds",
		"new": "the search that ran again", "round": "a round", "copied": "another review"}[way]; name != "" {
		return name
	}
	return "not written down"
}

func wayName(way string) string {
	return map[string]string{rounds.Backward: "References", rounds.Forward: "Citing works",
		rounds.Both: "References and citing works", rounds.Author: "Works of people", rounds.Journal: "A journal",
		rounds.Cited: "The most cited", rounds.Alike: "Works like those that belong"}[way]
}

func (f facts) development() document.Section {
	s := document.Section{ID: "development", Title: "How it was developed", Empty: "No sample was looked at."}
	var rows [][]string
	for _, x := range f.review.Samples {
		how, from := "from a file: "+x.FileName, ""
		if x.Draw != nil {
			for _, d := range f.draws {
				if d.ID == *x.Draw {
					how, from = fmt.Sprintf("%s of %s that match", string(d.How), num(d.Total)), d.From
				}
			}
		} else if x.Joined != nil {
			how = "of two others: " + x.Joined.How
		}
		rows = append(rows, []string{x.Name, from, how, num(x.Records), day(x.Drawn)})
	}
	if len(rows) > 0 {
		s.Add(document.Rows("Samples", []string{"Sample", "Source", "How it was drawn", ">Records", "When"}, rows))
	}
	origin := map[string]int{}
	for _, b := range f.doc.Blocks {
		for _, t := range b.Terms {
			switch {
			case t.From == nil:
				origin["typed by hand"]++
			default:
				origin["from "+string(t.From.Facet)+" of a sample"]++
			}
		}
	}
	s.Add(tallied("Where terms came from", origin)...)
	decided := map[string]int{}
	for _, d := range f.review.Decisions {
		said := d.State
		if d.Reason != "" {
			said += ": " + d.Reason
		}
		decided[said]++
	}
	s.Add(tallied("Candidates that were put aside", decided)...)
	return s
}

// tallied makes a table of what was counted, most first.
func tallied(title string, of map[string]int) []document.Part {
	if len(of) == 0 {
		return nil
	}
	var rows [][]string
	for _, k := range byCount(of) {
		rows = append(rows, []string{k, num(of[k])})
	}
	return []document.Part{document.Rows(title, []string{"", ">Number"}, rows)}
}

func (f facts) versionsSection() document.Section {
	s := document.Section{ID: "versions", Title: "Versions", Empty: "No version was kept."}
	if len(f.versions) == 0 || f.versions[0].ID == 0 {
		return s
	}
	var rows [][]string
	for i, v := range f.versions {
		changed := "the first that was kept"
		if i > 0 {
			changed = f.changes[i-1]
		}
		var counts []string
		for _, c := range v.Counts {
			counts = append(counts, fmt.Sprintf("%s %s (%s)", c.Name, num(c.Records), day(c.At)))
		}
		rows = append(rows, []string{named(v), when(v), numOf(v.Records), strings.Join(counts, "; "), num(v.Caught), changed})
	}
	s.Add(document.Rows("", []string{"Version", "When", ">Records of the sample", "At sources", ">Key studies",
		"What changed"}, rows))
	return s
}

func (f facts) other() document.Section {
	s := f.byWay("other", "Other ways of looking", "No journal is read by hand, and no other way was written down.",
		logbook.Otherwise)
	var rows [][]string
	for _, j := range f.said.Journals {
		if len(j.Volumes) == 0 {
			rows = append(rows, []string{j.Journal, "", "", "", "", "", j.Note})
		}
		for n, v := range j.Volumes {
			row := []string{"", volumeName(v), num(v.Works), num(v.Judged), num(v.Belongs), strings.Join(v.Who, ", "), ""}
			if n == 0 {
				row[0], row[6] = j.Journal, j.Note
			}
			if v.Last != nil {
				row[5] = strings.TrimPrefix(row[5]+", "+day(*v.Last), ", ")
			}
			rows = append(rows, row)
		}
	}
	if len(rows) > 0 {
		s.Add(document.Rows("Journals to be read by hand", []string{"Journal", "Volume", ">Works", ">Judged", ">Belong",
			"By whom, and when last", "Note"}, rows))
	}
	return s
}

// volumeName says which volume it is; the year alone where nothing else does.
func volumeName(v rounds.VolumeRead) string {
	year := "no year"
	if v.Year > 0 {
		year = strconv.Itoa(v.Year)
	}
	if v.Volume == "" {
		return year
	}
	return v.Volume + " (" + year + ")"
}

// filters are blocks that were kept in other reviews and taken over.
func (f facts) filters() document.Section {
	s := document.Section{ID: "filters", Title: "Filters of others", Empty: "No block was taken over from elsewhere."}
	var rows [][]string
	for _, b := range f.doc.Blocks {
		if b.Origin == nil {
			continue
		}
		row := []string{b.Name, b.Origin.Name, fmt.Sprint(b.Origin.Version), "", ""}
		for _, k := range f.kept {
			if k.Name == b.Origin.Name && k.Version == b.Origin.Version {
				row[3], row[4] = k.From, k.Tested
				if !sameLines(k.Block, b) {
					row[4] += " Changed since it was taken."
				}
			}
		}
		rows = append(rows, row)
	}
	if len(rows) > 0 {
		s.Add(document.Rows("", []string{"Block", "Kept as", ">Version", "From the review", "Tested"}, rows))
	}
	return s
}

// sameLines reports whether two blocks search the same.
func sameLines(a, b review.Block) bool {
	lines := func(x review.Block) (out []string) {
		for _, t := range x.Terms {
			if t.On {
				out = append(out, review.LineText(t.Term))
			}
		}
		slices.Sort(out)
		return out
	}
	return slices.Equal(lines(a), lines(b))
}

func (f facts) updates() document.Section {
	s := document.Section{ID: "updates", Title: "Run again", Empty: "It was run once at each source, or not yet."}
	times := map[string]int{}
	for _, r := range f.runs {
		if r.Kind == "asked" && r.Records != nil {
			times[r.Place]++
		}
	}
	var again []string
	for _, place := range byCount(times) {
		if times[place] > 1 {
			again = append(again, fmt.Sprintf("%s, %d times", place, times[place]))
		}
	}
	if len(again) > 0 {
		s.Add(document.Text("The whole strategy was run more than once: %s.", strings.Join(again, "; ")))
	}
	return s
}

// left is what was not searched, and why.
func (f facts) left() document.Section {
	s := document.Section{ID: "left", Title: "What was not searched",
		Empty: "Every source that is known was searched, and every concept."}
	var items []string
	for _, e := range f.everywhere.Sources {
		switch {
		case e.Off:
			items = append(items, e.Name+": switched off")
		case e.Query == "":
			items = append(items, e.Name+": the strategy cannot be asked there")
		case e.Run == nil:
			items = append(items, e.Name+": not asked yet")
		case e.Run.Records == nil:
			items = append(items, e.Name+": it did not answer")
		}
	}
	for _, b := range f.doc.Blocks {
		if !b.Searched {
			why := b.Reason
			if why == "" {
				why = "no reason is given"
			}
			items = append(items, fmt.Sprintf("Concept %s, %s: %s", b.Name, b.Concept, why))
		}
	}
	if len(items) > 0 {
		s.Add(document.Part{Items: items})
	}
	return s
}
