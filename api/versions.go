package api

import "context"

func (h Handlers) ListVersions(ctx context.Context, r ListVersionsRequestObject) (ListVersionsResponseObject, error) {
	list, err := h.app.Figures.Versions(ctx, at(r.Review, r.Params.Look))
	return ListVersions200JSONResponse(list), err
}

func (h Handlers) KeepVersion(ctx context.Context, r KeepVersionRequestObject) (KeepVersionResponseObject, error) {
	return KeepVersion204Response{}, h.app.Reviews.Keep(ctx, r.Review, *r.Body)
}

func (h Handlers) NameVersion(ctx context.Context, r NameVersionRequestObject) (NameVersionResponseObject, error) {
	return NameVersion204Response{}, h.app.Reviews.NameVersion(ctx, r.Review, r.Version, *r.Body)
}

func (h Handlers) ForgetVersion(
	ctx context.Context,
	r ForgetVersionRequestObject,
) (ForgetVersionResponseObject, error) {
	return ForgetVersion204Response{}, h.app.Reviews.ForgetVersion(ctx, r.Review, r.Version, !back(r.Params.Back))
}

func (h Handlers) GoBack(ctx context.Context, r GoBackRequestObject) (GoBackResponseObject, error) {
	step, err := h.app.Reviews.GoBack(ctx, r.Review, r.Version)
	return GoBack200JSONResponse(step), err
}

func (h Handlers) CompareVersions(
	ctx context.Context,
	r CompareVersionsRequestObject,
) (CompareVersionsResponseObject, error) {
	v, err := h.app.Figures.CompareVersions(ctx, at(r.Review, r.Params.Look), r.Params.Older, r.Params.Newer)
	if err != nil {
		return nil, err
	}
	return CompareVersions200JSONResponse(*v), nil
}

func (h Handlers) BetweenVersions(
	ctx context.Context,
	r BetweenVersionsRequestObject,
) (BetweenVersionsResponseObject, error) {
	v, err := h.app.Sources.BetweenVersions(ctx, r.Review, r.Params.Source, r.Params.Older, r.Params.Newer)
	if err != nil {
		return nil, err
	}
	return BetweenVersions200JSONResponse(*v), nil
}

func (h Handlers) CountVersion(ctx context.Context, r CountVersionRequestObject) (CountVersionResponseObject, error) {
	return CountVersion204Response{}, h.app.Sources.CountVersion(ctx, r.Review, r.Version, r.Params.Source)
}

func (h Handlers) BeginFrom(ctx context.Context, r BeginFromRequestObject) (BeginFromResponseObject, error) {
	head, err := h.app.Reviews.BeginFrom(ctx, r.Review, r.Version, *r.Body)
	return BeginFrom201JSONResponse(head), err
}
