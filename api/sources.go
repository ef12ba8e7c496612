package api

import (
	"context"

	"tamiz/app/figures"
)

func (h Handlers) ListSources(ctx context.Context, _ ListSourcesRequestObject) (ListSourcesResponseObject, error) {
	list, err := h.app.Sources.Sources(ctx)
	return ListSources200JSONResponse(list), err
}

func (h Handlers) AddSource(ctx context.Context, r AddSourceRequestObject) (AddSourceResponseObject, error) {
	s, err := h.app.Sources.AddSource(ctx, *r.Body)
	return AddSource201JSONResponse(s), err
}

func (h Handlers) ChangeSource(ctx context.Context, r ChangeSourceRequestObject) (ChangeSourceResponseObject, error) {
	s, err := h.app.Sources.ChangeSource(ctx, r.Source, *r.Body)
	return ChangeSource200JSONResponse(s), err
}

func (h Handlers) DeleteSource(ctx context.Context, r DeleteSourceRequestObject) (DeleteSourceResponseObject, error) {
	return DeleteSource204Response{}, h.app.Sources.DeleteSource(ctx, r.Source)
}

func (h Handlers) TrySource(ctx context.Context, r TrySourceRequestObject) (TrySourceResponseObject, error) {
	v, err := h.app.Sources.Try(ctx, r.Source, *r.Body)
	if err != nil {
		return nil, err
	}
	return TrySource200JSONResponse(*v), nil
}

func (h Handlers) Preview(ctx context.Context, r PreviewRequestObject) (PreviewResponseObject, error) {
	v, err := h.app.Draws.Preview(ctx, r.Source, *r.Body)
	if err != nil {
		return nil, err
	}
	return Preview200JSONResponse(*v), nil
}

func (h Handlers) Neighbours(ctx context.Context, r NeighboursRequestObject) (NeighboursResponseObject, error) {
	field := ""
	if r.Params.Field != nil {
		field = *r.Params.Field
	}
	list, err := h.app.Sources.Neighbours(ctx, r.Source, field, r.Params.Word)
	return Neighbours200JSONResponse(list), err
}

func (h Handlers) StemsAtSource(
	ctx context.Context,
	r StemsAtSourceRequestObject,
) (StemsAtSourceResponseObject, error) {
	list, err := h.app.Sources.Stems(ctx, r.Source, r.Params.Form)
	out := StemsAtSource200JSONResponse{}
	for _, t := range list {
		out = append(out, figures.StemOf(t))
	}
	return out, err
}

func (h Handlers) ListDraws(ctx context.Context, r ListDrawsRequestObject) (ListDrawsResponseObject, error) {
	list, err := h.app.Draws.Draws(ctx, r.Review)
	return ListDraws200JSONResponse(list), err
}

func (h Handlers) BeginDraw(ctx context.Context, r BeginDrawRequestObject) (BeginDrawResponseObject, error) {
	list, err := h.app.Draws.BeginDraw(ctx, r.Review, *r.Body)
	return BeginDraw202JSONResponse(list), err
}

func (h Handlers) StopDraw(ctx context.Context, r StopDrawRequestObject) (StopDrawResponseObject, error) {
	return StopDraw204Response{}, h.app.Draws.StopDraw(ctx, r.Review, r.Draw)
}

func (h Handlers) GoOn(ctx context.Context, r GoOnRequestObject) (GoOnResponseObject, error) {
	return GoOn204Response{}, h.app.Draws.GoOn(ctx, r.Review, r.Draw, r.Body.AtMost)
}

func (h Handlers) ListTroubles(ctx context.Context, r ListTroublesRequestObject) (ListTroublesResponseObject, error) {
	list, err := h.app.Draws.Troubles(ctx, r.Review, r.Draw)
	return ListTroubles200JSONResponse(list), err
}

func (h Handlers) CompareSamples(
	ctx context.Context,
	r CompareSamplesRequestObject,
) (CompareSamplesResponseObject, error) {
	c, err := h.app.Reviews.Compare(ctx, r.Review, *r.Body)
	return CompareSamples200JSONResponse(c), err
}

func (h Handlers) JoinSamples(ctx context.Context, r JoinSamplesRequestObject) (JoinSamplesResponseObject, error) {
	state, err := h.app.Reviews.Join(ctx, r.Review, *r.Body)
	return JoinSamples200JSONResponse(state), err
}

func (h Handlers) GetCounts(ctx context.Context, r GetCountsRequestObject) (GetCountsResponseObject, error) {
	c, err := h.app.Sources.Counts(ctx, at(r.Review, r.Params.Look), false)
	if err != nil {
		return nil, err
	}
	return GetCounts200JSONResponse(*c), nil
}

func (h Handlers) CountAgain(ctx context.Context, r CountAgainRequestObject) (CountAgainResponseObject, error) {
	c, err := h.app.Sources.Counts(ctx, at(r.Review, r.Params.Look), true)
	if err != nil {
		return nil, err
	}
	return CountAgain200JSONResponse(*c), nil
}

func (h Handlers) ListHoldings(ctx context.Context, r ListHoldingsRequestObject) (ListHoldingsResponseObject, error) {
	list, err := h.app.Holdings.Holdings(ctx, r.Review)
	return ListHoldings200JSONResponse(list), err
}

func (h Handlers) FindHoldings(ctx context.Context, r FindHoldingsRequestObject) (FindHoldingsResponseObject, error) {
	return FindHoldings204Response{}, h.app.Holdings.FindHoldings(ctx, r.Review)
}

func (h Handlers) SettleHolding(
	ctx context.Context,
	r SettleHoldingRequestObject,
) (SettleHoldingResponseObject, error) {
	return SettleHolding204Response{}, h.app.Holdings.Settle(ctx, r.Review, *r.Body)
}

func (h Handlers) LookUp(ctx context.Context, r LookUpRequestObject) (LookUpResponseObject, error) {
	list, err := h.app.Holdings.LookUp(ctx, r.Review, r.Body.Text)
	return LookUp200JSONResponse(list), err
}

func (h Handlers) AddKeyStudies(
	ctx context.Context,
	r AddKeyStudiesRequestObject,
) (AddKeyStudiesResponseObject, error) {
	state, err := h.app.Holdings.AddKeyStudies(ctx, r.Review, *r.Body)
	return AddKeyStudies200JSONResponse(state), err
}
