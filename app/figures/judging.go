package figures

import (
	"context"
	"crypto/sha256"
	"encoding/binary"
	"encoding/json"
	"errors"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/coverage"
	"tamiz/store"
)

// A JudgingQuestion asks for so many records of a set, drawn at random, to be judged by reading.
type JudgingQuestion struct {
	Of desk.RecordSet `json:"of"`
	N  int            `json:"n"`
}

// A Judging is the records of a set that were drawn, and what their judgements come to. The same set gives the same
// records; what was judged before, in whatever set, is not asked again.
type Judging struct {
	Total    int            `json:"total"`
	Records  []JudgedRecord `json:"records"`
	Relevant int            `json:"relevant"`
	Not      int            `json:"not"`
	Unsure   int            `json:"unsure"`
	// Of those that are relevant or not, with the 95 % interval; absent where none is judged.
	Share *Interval `json:"share,omitempty"`
	// Records to read for each relevant one; absent without any, its high end where it has none.
	ToRead *Interval `json:"toRead,omitempty"`
}

// A JudgedRecord is a record that was drawn; Verdict is empty while nobody has judged it. A key study that nobody
// judged is relevant.
type JudgedRecord struct {
	ID      int64  `json:"id"`
	Verdict string `json:"verdict,omitempty"`
	Key     bool   `json:"key,omitempty"`
}

// An Interval is a figure with its 95 % interval.
type Interval struct {
	Value float64  `json:"value"`
	Low   float64  `json:"low"`
	High  *float64 `json:"high,omitempty"`
}

const mostJudged = 500 // of one set

// Judging draws records of a set.
func (a *Service) Judging(ctx context.Context, at desk.At, q JudgingQuestion) (*Judging, error) {
	if q.N < 1 || q.N > mostJudged {
		return nil, problems.Invalid("n", "1 to %d records of a set are drawn.", mostJudged)
	}
	if err := a.desk.Quick.Take(ctx); err != nil {
		return nil, err
	}
	ids, err := a.desk.SetIDs(ctx, at, q.Of.Set)
	if err != nil {
		return nil, err
	}
	said, err := a.library.Judgements(ctx, at.Review)
	if err != nil {
		return nil, err
	}
	verdicts := map[int64]string{}
	for _, j := range said {
		verdicts[j.Record] = j.Verdict
	}
	keys, err := a.library.KeyStudies(ctx, at.Review)
	if err != nil {
		return nil, err
	}
	isKey := map[int64]bool{}
	for _, k := range keys {
		isKey[k.StoredRecord.ID] = true
	}
	seed, err := seedOf(at.Review, q.Of)
	if err != nil {
		return nil, err
	}
	out := &Judging{Total: len(ids), Records: []JudgedRecord{}}
	for _, id := range coverage.Few(ids, q.N, seed) {
		r := JudgedRecord{id, verdicts[id], isKey[id]}
		if r.Verdict == "" && r.Key {
			r.Verdict = relevant
		}
		switch r.Verdict {
		case relevant:
			out.Relevant++
		case "not":
			out.Not++
		case "unsure":
			out.Unsure++
		}
		out.Records = append(out.Records, r)
	}
	j := coverage.Judge(out.Relevant, out.Not, out.Unsure)
	if out.Relevant+out.Not > 0 {
		out.Share = &Interval{j.Share, j.Low, &j.High}
	}
	if out.Relevant > 0 {
		out.ToRead = &Interval{Value: j.ToRead, Low: j.ToReadLow}
		if j.ToReadHigh > 0 {
			out.ToRead.High = &j.ToReadHigh
		}
	}
	return out, nil
}

const relevant = "relevant"

// seedOf returns by which a set of a review is drawn from: the same set is always drawn alike.
func seedOf(review int64, of desk.RecordSet) (uint64, error) {
	body, err := json.Marshal(struct {
		Review int64
		Of     desk.RecordSet
	}{review, of})
	sum := sha256.Sum256(body)
	return binary.BigEndian.Uint64(sum[:]), err
}

// Judge keeps what a person says of a record: relevant, not or unsure; open takes it back.
func (a *Service) Judge(ctx context.Context, review, record int64, verdict string) error {
	switch verdict {
	case "open":
		verdict = ""
	case relevant, "not", "unsure":
	default:
		return problems.Invalid("verdict", "A record is relevant, not, or one is unsure.")
	}
	err := a.library.Judge(ctx, review, record, verdict, store.AuthorOf(ctx).Name)
	if errors.Is(err, store.ErrNone) {
		return problems.Gone(err, "record")
	}
	return err
}
