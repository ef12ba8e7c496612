package demo

import "slices"

// A TrueConcept is something that records of the world are truly about, whatever words they use for it: known
// only because the world is made up. Two seed words say where a search for it begins.
type TrueConcept struct {
	Name  string
	Seeds [2]string
	kinds []string // of the entries of the vocabulary that stand for it
}

// A Topic is a question over two concepts or more, which a record has to be about all of.
type Topic struct {
	Name     string
	Concepts []TrueConcept
}

// Topics are the demo question and two more, for which it is known which records answer them.
var Topics = []Topic{
	{"heat protection of farm crews", []TrueConcept{
		{
			"farm-crews",
			[2]string{"farm workers", "cane cutters"},
			[]string{"pop farm", "pop cane", "pop hands", "pop campo", "pop orchard"},
		},
		{"heat-protection", [2]string{"rest breaks", "hydration"}, []string{"measure cool", "measure gear", "measure adapt"}},
	}},
	{"sleep of nurses and shift workers", []TrueConcept{
		{"shift-staff", [2]string{"nurses", "shift workers"}, []string{"pop nurse", "pop shift"}},
		{"sleep-loss", [2]string{"poor sleep", "insomnia"}, []string{"problem sleep"}},
	}},
	{"counselling for low mood", []TrueConcept{
		{"low-mood", [2]string{"depression", "anxiety"}, []string{"problem mood"}},
		{"counselling", [2]string{"mindfulness", "telephone counselling"}, []string{"measure talk"}},
	}},
}

// keyConcepts is what every key study of the demo question is about.
var keyConcepts = []string{"farm-crews", "heat-protection"}

var conceptsOf = func() map[*entry][]string {
	out := map[*entry][]string{}
	for _, t := range Topics {
		for _, c := range t.Concepts {
			for _, kind := range c.kinds {
				if len(entries[kind]) == 0 {
					panic("demo: truth: no " + kind)
				}
				for _, e := range entries[kind] {
					out[e] = append(out[e], c.Name)
				}
			}
		}
	}
	return out
}()

// about returns the concepts that a record is truly about: its people, its problem, and what is done about
// it; not what it compares them with or mentions beside.
func (w *writer) about() (out []string) {
	for _, e := range []*entry{w.pop, w.problem, w.measure} {
		for _, c := range conceptsOf[e] {
			if !slices.Contains(out, c) {
				out = append(out, c)
			}
		}
	}
	return out
}

// Written returns the words and phrases by which records of the world write of the concept.
func (c TrueConcept) Written() (out []string) {
	for _, kind := range c.kinds {
		for _, e := range entries[kind] {
			for _, w := range e.written {
				if !slices.Contains(out, w) {
					out = append(out, w)
				}
			}
		}
	}
	return out
}
