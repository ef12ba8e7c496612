package api

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"time"

	"tamiz/app"
	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/reviews"
)

// Handlers answers the calls of the contract with what app does.
type Handlers struct{ app *app.App }

var _ StrictServerInterface = Handlers{}

func (h Handlers) Health(ctx context.Context, _ HealthRequestObject) (HealthResponseObject, error) {
	health, err := h.app.Health(ctx)
	return Health200JSONResponse(health), err
}

func (h Handlers) ListReviews(ctx context.Context, _ ListReviewsRequestObject) (ListReviewsResponseObject, error) {
	list, err := h.app.Reviews.Reviews(ctx)
	return ListReviews200JSONResponse(list), err
}

func (h Handlers) CreateReview(ctx context.Context, r CreateReviewRequestObject) (CreateReviewResponseObject, error) {
	head, err := h.app.Reviews.CreateReview(ctx, *r.Body)
	return CreateReview201JSONResponse(head), err
}

func (h Handlers) GetReview(ctx context.Context, r GetReviewRequestObject) (GetReviewResponseObject, error) {
	v, err := h.app.Reviews.Review(ctx, r.Review)
	if err != nil {
		return nil, err
	}
	return GetReview200JSONResponse(*v), nil
}

func (h Handlers) PatchReview(ctx context.Context, r PatchReviewRequestObject) (PatchReviewResponseObject, error) {
	head, err := h.app.Reviews.PatchReview(ctx, r.Review, *r.Body)
	return PatchReview200JSONResponse(head), err
}

func (h Handlers) MakeLook(ctx context.Context, r MakeLookRequestObject) (MakeLookResponseObject, error) {
	look, err := h.app.Desk.MakeLook(ctx, r.Review, *r.Body)
	return MakeLook200JSONResponse(look), err
}

func (h Handlers) GetLook(ctx context.Context, r GetLookRequestObject) (GetLookResponseObject, error) {
	look, err := h.app.Desk.Look(ctx, desk.At{Review: r.Review, Look: r.Look})
	return GetLook200JSONResponse(look), err
}

// at says of what a figure is asked.
func at(review int64, look *string) desk.At {
	if look == nil {
		return desk.At{Review: review}
	}
	return desk.At{Review: review, Look: *look}
}

func (h Handlers) Change(ctx context.Context, r ChangeRequestObject) (ChangeResponseObject, error) {
	revision, err := reviews.Revision(r.Params.IfMatch)
	if err != nil {
		return nil, err
	}
	step, err := h.app.Reviews.Change(ctx, r.Review, revision, *r.Body)
	return Change200JSONResponse(step), err
}

func (h Handlers) Undo(ctx context.Context, r UndoRequestObject) (UndoResponseObject, error) {
	state, err := h.app.Reviews.Undo(ctx, r.Review)
	return Undo200JSONResponse(state), err
}

func (h Handlers) Redo(ctx context.Context, r RedoRequestObject) (RedoResponseObject, error) {
	state, err := h.app.Reviews.Redo(ctx, r.Review)
	return Redo200JSONResponse(state), err
}

func (h Handlers) ImportFile(ctx context.Context, r ImportFileRequestObject) (ImportFileResponseObject, error) {
	again := r.Params.Again != nil && *r.Params.Again
	i, err := h.app.Intake.ImportFile(ctx, r.Review, string(r.Params.Kind), r.Params.Name, again, r.Body)
	return ImportFile202JSONResponse(i), err
}

func (h Handlers) GetImport(ctx context.Context, r GetImportRequestObject) (GetImportResponseObject, error) {
	i, err := h.app.Intake.Import(ctx, r.Import)
	return GetImport200JSONResponse(i), err
}

func (h Handlers) ListNotices(ctx context.Context, r ListNoticesRequestObject) (ListNoticesResponseObject, error) {
	list, err := h.app.Intake.Notices(ctx, r.Import)
	return ListNotices200JSONResponse(list), err
}

func (h Handlers) SaveNotices(ctx context.Context, r SaveNoticesRequestObject) (SaveNoticesResponseObject, error) {
	_, text, err := h.app.Intake.NoticesText(ctx, r.Import)
	return SaveNotices200TextResponse(text), err
}

func (h Handlers) Bench(ctx context.Context, r BenchRequestObject) (BenchResponseObject, error) {
	v, err := h.app.Figures.Bench(ctx, at(r.Review, r.Params.Look), *r.Body)
	if err != nil {
		return nil, err
	}
	return Bench200JSONResponse(*v), nil
}

func (h Handlers) Tally(ctx context.Context, r TallyRequestObject) (TallyResponseObject, error) {
	q := r.Params
	v, err := h.app.Figures.TallyIn(ctx, at(r.Review, q.Look), q.Facet, figures.Window{
		Words: said(q.Words), Sort: said(q.Sort), Down: said(q.Down), Most: said(q.Most),
		Records: figures.Bounds{
			From: q.RecordsFrom,
			To:   q.RecordsTo,
		}, Lift: figures.Bounds{From: q.LiftFrom, To: q.LiftTo}, Pull: figures.Bounds{From: q.PullFrom, To: q.PullTo},
	})
	if err != nil {
		return nil, err
	}
	return Tally200JSONResponse(*v), nil
}

func (h Handlers) Item(ctx context.Context, r ItemRequestObject) (ItemResponseObject, error) {
	v, err := h.app.Figures.Item(ctx, at(r.Review, r.Params.Look), r.Params.Facet, r.Params.Item)
	if err != nil {
		return nil, err
	}
	return Item200JSONResponse(*v), nil
}

func (h Handlers) CountWhole(ctx context.Context, r CountWholeRequestObject) (CountWholeResponseObject, error) {
	v, err := h.app.Sources.CountWhole(ctx, at(r.Review, r.Params.Look), *r.Body)
	if err != nil {
		return nil, err
	}
	return CountWhole200JSONResponse(*v), nil
}

func (h Handlers) Making(ctx context.Context, r MakingRequestObject) (MakingResponseObject, error) {
	v, err := h.app.Desk.Making(ctx, at(r.Review, r.Params.Look))
	if err != nil {
		return nil, err
	}
	return Making200JSONResponse(*v), nil
}

func (h Handlers) Suits(ctx context.Context, r SuitsRequestObject) (SuitsResponseObject, error) {
	v, err := h.app.Figures.Suits(ctx, at(r.Review, r.Params.Look), r.Params.Facet)
	if err != nil {
		return nil, err
	}
	return Suits200JSONResponse(*v), nil
}

func (h Handlers) Alike(ctx context.Context, r AlikeRequestObject) (AlikeResponseObject, error) {
	v, err := h.app.Figures.Alike(ctx, at(r.Review, r.Params.Look), *r.Body)
	if err != nil {
		return nil, err
	}
	return Alike200JSONResponse(*v), nil
}

func (h Handlers) HeadingTree(ctx context.Context, r HeadingTreeRequestObject) (HeadingTreeResponseObject, error) {
	v, err := h.app.Figures.HeadingTree(ctx, at(r.Review, r.Params.Look))
	if err != nil {
		return nil, err
	}
	return HeadingTree200JSONResponse(*v), nil
}

func (h Handlers) Teams(ctx context.Context, r TeamsRequestObject) (TeamsResponseObject, error) {
	v, err := h.app.Figures.Teams(ctx, at(r.Review, r.Params.Look))
	if err != nil {
		return nil, err
	}
	return Teams200JSONResponse(*v), nil
}

func (h Handlers) TryTerm(ctx context.Context, r TryTermRequestObject) (TryTermResponseObject, error) {
	v, err := h.app.Figures.TryTerm(ctx, at(r.Review, r.Params.Look), *r.Body)
	if err != nil {
		return nil, err
	}
	return TryTerm200JSONResponse(*v), nil
}

func (h Handlers) Coverage(ctx context.Context, r CoverageRequestObject) (CoverageResponseObject, error) {
	v, err := h.app.Figures.Coverage(ctx, at(r.Review, r.Params.Look))
	if err != nil {
		return nil, err
	}
	return Coverage200JSONResponse(*v), nil
}

func (h Handlers) Rescue(ctx context.Context, r RescueRequestObject) (RescueResponseObject, error) {
	v, err := h.app.Figures.Rescue(ctx, at(r.Review, r.Params.Look), r.Study)
	if err != nil {
		return nil, err
	}
	return Rescue200JSONResponse(*v), nil
}

func (h Handlers) BlindSpot(ctx context.Context, r BlindSpotRequestObject) (BlindSpotResponseObject, error) {
	v, err := h.app.Figures.BlindSpot(ctx, at(r.Review, r.Params.Look), r.Block)
	if err != nil {
		return nil, err
	}
	return BlindSpot200JSONResponse(*v), nil
}

func (h Handlers) Plan(ctx context.Context, r PlanRequestObject) (PlanResponseObject, error) {
	v, err := h.app.Figures.Plan(ctx, at(r.Review, r.Params.Look))
	if err != nil {
		return nil, err
	}
	return Plan200JSONResponse(*v), nil
}

func (h Handlers) Split(ctx context.Context, r SplitRequestObject) (SplitResponseObject, error) {
	state, err := h.app.Reviews.Split(ctx, r.Review, r.Params.Split)
	return Split200JSONResponse(state), err
}

func (h Handlers) Records(ctx context.Context, r RecordsRequestObject) (RecordsResponseObject, error) {
	v, err := h.app.Figures.Records(ctx, at(r.Review, r.Params.Look), *r.Body)
	if err != nil {
		return nil, err
	}
	return Records200JSONResponse(*v), nil
}

func (h Handlers) ReadRecord(ctx context.Context, r ReadRecordRequestObject) (ReadRecordResponseObject, error) {
	v, err := h.app.Figures.ReadRecord(ctx, at(r.Review, r.Params.Look), r.Record, r.Params.Facet, r.Params.Item)
	if err != nil {
		return nil, err
	}
	return ReadRecord200JSONResponse(*v), nil
}

func (h Handlers) Events(ctx context.Context, r EventsRequestObject) (EventsResponseObject, error) {
	return eventStream{ctx, h.app, r.Review}, nil
}

// eventStream sends the news of a review for as long as someone listens.
type eventStream struct {
	ctx    context.Context
	app    *app.App
	review int64
}

func (s eventStream) VisitEventsResponse(w http.ResponseWriter) error {
	w.Header().Set("Content-Type", "text/event-stream")
	w.Header().Set("Cache-Control", "no-store")
	out := http.NewResponseController(w)
	news := s.app.Jobs.Listen(s.ctx, s.review)
	beat := time.NewTicker(20 * time.Second)
	defer beat.Stop()
	send := func(line string) error {
		_ = out.SetWriteDeadline(time.Now().Add(bodyTime)) // who does not take it for so long has left
		if _, err := fmt.Fprint(w, line); err != nil {
			return err
		}
		return out.Flush()
	}
	if err := send(": listening\n\n"); err != nil {
		return nil
	}
	for {
		line := ": still here\n\n"
		select {
		case n, ok := <-news:
			if !ok {
				return nil
			}
			data, err := json.Marshal(n)
			if err != nil {
				return err
			}
			line = fmt.Sprintf("data: %s\n\n", data)
		case <-beat.C:
		}
		if send(line) != nil {
			return nil // whoever listened has left
		}
	}
}
