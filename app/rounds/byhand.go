package rounds

import (
	"cmp"
	"encoding/json"
	"slices"
	"strconv"
	"time"

	"tamiz/core/tally"
)

// ReadByHand is a journal whose contents are read by hand, volume by volume: those of the hand-search list first,
// also where nothing of them was brought yet.
type ReadByHand struct {
	Journal string       `json:"journal"`
	Note    string       `json:"note,omitempty"`
	Rounds  []int        `json:"rounds"`
	Volumes []VolumeRead `json:"volumes"` // the newest first
}

// VolumeRead is how far a volume of a journal was looked at, by whom and when.
type VolumeRead struct {
	Year    int        `json:"year"`
	Volume  string     `json:"volume,omitempty"` // where its records say it
	Works   int        `json:"works"`
	Judged  int        `json:"judged"`
	Belongs int        `json:"belongs"`
	Who     []string   `json:"who"`
	Last    *time.Time `json:"last,omitempty"` // when something of it was judged last
}

// byHand tells of the journals that rounds brought, and of those on the hand-search list.
func (v *view) byHand() ([]ReadByHand, error) {
	out := []ReadByHand{}
	at := map[string]int{}
	journal := func(key, name, note string) int {
		n, ok := at[key]
		if !ok {
			n = len(out)
			at[key] = n
			out = append(out, ReadByHand{Journal: name, Note: note, Rounds: []int{}, Volumes: []VolumeRead{}})
		}
		return n
	}
	for _, h := range v.desk.Document.HandSearch {
		journal(h.Journal, h.Name, h.Note)
	}
	of := map[int]int{} // the journal of a round, by its number
	for i, r := range v.rounds {
		if r.Way != Journal {
			continue
		}
		var asked Asked
		if err := json.Unmarshal(r.Asked, &asked); err != nil {
			return nil, err
		}
		n := journal(tally.JournalKey(asked.Name), asked.Name, "")
		of[i+1] = n
		out[n].Rounds = append(out[n].Rounds, i+1)
	}
	for i, w := range v.shown {
		done := map[int]bool{}
		for _, number := range w.Rounds {
			if n, ok := of[number]; ok && !done[n] {
				done[n] = true
				v.look(&out[n], i)
			}
		}
	}
	for n := range out {
		slices.SortFunc(out[n].Volumes, func(a, b VolumeRead) int {
			return cmp.Or(
				cmp.Compare(b.Year, a.Year),
				cmp.Compare(number(b.Volume), number(a.Volume)),
				cmp.Compare(b.Volume, a.Volume),
			)
		})
	}
	return out, nil
}

// look counts a work among the volumes of a journal.
func (v *view) look(j *ReadByHand, work int) {
	w, r := v.shown[work], v.works[work].record
	n := slices.IndexFunc(j.Volumes, func(x VolumeRead) bool { return x.Year == r.Year && x.Volume == r.Volume })
	if n < 0 {
		n = len(j.Volumes)
		j.Volumes = append(j.Volumes, VolumeRead{Year: r.Year, Volume: r.Volume, Who: []string{}})
	}
	x := &j.Volumes[n]
	if x.Works++; w.Verdict == "" {
		return
	}
	if x.Judged++; w.Verdict == isKey || w.Verdict == relevant {
		x.Belongs++
	}
	k, ok := v.known.works.Get(v.works[work].self)
	if !ok {
		return
	}
	said := v.known.said[k]
	if said.Who != "" && !slices.Contains(x.Who, said.Who) {
		x.Who = append(x.Who, said.Who)
	}
	if !said.Made.IsZero() && (x.Last == nil || said.Made.After(*x.Last)) {
		x.Last = &said.Made
	}
}

// number returns the number that a volume begins with, for its order.
func number(volume string) int {
	end := 0
	for end < len(volume) && volume[end] >= '0' && volume[end] <= '9' {
		end++
	}
	n, _ := strconv.Atoi(volume[:end]) // 0 where there is none
	return n
}
