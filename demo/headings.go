package demo

import (
	_ "embed"
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"strings"

	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

//go:embed data/headings.txt
var headingsText string

//go:embed data/surco.txt
var surcoText string

// qualifiers are what headings of Almagre may carry behind them.
var qualifiers = []string{"prevention", "causes", "methods", "statistics", "therapy"}

const (
	almagreAddress = "https://almagre.example/headings/"
	surcoAddress   = "https://surco.example/terms/"
)

// tree makes the concepts of a vocabulary, one below the other.
type tree struct {
	address  string
	concepts []thesaurus.Concept
	place    map[string]int
	stands   map[string]string // of another vocabulary → of this one
}

// put adds a heading below others, or a further place of one that is there, and returns its address.
func (t *tree) put(label string, broader ...string) string {
	i, known := t.place[label]
	if !known {
		i = len(t.concepts)
		t.place[label] = i
		t.concepts = append(
			t.concepts,
			thesaurus.Concept{ID: fmt.Sprintf("%s%d", t.address, i+1), Labels: []thesaurus.Text{english(label)}},
		)
	}
	t.concepts[i].Broader = append(t.concepts[i].Broader, broader...)
	return t.concepts[i].ID
}

func (t *tree) entryTerms(label string, terms ...string) {
	c := &t.concepts[t.place[label]]
	for _, term := range terms {
		if term = strings.TrimSpace(term); term != "" {
			c.EntryTerms = append(c.EntryTerms, english(term))
		}
	}
}

func english(s string) thesaurus.Text { return thesaurus.Text{Value: s, Language: "en"} }

// readTree reads a vocabulary that is written as an indented list.
func readTree(list, address string) *tree {
	t := &tree{address: address, place: map[string]int{}, stands: map[string]string{}}
	var path []string // addresses from the top down
	for _, line := range strings.Split(list, "\n") {
		indented := strings.TrimRight(line, " ")
		if indented == "" || indented[0] == '#' {
			continue
		}
		depth := (len(indented) - len(strings.TrimLeft(indented, " "))) / 2
		parts := append(strings.Split(indented, "|"), make([]string, 6)...)
		for i := range parts {
			parts[i] = strings.TrimSpace(parts[i])
		}
		id := t.put(parts[0], path[:depth][max(0, depth-1):]...)
		t.entryTerms(parts[0], strings.Split(parts[1], ";")...)
		c := &t.concepts[t.place[parts[0]]]
		if parts[2] != "" {
			c.ScopeNotes = append(c.ScopeNotes, english(parts[2]))
		}
		if parts[3] != "" {
			c.HistoryNotes = append(c.HistoryNotes, english(parts[3]))
		}
		if label, terms, also := strings.Cut(parts[5], ":"); parts[5] != "" {
			c.Labels = append(c.Labels, thesaurus.Text{Value: strings.TrimSpace(label), Language: "es"})
			for _, term := range strings.Split(terms, ";") {
				if also && strings.TrimSpace(term) != "" {
					c.EntryTerms = append(c.EntryTerms, thesaurus.Text{Value: strings.TrimSpace(term), Language: "es"})
				}
			}
		}
		if parts[4] != "" {
			t.stands[parts[4]] = parts[0]
		}
		path = append(path[:depth], id)
	}
	return t
}

// Headings returns the vocabulary of the invented source Almagre.
func Headings() []thesaurus.Concept {
	t := readTree(headingsText, almagreAddress)
	regions := t.put("Regions of the Body", t.concepts[t.place["Body and Its Harm"]].ID)
	for i, part := range ailments.rows {
		region := t.put(
			[]string{"Limbs", "Head and Neck", "Skin and Surface", "Heart and Vessels", "Breathing", "Trunk",
				"Frame and Nerves"}[min(6, i*7/len(ailments.rows))],
			regions,
		)
		of := t.put(part, region)
		for j, aspect := range ailments.columns {
			e := ailments.entries[i][j]
			label := e.heading
			id := t.put(label, of)
			t.entryTerms(label, e.written[0])
			if aspect == "Injuries" || aspect == "Infections" || aspect == "Tumours" {
				t.put(label+", Early", id)
				t.put(label+", Late", id)
			}
		}
	}
	agents := t.put("Agents", t.concepts[t.place["Help and Prevention"]].ID)
	for _, a := range remedies {
		t.put(a.heading, t.put(a.class, agents))
	}
	plants := t.concepts[t.place["Crops"]].ID
	for _, crop := range farming.rows {
		t.put(crop+" Plants", plants)
		t.put(crop+", Dietary", t.put("Foods"))
	}
	t.allow()
	for i, q := range qualifiers {
		t.concepts = append(
			t.concepts,
			thesaurus.Concept{ID: qualifierAddress(i), Labels: []thesaurus.Text{english(q)}, Qualifier: true},
		)
	}
	return t.concepts
}

func qualifierAddress(i int) string { return fmt.Sprintf("%squalifiers/%d", almagreAddress, i+1) }

// allow says which qualifiers may be put behind which headings of Almagre: all of them behind what harms and what
// helps, no therapy behind people, and behind the rest methods and statistics alone.
func (t *tree) allow() {
	ofRoot := map[string][]string{
		"People":              {"prevention", "causes", "methods", "statistics"},
		"Body and Its Harm":   qualifiers,
		"Help and Prevention": qualifiers,
	}
	above := map[string][]string{}
	for _, c := range t.concepts {
		above[c.ID] = c.Broader
	}
	roots := map[string][]string{}
	for label, allowed := range ofRoot {
		roots[t.concepts[t.place[label]].ID] = allowed
	}
	for k := range t.concepts {
		c := &t.concepts[k]
		allowed := []string{"methods", "statistics"}
		for at := c.ID; at != ""; {
			if of, ok := roots[at]; ok {
				allowed = of
			}
			if len(above[at]) == 0 {
				break
			}
			at = above[at][0]
		}
		for i, q := range qualifiers {
			if slices.Contains(allowed, q) {
				c.Related = append(c.Related, qualifierAddress(i))
			}
		}
	}
}

// SurcoTerms returns the vocabulary of the invented source Surco: other words, another shape.
func SurcoTerms() []thesaurus.Concept { return surcoTree().concepts }

func surcoTree() *tree {
	t := readTree(surcoText, surcoAddress)
	crops := t.put("Crops by name")
	for i, crop := range farming.rows {
		of := t.put(crop, crops)
		for j, task := range farming.columns {
			e := farming.entries[i][j]
			label := crop + ": " + strings.ToLower(task)
			id := t.put(label, of)
			t.entryTerms(label, e.written[0])
			t.stands[e.heading] = label
			if task == "Harvest" || task == "Planting" {
				t.put(label+" season", id)
			}
		}
	}
	// What means the same in Almagre's vocabulary is said, where it is there.
	almagre := map[string]string{}
	for _, c := range Headings() {
		almagre[text.Label(c.Labels[0].Value)] = c.ID
	}
	for _, theirs := range slices.Sorted(maps.Keys(t.stands)) {
		ours := t.stands[theirs]
		if id, ok := almagre[text.Label(theirs)]; ok {
			c := &t.concepts[t.place[ours]]
			c.Exact = append(c.Exact, id)
		}
	}
	return t
}

// A remedy is an invented drug.
type remedy struct {
	*entry
	class string
}

var remedies = newRemedies()

// newRemedies coins drugs, the same in every world, each of a class with its own ending.
func newRemedies() []remedy {
	r := rand.New(rand.NewPCG(12, 34))
	var out []remedy
	seen := map[string]bool{}
	for _, class := range []string{"oril", "avane", "idol", "umex", "ethan", "opryl", "aquin", "emone", "olast", "irate"} {
		for range 14 {
			name := ""
			for name == "" || seen[name] {
				name = pick(r, []string{"br", "cl", "d", "f", "gl", "k", "l", "m", "n", "p", "pr", "r", "s", "t", "tr", "v", "z"}) +
					pick(
						r,
						[]string{"a", "e", "i", "o", "u"},
					) + pick(r, []string{"b", "d", "l", "m", "n", "r", "rt", "lv", "nd", "x"}) + class
			}
			seen[name] = true
			out = append(
				out,
				remedy{&entry{heading: capital(name), written: []string{name}, weights: []int{1}}, capital(class[1:]) + " Agents"},
			)
		}
	}
	return out
}
