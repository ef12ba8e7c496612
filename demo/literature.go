package demo

import (
	_ "embed"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"

	"tamiz/core/bib"
	"tamiz/core/thesaurus"
)

//go:embed data/tongues.txt
var tonguesText string

// The sizes of the three invented sources in the demo.
const (
	AlmagreSize = 24_000
	SurcoSize   = 9_000
	VilanoSize  = 16_000
)

// A Literature is the whole invented world: three sources that hold some of the same works, and the papers
// known to belong to the demo question.
type Literature struct {
	Almagre, Surco, Vilano []*bib.Record
	Keys                   []*bib.Record // those in Almagre first; none has an accession number
	About                  [][]string    // of each record of Almagre, the concepts of Topics that it is truly about
}

// NewLiterature makes the world in which Almagre holds scale records, and the others in proportion.
func NewLiterature(seed uint64, scale int) *Literature {
	l := &Literature{}
	var keys []*bib.Record
	var topic []*bib.Record                                                          // of Almagre, on the question
	_ = EachAbout(seed, scale, func(r *bib.Record, key bool, about []string) error { // visit does not fail
		l.Almagre = append(l.Almagre, r)
		l.About = append(l.About, about)
		switch {
		case key:
			keys = append(keys, r)
		case OnTopic(r):
			topic = append(topic, r)
		}
		return nil
	})
	slices.SortFunc(keys, func(a, b *bib.Record) int { return strings.Compare(a.LocalID, b.LocalID) })
	g := newGenerator(seed, 0x5c0)
	others := g.keyStudies(elsewhere)
	for i, k := range others {
		k.DOI = fmt.Sprintf("10.99999/els.%03d", i+1)
	}
	surco := surcoTree()
	l.Surco = g.source(
		max(2, scale*SurcoSize/AlmagreSize),
		"SUR",
		topic,
		[]*bib.Record{others[0], others[2]},
		surcoFields,
		func(r *bib.Record, w *writer) {
			r.Headings = surco.carried(r.Headings)
			if w != nil {
				w.inOtherTongue(r)
			}
		},
	)
	// Vilano holds some of the key studies of Almagre too, those among them that the strategy loses.
	known := []*bib.Record{others[1], others[2]}
	for i, k := range keys {
		if i < 4 || i%3 == 2 {
			known = append(known, k)
		}
	}
	var about []string // of each record of Vilano, its field
	l.Vilano = g.source(
		max(2, scale*VilanoSize/AlmagreSize),
		"VIL",
		topic,
		known,
		vilanoFields,
		func(r *bib.Record, w *writer) {
			r.Headings = nil
			if w == nil || w.field.topic {
				about = append(about, topicField)
			} else {
				about = append(about, w.field.name)
			}
		},
	)
	var held, wellKnown bib.Known
	for i, k := range slices.Concat(keys, others) {
		wellKnown.Add(k, i)
	}
	for i, r := range l.Vilano {
		held.Add(r, i)
	}
	// Citing has chance of its own, so that it changes nothing else in the world.
	newGenerator(seed, 0xc17e).cite(l.Vilano, about, held.Without(slices.Concat(keys, topic)), &wellKnown)
	for _, k := range append(keys, others...) {
		known := *k
		known.LocalID, known.Accession = "", ""
		known.Extra, known.References, known.TimesCited = nil, nil, nil
		l.Keys = append(l.Keys, &known)
	}
	for _, k := range keys {
		k.LocalID = ""
	}
	return l
}

// OnTopic reports whether a record is about people on the land and heat or what is done about it.
func OnTopic(r *bib.Record) bool {
	text := strings.ToLower(" " + r.Title + " " + r.Abstract)
	holds := func(s string) bool { return strings.Contains(text, s) }
	return slices.ContainsFunc(
		[]string{" farm", "cane", "field hand", "campesino", "plantation", "agricultural", "seasonal worker"},
		holds,
	) &&
		slices.ContainsFunc([]string{" heat", " rest ", "shade", "hydration", "cooling"}, holds)
}

var (
	bodyFields, landFields = farFields(fields)
	// Surco is about land, labour and food; Vilano about everything alike; Almagre about health.
	almagreFields = append(append([]field{}, fields...), withRemedies(bodyFields)...)
	surcoFields   = slices.Concat(fields[:5], fields[9:10], landFields)
	vilanoFields  = slices.Concat(fields, bodyFields, landFields)
)

func withRemedies(of []field) []field {
	out := slices.Clone(of)
	for i := range out {
		out[i].measures = append(
			[]*entry{remedies[i*2%len(remedies)].entry, remedies[(i*2+1)%len(remedies)].entry},
			out[i].measures...)
	}
	return out
}

// source makes the records of a source that is not Almagre. Of those on the topic about a third are
// Almagre's too: with the same DOI, or with the same title alone.
func (g *generator) source(
	n int,
	prefix string,
	topic, keys []*bib.Record,
	of []field,
	finish func(*bib.Record, *writer),
) []*bib.Record {
	out := make([]*bib.Record, 0, n)
	g.told = map[uint64]bool{}
	places, next := g.Perm(n)[:min(n, len(keys))], g.Perm(len(topic))
	for i := range n {
		var r *bib.Record
		var w *writer
		if k := slices.Index(places, i); k >= 0 {
			known := *keys[k]
			r = &known
		} else {
			r, w = g.other(of)
			if len(next) > 0 && OnTopic(r) && g.IntN(3) == 0 {
				copied := *topic[next[0]]
				next = next[1:]
				g.first(&copied)
				copied.Headings = slices.Clone(copied.Headings)
				r, w = &copied, nil
				if g.IntN(2) == 0 {
					r.DOI = ""
				}
			} else {
				r.DOI = fmt.Sprintf("10.99999/%s.%06d", strings.ToLower(prefix), i+1)
			}
		}
		r.Accession = fmt.Sprintf("%s%06d", prefix, i+1)
		r.ID, r.LocalID = r.Accession, ""
		finish(r, w)
		out = append(out, r)
	}
	return out
}

// carried returns assignments in the words of another vocabulary; what has no counterpart there is gone.
func (t *tree) carried(of []bib.Assignment) []bib.Assignment {
	var out []bib.Assignment
	for _, a := range of {
		label, ok := t.stands[a.Label]
		if ok && !slices.ContainsFunc(out, func(has bib.Assignment) bool { return has.Label == label }) {
			out = append(out, bib.Assignment{Label: label})
		}
	}
	return out
}

// tongues are sentences of other languages and what an entry is called in them.
var tongues = readTongues()

type tongue struct {
	sentences map[string][]string
	words     map[string][]string // by heading
}

func readTongues() map[string]*tongue {
	out := map[string]*tongue{
		"spa": {map[string][]string{}, map[string][]string{}},
		"por": {map[string][]string{}, map[string][]string{}},
	}
	language, section := "", ""
	lines(tonguesText, func(line string) {
		if strings.HasPrefix(line, "[") {
			language, section, _ = strings.Cut(strings.Trim(line, "[]"), " ")
			return
		}
		if language == "words" {
			parts := strings.Split(line, " | ")
			out["spa"].words[parts[0]] = strings.Split(parts[1], ";")
			out["por"].words[parts[0]] = strings.Split(parts[2], ";")
			return
		}
		out[language].sentences[section] = append(out[language].sentences[section], line)
	})
	return out
}

// inOtherTongue writes the abstract of some records anew in Spanish or Portuguese, where all that they are
// about has a name in it; the title stays English.
func (w *writer) inOtherTongue(r *bib.Record) {
	if w.IntN(3) > 0 {
		return
	}
	language := pick(w.Rand, []string{"spa", "spa", "por"})
	t := tongues[language]
	called := map[*entry]string{}
	for _, e := range []*entry{w.pop, w.problem, w.measure, w.outcome} {
		of := t.words[e.heading]
		if len(of) == 0 {
			return
		}
		called[e] = pick(w.Rand, of)
	}
	before := w.used
	w.used, w.onlyUsed = called, true
	var out []string
	for _, part := range []string{"background", "aim", "methods", "results", "conclusion"} {
		for range 1 + w.IntN(2) {
			s := w.written(pick(w.Rand, t.sentences[part]))
			if !slices.Contains(out, s) {
				out = append(out, s)
			}
		}
	}
	w.used, w.onlyUsed = before, false
	r.Abstract, r.Languages = strings.Join(out, " "), []string{language}
}

// Vocabularies of the three sources; Vilano has none.
func Vocabularies() (almagre, surco []thesaurus.Concept) { return Headings(), SurcoTerms() }

func newGenerator(seed, stream uint64) *generator {
	// People, places and journals are the same in all sources of a world.
	return &generator{
		Rand:  rand.New(rand.NewPCG(seed, stream)),
		names: newNames(rand.New(rand.NewPCG(seed, 0x7a6d))),
		told:  map[uint64]bool{},
	}
}
