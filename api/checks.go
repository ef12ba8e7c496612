package api

import "context"

func (h Handlers) ListChecks(ctx context.Context, r ListChecksRequestObject) (ListChecksResponseObject, error) {
	list, err := h.app.PeerReview.Checks(ctx, r.Review)
	return ListChecks200JSONResponse(list), err
}

func (h Handlers) HandOver(ctx context.Context, r HandOverRequestObject) (HandOverResponseObject, error) {
	return HandOver204Response{}, h.app.PeerReview.HandOver(ctx, r.Review, *r.Body)
}

func (h Handlers) CheckSheet(ctx context.Context, r CheckSheetRequestObject) (CheckSheetResponseObject, error) {
	v, err := h.app.PeerReview.Sheet(ctx, at(r.Review, r.Params.Look), r.Check)
	if err != nil {
		return nil, err
	}
	return CheckSheet200JSONResponse(*v), nil
}

func (h Handlers) AnswerCheck(ctx context.Context, r AnswerCheckRequestObject) (AnswerCheckResponseObject, error) {
	return AnswerCheck204Response{}, h.app.PeerReview.Say(ctx, r.Review, r.Check, r.Question, *r.Body)
}

func (h Handlers) SuggestInCheck(
	ctx context.Context,
	r SuggestInCheckRequestObject,
) (SuggestInCheckResponseObject, error) {
	return SuggestInCheck204Response{}, h.app.PeerReview.Suggest(ctx, r.Review, r.Check, *r.Body)
}

func (h Handlers) DecideSuggestion(
	ctx context.Context,
	r DecideSuggestionRequestObject,
) (DecideSuggestionResponseObject, error) {
	return DecideSuggestion204Response{}, h.app.PeerReview.Decide(
		ctx,
		r.Review,
		r.Check,
		r.Suggestion,
		string(r.Body.State),
	)
}

func (h Handlers) FinishCheck(ctx context.Context, r FinishCheckRequestObject) (FinishCheckResponseObject, error) {
	return FinishCheck204Response{}, h.app.PeerReview.Finish(ctx, r.Review, r.Check, r.Body.Done)
}

func (h Handlers) DropCheck(ctx context.Context, r DropCheckRequestObject) (DropCheckResponseObject, error) {
	return DropCheck204Response{}, h.app.PeerReview.Drop(ctx, r.Review, r.Check, !back(r.Params.Back))
}

func (h Handlers) ListNotes(ctx context.Context, r ListNotesRequestObject) (ListNotesResponseObject, error) {
	list, err := h.app.PeerReview.Notes(ctx, r.Review)
	return ListNotes200JSONResponse(list), err
}

func (h Handlers) PutNote(ctx context.Context, r PutNoteRequestObject) (PutNoteResponseObject, error) {
	return PutNote204Response{}, h.app.PeerReview.Note(ctx, r.Review, *r.Body)
}

func (h Handlers) SettleNote(ctx context.Context, r SettleNoteRequestObject) (SettleNoteResponseObject, error) {
	return SettleNote204Response{}, h.app.PeerReview.Settle(ctx, r.Review, r.Note, r.Body.Settled)
}

func (h Handlers) DropNote(ctx context.Context, r DropNoteRequestObject) (DropNoteResponseObject, error) {
	return DropNote204Response{}, h.app.PeerReview.DropNote(ctx, r.Review, r.Note, !back(r.Params.Back))
}
