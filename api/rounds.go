package api

import (
	"context"

	"tamiz/app/rounds"
)

func (h Handlers) Rounds(ctx context.Context, r RoundsRequestObject) (RoundsResponseObject, error) {
	v, err := h.app.Rounds.Rounds(ctx, r.Review)
	return Rounds200JSONResponse(v), err
}

func (h Handlers) BeginRound(ctx context.Context, r BeginRoundRequestObject) (BeginRoundResponseObject, error) {
	return BeginRound204Response{}, h.app.Rounds.Begin(ctx, at(r.Review, r.Params.Look), *r.Body)
}

func (h Handlers) StopRound(ctx context.Context, r StopRoundRequestObject) (StopRoundResponseObject, error) {
	return StopRound204Response{}, h.app.Rounds.Stop(ctx, r.Review, r.Round)
}

func (h Handlers) ResumeRound(ctx context.Context, r ResumeRoundRequestObject) (ResumeRoundResponseObject, error) {
	return ResumeRound204Response{}, h.app.Rounds.GoOn(ctx, r.Review, r.Round)
}

func (h Handlers) LostReferences(
	ctx context.Context,
	r LostReferencesRequestObject,
) (LostReferencesResponseObject, error) {
	v, err := h.app.Rounds.Losts(ctx, r.Review, r.Round)
	return LostReferences200JSONResponse(v), err
}

func (h Handlers) Found(ctx context.Context, r FoundRequestObject) (FoundResponseObject, error) {
	w := rounds.Window{
		Show:  said(r.Params.Show),
		Order: said(r.Params.Order),
		Round: said(r.Params.Round),
		From:  said(r.Params.From),
		Most:  said(r.Params.Most),
	}
	v, err := h.app.Rounds.Found(ctx, at(r.Review, r.Params.Look), w)
	if err != nil {
		return nil, err
	}
	return Found200JSONResponse(*v), nil
}

func (h Handlers) FoundSays(ctx context.Context, r FoundSaysRequestObject) (FoundSaysResponseObject, error) {
	v, err := h.app.Rounds.Says(ctx, at(r.Review, r.Params.Look))
	if err != nil {
		return nil, err
	}
	return FoundSays200JSONResponse(*v), nil
}

func (h Handlers) FoundNetwork(ctx context.Context, r FoundNetworkRequestObject) (FoundNetworkResponseObject, error) {
	v, err := h.app.Rounds.Network(ctx, at(r.Review, r.Params.Look))
	if err != nil {
		return nil, err
	}
	return FoundNetwork200JSONResponse(*v), nil
}
