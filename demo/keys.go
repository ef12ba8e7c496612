package demo

import (
	"strings"

	"tamiz/core/bib"
)

// keySpec says what a key study is about, in its own words, so that what the half-built strategy
// catches of it is known.
type keySpec struct {
	title, who, problem, measure, outcome string
	headings                              []string
	language, kind                        string
	year                                  int
}

// keySpecs are the key studies. The first five, and the last two, are those the strategy loses.
var keySpecs = []keySpec{
	// Block A misses these four, each for a reason of its own; block B misses the first two as well.
	{"Cooling vests and kidney strain in field hands", "field hands", "heat strain", "cooling vests",
		"serum creatinine", []string{"Crop Harvesters/causes", "*Kidney Function"}, "eng", "Journal Article", 2018},
	{"Siesta timing and tubular markers among campesinos", "campesinos", "extreme heat", "acclimatisation",
		"biomarkers of tubular injury", []string{"Rural Life/statistics", "*Kidney Function"}, "spa", "Journal Article",
		2020},
	{"Shade, water and creatinine while cutting sugarcane", "people cutting sugarcane", "heat exposure", "rest breaks",
		"serum creatinine", []string{"*Heat Illness", "Fluid Intake/methods"}, "eng", "Journal Article", 2017},
	{"Scheduled rest for cane cutters: a stepped trial", "cane cutters", "heat stress", "rest breaks",
		"acute kidney injury", nil, "eng", "Trial Report", 2026},
	// Block B alone misses this one.
	{"Workload pacing and eGFR in farmworkers", "farmworkers", "heat strain", "workload pacing", "eGFR",
		[]string{"*Agricultural Labor Force", "Kidney Function/statistics"}, "eng", "Journal Article", 2019},
	// Caught.
	{"Rest breaks and kidney function decline in seasonal farm workers", "seasonal farm workers", "heat stress",
		"rest breaks", "kidney function decline", []string{"*Agricultural Labor Force", "Seasonal Employment/statistics"},
		"eng", "Journal Article", 2016},
	{"A cluster-randomised trial of shade tents for agricultural workers", "agricultural workers", "heat exposure",
		"shade tents", "renal function", []string{"*Agricultural Labor Force", "*Heat Protection Programmes"}, "eng",
		"Trial Report", 2021},
	{"Hydration and cross-shift change in creatinine of migrant farmworkers", "migrant farmworkers", "heat strain",
		"hydration", "cross-shift change in creatinine", []string{"*Agricultural Labor Force", "Fluid Intake/methods"},
		"eng", "Journal Article", 2015},
	{"Electrolyte solution for farm workers in extreme heat", "farm workers", "extreme heat",
		"drinking water provision with electrolyte solution", "AKI", []string{"*Agricultural Labor Force",
			"Fluid Intake/therapy"}, "eng", "Trial Report", 2022},
	{"Work–rest schedules on tomato farms", "farm labourers and agricultural workers", "heat stress",
		"work–rest schedules", "estimated glomerular filtration rate", []string{"*Agricultural Labor Force"}, "eng",
		"Journal Article", 2018},
	{"Heat stress prevention training for migrant workers", "migrant workers", "heat stress", "heat stress prevention",
		"kidney injury", []string{"Agricultural Labor Force/prevention", "*Heat Protection Programmes"}, "eng",
		"Journal Article", 2019},
	{"Drinking water at the crop row: agricultural labourers and their kidneys", "agricultural labourers",
		"dehydration", "drinking water provision", "nephropathy", []string{"*Agricultural Labor Force", "*Fluid Intake"},
		"eng", "Journal Article", 2014},
	{"Mobile shade for seasonal workers in vineyards", "seasonal workers", "high ambient temperature",
		"shade tents and rest breaks", "renal function", []string{"Seasonal Employment/prevention"}, "eng",
		"Journal Article", 2023},
	{"Farmworkers, rest and renal function: a two-harvest cohort", "farmworkers", "occupational heat stress",
		"rest breaks", "renal function", []string{"*Agricultural Labor Force"}, "eng", "Journal Article", 2017},
	{"Water, rest and shade for sugarcane workers", "sugarcane workers", "heat exposure", "hydration and rest breaks",
		"chronic kidney disease of unknown origin", []string{"*Agricultural Labor Force", "*Heat Protection Programmes"},
		"eng", "Trial Report", 2020},
	{"Trabajadores del campo, calor y riñón", "seasonal workers", "heat stress", "hydration", "serum creatinine",
		[]string{"*Agricultural Labor Force"}, "spa", "Journal Article", 2016},
	{"Rural labourers and fluid loss: what drinking water changed", "rural labourers", "dehydration",
		"drinking water provision", "proteinuria", []string{"*Agricultural Labor Force", "Fluid Intake/prevention"}, "eng",
		"Journal Article", 2015},
	{"A rest programme on banana plantations", "plantation workers and farm workers", "heat strain", "rest breaks",
		"kidney function decline", []string{"Agricultural Labor Force/prevention"}, "eng", "Journal Article", 2021},
	{"Hydration coaching for farm workers: mixed methods", "farm workers", "heat illness", "hydration", "eGFR", nil,
		"eng", "Journal Article", 2025},
	{"Heat and the kidney in rice: agricultural workers followed for a year", "agricultural workers", "heat exposure",
		"rest breaks", "chronic kidney disease", []string{"*Agricultural Labor Force", "*Heat Illness"}, "eng",
		"Journal Article", 2018},
	{"Paid rest for piece-rate farmworkers", "piece-rate farmworkers", "heat strain", "rest breaks",
		"acute kidney injury", []string{"*Agricultural Labor Force"}, "eng", "Trial Report", 2024},
	{"Shade at noon: migrant workers in fruit and their creatinine", "migrant workers", "extreme heat", "shade tents",
		"serum creatinine", []string{"Seasonal Employment/statistics", "*Heat Protection Programmes"}, "eng",
		"Journal Article", 2022},
	{"Prevention of heat-related kidney injury: a review of farm programmes", "farm workers", "heat illness",
		"heat stress prevention", "kidney injury", []string{"*Agricultural Labor Force"}, "eng", "Review", 2023},
	// Dropped by a limit: the first by its language, the second by its type.
	{"Descanso, sombra e função renal em trabalhadores rurais", "farm workers", "heat stress", "rest breaks",
		"renal function", []string{"*Agricultural Labor Force"}, "por", "Journal Article", 2019},
	{"Letter: rest breaks for farmworkers should start early", "farmworkers", "heat stress", "rest breaks",
		"kidney injury", []string{"*Agricultural Labor Force"}, "eng", "Letter", 2018},
}

// elsewhere are key studies that Almagre does not hold: the first is in Surco, the second in Vilano, the
// third in both.
var elsewhere = []keySpec{
	{"Shade nets and kidney strain among hired pickers", "hired pickers", "heat exposure", "shade nets",
		"serum creatinine", []string{"Crop Harvesters", "Kidney Function"}, "eng", "Journal Article", 2016},
	{"A wearable to pace work in cane: engineering and first season", "cane cutters", "heat strain",
		"a wearable that paces work", "renal function", nil, "eng", "Journal Article", 2021},
	{"Drinking water points and renal function of farm workers: a stepped comparison", "farm workers", "dehydration",
		"drinking water points", "renal function", []string{"Agricultural Labor Force", "Fluid Intake"}, "eng",
		"Journal Article", 2019},
}

func (g *generator) keyStudies(specs []keySpec) []*bib.Record {
	var out []*bib.Record
	alone := func(s string) *entry { return &entry{written: []string{s}, weights: []int{1}} }
	beside := []string{"poor sleep", "low back pain", "noise", "pesticide exposure", "hypertension", "silica dust",
		"food insecurity", "fatigue"}
	others := []string{"construction workers", "miners", "soldiers", "firefighters", "runners", "bakery workers",
		"road crews"}
	second := []string{"heart rate", "core temperature", "productivity", "sick leave", "headache", "quality of life"}
	instead := []string{"a leaflet", "longer breaks at home", "text message reminders", "usual practice",
		"paid sick leave"}
	for i, spec := range specs {
		f := fields[0]
		w := &writer{generator: g, field: f, used: map[*entry]string{}, year: spec.year}
		w.pop, w.problem, w.measure, w.outcome = alone(spec.who), alone(spec.problem), alone(spec.measure),
			alone(spec.outcome)
		w.pop2, w.problem2, w.outcome2 = alone(others[i%len(others)]), alone(beside[i%len(beside)]),
			alone(second[i%len(second)])
		w.measure2 = alone(instead[i%len(instead)])
		w.setting()
		w.season = "harvest"
		r := &bib.Record{Title: spec.title, Year: spec.year, Abstract: w.abstract()}
		// What a strategy catches of it must not hang on which sentences were drawn.
		for low := ""; !strings.Contains(low, strings.ToLower(spec.who)) || !strings.Contains(low,
			strings.ToLower(spec.measure)); low = strings.ToLower(r.Abstract) {
			r.Abstract = w.abstract()
		}
		w.frame(r)
		r.Languages, r.Types = []string{spec.language}, []string{spec.kind, "JOUR"}
		r.Keywords = []string{spec.outcome, w.place}
		for _, h := range spec.headings {
			label, central := strings.CutPrefix(h, "*")
			label, qualifier, _ := strings.Cut(label, "/")
			a := bib.Assignment{Label: label, Central: central}
			if qualifier != "" {
				a.Qualifiers = []string{qualifier}
			}
			r.Headings = append(r.Headings, a)
		}
		if r.Indexed() {
			w.living(r)
		}
		out = append(out, r)
	}
	return out
}
