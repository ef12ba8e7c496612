package api

import (
	"context"

	"tamiz/app/desk"
)

// WrittenLines, like all below, answers what the contract says.
func (h Handlers) WrittenLines(ctx context.Context, r WrittenLinesRequestObject) (WrittenLinesResponseObject, error) {
	v, err := h.app.Sources.Lines(ctx, desk.At{Review: r.Review}, r.Params.Source)
	if err != nil {
		return nil, err
	}
	return WrittenLines200JSONResponse(*v), nil
}

func (h Handlers) ReadLine(ctx context.Context, r ReadLineRequestObject) (ReadLineResponseObject, error) {
	v, err := h.app.Sources.ReadLine(ctx, desk.At{Review: r.Review}, r.Body.Text, said(r.Body.Before))
	if err != nil {
		return nil, err
	}
	return ReadLine200JSONResponse(*v), nil
}

func (h Handlers) TypedStrategy(
	ctx context.Context,
	r TypedStrategyRequestObject,
) (TypedStrategyResponseObject, error) {
	d, err := h.app.Dialects.Find(ctx, said(r.Body.Dialect), said(r.Body.Body))
	if err != nil {
		return nil, err
	}
	v, err := h.app.Figures.TypedIn(ctx, at(r.Review, r.Params.Look), d)
	if err != nil {
		return nil, err
	}
	return TypedStrategy200JSONResponse(*v), nil
}

func (h Handlers) StandIns(ctx context.Context, r StandInsRequestObject) (StandInsResponseObject, error) {
	d, err := h.app.Dialects.Find(ctx, said(r.Body.Dialect), said(r.Body.Body))
	if err != nil {
		return nil, err
	}
	v, err := h.app.Figures.StandInsOf(ctx, at(r.Review, r.Params.Look), d)
	if err != nil {
		return nil, err
	}
	return StandIns200JSONResponse(*v), nil
}

func (h Handlers) ExplainQuery(ctx context.Context, r ExplainQueryRequestObject) (ExplainQueryResponseObject, error) {
	among, err := h.app.Dialects.Choice(ctx, said(r.Body.Dialect))
	if err != nil {
		return nil, err
	}
	v, err := h.app.Figures.Explain(ctx, at(r.Review, r.Params.Look), r.Body.Text, among)
	if err != nil {
		return nil, err
	}
	return ExplainQuery200JSONResponse(*v), nil
}

func (h Handlers) Dialects(ctx context.Context, _ DialectsRequestObject) (DialectsResponseObject, error) {
	v, err := h.app.Dialects.All(ctx)
	if err != nil {
		return nil, err
	}
	return Dialects200JSONResponse(v), nil
}

func (h Handlers) SaveDialect(ctx context.Context, r SaveDialectRequestObject) (SaveDialectResponseObject, error) {
	v, err := h.app.Dialects.Save(ctx, r.Body.Body)
	if err != nil {
		return nil, err
	}
	return SaveDialect200JSONResponse(*v), nil
}

func (h Handlers) TryDialect(_ context.Context, r TryDialectRequestObject) (TryDialectResponseObject, error) {
	v, err := h.app.Dialects.Try(r.Body.Body)
	if err != nil {
		return nil, err
	}
	return TryDialect200JSONResponse(*v), nil
}

func (h Handlers) DeleteDialect(
	ctx context.Context,
	r DeleteDialectRequestObject,
) (DeleteDialectResponseObject, error) {
	if err := h.app.Dialects.Delete(ctx, r.Dialect); err != nil {
		return nil, err
	}
	return DeleteDialect204Response{}, nil
}

func (h Handlers) TakeCounterpart(
	ctx context.Context,
	r TakeCounterpartRequestObject,
) (TakeCounterpartResponseObject, error) {
	if err := h.app.Figures.TakeCounterpart(ctx, r.Review, *r.Body); err != nil {
		return nil, err
	}
	return TakeCounterpart204Response{}, nil
}
