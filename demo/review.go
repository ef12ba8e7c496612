package demo

import (
	"math/rand/v2"

	"tamiz/core/bib"
	"tamiz/core/strategy"
)

// A Concept is one idea of the demo question, with its block half built.
type Concept struct {
	Part   string
	Seeds  []string
	Reason string // why it is kept out, where it is
	Block  strategy.Block
}

// A Decision is what was decided about a candidate of the demo review.
type Decision struct{ Facet, Item, State, Reason string }

// A Drawing is a sample that the demo review was begun with.
type Drawing struct {
	Name, Source string
	Words        [][]string // of each concept; none is anything in the source
	How          string     // all, or random
	AtMost       int
	Use          string // sample or contrast, where it is looked at first
}

// A Kept is a record that someone put on the shelf: the first of a publication type in the sample.
type Kept struct {
	Type string
	Nth  int // of them, from 0
	Note string
	Tags []string
}

// A Stage is a version that was kept on the way to what the demo review is.
type Stage struct {
	Name, Note string
	Words      int  // so many free-text terms of each block, from its first; all, for 0
	Headings   bool // with the headings
	Limits     bool // with the limits
	Days       int  // that pass before the next; the search runs for the first time by itself on the day of the last
}

// Days that pass in the demo review after it ran by itself: for the first time, for the second, and once a version
// was handed over to be checked.
const (
	DaysToNextRun = 31
	DaysToCheck   = 4
	DaysToRounds  = 2
)

// Review is the demo review as it waits to be gone on with.
type Review struct {
	Name, Question, Frame string
	Concepts              []Concept
	Limits                []strategy.Limit
	Decisions             []Decision
	Samples               []Drawing
	Stages                []Stage // the last is what it is
	Shelf                 []Kept
	HandSearch            int    // so many journals of the sample, those with most records, are read by hand
	HandSearchNote        string // said of those with records that carry no headings
}

// NewReview returns the demo review.
func NewReview() Review {
	text := func(s string) strategy.Term {
		return strategy.Term{Kind: strategy.TextTerm, Text: s, Field: "text", On: true}
	}
	heading := func(s string) strategy.Term {
		return strategy.Term{Kind: strategy.HeadingTerm, Heading: s, On: true}
	}
	off := func(t strategy.Term) strategy.Term { t.On = false; return t }
	return Review{
		Name: "Heat and kidneys in farm crews",
		Stages: []Stage{
			{Name: "First draft", Note: "the words of the first talk", Words: 2, Days: 9},
			{Name: "Words of the harvest", Days: 8},
			{Name: "With headings", Note: "each looked up in Almagre Headings", Headings: true, Days: 7},
			{Name: "Limits agreed", Note: "with the team, for the protocol", Headings: true, Limits: true},
		},
		Question: "Do heat-protection programmes for outdoor farm crews (shade, water, scheduled rest, cooling gear, " +
			"acclimatisation) prevent loss of kidney function?",
		Frame: "population-intervention-outcome",
		Concepts: []Concept{
			{Part: "population", Seeds: []string{"farm workers", "field crews", "cane cutting"}, Block: strategy.Block{
				Name: "A", Concept: "Outdoor farm crews", Searched: true, Terms: []strategy.Term{
					heading("Agricultural Labor Force"), text("farmworker*"), text("farm worker*"), text("agricultural worker*"),
					text(
						"agricultural labourer*",
					), text("seasonal worker*"), heading("Seasonal Employment"), off(text("harvest*")), text("migrant worker*"),
				}}},
			{Part: "intervention", Seeds: []string{"rest breaks", "shade", "drinking water", "cooling"}, Block: strategy.Block{
				Name: "B", Concept: "Heat protection", Searched: true, Terms: []strategy.Term{
					heading("Heat Protection Programmes"), text("rest break*"),
					{Kind: strategy.NearTerm, Left: "shade", Right: "tent*", Within: 3, Field: "text", On: true},
					text(
						"hydration",
					), text("drinking water"), text("work rest schedule*"), text("heat stress prevention"), heading("Fluid Intake"),
				}}},
			{
				Part:   "outcome",
				Seeds:  []string{"kidney injury", "creatinine"},
				Reason: "abstracts often leave it unsaid",
				Block: strategy.Block{
					Name: "C", Concept: "Kidney function", Searched: false, Terms: []strategy.Term{
						heading("Kidney Function"), text("kidney*"), text("creatinine"), text("renal function"),
					}},
			},
		},
		Limits: []strategy.Limit{
			{Kind: strategy.LanguagesLimit, Values: []string{"eng", "spa"}},
			{Kind: strategy.TypesLimit, Values: []string{"Journal Article", "Trial Report", "Review", "Protocol"}},
		},
		Samples: []Drawing{
			{Name: "anything in Almagre", Source: "almagre", How: "random", AtMost: 4000, Use: "contrast"},
			{
				Name:   "rest and shade",
				Source: "surco",
				Words: [][]string{
					{"farm worker*", "farmworker*", "cane cutter*", "agricultural worker*"},
					{"shade", "rest break*", "hydration", "drinking water"},
				},
				How:    "all",
				AtMost: 5000,
			},
			{Name: "farm crews alone", Source: "almagre", Words: [][]string{roughFarm, nil}, How: "random", AtMost: 1500},
			{Name: "heat protection alone", Source: "almagre", Words: [][]string{nil, roughHeat}, How: "random", AtMost: 1500},
			{
				Name:   "farm crews, rough",
				Source: "almagre",
				Words:  [][]string{roughFarm, roughHeat},
				How:    "all",
				AtMost: 5000,
				Use:    "sample",
			},
		},
		Shelf: []Kept{
			{"Review", 0, "An earlier review: follow its references.", []string{"earlier review"}},
			{"Review", 1, "Another review: compare its studies.", []string{"earlier review"}},
			{"Protocol", 0, "A protocol: ask whether results are out.", []string{"to follow"}},
		},
		HandSearch: 3, HandSearchNote: "Some of its records carry no headings yet.",
		Decisions: []Decision{
			{"words", "heat", "dropped", "too-broad"}, {"words", "workers", "dropped", "too-broad"},
			{"words", "construction workers", "dropped", "other-concept"}, {"words", "heat stress", "parked", ""},
			{"words", "core temperature", "dropped", "other-concept"}, {"words", "harvest", "dropped", "other-meaning"},
			{
				"words",
				"sugarcane",
				"parked",
				"",
			}, {"words", "dehydration", "parked", ""}, {"words", "crop", "dropped", "says-nothing"},
			{"headings", "Heat Illness", "parked", ""}, {"headings", "Body Temperature", "dropped", "other-concept"},
		},
	}
}

// Strategy returns the strategy of the demo review.
func (r Review) Strategy() strategy.Strategy {
	s := strategy.Strategy{Tamiz: strategy.Version, Title: r.Name, Limits: r.Limits}
	for _, c := range r.Concepts {
		s.Blocks = append(s.Blocks, c.Block)
	}
	return s
}

// Rough words of the first two concepts.
var (
	roughFarm = []string{
		"farm*",
		"cane",
		"sugarcane",
		"harvest*",
		"crop*",
		"field hand*",
		"campesino*",
		"plantation*",
		"agricultural",
	}
	roughHeat = []string{"heat", "rest", "shade", "hydration", "cooling", "water"}
)

// RoughSample returns what a crude query draws: any farm word together with any word of heat or relief.
func (w *World) RoughSample() []*bib.Record {
	var out []*bib.Record
	for _, r := range w.Records {
		if Says(r, roughFarm...) && Says(r, roughHeat...) {
			out = append(out, r)
		}
	}
	return out
}

// RandomSample returns n records drawn at random.
func (w *World) RandomSample(seed uint64, n int) []*bib.Record {
	r := rand.New(rand.NewPCG(seed, 1))
	var out []*bib.Record
	for _, i := range r.Perm(len(w.Records))[:min(n, len(w.Records))] {
		out = append(out, w.Records[i])
	}
	return out
}
